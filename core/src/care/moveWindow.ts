import { usually, type Climate } from '../climate/index.ts'
import {
  addDays,
  dayOfYear,
  daysBetween,
  fromDayOfYear,
  isoDate,
  maxDay,
  minDay,
  monthOf,
  yearOf,
  type IsoDate,
} from '../dates/index.ts'
import type { Taxon } from '../plants/index.ts'
import { celsius, dayMonth } from '../words/index.ts'

/** When a job may be done: `earliest <= bestFrom <= bestTo <= latest`, each with the sentence that explains it. */
export interface Window {
  season: 'autumn' | 'spring' | 'dormant season' | 'summer'
  earliest: IsoDate
  bestFrom: IsoDate
  bestTo: IsoDate
  latest: IsoDate
  why: Record<'earliest' | 'bestFrom' | 'bestTo' | 'latest', string>
}

export type MoveWindows =
  | { ok: true; windows: Window[] }
  | { ok: false; reason: 'resents-moving' }
  | { ok: false; reason: 'no-window'; why: string }

/** Roots grow while soil is warmer than this; the usual working figure for hardy plants. */
const ROOTING_SOIL_C = 6
/** Weeks of rooting soil a moved plant in leaf needs before cold. */
const ROOTING_WEEKS = 6
/** Soil cooler than this after midsummer: lifting no longer cooks the roots. */
const HEAT_OVER_SOIL_C = 18
const COOL_SOIL_C = 16
/** A mean daily high above this dries lifted plants faster than new roots drink. */
const HOT_DAY_C = 22
const LEAF_FALL_SOIL_C = 10
const STIFF_SOIL_C = 5
const WARM_SOIL_C = 12
const WARM_GRASS_SOIL_C = 8
/** A window shorter than this, in days, is none. */
const LEAST_DAYS = 8

/**
 * The next windows for lifting and replanting a taxon, in date order, those closed before `on` left out.
 * Every limit hangs on bloom, frost dates and usual soil warmth of the place, not on the month.
 *
 * @param on windows that end before this day are past
 */
export function moveWindows(taxon: Taxon, climate: Climate, on: IsoDate): MoveWindows {
  if (taxon.moveWhen === 'never') return { ok: false, reason: 'resents-moving' }
  const found: Window[] = []
  for (const year of [yearOf(on) - 1, yearOf(on), yearOf(on) + 1]) {
    const calendar = gardenCalendar(climate, year)
    for (const rule of rulesFor(taxon)) {
      const window = rule(taxon, calendar)
      if (window && window.latest >= on) found.push(window)
    }
  }
  if (found.length === 0)
    return {
      ok: false,
      reason: 'no-window',
      why: 'No time of the usual year here is cool and long enough for it.',
    }
  found.sort((a, b) => (a.earliest < b.earliest ? -1 : 1))
  return { ok: true, windows: found }
}

/** The dates of one gardening year, from one midwinter to the next but one spring. */
export interface GardenCalendar {
  climate: Climate
  /** Coldest soil, opening the year. */
  midwinter: IsoDate
  midsummer: IsoDate
  nextMidwinter: IsoDate
  /** First day from `from` to `to` on which the usual soil temperature satisfies `test`. */
  soilFirst: (from: IsoDate, to: IsoDate, test: (soilC: number) => boolean) => IsoDate | undefined
  maxFirst: (from: IsoDate, to: IsoDate, test: (maxC: number) => boolean) => IsoDate | undefined
}

export function gardenCalendar(climate: Climate, year: number): GardenCalendar {
  const coldest = extremeDay(climate.soilC, -1)
  const warmest = extremeDay(climate.soilC, 1)
  const midwinter = fromDayOfYear(year, coldest)
  const warmestThisYear = fromDayOfYear(year, warmest)
  const midsummer = warmestThisYear > midwinter ? warmestThisYear : fromDayOfYear(year + 1, warmest)
  const scan =
    (series: readonly number[]) => (from: IsoDate, to: IsoDate, test: (value: number) => boolean) => {
      for (let day = from; day <= to; day = addDays(day, 1)) if (test(usually(series, day))) return day
      return undefined
    }
  return {
    climate,
    midwinter,
    midsummer,
    nextMidwinter: fromDayOfYear(year + 1, coldest),
    soilFirst: scan(climate.soilC),
    maxFirst: scan(climate.maxC),
  }
}

