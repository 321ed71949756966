import type { Climate, ForecastDay } from '../climate/index.ts'
import { plantingWindows } from '../care/index.ts'
import { addDays, isoDate, maxDay, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { onceForEach } from '../once/index.ts'
import { isWoody, library, seasonDates, type Taxon, type Year } from '../plants/index.ts'
import { isSeasonal } from '../verdict/index.ts'
import type { FillSeason } from './fill.ts'
import { shelteredBelowC } from './fitting.ts'
import type { InPot } from './inPot.ts'

/** What lies ahead of what a container holds. */
export interface FillAhead {
  /** When what is there for a season goes over, or has gone: from the first of it to the last; null where all of it stays. */
  over: { from: IsoDate; to: IsoDate; botanical: string; because: 'frost' | 'its season' } | null
  /** When the next may go in, by the rules of setting out; null where they name no time here, and for what stays. */
  next: { season: FillSeason; from: IsoDate; to: IsoDate } | null
}

/** Kinds that stand for what a season is filled with: the rules are asked when they may be set out. */
const STANDS_FOR: Readonly<Record<FillSeason, string>> = {
  summer: 'Pelargonium × hortorum',
  winter: 'Viola × wittrockiana',
}

/** Leaves that a frost takes: of kinds hardy to no less than this, degrees Celsius. */
const FROST_TENDER_C = -3

/** When what a container holds goes over, and when the next may go in. @param climate null: only the kinds' own seasons are known */
export function fillAhead(
  plants: readonly Pick<InPot, 'taxon' | 'plantedOn'>[],
  season: FillSeason,
  {
    on,
    climate,
    year,
    forecast = [],
  }: {
    on: IsoDate
    climate: Climate | null
    year: Year
    forecast?: readonly Pick<ForecastDay, 'day' | 'minC'>[]
  },
): FillAhead {
  const ends = plants.filter((p) => isSeasonal(p.taxon)).map((p) => endOf(p, on, climate, year, forecast))
  const first = ends.reduce<(typeof ends)[number] | undefined>(
    (a, b) => (a && a.from <= b.from ? a : b),
    undefined,
  )
  const over = first && { ...first, to: ends.reduce((last, e) => maxDay(last, e.to), first.to) }
  const coming: FillSeason = season === 'summer' ? 'winter' : 'summer'
  // A pot of what stays is not filled by seasons.
  const isSwapped = over !== undefined || plants.length === 0
  const next = isSwapped && climate ? swapWindow(climate, coming, on) : null
  return { over: over ?? null, next: next && afterCold(next, forecast) }
}

/** What is tender waits while frost is forecast: the window opens on the day after the last of its nights. */
function afterCold(
  next: NonNullable<FillAhead['next']>,
  forecast: readonly Pick<ForecastDay, 'day' | 'minC'>[],
): FillAhead['next'] {
  const last = next.season === 'summer' ? forecast.findLast((d) => d.minC <= FROST_C) : undefined
  const from = last ? maxDay(next.from, addDays(last.day, 1)) : next.from
  return from > next.to ? { ...next, from: next.to } : { ...next, from }
}

/** Air at which tender leaves freeze on a clear night. */
const FROST_C = 0

/** A frost as it is told by the climate, narrowed by the days that are forecast: it comes with the first of their frosts, and not before their end without one. */
function narrowed(
  frost: { from: IsoDate; to: IsoDate },
  forecast: readonly Pick<ForecastDay, 'day' | 'minC'>[],
): { from: IsoDate; to: IsoDate } {
  const comes = forecast.find((d) => d.minC <= FROST_C)
  if (comes) return { from: comes.day, to: comes.day }
  const last = forecast.at(-1)
  return last && last.day >= frost.from
    ? { from: addDays(last.day, 1), to: maxDay(frost.to, addDays(last.day, 1)) }
    : frost
}

/** When what is for a season may go in; null where no rule of setting out names a time. Of all pots of a garden it is the same. */
export const swapWindow = onceForEach(
  (climate: Climate, season: FillSeason, on: IsoDate): FillAhead['next'] => {
    const found = plantingWindows(
      library.find((t) => t.botanical === STANDS_FOR[season])!,
      climate,
      on,
    )
    const window = found.ok ? found.windows[0]?.window : undefined
    return window ? { season, from: maxDay(on, window.earliest), to: window.latest } : null
  },
)

/** What lives so long after its season ended was kept through winter, and has another, days. */
const KEPT_DAYS = 120

function endOf(
  { taxon, plantedOn }: Pick<InPot, 'taxon' | 'plantedOn'>,
  on: IsoDate,
  climate: Climate | null,
  year: Year,
  forecast: readonly Pick<ForecastDay, 'day' | 'minC'>[],
) {
  const since = maxDay(plantedOn, addDays(on, -KEPT_DAYS))
  const own = seasonYearOf(since, year.south)
  const season = [own - 1, own, own + 1]
    .map((s) => seasonDates(taxon, s, year))
    .find((s) => s.goneBy >= since)!
  const usual = taxon.hardyToC >= FROST_TENDER_C ? nextFrost(climate, on) : undefined
  const frost = usual && narrowed(usual, forecast)
  return frost && frost.from <= season.goneBy
    ? { ...frost, botanical: taxon.botanical, because: 'frost' as const }
    : {
        from: season.fadesFrom,
        to: season.goneBy,
        botanical: taxon.botanical,
        because: 'its season' as const,
      }
}

/** The first frost of the next autumn, from one year in ten to nine. */
function nextFrost(climate: Climate | null, on: IsoDate): { from: IsoDate; to: IsoDate } | undefined {
  const frost = climate?.firstFrost
  if (!frost) return undefined
  for (const year of [Number(on.slice(0, 4)), Number(on.slice(0, 4)) + 1]) {
    const day = (n: number) => addDays(isoDate(year, 1, 1), Math.round(n) - 1)
    if (day(frost.p90) >= on) return { from: maxDay(on, day(frost.p10)), to: day(frost.p90) }
  }
  return undefined
}

/** A night that something in a pot should not be out in. */
export interface ColdNight {
  /** The day whose morning is so cold. */
  day: IsoDate
  minC: number
  pots: { id: string; botanicals: string[] }[]
}

/** Leaves in the open are so much colder than the air on a clear night. */
const RADIATES_C = 2

/** Nights ahead that are too cold for something that stands in a pot, by the forecast. */
export function coldNights(
  pots: readonly { id: string; taxa: readonly Taxon[] }[],
  forecast: readonly Pick<ForecastDay, 'day' | 'minC'>[],
): ColdNight[] {
  return forecast.flatMap(({ day, minC }): ColdNight[] => {
    const found = pots.flatMap(({ id, taxa }) => {
      const botanicals = [...new Set(taxa.filter((t) => minC < bearsOutC(t)).map((t) => t.botanical))]
      return botanicals.length > 0 ? [{ id, botanicals }] : []
    })
    return found.length > 0 ? [{ day, minC, pots: found }] : []
  })
}

/** The night below which a kind should not stand out in a pot: tender leaves by the air about them, others by their roots. */
const bearsOutC = (t: Taxon): number =>
  !isWoody(t) && (isSeasonal(t) || t.hardyToC >= FROST_TENDER_C)
    ? t.hardyToC + RADIATES_C
    : shelteredBelowC(t)
