import { utcDate, type IsoDate } from '../dates/index.ts'
import { distanceToBoundary, isInside } from '../geometry/index.ts'
import { type Obstruction, type Scene, type Supposition } from '../light/index.ts'
import {
  blockAsBuilding,
  blocksNear,
  NEW_PARAMETERS,
  newBlocks,
  variantsOf,
  type HiddenChange,
  type NewBlock,
} from './hypotheses.ts'
import { agrees, aimOf, likelihood, RAYS, raysOf, sharesPast, type Aim, type Reading } from './reading.ts'

/** What may have changed without anyone recording it. */
export type Cause =
  | { what: 'as drawn' }
  | { what: HiddenChange; obstructionId: string; supposition: Supposition }
  | { what: 'new'; block: NewBlock; building: Building }

/** A cause with how well it accounts for the readings. */
export interface Explanation {
  cause: Cause
  /** Share of belief after the readings, 0 to 1; all explanations together 1. */
  posterior: number
  logLikelihood: number
  /** Bayesian information criterion, smaller is better (Schwarz 1978): -2 log likelihood + parameters ln n. */
  bic: number
  /** Ids of the readings it gives at their word. */
  explains: string[]
}

/** What may account for readings that the plan does not. */
export interface Explained {
  /** Most believed first; one for each kind of change of each obstruction, at its best size. */
  explanations: Explanation[]
  /** Every cause at every size that was tried, with its share of belief; for choosing what to look at next. */
  alternatives: { cause: Cause; weight: number }[]
  /** Readings that were used, and those that cannot be: the sun is behind the ground. */
  used: number
  unusable: string[]
}

type Building = Extract<Obstruction, { kind: 'building' }>

/** Belief, before any reading, that something has changed. */
const BELIEF_IN_CHANGE = 0.5

/**
 * How often each kind of change is met, one against another: things go, are cut down and come new more often than they
 * are thinned or limbed up unseen. Working values; within a kind the obstructions count alike.
 */
const OFTEN: Record<HiddenChange | 'new', number> = {
  gone: 3,
  lowered: 3,
  grown: 3,
  new: 4,
  thinned: 1,
  limbed: 1,
  raised: 1,
}

/**
 * Which unrecorded change best accounts for readings: as drawn, each obstruction otherwise, or something new. Each kind
 * of change stands at its best size, with a penalty for every size that was free (BIC), so that a change is only named
 * when readings need it.
 *
 * The change is taken to lie before the first of the readings.
 */
export function explainReadings(scene: Scene, readings: readonly Reading[]): Explained {
  const { aims, usable, unusable } = aimed(scene, readings)
  const drawn = new Drawn(scene, aims)
  const last = lastDay(usable)
  const families = new Map<string, Family>()
  const consider = (key: string, cause: Cause, shares: Float64Array, parameters: number) => {
    const logLikelihood = score(usable, shares)
    const bic = -2 * logLikelihood + parameters * Math.log(Math.max(2, usable.length))
    const family = families.get(key) ?? { tried: [] }
    families.set(key, family)
    family.tried.push({ cause, logLikelihood })
    if (!family.best || bic < family.best.bic)
      family.best = { cause, logLikelihood, bic, explains: explainedBy(usable, shares) }
  }
  consider('as drawn', { what: 'as drawn' }, drawn.all, 0)
  scene.obstructions.forEach((o, k) => {
    const others = drawn.without(k)
    for (const v of variantsOf(o, last)) {
      const past = v.changed && sharesPast(aims, v.changed)
      const { what, obstructionId, supposition } = v
      consider(
        `${what}|${obstructionId}`,
        { what, obstructionId, supposition },
        past ? times(others, past) : others,
        v.parameters,
      )
    }
  })
  const { best, picks } = searchBlocks(scene, usable, aims, drawn.all)
  if (best) {
    const { block, building, shares } = best
    consider('new', { what: 'new', block, building }, shares, NEW_PARAMETERS)
    families.get('new')!.tried = picks.map(({ cause, logLikelihood }) => ({ cause, logLikelihood }))
  }
  const found = [...families.values()]
  const beliefBefore = priors(found.map((f) => f.best!.cause))
  return {
    explanations: believed(
      found.map((f) => f.best!),
      beliefBefore,
    ),
    alternatives: weighed(found, beliefBefore),
    used: usable.length,
    unusable,
  }
}

