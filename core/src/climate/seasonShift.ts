import { onceFor } from '../once/index.ts'
import { degreeDays, GROWTH_C } from './degreeDays.ts'
import type { Climate } from './normals.ts'

/**
 * How a place's usual year runs against the temperate maritime one that the plant library's dates are of. Both arrays
 * hold 365 values by day of the season, 0 at midwinter (1 January in the north, 1 July in the south).
 */
export interface SeasonShift {
  /** Days by which what falls on a day of the temperate year comes later here; negative for sooner. */
  daysLater: number[]
  /** The day of the temperate year that a day here stands for. */
  usualDayOf: number[]
}

const DAYS = 365

/** The year of the library's dates: mean air 10.4 °C, warmest and coldest 6.8 degrees either side, 8 degrees a day. */
const REFERENCE = { meanC: 10.4, amplitudeC: 6.8, coldestDay: 22, halfRangeC: 4 }

/** Until here warmth leads, from there on the shortening day does; days of the season. */
const WARMTH_LEADS_UNTIL = 130
const WARMTH_SPENT_BY = 240
/** Summer warmth moves what blooms late by a share of what it moves spring. */
const LATE_SHARE = 0.15
/** Autumn cold takes over between these days. */
const COLD_FROM = 255
const COLD_LEADS_FROM = 300
/** Here the year’s last leaves are down, and what follows is of the coming spring. */
const SPRING_BECKONS_FROM = 345
/** Mean air of the day at which growth goes over. */
const GOES_OVER_C = 10
const MOST_SOONER = 50
/** Warmth of a mild winter brings growth on by no more than this share of the days since midwinter: buds wait for chill and light. */
const SOONER_SHARE = 0.3
const MOST_LATER = 75

/**
 * Spring: the day on which as many degree days above 5 °C have gathered as by the same day of the temperate year. That
 * hold weakens through summer, when day length takes over; autumn follows the day on which the mean air falls below 10 °C.
 * A working model of this product; the limits keep it to climates with a winter of some kind.
 */
export const seasonShift = onceFor(shiftOf)

function shiftOf(climate: Pick<Climate, 'latitudeDeg' | 'minC' | 'maxC'>): SeasonShift {
  const start = climate.latitudeDeg < 0 ? 181 : 0
  const local = season((day) => {
    const slot = (start + day) % 366
    return [climate.minC[slot]!, climate.maxC[slot]!]
  })
  const usual = season((day) => {
    const wave = Math.cos((2 * Math.PI * (day + 1 - REFERENCE.coldestDay)) / DAYS)
    const mean = REFERENCE.meanC - REFERENCE.amplitudeC * wave
    return [mean - REFERENCE.halfRangeC, mean + REFERENCE.halfRangeC]
  })
  const autumn = bounded(goesOver(local) - goesOver(usual))
  const spring = (day: number) => {
    const reached = local.gathered.findIndex((g) => g >= usual.gathered[day]!)
    return Math.max(-SOONER_SHARE * day, bounded((reached < 0 ? DAYS : reached) - day))
  }
  const anchors = Array.from({ length: DAYS }, (_, day) => {
    if (day >= COLD_LEADS_FROM) return autumn
    const fading = (day - WARMTH_LEADS_UNTIL) / (WARMTH_SPENT_BY - WARMTH_LEADS_UNTIL)
    const share = 1 - (1 - LATE_SHARE) * Math.min(1, Math.max(0, fading))
    const warm = share * spring(Math.min(day, WARMTH_SPENT_BY))
    const cold = Math.max(0, (day - COLD_FROM) / (COLD_LEADS_FROM - COLD_FROM))
    return warm + cold * (autumn - warm)
  })
  // From the last of autumn to midwinter it passes over into the coming spring.
  for (let day = SPRING_BECKONS_FROM; day < DAYS; day++) {
    const into = (day - SPRING_BECKONS_FROM) / (DAYS - SPRING_BECKONS_FROM)
    anchors[day] = autumn + into * (anchors[0]! - autumn)
  }
  const daysLater = inOrder(anchors.map(Math.round))
  return { daysLater, usualDayOf: turned(daysLater) }
}

const bounded = (days: number) => Math.min(MOST_LATER, Math.max(-MOST_SOONER, days))

interface Season {
  meanC: number[]
  /** Degree days since midwinter. */
  gathered: number[]
}

function season(rangeOf: (day: number) => [minC: number, maxC: number]): Season {
  let sum = 0
  const days = Array.from({ length: DAYS }, (_, day) => rangeOf(day))
  return {
    meanC: days.map(([min, max]) => (min + max) / 2),
    gathered: days.map(([min, max]) => (sum += degreeDays(min, max, GROWTH_C))),
  }
}

/** The day after midsummer on which the mean air falls below what keeps growth going; the year's end where none does. */
function goesOver({ meanC }: Season): number {
  const warmest = meanC.indexOf(Math.max(...meanC))
  const found = meanC.findIndex((c, day) => day > Math.max(warmest, 150) && c < GOES_OVER_C)
  return found < 0 ? DAYS - 1 : found
}

/** Events keep their order: none is moved before one that comes sooner. */
function inOrder(daysLater: number[]): number[] {
  let last = -Infinity
  return daysLater.map((later, day) => {
    last = Math.max(last, day + later)
    return last - day
  })
}

/** For each day here the last day of the temperate year that has come by then. */
function turned(daysLater: readonly number[]): number[] {
  // The end of the year before and the start of the next fall into this one too.
  const comes = [-DAYS, 0, DAYS]
    .flatMap((turn) => daysLater.map((later, usual) => ({ usual, on: usual + later + turn })))
    .sort((a, b) => a.on - b.on || a.usual - b.usual)
  let next = 0
  return Array.from({ length: DAYS }, (_, day) => {
    while (next < comes.length && comes[next]!.on <= day) next++
    return comes[next - 1]!.usual
  })
}
