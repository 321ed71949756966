import { quantile } from '../climate/index.ts'
import { addDays, daysBetween, type IsoDate } from '../dates/index.ts'
import { DRIP_REACHES } from '../quantities/index.ts'
import { waterThrough, type WateredPot, type WaterDay } from './potWater.ts'

/** A container whose water is planned for. */
export interface TendedPot {
  id: string
  water: WateredPot
  /** Whether it can be stood in the shade while nobody is there. */
  isMovable: boolean
}

/** How a garden’s containers come through days on which nobody is there but who is asked to. */
export interface AbsencePlan {
  /** Years of the record that it is told from. */
  years: number
  /** Pots that once a day is too seldom for: the rest is planned without them. */
  tooThirsty: string[]
  /** Somebody comes every so many days, the first time so many days after they were watered; nobody where it is the whole time. */
  everyDays: number
  visits: IsoDate[]
  /** Litres of one visit, and of all: no more than that in nine years of ten. */
  litresEach: number
  litresAll: number
  /** The same where what can be moved stands in the shade together. */
  inShade: { tooThirsty: string[]; everyDays: number; litresEach: number; litresAll: number; moved: string[] }
  /** Each by itself: how long it does, and what it draws a day; what does shortest comes first. */
  pots: { id: string; everyDays: number | null; litresADay: number; drippers: number; dripMinutes: number }[]
}

/** Longer than this nobody is away from pots. */
export const MOST_AWAY_DAYS = 60
/** Nothing goes short in so many of the years. */
const IN_YEARS = 0.9
/** Light that is left under a tree or north of a wall, of that in the open. */
const SHADE = 0.25
/** A dripper gives so much an hour. */
const DRIPPER_LITRES_PER_HOUR = 2

/**
 * Plans an absence by what the same days of the years of a record would have brought: by trying every interval of visits from the
 * longest down, and taking the first at which in nine years of ten nothing goes short. All are watered through on the morning of leaving.
 *
 * @param from the day of leaving; `to`: that of coming back, on which they are watered again
 */
export function planAbsence(
  pots: readonly TendedPot[],
  record: readonly WaterDay[],
  from: IsoDate,
  to: IsoDate,
): AbsencePlan {
  const span = daysBetween(from, to)
  const years = runsLike(record, from, span)
  const own = new Map(pots.map((p) => [p.id, longestOf(p, years, span)]))
  return {
    years: years.length,
    ...roundsOf(pots, own, years, span),
    visits: visitsOf(span, everyOf(own, span)).map((n) => addDays(from, n)),
    inShade: {
      ...roundsOf(
        pots.map((p) => (p.isMovable ? inShadeOf(p) : p)),
        new Map(pots.map((p) => [p.id, p.isMovable ? longestOf(inShadeOf(p), years, span) : own.get(p.id)!])),
        years,
        span,
      ),
      moved: pots.filter((p) => p.isMovable && sunOf(p) > SHADE).map((p) => p.id),
    },
    pots: pots
      .map((p) => {
        const litresADay = drawnADay(p, years, span)
        const hours = litresADay / (DRIP_REACHES * DRIPPER_LITRES_PER_HOUR)
        const drippers = Math.max(1, Math.ceil(hours))
        return {
          id: p.id,
          everyDays: own.get(p.id)!,
          litresADay,
          drippers,
          dripMinutes: (60 * hours) / drippers,
        }
      })
      .sort((a, b) => (a.everyDays ?? 0) - (b.everyDays ?? 0) || b.litresADay - a.litresADay),
  }
}

/** As often as the thirstiest wants that once a day is enough for. */
const everyOf = (own: ReadonlyMap<string, number | null>, span: number): number =>
  Math.min(span, ...[...own.values()].filter((k) => k !== null))

function roundsOf(
  pots: readonly TendedPot[],
  own: ReadonlyMap<string, number | null>,
  years: readonly (readonly WaterDay[])[],
  span: number,
) {
  const everyDays = everyOf(own, span)
  const served = pots.filter((p) => own.get(p.id) !== null)
  return {
    tooThirsty: pots.filter((p) => own.get(p.id) === null).map((p) => p.id),
    everyDays,
    ...litresOf(served, years, span, everyDays),
  }
}

const sunOf = ({ water }: TendedPot): number => Math.max(...water.sunShare)
const inShadeOf = (p: TendedPot): TendedPot => ({
  ...p,
  water: { ...p.water, sunShare: p.water.sunShare.map((s) => Math.min(s, SHADE)) },
})

/** Of each year of a record the days that an absence falls on, where all of them are there. */
function runsLike(record: readonly WaterDay[], from: IsoDate, span: number): WaterDay[][] {
  const at = new Map(record.map((d, i) => [d.day, i]))
  const found: WaterDay[][] = []
  const first = Number(record[0]?.day.slice(0, 4) ?? 0)
  const last = Number(record.at(-1)?.day.slice(0, 4) ?? -1)
  for (let year = first; year <= last; year++) {
    const day = from.endsWith('02-29') ? `${year}-02-28` : `${year}${from.slice(4)}`
    const i = at.get(day)
    const run = i === undefined ? [] : record.slice(i, i + span)
    if (run.length === span && span > 0) found.push(run)
  }
  return found
}

/** Days after leaving on which somebody comes, before the day of coming back. */
const visitsOf = (span: number, every: number): number[] =>
  Array.from({ length: Math.max(0, Math.ceil(span / every) - 1) }, (_, i) => (i + 1) * every)

const through = (p: TendedPot, run: readonly WaterDay[], every: number) => {
  const visits = new Set(visitsOf(run.length, every).map((n) => run[n]!.day))
  return waterThrough(p.water, run, { tended: (day) => visits.has(day) })
}

function longestOf(p: TendedPot, years: readonly (readonly WaterDay[])[], span: number): number | null {
  for (let every = span; every >= 1; every--) {
    const sound = years.filter((run) => through(p, run, every).shortDays === 0).length
    if (sound >= IN_YEARS * years.length) return every
  }
  return null
}

function litresOf(
  pots: readonly TendedPot[],
  years: readonly (readonly WaterDay[])[],
  span: number,
  every: number,
): { litresEach: number; litresAll: number } {
  const visits = visitsOf(span, every).length
  if (visits === 0 || years.length === 0) return { litresEach: 0, litresAll: 0 }
  const ofYears = years.map((run) => {
    const onDay = new Map<IsoDate, number>()
    for (const p of pots)
      for (const w of through(p, run, every).waterings) onDay.set(w.day, (onDay.get(w.day) ?? 0) + w.litres)
    const rounds = [...onDay.values()]
    return { most: Math.max(0, ...rounds), all: rounds.reduce((a, b) => a + b, 0) }
  })
  return {
    litresEach: quantile(
      ofYears.map((y) => y.most),
      IN_YEARS,
    ),
    litresAll: quantile(
      ofYears.map((y) => y.all),
      IN_YEARS,
    ),
  }
}

function drawnADay(p: TendedPot, years: readonly (readonly WaterDay[])[], span: number): number {
  if (years.length === 0) return 0
  return quantile(
    years.map((run) => waterThrough(p.water, run).drawn / span),
    IN_YEARS,
  )
}
