import { sum } from 'd3-array'
import {
  accords,
  groundM2,
  isWoody,
  leftAloneBy,
  poisonousTo,
  standsOutInLeaf,
  type Taxon,
} from '../plants/index.ts'
import { Milp, type MilpTerm } from '../search/index.ts'
import { isSeasonal } from '../verdict/index.ts'
import {
  comesUpBetween,
  costInMoney,
  groundOfItem,
  isEvergreen,
  itemCost,
  layerOf,
  layers,
  LEAST_FILLED,
  paletteCosts,
  shows,
  type Candidate,
  type DriftCustom,
  type PaletteItem,
  type PaletteWishes,
  type WishName,
} from './palette.ts'

/** No kind takes more of a place, and none so little that it is lost in it. */
const MOST_SHARE = 0.25
/** At most so many kinds of one genus. */
const OF_A_GENUS = 2
/** Palettes differ in at least so many kinds. */
const APART = 3

/** Groups by custom. What is large stands alone or in threes. */
const groups: Record<DriftCustom, readonly number[]> = {
  odd: [3, 5, 7],
  blocks: [7, 11, 15],
  matrix: [1, 3, 5],
}
const LARGE_M = 0.9
/** Shares of the ground that a kind may take: a touch, a voice, a theme. Counts come as near to them as groups allow. Working figures. */
const SHARES = [0.05, 0.1, 0.18]

/** More groups of one kind than this no place has, by custom: they are larger instead. */
const MOST_GROUPS: Record<DriftCustom, number> = { odd: 5, blocks: 3, matrix: 15 }

/** Groups of a size that come nearest to so many plants; where those would be too many, so many as there may be of a larger odd size. */
function groupsOf(
  size: number,
  wanted: number,
  most: number,
  custom: DriftCustom,
): [size: number, n: number] {
  const n = Math.max(1, Math.min(Math.round(wanted / size), Math.floor(most / size)))
  const many = MOST_GROUPS[custom]
  if (n <= many) return [size, n]
  const larger = 2 * Math.floor(Math.min(wanted, most) / many / 2) + 1
  return larger * many <= most ? [larger, many] : [larger - 2, many]
}

/** Counts in which a kind may be taken, with the groups that they stand in. */
export function countsOf(
  { taxon, most = Infinity }: Candidate,
  { areaM2, drifts }: PaletteWishes,
): [count: number, drifts: number][] {
  const sizes = isWoody(taxon) || taxon.spacingM >= LARGE_M ? [1, 3] : groups[drifts]
  const eachM2 = groundM2(1, taxon.spacingM)
  const found = new Map<number, number>()
  for (const share of comesUpBetween(taxon) ? SHARES.slice(0, 1) : SHARES) {
    const wanted = Math.min(most, (share * areaM2) / eachM2)
    const made = sizes
      .filter((size) => size <= most)
      .map((size) => groupsOf(size, wanted, most, drifts))
      .filter(([size, n]) => size * n * eachM2 <= MOST_SHARE * areaM2 || size * n === 1)
      .sort(([a, n], [b, m]) => Math.abs(a * n - wanted) - Math.abs(b * m - wanted) || b - a)[0]
    if (made && made[0] * made[1] * eachM2 <= areaM2 && !found.has(made[0] * made[1]))
      found.set(made[0] * made[1], made[1])
  }
  return [...found]
}

/** What runs through a place has so much of its ground. */
const MATRIX_SHARE = 0.45
/** And grows no taller than so much of what the place bears: the others stand above it. A judgement. */
const MATRIX_HEIGHT = 0.4

