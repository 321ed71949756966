import { sum } from 'd3-array'
import { addDays, type IsoDate } from '../dates/index.ts'
import { onceFor, onceForEach } from '../once/index.ts'
import { LEAST_COVER, showiness } from '../performance/index.ts'
import {
  accords,
  groundM2,
  isWoody,
  leftAloneBy,
  poisonousTo,
  usualBloom,
  type Browser,
  type ColourScheme,
  type Harmed,
  type Taxon,
  type Year,
} from '../plants/index.ts'
import { Milp, type MilpTerm, type SolveMilp } from '../search/index.ts'
import { isSeasonal } from '../verdict/index.ts'

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

/** Palettes that differ; or wishes that contradict one another. */
export type PaletteAnswer =
  | { ok: true; palettes: readonly Palette[] }
  | { ok: false; why: 'limit' }
  | {
      ok: false
      why: 'conflict'
      /** Of these no one may be left out, for them to contradict each other. */
      wishes: readonly WishName[]
      /** What each costs that is given up alone, the cheapest first: its palette. Those that do not help are not here. */
      giveUp: readonly { wish: WishName; palette: Palette }[]
    }

/**
 * What a lack costs, in points. Judgements: a bare week most; a week with one kind alone in flower; what does not quite suit; a kind
 * more, for a place of many kinds is a sample; bare ground; a leaf texture that is missing; and money, a point for so many hundredths.
 */
export const paletteCosts = {
  bareWeek: 10,
  thinWeek: 3,
  unfit: 25,
  perKind: 1,
  bareShare: 40,
  missingTexture: 6,
  moneyPerPoint: 1000,
  unpriced: 2,
} as const

/** Flowers on less of the ground are not seen: half of what a week must show not to be bare. */
const SEEN_SHARE = LEAST_COVER / 2
/** Ground that may stay open for mulch and for what spreads. */
const LEAST_FILLED = 0.85
/** No kind takes more of a place, and none so little that it is lost in it. */
const MOST_SHARE = 0.25
/** At most so many kinds of one genus. */
const OF_A_GENUS = 2
/** Palettes differ in at least so many kinds. */
const APART = 3
const PALETTES = 3
/** As precise as this, of what a place lacks with nothing in it. */
const GAP = 0.005
const NODES = 400
const FEASIBLE_LIMITS = { gap: 1, gapCost: 1e9, nodes: NODES }

/** Groups by custom. What is large stands alone or in threes. */
const groups: Record<DriftCustom, readonly number[]> = {
  odd: [3, 5, 7],
  blocks: [7, 11, 15],
  matrix: [5, 9, 13],
}
const LARGE_M = 0.9
/** Shares of the ground that a kind may take: a touch, a voice, a theme. Counts come as near to them as groups allow. Working figures. */
const SHARES = [0.05, 0.1, 0.18]

/** Counts in which a kind may be taken, with the groups that they stand in. */
function countsOf(
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
      .map(
        (size) => [size, Math.max(1, Math.min(Math.round(wanted / size), Math.floor(most / size)))] as const,
      )
      .filter(([size, n]) => size * n * eachM2 <= MOST_SHARE * areaM2 || size * n === 1)
      .sort(([a, n], [b, m]) => Math.abs(a * n - wanted) - Math.abs(b * m - wanted) || b - a)[0]
    if (made && made[0] * made[1] * eachM2 <= areaM2 && !found.has(made[0] * made[1]))
      found.set(made[0] * made[1], made[1])
  }
  return [...found]
}

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

/** Why a candidate is out of the question for some wishes, by the wish; a locked one as well. */
function against({ taxon }: Candidate, w: PaletteWishes): WishName[] {
  const found: WishName[] = []
  if (w.harmlessTo && poisonousTo(taxon).some((h) => w.harmlessTo!.includes(h))) found.push('harmless')
  if (w.leftBy && !w.leftBy.every((b) => leftAloneBy(taxon).includes(b))) found.push('left alone')
  if (w.scheme && taxon.flowerColour && !accords(taxon.flowerColour, w.scheme.kind, w.scheme.hue))
    found.push('colours')
  return found
}

interface Option extends PaletteItem {
  variable: number
}

