import type { IsoDate } from '../dates/index.ts'
import { isSettling } from '../performance/index.ts'
import {
  isWoody,
  seasonInPlace,
  usualState,
  type Taxon,
  type UsualState,
  type Year,
} from '../plants/index.ts'
import {
  checks,
  isSiteCause,
  signCauses,
  type Likelihood,
  type SignCause,
  type SiteCause,
} from './likelihoods.ts'
import { isSign, signs, type SignId } from './signs.ts'

/** A planting with what was seen of it lately and what its site is known to be. */
export interface SignedPlanting {
  id: string
  taxon: Taxon
  placeId: string
  x: number
  y: number
  inPlaceSince: IsoDate
  /** Signs noted this season, each once. */
  signs: readonly string[]
  /** The season's latest rating in a telling part of its year; null where there was none. */
  rating: number | null
  /** The day of that look. */
  seenOn: IsoDate
  /** Hours of sun gained (or lost, negative) by changes that are drawn; 0 where none. */
  lightChangeHours: number
  /** Hours of sun above the range it likes, or below, negative; 0 inside. */
  lightOutsideHours: number
  /** Steps the ground is moister than it likes, or drier, negative; 0 inside or where nobody said. */
  moistureSteps: number
  /** A tree or hedge whose roots reach it. */
  rootsNear: boolean
}

/** A cause of trouble with how much it is believed, and why. */
export interface RankedCause {
  cause: SignCause
  /** Posterior share, 0 to 1, among all causes and none. */
  share: number
  /** In words: `almost certainly` is never said. */
  odds: 'most likely' | 'likely' | 'possible' | 'unlikely'
  /** Signs that speak for it, strongest first: on the planting itself, and on how many about it. */
  speaksFor: { sign: SignId; own: boolean; near: number; why: string }[]
  /** Signs it would usually show that were not noted. */
  against: SignId[]
  check: string
}

/** What is believed to be wrong with a planting, most believed first; the shares with `nothing` sum to 1. */
export interface Diagnosis {
  plantingId: string
  /** Share left to nothing being wrong. */
  nothing: number
  causes: RankedCause[]
  /** Something is wrong with it that its season and its age do not explain. Never true of a plant at rest. */
  failing: boolean
  usual: UsualState
  settling: boolean
}

/** Distance, in metres, at which a neighbour's signs count for 0.6 of its own. */
const REACH_M = 2.2
/** Neighbours beyond this are another neighbourhood. */
const FURTHEST_M = 6
/** A planting in another place counts for less: its soil and water are its own. */
const OTHER_PLACE = 0.5
/** A walk does not note every sign: one that was not noted counts for less than one that was. */
const ABSENT_WEIGHT = 0.5
/** Plantings' worth of belief in the usual rate of a sign, against what the garden shows this season. */
const USUAL_PLANTINGS = 12
/** Log prior of each cause against nothing. Working figures: most plantings that are looked at are sound. */
const SITE_PRIOR = -2.6
const OWN_PRIOR: Record<'pest or disease' | 'age or crowding', number> = {
  'pest or disease': -2.3,
  'age or crowding': -3.2,
}
const IMPOSSIBLE = -8
const FAILING_SHARE = 0.6

/**
 * Signs to ranked causes. Each planting's causes are weighed by Bayes' rule; causes in the site take in the neighbours'
 * signs, by distance. What is on many plantings all over the garden this season is the year's, and tells little of a spot.
 *
 * @returns one a planting that was seen, in the order given
 */
