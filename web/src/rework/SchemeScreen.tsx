import {
  type GroundView,
  type KnownTaxon,
  type ReworkView,
  type SaidScheme,
  type SchemeView,
} from '@border/contract'
import { type Arrangement, type KindOf, type Place, type Point, stonesFor, withDrawn } from '@border/core'
import { useEffect, useMemo, useState, type ComponentProps } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { useParam } from '../frame/address.ts'
import { announce } from '../frame/Announced.tsx'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { UndoRedo } from '../frame/UndoRedo.tsx'
import { useTaxa } from '../plants/queries.ts'
import { AsItGrows } from './AsItGrows.tsx'
import { CarriedOut, useCanChange } from './canChange.ts'
import { keyedDrift } from './driftKeys.ts'
import { FromThePath } from './FromThePath.tsx'
import { KindsPanel } from './KindsPanel.tsx'
import { LayoutPanel } from './LayoutPanel.tsx'
import { LeavesPanel } from './LeavesPanel.tsx'
import { PointedBed } from './PointedBed.tsx'
import { useGround, useReworks } from './queries.ts'
import { ReckoningPanel } from './ReckoningPanel.tsx'
import { withArrangement } from './schemeDraft.ts'
import { useLayingOut } from './useLayingOut.ts'
import { ThroughTheYear } from './ThroughTheYear.tsx'
import { AtMoment } from './useMoment.tsx'
import { usePlace, useSchemeGround } from './useReworkPlace.ts'
import { AsGrown } from './useStanding.ts'
import { SideBySide } from './SideBySide.tsx'
import { StepsPanel } from './StepsPanel.tsx'
import { Lead, Name, SchemeTools, SheetLink } from './SchemeHead.tsx'
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
          <CarriedOut value={scheme.accepted !== null}>
            <OneScheme
              key={scheme.id}
              {...{ rework, scheme, place, ground, kindOf }}
              onScheme={chooseScheme}
            />
          </CarriedOut>
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
  { value: 'steps', label: 'Steps' },
] as const
type Part = (typeof PARTS)[number]['value']

const STAGES = [
  { value: 'plan', label: 'Plan' },
  { value: 'both', label: 'Both' },
  { value: 'path', label: 'From the path' },
  { value: 'year', label: 'Through the year' },
  { value: 'two', label: 'Side by side' },
] as const
type Stage = (typeof STAGES)[number]['value']

interface Props {
  rework: ReworkView
  scheme: SchemeView
  place: Place
  ground: GroundView
  kindOf: KindOf
  onScheme: (id: string) => void
}

