import type { IsoDate } from '../dates/index.ts'
import type { Planting } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Taxon } from '../plants/index.ts'
import type { Offer } from '../quantities/index.ts'
import { extrasOf } from './extras.ts'
import { offsetsFrom, type SetPlant } from './positions.ts'
import { destinationOf, fillerOf, kindsOf, type KindOf, type SaidForPaper, type Went } from './said.ts'
import { fillerItem, totalsOf, type GoingOut, type SchemeTotals } from './totals.ts'

/** What a scheme is reckoned with. */
export interface ReckonedWith {
  plantings: readonly Planting[]
  /** Where what leaves goes, as far as it is worked out. */
  relocated: Went | undefined
  offers: readonly Offer[]
  bedM2: number
  /** Ground that what stays keeps. */
  staysM2: number
  /** From when until when growth is fed. */
  feedingSeason: readonly [from: IsoDate, until: IsoDate]
  /** What one has of kinds that could come in. */
  inHand: readonly HadKind[]
}

/** What one has of a kind. */
export interface HadKind {
  botanical: string
  count: number
}

/** Of so many of a kind those that one has. */
export const hadOf = (inHand: readonly HadKind[], botanical: string, count: number): number =>
  Math.min(count, inHand.find((h) => h.botanical === botanical)?.count ?? 0)

const goesBy = { spot: 'moved', bench: 'bench', 'give away': 'given away', gone: 'gone' } as const

/** What a scheme takes, reckoned up from what is said of it. */
export function reckonScheme(
  said: Omit<SaidForPaper, 'viewedFrom'>,
  kindOf: KindOf,
  w: ReckonedWith,
): SchemeTotals {
  const comes = kindsOf(said).flatMap(({ botanical, count }) => {
    const taxon = kindOf.get(botanical)
    return taxon
      ? [
          {
            taxon,
            count,
            have: hadOf(w.inHand, botanical, count),
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
    filler: fillerOf(said, kindOf),
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
export const pricedItems = (totals: SchemeTotals, filler: Pick<Taxon, 'botanical'> | undefined): string[] => [
  ...new Set([
    ...totals.shopping.suppliers.flatMap((s) => s.lines.map((l) => l.item)),
    ...totals.shopping.unpriced.map((u) => u.item),
    ...(totals.years.some((y) => y.fillers > 0) ? [fillerItem(filler)] : []),
  ]),
]

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

/** A plant as it is set with a tape: so far along a line and so far off it to the left, metres; and where that is on the plan. */
export interface PlacedPlant {
  number: number
  name: string
  alongM: number
  offM: number
  x: number
  y: number
}

/** Every plant of a scheme with where it is set, measured from a base line; in walking order along it. */
export function plantingTable(
  plants: readonly SetPlant[],
  nameOf: ReadonlyMap<string, string>,
  { from, to }: Pick<BaseLine, 'from' | 'to'>,
): PlacedPlant[] {
  return offsetsFrom(plants, from, to).map((o) => ({
    number: o.number,
    name: nameOf.get(o.driftId) ?? '',
    alongM: o.alongM,
    offM: o.offM,
    x: o.x,
    y: o.y,
  }))
}
