import type { Point } from '../geometry/index.ts'

/** Where somebody stands who looks at a bed. */
export interface Standpoint {
  /** The way from the bed to them, degrees clockwise from up the plan. */
  fromDeg: number
  /** From their eye to the front edge of the bed, metres over the ground. */
  awayM: number
  /** Of their eye above the ground, metres. */
  eyeM: number
}

/** Of a person who stands. */
export const EYE_M = 1.6
/** From the path, where nobody says from how far, metres. */
export const USUAL_AWAY_M = 4

/** Right and forward of somebody who looks at a bed, as unit vectors of the plan. */
function axes({ fromDeg }: Standpoint): { right: Point; forward: Point } {
  const a = (fromDeg * Math.PI) / 180
  const forward: Point = [-Math.sin(a), -Math.cos(a)]
  return { right: [forward[1], -forward[0]], forward }
}

const along = ([x, y]: Point, [ux, uy]: Point): number => x * ux + y * uy

/** Where a point of the ground is seen, in metres of the plane that stands upright on the front edge of the bed. */
export interface OnPlane {
  /** To the right of the middle, and above the front edge. */
  x: number
  y: number
  /** Of its own metre on that plane. */
  scale: number
  /** From the eye, metres. */
  depthM: number
}

/** What stands a little within the back edge of a bed is behind it all the same: walls have a thickness. */
const WITHIN_M = 0.4

/** What stands further behind a bed is not drawn, metres. */
export const BEHIND_M = 8

/** Where points lie for somebody who looks at a bed: to the right of its middle, behind its front edge, and on the plane of that. */
export function asLookedAt(outline: readonly Point[], standpoint: Standpoint) {
  const { right, forward } = axes(standpoint)
  const rights = outline.map((p) => along(p, right))
  const depths = outline.map((p) => along(p, forward))
  const middle = (Math.min(...rights) + Math.max(...rights)) / 2
  const front = Math.min(...depths)
  const wideM = Math.max(...rights) - Math.min(...rights)
  const deepM = Math.max(...depths) - front
  const rightOf = (p: Point): number => along(p, right) - middle
  const behind = (p: Point): number => along(p, forward) - front
  return {
    rightOf,
    behind,
    /** What lies before the front edge is taken to lie on it. */
    onPlane: (p: Point): OnPlane => {
      const behindM = Math.max(0, behind(p))
      const scale = scaleAt(standpoint, behindM)
      const depthM = standpoint.awayM + behindM
      return { x: rightOf(p) * scale, y: groundRise(standpoint, behindM), scale, depthM }
    },
    /** Whether a point lies behind the back edge, near enough to be drawn, so far at most. */
    standsBehind: (p: Point, mostM: number): boolean => {
      const deep = behind(p)
      return deep > deepM - WITHIN_M && deep < deepM + mostM && Math.abs(rightOf(p)) < wideM / 2 + mostM / 2
    },
    wideM,
    deepM,
  }
}

/** Of one metre, as it appears on the plane of the front edge, so far behind it. */
export const scaleAt = ({ awayM }: Standpoint, behindM: number): number => awayM / (awayM + behindM)

/** How far above the front edge the ground appears, so far behind it. */
export const groundRise = (standpoint: Standpoint, behindM: number): number =>
  standpoint.eyeM * (1 - scaleAt(standpoint, behindM))
