import type {
  AssessmentView,
  PlantingView,
  RelocatedView,
  SaidDestination,
  SaidScheme,
} from '@border/contract'
import {
  capitalised,
  counted,
  listed,
  MOST_LEAVING,
  plantingDivided,
  sharedOut,
  usualWorth,
  waysOut,
  type Place,
} from '@border/core'
import { use, useState } from 'react'
import { errorText } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { Answered } from '../frame/Answered.tsx'
import { useAssessment } from '../verdicts/queries.ts'
import { CarriedOut, useCanChange } from './canChange.ts'
import { Figure } from '../frame/Figure.tsx'
import { leavesIn, useRelocation, useStopRelocation, useWays } from './queries.ts'
import { destinationWords, leavingWords, pointsWords, wayWords } from './reworkWords.ts'
import { leavingByVerdicts } from './schemeDraft.ts'
import type { SchemeEditor } from './useScheme.ts'
import './rework.css'
import { KindName } from '../frame/KindName.tsx'

type Leaving = SaidScheme['leaving'][number]
type How = 'stays' | Leaving['how']

interface Props {
  place: Place
  editor: SchemeEditor
}

/** What stays, leaves or is divided, and where what leaves goes. */
export function LeavesPanel({ place, editor }: Props) {
  const { view, asOf } = useGardenContext()
  const here = view.plantings.filter((p) => p.placeId === place.id)
  return (
    <Answered of={[useAssessment(view.garden.id, asOf)]} waiting="The plants are judged…">
      {(assessed) => <Leaves place={place} editor={editor} here={here} assessed={assessed} />}
    </Answered>
  )
}

function Leaves({
  place,
  editor: { said, step },
  here,
  assessed,
}: Props & { here: readonly PlantingView[]; assessed: AssessmentView }) {
  const { view, on } = useGardenContext()
  const canChange = useCanChange()
  const isCarriedOut = use(CarriedOut)
  const relocation = useRelocation(view.garden.id, said)
  const stop = useStopRelocation(view.garden.id, said)
  const proposed = leavingByVerdicts(place.id, view.plantings, assessed, on)
  const put = (plantingId: string, change: Partial<Leaving> | null) => {
    const before = said.leaving.find((l) => l.plantingId === plantingId)
    const rest = said.leaving.filter((l) => l.plantingId !== plantingId)
    const planting = here.find((p) => p.id === plantingId)!
    const { worth } = usualWorth(planting, view.plantings, on)
    const next = { plantingId, how: 'leaves' as const, to: null, worth, ...before, ...change }
    step({ ...said, leaving: change ? [...rest, next] : rest })
  }
  const gone = said.leaving.filter((l) => !here.some((p) => p.id === l.plantingId))
  if (here.length === 0) return <p className="soft">Nothing stands here. Go on to the kinds.</p>
  return (
    <>
      {canChange && proposed.length > 0 && !isAsProposed(said.leaving, proposed) && (
        <p>
          By the verdicts {leavingWords(proposed)}.{' '}
          <Button size="small" onClick={() => step({ ...said, leaving: proposed })}>
            Begin from the verdicts
          </Button>
        </p>
      )}
      {!isCarriedOut && gone.length > 0 && (
        <p role="alert">
          {counted(gone.length, 'planting')} of this scheme no longer {gone.length === 1 ? 'stands' : 'stand'}{' '}
          here.{' '}
          <Button
            size="small"
            onClick={() => step({ ...said, leaving: said.leaving.filter((l) => !gone.includes(l)) })}
          >
            Leave {gone.length === 1 ? 'it' : 'them'} out
          </Button>
        </p>
      )}
      {leavesIn(said).length > MOST_LEAVING && (
        <p role="alert">
          Where things go is worked out for no more than {MOST_LEAVING} plantings at once:{' '}
          {leavesIn(said).length} are to leave here. Rework a part of the place first, or decide it in two
          turns.
        </p>
      )}
      {relocation.isFetching && (
        <div className="row">
          <progress aria-label="Where things go is being worked out" />
          <Button size="small" onClick={stop}>
            Stop
          </Button>
        </div>
      )}
      {!relocation.isFetching && !relocation.data && relocation.isEnabled && (
        <p role="alert">
          Where things go is not worked out{relocation.error && `: ${errorText(relocation.error)}`}.{' '}
          <Button size="small" onClick={() => void relocation.refetch()}>
            Work it out
          </Button>
        </p>
      )}
      {!isCarriedOut && relocation.data?.ok === false && <Conflict answer={relocation.data} />}
      <ul className="rework-list" aria-label="What stands here">
        {here.map((p) => {
          const leaving = said.leaving.find((l) => l.plantingId === p.id)
          return (
            <PlantingRow
              key={p.id}
              planting={p}
              leaving={leaving}
              said={said}
              verdict={assessed.assessments.find((a) => a.plantingId === p.id)?.verdict.action}
              relocated={relocation.data}
              isPending={relocation.isFetching}
              onHow={(how) => put(p.id, how === 'stays' ? null : { how })}
              onTo={(to) => put(p.id, { to })}
              onWorth={(worth) => put(p.id, { worth })}
              onMeasured={(change) => put(p.id, change)}
            />
          )
        })}
      </ul>
      {relocation.data?.ok && (
        <small className="soft">
          Where things go is weighed over the whole garden: a hundred points are what losing a usual planting
          costs; a move costs its lifting and what the spot lacks. Together this is{' '}
          {Math.round(relocation.data.cost)} points, proved to be the least to{' '}
          {(100 * relocation.data.gap).toFixed(2)} %.
        </small>
      )}
    </>
  )
}