function extremeDay(series: readonly number[], sign: 1 | -1): number {
  let best = 0
  series.forEach((v, i) => {
    if (sign * v > sign * series[best]!) best = i
  })
  return best + 1
}

type WindowRule = (taxon: Taxon, calendar: GardenCalendar) => Window | undefined

function rulesFor(taxon: Taxon): WindowRule[] {
  switch (taxon.moveWhen) {
    case 'after bloom':
      return [inAutumn, inSpring]
    case 'spring':
      return [inSpring]
    case 'either':
      return [inAutumn, inSpring]
    case 'dormant':
      return [whileDormant]
    case 'died down':
      return [diedDown]
    case 'after frost':
      return [afterFrost]
    case 'never':
      return []
  }
}

/** A taxon's bloom within the year that a calendar spans; turned by half a year south of the equator. */
function bloomIn(taxon: Taxon, c: GardenCalendar): { from: IsoDate; to: IsoDate } | undefined {
  if (!taxon.bloomFrom || !taxon.bloomTo) return undefined
  const shift = c.climate.latitudeDeg < 0 ? 182 : 0
  const doyOf = (md: string) => ((dayOfYear(`2023-${md}`) - 1 + shift) % 365) + 1
  const start = doyOf(taxon.bloomFrom)
  const end = doyOf(taxon.bloomTo)
  // The bloom that ends in this calendar's year; one that began before midwinter belongs to it too.
  const sameYear = fromDayOfYear(yearOf(c.midwinter), end)
  const to = sameYear >= c.midwinter ? sameYear : fromDayOfYear(yearOf(c.midwinter) + 1, end)
  return { from: addDays(to, -((end - start + 365) % 365)), to }
}

/** After bloom and heat, with six weeks of rooting soil to come. */
function inAutumn(taxon: Taxon, c: GardenCalendar): Window | undefined {
  const heatOver = c.soilFirst(c.midsummer, c.nextMidwinter, (t) => t < HEAT_OVER_SOIL_C) ?? c.midsummer
  const cool = c.soilFirst(c.midsummer, c.nextMidwinter, (t) => t < COOL_SOIL_C) ?? heatOver
  const cold = c.soilFirst(c.midsummer, c.nextMidwinter, (t) => t < ROOTING_SOIL_C)
  const latest = addDays(cold ?? c.nextMidwinter, -7 * ROOTING_WEEKS)
  const bloom = bloomIn(taxon, c)
  const bloomOver = bloom && bloom.to < c.nextMidwinter ? addDays(bloom.to, 7) : undefined
  const afterHeat = maxDay(heatOver, bloomOver ?? heatOver)
  // Where warmth ends soon after heat, waiting for cool soil would leave no time to root.
  const hurried = daysBetween(afterHeat, latest) < LEAST_DAYS
  const earliest = hurried ? maxDay(bloomOver ?? c.midsummer, addDays(latest, -21)) : afterHeat
  if (daysBetween(earliest, latest) < LEAST_DAYS) return undefined
  // Where autumn is short, soil is still warm when time runs out: then sooner is better than cooler.
  const bestFrom = cool <= addDays(latest, -7) ? maxDay(earliest, cool) : earliest
  const bestTo = maxDay(bestFrom, minDay(addDays(latest, -14), addDays(bestFrom, 42)))
  return {
    season: 'autumn',
    earliest,
    bestFrom,
    bestTo,
    latest,
    why: {
      earliest:
        bloomOver === earliest
          ? `Not before ${dayMonth(earliest)}: it flowers until about ${dayMonth(bloom!.to)} and is left a week to finish.`
          : hurried
            ? `Not before ${dayMonth(earliest)}: autumn is short here, so it is lifted in the last of the warmth, shaded and watered.`
            : `Not before ${dayMonth(earliest)}: until then the soil is usually above ${celsius(HEAT_OVER_SOIL_C)} and lifted roots dry out.`,
      bestFrom:
        bestFrom >= cool && !hurried
          ? `Best from ${dayMonth(bestFrom)}: the soil has usually fallen below ${celsius(COOL_SOIL_C)}, so lifted roots dry less.`
          : `Best from ${dayMonth(bestFrom)}, as soon as it may be lifted: autumn is short here.`,
      bestTo: `Best until ${dayMonth(bestTo)}: days in hand before the last one that leaves time to root.`,
      latest: cold
        ? `Not after ${dayMonth(latest)}: soil here usually drops below ${celsius(ROOTING_SOIL_C)} about ${dayMonth(cold)}, and new roots need ${ROOTING_WEEKS} weeks before that.`
        : `Not after ${dayMonth(latest)}: ${ROOTING_WEEKS} weeks before the coldest soil of the year.`,
    },
  }
}

