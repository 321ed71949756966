import type { IsoDate } from '../dates/index.ts'
import { isLeftAlone, type Action } from '../remedies/index.ts'
import type { Assessment } from './assess.ts'
import type { Verdict } from './verdict.ts'

/** What a person decided on a verdict, and how it was weighed then. */
export interface Decided {
  plantingId: string
  choice: 'accept' | 'otherwise' | 'wait'
  /** What is to be done: the verdict's own proposal where it was accepted. */
  action: string
  /** Of one that was put off: until when. */
  waitUntil: IsoDate | null
  weighed: Pick<Verdict, 'terms'> & { scores: Partial<Verdict['scores']> }
}

/**
 * The word that stands on a planting: the latest decision, unless it only put the question off until by now.
 *
 * @param decisions newest first
 */
export function decisionInForce<D extends Decided>(
  decisions: readonly D[],
  plantingId: string,
  on: IsoDate,
): D | undefined {
  const latest = decisions.find((d) => d.plantingId === plantingId)
  if (!latest) return undefined
  return latest.choice === 'wait' && latest.waitUntil! <= on ? undefined : latest
}

/** A proposal that was refused is made again only when it has gained so many points on what was chosen. */
const GAINED = 15

/**
 * What has come up since a planting was to be left as it is, where it now speaks more strongly for something else.
 *
 * @returns sentences, strongest first; undefined where the word still stands
 */
export function newSince(decision: Decided, { verdict }: Pick<Assessment, 'verdict'>): string[] | undefined {
  const chosen = decision.action as Action
  const leftAlone = decision.choice !== 'wait' && isLeftAlone(chosen)
  if (!leftAlone || verdict.action === chosen || verdict.action === 'keep') return undefined
  // What was not weighed had nothing that asked for it.
  const ahead = (of: Partial<Record<Action, number>>) => (of[verdict.action] ?? 0) - (of[chosen] ?? 0)
  const { scores, terms } = decision.weighed
  const gained = ahead(verdict.scores) - ahead(scores)
  if (gained < GAINED) return undefined
  const known = new Set(terms.map((t) => t.says))
  return verdict.terms
    .filter((t) => t.action === verdict.action && t.points > 0 && !known.has(t.says))
    .sort((a, b) => b.points - a.points)
    .map((t) => t.says)
}

/** The word that stands on an assessed planting: none where what is known has changed since. */
export function wordOn<D extends Decided>(
  decisions: readonly D[],
  assessment: Assessment,
  on: IsoDate,
): D | undefined {
  const standing = decisionInForce(decisions, assessment.plantingId, on)
  return standing && newSince(standing, assessment) ? undefined : standing
}

/** What is to be done with an assessed planting: what somebody has decided, or else is proposed. */
export function actionOn(decisions: readonly Decided[], assessment: Assessment, on: IsoDate): Action {
  const word = wordOn(decisions, assessment, on)
  return word && word.choice !== 'wait' ? (word.action as Action) : assessment.verdict.action
}

/** Whether what is to be done takes a plant out of its place and leaves open where it goes. */
export const goesElsewhere = (action: Action): boolean => action === 'move' || action === 'replace'

/** Proposals other than to keep, on which nobody has decided yet. */
export const openVerdicts = (
  assessments: readonly Assessment[],
  decisions: readonly Decided[],
  on: IsoDate,
): Assessment[] => assessments.filter((a) => a.verdict.action !== 'keep' && !wordOn(decisions, a, on))
