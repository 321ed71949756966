import { sum } from 'd3-array'
import { addDays, daysBetween, type IsoDate } from '../dates/index.ts'
import type { MixPart } from '../quantities/index.ts'
import { putRight, type DrainTest } from './drainTest.ts'
import { DAYS_A_YEAR } from './inPot.ts'
import { litresLeft, SPENT_AIR, traitsOfAll, type Cohort, type MixTraits } from './mix.ts'

/** A fill as its mix is followed through the years. */
export interface MixFilled {
  filledOn: IsoDate
  mix: readonly MixPart[]
  /** Of the mix so much was new, 0 to 1. */
  renewed: number
}

/** The mix of a container as it is by now, after all that was filled in, taken out and rotted. */
export interface MixState {
  traits: MixTraits
  /** How far it has sunk since it was filled, as a share of its depth. */
  sunk: number
  /** So much of what is in it now was filled in more than a year before. */
  old: number
  /** When a fifth of it is gone, and it is to be topped up; null where that is beyond the years looked at. */
  topUpOn: IsoDate | null
  /** When so little air is left that all of it must be new; null as above. */
  wholeOn: IsoDate | null
}

/** Sunk so far, roots lie bare. */
const SUNK = 0.2
/** Looked ahead by months, for so many. */
const MONTHS = 120
const DAYS_A_MONTH = 30

/** What was filled in, each with the day: of the older what was left as the next went in. */
function cohortsOf(fills: readonly MixFilled[]) {
  let kept: { litres: number; parts: readonly MixPart[]; on: IsoDate }[] = []
  for (const { filledOn, mix, renewed } of fills) {
    // Planted anew, and nothing put to it: it stays as far down as it has sunk.
    if (renewed === 0 && kept.length > 0) continue
    const there = sum(kept, (c) => litresLeft({ ...c, years: yearsFrom(c.on, filledOn) }))
    const stays = Math.min(there, 1 - renewed)
    kept = kept
      .map((c) => ({ ...c, litres: there > 0 ? (c.litres * stays) / there : 0 }))
      .filter((c) => c.litres > 1e-6)
    if (stays < 1 - 1e-9) kept.push({ litres: 1 - stays, parts: mix, on: filledOn })
  }
  return kept
}

const yearsFrom = (from: IsoDate, to: IsoDate): number => Math.max(0, daysBetween(from, to) / DAYS_A_YEAR)

/** The test that tells of a mix on a day: the last since some of it was new, or of all where no fill is known. */
export function testCounting(
  tests: readonly DrainTest[],
  fills: readonly MixFilled[],
  on: IsoDate,
): DrainTest | undefined {
  const since = cohortsOf(fills.filter((f) => f.filledOn <= on)).at(-1)?.on ?? ''
  return tests
    .filter((t) => since <= t.day && t.day <= on)
    .sort((a, b) => (a.day < b.day ? -1 : 1))
    .at(-1)
}

/**
 * The mix of a container on a day.
 *
 * @param fills of one container, the earliest first
 * @param tests of its mix, in any order
 * @returns undefined where no fill is known
 */
export function mixState(
  fills: readonly MixFilled[],
  on: IsoDate,
  tests: readonly DrainTest[] = [],
): MixState | undefined {
  const filled = cohortsOf(fills.filter((f) => f.filledOn <= on))
  if (filled.length === 0) return undefined
  const at = (day: IsoDate): Cohort[] => filled.map((c) => ({ ...c, years: yearsFrom(c.on, day) }))
  const sunkOn = (day: IsoDate) => 1 - sum(at(day), litresLeft)
  const test = testCounting(tests, fills, on)
  const traitsOn = (day: IsoDate): MixTraits =>
    test ? putRight(traitsOfAll(at(day)), traitsOfAll(at(test.day)), test) : traitsOfAll(at(day))
  const first = (is: (day: IsoDate) => boolean): IsoDate | null => {
    for (let month = 0; month <= MONTHS; month++) {
      const day = addDays(on, DAYS_A_MONTH * month)
      if (is(day)) return day
    }
    return null
  }
  const aged = at(on)
  return {
    traits: traitsOn(on),
    sunk: Math.max(0, sunkOn(on)),
    old: sum(aged, (c) => (c.years > 1 ? litresLeft(c) : 0)) / sum(aged, litresLeft),
    topUpOn: first((day) => sunkOn(day) >= SUNK),
    wholeOn: first((day) => traitsOn(day).air < SPENT_AIR),
  }
}
