import { sum } from 'd3-array'
import { addDays, type IsoDate } from '../dates/index.ts'
import { onceFor, onceForEach } from '../once/index.ts'
import { LEAST_COVER, showiness } from '../performance/index.ts'
import {
  standsOutInLeaf,
  usualBloom,
  type Browser,
  type ColourScheme,
  type Harmed,
  type Taxon,
  type Year,
} from '../plants/index.ts'

/** A kind that could come in: what comes out of other places and off the bench costs nothing. */
export interface Candidate {
  taxon: Taxon
  from: 'bench' | 'division' | 'place' | 'library'
  /** How it would do there, 0 to 1. */
  fit: number
  /** Of one, minor unit of the garden's currency; of what one has 0. Null where nobody has said. */
  price: number | null
  /** As many as there are; undefined where it can be bought. */
  most?: number | undefined
}

/** How drifts are made, by the school: odd groups, large blocks, or intermingled. */
export type DriftCustom = 'odd' | 'blocks' | 'matrix'

/** Thirds of the height that the place bears. */
export const layers = ['front', 'middle', 'back'] as const
export type Layer = (typeof layers)[number]

/** What is wished of a place as a whole. What is not said is not asked. */
export interface PaletteWishes {
  /** Ground to be planted, square metres. */
  areaM2: number
  /** What stays: its ground counts for bloom, leaf and layers, beside the ground to be planted. */
  stays: readonly { taxon: Taxon; areaM2: number }[]
  /** Mondays, or whatever day they begin on, of the weeks in which it should show something. */
  weeks: readonly IsoDate[]
  season: number
  year: Year
  drifts: DriftCustom
  /** The tallest that is wanted there, metres. */
  tallestM: number
  kinds: { least: number; most: number }
  budget?: number | undefined
  /** Least share of the ground. */
  evergreenShare?: number | undefined
  layerShares?: Partial<Record<Layer, number>> | undefined
  /** No week of the season without a flower. */
  noBareWeek?: boolean | undefined
  /** Least number of kinds. */
  scented?: number | undefined
  wildlife?: number | undefined
  scheme?: { kind: ColourScheme; hue: number } | undefined
  /** Who must not be poisoned. */
  harmlessTo?: readonly Harmed[] | undefined
  /** Who must not be fed. */
  leftBy?: readonly Browser[] | undefined
  /** Annuals and what dies in winter as well: without it what is planted stays. */
  seasonal?: boolean | undefined
  locked?: readonly string[] | undefined
  barred?: readonly string[] | undefined
}

/** So many plants of a kind. */
export interface PaletteItem {
  candidate: Candidate
  count: number
  /** Groups that they stand in. */
  drifts: number
  /** Ground that they stand on: of small bulbs among what else grows there. */
  areaM2: number
  /** It runs through the whole place, and the others stand in it. */
  isMatrix?: boolean | undefined
}

/** Kinds for a place, with what they come to. */
export interface Palette {
  items: readonly PaletteItem[]
  /** By week of the wishes: the kinds that show their flowers, what stays among them. */
  flowering: readonly (readonly string[])[]
  /** Of what is bought and has a price. */
  price: number
  /** Kinds to be bought whose price nobody has said. */
  unpriced: readonly string[]
  evergreenShare: number
  /** What it lacks, in points: the less the better. */
  lack: number
  /** How far the lack may lie above the least there is, as a share of what the place lacks with nothing in it. */
  gap: number
}

/** A wish that can be given up, by name. */
export type WishName =
  | 'budget'
  | 'evergreen'
  | 'no bare week'
  | 'scented'
  | 'wildlife'
  | 'colours'
  | 'harmless'
  | 'left alone'
  | 'fewest kinds'
  | 'most kinds'
  | 'ground filled'
  | `layer ${Layer}`
  | `locked ${string}`

/**
 * What a lack costs, in points. Judgements: a bare week most; a week with one kind alone in flower; what does not quite suit; a kind
 * more, for a place of many kinds is a sample; bare ground; a leaf texture that is missing, and leaves that stand out among the green; money,
 * a point for so many hundredths; and, where plants are to be intermingled, that no kind runs through them all.
 */
export const paletteCosts = {
  bareWeek: 10,
  thinWeek: 3,
  unfit: 100,
  perKind: 1,
  bareShare: 40,
  missingTexture: 6,
  greenAlone: 4,
  moneyPerPoint: 1000,
  unpriced: 2,
  noMatrix: 20,
} as const

/** Flowers on less of the ground are not seen: half of what a week must show not to be bare. */
export const SEEN_SHARE = LEAST_COVER / 2
/** Ground that may stay open for mulch and for what spreads. */
export const LEAST_FILLED = 0.85

