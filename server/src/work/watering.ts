import {
  addDays,
  dayMonthYear,
  daysBetween,
  driftRadiusM,
  maxDay,
  minDay,
  placeTexture,
  rootingDays,
  waterBalance,
  type IsoDate,
} from '@border/core'
import type { PlantingRecord, WateringView } from '@border/contract'
import type { Db } from '../database/connect.ts'
import { findForecast } from '../store/weatherService.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import { listDivided } from '../store/jobs.ts'
import { listPlantings } from '../store/plantings.ts'
import { listWaterings } from '../store/waterings.ts'
import { listRecentDays } from '../store/weather.ts'

/** A record this many days short of today no longer tells what the soil holds. */
const MOST_MISSING_DAYS = 3

/** What of a garden's beds is not rooted in yet, and when each next needs watering, by the weather since and ahead. */
export async function wateringOf(db: Db, garden: GardenAccess, today: IsoDate): Promise<WateringView> {
  const features = new Map((await listFeatures(db, garden.id)).map((f) => [f.id, f]))
  const divided = await listDivided(db, garden.id)
  const sinceOf = (p: PlantingRecord) => maxDay(p.inPlaceSince, divided.get(p.id) ?? p.inPlaceSince)
  const rooting = (await listPlantings(db, garden.id, today)).filter(
    (p) =>
      features.get(p.placeId)?.kind === 'bed' &&
      p.livingCount > 0 &&
      daysBetween(sinceOf(p), today) < rootingDays(p.taxon),
  )
  if (rooting.length === 0) return { unknown: null, plants: [] }
  const from = minDay(today, ...rooting.map(sinceOf))
  const record = garden.stationId ? await listRecentDays(db, garden.stationId, from, addDays(today, -1)) : []
  const last = record.at(-1)?.day
  if (from < today && (!last || daysBetween(last, today) > MOST_MISSING_DAYS))
    return {
      unknown: last
        ? `The weather record ends on ${dayMonthYear(last)}: what rain has fallen since is not known.`
        : 'There is no weather on record for these days.',
      plants: [],
    }
  const forecast = await findForecast(db, garden, today)
  const ahead = forecast.ok ? forecast.days.filter((d) => !last || d.day > last) : []
  const days = [...record, ...ahead]
  const given = await listWaterings(db, garden.id, from)
  return {
    unknown: null,
    plants: rooting
      .map((p) => ({
        plantingId: p.id,
        tag: p.tag,
        botanical: p.taxon.botanical,
        placeId: p.placeId,
        ...waterBalance(
          {
            since: sinceOf(p),
            taxon: p.taxon,
            areaM2: Math.PI * (p.radiusM ?? driftRadiusM(p.livingCount, p.taxon.spacingM)) ** 2,
            texture: placeTexture(features.get(p.placeId)),
          },
          days,
          today,
          given.filter((w) => w.plantingId === p.id),
          garden.latitude,
        ),
      }))
      .sort((a, b) => ((a.dueOn ?? '9') < (b.dueOn ?? '9') ? -1 : a.tag < b.tag ? -1 : 1)),
  }
}
