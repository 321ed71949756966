import type { FeatureView, PlantingView } from '@border/contract'
import { capitalised, innerPoint, middleOf, outlineFault, type Point } from '@border/core'
import { useState } from 'react'

export type Ground = 'a round' | 'as drawn'

/** Where the drift of a planting is, while it is being said: a round about its middle, or drawn corner by corner. */
export interface Drift {
  ground: Ground
  setGround: (ground: Ground) => void
  /** Whether its corners count: only in a bed is ground drawn. */
  isDrawn: boolean
  corners: readonly Point[]
  setCorners: (corners: readonly Point[]) => void
  /** What keeps the corners from being its outline, for people. */
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
  const [corners, setCorners] = useState<readonly Point[]>(planting?.outline ?? [])
  const isDrawn = ground === 'as drawn' && place?.kind === 'bed'
  return {
    ground,
    setGround,
    isDrawn,
    corners,
    setCorners,
    wrong: isDrawn ? outlineProblem(corners) : undefined,
    middle: at ?? (place && proposedAt(place)),
    setMiddle: setAt,
    forget: () => {
      setAt(undefined)
      setCorners([])
    },
  }
}

/** @returns the drift as it is sent; of one drawn, a point inside is its place */
export function driftSent(
  drift: Drift,
  acrossM: number | null | undefined,
): { x: number; y: number; outline?: readonly Point[]; radiusM?: number } {
  const [x, y] = drift.isDrawn ? innerPoint(drift.corners) : drift.middle!
  return { x, y, ...(drift.isDrawn ? { outline: drift.corners } : acrossM && { radiusM: acrossM / 2 }) }
}

function outlineProblem(corners: readonly Point[]): string | undefined {
  if (corners.length < 3) return 'A drift has three corners at least.'
  const fault = outlineFault(corners)
  return fault && `${capitalised(fault)}.`
}

/** To the centimetre. */
export const toCm = (m: number): number => Math.round(m * 100) / 100

/** Where a new planting is proposed: the middle of its place, to the centimetre in a bed. */
function proposedAt({ geometry }: FeatureView): Point {
  const [x, y] = middleOf(geometry)
  return geometry.type === 'Point' ? [x, y] : [toCm(x), toCm(y)]
}
