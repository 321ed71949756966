import type { Vessel } from '../garden/index.ts'
import { addDays, seasonYearOf, type IsoDate } from '../dates/index.ts'
import {
  accords,
  colourSchemes,
  isWoody,
  oklchOf,
  poisonousTo,
  seasonDates,
  standsOutInLeaf,
  usualBloom,
  type ColourScheme,
  type Harmed,
  type Taxon,
  type Year,
} from '../plants/index.ts'
import { isEvergreen } from '../rework/palette.ts'
import { shoppingList, type Offer } from '../quantities/index.ts'
import { isSeasonal } from '../verdict/index.ts'
import type { FillSeason } from './fill.ts'
import {
  fills,
  ownRemarks,
  pairRemarks,
  potRoles,
  type Potted,
  type PotRole,
  type PotSite,
} from './fitting.ts'
import { heightInPot } from './inPot.ts'

/** What a container is to be filled by. */
export interface ProposalAsked {
  vessel: Vessel
  /** Where it stands; of containers that are filled alike each. A kind must suit all of them. */
  sites: readonly PotSite[]
  season: FillSeason
  on: IsoDate
  year: Year
  /** Plants that are in hand, by botanical name. */
  have: ReadonlyMap<string, number>
  /** Whom nothing of it may poison. */
  harmlessTo: readonly Harmed[]
  /** Closed within weeks, or with room for each to grow. */
  fullness?: Fullness | undefined
  /** What is sold for how much, and the most that all that is bought may come to, minor unit; kinds of no price are left out then. */
  offers?: readonly Offer[] | undefined
  budget?: number | undefined
  /** From how far it is looked at, metres. */
  seenFromM?: number | undefined
  /** Colour of what stands behind it, hex. */
  behind?: string | undefined
}

/** How densely a container is planted. */
export const fullnesses = ['now', 'in time'] as const
export type Fullness = (typeof fullnesses)[number]

/** A filling that is proposed: a tall one, what stands about it, what hangs over the edge. */
export interface Proposal {
  potted: Potted[]
  /** Weeks of the season in which something of it flowers, and how many the season has. */
  weeks: { inFlower: number; of: number }
  /** How the colours of its flowers go together; undefined where one or none of them has a colour. */
  colours: ColourScheme | undefined
  points: number
  /** What comes to be bought, minor unit, and the kinds that nobody has a price for; null without any prices. */
  cost: { price: number; unpriced: string[] } | null
}

/** Weeks that a season is looked at over: to frost, and through spring. */
const weeksOf: Readonly<Record<FillSeason, number>> = { summer: 22, winter: 32 }
/** How many are proposed, and how many kinds two of them may share. */
const PROPOSED = 3
const MAY_SHARE = 1

/** Points of a filling: judgements, in one scale. */
export const proposalPoints = {
  /** Of all its weeks in flower, and of each kind's own by what is seen of it. */
  weeksInFlower: 4,
  own: { focal: 1.5, filler: 2, trailer: 1.5 },
  /** Leaves that stand out count as flowers do through so much of the season. */
  leaves: 0.6,
  colours: { single: 0.6, neighbouring: 1, opposite: 1, none: -1.2 },
  otherTexture: 0.4,
  remark: -1.5,
  /** All that is wanted of it is in hand; of some of it that share. */
  inHand: 1.5,
  /** Bold leaves from afar, fine ones near by. */
  texture: 0.6,
  /** Flowers that stand out before what is behind them. */
  standsOut: 1,
} as const

/** A kind that may stand in the pot in a role, as it is worked with. */
interface Candidate {
  taxon: Taxon
  role: PotRole
  /** In flower, a bit for each week: 32 at most. */
  weeks: number
  points: number
  count: number
  /** Of all that is to be bought of it; infinite where it is to keep to a budget and has no price. */
  price: number
}

/** Sizes over the pot's own height at which a kind is tall in it, or stands about what is. */
const TALL = { from: 0.8, to: 2.2 }
const ABOUT = { from: 0.3, to: 1.1 }
/** One plant fills nothing about another. */
const LEAST_FILLERS = 2
/** What is so low, and so much wider than high, comes over the edge; metres. */
const LOW_M = 0.35
const WIDER = 1.25

