import { polygonHull } from 'd3-polygon'
import { addDays, civilDate, type IsoDate } from '../dates/index.ts'
import type { Point, Ring } from '../geometry/index.ts'
import { solarDay, solarPosition } from '../sun/index.ts'
import type { Scene, Site } from './hours.ts'
import { standing, type Solid } from './obstruction.ts'
import { direction, type Direction } from './trace.ts'

/** One obstruction's shadow on the ground at a moment: the union of its outlines, each convex or the footprint itself. */
export interface Shadow {
  obstructionId: string
  outlines: Ring[]
  /** Share of the sun it lets through; a crown's is that of its middle. */
  transmission: number
}

/** One position of the sun: azimuth from north by east, elevation above the horizon, degrees. */
export interface Moment {
  /** UTC, milliseconds since 1970. */
  instantMs: number
  /** True solar time, hours. */
  solarHours: number
  azimuthDeg: number
  elevationDeg: number
}

/**
 * Moments of the civil day of a place with the sun up, every ten minutes of true solar time, in order of time. The solar
 * day and the civil day of a zone far from its sun overlap only in part, so neighbouring solar days are looked through.
 *
 * @returns empty in polar night
 */
export function momentsOf(site: Site, timeZone: string, day: IsoDate): Moment[] {
  return [-1, 0, 1]
    .flatMap((by) => solarDay(addDays(day, by), site.latitudeDeg, site.longitudeDeg))
    .filter((s) => civilDate(new Date(s.instantMs), timeZone) === day)
    .sort((a, b) => a.instantMs - b.instantMs)
}

/** The sun at an instant as a direction on the plan; undefined when it is down. */
export function directionAt(site: Site, instantMs: number): Direction | undefined {
  const sun = solarPosition(instantMs, site.latitudeDeg, site.longitudeDeg)
  return sun.elevationDeg > 0 ? direction(sun.azimuthDeg, sun.elevationDeg, site.northDeg) : undefined
}

/** The shadows of everything that stands on a day, for the sun in a direction, cut off `mostM` from what throws them. */
export function shadowsAt(scene: Scene, on: IsoDate, d: Direction, mostM = 200): Shadow[] {
  return scene.obstructions
    .map((o) => standing(o, on))
    .filter((s) => s !== undefined)
    .map((solid) => ({
      obstructionId: solid.id,
      outlines: outlinesOf(solid, d, mostM),
      transmission: solid.shape === 'prism' ? 0 : solid.transmission,
    }))
}

function outlinesOf(solid: Solid, d: Direction, mostM: number): Ring[] {
  const shift = (heightM: number): Point => {
    const reach = Math.min(heightM / d.rise, mostM)
    return [-d.ux * reach, -d.uy * reach]
  }
  switch (solid.shape) {
    case 'prism': {
      const by = shift(solid.heightM)
      const sides = solid.ring.map((a, i) => swept(a, solid.ring[(i + 1) % solid.ring.length]!, by, 0))
      const roof = solid.overhang
      if (!roof) return [solid.ring, ...sides]
      const away = shift(roof.heightM)
      const at = (p: Point): Point => [p[0] + away[0], p[1] + away[1]]
      const eaves = solid.ring.map((a, i) =>
        swept(at(a), at(solid.ring[(i + 1) % solid.ring.length]!), [0, 0], roof.depthM),
      )
      return [solid.ring, ...sides, solid.ring.map(at), ...eaves]
    }
    case 'screen': {
      const by = shift(solid.heightM)
      return solid.line.slice(1).map((b, i) => swept(solid.line[i]!, b, by, solid.thicknessM / 2))
    }
    case 'crown': {
      const foot: Point = [solid.x, solid.y]
      const trunk = swept(foot, foot, shift(solid.clearStemM), solid.trunkRadiusM)
      return [trunk, crownOutline(solid, shift)]
    }
  }
}

function crownOutline(t: Extract<Solid, { shape: 'crown' }>, shift: (heightM: number) => Point): Ring {
  const at = (heightM: number): Point => {
    const [x, y] = shift(heightM)
    return [t.x + x, t.y + y]
  }
  if (t.crownShape === 'column')
    return hull([...round(at(t.clearStemM), t.radiusM), ...round(at(t.heightM), t.radiusM)])
  if (t.crownShape === 'cone') return hull([...round(at(t.clearStemM), t.radiusM), at(t.heightM)])
  // Rounds at several heights of an ellipsoid have the same hull as its shadow, nearly.
  const c = (t.heightM - t.clearStemM) / 2
  return hull(
    Array.from({ length: 13 }, (_, k) => {
      const s = -1 + k / 6
      return round(at(t.clearStemM + c * (1 + s)), t.radiusM * Math.sqrt(Math.max(0, 1 - s * s)))
    }).flat(),
  )
}

/** Corners that a crown’s shadow is drawn with: off the round by under one part in a hundred. */
const CORNERS = 24
const round = (centre: Point, radius: number): Point[] =>
  Array.from({ length: CORNERS }, (_, i): Point => {
    const a = (i / CORNERS) * 2 * Math.PI
    return [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)]
  })

/** The hull of a segment and its moved copy, widened by a radius. */
function swept(a: Point, b: Point, by: Point, radius: number): Ring {
  const corners: Point[] = [a, b, [a[0] + by[0], a[1] + by[1]], [b[0] + by[0], b[1] + by[1]]]
  return hull(radius > 0 ? corners.flatMap((p) => round(p, radius)) : corners)
}

const hull = (points: Point[]): Ring => polygonHull(points as [number, number][]) ?? []