/** As many as it takes for a kind to run through a place where plants are intermingled; undefined where it is not one for that. */
export function matrixOf({ taxon, most = Infinity }: Candidate, w: PaletteWishes): number | undefined {
  const isLow = taxon.heightM <= MATRIX_HEIGHT * w.tallestM
  if (w.drifts !== 'matrix' || !isLow || isWoody(taxon) || isSeasonal(taxon) || comesUpBetween(taxon))
    return undefined
  if (taxon.lifeForm === 'bulb' || taxon.vigour === 'thug') return undefined
  const count = Math.round((MATRIX_SHARE * w.areaM2) / groundM2(1, taxon.spacingM))
  return count >= LEAST_IN_MATRIX && count <= most ? count : undefined
}
const LEAST_IN_MATRIX = 7

/** The wishes that a candidate is against: while one of them is held it does not come in, locked or not. */
function against({ taxon }: Candidate, w: PaletteWishes): WishName[] {
  const found: WishName[] = []
  if (w.harmlessTo && poisonousTo(taxon).some((h) => w.harmlessTo!.includes(h))) found.push('harmless')
  if (w.leftBy && !w.leftBy.every((b) => leftAloneBy(taxon).includes(b))) found.push('left alone')
  if (w.scheme && taxon.flowerColour && !accords(taxon.flowerColour, w.scheme.kind, w.scheme.hue))
    found.push('colours')
  return found
}

/** The candidates that can come in as things are wished: none of those that are against a wish. */
export const admitted = (candidates: readonly Candidate[], w: PaletteWishes): Candidate[] =>
  possible(candidates, w).filter((c) => against(c, w).length === 0)

/** A kind in a count, with the number of its yes or no. */
export interface Option extends PaletteItem {
  variable: number
}

/** A programme, and what its variables choose. */
export interface Programme {
  milp: Milp
  options: Option[]
}

/** The candidates that stand a place and are wished for there, as far as they can come in. */
const possible = (candidates: readonly Candidate[], w: PaletteWishes): Candidate[] =>
  candidates.filter(
    (c) =>
      (w.locked?.includes(c.taxon.botanical) ||
        (c.taxon.heightM <= w.tallestM && (w.seasonal || !isSeasonal(c.taxon)))) &&
      !w.barred?.includes(c.taxon.botanical),
  )

/**
 * The choice of kinds as an integer programme.
 *
 * @param without wishes that are given up
 * @param apart kinds of the palettes that it must differ from
 */
