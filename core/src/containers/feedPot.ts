import type { Climate } from '../climate/index.ts'
import {
  careRules,
  isFollowed,
  liquidFeed,
  turnsOf,
  windowsOf,
  yearsAbout,
  type CareRule,
  type Schools,
} from '../care/index.ts'
import { addDays, daysBetween, dayOfYear, maxDay, type IsoDate } from '../dates/index.ts'
import type { Taxon } from '../plants/index.ts'

/** How a container is fed through the season that comes. */
export interface PotFeeding {
  /**
   * Mixed in as growth begins, or now where that is past: how much, its rated life, and when that is spent in this climate; null where
   * nothing in it is fed, or it is too late.
   */
  slow: { grams: number; lifeDays: number; mixedInOn: IsoDate; spentFrom: IsoDate; spentTo: IsoDate } | null
  /** Liquid, by turns, with the watering: on each day what, of how much concentrate in how much water. */
  liquid: { on: IsoDate; what: string }[]
  millilitres: number
  litres: number
  /** Nothing is fed after it, so that growth hardens before winter; null where no feeding is due in the season ahead. */
  lastOn: IsoDate | null
  /** While the mix is usually so cold that only nitrate feeds; null where it never is. */
  nitrate: { from: IsoDate; to: IsoDate } | null
}

/** Slow-release feeds as they are sold, by the days that their labels give for a mix at 21 °C. */
const LIVES = [60, 90, 120, 180, 270] as const
const RATED_C = 21
/** Release doubles with each ten degrees: a usual figure of coated feeds. */
const DOUBLES_EVERY_C = 10
/** From year to year a month is so much warmer or colder: the spread of the day on which a feed is spent. */
const YEARS_DIFFER_C = 1.5
/** What is in a fresh mix feeds for about so long: liquid begins after it, what is mixed in goes in with it. */
const FRESH_DAYS = 42
/** Grams to a litre of mix: usual rates of labels, which come first. */
const GRAMS = { none: 0, light: 2, heavy: 4 } as const
/** Below it the bacteria that turn ammonium into nitrate hardly work. */
const NITRIFIES_C = 10

/** The usual temperature of a day: the mean of its lowest and highest. */
const usualC = ({ minC, maxC }: Climate, day: IsoDate): number => {
  const i = dayOfYear(day) - 1
  return (minC[i]! + maxC[i]!) / 2
}

/**
 * The day on which a slow-release feed is spent: its rated life runs by the temperature of the mix, which in a pot is that of the air.
 *
 * @param warmerC than the usual year
 */
export function spentOn(lifeDays: number, from: IsoDate, climate: Climate, warmerC = 0): IsoDate {
  let lived = 0
  let day = from
  for (let n = 0; lived < lifeDays && n < 3 * 366; n++) {
    // Frozen, nothing is released.
    const c = usualC(climate, day) + warmerC
    if (c > 0) lived += 2 ** ((c - RATED_C) / DOUBLES_EVERY_C)
    day = addDays(day, 1)
  }
  return day
}

/** How a container is fed. @param from nothing is given before it: the day it is filled, or today */
export function feedingOf(
  pot: { mixLitres: number; plants: readonly Pick<Taxon, 'feed'>[] },
  {
    climate,
    schools,
    from,
    rules = careRules,
  }: { climate: Climate; schools: Schools; from: IsoDate; rules?: readonly CareRule[] | undefined },
): PotFeeding {
  const hungriest = pot.plants.reduce<Taxon['feed']>(
    (most, p) => (GRAMS[p.feed] > GRAMS[most] ? p.feed : most),
    'none',
  )
  const rule = rules.find(
    (r) =>
      r.operation === 'feed' &&
      r.applies.wholePlace &&
      r.applies.place === 'container' &&
      isFollowed(r, schools),
  )
  const window = rule && windowsOf(rule, yearsAbout(climate, from, 0), undefined, from).windows[0]
  const fed = hungriest === 'none' ? undefined : window
  // In winter it would lie in the wet for nothing; too late in the season even the shortest would feed into the frost.
  const mixedInOn = window && maxDay(from, addDays(window.earliest, -FRESH_DAYS))
  const life =
    mixedInOn &&
    daysBetween(mixedInOn, window.latest) >= LIVES[0] &&
    (LIVES.find((l) => spentOn(l, mixedInOn, climate) >= window.latest) ?? LIVES.at(-1)!)
  const litres = liquidFeed.ofMix * pot.mixLitres
  return {
    slow:
      hungriest === 'none' || !life || !mixedInOn
        ? null
        : {
            grams: GRAMS[hungriest] * pot.mixLitres,
            lifeDays: life,
            mixedInOn,
            spentFrom: spentOn(life, mixedInOn, climate, YEARS_DIFFER_C),
            spentTo: spentOn(life, mixedInOn, climate, -YEARS_DIFFER_C),
          },
    liquid:
      fed && rule
        ? turnsOf(rule, fed).flatMap(({ nth, window: turn }) =>
            turn.latest < from
              ? []
              : [{ on: maxDay(from, turn.bestFrom), what: rule.byTurns![nth % rule.byTurns!.length]! }],
          )
        : [],
    millilitres: 1000 * liquidFeed.perLitre * litres,
    litres,
    lastOn: fed?.latest ?? null,
    nitrate: coldSpell(climate, from),
  }
}

/** A day or two under it are no spell. */
const SPELL_DAYS = 14

/** The next run of days on which the usual mix is too cold for ammonium, the one that has begun among them. */
function coldSpell(climate: Climate, on: IsoDate): PotFeeding['nitrate'] {
  const isCold = (day: IsoDate) => usualC(climate, day) < NITRIFIES_C
  const days = Array.from({ length: 2 * 365 }, (_, n) => addDays(on, n))
  const first = days.findIndex(isCold)
  if (first < 0) return null
  const after = days.findIndex((day, n) => n > first && !isCold(day))
  return after < 0 || after - first < SPELL_DAYS || daysBetween(on, days[first]!) > 365
    ? null
    : { from: days[first]!, to: addDays(days[after]!, -1) }
}
