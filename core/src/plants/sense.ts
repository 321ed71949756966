import { isWoody, type Taxon } from './taxon.ts'

/** Two traits that no plant has together. */
export interface Contradiction {
  trait: keyof Taxon
  message: string
}

/** What in a row cannot be true together. */
export function contradictions(t: Taxon): Contradiction[] {
  const found: Contradiction[] = []
  const when = (is: boolean, trait: keyof Taxon, message: string) => {
    if (is) found.push({ trait, message })
  }
  when(t.lightMinHours >= t.lightMaxHours, 'lightMaxHours', 'must lie above the least hours it likes')
  when(t.moistureMin > t.moistureMax, 'moistureMax', 'must not lie below the driest it likes')
  when(t.phMin >= t.phMax, 'phMax', 'must lie above the lowest pH it likes')
  when(t.spacingM > t.spreadM, 'spacingM', 'must not be wider than its spread')
  when(t.cutToM > t.heightM, 'cutToM', 'must not be higher than the plant')
  when(
    t.hotAfternoon === 'suffers' && t.lightMaxHours > 10,
    'hotAfternoon',
    'suffers in hot afternoons, and yet likes sun all day',
  )
  when(
    t.hotAfternoon === 'enjoys' && t.lightMaxHours < 8,
    'hotAfternoon',
    'enjoys hot afternoons, and yet sun is too much for it',
  )
  when(!t.bloomFrom !== !t.bloomTo, 'bloomTo', 'bloom needs both its beginning and its end')
  when(
    Boolean(t.firstFlushTo) && (!t.bloomFrom || t.repeats === 'no'),
    'firstFlushTo',
    'a first flush is of what flowers, and flowers again',
  )
  when(
    t.repeats !== 'no' && !t.bloomFrom,
    'repeats',
    'flowers again, and yet no bloom is given: give it, or “no”',
  )
  when(
    t.pruning !== null && !isWoody(t) && t.lifeForm !== 'perennial',
    'pruning',
    'only woody plants are pruned',
  )
  when(t.flowersOn !== null && t.pruning === null, 'flowersOn', 'flowers on wood, and yet is not pruned')
  when(
    t.divideYears !== null && t.divideYears[0] > t.divideYears[1],
    'divideYears',
    'the least years must not exceed the most',
  )
  when(
    (t.divideYears === null) !== (t.divideHow === null),
    'divideHow',
    'goes with the years between divisions',
  )
  when(t.divideYears !== null && t.moveWhen === 'never', 'moveWhen', 'is never moved, and yet is divided')
  when(t.lifeForm === 'annual' && t.annualSeason === null, 'annualSeason', 'is missing for an annual')
  when(
    t.annualSeason === 'warm' && t.hardyToC < -15,
    'annualSeason',
    'is of the warm season, and yet stands hard frost',
  )
  return found
}
