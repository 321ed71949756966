import type { AssessmentView, GardenView } from '@border/contract'
import { counted, causeClause, monthYear, quarterHours, type Assessment, type LightCause } from '@border/core'

const WORTH_SAYING_HOURS = 0.5

/** The one thing about the garden's light that matters most, before any control. */
export function LightSentence({
  view,
  assessment,
}: {
  view: GardenView
  assessment: AssessmentView | undefined
}) {
  if (!assessment) return 'Working out who stands in what light.'
  if (view.plantings.length === 0)
    return 'No plantings yet. Add them under Plants, and this screen says which of them stand in the wrong light.'
  const outside = assessment.assessments.filter((a) => a.outside).length
  const change = largestChange(view, assessment)
  return (
    <>
      {change && (
        <>
          {change.place} has{' '}
          <b>
            {change.hours > 0 ? 'gained' : 'lost'} {quarterHours(Math.abs(change.hours))} of sun a day
          </b>
          {change.cause
            ? `, mostly because ${causeClause(change.cause)}`
            : ` since ${monthYear(assessment.then)}`}
          .{' '}
        </>
      )}
      {outside === 0 ? (
        'Every planting stands in the light it likes.'
      ) : (
        <>
          <b>{counted(outside, 'planting')}</b> {outside === 1 ? 'stands' : 'stand'} outside the light{' '}
          {outside === 1 ? 'it likes' : 'they like'}.
        </>
      )}
    </>
  )
}

/** Of the beds that stood then as now, the one whose plantings' light moved most. */
function largestChange(view: GardenView, { assessments, then }: AssessmentView) {
  const placeOf = new Map(view.plantings.map((p) => [p.id, p.placeId]))
  const byPlace = new Map<string, Assessment[]>()
  for (const a of assessments) {
    const place = placeOf.get(a.plantingId)
    if (place) byPlace.set(place, [...(byPlace.get(place) ?? []), a])
  }
  const changes = [...byPlace].flatMap(([id, list]) => {
    const place = view.features.find((f) => f.id === id)
    if (place?.kind !== 'bed' || (place.from && place.from > then)) return []
    const hours = list.reduce((sum, a) => sum + a.now.total - a.before.total, 0) / list.length
    return [{ place: place.name, hours, cause: strongestCause(list, Math.sign(hours)) }]
  })
  const largest = changes.sort((a, b) => Math.abs(b.hours) - Math.abs(a.hours))[0]
  return largest && Math.abs(largest.hours) >= WORTH_SAYING_HOURS ? largest : undefined
}

function strongestCause(assessments: readonly Assessment[], sign: number): LightCause | undefined {
  return assessments
    .flatMap((a) => a.causes)
    .filter((c) => Math.sign(c.hours) === sign)
    .sort((a, b) => Math.abs(b.hours) - Math.abs(a.hours))[0]
}
