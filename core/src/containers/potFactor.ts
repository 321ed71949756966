import { addDays, type IsoDate } from '../dates/index.ts'
import { readilyLitres, waterThrough, type WateredPot, type WaterDay } from './potWater.ts'

/** How a finger finds the mix, a finger deep. */
export const felts = ['wet', 'moist', 'dry'] as const
export type Felt = (typeof felts)[number]

/** What is done or found at a container: as the next, rain in a gauge beside it, stars given to all of it, and a drain test of its mix. */
export const checkKinds = ['watered', 'felt', 'weighed', 'rained', 'rated', 'drained'] as const
export type CheckKind = (typeof checkKinds)[number]

/** What somebody found or did at a container: watered it through, felt its mix, or weighed it. */
export type PotCheck = { day: IsoDate } & (
  | { kind: 'watered' }
  | { kind: 'felt'; felt: Felt }
  /** Kilograms less than watered through. */
  | { kind: 'weighed'; lighterKg: number }
)

/** What a container really draws over what is worked out: the middle, and from one of ten to nine of ten. */
export interface PotFactor {
  factor: number
  p10: number
  p90: number
  /** Findings that it rests on. */
  from: number
}

/** Before anything is found a pot is taken to draw what is worked out, give or take a third: spread of the logarithm. */
const PRIOR = 0.3
/** Factors that are tried, evenly by their logarithm. */
const [LEAST, MOST, TRIED] = [0.35, 2.8, 81]
/** Of what may go before something flags: felt wet below, dry above. */
const EDGES: Readonly<Record<Felt, readonly [number, number]>> = {
  wet: [-Infinity, 0.35],
  moist: [0.35, 1],
  dry: [1, Infinity],
}
/** A finger misjudges by so much of that; scales by so much of what has gone, and half a litre. */
const FINGER = 0.25
const SCALES = { share: 0.05, litres: 0.5 }
/** Longer after it was watered nothing is known of it. */
const MOST_DAYS = 45

/**
 * A container's own factor by what was found at it: the posterior of what it draws over what is worked out, with a log-normal prior about 1, by
 * trying every factor of a grid. With little found it stays near 1; findings that agree draw it away.
 *
 * @param checks in any order; a finding counts where it is known when the pot was last watered through
 * @param days of the record, consecutive
 */
export function potFactor(
  pot: WateredPot,
  checks: readonly PotCheck[],
  days: readonly WaterDay[],
): PotFactor | undefined {
  const sorted = [...checks].sort((a, b) => (a.day < b.day ? -1 : 1))
  const at = new Map(days.map((d, i) => [d.day, i]))
  const last = days.at(-1)
  const dayAfter = last && addDays(last.day, 1)
  const factors = Array.from({ length: TRIED }, (_, i) => LEAST * (MOST / LEAST) ** (i / (TRIED - 1)))
  const logs = factors.map((f) => -0.5 * (Math.log(f) / PRIOR) ** 2)
  // How a pot draws is worked out once for each, however many findings there are.
  const tried = factors.map((factor): WateredPot => ({ ...pot, factor }))
  const readily = readilyLitres(pot)
  let from = 0
  for (const check of sorted) {
    if (check.kind === 'watered') continue
    const watered = sorted.findLast((c) => c.kind === 'watered' && c.day < check.day)
    const first = watered && at.get(watered.day)
    const until = check.day === dayAfter ? days.length : at.get(check.day)
    if (first === undefined || until === undefined || until - first > MOST_DAYS) continue
    const run = days.slice(first, until)
    from++
    tried.forEach((one, i) => {
      const { depletion } = waterThrough(one, run, { tended: () => false })
      logs[i]! += logLikelihood(check, depletion, readily)
    })
  }
  if (from === 0) return undefined
  const most = Math.max(...logs)
  const weights = logs.map((l) => Math.exp(l - most))
  const all = weights.reduce((a, b) => a + b, 0)
  const below = (share: number) => {
    let sum = 0
    return factors.find((_, i) => (sum += weights[i]! / all) >= share) ?? MOST
  }
  const mean = Math.exp(weights.reduce((sum, w, i) => sum + (w / all) * Math.log(factors[i]!), 0))
  return { factor: mean, p10: below(0.1), p90: below(0.9), from }
}

function logLikelihood(
  check: Exclude<PotCheck, { kind: 'watered' }>,
  depletion: number,
  readily: number,
): number {
  if (check.kind === 'weighed') {
    const sd = SCALES.litres + SCALES.share * depletion
    return -0.5 * ((check.lighterKg - depletion) / sd) ** 2 - Math.log(sd)
  }
  const [low, high] = EDGES[check.felt]
  const gone = depletion / readily
  return Math.log(Math.max(1e-6, normalBelow((high - gone) / FINGER) - normalBelow((low - gone) / FINGER)))
}

/** The standard normal distribution below a value: by the logistic curve that lies closest to it (Bowling and others 2009), within 0.0002. */
const normalBelow = (z: number): number => 1 / (1 + Math.exp(-(0.07056 * z ** 3 + 1.5976 * z)))
