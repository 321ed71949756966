import {
  shelters,
  movers,
  neededGeometry,
  potShapes,
  soilTextures,
  stands,
  windExposures,
  type FeatureKind,
  type Geometry,
} from '@border/core'

/** Kinds that can be drawn by hand, in the order they are offered. */
export const drawnKinds = [
  'bed',
  'container',
  'building',
  'wall',
  'fence',
  'hedge',
  'tree',
  'path',
  'water',
  'tap',
  'hazard',
  'viewpoint',
] as const satisfies FeatureKind[]
export type DrawnKind = (typeof drawnKinds)[number]

interface Common {
  name: string
  label: string
  /** Asked for when the kind is added; the rest under “More”. */
  first?: boolean
}
/** A size with its unit; a share of light is asked in hundredths. */
export interface SizeField extends Common {
  type: 'size'
  /** Filled in of something new; nothing where it may stay unsaid. */
  usual?: number
  min: number
  max: number
  step: number
  unit: string
}
/** One of several words, or several of them. */
export interface WordField extends Common {
  type: 'word'
  options: readonly { value: string; label: string }[]
}
export interface DayField extends Common {
  type: 'month-day' | 'day'
}
/** Bearings from which it is looked at, degrees, several parted by commas. */
export interface BearingsField extends Common {
  type: 'bearings'
}
export interface TextField extends Common {
  type: 'text'
  most: number
}
/** Yes or no, or nobody has said. */
export interface FlagField extends Common {
  type: 'flag'
}
export type Field = SizeField | WordField | DayField | BearingsField | TextField | FlagField

const size = (
  name: string,
  label: string,
  more: Partial<Omit<SizeField, 'type'>> & Pick<SizeField, 'max'>,
): SizeField => ({ type: 'size', name, label, min: 0, step: 0.1, unit: 'm', ...more })
const needed = (name: string, label: string, usual: number, max = 120): SizeField =>
  size(name, label, { usual, max, first: true })
const through = (name: string, label: string, usual?: number): SizeField =>
  size(name, label, {
    max: 100,
    step: 5,
    unit: '%',
    ...(usual === undefined ? {} : { usual, first: true }),
  })
const word = (name: string, label: string, options: readonly string[]): WordField => ({
  type: 'word',
  name,
  label,
  options: options.map((o) => ({ value: o, label: o })),
})

/** One slope and the way it falls. */
const lie: Field[] = [
  size('slopeDeg', 'Ground slopes', { max: 60, step: 1, unit: '°' }),
  size('aspectDeg', 'falling towards', { max: 360, step: 5, unit: '° from N' }),
]
const growth: Field[] = [
  { type: 'day', name: 'growth.measuredOn', label: 'Measured on' },
  size('growth.matureHeightM', 'Grows to', { max: 120, step: 0.5 }),
  size('growth.yearsToMature', 'Full grown in', { min: 1, max: 200, step: 1, unit: 'years' }),
]
const note: Field = { type: 'text', name: 'note', label: 'Note', most: 2000 }