/** Where a kind may stand in a pot; nowhere where it is too large, too small or of another season. */
export function rolesIn(taxon: Taxon, vessel: Vessel, season: FillSeason): PotRole[] {
  if (taxon.vigour === 'thug' || taxon.lifeForm === 'small tree' || taxon.lifeForm === 'bulb') return []
  if (
    isSeasonal(taxon)
      ? (taxon.annualSeason === 'cool') !== (season === 'winter')
      : season === 'winter' && !isEvergreen(taxon)
  )
    return []
  const times = heightInPot(taxon, vessel) / vessel.depthM
  const isTrailing =
    taxon.heightM <= LOW_M &&
    (taxon.habit === 'mat' || taxon.spreadM >= WIDER * taxon.heightM) &&
    !isWoody(taxon)
  if (taxon.lifeForm === 'climber') return []
  return potRoles.filter((role) =>
    role === 'trailer'
      ? isTrailing
      : role === 'focal'
        ? times >= TALL.from && times <= TALL.to && taxon.habit !== 'mat'
        : times >= ABOUT.from &&
          times <= ABOUT.to &&
          taxon.habit !== 'mat' &&
          fills(taxon, vessel, SHARES.filler) >= LEAST_FILLERS,
  )
}

/**
 * The fillings of a container that do best by what is known of its kinds: of every three of the kinds that may stand there as tall, about
 * it and over the edge the best, found by trying all, then the best of those that share no more than one kind with any before.
 *
 * @returns as many as three; none where no kind suits a role
 */
export function proposeFills(kinds: readonly Taxon[], asked: ProposalAsked): Proposal[] {
  const { vessel, sites, season, budget = Infinity } = asked
  const weeks = weeksOf[season]
  const suits = (t: Taxon) =>
    !sites.some((site) =>
      [...ownRemarks(t, { ...site, overWinter: season === 'winter' })].some((r) => r.isGrave),
    ) && isHarmless(t, asked)
  const suited = kinds.filter((t) => rolesIn(t, vessel, season).length > 0 && suits(t))
  const of = (role: PotRole) =>
    suited
      .filter((t) => rolesIn(t, vessel, season).includes(role))
      .map((t): Candidate => candidate(t, role, asked))
      .filter((c) => c.price <= budget)
      .sort((a, b) => b.points - a.points || (a.taxon.botanical < b.taxon.botanical ? -1 : 1))
  const trios = triosOf(of('focal'), of('filler'), of('trailer'), weeks, budget)
  const chosen: Trio[] = []
  while (chosen.length < PROPOSED) {
    const next = trios.best((trio) => chosen.every((c) => shared(c.trio, trio) <= MAY_SHARE))
    if (!next) break
    chosen.push(next)
  }
  return chosen.map(({ trio, points, inFlower }) => ({
    potted: trio.map(({ taxon, role, count }) => ({ taxon, role, count })),
    weeks: { inFlower, of: weeks },
    colours: schemeOf(trio.map((c) => c.taxon)),
    points,
    cost: asked.offers ? costOf(toBuy(trio, asked), asked.offers) : null,
  }))
}

/** Whether a kind poisons none of those that it must not. */
export const isHarmless = (taxon: Taxon, { harmlessTo }: Pick<ProposalAsked, 'harmlessTo'>): boolean =>
  !poisonousTo(taxon).some((who) => harmlessTo.includes(who))

/** What is to be bought of plants beside what is in hand. */
export const toBuy = <P extends { taxon: Pick<Taxon, 'botanical'>; count: number }>(
  plants: readonly P[],
  { have }: Pick<ProposalAsked, 'have'>,
): P[] =>
  plants
    .map((p) => ({ ...p, count: Math.max(0, p.count - (have.get(p.taxon.botanical) ?? 0)) }))
    .filter((p) => p.count > 0)

