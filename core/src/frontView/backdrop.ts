import { mean } from 'd3-array'
import type { IsoDate } from '../dates/index.ts'
import { obstructionOf, type Feature } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import { frozen, isInLeaf, type Obstruction } from '../light/index.ts'
import { asLookedAt, BEHIND_M, type Standpoint } from './standpoint.ts'

/** A face of something that stands behind a bed, as it is seen: its foot and its top, in metres of the plane of the front edge. */
export interface Backdrop {
  name: string
  kind: 'building' | 'wall' | 'fence' | 'hedge' | 'tree'
  foot: readonly Point[]
  top: readonly Point[]
  /** Of its middle, from the eye, metres. */
  depthM: number
  /** Of a tree, whose foot and top are a point each. */
  tree?: SeenTree | undefined
}

/** A tree as it is seen, in metres of the plane of the front edge. */
export interface SeenTree {
  crownRadiusM: number
  /** From the ground to the crown. */
  clearStemM: number
  trunkRadiusM: number
  crownShape: 'ellipsoid' | 'cone' | 'column'
  /** Without leaves. */
  isBare: boolean
}

/** Trees are seen from farther behind than all else, metres. */
const TREES_BEHIND_M = 20
const STEP_M = 0.25

/** What stands behind a bed for somebody who looks at it on a day, the farthest first. */
export function backdropOf(
  outline: readonly Point[],
  features: readonly Feature[],
  standpoint: Standpoint,
  on: IsoDate,
): Backdrop[] {
  const { standsBehind, onPlane } = asLookedAt(outline, standpoint)
  const isBehind = (p: Point) => standsBehind(p, BEHIND_M)
  const treesOf = (tree: Obstruction): Backdrop[] => {
    if (tree.kind !== 'tree') return []
    const at: Point = [tree.x, tree.y]
    if (!standsBehind(at, TREES_BEHIND_M)) return []
    const { x, y, scale, depthM } = onPlane(at)
    return [
      {
        name: tree.name,
        kind: 'tree',
        foot: [[x, y]],
        top: [[x, y + inSteps(tree.heightM) * scale]],
        depthM,
        tree: {
          crownRadiusM: inSteps(tree.crownRadiusM) * scale,
          clearStemM: tree.clearStemM * scale,
          trunkRadiusM: tree.trunkRadiusM * scale,
          crownShape: tree.crownShape,
          isBare: !isInLeaf(tree, on),
        },
      },
    ]
  }
  const standing = standingOn(features, on)
  const faces = standing.flatMap(({ f, now }): Backdrop[] => {
    if (now.kind === 'tree') return []
    const { kind, name } = now
    // Each face by itself: those of a house stand one before the other.
    return facesOf(f)
      .flatMap((face) => runsOf(face, isBehind))
      .map((run) => {
        const seen = run.map(onPlane)
        return {
          name,
          kind,
          foot: seen.map((s): Point => [s.x, s.y]),
          top: seen.map((s): Point => [s.x, s.y + inSteps(now.heightM) * s.scale]),
          depthM: mean(seen, (s) => s.depthM)!,
        }
      })
  })
  return [...faces, ...standing.flatMap(({ now }) => treesOf(now))].sort((a, b) => b.depthM - a.depthM)
}

/** What casts shade as it stands on a day: grown, cut, lowered; what has gone by then, or is not there yet, is not among it. */
export const standingOn = (features: readonly Feature[], on: IsoDate): { f: Feature; now: Obstruction }[] =>
  features.flatMap((f) => {
    const whenever = obstructionOf(f)
    const now = whenever && frozen(whenever, on)
    return now ? [{ f, now }] : []
  })

/** What grows is drawn anew when it has grown by so much, not every week: metres. */
const GROWN_M = 0.05
const inSteps = (m: number): number => GROWN_M * Math.round(m / GROWN_M)

/** The corners of a feature along its sides, the first again at the end of what is closed. */
export const sidesOfFeature = ({ geometry }: Feature): Point[] =>
  geometry.type === 'Polygon'
    ? geometry.coordinates[0]!.map((p): Point => [p[0], p[1]])
    : geometry.type === 'LineString'
      ? geometry.coordinates.map((p): Point => [p[0], p[1]])
      : []

/** The faces of a feature, each from corner to corner by many points. */
const facesOf = (feature: Feature): Point[][] => sidesOf(sidesOfFeature(feature))

/** The sides of a line, each from corner to corner by many points. */
export function sidesOf(corners: readonly Point[]): Point[][] {
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
