import type { InHandView, OfferView, RelocatedView, SaidScheme } from '@border/contract'
import {
  extrasOf,
  groundM2,
  materialNames,
  offsetsFrom,
  totalsOf,
  writeTable,
  type GoingOut,
  type IsoDate,
  type Planting,
  type Point,
  type SchemeTotals,
  type SetPlant,
} from '@border/core'
import { destinationOf, kindsOf, type KindOf } from './schemeDraft.ts'

/** What a scheme is reckoned with. */
export interface ReckonedWith {
  plantings: readonly Planting[]
  /** Where what leaves goes, as far as it is worked out. */
  relocated: RelocatedView | undefined
  offers: readonly OfferView[]
  bedM2: number
  /** Ground that what stays keeps. */
  staysM2: number
  /** From when until when growth is fed. */
  feedingSeason: readonly [from: IsoDate, until: IsoDate]
  /** What one has of kinds that could come in. */
  inHand: readonly InHandView[]
}

/** Of so many of a kind those that one has. */
export const hadOf = (inHand: readonly InHandView[], botanical: string, count: number): number =>
  Math.min(count, inHand.find((h) => h.botanical === botanical)?.count ?? 0)

const goesBy = { spot: 'moved', bench: 'bench', 'give away': 'given away', gone: 'gone' } as const

/** What a scheme takes, reckoned up from what is said of it. */
export function reckoned(said: SaidScheme, kindOf: KindOf, w: ReckonedWith): SchemeTotals {
  const comes = kindsOf(said).flatMap(({ botanical, count }) => {
    const taxon = kindOf.get(botanical)
    return taxon
      ? [
          {
            taxon,
            count,
            have: hadOf(w.inHand, botanical, count),
            areaM2: groundM2(count, taxon.spacingM),
          },
        ]
      : []
  })
  const goes = said.leaving.flatMap((leaving): GoingOut[] => {
    const { plantingId, how } = leaving
    const p = w.plantings.find((o) => o.id === plantingId)
    if (!p) return []
    const out = { taxon: p.taxon, count: p.livingCount }
    if (how === 'divides') return [{ ...out, what: 'divided' }]
    const where = destinationOf(leaving, w.relocated)?.to ?? 'spot'
    return where === 'stay' ? [] : [{ ...out, what: goesBy[where] }]
  })
  return totalsOf({
    comes,
    goes,
    plantedM2: Math.max(0, w.bedM2 - w.staysM2),
    bedM2: w.bedM2,
    compostM: said.compostM,
    mulchM: said.mulchM,
    spareShare: said.spareShare,
    extras: extrasOf(said, Math.max(0, w.bedM2 - w.staysM2), w.feedingSeason),
    ...(said.hourPrice !== null && { hourPrice: said.hourPrice }),
    offers: w.offers,
  })
}

/** Everything that has no price yet or may want another: kinds to be bought, materials, fillers. */
export const pricedItems = (totals: SchemeTotals): string[] => [
  ...new Set([
    ...totals.shopping.suppliers.flatMap((s) => s.lines.map((l) => l.item)),
    ...totals.shopping.unpriced.map((u) => u.item),
    ...(totals.years.some((y) => y.fillers > 0) ? [materialNames.filler] : []),
  ]),
]

/** A shopping list as a table, by supplier; what has no price last. */
export const shoppingCsv = ({ shopping }: SchemeTotals): string =>
  writeTable(
    ['supplier', 'item', 'wanted', 'packs', 'holds', 'price', 'priced_on'],
    [
      ...shopping.suppliers.flatMap((s) =>
        s.lines.map((l) => [
          s.supplier,
          l.item,
          l.wanted,
          l.cover.packs.map((p) => `${p.number} ${p.pack.name}`).join(' + '),
          l.cover.holds,
          (l.cover.price / 100).toFixed(2),
          l.pricedOn,
        ]),
      ),
      ...shopping.unpriced.map((u) => ['', u.item, u.wanted, '', '', '', '']),
    ],
  )

/** A side of a bed, to measure from. */
export interface BaseLine {
  from: Point
  to: Point
  lengthM: number
}

/** The sides of an outline, the longest first. */
export const sidesOf = (ring: readonly (readonly [number, number])[]): BaseLine[] =>
  ring
    .map(([x, y], i): BaseLine => {
      const [bx, by] = ring[(i + 1) % ring.length]!
      return { from: [x, y], to: [bx, by], lengthM: Math.hypot(bx - x, by - y) }
    })
    .sort((a, b) => b.lengthM - a.lengthM)

/** Every plant of a scheme with where it is set, measured from a base line; in walking order along it. */
export function plantingTable(
  plants: readonly SetPlant[],
  nameOf: ReadonlyMap<string, string>,
  { from, to }: Pick<BaseLine, 'from' | 'to'>,
) {
  return offsetsFrom(plants, from, to).map((o) => ({
    number: o.number,
    name: nameOf.get(o.driftId) ?? '',
    alongM: o.alongM,
    offM: o.offM,
    x: o.x,
    y: o.y,
  }))
}

export const plantingCsv = (rows: ReturnType<typeof plantingTable>): string =>
  writeTable(
    ['number', 'plant', 'along_m', 'off_m', 'x', 'y'],
    rows.map((r) => [r.number, r.name, ...[r.alongM, r.offM, r.x, r.y].map((v) => v.toFixed(2))]),
  )
