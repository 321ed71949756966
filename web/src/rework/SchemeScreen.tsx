import {
  reworkEndpoints,
  type GroundView,
  type KnownTaxon,
  type RelocatedView,
  type ReworkView,
  type SaidScheme,
  type SchemeView,
} from '@border/contract'
import {
  capitalised,
  counted,
  stonesFor,
  suits,
  withDrawn,
  type Arrangement,
  type Place,
  type Point,
} from '@border/core'
import { Input } from 'antd'
import { useEffect, useMemo, useState, type ComponentProps } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { useParam } from '../frame/address.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { UndoRedo } from '../frame/UndoRedo.tsx'
import { useTaxa } from '../plants/queries.ts'
import { BedDrawing } from './BedDrawing.tsx'
import { keyedDrift } from './driftKeys.ts'
import { KindsPanel } from './KindsPanel.tsx'
import { LayoutPanel } from './LayoutPanel.tsx'
import { LeavesPanel } from './LeavesPanel.tsx'
import { useGround, usePrices, useRelocation, useReworks, useTray } from './queries.ts'
import { reckoned } from './reckoning.ts'
import { ReckoningPanel } from './ReckoningPanel.tsx'
import {
  groundKept,
  isLaidOut,
  kindsOf,
  schemeNames,
  staysOf,
  withArrangement,
  type KindOf,
} from './schemeDraft.ts'
import { useLayingOut } from './useLayingOut.ts'
import { usePlace, useSchemeGround } from './useReworkPlace.ts'
import { useScheme, type SchemeEditor } from './useScheme.ts'
import './rework.css'

/** One place decided anew: its schemes, each with what leaves, what comes in, where it lies and what it takes. */
export function SchemeScreen() {
  const { view } = useGardenContext()
  const { reworkId } = useParams() as { reworkId: string }
  return (
    <Answered of={[useReworks(view.garden.id), useTaxa()]} title="Rework">
      {(reworks, taxa) => {
        const rework = reworks.find((r) => r.id === reworkId)
        return rework ? (
          <OfPlace key={rework.id} rework={rework} taxa={taxa} />
        ) : (
          <NotThere>This rework is not there any more.</NotThere>
        )
      }}
    </Answered>
  )
}

function NotThere({ children }: { children: React.ReactNode }) {
  const { search } = useLocation()
  return (
    <>
      <ScreenHead title="Rework" />
      <div className="screen-body">
        <p>
          {children} <Link to={{ pathname: '../rework', search }}>All reworks</Link>
        </p>
      </div>
    </>
  )
}

function OfPlace({ rework, taxa }: { rework: ReworkView; taxa: readonly KnownTaxon[] }) {
  const { view } = useGardenContext()
  const place = usePlace(rework.placeId)
  const kindOf: KindOf = useMemo(() => new Map(taxa.map((t) => [t.botanical, t])), [taxa])
  const [schemeId, chooseScheme] = useParam('scheme')
  const scheme = rework.schemes.find((s) => s.id === schemeId) ?? rework.schemes[0]
  const ground = useGround(view.garden.id, rework.placeId, place !== undefined)
  if (!place) return <NotThere>The place that was to be decided anew is not there any more.</NotThere>
  return (
    <Answered of={[ground]} title={place.name} waiting="The light is worked out…">
      {(ground) =>
        scheme ? (
          <OneScheme key={scheme.id} {...{ rework, scheme, place, ground, kindOf }} onScheme={chooseScheme} />
        ) : (
          <NotThere>No scheme of {place.name} is left.</NotThere>
        )
      }
    </Answered>
  )
}

const PARTS = [
  { value: 'leaves', label: 'Stays or goes' },
  { value: 'kinds', label: 'Comes in' },
  { value: 'layout', label: 'Layout' },
  { value: 'reckoning', label: 'Quantities' },
] as const
type Part = (typeof PARTS)[number]['value']

