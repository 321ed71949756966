import type { Point } from '../geometry/index.ts'
import type { Obstruction, Scene } from '../light/index.ts'
import { propertiesOf, ringOf, type Feature } from './feature.ts'

/** A feature as something that casts shade; undefined for places, paths and the like. */
export function obstructionOf(f: Feature): Obstruction | undefined {
  const { id, name, from, to, geometry: g } = f
  const read = propertiesOf(f)
  const common = { id, name, from, to }
  switch (read.kind) {
    case 'building': {
      const over = read.overhang
      return {
        ...common,
        kind: 'building',
        ring: ringOf(g),
        heightM: read.heightM,
        overhang: typeof over === 'number' ? { depthM: over, heightM: read.heightM } : (over ?? null),
        events: read.events ?? [],
      }
    }
    case 'wall':
    case 'fence':
    case 'hedge':
      return {
        ...common,
        kind: read.kind,
        line: g.type === 'LineString' ? g.coordinates.map((p): Point => [p[0], p[1]]) : [],
        heightM: read.heightM,
        transmission: read.transmission,
        thicknessM: read.thicknessM,
        events: read.events ?? [],
        growth: read.growth ?? null,
      }
    case 'tree': {
      const at = g.type === 'Point' ? g.coordinates : [0, 0]
      return {
        ...common,
        kind: 'tree',
        x: at[0]!,
        y: at[1]!,
        trunkRadiusM: read.trunkRadiusM,
        clearStemM: read.clearStemM,
        heightM: read.heightM,
        crownRadiusM: read.crownRadiusM,
        crownShape: read.crownShape,
        transmissionInLeaf: read.transmissionInLeaf,
        transmissionBare: read.transmissionBare ?? (read.leafFrom ? 0.6 : read.transmissionInLeaf),
        leafFrom: read.leafFrom ?? null,
        leafTo: read.leafTo ?? null,
        events: read.events ?? [],
        growth: read.growth ?? null,
      }
    }
    default:
      return undefined
  }
}

/** What is said of a feature that its looks come from: `obstructionOf` reads nothing else. */
const OF_ITS_LOOKS = [
  'heightM',
  'overhang',
  'transmission',
  'thicknessM',
  'trunkRadiusM',
  'clearStemM',
  'crownRadiusM',
  'crownShape',
  'transmissionInLeaf',
  'transmissionBare',
  'leafFrom',
  'leafTo',
  'events',
  'growth',
]

/** A feature as anybody sees it who stands before it, without notes, health and whatever else is known of it. */
export const seenAlone = (feature: Feature): Feature => ({
  ...feature,
  properties: Object.fromEntries(
    Object.entries(feature.properties).filter(([name]) => OF_ITS_LOOKS.includes(name)),
  ),
})

/** What casts shade on a garden, placed on Earth: the plan as the light sees it. */
export function sceneOf(
  garden: { latitude: number; longitude: number; northDeg: number },
  features: readonly Feature[],
): Scene {
  return {
    latitudeDeg: garden.latitude,
    longitudeDeg: garden.longitude,
    northDeg: garden.northDeg,
    obstructions: features.map(obstructionOf).filter((o): o is Obstruction => o !== undefined),
  }
}
