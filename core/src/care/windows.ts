import { addDays, dayNumber, maxDay, type IsoDate } from '../dates/index.ts'
import { usualBloom, type Taxon } from '../plants/index.ts'
import { dayMonth } from '../words/index.ts'
import { anchored, type Anchored, type AnchorContext } from './anchors.ts'
import { dayAt, type GardenYear } from './gardenYear.ts'
import type { CareRule, Edge, WindowSpec } from './rule.ts'

/** When a job may be done: `earliest <= bestFrom <= bestTo <= latest`, each with the sentence that explains it. */
export interface Window {
  season: WindowSpec['season']
  earliest: IsoDate
  bestFrom: IsoDate
  bestTo: IsoDate
  latest: IsoDate
  why: Record<Edge, string>
}

/**
 * How many windows are open, from each day on which that changes, in order.
 *
 * @returns pairs of a day and the windows open from it on; the last is of none
 */
export function openWindows(
  windows: readonly Pick<Window, 'earliest' | 'latest'>[],
): [from: IsoDate, open: number][] {
  const turns = new Map<IsoDate, number>()
  const turn = (day: IsoDate, by: number) => turns.set(day, (turns.get(day) ?? 0) + by)
  for (const { earliest, latest } of windows) {
    turn(earliest, 1)
    turn(addDays(latest, 1), -1)
  }
  let open = 0
  return [...turns]
    .filter(([, by]) => by !== 0)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([day, by]) => [day, (open += by)])
}

/** A window with what already lies behind a day cut off. */
export const openFrom = (w: Window, on: IsoDate): Window => ({
  ...w,
  earliest: maxDay(w.earliest, on),
  bestFrom: maxDay(w.bestFrom, on),
  bestTo: maxDay(w.bestTo, on),
})

/**
 * A window that opens at once, for work that hangs on no time of the year.
 *
 * @param days its best lasts and it stays open
 * @param why clauses, each after its date
 */
export function windowAtOnce(
  on: IsoDate,
  days: { best: number; open: number },
  why: Record<Edge, string>,
): Window {
  const bestTo = addDays(on, days.best)
  const latest = addDays(on, days.open)
  return {
    season: 'any time',
    earliest: on,
    bestFrom: on,
    bestTo,
    latest,
    why: {
      earliest: `Not before ${dayMonth(on)}: ${why.earliest}.`,
      bestFrom: `Best from ${dayMonth(on)}: ${why.bestFrom}.`,
      bestTo: `Best until ${dayMonth(bestTo)}: ${why.bestTo}.`,
      latest: `Not after ${dayMonth(latest)}: ${why.latest}.`,
    },
  }
}

/** A window shorter than this, in days, is none. */
const LEAST_DAYS = 6

/** The window of one spec in one gardening year of a place; a sentence where it has none. */
export function windowOf(
  spec: WindowSpec,
  garden: GardenYear,
  taxon?: Taxon,
): { ok: true; window: Window } | { ok: false; why: string } {
  const context: AnchorContext = { garden, taxon, edges: {} }
  const opens = anchored(spec.earliest, context)
  if (!opens) return none('nothing in the usual year here marks its beginning')
  const blooms = spec.roundBloom && taxon ? bloomsNear(taxon, garden) : []
  let earliest = blooms.reduce((day, bloom) => afterBloom(day, spec, bloom), opens)
  context.edges.earliest = earliest
  const needed = spec.needs && !anchored(spec.needs, context)
  if (needed) return none('the usual year here has no such season')
  const wished = anchored(spec.bestFrom, context) ?? earliest
  context.edges.bestFrom = wished
  const closes = anchored(spec.latest, context)
  if (!closes) return none('too little warmth is left in the usual year here')
  const latest = blooms.reduce((day, bloom) => beforeBloom(day, earliest, spec, bloom), closes)
  let hurried = false
  if (spec.hurry !== undefined && latest.day - earliest.day < LEAST_DAYS + 2) {
    const over = blooms.filter((b) => b.to < latest.day).map((b) => b.to + spec.roundBloom!.after)
    const day = Math.max(latest.day - spec.hurry, ...over)
    if (day < earliest.day) {
      earliest = { day, says: 'the season is short here' }
      hurried = true
    }
  }
  if (latest.day - earliest.day < LEAST_DAYS) {
    return none(
      `it would open ${dayMonth(dayAt(earliest.day))} (${earliest.says}) and close ${dayMonth(dayAt(latest.day))} (${latest.says})`,
    )
  }
  context.edges = { earliest, latest }
  // Where the best begins only as time runs out, sooner is better than waiting for it.
  const tooLate = wished.day > latest.day - 7
  const bestFrom = tooLate || wished.day < earliest.day ? earliest : wished
  context.edges.bestFrom = bestFrom
  const best = anchored(spec.bestTo, context) ?? latest
  const bestTo = best.day < bestFrom.day ? bestFrom : best.day > latest.day ? latest : best
  const sentence = (edge: Edge, a: Anchored, lead: string) =>
    `${lead} ${dayMonth(dayAt(a.day))}: ${because(spec, edge, a, { hurried, tooLate })}.`
  return {
    ok: true,
    window: {
      season: spec.season,
      earliest: dayAt(earliest.day),
      bestFrom: dayAt(bestFrom.day),
      bestTo: dayAt(bestTo.day),
      latest: dayAt(latest.day),
      why: {
        earliest: sentence('earliest', earliest, 'Not before'),
        bestFrom: sentence('bestFrom', bestFrom, 'Best from'),
        bestTo: sentence('bestTo', bestTo, 'Best until'),
        latest: sentence('latest', latest, 'Not after'),
      },
    },
  }
}

