import { neededGeometry, type FeatureKind, type Geometry } from '@border/core'

/** Kinds that can be drawn by hand, with the words and sizes each is asked for. */
export const drawnKinds = [
  'bed',
  'container',
  'building',
  'wall',
  'fence',
  'hedge',
  'tree',
  'hazard',
  'path',
] as const satisfies FeatureKind[]
export type DrawnKind = (typeof drawnKinds)[number]

export interface SizeField {
  name: string
  label: string
  usual: number
  min: number
  max: number
  step: number
  unit: string
}

const metres = (name: string, label: string, usual: number, max = 120): SizeField => ({
  name,
  label,
  usual,
  min: 0,
  max,
  step: 0.1,
  unit: 'm',
})
const percent = (name: string, label: string, usual: number): SizeField => ({
  name,
  label,
  usual,
  min: 0,
  max: 100,
  step: 5,
  unit: '%',
})

/** One slope and the way it falls for a place. */
const lie: SizeField[] = [
  { name: 'slopeDeg', label: 'Ground slopes', usual: 0, min: 0, max: 60, step: 1, unit: '°' },
  { name: 'aspectDeg', label: 'falling towards', usual: 180, min: 0, max: 360, step: 5, unit: '° from N' },
]

export const kindFields: Record<DrawnKind, SizeField[]> = {
  bed: lie,
  container: [
    metres('diameterM', 'Inner width', 0.5, 5),
    metres('rimHeightM', 'Rim above ground', 0.45, 3),
    ...lie,
  ],
  building: [metres('heightM', 'Height', 5)],
  wall: [metres('heightM', 'Height', 2), metres('thicknessM', 'Thickness', 0.3, 10)],
  fence: [metres('heightM', 'Height', 1.8), percent('transmission', 'Light let through', 20)],
  hedge: [
    metres('heightM', 'Height', 2),
    metres('thicknessM', 'Thickness', 0.8, 10),
    percent('transmission', 'Light let through', 5),
  ],
  tree: [
    metres('heightM', 'Height', 6),
    metres('crownRadiusM', 'Crown radius', 2, 40),
    metres('clearStemM', 'Clear stem', 1.5),
    metres('trunkRadiusM', 'Trunk radius', 0.1, 5),
    percent('transmissionInLeaf', 'Light through, in leaf', 15),
  ],
  hazard: [],
  path: [],
}

/** Hazards and paths may be anything in a file; by hand they are a line and an area. */
const shapes: Record<DrawnKind, Geometry['type']> = {
  ...neededGeometry,
  hazard: 'LineString',
  path: 'Polygon',
}

export const shapeOf = (kind: DrawnKind): Geometry['type'] => shapes[kind]
export const leastCorners = (kind: DrawnKind): number =>
  ({ Polygon: 3, LineString: 2, Point: 1 })[shapes[kind]]