interface Programme {
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
 * @param without wishes that are given up
 * @param apart palettes that it must differ from
 */
function programmeOf(
  candidates: readonly Candidate[],
  w: PaletteWishes,
  without: ReadonlySet<WishName>,
  apart: readonly Palette[],
): Programme {
  const milp = new Milp()
  const c = paletteCosts
  const isWish = (wish: WishName) => !without.has(wish)
  const options: Option[] = []
  for (const candidate of possible(candidates, w)) {
    const isOut = against(candidate, w).some(isWish)
    const { taxon, fit, price } = candidate
    for (const [count, drifts] of countsOf(candidate, w)) {
      const areaM2 = groundM2(count, taxon.spacingM)
      const cost =
        c.perKind +
        ((c.unfit * (1 - fit) * areaM2) / w.areaM2) * 4 +
        (price === null ? c.unpriced : (price * count) / c.moneyPerPoint)
      const variable = milp.binary(cost)
      options.push({ candidate, count, drifts, areaM2, variable })
      if (isOut) milp.row([[variable, 1]], 0, 0)
    }
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
  for (const texture of ['fine', 'bold'] as const) {
    const missing = milp.amount(c.missingTexture, 1)
    const staying = w.stays.some((s) => s.taxon.texture === texture) ? 1 : 0
    milp.row([...some((t) => t.texture === texture), [missing, 1]], 1 - staying, Infinity)
  }
  for (const { items } of apart) {
    const names = items.map((i) => i.candidate.taxon.botanical).filter((n) => !w.locked?.includes(n))
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
/** Small bulbs come up between what else grows there: they take no ground from it. */
const comesUpBetween = ({ lifeForm, spacingM }: Taxon): boolean => lifeForm === 'bulb' && spacingM < BETWEEN_M
const BETWEEN_M = 0.2

/** Ground that no other kind can have, square metres. */
const groundOfItem = ({ candidate: { taxon }, areaM2 }: PaletteItem): number =>
  comesUpBetween(taxon) ? 0 : areaM2

/** Whether what stands on so much ground shows its flowers in a week: usually in bloom, and enough of it to be seen. */
const shows = (
  { taxon, areaM2 }: { taxon: Taxon; areaM2: number },
  w: PaletteWishes,
  week: number,
): boolean =>
  areaM2 * showiness[taxon.habit] >= SEEN_SHARE * w.areaM2 &&
  bloomsOnce(w.weeks)(w.year)(taxon, w.season)[week] === 1
const costInMoney = ({ candidate: { price }, count }: PaletteItem): number => (price ?? 0) * count

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
      sum(
        items,
        ({ candidate: { fit, price }, count, areaM2 }) =>
          c.perKind +
          4 * c.unfit * (1 - fit) * (areaM2 / w.areaM2) +
          (price === null ? c.unpriced : (price * count) / c.moneyPerPoint),
      ),
    gap,
  }
}

function solved(
  candidates: readonly Candidate[],
  w: PaletteWishes,
  solve: SolveMilp,
  without: ReadonlySet<WishName> = new Set(),
  apart: readonly Palette[] = [],
): { ok: true; palette: Palette } | { ok: false; why: 'infeasible' | 'limit' } {
  const { milp, options } = programmeOf(candidates, w, without, apart)
  const { lack: lackOfNothing } = paletteOf([], { ...w, stays: [] })
  const found = solve(milp, { gap: 1e-6, gapCost: GAP * lackOfNothing, nodes: NODES })
  if (!found.ok) return found
  const items = options
    .filter((o) => found.values[o.variable] === 1)
    .map(({ variable: _, ...item }) => item)
    .sort((a, b) => b.areaM2 - a.areaM2)
  return { ok: true, palette: paletteOf(items, w, Math.max(0, found.cost - found.bound) / lackOfNothing) }
}

/**
 * Three palettes for a place, the best first as far as is proved, each of which leaves out at least three kinds of every one before it;
 * fewer where no more differ so much. Or, where the wishes contradict each other, which of them do and what giving up each alone would
 * bring (an irreducible infeasible subset by deletion; Chinneck and Dravnieks 1991, ORSA Journal on Computing 3, 157-168).
 */
export function palettesFor(
  candidates: readonly Candidate[],
  w: PaletteWishes,
  solve: SolveMilp,
): PaletteAnswer {
  const palettes: Palette[] = []
  while (palettes.length < PALETTES) {
    const found = solved(candidates, w, solve, new Set(), palettes)
    if (found.ok) palettes.push(found.palette)
    else if (palettes.length > 0) break
    else return found.why === 'limit' ? { ok: false, why: 'limit' } : conflictIn(candidates, w, solve)
  }
  return { ok: true, palettes }
}

/** The wishes that can be given up, as far as they are wished. */
function wishesOf(w: PaletteWishes): WishName[] {
  return [
    ...(w.budget === undefined ? [] : (['budget'] as const)),
    ...(w.evergreenShare === undefined ? [] : (['evergreen'] as const)),
    ...(w.noBareWeek ? (['no bare week'] as const) : []),
    ...(w.scented === undefined ? [] : (['scented'] as const)),
    ...(w.wildlife === undefined ? [] : (['wildlife'] as const)),
    ...(w.scheme ? (['colours'] as const) : []),
    ...(w.harmlessTo ? (['harmless'] as const) : []),
    ...(w.leftBy ? (['left alone'] as const) : []),
    'fewest kinds',
    'most kinds',
    'ground filled',
    ...layers.flatMap((l): WishName[] => (w.layerShares?.[l] === undefined ? [] : [`layer ${l}`])),
    ...(w.locked ?? []).map((l): WishName => `locked ${l}`),
  ]
}

function conflictIn(candidates: readonly Candidate[], w: PaletteWishes, solve: SolveMilp): PaletteAnswer {
  const canBe = (without: ReadonlySet<WishName>) =>
    solve(programmeOf(candidates, w, without, []).milp, FEASIBLE_LIMITS).ok
  const out = new Set<WishName>()
  const kept: WishName[] = []
  for (const wish of wishesOf(w)) {
    out.add(wish)
    if (!canBe(out)) continue
    // Without it there is an answer: it is one of those that contradict each other.
    out.delete(wish)
    kept.push(wish)
  }
  const giveUp = kept.flatMap((wish) => {
    const found = solved(candidates, w, solve, new Set([wish]))
    return found.ok ? [{ wish, palette: found.palette }] : []
  })
  giveUp.sort((a, b) => a.palette.lack - b.palette.lack)
  return { ok: false, why: 'conflict', wishes: kept, giveUp }
}
