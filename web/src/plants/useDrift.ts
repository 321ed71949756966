import type { FeatureView, PlantingView } from '@border/contract'
import {
  capitalised,
  corner,
  drawnFault,
  flattened,
  innerPoint,
  middleOf,
  type Handle,
  type Point,
} from '@border/core'
import { useState } from 'react'

export type Ground = 'a round' | 'as drawn'

/** Where the drift of a planting is, while it is being said: a round about its middle, or drawn corner by corner. */
export interface Drift {
  ground: Ground
  setGround: (ground: Ground) => void
  /** Whether its corners count: only in a bed is ground drawn. */
  isDrawn: boolean
  handles: readonly Handle[]
  setHandles: (handles: readonly Handle[]) => void
  /** What keeps them from being its outline, for people. */
  wrong: string | undefined
  /** Its middle: as said, else as proposed; undefined without a place. */
  middle: Point | undefined
  setMiddle: (at: Point) => void
  /** Nothing is said of it any more: it is in another place. */
  forget: () => void
}

/** @param planting whose drift is put right, else undefined */
export function useDrift(planting: PlantingView | undefined, place: FeatureView | undefined): Drift {
  const [at, setAt] = useState<Point | undefined>(planting && [planting.x, planting.y])
  const [ground, setGround] = useState<Ground>(planting?.outline ? 'as drawn' : 'a round')
  const [handles, setHandles] = useState<readonly Handle[]>(planting?.outline?.map(corner) ?? [])
  const isDrawn = ground === 'as drawn' && place?.kind === 'bed'
  return {
    ground,
    setGround,
    isDrawn,
    handles,
    setHandles,
    wrong: isDrawn ? outlineProblem(handles) : undefined,
    middle: at ?? (place && proposedAt(place)),
    setMiddle: setAt,
    forget: () => {
      setAt(undefined)
      setHandles([])
    },
  }
}

/** @returns the drift as it is sent; of one drawn, a point inside is its place */
export function driftSent(
  drift: Drift,
  acrossM: number | null | undefined,
): { x: number; y: number; outline: readonly Point[] | null; radiusM: number | null } {
  const outline = drift.isDrawn ? outlineOf(drift.handles) : null
  const [x, y] = outline ? innerPoint(outline) : drift.middle!
  return { x, y, outline, radiusM: !outline && acrossM ? acrossM / 2 : null }
}

/** Corners of a drift at most. */
const MOST_CORNERS = 200

/** A drift as corners, as near to what was drawn as there may be corners. */
export function outlineOf(handles: readonly Handle[]): Point[] {
  for (let flatM = 0.02; ; flatM *= 2) {
    const flat = flattened({ handles, closed: true }, flatM)
    if (flat.length <= MOST_CORNERS || flatM > 1)
      return flat.slice(0, MOST_CORNERS).map(([x, y]) => [toCm(x), toCm(y)])
  }
}

function outlineProblem(handles: readonly Handle[]): string | undefined {
  if (handles.length < 3) return 'A drift has three corners at least.'
  const fault = drawnFault({ handles, closed: true })
  return fault && `${capitalised(fault)}.`
}

/** To the centimetre. */
export const toCm = (m: number): number => Math.round(m * 100) / 100

/** Where a new planting is proposed: the middle of its place, to the centimetre in a bed. */
function proposedAt({ geometry }: FeatureView): Point {
  const [x, y] = middleOf(geometry)
  return geometry.type === 'Point' ? [x, y] : [toCm(x), toCm(y)]
}