/** What plants cost where each kind is cheapest. */
export function costOf(
  plants: readonly { taxon: Pick<Taxon, 'botanical'>; count: number }[],
  offers: readonly Offer[],
): { price: number; unpriced: string[] } {
  const needs = plants.map((p) => ({ item: p.taxon.botanical, count: p.count, spareShare: 0 }))
  const { price, unpriced } = shoppingList(needs, offers)
  return { price, unpriced: unpriced.map((u) => u.item) }
}

/** Three kinds together. */
interface Trio {
  trio: readonly Candidate[]
  points: number
  inFlower: number
}

/** Every three of kinds by role: what two of them are beside each other is worked out once, weeks in flower are the bits of a number. */
function triosOf(
  focal: readonly Candidate[],
  filler: readonly Candidate[],
  trailer: readonly Candidate[],
  weeks: number,
  budget: number,
) {
  const beside = (some: readonly Candidate[], others: readonly Candidate[]) =>
    some.map((a) => others.map((b) => (a.taxon === b.taxon ? -Infinity : pointsTogether(a.taxon, b.taxon))))
  const [tallAbout, tallOver, aboutOver] = [
    beside(focal, filler),
    beside(focal, trailer),
    beside(filler, trailer),
  ]
  return {
    /** The best of those that are asked for, the first of several alike. */
    best(isAsked: (trio: readonly Candidate[]) => boolean): Trio | undefined {
      let found: Trio | undefined
      focal.forEach((f, i) =>
        filler.forEach((l, j) => {
          const two = f.points + l.points + tallAbout[i]![j]!
          if (two === -Infinity || f.price + l.price > budget) return
          const weeksOfTwo = f.weeks | l.weeks
          trailer.forEach((t, k) => {
            if (f.price + l.price + t.price > budget) return
            const inFlower = bitsIn(weeksOfTwo | t.weeks)
            const points =
              two +
              t.points +
              tallOver[i]![k]! +
              aboutOver[j]![k]! +
              (proposalPoints.weeksInFlower * inFlower) / weeks
            if (points <= (found?.points ?? -Infinity) || !isAsked([f, l, t])) return
            found = { trio: [f, l, t], points, inFlower }
          })
        }),
      )
      return found
    },
  }
}

/** Bits of a number that are set (Wegner 1960). */
function bitsIn(n: number): number {
  let count = 0
  for (let rest = n; rest !== 0; rest &= rest - 1) count++
  return count
}

/** How much of the mix each role takes; what is tall stands alone, in a long one every so often. */
const SHARES = { filler: 0.45, trailer: 0.25 }
/** A tall one for so many times the pot's width that it is long. */
const TALL_EVERY = 1.6

/** With room to grow so much of what closes at once. */
const DENSITY: Readonly<Record<Fullness, number>> = { now: 1, 'in time': 0.6 }

/** How many of a kind a role takes. */
export const countIn = (taxon: Taxon, role: PotRole, vessel: Vessel, fullness: Fullness = 'now'): number =>
  role === 'focal'
    ? Math.max(1, Math.round(vessel.lengthM / (TALL_EVERY * Math.max(vessel.widthM, taxon.spreadM))))
    : oddly(fills(taxon, vessel, DENSITY[fullness] * SHARES[role]))

/** Few plants look best in odd numbers. */
const oddly = (n: number): number => (n % 2 === 0 && n < 8 ? n - 1 : n)

const shared = (a: readonly Candidate[], b: readonly Candidate[]): number =>
  a.filter((p) => b.some((q) => q.taxon === p.taxon)).length

