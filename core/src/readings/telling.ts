import type { Ground, Obstruction, Scene } from '../light/index.ts'
import { supposed } from '../light/index.ts'
import { Drawn, times, type Cause, type Explained } from './explain.ts'
import { aimOf, brightnesses, likelihood, sharesPast, type Aim, type Brightness } from './reading.ts'

/** Somewhere and some time a person could look. */
export interface Look {
  instantMs: number
  x: number
  y: number
  z: number
  ground?: Ground | null
}

/** When and where a look would tell most between what may have changed. */
export interface TellingLook extends Look {
  /** Expected information of the reading, bits: how much it would settle between the explanations. */
  bits: number
  /** What the most believed explanation would have there, then those that would be seen otherwise: why it is worth looking. */
  expected: { cause: Cause; seen: Brightness }[]
}

/**
 * Looking is for finding out whether something changed and what: however sure it is that nothing did, as drawn counts as
 * no more than this among the explanations.
 */
const MOST_AS_DRAWN = 0.5
const MOST_COMPARED = 600
/** Looks of one round lie at least this far apart in place or time. */
const APART_M = 1.5
const APART_MS = 25 * 60_000
const LEAST_BITS = 1e-4

/**
 * The readings that would settle most between explanations: those whose expected information is largest (Lindley 1956),
 * spread over places and times.
 *
 * @param explained the readings so far, or of none
 * @param looks what could be looked at, say points of the beds at every twenty minutes of today
 * @returns most telling first; empty when nothing would tell
 */
export const tellingLooks = (
  scene: Scene,
  explained: Pick<Explained, 'alternatives'>,
  looks: readonly Look[],
  most: number,
): TellingLook[] => tellingOfDays(scene, explained, [looks], most)[0]!

/**
 * The same for each of several days, weighed against one another: the sun of June does not show what stands in that of
 * September.
 *
 * @param days what could be looked at on each
 */
export function tellingOfDays(
  scene: Scene,
  explained: Pick<Explained, 'alternatives'>,
  days: readonly (readonly Look[])[],
  most: number,
): TellingLook[][] {
  const aimed = days.map((looks) =>
    looks.flatMap((look) => {
      const aim = aimOf(scene, look, true)
      return aim ? [{ look, aim }] : []
    }),
  )
  const candidates = aimed.flat()
  // The sun is down: there is nothing to look at.
  if (candidates.length === 0) return days.map(() => [])
  const compared = worthComparing(explained)
  const shares = sharesUnder(
    scene,
    candidates.map((c) => c.aim),
    compared.map((e) => e.cause),
  )
  const weights = byInfluence(compared, shares)
  const [believed, ...others] = compared.map(({ cause }, h) => ({ cause, h }))
  others.sort((a, b) => weights[b.h]! - weights[a.h]!)
  const seenOf = ({ cause, h }: { cause: Cause; h: number }, i: number) => ({
    cause,
    seen: likeliest(shares[h]![i]!),
  })
  /** What the most believed would have there, and what counts most of those that would be seen otherwise. */
  const expectedAt = (i: number): TellingLook['expected'] => {
    if (!believed) return []
    const first = seenOf(believed, i)
    const otherwise: TellingLook['expected'] = []
    for (const other of others) {
      const expected = seenOf(other, i)
      if (expected.seen !== first.seen) otherwise.push(expected)
      if (otherwise.length === 2) break
    }
    return [first, ...otherwise]
  }
  let i = 0
  return aimed.map((day) => {
    const told = day.map(({ look }) => ({ ...look, candidate: i, bits: bitsOf(weights, shares, i++) }))
    return mostTelling(told, most).map(({ candidate, ...look }) => ({
      ...look,
      expected: expectedAt(candidate),
    }))
  })
}

/** Less is not worth waiting for. */
const CLEARLY_MORE = 1.5

/**
 * The day on which looking tells most, where that is clearly more than under the sun of now.
 *
 * @param soon the most telling looks under the sun of now
 * @param later those of days to come
 * @returns the day and how many times as much its looks tell, null times where those of now tell nothing
 */
export function dayWorthWaitingFor<Day extends { looks: readonly TellingLook[] }>(
  soon: readonly TellingLook[],
  later: readonly Day[],
): (Day & { times: number | null }) | null {
  const all = (looks: readonly TellingLook[]) => looks.reduce((sum, look) => sum + look.bits, 0)
  const now = all(soon)
  const bits = later.map((day) => all(day.looks))
  const then = Math.max(0, ...bits)
  if (then === 0 || then < CLEARLY_MORE * now) return null
  return { ...later[bits.indexOf(then)]!, times: now === 0 ? null : then / now }
}

