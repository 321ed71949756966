import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, patternAt, type Climate, type DailyWeather } from '../climate/index.ts'
import { addDays, dayNumber, daysBetween, fromDayNumber, yearOf, type IsoDate } from '../dates/index.ts'
import { library, usualBloom, type Taxon } from '../plants/index.ts'
import { dayMonth } from '../words/index.ts'
import { isFor } from './applies.ts'
import { gardenYear } from './gardenYear.ts'
import type { CareRule, Edge } from './rule.ts'
import { careRules } from './rules/index.ts'
import { yearsAbout } from './taxonCare.ts'
import { openWindows, windowOf, windowsOf, type Window } from './windows.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

/**
 * Windows of every rule for every kind it is for, over climates drawn at random. Nothing of what is expected comes from the windows
 * themselves: it is what a window is, what the year does when it is turned by half or comes late, and what the plant's bloom says.
 */

const FIRST = 2008
const LAST = 2022
const runs = { numRuns: 6 }

const weathers = fc
  .record({
    latitudeDeg: fc.double({ min: 25, max: 62, noNaN: true }),
    warmerC: fc.double({ min: -4, max: 4, noNaN: true }),
    seasonalAmplitudeC: fc.double({ min: 4, max: 16, noNaN: true }),
    dailyRangeC: fc.double({ min: 5, max: 14, noNaN: true }),
    seed: fc.integer({ min: 1, max: 1_000_000 }),
  })
  .map(({ latitudeDeg, warmerC, ...more }) => {
    const usual = patternAtLatitude(latitudeDeg)
    const pattern = { ...usual, ...more, annualMeanC: usual.annualMeanC + warmerC }
    return { latitudeDeg, days: generateWeather(pattern, FIRST, LAST) }
  })

function climateFrom(days: readonly DailyWeather[], latitudeDeg: number): Climate {
  const found = climateOf(days, latitudeDeg)
  if (!found.ok) throw new Error(found.reason)
  return found.climate
}
const climates = weathers.map(({ days, latitudeDeg }) => climateFrom(days, latitudeDeg))

interface Cared {
  rule: CareRule
  taxon: Taxon
}

/** Every kind with every rule that is for it in a climate. */
const caredIn = (climate: Climate): Cared[] =>
  careRules.flatMap((rule) =>
    library
      .filter((taxon) => isFor(rule.applies, { taxon, climate, place: 'bed' }))
      .map((taxon) => ({ rule, taxon })),
  )

const whichOf = ({ rule, taxon }: Cared, w: Window) =>
  `${rule.id}, ${taxon.botanical}, ${w.earliest} to ${w.latest}`

/** Checks something of every window of every kind in a climate. */
function everyWindow(
  climate: Climate,
  on: IsoDate,
  check: (w: Window, cared: Cared) => string | undefined,
): string[] {
  const years = yearsAbout(climate, on, 0)
  return caredIn(climate).flatMap((cared) =>
    windowsOf(cared.rule, years, cared.taxon, on).windows.flatMap((w) => {
      const wrong = check(w, cared)
      return wrong ? [`${whichOf(cared, w)}: ${wrong}`] : []
    }),
  )
}

const days = fc.integer({ min: 0, max: 364 }).map((n) => addDays('2026-01-01', n))

