import type { ImportPreview, ImportRequest } from '@border/contract'
import {
  addDays,
  distanceToBoundary,
  isInside,
  isPlace,
  planMetres,
  ringOf,
  skills,
  type DailyWeather,
  type FileProblem,
  type FileResult,
  type Located,
  type Plan,
  type PlanFeature,
  type Planted,
  type PlantingRow,
  type IsoDate,
  type Taxon,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { addMember, insertFeatures, insertGarden } from '../store/gardens.ts'
import { insertPlantings } from '../store/plantings.ts'
import { listEnterable } from '../store/taxa.ts'
import {
  askRecord,
  insertServiceRecord,
  insertStation,
  simulatedStation,
  type ServiceRecord,
} from '../store/weather.ts'
import { WeatherSilent } from '../store/weatherService.ts'
import { crewIdOf, insertCrewPerson } from '../store/crews.ts'
import { readHere, type ReadFile } from './fileTasks.ts'

/** A garden's files, read and checked together. */
export interface ReadGarden {
  plan: Plan
  /** Today in the garden: the day it is shown at. */
  today: IsoDate
  plantings: Located<PlantingRow & Planted>[]
  weather: DailyWeather[] | null
  /** Taxa the practice may use, by lower-case botanical name. */
  taxa: ReadonlyMap<string, Taxon>
}

/** Whoever works in a new garden: two half days and every skill, until its crew is set. */
const usualGardener = {
  name: 'Gardener',
  skills: [...skills],
  minutesByWeekday: [0, 0, 240, 0, 240, 0, 0],
}

/** Reads a garden's files; refuses them whole, with every problem of every file. */
export async function readGardenFiles(
  db: Db,
  practiceId: string,
  files: ImportRequest,
  todayIn: (timeZone: string) => IsoDate,
  read: ReadFile = readHere,
): Promise<FileResult<ReadGarden>> {
  const plan = await read('planFile', { text: files.plan })
  const today = plan.ok ? todayIn(plan.value.garden.timeZone) : undefined
  const problems: FileProblem[] = plan.ok ? [] : [...plan.problems]
  if (
    plan.ok &&
    (await db('gardens').where({ practice_id: practiceId, name: plan.value.garden.name }).first('id'))
  )
    problems.push({
      file: 'plan.geojson',
      property: 'garden.name',
      message: `your practice already has a garden called ${plan.value.garden.name}`,
    })
  const weather = files.weather === undefined ? null : await read('weatherFile', { text: files.weather })
  if (weather && !weather.ok) problems.push(...weather.problems)
  const places = new Map<string, 'bed' | 'container'>()
  if (plan.ok) for (const f of plan.value.features) if (isPlace(f)) places.set(f.name.toLowerCase(), f.kind)
  const taxa = new Map(
    (await listEnterable(db, practiceId)).map((t) => [t.taxon.botanical.toLowerCase(), t.taxon]),
  )
  // Without a readable plan every place would be unknown: then the plantings wait for it.
  const plantings =
    files.plantings !== undefined && plan.ok && today
      ? await read('plantingsFile', {
          text: files.plantings,
          knows: { places, taxa: new Set(taxa.keys()) },
          today,
        })
      : null
  if (plantings && !plantings.ok) problems.push(...plantings.problems)
  const rows = plan.ok && plantings?.ok ? plantings.value.map((row) => onPlan(plan.value, row)) : []
  if (plan.ok) problems.push(...strayProblems(plan.value, rows))
  if (!plan.ok || !today || problems.length > 0) return { ok: false, problems }
  return {
    ok: true,
    value: {
      plan: plan.value,
      today,
      plantings: rows,
      weather: weather?.ok ? weather.value : null,
      taxa,
    },
  }
}

/** A row with its position in plan metres, whatever coordinates the files are in. */
function onPlan({ garden }: Plan, row: Located<PlantingRow & Planted>): Located<PlantingRow & Planted> {
  if (row.x === undefined || row.y === undefined) return row
  const [x, y] = planMetres(garden, [row.x, row.y])
  return { ...row, x, y }
}

/** A drift's middle this far outside its bed, in metres, is on its edge; farther out it is a mistake. */
const ON_THE_EDGE_M = 0.25

function strayProblems(plan: Plan, rows: readonly Located<PlantingRow & Planted>[]): FileProblem[] {
  const beds = new Map(
    plan.features.flatMap((f) =>
      f.kind === 'bed' ? [[f.name.toLowerCase(), { name: f.name, ring: ringOf(f.geometry) }] as const] : [],
    ),
  )
  return rows.flatMap(({ place, x, y, line }) => {
    const bed = beds.get(place.toLowerCase())
    if (!bed || x === undefined || y === undefined) return []
    const { ring, name } = bed
    if (isInside(ring, x, y) || distanceToBoundary(ring, x, y) <= ON_THE_EDGE_M) return []
    return [{ file: 'plantings.csv', line, column: 'x', message: `x and y lie outside ${name}` }]
  })
}

/** What a garden’s files would bring in, before any of it is kept. */
export function previewOf(read: ReadGarden): ImportPreview {
  const counts: Record<string, number> = {}
  for (const f of read.plan.features) counts[f.kind] = (counts[f.kind] ?? 0) + 1
  return {
    gardenName: read.plan.garden.name,
    latitude: read.plan.garden.latitude,
    longitude: read.plan.garden.longitude,
    northDeg: read.plan.garden.northDeg,
    today: read.today,
    counts,
    features: read.plan.features,
    plantings: read.plantings.map((p) => ({
      tag: p.tag,
      place: p.place,
      taxon: read.taxa.get(p.taxon.toLowerCase())!,
      count: p.living ?? p.count,
      plantedOn: p.plantedOn,
      x: p.x,
      y: p.y,
    })),
    weatherDays: read.weather?.length ?? 0,
  }
}

/** The climate that a garden begins with. */
export type FirstClimate =
  | { from: 'file'; days: DailyWeather[] }
  | { from: 'service'; record: ServiceRecord }
  | { from: 'nothing'; why: string }

/**
 * A climate for a garden: the record it brought, else the weather service's, else one made up from the towns about it, with why
 * there is none. It may take seconds.
 */
export async function climateFor(
  place: { latitude: number; longitude: number },
  today: IsoDate,
  brought: DailyWeather[] | null = null,
): Promise<FirstClimate> {
  if (brought) return { from: 'file', days: brought }
  try {
    return { from: 'service', record: await askRecord(place, addDays(today, -1)) }
  } catch (error) {
    if (!(error instanceof WeatherSilent)) throw error
    return { from: 'nothing', why: error.message }
  }
}

/** Where a garden's climate is from, in a sentence. */
export function climateWords(climate: FirstClimate): string {
  const madeUp =
    'its weather is made up from the usual years of the towns about it, until you give a record or what you know of it in Set-up.'
  switch (climate.from) {
    case 'file':
      return `Its climate is told from the ${climate.days.length} days of weather you brought.`
    case 'service':
      return climate.record.isSimulated
        ? `No weather was measured: ${madeUp}`
        : 'Its climate is told from the record of the weather service.'
    case 'nothing':
      return `${climate.why} For now ${madeUp}`
  }
}

/** Saves a garden that was read; the person becomes its head gardener. Run inside a transaction. */
export async function saveGarden(
  trx: Db,
  owner: { practiceId: string; personId: string },
  read: Pick<ReadGarden, 'plan' | 'plantings'>,
  climate: FirstClimate,
): Promise<{ gardenId: string; plantingIds: Map<string, string> }> {
  const { garden, features } = read.plan
  const { name, latitude, longitude, timeZone, northDeg, version: _v, coordinates: _c, ...extra } = garden
  const stationId =
    climate.from === 'file'
      ? await insertStation(trx, { name: `Record brought with ${name}`, source: 'file' }, climate.days)
      : climate.from === 'service'
        ? await insertServiceRecord(trx, climate.record)
        : await simulatedStation(trx, { latitude, longitude })
  const gardenId = await insertGarden(trx, {
    practiceId: owner.practiceId,
    stationId,
    name,
    latitude,
    longitude,
    timeZone,
    northDeg,
    extra,
  })
  await addMember(trx, gardenId, owner.personId, 'head')
  await insertCrewPerson(trx, await crewIdOf(trx, gardenId), usualGardener)
  const featureIds = await insertFeatures(trx, gardenId, features)
  const plantingIds = await savePlantings(trx, { ...owner, gardenId }, read, featureIds)
  return { gardenId, plantingIds }
}

async function savePlantings(
  trx: Db,
  owner: { practiceId: string; personId: string; gardenId: string },
  read: Pick<ReadGarden, 'plan' | 'plantings'>,
  featureIds: readonly string[],
): Promise<Map<string, string>> {
  const placeByName = new Map<string, { id: string; feature: PlanFeature }>()
  read.plan.features.forEach((feature, i) => {
    if (isPlace(feature)) placeByName.set(feature.name.toLowerCase(), { id: featureIds[i]!, feature })
  })
  const taxonByName = new Map(
    (await listEnterable(trx, owner.practiceId)).map((t) => [t.taxon.botanical.toLowerCase(), t.id]),
  )
  const ids = new Map(read.plantings.map((p) => [p.tag, randomUUID()]))
  const rows = read.plantings.map((p) => {
    const place = placeByName.get(p.place.toLowerCase())!
    const at = place.feature.geometry.type === 'Point' ? place.feature.geometry.coordinates : [0, 0]
    return {
      id: ids.get(p.tag)!,
      gardenId: owner.gardenId,
      taxonId: taxonByName.get(p.taxon.toLowerCase())!,
      tag: p.tag,
      plantedOn: p.plantedOn,
      plantedKnown: p.plantedKnown,
      count: p.count,
      living: p.living,
      source: p.source ?? ('bought' as const),
      parentId: p.from_tag ? ids.get(p.from_tag)! : null,
      role: p.role ?? null,
      placeId: place.id,
      x: p.x ?? at[0]!,
      y: p.y ?? at[1]!,
      radiusM: p.radius_m ?? null,
      note: p.note,
      personId: null,
    }
  })
  if (rows.length > 0) await insertPlantings(trx, rows)
  return ids
}
