import type { SeasonScore } from './seasons.ts'
import { median, theilSen } from './theilSen.ts'

/** A sustained fall that a planting's age, stage and the year do not explain. */
export interface Decline {
  plantingId: string
  /** Rating lost a season, a positive number: Theil and Sen's slope. */
  perSeason: number
  /** Seasons the fall was read from. */
  seasons: number
  from: number
  to: number
  /** Chance of a rise or fall as steep as this, were the order of the seasons none: two-sided. */
  p: number
}

/** Two seasons have a difference, not a trend. */
const LEAST_SEASONS = 3
/** Seasons looked back over: what went before is another garden. */
const MOST_SEASONS = 6
/** A season that tells less than this is left out. */
const LEAST_WEIGHT = 0.3
const LEAST_PER_SEASON = 0.3
const LEAST_FALL = 0.8
/** Of the whole fall, what must have been lost before the last season: one bad season is no decline. */
const LEAST_BEFORE = 0.25
/** Tenths are not exact in binary: 4 less 3.2 is as much as 0.8. */
const ROUNDING = 1e-9
/** A run of seasons that chance orders this well more often is no trend: one in three lets three even steps pass. */
const MOST_CHANCE = 0.34

/**
 * Two-sided chance that these values, in whatever order they had come, would rise or fall as much: all orders are tried (Pitman
 * 1937, Supplement to the Journal of the Royal Statistical Society 4, 225-232). Seasons that are alike, or nearly, are so in any
 * order.
 */
function chanceOfOrder(points: readonly (readonly [x: number, y: number])[]): number {
  const x = points.map(([season]) => season)
  const middle = x.reduce((a, b) => a + b, 0) / x.length
  const found = Math.abs(points.reduce((sum, [season, y]) => sum + (season - middle) * y, 0))
  let orders = 0
  let asFar = 0
  const place = (k: number, left: readonly number[], sum: number): void => {
    if (k === x.length) {
      orders++
      if (Math.abs(sum) >= found - ROUNDING) asFar++
      return
    }
    left.forEach((y, i) => place(k + 1, left.toSpliced(i, 1), sum + (x[k]! - middle) * y))
  }
  place(
    0,
    points.map(([, y]) => y),
    0,
  )
  return asFar / orders
}

/**
 * @param scores of one planting, in order of season
 * @param yearEffect what a season gave or took from the whole garden, on the scale of ratings
 * @returns undefined when there is no such fall, or too little to tell
 */
export function declineOf(
  scores: readonly SeasonScore[],
  yearEffect: (season: number) => number,
): Decline | undefined {
  const told = scores.filter((s) => !s.settling && s.weight >= LEAST_WEIGHT).slice(-MOST_SEASONS)
  if (told.length < LEAST_SEASONS) return undefined
  const points = told.map((s) => [s.season, s.adjusted - yearEffect(s.season)] as const)
  const slope = theilSen(points)
  if (slope === undefined) return undefined
  const values = points.map(([, y]) => y)
  const span = told.at(-1)!.season - told[0]!.season
  const [lastButOne, last] = values.slice(-2) as [number, number]
  const before = median(values.slice(0, -1))
  // Sustained: the last season is low, it did not come out of the blue, and it is no recovery.
  const fall = before - last
  const earlier = median(values.slice(0, -2)) - lastButOne
  const sustained =
    fall >= LEAST_FALL / 2 - ROUNDING &&
    earlier >= LEAST_BEFORE * fall - ROUNDING &&
    last <= lastButOne + 0.25
  const isSteep = -slope >= LEAST_PER_SEASON - ROUNDING && -slope * span >= LEAST_FALL - ROUNDING
  if (!isSteep || !sustained) return undefined
  // Asked last: it is tried in all orders.
  const p = chanceOfOrder(points)
  if (p > MOST_CHANCE) return undefined
  return {
    plantingId: told[0]!.plantingId,
    perSeason: -slope,
    seasons: told.length,
    from: told[0]!.season,
    to: told.at(-1)!.season,
    p,
  }
}