describe('a window', () => {
  it('opens, is best, and closes in that order, is a week long at least, and never a whole year', () => {
    fc.assert(
      fc.property(climates, days, (climate, on) => {
        expect(
          everyWindow(climate, on, (w) => {
            const edges = [w.earliest, w.bestFrom, w.bestTo, w.latest]
            if (edges.some((day, i) => i > 0 && day < edges[i - 1]!)) return `out of order: ${edges.join()}`
            if (daysBetween(w.earliest, w.latest) < 6) return 'too short to be one'
            if (daysBetween(w.earliest, w.latest) > 400) return 'longer than a year'
            return w.latest < on ? 'closed before it was asked for' : undefined
          }),
        ).toEqual([])
      }),
      runs,
    )
  })

  it('says of every edge the day that it has, and why', () => {
    const leads: Record<Edge, string> = {
      earliest: 'Not before',
      bestFrom: 'Best from',
      bestTo: 'Best until',
      latest: 'Not after',
    }
    fc.assert(
      fc.property(climates, days, (climate, on) => {
        expect(
          everyWindow(climate, on, (w) => {
            for (const [edge, lead] of Object.entries(leads) as [Edge, string][]) {
              const says = w.why[edge]
              const begins = `${lead} ${dayMonth(w[edge])}: `
              if (!says.startsWith(begins)) return `${edge} is ${w[edge]} and says: ${says}`
              if (says.length < begins.length + 8 || /undefined|NaN| {2}/.test(says)) return says
            }
            return undefined
          }),
        ).toEqual([])
      }),
      runs,
    )
  })

  it('that keeps clear of the bloom touches none of it, unless the season is too short to wait', () => {
    fc.assert(
      fc.property(climates, (climate) => {
        const season = 2026
        const garden = gardenYear(climate, season)
        const wrong = caredIn(climate).flatMap((cared) =>
          cared.rule.windows.flatMap((spec) => {
            const found = windowOf(spec, garden, cared.taxon)
            const bloom = usualBloom(cared.taxon, season, garden.year)
            if (!found.ok || !spec.roundBloom || spec.hurry !== undefined || !bloom) return []
            const clearFrom = addDays(bloom.from, -spec.roundBloom.before)
            const clearTo = addDays(bloom.to, spec.roundBloom.after)
            const { earliest, latest } = found.window
            return latest > clearFrom && earliest < clearTo
              ? [`${whichOf(cared, found.window)} in its bloom ${bloom.from} to ${bloom.to}`]
              : []
          }),
        )
        expect(wrong).toEqual([])
      }),
      runs,
    )
  })

  it('of one gardening year begins before that of the next, about a year apart', () => {
    fc.assert(
      fc.property(climates, (climate) => {
        const wrong = caredIn(climate).flatMap((cared) =>
          cared.rule.windows.flatMap((spec) => {
            const [a, b] = [2026, 2027].map((season) =>
              windowOf(spec, gardenYear(climate, season), cared.taxon),
            )
            if (!a!.ok || !b!.ok) return a!.ok === b!.ok ? [] : [`${cared.rule.id} is there in one year only`]
            const apart = daysBetween(a!.window.earliest, b!.window.earliest)
            return Math.abs(apart - 365) > 2
              ? [`${whichOf(cared, a!.window)}: ${apart} days to the next`]
              : []
          }),
        )
        expect(wrong).toEqual([])
      }),
      runs,
    )
  })

  it('stays where it is while the days go by, until it has closed', () => {
    fc.assert(
      fc.property(climates, days, fc.integer({ min: 1, max: 120 }), (climate, on, later) => {
        const then = addDays(on, later)
        const wrong = caredIn(climate).flatMap((cared) => {
          const at = (day: IsoDate) =>
            windowsOf(cared.rule, yearsAbout(climate, day, 0), cared.taxon, day).windows
          const stillOpen = at(on).filter((w) => w.latest >= then)
          const seen = new Set(at(then).map((w) => `${w.earliest} ${w.latest}`))
          return stillOpen
            .filter((w) => !seen.has(`${w.earliest} ${w.latest}`))
            .map((w) => `${whichOf(cared, w)} is gone on ${then}`)
        })
        expect(wrong).toEqual([])
      }),
      { ...runs, numRuns: 4 },
    )
  })
})

describe('a year turned by half', () => {
  /** The same weather half a year later, as it would be had on the other half of the earth. */
  const HALF = 184
  const turned = (all: readonly DailyWeather[]) =>
    all
      .map((d) => ({ ...d, day: fromDayNumber(dayNumber(d.day) + HALF) }))
      .filter((d) => yearOf(d.day) > FIRST && yearOf(d.day) <= LAST)
  const straight = (all: readonly DailyWeather[]) => all.filter((d) => yearOf(d.day) < LAST)

  it('turns the windows with it: what hangs on weather and plant knows no hemisphere', () => {
    fc.assert(
      fc.property(weathers, ({ days, latitudeDeg }) => {
        // Where the year hardly has seasons there is nothing to turn.
        fc.pre(latitudeDeg > 35)
        const north = climateFrom(straight(days), latitudeDeg)
        const south = climateFrom(turned(days), -latitudeDeg)
        let alike = 0
        const wrong: string[] = []
        for (const cared of caredIn(north))
          for (const spec of cared.rule.windows) {
            const [a, b] = [
              windowOf(spec, gardenYear(north, 2026), cared.taxon),
              windowOf(spec, gardenYear(south, 2027), cared.taxon),
            ]
            if (!a.ok || !b.ok) continue
            const off = (edge: 'earliest' | 'latest') =>
              Math.abs(daysBetween(a.window[edge], b.window[edge]) - HALF)
            // Usual values are of calendar days, which leap years and the turning shift a little against one another.
            if (off('earliest') <= 9 && off('latest') <= 9) alike++
            else wrong.push(`${whichOf(cared, a.window)} against ${b.window.earliest} to ${b.window.latest}`)
          }
        expect(alike).toBeGreaterThan(100)
        expect(wrong.length / (alike + wrong.length), wrong.slice(0, 5).join('; ')).toBeLessThan(0.05)
      }),
      { ...runs, numRuns: 4 },
    )
  })
})

