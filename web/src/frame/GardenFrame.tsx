import type { GardenSummary, GardenView } from '@border/contract'
import { isAlive, usually } from '@border/core'
import { useQueryClient } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { useEffect, useRef } from 'react'
import { NavLink, Outlet, useLocation, useNavigate, useOutletContext, useParams } from 'react-router'
import { Link } from 'react-router'
import {
  errorText,
  useAssessment,
  useChangeSession,
  useGarden,
  useGardens,
  useSeason,
  useSignedIn,
  useSuspicions,
} from '../api/queries.ts'
import { onSent } from '../offline/sync.ts'
import { openVerdicts } from '../verdicts/inForce.ts'
import { useAsOf } from './asOf.ts'
import { useGardenClock } from './clock.ts'
import { SeasonRibbon } from './SeasonRibbon.tsx'
import { LAST_GARDEN, Waiting, Whole } from './Shell.tsx'

/** What every garden screen stands on. */
export interface GardenContext {
  view: GardenView
  /** Features on the plan on the as-of date. */
  standing: GardenView['features']
  on: string
  /** The garden's own day. */
  today: string
  /** The instant the garden stands at, milliseconds since 1970. */
  instantMs: () => number
  isHead: boolean
  isCrew: boolean
}

export const useGardenContext = () => useOutletContext<GardenContext>()

export function GardenFrame() {
  const { gardenId } = useParams() as { gardenId: string }
  const { data: gardens, error } = useGardens()
  const garden = gardens?.find((g) => g.id === gardenId)
  if (error) return <NotShown why={errorText(error)} />
  if (!gardens) return <Waiting />
  if (!garden) return <NotShown why="This garden was not found in your gardens." />
  return <Framed key={gardenId} garden={garden} />
}

function NotShown({ why }: { why: string }) {
  return (
    <Whole title="This garden cannot be shown">
      <p>{why}</p>
      <Link to="/" onClick={() => localStorage.removeItem(LAST_GARDEN)}>
        Go to your gardens
      </Link>
    </Whole>
  )
}

function Framed({ garden: { id: gardenId, timeZone } }: { garden: GardenSummary }) {
  const { today, instantMs } = useGardenClock(timeZone)
  const { on } = useAsOf(today)
  const { data: view, error } = useGarden(gardenId, on)
  useEffect(() => localStorage.setItem(LAST_GARDEN, gardenId), [gardenId])
  useFreshRecord(gardenId, today)
  if (error) return <NotShown why={errorText(error)} />
  if (!view) return <Waiting />
  const { role } = view.garden
  const context: GardenContext = {
    view,
    standing: view.features.filter((f) => isAlive(f, on)),
    on,
    today,
    instantMs,
    isHead: role === 'head',
    isCrew: role !== 'keeper',
  }
  return (
    <div className="frame">
      <GardenNav context={context} />
      <div className="frame-main">
        <Outlet context={context} />
      </div>
      <SeasonRibbon context={context} />
    </div>
  )
}

/** What the record says changes as what waited is sent; a walk itself is not read anew under one's hands. */
function useFreshRecord(gardenId: string, today: string): void {
  const client = useQueryClient()
  const day = useRef(today)
  useEffect(() => {
    if (day.current === today) return
    // A new day: what was told of yesterday is asked for anew.
    day.current = today
    void client.invalidateQueries({ queryKey: ['garden', gardenId] })
  }, [client, gardenId, today])
  useEffect(
    () =>
      onSent(() => {
        void client.invalidateQueries({
          predicate: ({ queryKey }) =>
            queryKey[0] === 'garden' && queryKey[1] === gardenId && queryKey[2] !== 'walk',
        })
      }),
    [client, gardenId],
  )
}

function GardenNav({ context }: { context: GardenContext }) {
  const { view, on, today } = context
  const { data: gardens } = useGardens()
  const session = useSignedIn()
  const change = useChangeSession()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  // Only the as-of date goes along from screen to screen.
  const search = on === today ? '' : `?on=${on}`
  const screen = pathname.split('/')[3] ?? 'light'
  const soilC = view.climate && Math.round(usually(view.climate.soilC, on))
  const options = [
    ...(gardens ?? [view.garden]).map((g) => ({ value: g.id, label: g.name })),
    ...(session.person.leads ? [{ value: 'new', label: 'Add a garden…' }] : []),
  ]
  return (
    <nav className="frame-nav" aria-label="Main">
      <Link className="frame-name" to="/">
        Seasoned <br className="frame-break" />
        Border
      </Link>
      <div className="frame-garden">
        <Select
          aria-label="Garden"
          variant="borderless"
          value={view.garden.id}
          options={options}
          popupMatchSelectWidth={false}
          onChange={(id) => void navigate(id === 'new' ? '/gardens/new' : `/g/${id}/${screen}${search}`)}
        />
        <small>
          {Math.abs(view.garden.latitude).toFixed(1)}° {view.garden.latitude < 0 ? 'S' : 'N'}
          {soilC !== null && ` · soil about ${soilC} °C${view.climate?.isSimulated ? ', simulated' : ''}`}
        </small>
      </div>
      <div className="frame-links">
        <Links gardenId={view.garden.id} search={search} on={on} />
      </div>
      <div className="frame-foot">
        {session.demoDate && (
          <>
            <span>
              {session.usesRealToday
                ? 'The demo stands at the real today.'
                : `The demo stands at a fixed day.`}
            </span>
            <Button
              type="link"
              size="small"
              onClick={() =>
                change.mutate({ name: 'setClock', body: { useRealToday: !session.usesRealToday } })
              }
            >
              {session.usesRealToday ? 'Stand at its own day' : `Use the real today`}
            </Button>
          </>
        )}
        <span>{session.person.name}</span>
        <Button type="link" size="small" onClick={() => change.mutate({ name: 'signOut' })}>
          Sign out
        </Button>
        <span className="visually-hidden">Today is {today}</span>
      </div>
    </nav>
  )
}

function Links({ gardenId, search, on }: { gardenId: string; search: string; on: string }) {
  const { data: assessment } = useAssessment(gardenId, on)
  const { data: season } = useSeason(gardenId)
  const outside = assessment?.assessments.filter((a) => a.outside).length
  const verdicts = assessment && openVerdicts(assessment, on).length
  const jobs = season?.jobs.filter((j) => j.state === 'open').length
  const { data: suspicions } = useSuspicions(gardenId)
  const links: [path: string, label: string, count?: number][] = [
    ['now', 'Now', suspicions?.suspicions.length],
    ['walk', 'Walk'],
    ['light', 'Light', outside],
    ['record', 'Record'],
    ['verdicts', 'Verdicts', verdicts],
    ['season', 'Season', jobs],
    ['plants', 'Plants'],
    ['plan', 'Plan'],
    ['set-up', 'Set-up'],
  ]
  return links.map(([path, label, count]) => (
    <NavLink key={path} to={{ pathname: `/g/${gardenId}/${path}`, search }}>
      {label} {count ? <i>{count}</i> : null}
    </NavLink>
  ))
}
