import type { IsoDate } from '../dates/index.ts'
import { isFor, type Subject } from './applies.ts'
import type { GardenYear } from './gardenYear.ts'
import type { CareRule } from './rule.ts'
import { windowsOf, type Window } from './windows.ts'

/** A window with the rule that it is of. */
export interface RuleWindow {
  rule: CareRule
  window: Window
}

/** Every window that rules give a kind in so many gardening years, those closed before a day left out; rule by rule. */
export const ruleWindows = (
  rules: readonly CareRule[],
  subject: Subject,
  years: readonly GardenYear[],
  on: IsoDate,
): RuleWindow[] =>
  rules
    .filter((rule) => isFor(rule.applies, subject))
    .flatMap((rule) => windowsOf(rule, years, subject.taxon, on).windows.map((window) => ({ rule, window })))
