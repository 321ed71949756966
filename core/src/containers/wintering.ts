import type { Climate } from '../climate/index.ts'
import { careRules, dayAt, gardenYear, plantingWindows, ruleWindows, yearsAbout } from '../care/index.ts'
import { addDays, dayNumber, maxDay, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { isEvergreen } from '../rework/palette.ts'
import { isSeasonal } from '../verdict/index.ts'
import type { Taxon } from '../plants/index.ts'

/** How a kind that does not bear the winter is kept through it. */
export interface Wintering {
  /** Brought in: best from and to, by the nights of the usual year. */
  in: { from: IsoDate; to: IsoDate }
  /** Out by day and in by night before it stays out. */
  hardenFrom: IsoDate
  /** Out for good: from the first night it bears to when nine years of ten have had their last frost. */
  out: { from: IsoDate; to: IsoDate }
  /** Never colder meanwhile, degrees Celsius. */
  aboveC: number
  /** Whether it keeps leaves, and wants a window; or rests, and may stand in the dark. */
  light: 'bright' | 'dark'
  /** Looked at for pests, rot and dryness every so many days. */
  everyDays: number
}

const HARDENED_DAYS = 14
/** So much in hand over what kills it. */
const ABOVE_KILLED_C = 4
/** What is in growth suffers below it, whatever its roots bear. */
const IN_GROWTH_C = 5
/** In growth it dries out and is eaten; at rest it only rots. */
const LOOKED_AT_DAYS = { bright: 14, dark: 28 } as const
const BRING_IN = 'bring-in-tender'

/** How a kind is wintered indoors; undefined where it bears the winter, ends with its season, or is not worth keeping. */
export function winteringOf(taxon: Taxon, climate: Climate, on: IsoDate): Wintering | undefined {
  const years = yearsAbout(climate, on, 0)
  const rule = careRules.find((r) => r.id === BRING_IN)!
  const [coming] = ruleWindows([rule], { taxon, climate, place: 'container' }, years, on)
  if (!coming) return undefined
  const light = isEvergreen(taxon) || isSeasonal(taxon) ? 'bright' : 'dark'
  const aboveC = Math.max(light === 'bright' ? IN_GROWTH_C : 0, taxon.hardyToC + ABOVE_KILLED_C)
  const spring = gardenYear(climate, seasonYearOf(addDays(coming.window.bestTo, 90), climate.latitudeDeg < 0))
  const bears =
    spring.first('minC', spring.midwinter, spring.midsummer, (c) => c >= aboveC) ?? spring.midsummer
  const setOut = plantingWindows(taxon, climate, dayAt(spring.midwinter))
  const asSetOut = setOut.ok && isSeasonal(taxon) ? setOut.windows[0]?.window.earliest : undefined
  const from = maxDay(dayAt(bears), asSetOut ?? dayAt(bears))
  const lastFrost = spring.frost('last', 90)
  return {
    in: { from: coming.window.bestFrom, to: coming.window.bestTo },
    hardenFrom: addDays(from, -HARDENED_DAYS),
    out: { from, to: maxDay(addDays(from, 7), dayAt(lastFrost ?? dayNumber(from))) },
    aboveC,
    light,
    everyDays: LOOKED_AT_DAYS[light],
  }
}