export function diagnose(
  plantings: readonly SignedPlanting[],
  table: readonly Likelihood[],
  year: Year,
): Diagnosis[] {
  const shares = tableOf(table)
  const states = plantings.map((p) => usualState(p.taxon, p.seenOn, year))
  const young = plantings.map((p) => isSettling(p.taxon, p.inPlaceSince, p.seenOn, year.south))
  const noted = plantings.map((p) => new Set(p.signs.filter(isSign)))
  const garden = countAll(noted)
  return plantings.map((p, i) => {
    const near = neighbours(plantings, i)
    const usual = usualRates(garden, noted, near, plantings.length)
    const logs = signCauses.map((cause) => {
      let log = priorOf(cause, p, states[i]!, young[i]!, year)
      for (const { at, weight } of isSiteCause(cause) ? near : near.slice(0, 1)) {
        const minds = susceptibility(plantings[at]!.taxon, cause)
        log += weight * likelihoodRatio(shares[cause], noted[at]!, usual, minds)
        log += weight * ratingRatio(cause, plantings[at]!.rating, states[at]!, minds)
      }
      return log
    })
    const top = Math.max(0, ...logs)
    const total = Math.exp(-top) + logs.reduce((sum, l) => sum + Math.exp(l - top), 0)
    const posterior = logs.map((l) => Math.exp(l - top) / total)
    const causes = signCauses
      .map((cause, c) => ({ cause, share: posterior[c]! }))
      .sort((a, b) => b.share - a.share)
      .filter((c) => c.share >= 0.02)
      .map((c) => explain(c.cause, c.share, p, near, noted, shares[c.cause], usual))
    const trouble = signCauses.reduce(
      (sum, cause, c) => sum + (cause === 'its season' || cause === 'settling in' ? 0 : posterior[c]!),
      0,
    )
    return {
      plantingId: p.id,
      nothing: Math.exp(-top) / total,
      causes,
      failing:
        !states[i]!.resting &&
        trouble >= FAILING_SHARE &&
        (p.rating === null ? noted[i]!.size > 0 : p.rating <= 3),
      usual: states[i]!,
      settling: young[i]!,
    }
  })
}

type Shares = Record<SignCause, ReadonlyMap<SignId, { share: number; why: string }>>

function tableOf(table: readonly Likelihood[]): Shares {
  const shares = Object.fromEntries(signCauses.map((c) => [c, new Map()])) as Record<
    SignCause,
    Map<SignId, { share: number; why: string }>
  >
  for (const r of table) shares[r.cause].set(r.sign, { share: r.share, why: r.why })
  return shares
}

const countAll = (noted: readonly ReadonlySet<SignId>[]) => {
  const counts = new Map<SignId, number>()
  for (const set of noted) for (const s of set) counts.set(s, (counts.get(s) ?? 0) + 1)
  return counts
}

interface Near {
  at: number
  weight: number
}

/** The planting itself first, then those about it, nearest first. */
function neighbours(plantings: readonly SignedPlanting[], i: number): Near[] {
  const p = plantings[i]!
  const near = plantings.flatMap((q, at): Near[] => {
    // Most lie further than that along one side already.
    if (at === i || Math.abs(q.x - p.x) > FURTHEST_M || Math.abs(q.y - p.y) > FURTHEST_M) return []
    const d = Math.hypot(q.x - p.x, q.y - p.y)
    if (d > FURTHEST_M) return []
    const weight = Math.exp(-0.5 * (d / REACH_M) ** 2) * (q.placeId === p.placeId ? 1 : OTHER_PLACE)
    return weight < 0.05 ? [] : [{ at, weight: weight * 0.8 }]
  })
  return [{ at: i, weight: 1 }, ...near.sort((a, b) => b.weight - a.weight || a.at - b.at)]
}

/**
 * How often each sign is on plantings elsewhere in the garden this season, drawn towards its usual rate: the year taken
 * out. The neighbourhood itself is left out by its weight, or it would hide its own trouble.
 */
function usualRates(
  garden: ReadonlyMap<SignId, number>,
  noted: readonly ReadonlySet<SignId>[],
  near: readonly Near[],
  count: number,
): Map<SignId, number> {
  const inside = near.reduce((sum, n) => sum + n.weight, 0)
  return new Map(
    signs.map(({ id, usual }) => {
      const own = near.reduce((sum, n) => sum + (noted[n.at]!.has(id) ? n.weight : 0), 0)
      const elsewhere = Math.max(0, (garden.get(id) ?? 0) - own)
      return [id, (USUAL_PLANTINGS * usual + elsewhere) / (USUAL_PLANTINGS + count - inside)]
    }),
  )
}