/** One kind of change of one obstruction: every size tried, and the best. */
interface Family {
  tried: { cause: Cause; logLikelihood: number }[]
  best?: Omit<Explanation, 'posterior'>
}

/** Readings whose sun could be worked out, and what became of the others. */
export interface Aimed {
  aims: Aim[]
  usable: Reading[]
  unusable: string[]
}

function aimed(scene: Scene, readings: readonly Reading[]): Aimed {
  const found: Aimed = { aims: [], usable: [], unusable: [] }
  for (const r of readings) {
    const aim = aimOf(scene, r)
    if (aim) {
      found.aims.push(aim)
      found.usable.push(r)
    } else found.unusable.push(r.id)
  }
  return found
}

const lastDay = (readings: readonly Reading[]): IsoDate =>
  utcDate(Math.max(0, ...readings.map((r) => r.instantMs)))

/** What the scene as drawn lets through along every ray, whole and with each obstruction left out. */
export class Drawn {
  readonly all: Float64Array
  private readonly past: Float64Array[]

  constructor(scene: Scene, aims: readonly Aim[]) {
    this.past = scene.obstructions.map((o) => sharesPast(aims, o))
    this.all = this.past.reduce(times, ones(raysOf(aims)))
  }

  without(k: number): Float64Array {
    return this.past.reduce(
      (product, past, i) => (i === k ? product : times(product, past)),
      ones(this.all.length),
    )
  }
}

const ones = (n: number) => new Float64Array(n).fill(1)
/** Product element by element, of arrays of one length. */
export function times(a: Float64Array, b: Float64Array): Float64Array {
  const product = new Float64Array(a.length)
  for (let i = 0; i < a.length; i++) product[i] = a[i]! * b[i]!
  return product
}

/** Log likelihood of the readings; where somebody stood is known to a step, so each is the mean over its rays. */
function score(readings: readonly Reading[], shares: Float64Array): number {
  const rays = shares.length / Math.max(1, readings.length)
  let sum = 0
  readings.forEach((r, i) => {
    let mean = 0
    for (let j = 0; j < rays; j++) mean += likelihood(r.seen, shares[i * rays + j]!) / rays
    sum += Math.log(mean)
  })
  return sum
}

const explainedBy = (readings: readonly Reading[], shares: Float64Array): string[] =>
  readings.filter((r, i) => agrees(r.seen, shares[i * RAYS]!)).map((r) => r.id)

interface Tried {
  block: NewBlock
  building: Building
  shares: Float64Array
  score: number
}

/** How many of the first blocks are closed in on. */
const CLOSED_IN = 4
const PICKS = 150

