import { group } from 'd3-array'
import { usually, type Climate } from '../climate/index.ts'
import { addDays, daysBetween, seasonStart, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { groundM2, usualBloom, type Habit, type Taxon } from '../plants/index.ts'
import type { BloomStage, RecordedPlanting, Seen } from './seen.ts'
import type { YearOfSeason } from './seasons.ts'

const inBloom = (stage: BloomStage | null) => stage === 'opening' || stage === 'full' || stage === 'fading'

/** When a planting was seen to bloom in a season, to within the days between walks. */
export interface BloomSeen {
  plantingId: string
  season: number
  /** First and last look that found it in bloom. */
  first: IsoDate
  last: IsoDate
  /** The last look before, and the first after, that found it not in bloom; null where there was none. */
  notBefore: IsoDate | null
  notAfter: IsoDate | null
  flushes: number
  expected: { from: IsoDate; to: IsoDate } | undefined
  /** Days the beginning ran late against the expected; negative when early. Undefined when no look bounds it. */
  lateDays: number | undefined
}

/** Walks further apart than this leave the beginning of a bloom open. */
const BOUND_DAYS = 24

/** When each taxon was seen in flower, season by season, from looks that said its stage. */
export function bloomsSeen(
  plantings: readonly RecordedPlanting[],
  seen: readonly Seen[],
  yearOfSeason: YearOfSeason,
  south: boolean,
): BloomSeen[] {
  const byPlanting = group(
    seen.filter((s) => s.stage !== null),
    (s) => s.plantingId,
  )
  return plantings.flatMap((p) => {
    const looks = (byPlanting.get(p.id) ?? []).toSorted((a, b) => (a.on < b.on ? -1 : 1))
    const bySeason = group(looks, (s) => seasonYearOf(s.on, south))
    return [...bySeason].flatMap(([season, of]): BloomSeen[] => {
      const flowering = of.filter((s) => inBloom(s.stage))
      if (flowering.length === 0) return []
      const first = flowering[0]!.on
      const last = flowering.at(-1)!.on
      const notBefore = of.findLast((s) => s.on < first && !inBloom(s.stage))?.on ?? null
      const notAfter = of.find((s) => s.on > last && !inBloom(s.stage))?.on ?? null
      const expected = usualBloom(p.taxon, season, yearOfSeason(season))
      const bounded = notBefore && daysBetween(notBefore, first) <= BOUND_DAYS
      // The bloom began between two looks: half way is the best guess. A first look at it opening is near the day.
      const began =
        flowering[0]!.stage === 'opening'
          ? first
          : bounded
            ? addDays(notBefore, Math.ceil(daysBetween(notBefore, first) / 2))
            : undefined
      return [
        {
          plantingId: p.id,
          season,
          first,
          last,
          notBefore,
          notAfter,
          flushes: Math.max(1, ...flowering.map((s) => s.flush ?? 1)),
          expected,
          lateDays: began && expected ? daysBetween(expected.from, began) : undefined,
        },
      ]
    })
  })
}

/** While the usual day is warmer than this a place is expected to show something: a working figure. */
const SHOW_C = 8

/**
 * The days of a season in which a place should show something.
 *
 * @param climate null where none is known: from two months after midwinter for eight
 */
export function weeksOfShow(
  climate: Climate | null,
  season: number,
  south: boolean,
): { from: IsoDate; to: IsoDate } {
  const start = seasonStart(season, south)
  const days = Array.from({ length: 365 }, (_, i) => addDays(start, i))
  const warm = climate
    ? days.filter((d) => (usually(climate.minC, d) + usually(climate.maxC, d)) / 2 >= SHOW_C)
    : days.slice(60, 304)
  return { from: warm[0] ?? days[60]!, to: warm.at(-1) ?? days[304]! }
}

/** The first days of the weeks of a time. */
export function weekStarts({ from, to }: { from: IsoDate; to: IsoDate }): IsoDate[] {
  const count = Math.floor(daysBetween(from, to) / 7) + 1
  return Array.from({ length: Math.max(0, count) }, (_, i) => addDays(from, 7 * i))
}

/** A look so many days before a place should show something still tells when a bloom began. */
const BEFORE_SHOW_DAYS = 30

/** The looks that tell of the bloom of a season. */
export const looksOfShow = (seen: readonly Seen[], { from, to }: { from: IsoDate; to: IsoDate }): Seen[] =>
  seen.filter((s) => s.on >= addDays(from, -BEFORE_SHOW_DAYS) && s.on <= to)

/** A planting as the bloom of a place counts it. */
export interface BloomingPlanting extends RecordedPlanting {
  livingCount: number
}

/** One week of a place. */
export interface BloomWeek {
  /** First day of the week. */
  from: IsoDate
  /** Share of the planted ground in flower, by how showy it is: 0 to about 0.7. */
  cover: number
  /** Plantings in bloom. */
  count: number
  /** True where looks of that week say so; else it is expected from the taxon and the year. */
  seen: boolean
}

/** Weeks of the growing season in which nothing flowers. */
export interface BloomGap {
  from: IsoDate
  to: IsoDate
  weeks: number
}

/** Below this share of the planted ground in flower a week counts as bare of bloom: a working figure. */
export const LEAST_COVER = 0.04
const LEAST_GAP_WEEKS = 2

/** Share of a plant's spread that is flower to the eye at its height. Working figures by habit. */
export const showiness: Record<Habit, number> = {
  clump: 0.5,
  mound: 0.5,
  upright: 0.6,
  spire: 0.45,
  grass: 0.25,
  fern: 0,
  shrub: 0.5,
  mat: 0.6,
  bulb: 0.7,
  climber: 0.5,
}
const stageShow: Record<BloomStage, number> = { none: 0, bud: 0, opening: 0.5, full: 1, fading: 0.5, over: 0 }

/**
 * The bloom of a place by week over a season: what looks of the week say, else what is expected of each planting.
 *
 * @param window the days that count as its season
 * @returns a week at a time, from the first day of the window
 */
export function bloomOfPlace(
  plantings: readonly BloomingPlanting[],
  seen: readonly Seen[],
  window: { from: IsoDate; to: IsoDate; season: number },
  yearOfSeason: YearOfSeason,
): BloomWeek[] {
  const looks = group(
    seen.filter((s) => s.stage !== null && s.on >= window.from && s.on <= window.to),
    (s) => s.plantingId,
  )
  const weeks: BloomWeek[] = []
  for (const from of weekStarts(window)) {
    const end = addDays(from, 6)
    let flowerM2 = 0
    let plantedM2 = 0
    let count = 0
    let looked = false
    for (const p of plantings) {
      if (p.inPlaceSince > end) continue
      const ownM2 = groundM2(p.livingCount, p.taxon.spacingM)
      plantedM2 += ownM2
      const look = looks.get(p.id)?.findLast((s) => s.on >= from && s.on <= end)
      if (look) looked = true
      const show = look
        ? stageShow[look.stage!]
        : expectedShow(p.taxon, addDays(from, 3), window.season, yearOfSeason)
      if (show === 0) continue
      count++
      flowerM2 += ownM2 * showiness[p.taxon.habit] * show
    }
    weeks.push({ from, cover: plantedM2 > 0 ? flowerM2 / plantedM2 : 0, count, seen: looked })
  }
  return weeks
}

function expectedShow(taxon: Taxon, day: IsoDate, season: number, yearOfSeason: YearOfSeason): number {
  // A bloom may have begun in the season before.
  for (const s of [season, season - 1]) {
    const bloom = usualBloom(taxon, s, yearOfSeason(s))
    if (!bloom || day < bloom.from || day > bloom.to) continue
    const into = daysBetween(bloom.from, day) / Math.max(1, daysBetween(bloom.from, bloom.to))
    return into < 0.2 || into > 0.8 ? 0.5 : 1
  }
  return 0
}

/** Runs of weeks with next to nothing in flower. */
export function bloomGaps(weeks: readonly BloomWeek[]): BloomGap[] {
  const gaps: BloomGap[] = []
  let start: number | undefined
  weeks.concat({ from: '', cover: 1, count: 0, seen: false }).forEach((w, i) => {
    if (w.cover < LEAST_COVER) start ??= i
    else {
      if (start !== undefined && i - start >= LEAST_GAP_WEEKS)
        gaps.push({ from: weeks[start]!.from, to: addDays(weeks[i - 1]!.from, 6), weeks: i - start })
      start = undefined
    }
  })
  return gaps
}
