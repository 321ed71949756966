import type { Anchor, CareRule, WindowSpec } from '../rule.ts'

const woodyTools = ['secateurs', 'loppers', 'pruning saw', 'cloth and spirit for the blades']
/** What most pruning has in common. */
export const base: Pick<CareRule, 'operation' | 'forbids' | 'labour' | 'tools' | 'skill' | 'yearly'> = {
  operation: 'prune',
  forbids: ['hard frost', 'rain'],
  labour: { setUp: 5, perPlant: 6, perMetre: 5 },
  tools: woodyTools,
  skill: 'pruning',
  yearly: true,
}
export const NESTING = 'Look for nesting birds first; leave the plant while one is sitting.'
export const LADDER = 'On a ladder: a second person, level ground, never near power lines.'
/** Apples and their kin. */
export const BLIGHT = 'Clean the blades between trees: fire blight.'
export const THORNS = 'Thorns: stout gloves and eye protection.'

/** Big-leaved hydrangeas, whose flowers sit in the top buds of last year’s stems. */
export const mopheads = ['Hydrangea macrophylla', 'Hydrangea serrata']
/** Where the usual winter is colder, it takes the flower buds of big-leaved hydrangeas. */
export const BUDS_DIE_BELOW_C = -15

/** A cut needs this much warmth to come, in degree days above 5 °C, so that new wood ripens before frost. */
export const REGROWTH: Anchor = { at: 'warmth left', degreeDays: 350 }

/** Straight after flowering: next year’s flowers form on what grows from then on. */
export const afterBloom = (bestDays: number, lastDays: number): WindowSpec => ({
  season: 'summer',
  earliest: { at: 'bloom ends' },
  bestFrom: { at: 'bloom ends' },
  bestTo: { at: 'bloom ends', days: bestDays },
  latest: { earliestOf: [{ at: 'bloom ends', days: lastDays }, REGROWTH] },
  because: {
    earliest: 'next year’s flowers form on the wood that grows from now on',
    bestFrom: 'the sooner after flowering, the longer the new wood has to ripen',
    bestTo: 'later cuts cost flowers next year',
    latest: 'buds for next year are set by then, or too little warmth is left to ripen new wood',
  },
})
/** What flowers from late summer on is pruned when the cold is past. */
export const beforeGrowth = (from: number, to: number, why: { from: string; to: string }): WindowSpec => ({
  season: 'winter',
  earliest: {
    latestOf: [
      { at: 'midwinter', days: -25 },
      { at: 'growth shows', days: from },
    ],
  },
  bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: Math.round(from / 2) }] },
  bestTo: { at: 'growth shows', days: Math.min(3, to) },
  latest: { at: 'growth shows', days: to },
  because: {
    earliest: why.from,
    bestFrom: 'the worst of winter is over and buds can be seen',
    bestTo: 'buds are swelling and nothing is lost yet',
    latest: why.to,
  },
})

/** What flowers on the shoots of the coming year. */
export const beforeShoots = beforeGrowth(-50, 21, {
  from: 'earlier cuts are exposed to the worst of winter',
  to: 'the shoots that will flower are growing by then',
})

/** Where the usual night is warmer, hard frosts have become rare. A judgement. */
const NIGHTS_PAST_HARD_FROST_C = 2

/** A cut starts buds: where nights are still near freezing, the next hard frost takes them. */
export const pastHardFrost = (spec: WindowSpec): WindowSpec => ({
  ...spec,
  earliest: {
    latestOf: [
      spec.earliest,
      { at: 'nights above', c: NIGHTS_PAST_HARD_FROST_C, days: -14, or: { at: 'midwinter', days: -25 } },
    ],
  },
  bestFrom: {
    latestOf: [spec.bestFrom, { at: 'nights above', c: NIGHTS_PAST_HARD_FROST_C, or: { at: 'earliest' } }],
  },
})

/** Half-hardy wood is cut when one can see how far it lived. */
export const asBudsShow: WindowSpec = {
  season: 'spring',
  earliest: {
    latestOf: [
      { at: 'growth shows', days: -14 },
      { at: 'last frost', share: 50, days: -42, or: { at: 'midwinter' } },
    ],
  },
  bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: -3 }] },
  bestTo: { at: 'best from', days: 21 },
  latest: { at: 'best from', days: 42 },
  because: {
    earliest: 'old stems shelter the crown while hard frosts last',
    bestFrom: 'live buds can be told from dead wood',
    bestTo: 'flowering is not yet put back',
    latest: 'a later cut costs weeks of bloom',
  },
}

/** A job that waits for nothing: the windows of a whole gardening year. */
export function anyTime(what: string): WindowSpec {
  return {
    season: 'any time',
    earliest: { at: 'midwinter' },
    bestFrom: { at: 'earliest' },
    bestTo: { at: 'next midwinter', days: -7 },
    latest: { at: 'next midwinter', days: -1 },
    because: {
      earliest: `it may be done at any time: it is ${what}`,
      bestFrom: 'at once',
      bestTo: 'the sooner the better',
      latest: 'another season should not pass',
    },
  }
}