function candidate(taxon: Taxon, role: PotRole, asked: ProposalAsked): Candidate {
  const { on, year, have, sites, season, vessel, fullness, offers = [], budget } = asked
  const own = seasonYearOf(on, year.south)
  const span = weeksOf[season]
  const blooms = [own - 1, own, own + 1].flatMap((s) => usualBloom(taxon, s, year) ?? [])
  const stands = [own - 1, own, own + 1].map((s) => seasonDates(taxon, s, year))
  const days = Array.from({ length: span }, (_, w) => addDays(on, 7 * w + 3))
  const weeks = days.reduce(
    (bits, day, w) => (blooms.some((b) => b.from <= day && day <= b.to) ? bits | (1 << w) : bits),
    0,
  )
  const inLeaf = days.filter(
    (day) => isEvergreen(taxon) || stands.some((s) => s.showsFrom <= day && day <= s.goneBy),
  ).length
  const flowers = bitsIn(weeks) / span
  const leaves = standsOutInLeaf(taxon.foliageColour) ? (proposalPoints.leaves * inLeaf) / span : 0
  const remarks = Math.max(
    ...sites.map((site) => [...ownRemarks(taxon, { ...site, overWinter: season === 'winter' })].length),
  )
  const count = countIn(taxon, role, vessel, fullness)
  const points =
    proposalPoints.own[role] * Math.max(flowers, leaves) +
    proposalPoints.remark * remarks +
    seenPoints(taxon, asked) +
    proposalPoints.inHand * Math.min(1, (have.get(taxon.botanical) ?? 0) / count)
  const cost = budget === undefined ? undefined : costOf(toBuy([{ taxon, count }], asked), offers)
  const price = cost === undefined ? 0 : cost.unpriced.length > 0 ? Infinity : cost.price
  return { taxon, role, weeks, points, count, price }
}

/** Looked at from here on leaves run together unless they are bold; nearer than this fine ones tell. */
const FAR_M = 6
const NEAR_M = 2
/** Colours so far apart (Euclidean, in OKLab) stand out before each other. */
const APART = 0.35

/** How a kind is seen from where it is looked at, and before what stands behind it. */
function seenPoints(
  { texture, flowerColour, foliageColour }: Pick<Taxon, 'texture' | 'flowerColour' | 'foliageColour'>,
  { seenFromM, behind }: Pick<ProposalAsked, 'seenFromM' | 'behind'>,
): number {
  const far =
    seenFromM === undefined ? 0 : Math.min(1, Math.max(-1, (2 * (seenFromM - NEAR_M)) / (FAR_M - NEAR_M) - 1))
  const leaves = { fine: -1, medium: 0, bold: 1 }[texture]
  const apart =
    behind === undefined ? 0 : Math.min(1, colourDistance(flowerColour ?? foliageColour, behind) / APART)
  return proposalPoints.texture * far * leaves + proposalPoints.standsOut * apart
}

/** How far two colours lie apart in OKLab (Ottosson 2020). */
function colourDistance(a: string, b: string): number {
  const [p, q] = [oklchOf(a), oklchOf(b)]
  const at = ({ c, h }: { c: number; h: number }) => [
    c * Math.cos((h * Math.PI) / 180),
    c * Math.sin((h * Math.PI) / 180),
  ]
  const [[pa, pb], [qa, qb]] = [at(p) as [number, number], at(q) as [number, number]]
  return Math.hypot(p.l - q.l, pa - qa, pb - qb)
}

/** Points of two kinds beside each other; −Infinity where one of them would ruin the other. */
function pointsTogether(a: Taxon, b: Taxon): number {
  const remarks = [...pairRemarks(a, b)]
  if (remarks.some((r) => r.isGrave)) return -Infinity
  const scheme = schemeOf([a, b])
  const colours = coloured([a, b]).length < 2 ? 0 : proposalPoints.colours[scheme ?? 'none']
  return (
    colours +
    proposalPoints.remark * remarks.length +
    (a.texture === b.texture ? 0 : proposalPoints.otherTexture)
  )
}

/** White, cream and grey go with all. */
const coloured = (taxa: readonly Taxon[]): string[] =>
  taxa.flatMap((t) =>
    t.flowerColour && !accords(t.flowerColour, 'single', oklchOf(t.flowerColour).h + 180)
      ? [t.flowerColour]
      : [],
  )

/** How flower colours go together: by the closest of the schemes that all of them keep; undefined where they keep none, or fewer than two have colour. */
function schemeOf(taxa: readonly Taxon[]): ColourScheme | undefined {
  const hexes = coloured(taxa)
  if (hexes.length < 2) return undefined
  return colourSchemes.find((scheme) =>
    hexes.some((lead) => hexes.every((h) => accords(h, scheme, oklchOf(lead).h))),
  )
}