/** As growth shows, done before heat and well before bloom. */
function inSpring(taxon: Taxon, c: GardenCalendar): Window | undefined {
  const thawed = c.soilFirst(c.midwinter, c.midsummer, (t) => t > ROOTING_SOIL_C) ?? c.midwinter
  const warmGrass = taxon.lifeForm === 'warm grass' || taxon.lifeForm === 'tender perennial'
  const bloom = bloomIn(taxon, c)
  const warmed = warmGrass
    ? (c.soilFirst(thawed, c.midsummer, (t) => t > WARM_GRASS_SOIL_C) ?? thawed)
    : thawed
  // Early bloomers flower as the soil warms: they are lifted once that is over.
  const flowersThen = bloom && bloom.from <= addDays(warmed, 28) && bloom.to >= warmed
  const starts = flowersThen ? addDays(bloom.to, 7) : warmed
  const hot = c.maxFirst(starts, c.midsummer, (t) => t > HOT_DAY_C) ?? addDays(c.midsummer, -30)
  const beforeBloom = bloom && bloom.from > starts ? addDays(bloom.from, -28) : undefined
  const latest = minDay(hot, beforeBloom ?? hot, addDays(starts, warmGrass ? 35 : 42))
  const bestFrom = flowersThen ? starts : addDays(starts, 7)
  const bestTo = minDay(addDays(starts, 28), latest)
  if (daysBetween(starts, latest) < LEAST_DAYS || bestFrom > bestTo) return undefined
  const soilC = warmGrass ? WARM_GRASS_SOIL_C : ROOTING_SOIL_C
  return {
    season: 'spring',
    earliest: starts,
    bestFrom,
    bestTo,
    latest,
    why: {
      earliest: flowersThen
        ? `Not before ${dayMonth(starts)}: it flowers until about ${dayMonth(bloom.to)} and is left a week to finish.`
        : `Not before ${dayMonth(starts)}: soil is usually above ${celsius(soilC)} from then, warm enough for new roots.`,
      bestFrom: flowersThen
        ? `Best from ${dayMonth(bestFrom)}: straight after bloom, with summer’s growth still to come.`
        : `Best from ${dayMonth(bestFrom)}: growth shows, so crowns can be found and judged.`,
      bestTo: `Best until ${dayMonth(bestTo)}: new growth is still short and loses little water.`,
      latest:
        beforeBloom === latest
          ? `Not after ${dayMonth(latest)}: four weeks before it usually flowers.`
          : latest === hot
            ? `Not after ${dayMonth(latest)}: days above ${celsius(HOT_DAY_C)} usually begin then.`
            : `Not after ${dayMonth(latest)}: by then it has too much leaf to lift.`,
    },
  }
}