const isAsProposed = (leaving: readonly Leaving[], proposed: readonly Leaving[]): boolean =>
  leaving.length === proposed.length &&
  proposed.every((p) => leaving.some((l) => l.plantingId === p.plantingId && l.how === p.how))

/** Which decisions leave no room for each other. */
function Conflict({ answer: { says, noRoom } }: { answer: Extract<RelocatedView, { ok: false }> }) {
  const { view } = useGardenContext()
  const names = noRoom.map((id) => {
    const planting = view.plantings.find((p) => p.id === id)
    return planting ? `${planting.taxon.common} ${planting.tag}` : 'a planting that is gone'
  })
  return (
    <p role="alert">
      {says}
      {names.length > 0 &&
        ` It is about ${listed(names)}: decide ${names.length === 1 ? 'it' : 'one of them'} otherwise.`}
    </p>
  )
}

const WORTHS = [
  { value: '0.5', label: 'not much' },
  { value: '1', label: 'as usual' },
  { value: '2', label: 'more than usual' },
  { value: '3', label: 'a lot' },
  { value: '4', label: 'very much' },
  { value: '5', label: 'must not be lost' },
] as const

interface RowProps {
  planting: PlantingView
  leaving: Leaving | undefined
  said: SaidScheme
  verdict: string | undefined
  relocated: RelocatedView | undefined
  isPending: boolean
  onHow: (how: How) => void
  onTo: (to: SaidDestination | null) => void
  onWorth: (worth: number) => void
  onMeasured: (change: Partial<Leaving>) => void
}

function PlantingRow({ planting: p, leaving, verdict, relocated, said, isPending, ...says }: RowProps) {
  const { view, on } = useGardenContext()
  const canChange = useCanChange()
  const placeName = usePlaceName()
  const [isAsking, setAsking] = useState(false)
  const { reasons } = usualWorth(p, view.plantings, on)
  const how: How = leaving?.how ?? 'stays'
  const went = relocated?.ok ? relocated.went.find((w) => w.plantingId === p.id) : undefined
  return (
    <li className="rework-row">
      <span>
        <KindName of={p.taxon} isShort />{' '}
        <small>
          {p.tag} · {p.livingCount}
          {verdict && ` · verdict: ${verdict}`}
        </small>
      </span>
      {canChange ? (
        <Segments
          label={`What becomes of ${p.tag}`}
          value={how}
          options={[
            { value: 'stays', label: 'Stays' },
            { value: 'leaves', label: 'Leaves' },
            { value: 'divides', label: 'Divided', disabled: !p.taxon.divideHow },
          ]}
          onChange={says.onHow}
        />
      ) : (
        <span>{how}</span>
      )}
      {how === 'divides' && leaving && (
        <DividedHere planting={p} leaving={leaving} said={said} onMeasured={says.onMeasured} />
      )}
      {how === 'leaves' && (
        <div className="rework-more">
          {went ? (
            <small>
              It {destinationWords(went.destination, placeName, p.placeId)}
              {leaving?.to && ', as you decided'}
              {went.suiting && `: ${went.suiting.reason}`}.
            </small>
          ) : (
            <small className="soft">{isPending ? 'Where it could go is being worked out…' : ''}</small>
          )}
          {canChange && (
            <div className="row">
              <Button size="small" aria-expanded={isAsking} onClick={() => setAsking(!isAsking)}>
                {isAsking ? 'Close' : 'Send it elsewhere…'}
              </Button>
              {leaving?.to && (
                <Button size="small" look="text" onClick={() => says.onTo(null)}>
                  As is best
                </Button>
              )}
              <label>
                <small>Worth </small>
                <Choose
                  label={`What ${p.tag} is worth to keep`}
                  value={String(leaving?.worth ?? 1)}
                  options={WORTHS}
                  onChange={(w) => says.onWorth(Number(w))}
                />
              </label>
            </div>
          )}
          {reasons.length > 0 && <small className="soft">Speaks for it: {reasons.join('; ')}.</small>}
          {isAsking && (
            <Ways
              planting={p}
              said={said}
              onTo={(to) => {
                says.onTo(to)
                setAsking(false)
              }}
            />
          )}
        </div>
      )}
    </li>
  )
}