function OneScheme({ rework, scheme, place, ground, kindOf, onScheme }: Props) {
  const { view } = useGardenContext()
  const canChange = useCanChange()
  const { id: gardenId } = view.garden
  const editor = useScheme(gardenId, rework.id, scheme)
  const { said, step } = editor
  const [partSaid, choosePart] = useParam('part')
  const part: Part = PARTS.find((p) => p.value === partSaid)?.value ?? 'leaves'
  const { bed, arranged, pockets, unknown, garden } = useSchemeGround(
    place,
    ground,
    { said, plantedIds: scheme.plantedIds },
    kindOf,
  )
  const [stageSaid, chooseStage] = useParam('as')
  const stages = STAGES.filter((s) => s.value !== 'two' || rework.schemes.length > 1)
  const stage: Stage = stages.find((s) => s.value === stageSaid)?.value ?? 'plan'
  const here = useMemo(() => view.plantings.filter((p) => p.placeId === place.id), [view.plantings, place.id])
  const [chosen, choose] = useState<string>()
  const [drawsFor, drawFor] = useState<string>()
  const put = (next: Arrangement) => step(withArrangement(said, bed, next, kindOf))
  const laying = useLayingOut(put)
  useUndoKeys(editor, canChange)
  const laid = { ground: bed, arranged, pockets, said, kindOf }
  const drawn = (at: Pick<ComponentProps<typeof PointedBed>, 'moment' | 'fillers'>) => (
    <PointedBed
      {...at}
      ground={bed}
      arranged={arranged}
      pockets={pockets}
      stones={said.stones}
      chosen={chosen}
      onChoose={(id) => {
        choose(id)
        if (id) choosePart('layout')
      }}
      onMoved={canChange ? put : undefined}
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
        const done = keyedDrift(bed, arranged, chosen, { key, shift, canChange })
        if (!done) return false
        if ('chosen' in done) choose(done.chosen)
        else put(done.arranged)
        return true
      }}
    />
  )
  return (
    <>
      <ScreenHead title={place.name} lead={<Lead {...{ editor, kindOf, unknown: unknown.length }} />}>
        <SchemeTools {...{ rework, scheme, editor, onScheme }} />
      </ScreenHead>
      <div className={`rework${stage === 'two' ? ' rework-wide' : ''}`}>
        <div className={`rework-stage stage-${stage}`}>
          <div className="rework-tools" role="toolbar" aria-label="What is said of the scheme">
            {canChange && <UndoRedo {...editor} />}
            {canChange && <Name said={said} onSay={(name) => step({ ...said, name })} />}
            {canChange && (
              <Stones
                said={said}
                lay={() => stonesFor(bed, arranged)}
                onSay={(stones) => step({ ...said, stones })}
              />
            )}
            <Segments
              label="How it is shown"
              value={stage}
              options={stages}
              onChange={(s) => chooseStage(s)}
            />
            <SheetLink reworkId={rework.id} schemeId={scheme.id} />
            <small className="soft" role="status">
              {scheme.accepted
                ? scheme.steps.open > 0
                  ? 'Being carried out: it is fixed.'
                  : 'Carried out: it is kept as it was.'
                : editor.isKeeping
                  ? 'Being kept…'
                  : 'Kept.'}
            </small>
          </div>
          {stage === 'plan' && drawn({})}
          {stage !== 'plan' && (
            <AtMoment>
              {(moment) => (
                <>
                  {stage === 'year' && (
                    <ThroughTheYear {...{ arranged, said, kindOf, here, moment }} ground={bed} />
                  )}
                  {stage === 'two' && (
                    <SideBySide {...{ rework, scheme, laid, place, ground, kindOf, moment }} />
                  )}
                  {(stage === 'both' || stage === 'path') && (
                    <AsGrown laid={laid} years={moment.years}>
                      {(grown) => (
                        <>
                          <FromThePath
                            {...{ laid, grown, chosen, moment }}
                            seenFromM={said.seenFromM}
                            plantedIds={scheme.plantedIds}
                          />
                          {stage === 'both' && drawn({ moment, fillers: grown.fillers })}
                        </>
                      )}
                    </AsGrown>
                  )}
                </>
              )}
            </AtMoment>
          )}
        </div>
        {/* Two take all the width; what is said of one of them is behind the other ways of showing it. */}
        {stage !== 'two' && (
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
              <>
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
                <AsItGrows
                  {...{ arranged, pockets, said, kindOf, garden }}
                  ground={bed}
                  onSay={(change) => step({ ...said, ...change })}
                />
              </>
            )}
            {part === 'steps' && (
              <StepsPanel rework={rework} scheme={scheme} isKeeping={editor.isKeeping} onChoose={choose} />
            )}
            {part === 'reckoning' && (
              <ReckoningPanel
                said={said}
                onSay={(change) => step({ ...said, ...change })}
                place={place}
                kindOf={kindOf}
                rework={rework}
                schemeId={scheme.id}
              />
            )}
          </aside>
        )}
      </div>
    </>
  )
}

/** Stepping stones by which all of it is in reach: laid where the drifts leave room, and kept until they are laid anew. */
function Stones({
  said: { stones },
  lay,
  onSay,
}: {
  said: SaidScheme
  lay: () => Point[]
  onSay: (stones: Point[] | undefined) => void
}) {
  const put = () => {
    const laid = lay()
    if (laid.length === 0) announce.done('All of it is in reach from its edge: no stone is needed.')
    else onSay(laid)
  }
  return (
    <>
      <label>
        <input
          type="checkbox"
          checked={stones !== undefined}
          onChange={(e) => (e.target.checked ? put() : onSay(undefined))}
        />{' '}
        Stepping stones
      </label>
      {stones && (
        <Button size="small" look="text" onClick={put}>
          Lay them anew
        </Button>
      )}
    </>
  )
}

/** Control z takes a step back, with Shift forward, wherever the hands are but in a field. */
function useUndoKeys({ undo, redo }: SchemeEditor, canChange: boolean): void {
  useEffect(() => {
    if (!canChange) return
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
  }, [undo, redo, canChange])
}
