import type { AssessmentView, GardenView, PlantingView } from '@border/contract'
import { causeClause, decisionInForce, quarterHours, type Point } from '@border/core'
import { memo } from 'react'
import { Link, useLocation } from 'react-router'
import { withPlanting } from '../frame/address.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortMonthYear } from '../frame/words.ts'
import { causeHours } from './causeHours.ts'
import { RangeStrip } from './RangeStrip.tsx'
import { KindName } from '../frame/KindName.tsx'

interface Props {
  view: GardenView
  assessment: AssessmentView | undefined
  selectedId: string | undefined
  onSelect: (plantingId: string) => void
  /** Marks the spot where a planting stands. */
  onSpot: (at: Point) => void
}

/** Plantings outside the light they like, worst first, with what changed it and the way to a verdict. */
export const OutsideList = memo(function OutsideList({
  view,
  assessment,
  selectedId,
  onSelect,
  onSpot,
}: Props) {
  const now = useNow()
  if (!assessment)
    return (
      <p className="soft">Judging every planting against its light. The first time takes a few seconds.</p>
    )
  const plantings = new Map(view.plantings.map((p) => [p.id, p]))
  const places = new Map(view.features.map((f) => [f.id, f.name]))
  const shown = assessment.assessments.filter((a) => a.outside || a.plantingId === selectedId)
  if (shown.length === 0)
    return (
      <>
        <h2>Outside their range</h2>
        <p className="soft">None. Choose a planting on the plan to see how it stands.</p>
      </>
    )
  return (
    <>
      <h2>Outside their range</h2>
      <small>
        ○ {shortMonthYear(assessment.then)}, ● {now}; the band is what it likes, 0 to 14 h
      </small>
      {shown.map((a) => {
        const planting = plantings.get(a.plantingId)
        return (
          planting && (
            <Outside
              key={planting.id}
              planting={planting}
              assessment={a}
              of={assessment}
              placeName={places.get(planting.placeId)}
              isChosen={planting.id === selectedId}
              onSelect={onSelect}
              onSpot={onSpot}
            />
          )
        )
      })}
    </>
  )
})

interface OutsideProps extends Pick<Props, 'onSelect' | 'onSpot'> {
  planting: PlantingView
  assessment: AssessmentView['assessments'][number]
  of: AssessmentView
  placeName: string | undefined
  isChosen: boolean
}

/** One planting: what it has and had, what it likes, why, and the way on. */
function Outside({ planting: p, assessment: a, of, placeName, isChosen, onSelect, onSpot }: OutsideProps) {
  const { search } = useLocation()
  const now = useNow()
  const decided = decisionInForce(of.decisions, p.id, of.on)
  return (
    <div>
      <button
        type="button"
        className={`outside-row${isChosen ? ' selected' : ''}`}
        aria-pressed={isChosen}
        onClick={() => onSelect(p.id)}
      >
        <span className="spread">
          <KindName of={p.taxon} isShort />
          <span className="word">
            {decided ? `decided: ${decided.choice === 'wait' ? 'wait' : decided.action}` : a.verdict.action}
          </span>
        </span>
        <RangeStrip taxon={p.taxon} before={a.before} now={a.now} then={of.then} />
        <small className="spread">
          <span>{placeName}</span>
          <span>
            {quarterHours(a.before.total)} before, {quarterHours(a.now.total)} {now}
          </span>
        </small>
        {a.fit.scorched && (
          <small>Hot sun between two and five in the afternoon: {beforeAndNow(a, now)}</small>
        )}
        {a.causes[0] && (
          <small>
            {causeClause(a.causes[0])}, {causeHours(a.causes[0])}
          </small>
        )}
      </button>
      {isChosen && (
        <p className="outside-way">
          <Link to={{ pathname: '../verdicts', search: withPlanting(search, p.id) }}>
            Weigh the verdict on it
          </Link>{' '}
          ·{' '}
          <button type="button" className="plain link" onClick={() => onSpot([p.x, p.y])}>
            Its sky and its year
          </button>
        </p>
      )}
    </div>
  )
}

/** The day that is looked at, beside the one compared with. */
function useNow(): string {
  const { on, today } = useGardenContext()
  return on === today ? 'now' : `in ${shortMonthYear(on)}`
}

/** `2 h before, 3 h now`; what has not changed is said once. */
function beforeAndNow(
  { before, now }: Pick<OutsideProps['assessment'], 'before' | 'now'>,
  nowWord: string,
): string {
  const [then, by] = [quarterHours(before.heat), quarterHours(now.heat)]
  return then === by ? `${by}, as before` : `${then} before, ${by} ${nowWord}`
}