/** Woody plants between leaf fall and bud break; not in frozen ground. */
function whileDormant(_: Taxon, c: GardenCalendar): Window | undefined {
  const asleep = c.soilFirst(c.midsummer, c.nextMidwinter, (t) => t < LEAF_FALL_SOIL_C)
  if (!asleep) return undefined
  const stiff = c.soilFirst(asleep, c.nextMidwinter, (t) => t < STIFF_SOIL_C)
  const wakes =
    c.soilFirst(c.nextMidwinter, addDays(c.nextMidwinter, 150), (t) => t > ROOTING_SOIL_C) ??
    addDays(c.nextMidwinter, 45)
  const bestFrom = addDays(asleep, 10)
  const bestTo = maxDay(bestFrom, stiff ?? c.nextMidwinter)
  return {
    season: 'dormant season',
    earliest: asleep,
    bestFrom,
    bestTo,
    latest: wakes,
    why: {
      earliest: `Not before ${dayMonth(asleep)}: leaves usually fall as the soil drops below ${celsius(LEAF_FALL_SOIL_C)}.`,
      bestFrom: `Best from ${dayMonth(bestFrom)}: leafless, with soil still warm enough for some root growth.`,
      bestTo: stiff
        ? `Best until ${dayMonth(bestTo)}: the soil usually falls below ${celsius(STIFF_SOIL_C)} then. Later is possible in open weather, never in frozen or sodden ground.`
        : `Best until ${dayMonth(bestTo)}: the coldest soil of the year; never in sodden ground.`,
      latest: `Not after ${dayMonth(wakes)}: buds break as the soil passes ${celsius(ROOTING_SOIL_C)}.`,
    },
  }
}

/** Bulbs once their leaves have gone. */
function diedDown(taxon: Taxon, c: GardenCalendar): Window | undefined {
  const bloom = bloomIn(taxon, c)
  if (!bloom) return undefined
  const leafless = addDays(bloom.to, 42)
  const cold = c.soilFirst(maxDay(c.midsummer, leafless), c.nextMidwinter, (t) => t < ROOTING_SOIL_C)
  const cool = c.soilFirst(c.midsummer, c.nextMidwinter, (t) => t < COOL_SOIL_C) ?? leafless
  const latest = minDay(addDays(cold ?? c.nextMidwinter, -28), addDays(maxDay(cool, leafless), 28))
  const bestTo = minDay(maxDay(addDays(leafless, 28), cool), latest)
  if (daysBetween(leafless, latest) < LEAST_DAYS) return undefined
  return {
    season: 'summer',
    earliest: leafless,
    bestFrom: leafless,
    bestTo,
    latest,
    why: {
      earliest: `Not before ${dayMonth(leafless)}: its leaves feed the bulb for about six weeks after bloom.`,
      bestFrom: `Best from ${dayMonth(leafless)}: leaves have died down and the place is still easy to find.`,
      bestTo: `Best until ${dayMonth(bestTo)}: before new roots start in cooling soil.`,
      latest: `Not after ${dayMonth(latest)}: new roots are under way by then.`,
    },
  }
}

/** Tender plants once frost is past and the soil is warm. */
function afterFrost(_: Taxon, c: GardenCalendar): Window | undefined {
  const frost = c.climate.lastFrost
  const frostFree = frost ? frostDay(c, frost.p90) : c.midwinter
  const warm = c.soilFirst(c.midwinter, c.midsummer, (t) => t > WARM_SOIL_C) ?? c.midsummer
  const earliest = maxDay(frostFree, warm)
  const bestTo = addDays(earliest, 30)
  return {
    season: 'spring',
    earliest,
    bestFrom: addDays(earliest, 3),
    bestTo,
    latest: addDays(earliest, 60),
    why: {
      earliest: frost
        ? `Not before ${dayMonth(earliest)}: nine years in ten the last frost is over by ${dayMonth(frostFree)} and the soil is above ${celsius(WARM_SOIL_C)}.`
        : `Not before ${dayMonth(earliest)}: the soil is usually above ${celsius(WARM_SOIL_C)} from then.`,
      bestFrom: `Best from ${dayMonth(addDays(earliest, 3))}: nights are mild.`,
      bestTo: `Best until ${dayMonth(bestTo)}: the whole season is still ahead.`,
      latest: `Not after ${dayMonth(addDays(earliest, 60))}: too little of the season is left to pay for the check.`,
    },
  }
}

/** The day of a frost quantile in the calendar's own spring. */
function frostDay(c: GardenCalendar, doy: number): IsoDate {
  const day = fromDayOfYear(yearOf(c.midwinter), doy)
  return day >= isoDate(yearOf(c.midwinter), monthOf(c.midwinter), 1)
    ? day
    : fromDayOfYear(yearOf(c.midwinter) + 1, doy)
}
