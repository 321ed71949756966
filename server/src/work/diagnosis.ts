import type { DiagnosisView, FeatureRecord } from '@border/contract'
import {
  addDays,
  castsShade,
  editedLikelihoods,
  lightFit,
  moistureSteps,
  placeMoisture,
  seasonYearOf,
  suspectedChanges,
  usualState,
  type Diagnosis,
  type Earliness,
  type IsoDate,
  type LightCause,
  type Likelihood,
  type SignedPlanting,
  type Year,
} from '@border/core'
import { group } from 'd3-array'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { kept } from '../store/computed.ts'
import { listFeatures, practiceOfGarden, recordVersion, type GardenAccess } from '../store/gardens.ts'
import { listObservations } from '../store/observations.ts'
import { listPlantings } from '../store/plantings.ts'
import { listSignShares } from '../store/signShares.ts'
import { findEarliness, usualYearOf } from '../store/weather.ts'
import { COMPUTATION, lightOfGarden, type ComputeTasks } from './assess.ts'

/** Looks older than this are of another state of things. */
const LOOK_BACK_DAYS = 120
/** Causes further down are of no use to anybody. */
const SHOWN_CAUSES = 3
/** Roots of a tree or hedge reach about this much further than its crown: a working figure. */
const ROOT_REACH = 1.5

/** The likelihood table as a garden's practice reads it. */
export async function likelihoodsOf(db: Db, gardenId: string) {
  return editedLikelihoods(await listSignShares(db, await practiceOfGarden(db, gardenId)))
}

/** How the present year runs at a garden, and what that was told by. */
export async function yearOfGarden(
  db: Db,
  garden: GardenAccess,
  on: IsoDate,
): Promise<{ year: Year; earliness: Earliness | null }> {
  const usual = await usualYearOf(db, garden)
  const season = seasonYearOf(on, usual.south)
  const earliness = (await findEarliness(db, garden, [season], on)).get(season) ?? null
  return { year: { ...usual, lateDays: earliness?.lateDays ?? 0 }, earliness }
}

/** What this season's signs say of a garden, joined with the light that is drawn. */
export async function diagnoseGarden(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  { today, signal }: { today: IsoDate; signal?: AbortSignal | undefined },
): Promise<DiagnosisView> {
  const version = await recordVersion(db, garden.id)
  const features = await listFeatures(db, garden.id)
  const table = await likelihoodsOf(db, garden.id)
  return kept(db, ['diagnosis', COMPUTATION, garden.id, version, features, table, today], () =>
    workOutDiagnosis(db, pool, garden, features, table, { today, signal }),
  )
}

async function workOutDiagnosis(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  features: readonly FeatureRecord[],
  table: Likelihood[],
  { today, signal }: { today: IsoDate; signal?: AbortSignal | undefined },
): Promise<DiagnosisView> {
  const since = addDays(today, -LOOK_BACK_DAYS)
  const looks = await listObservations(db, garden.id, since, today)
  if (looks.length === 0) return { on: today, since, diagnoses: [], suspected: [] }
  const plantings = await listPlantings(db, garden.id, today)
  const { light } = await lightOfGarden(db, pool, garden, today, { today, signal })
  const lightOf = new Map(light.plantings.map((p) => [p.plantingId, p]))
  const { year } = await yearOfGarden(db, garden, today)
  const looksOf = group(looks, (l) => l.plantingId)
  const placeOf = new Map(features.map((f) => [f.id, f]))
  const causes = new Map<string, LightCause>()
  const signed = plantings.flatMap((p): SignedPlanting[] => {
    const own = (looksOf.get(p.id) ?? []).filter((l) => l.on >= p.inPlaceSince)
    if (own.length === 0) return []
    const telling = own.findLast((l) => l.rating !== null && usualState(p.taxon, l.on, year).telling >= 0.4)
    const hours = lightOf.get(p.id)
    const fit = hours && lightFit(p.taxon, hours.now)
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
        moistureSteps: moistureSteps(p.taxon, placeMoisture(placeOf.get(p.placeId))),
        rootsNear: features.some((f) => reaches(f, p.x, p.y)),
      },
    ]
  })
  const task: ComputeTasks['diagnose'] = { plantings: signed, table, year }
  const diagnoses: Diagnosis[] = await pool.run(task, { name: 'diagnose', signal })
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
  }
}

function reaches(f: FeatureRecord, x: number, y: number): boolean {
  if (!castsShade(f)) return false
  if (f.kind === 'tree' && f.geometry.type === 'Point') {
    const [tx, ty] = f.geometry.coordinates
    const crown = typeof f.properties.crownRadiusM === 'number' ? f.properties.crownRadiusM : 2
    return Math.hypot(tx! - x, ty! - y) <= crown * ROOT_REACH
  }
  return false
}
