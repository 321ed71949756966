import type { DiagnosisView } from '@border/contract'
import {
  addDays,
  editedLikelihoods,
  lightFit,
  moistureSteps,
  rootsAt,
  rootZones,
  seasonYearOf,
  summerOf,
  suspectedChanges,
  usualState,
  type Earliness,
  type IsoDate,
  type LightCause,
  type SignedPlanting,
  type Taxon,
  type Year,
} from '@border/core'
import { group } from 'd3-array'
import type { Db } from '../database/connect.ts'
import { derive } from '../derived.ts'
import type { GardenReader } from '../reader.ts'
import type { GardenAccess } from '../store/gardens.ts'
import { listSignShares } from '../store/signShares.ts'
import { usualYearOf } from '../store/weather.ts'
import { lightOfGarden } from './gardenLight.ts'
import type { ComputePool } from './compute.ts'

/** Looks older than this are of another state of things. */
const LOOK_BACK_DAYS = 120
/** Causes further down are of no use to anybody. */
const SHOWN_CAUSES = 3
/** The likelihood table as a garden's practice reads it. */
export const likelihoodsOf = async (db: Db, { practiceId }: Pick<GardenAccess, 'practiceId'>) =>
  editedLikelihoods(await listSignShares(db, practiceId))

/** How the present year runs at a garden, and what that was told by. */
export async function yearOfGarden(
  reader: GardenReader,
): Promise<{ year: Year; earliness: Earliness | null }> {
  const usual = usualYearOf(await reader.climate(), reader.garden)
  const earliness = (await reader.earliness()).get(seasonYearOf(reader.today, usual.south)) ?? null
  return { year: { ...usual, lateDays: earliness?.lateDays ?? 0 }, earliness }
}

/** What this season's signs say of a garden, joined with the light that is drawn. */
export async function diagnoseGarden(reader: GardenReader, pool: ComputePool): Promise<DiagnosisView> {
  const { today } = reader
  return derive(reader, ['diagnosis', [today]], () => workOutDiagnosis(reader, pool))
}

async function workOutDiagnosis(reader: GardenReader, pool: ComputePool): Promise<DiagnosisView> {
  const { db, garden, today } = reader
  const since = addDays(today, -LOOK_BACK_DAYS)
  const looks = (await reader.seen()).filter((s) => s.on >= since && s.on <= today)
  const { year } = await yearOfGarden(reader)
  const passedOver = await ratingsPassedOver(reader, since, year)
  if (looks.length === 0) return { on: today, since, diagnoses: [], suspected: [], passedOver }
  const [{ scene, places, plantings }, { climate }, { light }, table] = await Promise.all([
    reader.standing(),
    reader.climate(),
    lightOfGarden(reader, pool, today),
    likelihoodsOf(db, garden),
  ])
  const lightOf = new Map(light.plantings.map((p) => [p.plantingId, p]))
  const roots = rootZones(scene, today)
  const summer = summerOf(climate)
  const looksOf = group(looks, (l) => l.plantingId)
  const placeById = new Map(places.map((p) => [p.id, p]))
  const causes = new Map<string, LightCause>()
  const signed = plantings.flatMap((p): SignedPlanting[] => {
    const own = (looksOf.get(p.id) ?? []).filter((l) => l.on >= p.inPlaceSince)
    if (own.length === 0) return []
    const telling = own.findLast((l) => l.rating !== null && isTelling(p.taxon, l.on, year))
    const hours = lightOf.get(p.id)
    const fit = hours && lightFit(p.taxon, hours.now, summer)
    const change = hours ? hours.now.total - hours.before.total : 0
    const cause = hours?.causes.find((c) => Math.sign(c.hours) === Math.sign(change))
    if (cause) causes.set(p.id, cause)
    return [
      {
        id: p.id,
        taxon: p.taxon,
        placeId: p.placeId,
        x: p.x,
        y: p.y,
        inPlaceSince: p.inPlaceSince,
        signs: [...new Set(own.flatMap((l) => l.signs))],
        rating: telling?.rating ?? null,
        seenOn: own.at(-1)!.on,
        lightChangeHours: change,
        lightOutsideHours: fit?.hoursOutside ?? 0,
        moistureSteps: moistureSteps(p.taxon, placeById.get(p.placeId)?.moisture),
        rootsNear: rootsAt(roots, p.x, p.y) !== undefined,
      },
    ]
  })
  const diagnoses = await pool.run('diagnose', { plantings: signed, table, year })
  return {
    on: today,
    since,
    diagnoses: diagnoses.map((d, i) => ({
      ...d,
      causes: d.causes.slice(0, SHOWN_CAUSES),
      signs: signed[i]!.signs as DiagnosisView['diagnoses'][number]['signs'],
      rating: signed[i]!.rating,
      seenOn: signed[i]!.seenOn,
      lightCause: causes.get(d.plantingId) ?? null,
    })),
    suspected: suspectedChanges(signed, diagnoses),
    passedOver,
  }
}

/** From here on a rating tells how a plant does. */
const LEAST_TELLING = 0.4
const isTelling = (taxon: Taxon, on: IsoDate, year: Year) =>
  usualState(taxon, on, year).telling >= LEAST_TELLING

/** The last rating of each planting where it does not count, with why. */
async function ratingsPassedOver(
  reader: GardenReader,
  since: IsoDate,
  year: Year,
): Promise<DiagnosisView['passedOver']> {
  const rated = group(
    (await reader.seen()).filter((s) => s.rating !== null),
    (s) => s.plantingId,
  )
  return (await reader.plantings()).flatMap((p) => {
    const last = rated.get(p.id)?.findLast((s) => s.on >= p.inPlaceSince)
    if (!last) return []
    const why = last.on < since ? 'old' : isTelling(p.taxon, last.on, year) ? null : 'at rest'
    return why ? [{ plantingId: p.id, rating: last.rating!, on: last.on, why }] : []
  })
}
