import { verdictEndpoints, type AssessmentView, type PlantingView } from '@border/contract'
import {
  actions,
  counted,
  dayMonthYear,
  openVerdicts,
  wordOn,
  type Assessment,
  type Action,
} from '@border/core'
import { Select } from 'antd'
import dayjs from 'dayjs'
import { useMemo } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { searchWith, useChosen } from '../frame/address.ts'
import { announce } from '../frame/Announced.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered, Empty } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useAssessment } from './queries.ts'
import { Successions } from './Successions.tsx'
import { VerdictDetail } from './VerdictDetail.tsx'
import './verdicts.css'
import { KindName } from '../frame/KindName.tsx'

interface Row {
  planting: PlantingView
  assessment: Assessment
}

/** By place: what is proposed for each planting, and beside it why, what else, and the person's word. */
export function VerdictsScreen() {
  const { view, asOf } = useGardenContext()
  return (
    <Answered of={[useAssessment(view.garden.id, asOf)]} title="Verdicts">
      {(assessed) => <Verdicts assessed={assessed} />}
    </Answered>
  )
}

function Verdicts({ assessed }: { assessed: AssessmentView }) {
  const { view, on } = useGardenContext()
  const groups = useMemo(() => groupByPlace(view.features, view.plantings, assessed), [view, assessed])
  const rows = groups.flatMap((g) => g.rows)
  const open = openVerdicts(assessed.assessments, assessed.decisions, on)
  const [chosen, choose] = useChosenRow(rows, open[0]?.plantingId)
  return (
    <>
      <ScreenHead
        title="Verdicts"
        lead={
          open.length === 0 ? (
            'Nothing waits for your decision.'
          ) : (
            <>
              <b>{counted(open.length, 'proposal')}</b> {open.length === 1 ? 'waits' : 'wait'} for your
              decision. <AsAWhole groups={groups} />
            </>
          )
        }
      />
      {chosen ? (
        <div className="verdict-split">
          <div className="verdict-list">
            <Successions />
            {groups.map((g) => (
              <section key={g.place} aria-label={g.place}>
                <h2>{g.place}</h2>
                <PlaceWord rows={g.rows} view={assessed} on={on} />
                {g.rows.map((r) => (
                  <VerdictRow
                    key={r.planting.id}
                    row={r}
                    view={assessed}
                    on={on}
                    chosen={r === chosen}
                    onChoose={choose}
                  />
                ))}
              </section>
            ))}
          </div>
          <VerdictDetail
            key={chosen.planting.id}
            planting={chosen.planting}
            assessment={chosen.assessment}
            then={assessed.then}
            decisions={assessed.decisions}
          />
        </div>
      ) : (
        <Empty>No plantings stand in this garden on {dayMonthYear(on)}. Add them under Plants.</Empty>
      )}
    </>
  )
}

/** The planting of the address; without one the first that waits for a word. */
function useChosenRow(
  rows: readonly Row[],
  firstId: string | undefined,
): [Row | undefined, (plantingId: string) => void] {
  const [chosenId, choose] = useChosen('planting', 'verdict')
  const of = (id: string | undefined) => rows.find((r) => r.planting.id === id)
  return [of(chosenId) ?? of(firstId) ?? rows[0], choose]
}

/** A place where many verdicts point one way is better reworked as a whole. */
function AsAWhole({ groups }: { groups: readonly { place: string; rows: Row[] }[] }) {
  const { search } = useLocation()
  const { isHead } = useGardenContext()
  const moved = groups.find((g) => {
    const moves = g.rows.filter((r) => r.assessment.verdict.action === 'move').length
    return moves >= 4 && moves * 2 >= g.rows.length
  })
  if (!moved) return null
  const ofPlace = searchWith(search, { planting: undefined, place: moved.rows[0]!.planting.placeId })
  return (
    <>
      Most of {moved.place} wants to move: think of the place as a whole before the first spade.{' '}
      {isHead && <Link to={{ pathname: '../rework', search: ofPlace }}>Decide it anew</Link>}
    </>
  )
}