interface Props {
  rework: ReworkView
  scheme: SchemeView
  place: Place
  ground: GroundView
  kindOf: KindOf
  onScheme: (id: string) => void
}

function OneScheme({ rework, scheme, place, ground, kindOf, onScheme }: Props) {
  const { view, isHead } = useGardenContext()
  const { id: gardenId } = view.garden
  const editor = useScheme(gardenId, rework.id, scheme)
  const { said, step } = editor
  const [partSaid, choosePart] = useParam('part')
  const part: Part = PARTS.find((p) => p.value === partSaid)?.value ?? 'leaves'
  const { bed, arranged, pockets, unknown, garden, staysM2 } = useSchemeGround(place, ground, said, kindOf)
  const [chosen, choose] = useState<string>()
  const [drawsFor, drawFor] = useState<string>()
  const [hasStones, showStones] = useParam('stones')
  const stones = useMemo(() => (hasStones ? stonesFor(bed, arranged) : undefined), [hasStones, bed, arranged])
  const put = (next: Arrangement) => step(withArrangement(said, bed, next, kindOf))
  const laying = useLayingOut(put)
  const { totals, allTotals } = useTotals(rework, said, scheme.id, kindOf, place)
  useUndoKeys(editor)
  return (
    <>
      <ScreenHead title={place.name} lead={<Lead {...{ editor, kindOf, unknown: unknown.length }} />}>
        <SchemeTools {...{ rework, scheme, editor, onScheme }} />
      </ScreenHead>
      <div className="rework">
        <div className="rework-stage">
          <div className="rework-tools" role="toolbar" aria-label="What is said of the scheme">
            {isHead && <UndoRedo {...editor} />}
            {isHead && <Name said={said} onSay={(name) => step({ ...said, name })} />}
            <label>
              <input
                type="checkbox"
                checked={hasStones !== undefined}
                onChange={(e) => showStones(e.target.checked ? 'shown' : undefined)}
              />{' '}
              Stepping stones
            </label>
            <SheetLink reworkId={rework.id} schemeId={scheme.id} />
            <small className="soft" role="status">
              {editor.isKeeping ? 'Being kept…' : 'Kept.'}
            </small>
          </div>
          <PointedBed
            ground={bed}
            arranged={arranged}
            pockets={pockets}
            stones={stones}
            chosen={chosen}
            onChoose={(id) => {
              choose(id)
              if (id) choosePart('layout')
            }}
            onMoved={isHead ? put : undefined}
            onDrawn={
              drawsFor
                ? (ring) => {
                    const taxon = kindOf.get(drawsFor)
                    if (!taxon || ring.length < 3) return
                    put(withDrawn(bed, arranged, { id: crypto.randomUUID(), taxon, count: 1 }, ring))
                  }
                : undefined
            }
            garden={garden}
            onKey={(key, shift) => {
              const done = keyedDrift(bed, arranged, chosen, { key, shift, canChange: isHead })
              if (!done) return false
              if ('chosen' in done) choose(done.chosen)
              else put(done.arranged)
              return true
            }}
          />
        </div>
        <aside className="rework-aside" aria-label="The scheme">
          <div className="rework-parts">
            <Segments
              label="Part of the scheme"
              wide
              value={part}
              options={PARTS}
              onChange={(p) => choosePart(p)}
            />
          </div>
          {part === 'leaves' && <LeavesPanel place={place} editor={editor} />}
          {part === 'kinds' && <KindsPanel place={place} editor={editor} kindOf={kindOf} />}
          {part === 'layout' && (
            <LayoutPanel
              ground={bed}
              arranged={arranged}
              said={said}
              onSay={(change) => step({ ...said, ...change })}
              onArranged={put}
              laying={laying}
              chosen={chosen}
              onChoose={choose}
              garden={garden}
              drawsFor={drawsFor}
              onDrawFor={drawFor}
            />
          )}
          {part === 'reckoning' && (
            <ReckoningPanel
              said={said}
              onSay={(change) => step({ ...said, ...change })}
              totals={totals}
              place={place}
              plantedM2={Math.max(0, place.areaM2 - staysM2)}
              rework={rework}
              allTotals={allTotals}
            />
          )}
        </aside>
      </div>
    </>
  )
}

