import { isIsoDate, yearOf, type IsoDate } from '../dates/index.ts'
import { dayMonthYear } from '../words/index.ts'
import { limits } from '../written/index.ts'

/** How well the day is known on which something was planted: to the day, to the year, only that it was before it, not at all. */
export const datings = ['day', 'year', 'before', 'unknown'] as const
export type Dating = (typeof datings)[number]

/** When something was planted: the day, or one to reckon with. */
export interface Planted {
  plantedOn: IsoDate
  plantedKnown: Dating
}

/** Years that something is reckoned to stand of which nobody knows since when: long enough to have settled, not to be old. */
const RECKONED_YEARS = 6

/**
 * A day to reckon with where the day itself is not known: of a year its middle, of “before” the first of the year named, of what
 * nobody knows some years ago.
 *
 * @param year of `year` and `before`
 * @returns a day no later than today
 */
export function reckoned(known: Exclude<Dating, 'day'>, year: number | undefined, today: IsoDate): Planted {
  const ofYear = (monthDay: string) => `${String(year).padStart(4, '0')}-${monthDay}`
  const day =
    known === 'unknown' || year === undefined
      ? `${yearOf(today) - RECKONED_YEARS}-01-01`
      : known === 'year'
        ? ofYear('07-01')
        : ofYear('01-01')
  return { plantedOn: day > today ? today : day, plantedKnown: known }
}

/** As a gardener says it, to follow “planted”: “on 3 May 2020”, “in 2015”, “before 2015”, “nobody knows when”. */
export function plantedWords({ plantedOn, plantedKnown }: Planted): string {
  const year = plantedOn.slice(0, 4)
  switch (plantedKnown) {
    case 'day':
      return `on ${dayMonthYear(plantedOn)}`
    case 'year':
      return `in ${year}`
    case 'before':
      return `before ${year}`
    case 'unknown':
      return 'nobody knows when'
  }
}

/**
 * What somebody wrote of when: `2020-05-03`, `2015`, `before 2015`, `unknown`.
 *
 * @returns undefined where it is none of them
 */
export function readPlanted(text: string, today: IsoDate): Planted | undefined {
  const said = text.trim().toLowerCase()
  if (isIsoDate(said) && isOfATime(said)) return { plantedOn: said, plantedKnown: 'day' }
  if (said === 'unknown' || said === '?') return reckoned('unknown', undefined, today)
  const [, before, year] = /^(before\s+)?(\d{4})$/.exec(said) ?? []
  return year && isOfATime(year) ? reckoned(before ? 'before' : 'year', Number(year), today) : undefined
}

/** Whether a day or a year is of a time that gardens know. */
const isOfATime = (text: string): boolean => {
  const year = Number(text.slice(0, 4))
  return year >= limits.earliestYear && year <= limits.latestYear
}

/** As a file has it, so that it reads as it was. */
export function writtenPlanted({ plantedOn, plantedKnown }: Planted): string {
  const year = plantedOn.slice(0, 4)
  if (plantedKnown === 'day') return plantedOn
  if (plantedKnown === 'unknown') return 'unknown'
  return plantedKnown === 'before' ? `before ${year}` : year
}
