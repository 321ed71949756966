import type { GardenSummary } from '@border/contract'
import { featuresOn, usually, latitudeWords } from '@border/core'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router'
import { followGarden, useGardenVersions } from '../api/answers.ts'
import { useChangeSession, useGardens, useSignedIn } from '../api/session.ts'
import { onSent } from '../offline/sync.ts'
import { useSyncState } from '../offline/useSync.ts'
import { Answered, Offline } from './Answered.tsx'
import { useAsOf } from './asOf.ts'
import { Button } from './Button.tsx'
import { Choose } from './Choose.tsx'
import { useGardenClock } from './clock.ts'
import type { GardenContext } from './gardenContext.ts'
import { useGarden, useGardenNow } from './queries.ts'
import { SeasonRibbon } from './SeasonRibbon.tsx'
import { LAST_GARDEN } from './lastGarden.ts'
import { Whole } from './Whole.tsx'

export function GardenFrame() {
  const { gardenId } = useParams() as { gardenId: string }
  return (
    <Answered of={[useGardens()]} around={notShown}>
      {(gardens) => {
        const garden = gardens.find((g) => g.id === gardenId)
        return garden ? (
          <Framed key={gardenId} garden={garden} />
        ) : (
          notShown('This garden was not found in your gardens.')
        )
      }}
    </Answered>
  )
}

const notShown = (why: React.ReactNode) => (
  <Whole title="This garden cannot be shown">
    {why}
    <Link to="/" onClick={() => localStorage.removeItem(LAST_GARDEN)}>
      Go to your gardens
    </Link>
  </Whole>
)

function Framed({ garden: { id: gardenId, timeZone } }: { garden: GardenSummary }) {
  const { today, instantMs } = useGardenClock(timeZone)
  const { on } = useAsOf(today)
  const asOf = on === today ? undefined : on
  const asked = useGarden(gardenId, asOf)
  const { person } = useSignedIn()
  useEffect(() => localStorage.setItem(LAST_GARDEN, gardenId), [gardenId])
  useFollowed(gardenId, today)
  return (
    <Answered of={[asked]} around={notShown}>
      {(view) => {
        const { role } = view.garden
        const context: GardenContext = {
          view,
          standing: featuresOn(view.features, on),
          on,
          asOf,
          today,
          instantMs,
          isHead: role === 'head',
          isCrew: role !== 'keeper',
          preferences: person.preferences,
        }
        return (
          <div className="frame">
            <GardenNav context={context} />
            <div className="frame-main">
              <Offline since={asked.dataUpdatedAt} />
              <Outlet context={context} />
            </div>
            <SeasonRibbon context={context} />
          </div>
        )
      }}
    </Answered>
  )
}

/** What is told of a garden follows what changes in it: here, on other devices, by the day, and while nobody could be asked. */
function useFollowed(gardenId: string, today: string): void {
  const client = useQueryClient()
  useGardenVersions(gardenId)
  const day = useRef(today)
  useEffect(() => {
    if (day.current === today) return
    // A new day: what was told of yesterday is asked for anew.
    day.current = today
    void client.invalidateQueries({ queryKey: [gardenId] })
  }, [client, gardenId, today])
  useEffect(() => onSent(() => void followGarden(client, gardenId)), [client, gardenId])
  const { offline } = useSyncState()
  const wasOffline = useRef(offline)
  useEffect(() => {
    if (wasOffline.current && !offline) {
      void client.refetchQueries({ predicate: ({ state }) => state.error !== null })
      void followGarden(client, gardenId)
    }
    wasOffline.current = offline
  }, [client, gardenId, offline])
}

function GardenNav({ context }: { context: GardenContext }) {
  const { view, on, asOf, today } = context
  const { data: gardens } = useGardens()
  const session = useSignedIn()
  const change = useChangeSession()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  // Only the as-of date goes along from screen to screen.
  const search = asOf ? `?on=${asOf}` : ''
  const screen = pathname.split('/')[3] ?? 'light'
  const links = useRef<HTMLDivElement>(null)
  // On a phone the row of screens is wider than the page: the one that is open is in view.
  useEffect(() => {
    const row = links.current
    const open = row?.querySelector<HTMLElement>('[aria-current=page]')
    if (!row || !open) return
    const [of, at] = [row.getBoundingClientRect(), open.getBoundingClientRect()]
    row.scrollLeft += at.left + at.width / 2 - (of.left + of.width / 2)
  }, [screen])
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
        <Choose
          label="Garden"
          value={view.garden.id}
          options={options}
          onChange={(id) => void navigate(id === 'new' ? '/gardens/new' : `/g/${id}/${screen}${search}`)}
        />
        <small>
          {latitudeWords(view.garden.latitude, 1)}
          {soilC !== null && ` · soil about ${soilC} °C${view.climate?.isSimulated ? ', simulated' : ''}`}
        </small>
      </div>
      <div className="frame-links" ref={links}>
        <Links gardenId={view.garden.id} search={search} asOf={asOf} />
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
              look="link"
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
        <Button look="link" size="small" onClick={() => change.mutate({ name: 'signOut' })}>
          Sign out
        </Button>
        <span className="visually-hidden">Today is {today}</span>
      </div>
    </nav>
  )
}

function Links({ gardenId, search, asOf }: { gardenId: string; search: string; asOf: string | undefined }) {
  const { data: now } = useGardenNow(gardenId, asOf)
  const links: [path: string, label: string, count?: number][] = [
    ['now', 'Now', now?.suspicions],
    ['walk', 'Walk'],
    ['light', 'Light', now?.outside],
    ['record', 'Record'],
    ['verdicts', 'Verdicts', now?.openVerdicts],
    ['rework', 'Rework'],
    ['pots', 'Pots'],
    ['season', 'Season', now?.openJobs],
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