describe('a late season', () => {
  it('moves what waits for warmth or growth later, by no more than it is late, and nothing earlier', () => {
    fc.assert(
      fc.property(climates, fc.integer({ min: 1, max: 21 }), (climate, late) => {
        const wrong = caredIn(climate).flatMap((cared) =>
          cared.rule.windows.flatMap((spec) => {
            const usual = windowOf(spec, gardenYear(climate, 2026), cared.taxon)
            const moved = windowOf(spec, gardenYear(climate, 2026, late), cared.taxon)
            if (!usual.ok || !moved.ok || spec.hurry !== undefined) return []
            // What waited for the flowers to be over may now be done before they open.
            const bloom = usualBloom(cared.taxon, 2026, gardenYear(climate, 2026, late).year)
            if (spec.roundBloom && bloom && moved.window.latest <= bloom.from) return []
            const by = daysBetween(usual.window.earliest, moved.window.earliest)
            return by < 0 || by > late ? [`${whichOf(cared, usual.window)} opens ${by} days later`] : []
          }),
        )
        expect(wrong).toEqual([])
      }),
      runs,
    )
  })
})

describe('open windows, counted', () => {
  const spans = fc.array(
    fc
      .record({ from: fc.integer({ min: 0, max: 60 }), long: fc.integer({ min: 0, max: 30 }) })
      .map(({ from, long }) => ({
        earliest: addDays('2026-02-01', from),
        latest: addDays('2026-02-01', from + long),
      })),
    { maxLength: 12 },
  )

  it('are on every day as many as hold that day, and none at the end', () => {
    fc.assert(
      fc.property(spans, (windows) => {
        const counted = openWindows(windows)
        for (let n = -1; n < 95; n++) {
          const day = addDays('2026-02-01', n)
          const told = counted.findLast(([from]) => from <= day)?.[1] ?? 0
          expect([day, told]).toEqual([
            day,
            windows.filter((w) => w.earliest <= day && day <= w.latest).length,
          ])
        }
        expect(counted.at(-1)?.[1] ?? 0).toBe(0)
        // Only where the number changes.
        expect(counted.filter(([, open], i) => open === (counted[i - 1]?.[1] ?? 0))).toEqual([])
      }),
    )
  })
})

describe('a rule', () => {
  it('has a window in a cool or in a hot summer, for nearly everything that it is for', () => {
    const sites = [
      { latitude: 52, longitude: 0.1 },
      { latitude: 39, longitude: -94.6 },
    ]
    const climates = sites.map((site) => {
      const found = climateOf(generateWeather(patternAt(site), FIRST, LAST), site.latitude)
      if (!found.ok) throw new Error(found.reason)
      return found.climate
    })
    const shareOpen = (rule: CareRule, climate: Climate) => {
      const years = yearsAbout(climate, '2026-03-01', 0)
      const { signs, ground } = rule.applies
      const isAsked = (taxon: Taxon | undefined) =>
        (['bed', 'container'] as const).some((place) =>
          isFor(rule.applies, { taxon, climate, place, signs: signs ?? [], ground, piped: true }),
        )
      const asked = (rule.applies.wholePlace ? [undefined] : library).filter(isAsked)
      const open = asked.filter((taxon) => windowsOf(rule, years, taxon, '2026-03-01').windows.length > 0)
      return asked.length === 0 ? 1 : open.length / asked.length
    }
    expect(careRules.filter((r) => climates.every((c) => shareOpen(r, c) < 0.7)).map((r) => r.id)).toEqual([])
  })
})