/** Log of the chance of a planting's signs under a cause over their chance were nothing wrong. */
function likelihoodRatio(
  rows: ReadonlyMap<SignId, { share: number }>,
  noted: ReadonlySet<SignId>,
  usual: ReadonlyMap<SignId, number>,
  minds: number,
): number {
  let present = 1
  let absent = 1
  for (const [sign, { share }] of rows) {
    const spared = 1 - Math.min(0.95, share * minds)
    // Without the cause's doing a sign is absent as often as usual, whatever that is.
    if (!noted.has(sign)) absent *= spared
    else {
      const base = Math.min(0.9, usual.get(sign)!)
      present *= (1 - (1 - base) * spared) / base
    }
  }
  return Math.log(present) + ABSENT_WEIGHT * Math.log(absent)
}

/** Shares of ratings 1-2, 3 and 4-5: sound plantings, and those in trouble. Working figures. */
const SOUND_RATINGS = [0.07, 0.23, 0.7] as const
const TROUBLED_RATINGS = [0.5, 0.32, 0.18] as const

function ratingRatio(cause: SignCause, rating: number | null, state: UsualState, minds: number): number {
  if (rating === null) return 0
  const band = rating <= 2 ? 0 : rating === 3 ? 1 : 2
  const trouble = cause === 'its season' ? (state.resting ? 1 : 0.3) : Math.min(1, minds)
  const under = trouble * TROUBLED_RATINGS[band] + (1 - trouble) * SOUND_RATINGS[band]
  return Math.log(under / SOUND_RATINGS[band])
}

function priorOf(cause: SignCause, p: SignedPlanting, state: UsualState, young: boolean, year: Year): number {
  switch (cause) {
    case 'its season':
      if (state.resting) return 2.5
      return state.phase === 'finished flowering' || state.phase === 'fading' ? -1.2 : -4
    case 'settling in':
      return young ? 1 : IMPOSSIBLE
    case 'pest or disease':
      return OWN_PRIOR[cause]
    case 'age or crowding': {
      const seasons = seasonInPlace(p.inPlaceSince, p.seenOn, year.south)
      const old = isWoody(p.taxon) ? seasons >= 8 : seasons >= 4
      return OWN_PRIOR[cause] + (old ? 1.2 : seasons <= 2 ? -2 : 0)
    }
    default:
      return SITE_PRIOR + siteEvidence(cause, p)
  }
}

/** What the plan and the place say for or against a cause, in log odds. Working figures, capped. */
function siteEvidence(cause: SiteCause, p: SignedPlanting): number {
  const cap = (v: number) => Math.max(-1.5, Math.min(3, v))
  switch (cause) {
    case 'more sun':
      return cap(0.8 * p.lightChangeHours + 0.8 * p.lightOutsideHours)
    case 'less sun':
      return cap(-0.8 * p.lightChangeHours - 0.8 * p.lightOutsideHours)
    case 'drier':
      return cap(-0.9 * p.moistureSteps)
    case 'wetter':
      return cap(0.9 * p.moistureSteps)
    case 'root competition':
      return p.rootsNear ? 0.7 : -1.5
    default:
      return 0
  }
}

/**
 * How far a taxon minds a cause, 1 as the table takes it: tolerance of the other side makes it mind little. Causes in the
 * planting alone are minded alike.
 */
export function susceptibility(taxon: Taxon, cause: SignCause): number {
  const between = (v: number) => Math.max(0.1, Math.min(1.4, v))
  switch (cause) {
    case 'more sun':
      if (taxon.lightMaxHours >= 24) return taxon.hotAfternoon === 'enjoys' ? 0.1 : 0.25
      return between(1.5 - taxon.lightMaxHours / 10 + (taxon.hotAfternoon === 'suffers' ? 0.2 : 0))
    case 'less sun':
      return between(0.15 + taxon.lightMinHours / 5.5)
    case 'drier':
      return between(0.15 + (taxon.moistureMin - 1) * 0.45)
    case 'wetter':
      return between(0.15 + (5 - taxon.moistureMax) * 0.45)
    case 'windier':
      return between(0.4 + taxon.heightM / 1.6)
    case 'frost pocket':
      return between(1 + (taxon.hardyToC + 22) / 25)
    case 'hungrier':
    case 'root competition':
      return between(0.6 + (taxon.moistureMin - 1) * 0.2)
    default:
      return 1
  }
}

