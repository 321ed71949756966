import type { Climate } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import type { Taxon } from '../plants/index.ts'
import type { CareRule } from './rule.ts'
import { careRules } from './rules/index.ts'
import { ruleWindows, type RuleWindow } from './ruleWindows.ts'
import { yearsAbout } from './taxonCare.ts'

/** When a kind may go into the ground, soonest first, with the rule that says how; or why it may not. */
export type PlantingWindows = { ok: true; windows: RuleWindow[] } | { ok: false; why: string }

/** What is set out here comes in a pot, or as a bulb or piece: plants lifted bare by a nursery have windows of their own. */
const setsOut = ({ operation, verb, id }: CareRule): boolean =>
  (operation === 'plant' && id !== 'plant-bare-root') || (operation === 'swap' && verb === undefined)

/**
 * The next windows for planting a kind, in date order, those closed before a day left out: as the rules of setting out say, else as
 * it may be moved.
 */
export function plantingWindows(taxon: Taxon, climate: Climate, on: IsoDate, lateDays = 0): PlantingWindows {
  const years = yearsAbout(climate, on, lateDays)
  const subject = { taxon, climate, place: 'bed' as const }
  const of = (is: (rule: CareRule) => boolean) => ruleWindows(careRules.filter(is), subject, years, on)
  const own = of(setsOut)
  const windows = own.length > 0 ? own : of((rule) => rule.operation === 'move')
  windows.sort((a, b) => (a.window.earliest < b.window.earliest ? -1 : 1))
  return windows.length > 0
    ? { ok: true, windows }
    : { ok: false, why: 'no time of the usual year here is right for planting it' }
}
