import type { FillEnd, FillSeason, PotRole, RecipeName, SiteCause, TreatmentKind } from '@border/core'

/** Short forms in which the demo's gardens are written down. */

type Corner = readonly [number, number]

export interface SketchFeature {
  type: 'Feature'
  properties: Record<string, unknown>
  geometry: object
}

export const area = (
  kind: string,
  name: string,
  corners: readonly Corner[],
  properties: object = {},
): SketchFeature => ({
  type: 'Feature',
  properties: { kind, name, ...properties },
  geometry: { type: 'Polygon', coordinates: [[...corners, corners[0]]] },
})

export const line = (
  kind: string,
  name: string,
  points: readonly Corner[],
  properties: object = {},
): SketchFeature => ({
  type: 'Feature',
  properties: { kind, name, ...properties },
  geometry: { type: 'LineString', coordinates: points },
})

export const spot = (kind: string, name: string, at: Corner, properties: object = {}): SketchFeature => ({
  type: 'Feature',
  properties: { kind, name, ...properties },
  geometry: { type: 'Point', coordinates: at },
})

export const pot = (
  name: string,
  at: Corner,
  diameterM: number,
  rimHeightM: number,
  material: string,
  more: object = {},
): SketchFeature =>
  spot('container', name, at, { shape: 'tapered', diameterM, rimHeightM, material, ...more })

/** Taxon, count, planted on, and what is not usual about it. */
export type SketchPlanting = readonly [
  taxon: string,
  count: number,
  plantedOn: string,
  more?: {
    source?: 'bought' | 'division' | 'cutting' | 'seed' | 'self-sown'
    fromTag?: string
    role?: string
    at?: Corner
    note?: string
  },
]

/** What was said of plantings at one time, in the caretaker's words. */
export interface SketchNote {
  tag: string
  on: string
  says: string
}

/** A move of the past: where the planting stood before. */
export interface SketchMove {
  tag: string
  on: string
  fromPlace: string
  fromAt: Corner
}

export interface SketchGarden {
  name: string
  latitude: number
  longitude: number
  tagPrefix: string
  seed: number
  features: SketchFeature[]
  /** Plantings by place. */
  plantings: Record<string, SketchPlanting[]>
  /** Things that happened and are not on the plan: they show in how plants did. */
  unrecorded: { feature: string; event: object }[]
  notes: SketchNote[]
  /** What changed in a place from a day on and nobody wrote down: it shows in the plants. */
  unnoticed: { place: string; cause: SiteCause; from: string }[]
  /** Plantings that are tried before they become drifts. */
  trials: { tag: string; on: string; reason: string }[]
  /** Cuts and deadheading, done for bloom; from then on that season the bloom comes later. */
  treatments: { tag: string; on: string; what: TreatmentKind }[]
  /** Fixed places to photograph beds from. */
  standpoints: { name: string; place: string; framing: string; photographedOn: string[] }[]
  moves: SketchMove[]
  /** An old survey that lies under the plan, scanned askew by so many degrees. */
  survey?: { name: string; turnDeg: number }
  /** What its containers were filled with, by name, one after another. */
  fills?: Readonly<Record<string, readonly SketchFill[]>>
  /** Places that are being decided anew. */
  reworks?: SketchRework[]
}

/** A fill of a container. */
export interface SketchFill {
  on: string
  name: string
  season: FillSeason
  mix: RecipeName
  renewed: number
  in: readonly (readonly [taxon: string, count: number, role: PotRole])[]
  /** Why the one before it ended. */
  ended?: FillEnd
  /** Of what went in before, what stays, and what waits on the bench; the rest is composted. */
  keeps?: readonly string[]
  saves?: readonly string[]
  /** How the one before it went; of the first, what is to be told of itself. */
  note?: string
}

/** Schemes of a place: what leaves it by tag, and what comes in; drifts grow to fill the ground. */
export interface SketchRework {
  place: string
  tallestM: number
  /** The first scheme was accepted on a day, and is carried out as far as its first planting, or all of it. */
  carriedOut?: { acceptedOn: string; how: 'first planting' | 'all' }
  schemes: {
    name: string
    leaving: readonly string[]
    divides: readonly string[]
    /** Where what leaves goes, by tag; the others by the optimum. */
    goes?: Readonly<
      Record<string, { to: 'bench' | 'give away' | 'gone' } | { to: 'spot'; place: string; at: Corner }>
    >
    /** They keep to their number, or grow to fill the ground. */
    keepsTo?: 'its number'
    drifts: readonly (readonly [botanical: string, count: number, from?: 'bench'])[]
    /** Plantings that stand there already, by tag: what they were planted by. */
    stands?: readonly string[]
    /** Bulbs between them. */
    between: readonly (readonly [botanical: string, count: number])[]
    /** What fills the ground that is open until they have grown. */
    filler?: string
  }[]
}
