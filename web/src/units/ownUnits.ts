import type { Preferences } from '@border/contract'
import { areCanonical, CANONICAL_UNITS, written, type Units } from '@border/core'

type Written = Omit<Preferences, 'names'>

let own: Written = { ...CANONICAL_UNITS, weekStart: 'Monday' }
let rewrites = false

/** From now on everything is written as somebody wants it. What is on the screen already is to be made anew. */
export function setOwnUnits(preferences: Written): void {
  own = preferences
  rewrites = !areCanonical(preferences)
}

/** What whoever is signed in measures in. */
export const ownUnits = (): Units => own

/** A text of the product's own in the units and dates of whoever reads it. */
export const inOwnUnits = (text: string): string => (rewrites ? written(text, own) : text)

/** Whether texts are to be rewritten at all. */
export const writesOtherwise = (): boolean => rewrites

/** The weekday that weeks begin on, Sunday as 0. */
export const ownWeekStart = (): 0 | 1 => (own.weekStart === 'Sunday' ? 0 : 1)

/** How days stand in a field, for dayjs: in the order in which somebody writes them. */
export const dayFormatOf = (dayFirst: string): string =>
  own.dates === 'month first'
    ? dayFirst.replace(
        /^D (MMMM?)( YYYY)?/,
        (_, month: string, year?: string) => `${month} D${year ? `,${year}` : ''}`,
      )
    : dayFirst