/** What a kind is among the layers of a place. */
export const layerOf = ({ heightM }: Taxon, tallestM: number): Layer =>
  heightM <= tallestM / 3 ? 'front' : heightM <= (2 * tallestM) / 3 ? 'middle' : 'back'

/** Whether it stands green in winter. */
export const isEvergreen = ({ lifeForm, winter }: Taxon): boolean =>
  winter === 'winter green' ||
  (winter === undefined && (lifeForm === 'evergreen shrub' || lifeForm === 'groundcover'))

/** Weeks in which a kind usually flowers, by the order of the weeks: 1 or 0. */
export function bloomWeeks(
  taxon: Taxon,
  { weeks, season, year }: Pick<PaletteWishes, 'weeks' | 'season' | 'year'>,
): number[] {
  const blooms = [season - 1, season].flatMap((s) => usualBloom(taxon, s, year) ?? [])
  return weeks.map((from) => {
    const middle = addDays(from, 3)
    return blooms.some((b) => b.from <= middle && middle <= b.to) ? 1 : 0
  })
}

/** Small bulbs come up between what else grows there: they take no ground from it. */
export const comesUpBetween = ({ lifeForm, spacingM }: Taxon): boolean =>
  lifeForm === 'bulb' && spacingM < BETWEEN_M
const BETWEEN_M = 0.2

/** Ground that no other kind can have, square metres. */
export const groundOfItem = ({ candidate: { taxon }, areaM2 }: PaletteItem): number =>
  comesUpBetween(taxon) ? 0 : areaM2

/** Whether what stands on so much ground shows its flowers in a week: usually in bloom, and enough of it to be seen. */
export const shows = (
  { taxon, areaM2 }: { taxon: Taxon; areaM2: number },
  w: PaletteWishes,
  week: number,
): boolean =>
  areaM2 * showiness[taxon.habit] >= SEEN_SHARE * w.areaM2 &&
  bloomsOnce(w.weeks)(w.year)(taxon, w.season)[week] === 1

/** Of all its plants, minor unit; of a kind without a price nothing is known. */
export const costInMoney = ({ candidate: { price }, count }: PaletteItem): number => (price ?? 0) * count

/** What an item lacks of being no trouble: in points. */
export const itemCost = (item: PaletteItem, { areaM2 }: PaletteWishes): number =>
  paletteCosts.perKind +
  (paletteCosts.unfit * (1 - item.candidate.fit) * item.areaM2) / areaM2 +
  (item.candidate.price === null ? paletteCosts.unpriced : costInMoney(item) / paletteCosts.moneyPerPoint)

/** Asked for every week of every kind of every programme. */
const bloomsOnce = onceFor((weeks: PaletteWishes['weeks']) =>
  onceFor((year: Year) =>
    onceForEach((taxon: Taxon, season: number) => bloomWeeks(taxon, { weeks, season, year })),
  ),
)

/** What a choice comes to, worked out from the choice alone: the solver's own sum is held against it. */
export function paletteOf(items: readonly PaletteItem[], w: PaletteWishes, gap = 0): Palette {
  const c = paletteCosts
  const whole = w.areaM2 + sum(w.stays, (s) => s.areaM2)
  const standing = [
    ...w.stays.map((s) => ({ ...s, shownM2: s.areaM2 })),
    ...items.map((i) => ({ taxon: i.candidate.taxon, areaM2: groundOfItem(i), shownM2: i.areaM2 })),
  ]
  const flowering = w.weeks.map((_, i) => standing.filter((s) => shows({ ...s, areaM2: s.shownM2 }, w, i)))
  const missing = (['fine', 'bold'] as const).filter(
    (t) => !standing.some((s) => s.taxon.texture === t),
  ).length
  return {
    items,
    flowering: flowering.map((of) => of.map((s) => s.taxon.botanical)),
    price: sum(items, costInMoney),
    unpriced: items.filter((i) => i.candidate.price === null).map((i) => i.candidate.taxon.botanical),
    evergreenShare:
      sum(
        standing.filter((s) => isEvergreen(s.taxon)),
        (s) => s.areaM2,
      ) / whole,
    lack:
      c.bareWeek * flowering.filter((of) => of.length === 0).length +
      c.thinWeek * flowering.filter((of) => of.length < 2).length +
      c.bareShare * Math.max(0, 1 - sum(items, groundOfItem) / (LEAST_FILLED * w.areaM2)) +
      c.missingTexture * missing +
      c.noMatrix * Number(w.drifts === 'matrix' && !items.some((i) => i.isMatrix)) +
      c.greenAlone * Number(!standing.some((s) => standsOutInLeaf(s.taxon.foliageColour))) +
      sum(items, (i) => itemCost(i, w)),
    gap,
  }
}