/** What can be said of each kind: all that a file can say. */
export const kindFields: Record<DrawnKind, readonly Field[]> = {
  bed: [
    { ...word('moisture', 'Ground', ['dry', 'dryish', 'fresh', 'moist', 'wet']), first: true },
    word('soilTexture', 'Soil', soilTextures),
    size('ph', 'pH', { min: 3, max: 10, unit: '' }),
    word('drainage', 'Drains', ['poor', 'fair', 'good']),
    word('wind', 'Wind', windExposures),
    word('irrigation', 'Watered by', ['none', 'drip', 'spray', 'hand']),
    { type: 'bearings', name: 'viewedFrom', label: 'Looked at from' },
    ...lie,
    note,
  ],
  container: [
    {
      type: 'word',
      name: 'shape',
      label: 'Shape',
      first: true,
      options: potShapes.map((o) => ({ value: o, label: o })),
    },
    size('diameterM', 'Inner width, if round', { usual: 0.5, max: 5, step: 0.05, first: true }),
    size('lengthM', 'Inner length', { max: 10, step: 0.05 }),
    size('widthM', 'Inner width, if a box', { max: 5, step: 0.05 }),
    needed('rimHeightM', 'Rim above ground', 0.45, 3),
    size('depthM', 'Depth inside', { min: 0.05, max: 3, step: 0.01 }),
    size('footM', 'Inner width at its floor', { min: 0.01, max: 5, step: 0.05 }),
    { type: 'text', name: 'material', label: 'Made of', most: 60 },
    size('wallM', 'Wall', { max: 0.5, step: 0.005 }),
    size('holes', 'Drainage holes', { max: 100, step: 1, unit: '' }),
    { type: 'flag', name: 'feet', label: 'On feet' },
    { type: 'flag', name: 'saucer', label: 'In a saucer' },
    size('reservoirL', 'Water kept below the mix', { max: 500, step: 0.5, unit: 'l' }),
    word('standsOn', 'Stands on', stands),
    size('standsM', 'That is high', { max: 3, step: 0.05 }),
    size('facingDeg', 'Faces', { max: 360, step: 5, unit: '°' }),
    word('movedBy', 'Moved by', movers),
    word('cover', 'Over it', shelters),
    ...lie,
    note,
  ],
  building: [
    needed('heightM', 'Height', 5),
    size('overhang.depthM', 'Eaves reach out', { max: 10 }),
    size('overhang.heightM', 'Eaves above ground', { max: 120 }),
    size('sillM', 'Windows begin at', { max: 120 }),
    note,
  ],
  wall: [
    needed('heightM', 'Height', 2),
    needed('thicknessM', 'Thickness', 0.3, 10),
    through('transmission', 'Light let through'),
    note,
  ],
  fence: [
    needed('heightM', 'Height', 1.8),
    through('transmission', 'Light let through', 20),
    size('thicknessM', 'Thickness', { max: 10 }),
    note,
  ],
  hedge: [
    needed('heightM', 'Height', 2),
    needed('thicknessM', 'Thickness', 0.8, 10),
    through('transmission', 'Light let through', 5),
    ...growth,
    note,
  ],
  tree: [
    needed('heightM', 'Height', 6),
    needed('crownRadiusM', 'Crown radius', 2, 40),
    needed('clearStemM', 'Clear stem', 1.5),
    needed('trunkRadiusM', 'Trunk radius', 0.1, 5),
    through('transmissionInLeaf', 'Light through, in leaf', 15),
    through('transmissionBare', 'Light through, bare'),
    {
      type: 'word',
      name: 'crownShape',
      label: 'Crown',
      options: [
        { value: 'ellipsoid', label: 'rounded' },
        { value: 'cone', label: 'cone' },
        { value: 'column', label: 'column' },
      ],
    },
    word('health', 'Health', ['good', 'fair', 'poor', 'failing']),
    { type: 'month-day', name: 'leafFrom', label: 'In leaf from, month-day' },
    { type: 'month-day', name: 'leafTo', label: 'Bare from, month-day' },
    ...growth,
    size('growth.matureCrownRadiusM', 'Crown radius to', { max: 40, step: 0.5 }),
    note,
  ],
  hazard: [note],
  path: [note],
  water: [note],
  tap: [
    size('litresPerHour', 'Gives', {
      min: 10,
      max: 10_000,
      step: 10,
      unit: 'l/h',
      first: true,
    }),
    note,
  ],
  viewpoint: [note],
}

/** Kinds that may be anything in a file are, by hand, this. */
const shapes: Record<DrawnKind, Geometry['type']> = {
  ...neededGeometry,
  hazard: 'LineString',
  path: 'Polygon',
  water: 'Polygon',
  viewpoint: 'Point',
}

export const shapeOf = (kind: DrawnKind): Geometry['type'] => shapes[kind]
export const leastCorners = (type: Geometry['type']): number =>
  ({ Polygon: 3, LineString: 2, Point: 1 })[type]

/** Kinds that something of another kind can be made: those drawn alike. */
export const kindsLike = (type: Geometry['type']): DrawnKind[] =>
  drawnKinds.filter((kind) => shapes[kind] === type || !(kind in neededGeometry))
