import { addDays, daysBetween, type IsoDate } from '../dates/index.ts'

/** A feed as its label says it. */
export interface Feed {
  name: string
  gramsPerM2: number
  /** Days that one giving goes on feeding; 0 for what is used up at once. */
  lifeDays: number
}

/** Givings of a feed over a season. */
export interface Feeding {
  on: IsoDate[]
  gramsEach: number
  gramsInAll: number
}

/**
 * When a feed is given over a season, and how much: anew when the last is used up, as long as half of its life or more falls before
 * growth should harden.
 *
 * @param from growth begins
 * @param until the last day on which anything should feed: soft growth after it is cut by frost
 */
export function feedings(
  { gramsPerM2, lifeDays }: Feed,
  areaM2: number,
  from: IsoDate,
  until: IsoDate,
): Feeding {
  const days = daysBetween(from, until)
  const times = days < 0 ? 0 : lifeDays === 0 ? 1 : Math.floor(days / lifeDays + 0.5)
  const gramsEach = gramsPerM2 * areaM2
  return {
    on: Array.from({ length: times }, (_, i) => addDays(from, i * lifeDays)),
    gramsEach,
    gramsInAll: times * gramsEach,
  }
}
