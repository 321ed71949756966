import {
  areaM2,
  distanceToBoundary,
  distanceToSegment,
  isInside,
  type Point,
  type Ring,
} from '../geometry/index.ts'
import type { Ground, LitPlace } from '../light/index.ts'
import { moistureWords } from '../plants/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { featuresOn } from './drawnOn.ts'
import { castsShade, featureDefaults, isPlace, ringOf, type Feature, type PlanFeature } from './feature.ts'
import { soilTextures, type SoilTexture } from './soil.ts'
import { openingOf, vesselOf } from './vessel.ts'
import { mixLitresOf } from './volume.ts'
import { windExposures, type WindExposure } from './wind.ts'

/** Somewhere plants can stand, as everything that judges, plans or lights it sees it. */
export type Place = Bed | Container

interface Common {
  id: string
  name: string
  /** The day it is gone; null where it stays. */
  to: IsoDate | null
  /** Ground, or mix, in square metres. */
  areaM2: number
  /** 1 dry to 5 wet; null where nobody has said. */
  moisture: number | null
  /** The following are undefined where nobody has said. */
  texture?: SoilTexture | undefined
  ph?: number | undefined
  wind?: WindExposure | undefined
  /** Watered by pipes that can freeze. */
  piped: boolean
  /** At the edge of a pond or stream that is on the plan. */
  byWater?: boolean | undefined
  /** A pot at the foot of a wall, fence, hedge or house: its light comes from one side. */
  byWall?: boolean | undefined
  /** The lie of its ground; null when it is level. */
  ground: Ground | null
}
/** Ground that is planted, inside a ring of plan metres. */
export interface Bed extends Common {
  kind: 'bed'
  ring: Ring
}
/** A pot or trough: a round of plan metres, planted at its rim. */
export interface Container extends Common {
  kind: 'container'
  x: number
  y: number
  rimHeightM: number
  /** Of the largest round that its inner opening holds. */
  radiusM: number
  /** Across its opening, at its longest. */
  acrossM: number
  isBox: boolean
  /** Litres of mix that it takes, filled to below its rim. */
  mixLitres: number
}

/** A bed or container; undefined for anything else. */
export function placeOf(f: Feature): Place | undefined {
  if (!isPlace(f)) return undefined
  const p = f.properties as {
    moisture?: string
    soilTexture?: string
    ph?: number
    wind?: string
    irrigation?: string
    rimHeightM?: number
  }
  const step = moistureWords.findIndex((w) => w === p.moisture)
  const common = {
    id: f.id,
    name: f.name,
    to: f.to,
    moisture: step < 0 ? null : step + 1,
    texture: soilTextures.find((t) => t === p.soilTexture),
    ph: p.ph,
    wind: windExposures.find((w) => w === p.wind),
    piped: p.irrigation === 'drip' || p.irrigation === 'spray',
    ground: lieOf(f),
  }
  if (f.kind === 'bed') {
    const ring = ringOf(f.geometry)
    return { ...common, kind: 'bed', ring, areaM2: areaM2(ring) }
  }
  if (f.geometry.type !== 'Point') return undefined
  const [x, y] = f.geometry.coordinates
  return {
    ...common,
    kind: 'container',
    x,
    y,
    rimHeightM: p.rimHeightM ?? featureDefaults.container.rimHeightM,
    ...insideOf(f),
  }
}

/** Places that stand on a day, in the order of the plan. */
export function placesOn(features: readonly Feature[], on: IsoDate): Place[] {
  const standing = featuresOn(features, on)
  const waters = standing.filter((f) => f.kind === 'water')
  const walls = standing.filter((f) => castsShade(f) && f.kind !== 'tree')
  return standing.flatMap((f): Place[] => {
    const place = placeOf(f)
    if (!place) return []
    if (place.kind === 'container')
      return [
        walls.some((w) => metresTo(w, place) <= place.radiusM + AT_FOOT_M)
          ? { ...place, byWall: true }
          : place,
      ]
    const isAtWater = waters.some((w) => isBeside(place.ring, w))
    return [isAtWater ? { ...place, byWater: true } : place]
  })
}

/** A pot whose edge is this near a wall stands at its foot, metres: a judgement. */
const AT_FOOT_M = 0.5

/** Metres from a point to what is drawn of a feature: of an outline to its edge, from inside as from outside. */
export function metresTo({ geometry }: PlanFeature, { x, y }: { x: number; y: number }): number {
  const corners = cornersOf(geometry)
  if (geometry.type === 'Polygon') return distanceToBoundary(corners, x, y)
  return corners.reduce(
    (least, p, i) => Math.min(least, distanceToSegment(x, y, corners[Math.max(0, i - 1)]!, p)),
    Infinity,
  )
}

/** Ground this near a pond is its margin, metres: a judgement. */
const MARGIN_M = 1

/** Whether a bed lies at the edge of a water, or reaches into it. */
function isBeside(ring: Ring, { geometry }: PlanFeature): boolean {
  const water = cornersOf(geometry)
  const reaches = (x: number, y: number) => isInside(ring, x, y) || distanceToBoundary(ring, x, y) <= MARGIN_M
  if (water.some(([x, y]) => reaches(x, y))) return true
  return ring.some(([x, y]) =>
    geometry.type === 'Polygon'
      ? isInside(water, x, y) || distanceToBoundary(water, x, y) <= MARGIN_M
      : water.some((p, i) => i > 0 && distanceToSegment(x, y, water[i - 1]!, p) <= MARGIN_M),
  )
}

const cornersOf = (geometry: PlanFeature['geometry']): Ring =>
  geometry.type === 'Point'
    ? [pointOf(geometry.coordinates)]
    : geometry.type === 'Polygon'
      ? ringOf(geometry)
      : geometry.coordinates.map(pointOf)

const pointOf = ([x, y]: readonly [number, number, ...number[]]): Point => [x, y]

function lieOf(f: PlanFeature): Ground | null {
  const { slopeDeg, aspectDeg } = f.properties as Partial<Ground>
  return slopeDeg ? { slopeDeg, aspectDeg: aspectDeg ?? 180 } : null
}

/** What a container holds inside: its opening by shape, and the largest round in it. */
function insideOf(f: PlanFeature): Pick<Container, 'radiusM' | 'areaM2' | 'acrossM' | 'isBox' | 'mixLitres'> {
  const { shape, lengthM, widthM, isBox } = openingOf(f)
  const whole = isBox ? lengthM * widthM : Math.PI * (widthM / 2) ** 2
  return {
    radiusM: widthM / 2,
    areaM2: shape === 'half round' ? whole / 2 : whole,
    acrossM: lengthM,
    isBox,
    mixLitres: mixLitresOf(vesselOf(f)),
  }
}

/** Height of the surface that plants of a place grow in: a container's rim, the ground in a bed. */
export const surfaceHeightM = (place: LitPlace | undefined): number =>
  place?.kind === 'container' ? place.rimHeightM : 0
