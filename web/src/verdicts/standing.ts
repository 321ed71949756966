import type { AssessmentView, DecisionRecord } from '@border/contract'
import type { Assessment, IsoDate } from '@border/core'

/** The word that stands on a planting: the latest decision, unless it only put the question off until by now. */
export function standingDecision(
  decisions: readonly DecisionRecord[],
  plantingId: string,
  on: IsoDate,
): DecisionRecord | undefined {
  const latest = decisions.find((d) => d.plantingId === plantingId)
  if (!latest) return undefined
  return latest.choice === 'wait' && latest.waitUntil! <= on ? undefined : latest
}

/** Proposals other than to keep, on which nobody has decided yet. */
export function openVerdicts(view: AssessmentView, on: IsoDate): Assessment[] {
  return view.assessments.filter(
    (a) => a.verdict.action !== 'keep' && !standingDecision(view.decisions, a.plantingId, on),
  )
}
