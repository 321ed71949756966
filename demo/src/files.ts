import { library, type Point, type Ring } from '@border/core'
import Papa from 'papaparse'
import { layOut } from './layOut.ts'
import type { SketchGarden, SketchPlanting } from './sketch.ts'
import { town } from './town.ts'

const taxonOf = new Map(library.map((t) => [t.botanical, t]))

/** A sketched garden as the two files an import reads. */
export function filesOf(sketch: SketchGarden): { plan: string; plantings: string } {
  const plan = {
    type: 'FeatureCollection',
    garden: {
      version: 1,
      name: sketch.name,
      latitude: sketch.latitude,
      longitude: sketch.longitude,
      timeZone: town.timeZone,
      coordinates: 'local-metres',
      northDeg: 0,
    },
    features: sketch.features,
  }
  return { plan: JSON.stringify(plan, null, 1), plantings: Papa.unparse(rowsOf(sketch)) }
}

/** A sketched planting with its tag, its place and where it stands now; pots have one spot, their own. */
export interface Placed {
  tag: string
  place: string
  at: Point | undefined
  planting: SketchPlanting
}

/** Every planting of a garden, tagged by its number in the sketch. */
export function placedIn(sketch: SketchGarden): Placed[] {
  let number = 0
  return Object.entries(sketch.plantings).flatMap(([place, plantings], bed) => {
    const spots = spotsIn(sketch, place, plantings, sketch.seed + bed)
    return plantings.map((planting, i) => ({
      tag: `${sketch.tagPrefix}-${String(++number).padStart(3, '0')}`,
      place,
      at: spots[i],
      planting,
    }))
  })
}

const rowsOf = (sketch: SketchGarden): Record<string, unknown>[] =>
  placedIn(sketch).map(({ tag, place, at, planting: [taxon, count, plantedOn, more] }) => {
    const moved = sketch.moves.find((m) => m.tag === tag)
    const stood = moved?.fromAt ?? at
    return {
      tag,
      place: moved?.fromPlace ?? place,
      taxon,
      count,
      planted_on: plantedOn,
      source: more?.source ?? 'bought',
      from_tag: more?.fromTag ?? '',
      role: more?.role ?? '',
      x: stood?.[0] ?? '',
      y: stood?.[1] ?? '',
      note: more?.note ?? '',
    }
  })

function spotsIn(
  sketch: SketchGarden,
  place: string,
  plantings: readonly SketchPlanting[],
  seed: number,
): (Point | undefined)[] {
  const feature = sketch.features.find((f) => f.properties.name === place)
  if (!feature) throw new Error(`${sketch.name} has no place called ${place}`)
  if (feature.properties.kind === 'container') return plantings.map(() => undefined)
  const { coordinates } = feature.geometry as { coordinates: Ring[] }
  const drifts = plantings.map(([name, count, , more]) => {
    const taxon = taxonOf.get(name)
    if (!taxon) throw new Error(`${name} is not in the plant library`)
    return { taxon, count, at: more?.at }
  })
  return layOut(coordinates[0]!.slice(0, -1), drifts, seed)
}
