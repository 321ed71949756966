import { mean } from 'd3-array'
import type { Feature } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import { asLookedAt, type Standpoint } from './scene.ts'

/** A face of something that stands behind a bed, as it is seen: its foot and its top, in metres of the plane of the front edge. */
export interface Backdrop {
  name: string
  kind: 'building' | 'wall' | 'fence' | 'hedge'
  foot: readonly Point[]
  top: readonly Point[]
  /** Of its middle, from the eye, metres. */
  depthM: number
}

const kinds: readonly string[] = ['building', 'wall', 'fence', 'hedge']
/** What stands further behind the bed is not drawn, metres. */
const BEHIND_M = 8
/** What stands a little within its back edge is behind it all the same: walls have a thickness. */
const WITHIN_M = 0.4
const STEP_M = 0.25

/** What stands behind a bed for somebody who looks at it, the farthest first. */
export function backdropOf(
  outline: readonly Point[],
  features: readonly Feature[],
  standpoint: Standpoint,
): Backdrop[] {
  const { rightOf, behind, onPlane, wideM, deepM } = asLookedAt(outline, standpoint)
  const isBehind = (p: Point): boolean => {
    const deep = behind(p)
    return (
      deep > deepM - WITHIN_M && deep < deepM + BEHIND_M && Math.abs(rightOf(p)) < wideM / 2 + BEHIND_M / 2
    )
  }
  return features
    .filter((f) => kinds.includes(f.kind))
    .flatMap((f): Backdrop[] => {
      const heightM = Number((f.properties as { heightM?: number }).heightM ?? 0)
      // Each face by itself: those of a house stand one before the other.
      return facesOf(f)
        .flatMap((face) => runsOf(face, isBehind))
        .map((run) => {
          const seen = run.map(onPlane)
          return {
            name: f.name,
            kind: f.kind as Backdrop['kind'],
            foot: seen.map((s): Point => [s.x, s.y]),
            top: seen.map((s): Point => [s.x, s.y + heightM * s.scale]),
            depthM: mean(seen, (s) => s.depthM)!,
          }
        })
    })
    .sort((a, b) => b.depthM - a.depthM)
}

/** The faces of a feature, each from corner to corner by many points. */
function facesOf({ geometry }: Feature): Point[][] {
  const corners =
    geometry.type === 'Polygon'
      ? geometry.coordinates[0]!.map((p): Point => [p[0], p[1]])
      : geometry.type === 'LineString'
        ? geometry.coordinates.map((p): Point => [p[0], p[1]])
        : []
  return corners.slice(1).map((b, i) => {
    const a = corners[i]!
    const steps = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / STEP_M))
    return Array.from({ length: steps + 1 }, (_, k): Point => [
      a[0] + ((b[0] - a[0]) * k) / steps,
      a[1] + ((b[1] - a[1]) * k) / steps,
    ])
  })
}

/** Parts of a line that hold together, of two points at least. */
function runsOf<T>(points: readonly T[], isIn: (p: T) => boolean): T[][] {
  const runs: T[][] = [[]]
  for (const p of points)
    if (isIn(p)) runs.at(-1)!.push(p)
    else if (runs.at(-1)!.length > 0) runs.push([])
  return runs.filter((r) => r.length > 1)
}
