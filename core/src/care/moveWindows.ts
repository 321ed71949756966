import type { Climate } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import type { Taxon } from '../plants/index.ts'
import { careRules } from './rules/index.ts'
import { ruleWindows } from './ruleWindows.ts'
import { yearsAbout } from './taxonCare.ts'
import type { Window } from './windows.ts'

/** When a taxon may be moved, soonest first, or why it may not. */
export type MoveWindows =
  | { ok: true; windows: Window[] }
  | { ok: false; reason: 'resents-moving' }
  | { ok: false; reason: 'no-window'; why: string }

/**
 * The next windows for lifting and replanting a taxon, in date order, those closed before `on` left out.
 *
 * @param on windows that end before this day are past
 */
export function moveWindows(taxon: Taxon, climate: Climate, on: IsoDate, lateDays = 0): MoveWindows {
  if (taxon.moveWhen === 'never') return { ok: false, reason: 'resents-moving' }
  const years = yearsAbout(climate, on, lateDays)
  const rules = careRules.filter((r) => r.operation === 'move')
  const windows = ruleWindows(rules, { taxon, climate, place: 'bed' }, years, on)
    .map((w) => w.window)
    .sort((a, b) => (a.earliest < b.earliest ? -1 : 1))
  return windows.length > 0
    ? { ok: true, windows }
    : {
        ok: false,
        reason: 'no-window',
        why: 'No time of the usual year here is cool and long enough for it.',
      }
}