const SURPLUS = [
  { value: 'bench', label: 'wait on the bench' },
  { value: 'give away', label: 'are given away' },
] as const

/** What a division gives, how that was reckoned, and where its pieces go. */
function DividedHere({
  planting: p,
  leaving,
  said,
  onMeasured,
}: {
  planting: PlantingView
  leaving: Leaving
  said: SaidScheme
  onMeasured: (change: Partial<Leaving>) => void
}) {
  const { today } = useGardenContext()
  const canChange = useCanChange()
  const { answer, isMeasured, spare } = plantingDivided(p, today, leaving)
  const wanted = [...said.drifts, ...said.between].filter(
    (d) => d.from === 'division' && d.botanical === p.taxon.botanical,
  )
  const { given, surplus } = sharedOut(spare, wanted)
  const taken = given.reduce((sum, g) => sum + g.count, 0)
  return (
    <div className="rework-more">
      <small>
        {answer.ok
          ? `${answer.division.working.map(capitalised).join('. ')}. ${p.livingCount} are set back here, ${taken} go into this scheme, ${surplus} ${leaving.surplus === 'give away' ? 'are given away' : 'wait on the bench'}.`
          : notDivided[answer.why]}
        {answer.ok && !isMeasured && ' Reckoned from its age: measure a clump, or count its shoots.'}
      </small>
      {canChange && answer.ok && (
        <div className="row">
          <label>
            <small>Shoots </small>
            <Figure
              label={`Shoots of one clump of ${p.tag}`}
              value={leaving.shoots ?? null}
              min={1}
              max={1000}
              canBeEmpty
              onSay={(v) => onMeasured({ shoots: v ?? undefined })}
            />
          </label>
          <label>
            <small>or across </small>
            <Figure
              label={`Across one clump of ${p.tag}`}
              value={leaving.acrossM === undefined ? null : Math.round(100 * leaving.acrossM)}
              min={2}
              max={500}
              unit="cm"
              canBeEmpty
              onSay={(v) => onMeasured({ acrossM: v === null ? undefined : v / 100 })}
            />
          </label>
          <label>
            <small>The rest </small>
            <Choose
              label={`What becomes of pieces of ${p.tag} that are over`}
              value={leaving.surplus ?? 'bench'}
              options={SURPLUS}
              onChange={(s) => onMeasured({ surplus: s })}
            />
          </label>
        </div>
      )}
    </div>
  )
}

const notDivided = {
  'never divided': 'This kind is not divided.',
  'not measured': 'Measure a clump, or count its shoots.',
  'too small': 'A clump of this size gives no second piece yet.',
} as const

/** Every other way, with what it would cost more. */
function Ways({
  planting,
  said,
  onTo,
}: {
  planting: PlantingView
  said: SaidScheme
  onTo: (to: SaidDestination) => void
}) {
  const { view } = useGardenContext()
  const placeName = usePlaceName()
  return (
    <Answered of={[useWays(view.garden.id, said, planting.id)]} waiting="What each would cost is worked out…">
      {({ ways, spots }) => (
        <ul className="rework-list" aria-label={`Where ${planting.tag} could go`}>
          {spots.map((s) => (
            <li key={`${s.placeId} ${s.x} ${s.y}`}>
              <Button
                size="small"
                look="link"
                onClick={() => onTo({ to: 'spot', placeId: s.placeId, x: s.x, y: s.y })}
              >
                {s.placeId === planting.placeId ? 'Elsewhere in this place' : `To ${placeName(s.placeId)}`}
              </Button>{' '}
              <small>
                {pointsWords(s.more)}: {s.suiting.reason}
              </small>
            </li>
          ))}
          {waysOut.map((way) => {
            const more = ways[way]
            if (more === null || more === undefined) return null
            return (
              <li key={way}>
                <Button size="small" look="link" onClick={() => onTo({ to: way })}>
                  It {wayWords[way]}
                </Button>{' '}
                <small>{pointsWords(more)}</small>
              </li>
            )
          })}
        </ul>
      )}
    </Answered>
  )
}
