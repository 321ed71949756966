import { seasonShift, type Climate, type SeasonShift } from '../climate/index.ts'
import { addDays, daysBetween, maxDay, seasonStart, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { partOfMonth } from '../words/index.ts'
import type { LifeForm, Taxon } from './taxon.ts'

/** What a plant usually does at a time of its year, in the order a season takes. */
export const phases = [
  'underground',
  'emerging',
  'growing',
  'in bud',
  'opening',
  'in full bloom',
  'fading',
  'finished flowering',
  'summer rest',
  'going over',
  'bare',
  'winter green',
] as const
export type Phase = (typeof phases)[number]

/** What to expect of a planting on a day, and how much a look on that day tells of how it does. */
export interface UsualState {
  phase: Phase
  /** True when looking poor, or not at all, is only its time of year. */
  resting: boolean
  /** 0 to 1: how telling a rating given now is. */
  telling: number
  /** Days the year was taken to run late; negative when early. */
  lateDays: number
}

/** Days of the northern year. `shows`: from the first to the latest usual sign of growth; `fades`: from the first yellowing to bare or gone. */
interface Calendar {
  shows: readonly [from: string, latest: string]
  fades: readonly [from: string, gone: string]
  /** What is left in winter. */
  winter: 'underground' | 'bare' | 'winter green'
  /** A rest in the middle of the season. */
  rests?: readonly [from: string, to: string] | undefined
}

/**
 * By life form, for temperate gardens in the usual year: general horticultural consensus to within a week or two, the
 * latest dates set late, so that a plant is not given up too soon.
 */
const byLifeForm: Record<LifeForm, Calendar> = {
  perennial: { shows: ['03-10', '05-10'], fades: ['10-05', '11-20'], winter: 'underground' },
  'warm grass': { shows: ['04-15', '05-31'], fades: ['10-20', '12-31'], winter: 'underground' },
  'cool grass': {
    shows: ['02-25', '04-20'],
    fades: ['11-15', '12-20'],
    winter: 'winter green',
    rests: ['07-20', '08-25'],
  },
  bulb: { shows: ['03-25', '05-20'], fades: ['09-25', '11-05'], winter: 'underground' },
  fern: { shows: ['04-05', '05-31'], fades: ['10-25', '12-15'], winter: 'underground' },
  'deciduous shrub': { shows: ['03-20', '05-15'], fades: ['10-10', '11-25'], winter: 'bare' },
  'small tree': { shows: ['03-25', '05-15'], fades: ['10-05', '11-25'], winter: 'bare' },
  climber: { shows: ['03-20', '05-15'], fades: ['10-15', '11-30'], winter: 'bare' },
  'evergreen shrub': { shows: ['03-15', '05-01'], fades: ['11-20', '12-10'], winter: 'winter green' },
  groundcover: { shows: ['03-10', '04-30'], fades: ['11-01', '12-05'], winter: 'winter green' },
  succulent: { shows: ['03-15', '05-01'], fades: ['10-10', '11-25'], winter: 'winter green' },
  annual: { shows: ['04-25', '06-05'], fades: ['10-05', '11-10'], winter: 'underground' },
  'tender perennial': { shows: ['05-01', '06-15'], fades: ['10-05', '11-10'], winter: 'underground' },
}

/** Buds are seen so long before the first flower opens. A judgement. */
const BUD_DAYS = 18
const DAYS_OF_YEAR = 365
/** Days from 1 January to 1 July, on which the southern season begins. */
const HALF_YEAR = 181

/** A spring bulb hangs on its bloom: leaves before, ripening after, then gone until next year. */
const springBulb = (bloomFrom: string, bloomTo: string): Calendar => ({
  shows: [shifted(bloomFrom, -55), shifted(bloomFrom, -8)],
  fades: [shifted(bloomTo, 14), shifted(bloomTo, 45)],
  winter: 'underground',
})

/** Bulbs that bloom before this are gone by midsummer. */
const SPRING_BULB_UNTIL = '06-16'

function calendarOf(taxon: Taxon): Calendar {
  const { bloomFrom, bloomTo, lifeForm, shows, fades, rests, winter } = taxon
  const usual =
    lifeForm === 'bulb' && bloomFrom && bloomTo && bloomFrom < bloomTo && bloomTo < SPRING_BULB_UNTIL
      ? springBulb(bloomFrom, bloomTo)
      : byLifeForm[lifeForm]
  return {
    shows: shows ?? usual.shows,
    fades: fades ?? usual.fades,
    winter: winter ?? usual.winter,
    ...((rests ?? usual.rests) && { rests: rests ?? usual.rests }),
  }
}

/** Days of the year before each month of a common year. */
const BEFORE_MONTH = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334]

/** Place of a day in the year's circle, 0 to 364; 29 February counts as 1 March. */
const placeInYear = (monthDay: string): number =>
  BEFORE_MONTH[Number(monthDay.slice(0, 2)) - 1]! + Number(monthDay.slice(3, 5)) - 1

const round = (place: number) => ((place % DAYS_OF_YEAR) + DAYS_OF_YEAR) % DAYS_OF_YEAR

