import type { Action } from '../remedies/index.ts'
import { counted, moneyWords } from '../words/index.ts'

/** What plants cost where they are bought, minor unit: of one of each kind, and of one as usual there. */
export interface PlantPrices {
  each: Readonly<Record<string, number>>
  /** The middle of all prices: what is dear and what is cheap is told by it, whatever the currency. */
  usual: number
}

/** The price of a usual plant counts so much; no money outweighs what a plant does there. Judgements. */
const PER_USUAL_PLANT = -0.5
const AT_MOST = -8

/** What it would cost to have as many plants again speaks against replacing them, and against throwing them away. */
export function moneyTerms(
  botanical: string,
  count: number | undefined,
  prices: PlantPrices | undefined,
): { action: Action; points: number; says: string }[] {
  const each = prices?.each[botanical]
  if (!each || !count || !prices.usual) return []
  const points = Math.max(AT_MOST, (PER_USUAL_PLANT * each * count) / prices.usual)
  const cost = moneyWords(each * count)
  return [
    {
      action: 'replace',
      points,
      says: `${counted(count, 'new plant')} would cost about ${cost}, at the price of its own kind`,
    },
    { action: 'remove', points, says: `it would cost ${cost} to buy again` },
  ]
}

/** Prices from what suppliers ask: the cheapest of each kind, and the middle of them. Undefined where nobody has said any. */
export function plantPrices(
  offers: readonly { item: string; packs: readonly { holds: number; price: number }[] }[],
  kinds: ReadonlySet<string>,
): PlantPrices | undefined {
  const each: Record<string, number> = {}
  for (const { item, packs } of offers) {
    if (!kinds.has(item)) continue
    const own = packs.map((p) => p.price / p.holds)
    each[item] = Math.round(Math.min(each[item] ?? Infinity, ...own))
  }
  const all = Object.values(each).sort((a, b) => a - b)
  return all.length === 0 ? undefined : { each, usual: all[Math.floor(all.length / 2)]! }
}