function VerdictRow({
  row,
  view,
  on,
  chosen,
  onChoose,
}: {
  row: Row
  view: AssessmentView
  on: string
  chosen: boolean
  onChoose: (id: string) => void
}) {
  const { planting, assessment } = row
  const decided = wordOn(view.decisions, assessment, on)
  const word = decided ? (decided.choice === 'wait' ? 'wait' : decided.action) : assessment.verdict.action
  return (
    <button
      type="button"
      className={`verdict-row${chosen ? ' selected' : ''}`}
      aria-pressed={chosen}
      onClick={() => onChoose(planting.id)}
    >
      <KindName of={planting.taxon} isShort />
      <span className={word === 'keep' && !decided ? 'soft' : 'word'}>{decided ? `✓ ${word}` : word}</span>
    </button>
  )
}

const WAITS = [
  { months: 1, label: 'a month' },
  { months: 6, label: 'half a year' },
  { months: 12, label: 'a year' },
]

/** One word on all that still waits in a place. */
function PlaceWord({ rows, view, on }: { rows: readonly Row[]; view: AssessmentView; on: string }) {
  const { view: garden, isHead } = useGardenContext()
  const waiting = rows.filter(
    (r) => r.assessment.verdict.action !== 'keep' && !wordOn(view.decisions, r.assessment, on),
  )
  const say = useGardenWrite(
    verdictEndpoints.decideMany,
    { gardenId: garden.garden.id },
    'Your decisions are kept.',
    ({ plantingIds }) =>
      plantingIds.map((plantingId) => ({
        plantingId,
        decisionId: view.decisions.find((d) => d.plantingId === plantingId)?.id ?? null,
      })),
  )
  if (!isHead || waiting.length < 2) return null
  const send = (word: Bulk['word']) =>
    say.mutate(
      { plantingIds: waiting.map((r) => r.planting.id), on, word },
      {
        onSuccess: (answer) => {
          const { refused } = answer
          if (refused.length === 0) return
          announce.untilRead(
            <>
              <b>{counted(refused.length, 'proposal')} could not be taken so</b>
              <ul className="plain-list">
                {refused.map((r) => (
                  <li key={r.plantingId}>
                    {rows.find((x) => x.planting.id === r.plantingId)?.planting.taxon.botanical}: {r.why}
                  </li>
                ))}
              </ul>
            </>,
          )
        },
      },
    )
  return (
    <div className="row place-word">
      <Button size="small" loading={say.isPending} onClick={() => send({ choice: 'accept' })}>
        Agree to all {waiting.length}
      </Button>
      <Select
        size="small"
        aria-label="All wait"
        placeholder="All wait…"
        value={null}
        popupMatchSelectWidth={false}
        options={WAITS.map((w) => ({ value: w.months, label: w.label }))}
        onChange={(months: number) => send({ choice: 'wait', until: monthsLater(on, months) })}
      />
    </div>
  )
}

interface Bulk {
  plantingIds: string[]
  on: string
  word: { choice: 'accept' } | { choice: 'wait'; until: string }
}

const monthsLater = (day: string, months: number) => dayjs(day).add(months, 'month').format('YYYY-MM-DD')

/** What asks for a word first. */
const byUrgency: readonly Action[] = actions.toReversed()

function groupByPlace(
  features: readonly { id: string; name: string; kind: string }[],
  plantings: readonly PlantingView[],
  data: AssessmentView | undefined,
) {
  const assessed = new Map(data?.assessments.map((a) => [a.plantingId, a]))
  const rank = (r: Row) => byUrgency.indexOf(r.assessment.verdict.action)
  const groups = features.flatMap((f) => {
    const rows = plantings
      .filter((p) => p.placeId === f.id)
      .flatMap((planting) => {
        const assessment = assessed.get(planting.id)
        return assessment ? [{ planting, assessment }] : []
      })
    rows.sort((a, b) => rank(a) - rank(b) || b.assessment.fit.misfitHours - a.assessment.fit.misfitHours)
    return rows.length > 0 ? [{ place: f.name, kind: f.kind, rows }] : []
  })
  const worst = (g: { rows: Row[] }) => g.rows.filter((r) => r.assessment.verdict.action !== 'keep').length
  return groups.sort((a, b) => worst(b) - worst(a))
}
