import type { SoilTexture } from '../garden/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { doseTurns, dripFor, feedings, soilDose, type DripLine } from '../quantities/index.ts'
import { materialNames } from './totals.ts'

/** What moves the soil, as a test and a person say it. */
export interface SaidReaction {
  now: number
  to: number
  texture: SoilTexture
  by: 'sulphur' | 'aluminium sulphate'
}

/** What is said of a scheme beside its plants and what is spread. */
export interface SaidExtras {
  reaction?: SaidReaction | undefined
  /** As the label of a feed says it. */
  feed?: { gramsPerM2: number; lifeDays: number } | undefined
  /** With the water that is wanted at a time, millimetres. */
  drip?: (DripLine & { mm: number }) | undefined
  stones?: readonly unknown[] | undefined
}

/** What moves the soil of so much ground as was said, in turns; undefined where nothing is said or nothing would. */
export function dosed(reaction: SaidReaction | undefined) {
  if (!reaction) return undefined
  const dose = soilDose(reaction.now, reaction.to, reaction.texture)
  return dose && doseTurns(dose, reaction.by === 'aluminium sulphate' ? reaction.by : undefined)
}

/** Growth is fed from spring until it should harden: of this year or, once that is over, of the next; by the half of the earth. */
export function seasonOfFeeding(today: IsoDate, isSouthern: boolean): [from: IsoDate, until: IsoDate] {
  const [from, until] = isSouthern ? ['-09-15', '-02-15'] : ['-03-15', '-08-15']
  const year = Number(today.slice(0, 4))
  const ends = (y: number) => `${isSouthern ? y + 1 : y}${until}`
  const first = [year - 1, year, year + 1].find((y) => ends(y) > today)!
  return [`${first}${from}`, ends(first)]
}

/** What a scheme takes beside plants and what is spread: in whole kilograms, metres and stones. @param areaM2 that is planted */
export function extrasOf(
  said: SaidExtras,
  areaM2: number,
  [from, until]: readonly [from: IsoDate, until: IsoDate],
): { item: string; count: number }[] {
  const dose = dosed(said.reaction)
  const fed = said.feed && feedings({ name: materialNames.feed, ...said.feed }, areaM2, from, until)
  const drip = said.drip && dripFor(areaM2, said.drip, said.drip.mm)
  return [
    ...(dose ? [{ item: materialNames[dose.with], count: Math.ceil(dose.inAllKgM2 * areaM2) }] : []),
    ...(fed ? [{ item: materialNames.feed, count: Math.ceil(fed.gramsInAll / 1000) }] : []),
    ...(drip ? [{ item: materialNames.drip, count: Math.ceil(drip.lineM) }] : []),
    ...(said.stones ? [{ item: materialNames.stone, count: said.stones.length }] : []),
  ]
}
