import { sum } from 'd3-array'
import { toFiveMinutes } from '../care/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import {
  barrowLoads,
  layerLitres,
  shoppingList,
  type Offer,
  type ShoppingLine,
  type ShoppingList,
} from '../quantities/index.ts'
import { fillingAfter } from './filling.ts'
import { comesUpBetween } from './palette.ts'

/** What comes into a place, and what of it one has. */
export interface ComingIn {
  taxon: Taxon
  count: number
  /** Of these, how many come off the bench, from other places or from divisions. */
  have: number
}

/** What leaves a place, and what is done with it. */
export interface GoingOut {
  taxon: Taxon
  count: number
  what: 'moved' | 'divided' | 'bench' | 'given away' | 'gone'
}

/** A scheme as it is reckoned up. */
export interface Reckoned {
  comes: readonly ComingIn[]
  /** What fills the ground that is open until they have grown; undefined where nobody has said. */
  filler?: Taxon | undefined
  goes: readonly GoingOut[]
  /** Ground of the bed that is dug and planted, and all of it, square metres. */
  plantedM2: number
  bedM2: number
  compostM: number
  mulchM: number
  spareShare?: number | undefined
  /** What else it takes: by its name, in whole units. */
  extras?: readonly { item: string; count: number }[] | undefined
  /** Of one hour's work, minor unit; undefined where work is not paid for. */
  hourPrice?: number | undefined
  offers: readonly Offer[]
}

/** Under these names materials and plants without a kind are priced. */
export const materialNames = {
  compost: 'Compost',
  mulch: 'Mulch',
  filler: 'Annuals to fill gaps',
  'ground limestone': 'Ground limestone',
  sulphur: 'Sulphur',
  'aluminium sulphate': 'Aluminium sulphate',
  feed: 'Slow feed',
  drip: 'Drip line',
  stone: 'Stepping stones',
} as const

/** What a material is counted in; plants and stones are counted one by one. */
export const materialUnits: Readonly<Record<string, 'l' | 'kg' | 'm'>> = {
  [materialNames.compost]: 'l',
  [materialNames.mulch]: 'l',
  [materialNames['ground limestone']]: 'kg',
  [materialNames.sulphur]: 'kg',
  [materialNames['aluminium sulphate']]: 'kg',
  [materialNames.feed]: 'kg',
  [materialNames.drip]: 'm',
}

/** What is wanted of an item, as it is read: `24 Helenium autumnale`, `180 l Compost`; plants have no unit. */
export const wantedWords = ({ wanted, item }: { wanted: number; item: string }): string =>
  [wanted, materialUnits[item], item].filter((w) => w !== undefined).join(' ')

/** The packs that something is bought in: `4 × tray of 6, 5 × 9 cm pot`. */
export const packsWords = ({ packs }: ShoppingLine['cover']): string =>
  packs.map((p) => `${p.number} × ${p.pack.name}`).join(', ')

/** A layer that is spread. */
export interface SpreadLayer {
  item: string
  areaM2: number
  depthM: number
  litres: number
  barrows: number
}

/** Work of one kind. */
export interface WorkOf {
  operation: 'lift' | 'divide' | 'clear' | 'prepare' | 'plant' | 'mulch'
  minutes: number
  working: string
}

/** What a year comes to. */
export interface YearOfScheme {
  year: number
  /** Ground that its plants do not cover yet, so many years after they were planted. */
  openM2: number
  fillers: number
  /** Kinds that want dividing by then, for the first time. */
  divides: readonly string[]
  minutes: number
  /** Of what is bought that has a price, and of the work where it is paid for. */
  price: number
}

/** What a scheme takes: plants, materials, hours and money, for its first three years. */
export interface SchemeTotals {
  plants: number
  bought: number
  shopping: ShoppingList
  layers: readonly SpreadLayer[]
  work: readonly WorkOf[]
  minutes: number
  years: readonly YearOfScheme[]
  /** Over all years; of what has no price nothing is counted. */
  price: number
}

/** Minutes of work, as a steady gardener does it. Working figures; what is really taken is measured on the jobs. */
export const minutesOf = {
  liftEach: 8,
  liftWoodyEach: 30,
  divideEach: 10,
  clearEach: 4,
  preparePerM2: 20,
  plantEach: 5,
  plantWoodyEach: 20,
  bulbEach: 1,
  barrowSpread: 6,
  fillEach: 2,
} as const
const YEARS = [1, 2, 3] as const

/** Under this name what fills the gaps of a scheme is priced. */
export const fillerItem = (filler: Pick<Taxon, 'botanical'> | undefined): string =>
  filler?.botanical ?? materialNames.filler