const none = (why: string) => ({ ok: false as const, why })

interface Bloom {
  from: number
  to: number
}

/** The bloom of the season before, which may last into this one, and of this one. */
const bloomsNear = (taxon: Taxon, garden: GardenYear): Bloom[] =>
  [garden.season - 1, garden.season].flatMap((season) => {
    const bloom = usualBloom(taxon, season, garden.year)
    return bloom ? [{ from: dayNumber(bloom.from), to: dayNumber(bloom.to) }] : []
  })

/** What opens in flower, or shortly before, waits until the flowers are over. */
function afterBloom(opens: Anchored, spec: WindowSpec, bloom: Bloom): Anchored {
  const gap = spec.roundBloom
  if (!gap) return opens
  const day = bloom.to + gap.after
  if (opens.day <= bloom.from - gap.before - LEAST_DAYS || opens.day >= day) return opens
  return {
    day,
    says: `it flowers until about ${dayMonth(dayAt(bloom.to))} and is left ${gap.after === 7 ? 'a week' : `${gap.after} days`} to finish`,
  }
}

function beforeBloom(closes: Anchored, earliest: Anchored, spec: WindowSpec, bloom: Bloom): Anchored {
  const gap = spec.roundBloom
  if (!gap || bloom.from <= earliest.day) return closes
  const day = bloom.from - gap.before
  return day < closes.day
    ? { day, says: `${gap.before} days before it usually flowers, about ${dayMonth(dayAt(bloom.from))}` }
    : closes
}

/** The day's own clause, and why it matters. */
function because(
  spec: WindowSpec,
  edge: Edge,
  a: Anchored,
  { hurried, tooLate }: { hurried: boolean; tooLate: boolean },
): string {
  if (edge === 'earliest' && hurried)
    return 'the season is short here, so it is done in the last of the warmth, shaded and watered'
  if (edge === 'bestFrom' && tooLate) return 'as soon as it may be done, because the season is short here'
  const reason = spec.because[edge]
  const own = a.says.startsWith('it flowers until')
  if (own || reason === '') return a.says
  return a.says === '' || spec.season === 'any time' ? reason : `${a.says}; ${reason}`
}

/**
 * The windows of a rule for a taxon that close on or after a day, in date order.
 *
 * @param years gardening years to look at
 * @returns the windows, and for those the years do not have, why not
 */
export function windowsOf(
  rule: Pick<CareRule, 'windows'>,
  years: readonly GardenYear[],
  taxon: Taxon | undefined,
  on: IsoDate,
): { windows: Window[]; none: string[] } {
  const windows: Window[] = []
  const missing = new Set<string>()
  for (const garden of years)
    for (const spec of rule.windows) {
      const found = windowOf(spec, garden, taxon)
      if (!found.ok) missing.add(found.why)
      else if (found.window.latest >= on) windows.push(found.window)
    }
  windows.sort((a, b) => (a.earliest < b.earliest ? -1 : a.earliest > b.earliest ? 1 : 0))
  return { windows, none: [...missing] }
}