export function programmeOf(
  candidates: readonly Candidate[],
  w: PaletteWishes,
  without: ReadonlySet<WishName>,
  apart: readonly (readonly string[])[],
): Programme {
  const milp = new Milp()
  const c = paletteCosts
  const isWish = (wish: WishName) => !without.has(wish)
  const options: Option[] = []
  for (const candidate of possible(candidates, w)) {
    if (against(candidate, w).some(isWish)) continue
    for (const [count, drifts] of countsOf(candidate, w)) {
      const item = { candidate, count, drifts, areaM2: groundM2(count, candidate.taxon.spacingM) }
      options.push({ ...item, variable: milp.binary(itemCost(item, w)) })
    }
    const count = matrixOf(candidate, w)
    if (count === undefined) continue
    const areaM2 = groundM2(count, candidate.taxon.spacingM)
    const item = { candidate, count, drifts: 1, areaM2, isMatrix: true }
    options.push({ ...item, variable: milp.binary(itemCost(item, w)) })
  }
  const some = (which: (t: Taxon) => boolean, by: (o: Option) => number = () => 1): MilpTerm[] =>
    options.filter((o) => which(o.candidate.taxon)).map((o): MilpTerm => [o.variable, by(o)])
  const all = (by: (o: Option) => number) => some(() => true, by)
  // What is on the bench and in the library is one kind all the same.
  for (const kind of new Set(options.map((o) => o.candidate.taxon.botanical)))
    milp.row(
      some((t) => t.botanical === kind),
      0,
      1,
    )
  for (const wish of w.locked ?? [])
    if (isWish(`locked ${wish}`))
      milp.row(
        some((t) => t.botanical === wish),
        1,
        Infinity,
      )
  for (const genus of new Set(options.map((o) => genusOf(o.candidate.taxon))))
    milp.row(
      some((t) => genusOf(t) === genus),
      0,
      Math.max(OF_A_GENUS, lockedOf(w, genus)),
    )

  const whole = w.areaM2 + sum(w.stays, (s) => s.areaM2)
  const ground = all(groundOfItem).filter(([, by]) => by > 0)
  const filled = LEAST_FILLED * w.areaM2
  const bare = milp.amount(c.bareShare / filled, isWish('ground filled') ? 0 : filled)
  milp.row([...ground, [bare, 1]], filled, Infinity)
  milp.row(ground, 0, w.areaM2)
  w.weeks.forEach((_, i) => {
    const staying = w.stays.filter((s) => shows(s, w, i)).length
    const flowering = options
      .filter((o) => shows({ taxon: o.candidate.taxon, areaM2: o.areaM2 }, w, i))
      .map((o): MilpTerm => [o.variable, 1])
    const bareWeek = milp.amount(c.bareWeek, w.noBareWeek && isWish('no bare week') ? 0 : 1)
    const thin = milp.amount(c.thinWeek, 1)
    // Kinds flower for weeks on end: of such rows the programme is near to whole by itself.
    milp.row([...flowering, [bareWeek, 1]], 1 - staying, Infinity)
    milp.row([...flowering, [bareWeek, 1], [thin, 1]], 2 - staying, Infinity)
  })
  const share = (wish: WishName, which: (t: Taxon) => boolean, least: number | undefined) => {
    if (least === undefined || !isWish(wish)) return
    const staying = sum(
      w.stays.filter((s) => which(s.taxon)),
      (s) => s.areaM2,
    )
    milp.row(some(which, groundOfItem), least * whole - staying, Infinity)
  }
  share('evergreen', isEvergreen, w.evergreenShare)
  for (const layer of layers)
    share(`layer ${layer}`, (t) => layerOf(t, w.tallestM) === layer, w.layerShares?.[layer])
  const kinds = (wish: WishName, which: (t: Taxon) => boolean, least: number | undefined) => {
    if (least !== undefined && isWish(wish)) milp.row(some(which), least, Infinity)
  }
  kinds('scented', (t) => t.scented, w.scented)
  kinds('wildlife', (t) => t.wildlife.length > 0, w.wildlife)
  if (isWish('fewest kinds'))
    milp.row(
      all(() => 1),
      w.kinds.least,
      Infinity,
    )
  if (isWish('most kinds'))
    milp.row(
      all(() => 1),
      0,
      w.kinds.most,
    )
  if (w.budget !== undefined && isWish('budget'))
    milp.row(
      all((o) => costInMoney(o)),
      0,
      w.budget,
    )
  const present = (cost: number, which: (t: Taxon) => boolean) => {
    const missing = milp.amount(cost, 1)
    const staying = w.stays.some((s) => which(s.taxon)) ? 1 : 0
    milp.row([...some(which), [missing, 1]], 1 - staying, Infinity)
  }
  for (const texture of ['fine', 'bold'] as const) present(c.missingTexture, (t) => t.texture === texture)
  present(c.greenAlone, (t) => standsOutInLeaf(t.foliageColour))
  if (w.drifts === 'matrix') {
    const through = options.filter((o) => o.isMatrix).map((o): MilpTerm => [o.variable, 1])
    milp.row([...through, [milp.amount(c.noMatrix, 1), 1]], 1, Infinity)
    milp.row(through, 0, 1)
  }
  for (const kinds of apart) {
    const names = kinds.filter((n) => !w.locked?.includes(n))
    milp.row(
      some((t) => names.includes(t.botanical)),
      0,
      Math.max(0, names.length - APART),
    )
  }
  return { milp, options }
}

const genusOf = ({ botanical }: Taxon): string => botanical.split(' ')[0]!
const lockedOf = ({ locked = [] }: PaletteWishes, genus: string): number =>
  locked.filter((l) => l.startsWith(`${genus} `)).length
