import { group, sum } from 'd3-array'
import type { IsoDate } from '../dates/index.ts'
import { cheapestCover, withSpare, type Cover, type Pack } from './cover.ts'

/** Something that is needed: plants of a kind, bags of compost. */
export interface Need {
  item: string
  count: number
  /** Spare ones for what does not take, 0 to 1; the usual share of plants where nobody says. */
  spareShare?: number | undefined
}

/** What a supplier asked for it, and when. */
export interface Offer {
  supplier: string
  item: string
  packs: readonly Pack[]
  pricedOn: IsoDate
}

/** One line of a shopping list. */
export interface ShoppingLine {
  item: string
  /** With the spare ones. */
  wanted: number
  cover: Cover
  pricedOn: IsoDate
}

/** What is bought where. */
export interface ShoppingList {
  suppliers: { supplier: string; lines: ShoppingLine[]; price: number }[]
  /** What nobody has a price for. */
  unpriced: { item: string; wanted: number }[]
  price: number
  /** Of the prices it rests on the oldest: null where it rests on none. */
  oldestPrice: IsoDate | null
}

/** A shopping list by supplier: each item where enough of it costs least; of suppliers alike the one that comes first by name. */
export function shoppingList(needs: readonly Need[], offers: readonly Offer[]): ShoppingList {
  const offered = group(offers, (o) => o.item)
  const lines: (ShoppingLine & { supplier: string })[] = []
  const unpriced: ShoppingList['unpriced'] = []
  for (const { item, count, spareShare } of needs) {
    const wanted = withSpare(count, spareShare)
    if (wanted === 0) continue
    const [best] = (offered.get(item) ?? [])
      .flatMap(({ supplier, packs, pricedOn }) => {
        const cover = cheapestCover(wanted, packs)
        return cover ? [{ supplier, item, wanted, cover, pricedOn }] : []
      })
      .sort((a, b) => a.cover.price - b.cover.price || (a.supplier < b.supplier ? -1 : 1))
    if (best) lines.push(best)
    else unpriced.push({ item, wanted })
  }
  const suppliers = [...group(lines, (l) => l.supplier)]
    .map(([supplier, own]) => ({
      supplier,
      lines: own.map(({ supplier: _, ...line }) => line).sort((a, b) => (a.item < b.item ? -1 : 1)),
      price: sum(own, (l) => l.cover.price),
    }))
    .sort((a, b) => (a.supplier < b.supplier ? -1 : 1))
  return {
    suppliers,
    unpriced,
    price: sum(suppliers, (s) => s.price),
    oldestPrice: lines.map((l) => l.pricedOn).sort()[0] ?? null,
  }
}