/** The best block that is on nobody's feet, and a spread of others; nothing without readings. */
function searchBlocks(
  scene: Scene,
  readings: readonly Reading[],
  aims: readonly Aim[],
  drawn: Float64Array,
): { best?: Tried; picks: Family['tried'] } {
  if (readings.length === 0) return { picks: [] }
  const middle = [mean(readings.map((r) => r.x)), mean(readings.map((r) => r.y))] as const
  const at = (block: NewBlock, exactly = false): Tried | undefined => {
    const building = blockAsBuilding(block, middle, scene.northDeg)
    if (readings.some((r) => isUnder(building, r))) return undefined
    const shares = exactly
      ? times(drawnAtPoints, sharesPast(pointAims, building))
      : times(drawn, sharesPast(aims, building))
    return { block, building, shares, score: score(readings, shares) }
  }
  // The wide search asks the points alone; closing in, those about them too.
  const pointAims = aims.map((aim) => ({ ...aim, rays: aim.rays.slice(0, 1) }))
  const drawnAtPoints = drawn.filter((_, i) => i % RAYS === 0)
  const better = (a: Tried, b: Tried) => b.score - a.score
  const first = [...newBlocks()].map((b) => at(b, true)).filter((b) => b !== undefined)
  const evidence = logMean(first.map((b) => b.score))
  const picks = inProportion(first).map(({ block, building }) => ({
    cause: { what: 'new' as const, block, building },
    logLikelihood: evidence,
  }))
  const closed = first
    .sort(better)
    .slice(0, CLOSED_IN)
    .map((start) => {
      let best = at(start.block)!
      for (const step of [0.5, 0.25, 0.12])
        for (let improved = true; improved;) {
          const near = blocksNear(best.block, step)
            .map((b) => at(b))
            .filter((b) => b !== undefined)
          const next = near.sort(better)[0]
          improved = next !== undefined && next.score > best.score + 1e-9
          if (improved) best = next!
        }
      return best
    })
  return { best: closed.sort(better)[0]!, picks }
}

/** Evenly spaced picks along the summed likelihoods: each block as often as it is likely. */
function inProportion(blocks: readonly Tried[]): Tried[] {
  const most = Math.max(...blocks.map((b) => b.score))
  const total = blocks.reduce((sum, b) => sum + Math.exp(b.score - most), 0)
  const picks: Tried[] = []
  let sum = 0
  for (const b of blocks) {
    sum += Math.exp(b.score - most) / total
    while (picks.length < PICKS && sum > (picks.length + 0.5) / PICKS) picks.push(b)
  }
  return picks
}

/** A block does not stand within half a metre of where somebody stood. */
const isUnder = (b: Building, r: Reading) =>
  isInside(b.ring, r.x, r.y) || distanceToBoundary(b.ring, r.x, r.y) < 0.5

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length

/** Log of the mean of likelihoods given by their logs. */
function logMean(logs: readonly number[]): number {
  const most = Math.max(...logs)
  return most + Math.log(mean(logs.map((l) => Math.exp(l - most))))
}

/** Belief in each cause before any reading. */
function priors(causes: readonly Cause[]): number[] {
  const kinds = new Map<Cause['what'], number>()
  for (const { what } of causes) kinds.set(what, (kinds.get(what) ?? 0) + 1)
  const often = [...kinds.keys()].reduce((sum, what) => sum + (what === 'as drawn' ? 0 : OFTEN[what]), 0)
  return causes.map(({ what }) =>
    what === 'as drawn'
      ? 1 - BELIEF_IN_CHANGE
      : (BELIEF_IN_CHANGE * OFTEN[what]) / Math.max(1, often) / kinds.get(what)!,
  )
}

function believed(found: Omit<Explanation, 'posterior'>[], beliefBefore: readonly number[]): Explanation[] {
  const least = Math.min(...found.map((e) => e.bic))
  const weights = found.map((e, i) => beliefBefore[i]! * Math.exp(-(e.bic - least) / 2))
  const total = weights.reduce((a, b) => a + b, 0)
  return found
    .map((e, i) => ({ ...e, posterior: weights[i]! / total }))
    .sort((a, b) => b.posterior - a.posterior)
}

/** Every size by its likelihood, the sizes of one family sharing its belief before alike. */
function weighed(found: readonly Family[], beliefBefore: readonly number[]): Explained['alternatives'] {
  const most = Math.max(...found.flatMap((f) => f.tried.map((t) => t.logLikelihood)))
  const all = found.flatMap((f, i) =>
    f.tried.map(({ cause, logLikelihood }) => ({
      cause,
      weight: (beliefBefore[i]! / f.tried.length) * Math.exp(logLikelihood - most),
    })),
  )
  const total = all.reduce((sum, a) => sum + a.weight, 0)
  return all.map((a) => ({ ...a, weight: a.weight / total })).sort((a, b) => b.weight - a.weight)
}