function explain(
  cause: SignCause,
  share: number,
  p: SignedPlanting,
  near: readonly Near[],
  noted: readonly ReadonlySet<SignId>[],
  rows: ReadonlyMap<SignId, { share: number; why: string }>,
  usual: ReadonlyMap<SignId, number>,
): RankedCause {
  const about = isSiteCause(cause) ? near : near.slice(0, 1)
  const strength = (sign: SignId, s: number) => s / usual.get(sign)!
  const speaksFor = [...rows]
    .map(([sign, { share: s, why }]) => ({
      sign,
      why,
      strength: strength(sign, s),
      own: noted[near[0]!.at]!.has(sign),
      near: about.slice(1).filter((n) => noted[n.at]!.has(sign)).length,
    }))
    .filter((s) => s.own || s.near > 0)
    .sort((a, b) => b.strength * (b.near + Number(b.own)) - a.strength * (a.near + Number(a.own)))
    .map(({ sign, own, near, why }) => ({ sign, own, near, why }))
  const minds = susceptibility(p.taxon, cause)
  return {
    cause,
    share,
    odds: oddsWords(share),
    speaksFor,
    against: [...rows]
      .filter(([sign, { share: s }]) => s * minds >= 0.4 && !noted[near[0]!.at]!.has(sign))
      .map(([s]) => s),
    check: checks[cause],
  }
}

const oddsWords = (share: number): RankedCause['odds'] =>
  share >= 0.7 ? 'most likely' : share >= 0.4 ? 'likely' : share >= 0.12 ? 'possible' : 'unlikely'

/** A change of the site that signs point to and nothing drawn explains. */
export interface SuspectedChange {
  placeId: string
  cause: SiteCause
  /** Mean share over the plantings that speak for it. */
  share: number
  plantingIds: string[]
  signs: SignId[]
  check: string
}

/** More likely than not, with something to spare: a place is suspected by what several plantings say. A judgement. */
const SUSPECT_SHARE = 0.55
/** One plant is a plant; two of them are a place. */
const LEAST_PLANTINGS = 2
/** A drawn change of this many hours, the same way, explains signs of sun or shade. */
const DRAWN_HOURS = 0.75

/** Places where at least two plantings speak for the same cause in the site and nothing drawn or told explains it. */
export function suspectedChanges(
  plantings: readonly SignedPlanting[],
  diagnoses: readonly Diagnosis[],
): SuspectedChange[] {
  const found = new Map<string, SuspectedChange & { total: number }>()
  diagnoses.forEach((d, i) => {
    const p = plantings[i]!
    const top = d.causes[0]
    if (!top || !isSiteCause(top.cause) || top.share < SUSPECT_SHARE || d.usual.resting) return
    if (p.signs.length === 0 || isExplained(top.cause, p)) return
    const key = `${p.placeId} ${top.cause}`
    const known = found.get(key) ?? {
      placeId: p.placeId,
      cause: top.cause,
      share: 0,
      total: 0,
      plantingIds: [],
      signs: [],
      check: top.check,
    }
    known.plantingIds.push(p.id)
    known.total += top.share
    for (const s of top.speaksFor) if (!known.signs.includes(s.sign)) known.signs.push(s.sign)
    found.set(key, known)
  })
  return [...found.values()]
    .filter((f) => f.plantingIds.length >= LEAST_PLANTINGS)
    .map(({ total, ...f }) => ({ ...f, share: total / f.plantingIds.length }))
    .sort((a, b) => b.plantingIds.length - a.plantingIds.length || b.share - a.share)
}

/** True where the plan already says so: a drawn change of light, or light outside the range anyway. */
export function isExplained(cause: SiteCause, p: SignedPlanting): boolean {
  if (cause === 'more sun') return p.lightChangeHours >= DRAWN_HOURS || p.lightOutsideHours >= DRAWN_HOURS
  if (cause === 'less sun') return p.lightChangeHours <= -DRAWN_HOURS || p.lightOutsideHours <= -DRAWN_HOURS
  if (cause === 'drier') return p.moistureSteps < 0
  if (cause === 'wetter') return p.moistureSteps > 0
  return cause === 'root competition' && p.rootsNear
}
