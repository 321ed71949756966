import {
  addDays,
  balanceInSeason,
  dayMonthYear,
  daysBetween,
  footprintAreaM2,
  groundOf,
  maxDay,
  minDay,
  compareTags,
  rootingDays,
  usualState,
  waterBalance,
} from '@border/core'
import type { PlantingView, WateringView } from '@border/contract'
import type { GardenReader } from '../reader.ts'
import { dividedOf } from '../store/jobs.ts'
import { listWaterings } from '../store/waterings.ts'
import { yearOfGarden } from './diagnosis.ts'
import { forecastFor, listWeather } from '../store/weather.ts'

/** A record this many days short of today no longer tells what the soil holds. */
const MOST_MISSING_DAYS = 3

/** What of a garden's beds is not rooted in yet, and when each next needs watering, by the weather since and ahead. */
export async function wateringOf(reader: GardenReader): Promise<WateringView> {
  const { db, garden, today } = reader
  const { places, plantings } = await reader.standing()
  const placeById = new Map(places.map((p) => [p.id, p]))
  const divided = dividedOf(await reader.jobs())
  const sinceOf = (p: PlantingView) => maxDay(p.inPlaceSince, divided.get(p.id) ?? p.inPlaceSince)
  const rooting = plantings.filter(
    (p) => placeById.get(p.placeId)?.kind === 'bed' && daysBetween(sinceOf(p), today) < rootingDays(p.taxon),
  )
  if (rooting.length === 0) return { unknown: null, isSimulated: false, plants: [] }
  const from = minDay(today, ...rooting.map(sinceOf))
  const record = await listWeather(db, garden, from, addDays(today, -1))
  const last = record.at(-1)?.day
  if (from < today && (!last || daysBetween(last, today) > MOST_MISSING_DAYS))
    return {
      unknown: last
        ? `The weather record ends on ${dayMonthYear(last)}: what rain has fallen since is not known.`
        : 'There is no weather on record for these days.',
      isSimulated: false,
      plants: [],
    }
  const forecast = await forecastFor(db, garden, today)
  const ahead = forecast.ok ? forecast.days.filter((d) => !last || d.day > last) : []
  const days = [...record, ...ahead]
  const { year } = await yearOfGarden(reader)
  const given = await listWaterings(db, garden.id, from)
  return {
    unknown: null,
    isSimulated:
      ((await reader.climate()).climate?.isSimulated ?? false) || (forecast.ok && forecast.isSimulated),
    plants: rooting
      .map((p) => ({
        plantingId: p.id,
        tag: p.tag,
        botanical: p.taxon.botanical,
        placeId: p.placeId,
        ...balanceInSeason(
          waterBalance(
            {
              since: sinceOf(p),
              taxon: p.taxon,
              areaM2: footprintAreaM2(groundOf(p)),
              texture: placeById.get(p.placeId)?.texture,
            },
            days,
            today,
            given.filter((w) => w.plantingId === p.id),
            garden.latitude,
          ),
          usualState(p.taxon, today, year),
        ),
      }))
      .sort((a, b) => ((a.dueOn ?? '9') < (b.dueOn ?? '9') ? -1 : compareTags(a.tag, b.tag))),
  }
}