/** Reckons a scheme up. */
export function totalsOf(scheme: Reckoned): SchemeTotals {
  const { comes, offers, spareShare, hourPrice = 0, bedM2 } = scheme
  const layers = [
    spread(materialNames.compost, scheme.plantedM2, scheme.compostM),
    spread(materialNames.mulch, scheme.plantedM2, scheme.mulchM),
  ].filter((l) => l.litres > 0)
  const bought = comes.map((c) => ({ ...c, count: Math.max(0, c.count - c.have) })).filter((c) => c.count > 0)
  const shopping = shoppingList(
    [
      ...bought.map((c) => ({ item: c.taxon.botanical, count: c.count, spareShare })),
      ...layers.map((l) => ({ item: l.item, count: Math.ceil(l.litres), spareShare: 0 })),
      ...(scheme.extras ?? []).map((e) => ({ ...e, spareShare: 0 })),
    ],
    offers,
  )
  const work = workOf(scheme, layers)
  const minutes = sum(work, (w) => w.minutes)
  const planted = comes.filter((c) => !comesUpBetween(c.taxon))
  const years = YEARS.map((year): YearOfScheme => {
    const { openM2, fillers } = fillingAfter(year, planted, scheme.filler)
    const { price: fillersPrice } = shoppingList(
      [{ item: fillerItem(scheme.filler), count: fillers, spareShare: 0 }],
      offers,
    )
    const filling = fillers > 0 ? toFiveMinutes(fillers * minutesOf.fillEach) : 0
    const yearMinutes = (year === 1 ? minutes : 0) + filling
    return {
      year,
      openM2: Math.min(bedM2, openM2),
      fillers,
      divides: planted
        .filter((c) => c.taxon.divideYears && Math.max(1, c.taxon.divideYears[0]) === year)
        .map((c) => c.taxon.botanical),
      minutes: yearMinutes,
      price: Math.round((year === 1 ? shopping.price : 0) + fillersPrice + (hourPrice * yearMinutes) / 60),
    }
  })
  return {
    plants: sum(comes, (c) => c.count),
    bought: sum(bought, (c) => c.count),
    shopping,
    layers,
    work,
    minutes,
    years,
    price: sum(years, (y) => y.price),
  }
}

function spread(item: string, areaM2: number, depthM: number): SpreadLayer {
  const litres = layerLitres(areaM2, depthM)
  return { item, areaM2, depthM, litres, barrows: barrowLoads(litres) }
}

/** Hours by operation, with how each was reckoned. */
function workOf({ comes, goes, plantedM2 }: Reckoned, layers: readonly SpreadLayer[]): WorkOf[] {
  const m = minutesOf
  const of = (operation: WorkOf['operation'], minutes: number, working: string): WorkOf[] =>
    minutes > 0 ? [{ operation, minutes: toFiveMinutes(minutes), working }] : []
  const [woody, soft] = [isWoody, (t: Taxon) => !isWoody(t)]
  const some = (list: readonly (ComingIn | GoingOut)[], is: (t: Taxon) => boolean) =>
    sum(
      list.filter((c) => is(c.taxon)),
      (c) => c.count,
    )
  const lifted = goes.filter((g) => g.what !== 'gone' && g.what !== 'divided')
  const divided = goes.filter((g) => g.what === 'divided')
  const gone = goes.filter((g) => g.what === 'gone')
  const bulbs = comes.filter((c) => comesUpBetween(c.taxon))
  const set = comes.filter((c) => !comesUpBetween(c.taxon))
  const barrows = sum(layers, (l) => l.barrows)
  const liftMinutes = m.liftEach * some(lifted, soft) + m.liftWoodyEach * some(lifted, woody)
  const plantMinutes =
    m.plantEach * some(set, soft) + m.plantWoodyEach * some(set, woody) + m.bulbEach * some(bulbs, () => true)
  return [
    ...of(
      'lift',
      liftMinutes,
      `${some(lifted, soft)} at ${m.liftEach} minutes, ${some(lifted, woody)} woody at ${m.liftWoodyEach}`,
    ),
    ...of(
      'divide',
      m.divideEach * some(divided, () => true),
      `${some(divided, () => true)} at ${m.divideEach} minutes`,
    ),
    ...of(
      'clear',
      m.clearEach * some(gone, () => true),
      `${some(gone, () => true)} at ${m.clearEach} minutes`,
    ),
    ...of(
      'prepare',
      m.preparePerM2 * plantedM2,
      `${Math.round(10 * plantedM2) / 10} m² at ${m.preparePerM2} minutes`,
    ),
    ...of(
      'plant',
      plantMinutes,
      `${some(set, soft)} at ${m.plantEach} minutes, ${some(set, woody)} woody at ${m.plantWoodyEach}, ${some(bulbs, () => true)} bulbs at ${m.bulbEach}`,
    ),
    ...of('mulch', m.barrowSpread * barrows, `${barrows} barrow loads at ${m.barrowSpread} minutes`),
  ]
}
