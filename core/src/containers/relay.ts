import type { Climate } from '../climate/index.ts'
import { addDays, daysBetween, maxDay, minDay, type IsoDate } from '../dates/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { isSeasonal } from '../verdict/index.ts'
import { bulbLayers, type BulbLayer } from './bulbLayers.ts'
import type { FillSeason } from './fill.ts'
import type { PotSite, Potted } from './fitting.ts'
import { costOf, isHarmless, proposeFills, toBuy, type Proposal, type ProposalAsked } from './proposals.ts'
import { fillAhead, swapWindow, type FillAhead } from './swap.ts'

/** What becomes of a kind as its fill ends. */
export type SavedTo = 'kept in the pot' | 'planted out' | 'wintered indoors' | 'compost'

/** One fill of a relay. */
export interface RelayLeg {
  season: FillSeason
  /** When it may go in. */
  in: { from: IsoDate; to: IsoDate }
  potted: Potted[]
  /** Under it, the deepest first. */
  bulbs: BulbLayer[]
  /** When it goes over; null where all of it stays. */
  over: FillAhead['over']
  saved: { botanical: string; to: SavedTo }[]
  cost: { price: number; unpriced: string[] } | null
  /** Days from when it has gone over to when the next may go in: the pot stands empty. */
  emptyDays: number
}

/** What a relay is made for; the season and the day are those that its first fill is to be of. */
export type RelayAsked = Omit<ProposalAsked, 'sites'> & {
  climate: Climate
  sites: Readonly<Record<FillSeason, readonly PotSite[]>>
}

/** Two years: two summers and two winters. */
const LEGS = 4
/** The window of the season after it opens no sooner. */
const NEXT_SEASON_DAYS = 60

/**
 * A relay of fills, one after the other, so that a pot is never empty for longer than it must be: each the proposal that shares least with the fill
 * of the same season before it, with bulbs under what is for winter.
 *
 * @returns fewer than four where the rules name no time for a season here, or no kinds suit
 */
export function relayOf(kinds: readonly Taxon[], asked: RelayAsked): RelayLeg[] {
  const { climate, year, vessel } = asked
  const legs: RelayLeg[] = []
  let season = asked.season
  let day = asked.on
  let have = asked.have
  while (legs.length < LEGS) {
    const last = legs.at(-1)
    const window = windowAfter(swapWindow(climate, season, day), last)
    const sites = asked.sites[season]
    const before = legs.findLast((l) => l.season === season)
    const found = window && proposeFills(kinds, { ...asked, have, sites, season, on: window.from })
    const chosen = found && leastLike(found, before)
    if (!window || !chosen) return legs
    const bulbs =
      season === 'winter'
        ? bulbLayers(
            kinds,
            vessel,
            window.from,
            year,
            (t) => isHarmless(t, asked) && t.hardyToC < sites[0]!.coldestC,
          )
        : []
    const plants = chosen.potted.map((p) => ({ taxon: p.taxon, plantedOn: window.from }))
    const { over } = fillAhead(plants, season, { on: window.from, climate, year })
    const gone = last?.over?.to
    if (last && gone) last.emptyDays = Math.max(0, daysBetween(gone, window.from))
    legs.push({
      season,
      in: { from: window.from, to: window.to },
      potted: chosen.potted,
      bulbs,
      over,
      saved: chosen.potted.map((p) => ({ botanical: p.taxon.botanical, to: savedTo(p.taxon) })),
      cost: asked.offers ? costOf([...toBuy(chosen.potted, { have }), ...bulbs], asked.offers) : null,
      emptyDays: 0,
    })
    have = handAfter(have, chosen.potted)
    day = addDays(window.from, NEXT_SEASON_DAYS)
    season = season === 'summer' ? 'winter' : 'summer'
  }
  return legs
}

/** The next goes in once what is there begins to go over, as far as its own window leaves time. */
function windowAfter(window: FillAhead['next'], last: RelayLeg | undefined): FillAhead['next'] {
  if (!window || !last?.over) return window
  return { ...window, from: minDay(window.to, maxDay(window.from, last.over.from)) }
}

/** A kind ends as its form says: what stays is planted out, what lives on indoors is kept, the rest has had its season. */
export const savedTo = (t: Taxon): SavedTo =>
  !isSeasonal(t)
    ? isWoody(t)
      ? 'kept in the pot'
      : 'planted out'
    : t.lifeForm === 'tender perennial'
      ? 'wintered indoors'
      : 'compost'

/** What is in hand after a fill: without what it took, and with what is wintered indoors for the summer after. */
function handAfter(before: ReadonlyMap<string, number>, potted: readonly Potted[]): Map<string, number> {
  const have = new Map(before)
  for (const { taxon, count } of potted) {
    const left = Math.max(0, (have.get(taxon.botanical) ?? 0) - count)
    have.set(taxon.botanical, left + (savedTo(taxon) === 'wintered indoors' ? count : 0))
  }
  return have
}

function leastLike(found: readonly Proposal[], before: RelayLeg | undefined): Proposal | undefined {
  const alike = (p: Proposal) =>
    p.potted.filter((q) => before?.potted.some((b) => b.taxon.botanical === q.taxon.botanical)).length
  return found.reduce<Proposal | undefined>((a, b) => (a && alike(a) <= alike(b) ? a : b), undefined)
}