/** Control z takes a step back, with Shift forward, wherever the hands are but in a field. */
function useUndoKeys({ undo, redo }: SchemeEditor): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || (e.target as HTMLElement).closest('input, textarea')) return
      const key = e.key.toLowerCase()
      const does = key === 'y' || (key === 'z' && e.shiftKey) ? redo : key === 'z' ? undo : undefined
      if (!does) return
      e.preventDefault()
      does()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [undo, redo])
}

/** What this scheme takes, and every other one of the place. */
function useTotals(
  rework: ReworkView,
  said: SaidScheme,
  schemeId: string,
  kindOf: KindOf,
  { id: placeId, areaM2: bedM2 }: Place,
) {
  const { view } = useGardenContext()
  const { plantings } = view
  const relocation = useRelocation(view.garden.id, said)
  const { data: offers = [] } = usePrices()
  const tray = useTray(view.garden.id, placeId, said, kindsOf(said))
  const inHand = tray.data?.inHand ?? []
  const totalsOf = (of: SaidScheme, relocated: RelocatedView | undefined) =>
    reckoned(of, kindOf, {
      plantings,
      relocated,
      offers,
      bedM2,
      staysM2: groundKept(staysOf(plantings, placeId, of)),
      inHand,
    })
  const totals = totalsOf(said, relocation.data)
  // Of the others what leaves is taken to be moved, until somebody looks at them.
  const allTotals = rework.schemes.map((s) => (s.id === schemeId ? totals : totalsOf(s.said, undefined)))
  return { totals, allTotals }
}

function Lead({
  editor: { said },
  kindOf,
  unknown,
}: {
  editor: SchemeEditor
  kindOf: KindOf
  unknown: number
}) {
  const leaves = said.leaving.filter((l) => l.how === 'leaves').length
  const kinds = kindsOf(said).filter((k) => kindOf.has(k.botanical))
  const plants = kinds.reduce((sum, k) => sum + k.count, 0)
  const next = kinds.length === 0 ? 'Next: which kinds come in.' : isLaidOut(said) ? '' : 'Next: lay it out.'
  return (
    <>
      {leaves === 0
        ? 'Nothing leaves'
        : `${counted(leaves, 'planting')} ${leaves === 1 ? 'leaves' : 'leave'}`}
      ;{' '}
      {kinds.length === 0
        ? 'nothing comes in yet'
        : `${counted(plants, 'plant')} of ${counted(kinds.length, 'kind')} come in`}
      .{' '}
      {unknown > 0 &&
        `${counted(unknown, 'drift')} of kinds that are no longer in the plant library ${unknown === 1 ? 'is' : 'are'} not drawn. `}
      {next}
    </>
  )
}

const SheetLink = ({ reworkId, schemeId }: { reworkId: string; schemeId: string }) => {
  const { search } = useLocation()
  const params = new URLSearchParams(search)
  params.set('scheme', schemeId)
  params.delete('part')
  return <Link to={{ pathname: `../rework/${reworkId}/sheet`, search: `?${params}` }}>Planting sheet</Link>
}

/** What a scheme is called: said once it is left, or Enter is pressed. */
function Name({ said: { name }, onSay }: { said: SaidScheme; onSay: (name: string) => void }) {
  const [typed, setTyped] = useState<string>()
  const say = () => {
    setTyped(undefined)
    if (typed?.trim() && typed.trim() !== name) onSay(typed.trim())
  }
  return (
    <Input
      size="small"
      className="rework-name"
      aria-label="What the scheme is called"
      value={typed ?? name}
      maxLength={120}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={say}
      onPressEnter={say}
    />
  )
}