/** A day of the year some days on, as `MM-DD`. */
function shifted(monthDay: string, days: number): string {
  const place = round(placeInYear(monthDay) + days)
  const month = BEFORE_MONTH.findLastIndex((before) => before <= place)
  return `${String(month + 1).padStart(2, '0')}-${String(place - BEFORE_MONTH[month]! + 1).padStart(2, '0')}`
}

/** Days round the year from one day to another, both `MM-DD`: 0 to 364. */
const since = (from: string, day: string): number => round(placeInYear(day) - placeInYear(from))
const lies = (day: string, from: string, to: string) => since(from, day) < since(from, to)

/** The day of the usual northern year that a day of this year stands for, `MM-DD`. */
function usualDay(on: IsoDate, { lateDays, south, shift }: Year): string {
  const local = round(placeInYear(on.slice(5)) - lateDays - (south ? HALF_YEAR : 0))
  return shifted('01-01', shift ? shift.usualDayOf[local]! : local)
}

/** How a year runs at a place. */
export interface Year {
  /** Days late against what is usual there; negative when early. */
  lateDays: number
  south: boolean
  /** How the usual year there runs against the temperate one that the library's dates are of; absent: alike. */
  shift?: SeasonShift | undefined
}

/** A year as the library’s dates mean it: neither late nor early, in the north. */
export const USUAL_YEAR: Year = { lateDays: 0, south: false }

/** The year of a place by its climate. */
export const yearAt = (climate: Climate, lateDays = 0): Year => ({
  lateDays,
  south: climate.latitudeDeg < 0,
  shift: seasonShift(climate),
})

/** The year of a place by its climate; where none is known as the library’s dates mean it, on its own half of the earth. */
export const usualYearAt = (climate: Climate | null | undefined, latitudeDeg: number): Year =>
  climate ? yearAt(climate) : { ...USUAL_YEAR, south: latitudeDeg < 0 }

/**
 * The real day on which a day of the usual northern year falls.
 *
 * @param seasonYear the year the growing season is called by
 * @param share 0 to 1: how far the place's warmth moves it; 0 for what hangs on day length alone
 */
function realDay(monthDay: string, seasonYear: number, year: Year, share = 1): IsoDate {
  const place = placeInYear(monthDay)
  const moved = Math.round(share * (year.shift?.daysLater[place] ?? 0))
  return addDays(seasonStart(seasonYear, year.south), place + moved + year.lateDays)
}

/** What a taxon usually does on a day, the year's earliness and the hemisphere taken in. */
export function usualState(taxon: Taxon, on: IsoDate, year: Year): UsualState {
  const day = usualDay(on, year)
  const phase = phaseOn(taxon, day)
  return { phase, ...weightOf[phase], lateDays: year.lateDays }
}

/**
 * How much a rating tells by phase: full from leaf to bloom, little while a plant comes up or goes over, next to nothing
 * at rest. Weights are this product's own.
 */
const weightOf: Record<Phase, { telling: number; resting: boolean }> = {
  underground: { telling: 0.02, resting: true },
  emerging: { telling: 0.4, resting: false },
  growing: { telling: 1, resting: false },
  'in bud': { telling: 1, resting: false },
  opening: { telling: 1, resting: false },
  'in full bloom': { telling: 1, resting: false },
  fading: { telling: 0.9, resting: false },
  'finished flowering': { telling: 0.7, resting: false },
  'summer rest': { telling: 0.05, resting: true },
  'going over': { telling: 0.15, resting: true },
  bare: { telling: 0.1, resting: true },
  'winter green': { telling: 0.4, resting: false },
}

function phaseOn(taxon: Taxon, day: string): Phase {
  const { bloomFrom, bloomTo } = taxon
  const calendar = calendarOf(taxon)
  const bloomDays = bloomFrom && bloomTo ? since(bloomFrom, bloomTo) : 0
  if (bloomFrom && bloomTo) {
    const into = since(bloomFrom, day)
    if (into <= bloomDays) {
      if (into < bloomDays * 0.2) return 'opening'
      return into > bloomDays * 0.8 ? 'fading' : 'in full bloom'
    }
  }
  const { shows, fades, winter, rests } = calendar
  if (rests && lies(day, ...rests)) return 'summer rest'
  if (lies(day, fades[0], fades[1])) return winter === 'winter green' ? 'winter green' : 'going over'
  if (lies(day, fades[1], shows[0])) return winter
  if (bloomFrom && lies(day, shifted(bloomFrom, -BUD_DAYS), bloomFrom)) return 'in bud'
  if (lies(day, shows[0], shows[1])) return winter === 'winter green' ? 'growing' : 'emerging'
  // Not what flowered before its last rest: roses go on into the days in which their leaves turn.
  const over = bloomTo && since(bloomTo, day) < since(bloomTo, fades[1])
  return over ? 'finished flowering' : 'growing'
}

/** The growing season of a planting in which a day lies, as it falls in a year. */
export interface Emergence {
  /** First usual sign of growth. */
  from: IsoDate
  /** Latest usual: before it a plant that does not show is not given up. */
  latest: IsoDate
}

