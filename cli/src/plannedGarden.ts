import {
  climateOf,
  generateWeather,
  isPlace,
  isUnknown,
  library,
  UNKNOWN,
  patternAt,
  placeOf,
  planMetres,
  readPlan,
  readPlantings,
  readWeather,
  sceneOf,
  type Climate,
  type DailyWeather,
  type GardenHead,
  type Place,
  type Planting,
  type PlanFeature,
  type Scene,
} from '@border/core'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { accepted, readText } from './files.ts'
import { BadInput } from './say.ts'

/** A garden as its plan file has it. */
export interface PlannedGarden {
  head: GardenHead
  features: (PlanFeature & { id: string })[]
  scene: Scene
  places: Place[]
}

/** @throws {BadInput} with every fault of the plan */
export function gardenIn(planFile: string): PlannedGarden {
  const { garden: head, features } = accepted(readPlan(readText(planFile), planFile))
  const named = features.map((f, i) => ({ ...f, id: String(i) }))
  return {
    head,
    features: named,
    scene: sceneOf(head, named),
    places: named.flatMap((f) => placeOf(f) ?? []),
  }
}

/** The name of a place by its id. */
export function placeNames({ places }: PlannedGarden): (id: string) => string {
  const names = new Map(places.map((p) => [p.id, p.name]))
  return (id) => names.get(id) ?? ''
}

/**
 * The plantings of a garden's file that somebody has named, each under its tag.
 *
 * @throws {BadInput} with every fault of the file
 */
export function plantingsIn({ features, head }: PlannedGarden, file: string, today: string): Planting[] {
  const byPlace = new Map(features.filter(isPlace).map((f) => [f.name.toLowerCase(), f]))
  const taxa = new Map([...library, UNKNOWN].map((t) => [t.botanical.toLowerCase(), t]))
  const rows = accepted(
    readPlantings(
      readText(file),
      {
        places: new Map([...byPlace].map(([name, f]) => [name, f.kind as 'bed' | 'container'])),
        taxa: new Set(taxa.keys()),
      },
      today,
      file,
    ),
  )
  const named = rows.filter((r) => !isUnknown(taxa.get(r.taxon.toLowerCase())!))
  return named.map((r) => {
    const place = byPlace.get(r.place.toLowerCase())!
    const at = place.geometry.type === 'Point' ? place.geometry.coordinates : planMetres(head, [r.x!, r.y!])
    const taxon = taxa.get(r.taxon.toLowerCase())!
    return {
      id: r.tag,
      tag: r.tag,
      taxon,
      placeId: place.id,
      x: at[0]!,
      y: at[1]!,
      radiusM: r.radius_m ?? null,
      outline: null,
      plantedOn: r.plantedOn,
      plantedKnown: r.plantedKnown,
      inPlaceSince: r.plantedOn,
      plantedCount: r.count,
      livingCount: r.living ?? r.count,
      source: r.source ?? 'bought',
      role: r.role ?? null,
      colourWish: null,
      fromTag: r.from_tag ?? null,
    }
  })
}

/** What a garden's weather is usually like, the days it was read from, and where these are from. */
export interface FileClimate {
  climate: Climate
  days: readonly DailyWeather[]
  source: string
}

/** The weather file of a garden's folder, where there is one. */
export function weatherIn(folder: string): string | undefined {
  const file = join(folder, 'weather.csv')
  return existsSync(file) ? file : undefined
}

const SIMULATED_YEARS = [2008, 2025] as const

/**
 * @param file of daily weather; without one a record is made up from the usual years of the towns about it
 * @throws {BadInput} with every fault of the file, or where it is too short for what is usual
 */
export function climateIn(
  { latitude, longitude }: Pick<GardenHead, 'latitude' | 'longitude'>,
  file: string | undefined,
): FileClimate {
  const days = file
    ? accepted(readWeather(readText(file), file))
    : generateWeather(patternAt({ latitude, longitude }), ...SIMULATED_YEARS)
  const result = climateOf(days, latitude, file === undefined)
  if (!result.ok)
    throw new BadInput([
      `${file}: ${result.completeYears} complete years of weather; at least three are needed for what is usual`,
    ])
  return {
    climate: result.climate,
    days,
    source: file ?? 'simulated from the usual years of the towns about it',
  }
}