const LETTERS = 'ABCDEF'

/** Which scheme is looked at; another beside it, as this one is or from nothing. */
function SchemeTools({
  rework,
  scheme,
  editor: { said },
  onScheme,
}: {
  rework: ReworkView
  scheme: SchemeView
  editor: SchemeEditor
  onScheme: (id: string) => void
}) {
  const { view, isHead } = useGardenContext()
  const { search } = useLocation()
  const params = { gardenId: view.garden.id, reworkId: rework.id }
  const add = useGardenWrite(reworkEndpoints.addScheme, params, 'Another scheme, as this one is.')
  const withdraw = useGardenWrite(
    reworkEndpoints.withdrawScheme,
    { ...params, schemeId: scheme.id },
    'The scheme is taken away.',
  )
  const names = schemeNames(rework.schemes)
  return (
    <>
      {rework.schemes.length > 1 && (
        <Segments
          label="Scheme"
          value={scheme.id}
          options={rework.schemes.map((s, i) => ({ value: s.id, label: names[i]! }))}
          onChange={onScheme}
        />
      )}
      {isHead && (
        <>
          <Button
            size="small"
            loading={add.isPending}
            onClick={() => {
              const id = crypto.randomUUID()
              const name = `Scheme ${LETTERS[rework.schemes.length] ?? rework.schemes.length + 1}`
              add.mutate({ id, said: { ...said, name } }, { onSuccess: () => onScheme(id) })
            }}
          >
            Another like this
          </Button>
          {rework.schemes.length > 1 && (
            <Button size="small" look="text" danger onClick={() => withdraw.mutate({})}>
              Take this away
            </Button>
          )}
        </>
      )}
      <Link to={{ pathname: '../rework', search: withoutScheme(search) }}>All reworks</Link>
    </>
  )
}

const withoutScheme = (search: string): string => {
  const params = new URLSearchParams(search)
  params.delete('scheme')
  params.delete('part')
  return params.size > 0 ? `?${params}` : ''
}

/** The bed, and below it what is under the pointer: nothing else is drawn anew while that goes over it. */
function PointedBed({
  garden,
  ...bed
}: Omit<ComponentProps<typeof BedDrawing>, 'onPoint'> & Pick<ReturnType<typeof useSchemeGround>, 'garden'>) {
  const [at, setAt] = useState<Point>()
  return (
    <>
      <BedDrawing {...bed} onPoint={setAt} />
      <div className="rework-under" aria-live="off">
        <UnderPointer {...{ at, garden }} bed={bed.ground} arranged={bed.arranged} chosen={bed.chosen} />
      </div>
    </>
  )
}

/** What is under the pointer: the ground, and how the drift in hand, or the one there, would do on it. */
function UnderPointer({
  at,
  bed,
  arranged,
  garden,
  chosen,
}: {
  at: Point | undefined
  chosen: string | undefined
} & Pick<ReturnType<typeof useSchemeGround>, 'bed' | 'arranged' | 'garden'>) {
  if (!at) return <span className="soft">Point at the bed to see what a spot offers.</span>
  const { stations, place } = bed.of
  let c = -1
  let least = bed.cellM
  stations.forEach((s, i) => {
    const away = Math.hypot(s.x - at[0], s.y - at[1])
    if (away < least) {
      least = away
      c = i
    }
  })
  const station = stations[c]
  if (!station) return <span className="soft">Beside the bed.</span>
  const there = arranged.drifts[arranged.has[c]!]
  const of = arranged.drifts.find((d) => d.id === chosen) ?? there
  return (
    <>
      {station.hours.total.toFixed(1)} h of sun here{there ? `, in the drift of ${there.taxon.common}` : ''}.{' '}
      {of && (
        <>
          {capitalised(of.taxon.common)}: {suits(of.taxon, place, station, garden).reason}.
        </>
      )}
    </>
  )
}