/** The looks that tell most, apart from one another. */
function mostTelling<Told extends Look & { bits: number }>(looks: readonly Told[], most: number): Told[] {
  const chosen: Told[] = []
  for (const look of [...looks].sort((a, b) => b.bits - a.bits || a.instantMs - b.instantMs)) {
    if (chosen.length === most || look.bits < LEAST_BITS) break
    const near = chosen.some(
      (c) =>
        Math.hypot(c.x - look.x, c.y - look.y) < APART_M && Math.abs(c.instantMs - look.instantMs) < APART_MS,
    )
    if (!near) chosen.push(look)
  }
  return chosen
}

/** The alternatives with what each counts for, together 1. */
function worthComparing({ alternatives }: Pick<Explained, 'alternatives'>): Explained['alternatives'] {
  const drawn = alternatives.find((a) => a.cause.what === 'as drawn')
  const others = alternatives.filter((a) => a !== drawn).slice(0, MOST_COMPARED)
  const belief = others.reduce((sum, a) => sum + a.weight, 0)
  const asDrawn = belief > 0 ? Math.min(MOST_AS_DRAWN, drawn?.weight ?? 0) : 1
  const counted = others.map(({ cause, weight }) => ({
    cause,
    weight: ((1 - asDrawn) * weight) / Math.max(belief, 1e-300),
  }))
  return drawn ? [{ cause: drawn.cause, weight: asDrawn }, ...counted] : counted
}

/** Light that differs by less than this share is hardly seen to. */
const ALTERED = 0.3

/**
 * Weights of the alternatives by how much of what could be looked at each would alter; together 1. What would alter little is
 * hardly refuted and hardly worth finding: it would have the looks, one after another, that what would alter much never got.
 */
function byInfluence(compared: Explained['alternatives'], shares: readonly Float64Array[]): number[] {
  const drawn = shares[compared.findIndex((c) => c.cause.what === 'as drawn')]
  const weights = compared.map(({ cause, weight }, h) => {
    if (!drawn || cause.what === 'as drawn') return weight
    let altered = 0
    for (let i = 0; i < drawn.length; i++) if (Math.abs(shares[h]![i]! - drawn[i]!) > ALTERED) altered++
    return (weight * altered) / drawn.length
  })
  const others = weights.reduce((sum, w, h) => (compared[h]!.cause.what === 'as drawn' ? sum : sum + w), 0)
  const asDrawn = compared.find((c) => c.cause.what === 'as drawn')?.weight ?? 0
  return weights.map((w, h) =>
    compared[h]!.cause.what === 'as drawn' || others === 0 ? w : ((1 - asDrawn) * w) / others,
  )
}

/** What each cause lets through along every ray. */
function sharesUnder(scene: Scene, aims: readonly Aim[], causes: readonly Cause[]): Float64Array[] {
  const drawn = new Drawn(scene, aims)
  const others = new Map<number, Float64Array>()
  return causes.map((cause) => {
    if (cause.what === 'as drawn') return drawn.all
    if (cause.what === 'new') return times(drawn.all, sharesPast(aims, cause.building))
    const k = scene.obstructions.findIndex((o) => o.id === cause.obstructionId)
    if (!others.has(k)) others.set(k, drawn.without(k))
    const changed = asTried(scene.obstructions[k]!, cause, aims)
    return changed ? times(others.get(k)!, sharesPast(aims, changed)) : others.get(k)!
  })
}

const asTried = (
  o: Obstruction,
  cause: Extract<Cause, { supposition: object }>,
  aims: readonly Aim[],
): Obstruction | undefined => supposed(o, cause.supposition, aims.at(-1)!.day)

/** Steps of a share of the sun that outcomes are tabulated by: half a hundredth, far finer than anybody sees. */
const STEPS = 200
/** Chances of each word and their entropy, bits, by share of light in steps. */
const outcomes = Array.from({ length: STEPS + 1 }, (_, k) => {
  const chances = brightnesses.map((seen) => likelihood(seen, k / STEPS))
  return { chances, entropy: entropy(chances) }
})

/** Expected information of one look: entropy of what may be said, less what is left once the cause is known. */
function bitsOf(weights: readonly number[], shares: readonly Float64Array[], i: number): number {
  const mixed = [0, 0, 0]
  let noise = 0
  for (let h = 0; h < weights.length; h++) {
    const outcome = outcomes[Math.round(shares[h]![i]! * STEPS)]!
    for (let w = 0; w < 3; w++) mixed[w]! += weights[h]! * outcome.chances[w]!
    noise += weights[h]! * outcome.entropy
  }
  return entropy(mixed) - noise
}

function entropy(p: readonly number[]): number {
  return p.reduce((sum, v) => (v > 0 ? sum - v * Math.log2(v) : sum), 0)
}

function likeliest(share: number): Brightness {
  const { chances } = outcomes[Math.round(share * STEPS)]!
  return brightnesses[chances.indexOf(Math.max(...chances))]!
}
