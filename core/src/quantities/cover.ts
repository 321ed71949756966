/** Something as it is sold: so many together, for a price. */
export interface Pack {
  /** `tray of 6`, `9 cm pot`: what it is called where it is bought. */
  name: string
  /** Pieces, or litres, kilograms or metres, in one: a whole number. */
  holds: number
  /** Of one, in the minor unit of the garden's currency. */
  price: number
}

/** So many of one pack. */
export interface Packs {
  pack: Pack
  number: number
}

/** What is bought for a need. */
export interface Cover {
  packs: Packs[]
  /** What they hold together: the need, or more. */
  holds: number
  /** In all, minor unit. */
  price: number
}

/** More than this is not bought in packs: the tables would not end. */
const MOST = 100_000

/**
 * The cheapest packs that hold at least so much; of those that cost the same the fewest packs, then the least left over. Worked out
 * exactly, by dynamic programming over the need (the unbounded covering knapsack; Martello and Toth 1990, Knapsack Problems, ch. 3).
 *
 * @param need whole pieces or units; what is asked for is rounded up
 * @returns undefined where nothing is sold that holds anything, or the need is beyond what is counted
 */
export function cheapestCover(need: number, sold: readonly Pack[]): Cover | undefined {
  const wanted = Math.ceil(need - 1e-9)
  if (wanted <= 0) return { packs: [], holds: 0, price: 0 }
  const packs = sold.filter((p) => p.holds >= 1 && Number.isInteger(p.holds) && p.price >= 0)
  if (packs.length === 0 || wanted > MOST) return undefined
  // Of what is still needed, from 0 up: the least price, then packs, then what they hold.
  const price = new Float64Array(wanted + 1)
  const count = new Float64Array(wanted + 1)
  const holds = new Float64Array(wanted + 1)
  const by = new Int32Array(wanted + 1).fill(-1)
  for (let n = 1; n <= wanted; n++) {
    price[n] = Infinity
    packs.forEach((pack, i) => {
      const rest = Math.max(0, n - pack.holds)
      const [p, c, h] = [price[rest]! + pack.price, count[rest]! + 1, holds[rest]! + pack.holds]
      const better = p - price[n]! || c - count[n]! || h - holds[n]!
      if (by[n]! >= 0 && better >= 0) return
      price[n] = p
      count[n] = c
      holds[n] = h
      by[n] = i
    })
  }
  const numbers = packs.map(() => 0)
  for (let n = wanted; n > 0; n = Math.max(0, n - packs[by[n]!]!.holds)) numbers[by[n]!]!++
  return {
    packs: packs
      .flatMap((pack, i): Packs[] => (numbers[i]! > 0 ? [{ pack, number: numbers[i]! }] : []))
      .sort((a, b) => b.pack.holds - a.pack.holds),
    holds: holds[wanted]!,
    price: price[wanted]!,
  }
}

/** A working share of spare plants, for what does not take: one in twenty. */
export const SPARE_SHARE = 0.05

/**
 * Plants to buy for so many that are to stand: with spare ones for what does not take.
 *
 * @param spareShare 0 to 1; of few plants it comes to none
 */
export const withSpare = (count: number, spareShare = SPARE_SHARE): number =>
  count + Math.round(count * spareShare)