/**
 * When a taxon usually shows in the season a day belongs to.
 *
 * @returns undefined for plants that never leave the surface
 */
export function emergenceOf(taxon: Taxon, on: IsoDate, year: Year): Emergence | undefined {
  const { shows, winter } = calendarOf(taxon)
  if (winter === 'winter green') return undefined
  const own = seasonYearOf(on, year.south)
  const away = (season: number) => Math.abs(daysBetween(on, realDay(shows[0], season, year)))
  const season = [own - 1, own, own + 1].reduce((best, s) => (away(s) < away(best) ? s : best))
  const from = realDay(shows[0], season, year)
  return { from, latest: maxDay(from, realDay(shows[1], season, year)) }
}

/** The dates of one season of a taxon at a place. */
export interface SeasonDates {
  showsFrom: IsoDate
  /** Latest usual sign of growth. */
  showsBy: IsoDate
  /** First yellowing. */
  fadesFrom: IsoDate
  /** Bare, or gone below ground. */
  goneBy: IsoDate
  winter: 'underground' | 'bare' | 'winter green'
  bloom?: { from: IsoDate; to: IsoDate } | undefined
}

/** What a taxon usually does in a season, in real dates. Autumn growers show late in the season before they fade. */
export function seasonDates(taxon: Taxon, seasonYear: number, year: Year): SeasonDates {
  const { shows, fades, winter } = calendarOf(taxon)
  const growsOverWinter = fades[0] < shows[0]
  const ends = growsOverWinter ? seasonYear + 1 : seasonYear
  return {
    showsFrom: realDay(shows[0], seasonYear, year),
    showsBy: realDay(shows[1], seasonYear, year),
    fadesFrom: realDay(fades[0], ends, year),
    goneBy: realDay(fades[1], fades[1] < fades[0] ? ends + 1 : ends, year),
    winter,
    bloom: usualBloom(taxon, seasonYear, year),
  }
}

/** Usual bloom of a taxon in the season around a day, in real dates; undefined where it is grown for leaf. */
export function usualBloom(
  taxon: Pick<Taxon, 'bloomFrom' | 'bloomTo' | 'bloomsBy'>,
  seasonYear: number,
  year: Year,
): { from: IsoDate; to: IsoDate } | undefined {
  const { bloomFrom, bloomTo } = taxon
  if (!bloomFrom || !bloomTo) return undefined
  const share = taxon.bloomsBy === 'day length' ? DAY_LENGTH_SHARE : 1
  const from = realDay(bloomFrom, seasonYear, year, share)
  const wraps = bloomTo < bloomFrom
  const to = realDay(bloomTo, wraps ? seasonYear + 1 : seasonYear, year, share)
  return { from, to: maxDay(to, addDays(from, LEAST_BLOOM_DAYS)) }
}

/** The end of a taxon's first flush in a season, in real dates; of its bloom where it has one flush; undefined where it has none. */
export function firstFlushEnd(
  taxon: Pick<Taxon, 'bloomFrom' | 'bloomTo' | 'bloomsBy' | 'firstFlushTo'>,
  seasonYear: number,
  year: Year,
): IsoDate | undefined {
  const { bloomFrom, bloomTo, firstFlushTo } = taxon
  const bloom = usualBloom(taxon, seasonYear, year)
  if (!bloom || !bloomFrom || !bloomTo || !firstFlushTo) return bloom?.to
  const share = since(bloomFrom, firstFlushTo) / Math.max(1, since(bloomFrom, bloomTo))
  return addDays(bloom.from, Math.round(share * daysBetween(bloom.from, bloom.to)))
}

/** Plants that wait for shorter days still come a little sooner where summers are warm. */
const DAY_LENGTH_SHARE = 0.25
const LEAST_BLOOM_DAYS = 7

/** `in full bloom`, `underground until about mid April`: what it usually does, in words. */
export function usualWords(taxon: Taxon, on: IsoDate, year: Year): string {
  const { phase } = usualState(taxon, on, year)
  if (phase === 'underground') {
    const emergence = emergenceOf(taxon, on, year)
    return emergence && emergence.from > on
      ? `underground until about ${partOfMonth(emergence.from)}`
      : 'underground'
  }
  if (phase === 'emerging') {
    const { latest } = emergenceOf(taxon, on, year)!
    return `coming up, by ${partOfMonth(latest)} at the latest`
  }
  if (phase === 'summer rest') return 'resting, back in leaf later'
  if (phase === 'going over') return 'going over for the year'
  if (phase === 'bare') return 'bare of leaf'
  if (phase === 'winter green') return 'standing green through the winter'
  if (phase === 'growing') return 'in leaf'
  return phase
}

/** Seasons a planting has begun in its place by a day: 1 in its first. A season opens with midwinter. */
export function seasonInPlace(plantedOn: IsoDate, on: IsoDate, south: boolean): number {
  return seasonYearOf(on, south) - seasonYearOf(plantedOn, south) + 1
}
