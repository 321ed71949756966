import { dayNumber, isoDate, monthOf, yearOf, type IsoDate } from '../dates/index.ts'
import { SAMPLE_HOURS, solarDay } from '../sun/index.ts'
import { standing, type Obstruction, type Solid } from './obstruction.ts'
import { direction, directions, LEVEL, transmittance, type Direction, type Ground } from './trace.ts'

/** Where a plan lies on Earth. */
export interface Site {
  latitudeDeg: number
  longitudeDeg: number
  /** Where true north lies on the plan, degrees clockwise from the +y axis. */
  northDeg: number
}

/** A place on earth with all that casts shade on it, whenever it stood. */
export interface Scene extends Site {
  obstructions: readonly Obstruction[]
}

/** Plan metres; z is height above the ground. */
export interface LightPoint {
  x: number
  y: number
  z: number
}

/** Hours of direct sun on a clear day, by true solar time. */
export interface SunHours {
  total: number
  morning: number
  midday: number
  afternoon: number
  /** Of the afternoon, the hours between 14:00 and 17:00, when the sun comes with heat. */
  heat: number
}

/**
 * What the hours are asked for:
 * - `day`: that day, with what stands and is in leaf on it;
 * - `season`: the mean day of the growing season, with everything as it stands on `on`;
 * - `year`: the mean day of the year's 24 half-months, likewise.
 */
export interface LightPeriod {
  kind: 'day' | 'season' | 'year'
  on: IsoDate
  /** The day whose standing obstructions count, when it is not `on`: the sun of one date, the garden of another. */
  standing?: IsoDate
}

/** One day's share of a period: what stands, where the sun goes, and how much it counts. */
export interface LightDay {
  solids: Solid[]
  directions: Direction[]
  weight: number
}

/** Obliquity of the ecliptic, degrees: the sun stands overhead some day of the year nearer to the equator than this. */
const TROPIC_DEG = 23.44

/** The 24 half-months of a year, each by the day in its middle (the 8th and the 23rd). */
export function halfMonths(year: number): IsoDate[] {
  return Array.from({ length: 24 }, (_, i) => isoDate(year, 1 + (i >> 1), i % 2 === 0 ? 8 : 23))
}

/**
 * The half-months of the growing season, by their middle days: April to September north of the tropics,
 * October to March south of them (months of the calendar year of `on`), the whole year between.
 */
export function growingSeason(latitudeDeg: number, on: IsoDate): IsoDate[] {
  return halfMonths(yearOf(on)).filter((day) => {
    const warmHalf = monthOf(day) >= 4 && monthOf(day) <= 9
    if (Math.abs(latitudeDeg) < TROPIC_DEG) return true
    return latitudeDeg > 0 ? warmHalf : !warmHalf
  })
}

/** The days whose mean a period’s hours are, each with the sun’s positions that shine on the ground and what stands then. */
export function lightDays(scene: Scene, period: LightPeriod, ground: Ground = LEVEL): LightDay[] {
  const standsOn = period.standing ?? period.on
  const days = daysOf(scene, period)
  return days.map((day) => ({
    solids: opaqueFirst(
      scene.obstructions.map((o) => standing(o, standsOn, day)).filter((s) => s !== undefined),
    ),
    directions: directions(solarDay(day, scene.latitudeDeg, scene.longitudeDeg), scene.northDeg, ground),
    weight: 1 / days.length,
  }))
}

/** The days a period is the mean of, all counting alike. */
export function daysOf(site: Pick<Site, 'latitudeDeg'>, period: LightPeriod): IsoDate[] {
  switch (period.kind) {
    case 'day':
      return [period.on]
    case 'season':
      return growingSeason(site.latitudeDeg, period.on)
    case 'year':
      return halfMonths(yearOf(period.on))
  }
}

/** A ray that is stopped needs no further test, so what stops rays comes first. */
function opaqueFirst(solids: Solid[]): Solid[] {
  const passes = (s: Solid) => (s.shape === 'prism' ? 0 : s.transmission)
  return solids.sort((a, b) => passes(a) - passes(b))
}

/** Hours at one point over prepared days. Hours sum the transmitted share over ten-minute samples. */
export function hoursAt(days: readonly LightDay[], p: LightPoint): SunHours {
  const hours = { morning: 0, midday: 0, afternoon: 0, heat: 0 }
  for (const day of days)
    for (const d of day.directions) {
      const share = transmittance(day.solids, p.x, p.y, p.z, d) * day.weight * SAMPLE_HOURS
      hours[d.part] += share
      if (d.hot) hours.heat += share
    }
  return { ...hours, total: hours.morning + hours.midday + hours.afternoon }
}

/** What lets less through than this is shade, and more than the rest of it open sky. */
const LEAVES_PASS = 0.02

/** The share of a point's sun over prepared days that comes through leaves, 0 to 1; 0 where it has none. */
export function dappledShare(days: readonly LightDay[], p: LightPoint): number {
  let dappled = 0
  let all = 0
  for (const day of days)
    for (const d of day.directions) {
      const share = transmittance(day.solids, p.x, p.y, p.z, d) * day.weight
      all += share
      if (share > LEAVES_PASS * day.weight && share < (1 - LEAVES_PASS) * day.weight) dappled += share
    }
  return all === 0 ? 0 : dappled / all
}

/**
 * Hours of direct sun at points.
 *
 * @param ground of all the points
 * @returns one entry a point, in order
 * @throws {RangeError} when `period.on` is not a calendar date
 */
export function sunHours(
  scene: Scene,
  points: readonly LightPoint[],
  period: LightPeriod,
  ground: Ground = LEVEL,
): SunHours[] {
  dayNumber(period.on)
  const days = lightDays(scene, period, ground)
  return points.map((p) => hoursAt(days, p))
}

/** An obstruction of a scene, and what stood in its place before; undefined where nothing did. */
export interface Replaced {
  obstructionId: string
  before: Obstruction | undefined
}

/** The same of a scene as it is, of all that stood in it before, and with each change put back alone. */
export interface Compared<T> {
  now: T
  before: T
  putBack: T[]
}

/** Hours at a point in a scene and, along the same rays, with its changes put back, all together and each alone. */
export function replacedHours(
  scene: Scene,
  p: LightPoint,
  period: LightPeriod,
  replaced: readonly Replaced[],
  ground: Ground = LEVEL,
): Compared<SunHours> {
  const standsOn = period.standing ?? period.on
  const dates = daysOf(scene, period)
  const ids = new Set(replaced.map((r) => r.obstructionId))
  const days = lightDays(
    { ...scene, obstructions: scene.obstructions.filter((o) => !ids.has(o.id)) },
    period,
    ground,
  )
  const solidOf = (o: Obstruction | undefined, date: IsoDate): Solid[] => {
    const solid = o && standing(o, standsOn, date)
    return solid ? [solid] : []
  }
  const sums = { now: none(), before: none(), putBack: replaced.map(none) }
  days.forEach((day, k) => {
    const changes = replaced.map(({ obstructionId, before }) => ({
      now: solidOf(
        scene.obstructions.find((o) => o.id === obstructionId),
        dates[k]!,
      ),
      before: solidOf(before, dates[k]!),
    }))
    for (const d of day.directions) {
      const past = (solids: readonly Solid[]) => transmittance(solids, p.x, p.y, p.z, d)
      const rest = past(day.solids) * day.weight * SAMPLE_HOURS
      if (rest === 0) continue
      const now = changes.map((c) => past(c.now))
      const before = changes.map((c) => past(c.before))
      add(
        sums.now,
        d,
        now.reduce((a, b) => a * b, rest),
      )
      add(
        sums.before,
        d,
        before.reduce((a, b) => a * b, rest),
      )
      sums.putBack.forEach((sum, c) =>
        add(
          sum,
          d,
          now.reduce((a, b, j) => a * (j === c ? before[c]! : b), rest),
        ),
      )
    }
  })
  return sums
}

/** An obstruction of a scene with other states it could be in. */
export interface Alternatives {
  obstructionId: string
  states: readonly Obstruction[]
  /** Some of them take sun that it lets by now. */
  areDarker?: boolean
}

/**
 * Hours at points with one obstruction in another state, all else as it is: prepared once for many points.
 *
 * @returns for a point and some of the obstructions, by their id: how many hours each of its states, in order, would give beyond
 *   those that the point has; fewer where they are darker
 */
export function hoursGainedBy(
  scene: Scene,
  period: LightPeriod,
  alternatives: readonly Alternatives[],
  ground: Ground = LEVEL,
): (p: LightPoint, of: readonly string[]) => Map<string, SunHours[]> {
  const standsOn = period.standing ?? period.on
  const dates = daysOf(scene, period)
  const darker = new Set(alternatives.filter((a) => a.areDarker).map((a) => a.obstructionId))
  const days = lightDays(scene, period, ground).map((day, k) => ({
    ...day,
    states: new Map(
      alternatives.map(({ obstructionId, states }) => [
        obstructionId,
        states.map((s) => standing(s, standsOn, dates[k]!)),
      ]),
    ),
  }))
  return (p, of) => {
    const gained = new Map(
      of.map((id) => [id, alternatives.find((a) => a.obstructionId === id)!.states.map(none)]),
    )
    for (const { solids, states, directions, weight } of days) {
      const own = of.map((id) => ({
        isSettled: (share: number) => share === 1 && !darker.has(id),
        sums: gained.get(id)!,
        now: solids.find((s) => s.id === id),
        as: states.get(id)!,
      }))
      const others = solids.filter((s) => !of.includes(s.id))
      for (const d of directions) {
        const past = (solid: Solid | undefined) => (solid ? transmittance([solid], p.x, p.y, p.z, d) : 1)
        const now = own.map((o) => past(o.now))
        if (now.every((share, k) => own[k]!.isSettled(share))) continue
        const rest = transmittance(others, p.x, p.y, p.z, d) * weight * SAMPLE_HOURS
        if (rest === 0) continue
        own.forEach(({ sums, as, isSettled }, k) => {
          if (isSettled(now[k]!)) return
          const beside = now.reduce((product, share, j) => (j === k ? product : product * share), rest)
          as.forEach((solid, n) => add(sums[n]!, d, beside * (past(solid) - now[k]!)))
        })
      }
    }
    return gained
  }
}

const none = (): SunHours => ({ total: 0, morning: 0, midday: 0, afternoon: 0, heat: 0 })

function add(hours: SunHours, d: Direction, share: number): void {
  hours.total += share
  hours[d.part] += share
  if (d.hot) hours.heat += share
}

/** Mean of several hours; all zero when there are none. */
export function meanHours(all: readonly SunHours[]): SunHours {
  const mean = (part: keyof SunHours) =>
    all.length === 0 ? 0 : all.reduce((sum, h) => sum + h[part], 0) / all.length
  return {
    total: mean('total'),
    morning: mean('morning'),
    midday: mean('midday'),
    afternoon: mean('afternoon'),
    heat: mean('heat'),
  }
}

/**
 * Sky view factor of a level surface: the share of an evenly bright sky's light that reaches it, 0 to 1.
 * Integrates T sin(e) cos(e) / pi over the sky by the midpoint rule, in steps of 2 deg of azimuth and equal
 * steps of sin^2(e). (Oke 1987, Boundary Layer Climates, appendix A1.)
 */
export function skyViewFactor(solids: readonly Solid[], p: LightPoint): number {
  const rings = 45
  const spokes = 180
  let sum = 0
  for (let r = 0; r < rings; r++) {
    const elevationDeg = (Math.asin(Math.sqrt((r + 0.5) / rings)) * 180) / Math.PI
    for (let s = 0; s < spokes; s++)
      sum += transmittance(solids, p.x, p.y, p.z, direction(((s + 0.5) * 360) / spokes, elevationDeg, 0))
  }
  return sum / (rings * spokes)
}

export type LightClass = 'full sun' | 'part sun' | 'part shade' | 'shade'

/** Light words by hours of direct sun on a clear day in the growing season. */
export function lightClass(hours: number): LightClass {
  if (hours >= 6) return 'full sun'
  if (hours >= 4) return 'part sun'
  return hours >= 2 ? 'part shade' : 'shade'
}

/** Light of which so much comes through leaves is dappled. A judgement. */
const DAPPLED_SHARE = 0.5
/** Sun of which so much falls in one part of the day is called by that part. A judgement. */
const ONE_PART_SHARE = 0.75

/**
 * Light in a gardener's words: hours of the same number are not alike. Sun that comes nearly all before ten or after two is said
 * to, and so is what is hot: no sun until one and then the hottest four hours is no part sun. What comes mostly through leaves is
 * dappled.
 *
 * @param dappled the share of it that comes through leaves
 */
export function lightWords(hours: SunHours, dappled = 0): string {
  const of = lightClass(hours.total)
  if (dappled >= DAPPLED_SHARE) return of === 'full sun' ? 'dappled sun' : 'dappled shade'
  if (of === 'shade') return of
  const isMostly = (part: number) => part >= ONE_PART_SHARE * hours.total
  if (isMostly(hours.afternoon)) return isHotAfternoon(hours) ? 'hot afternoon sun' : 'afternoon sun'
  if (isMostly(hours.morning)) return 'morning sun'
  if (isMostly(hours.midday)) return 'midday sun'
  return of
}

/**
 * From this many of the three hours between 14:00 and 17:00 solar time in direct sun, on the mean day of the growing
 * season, a spot is called hot in the afternoon. A working threshold of this product, not a published one.
 */
export const HOT_AFTERNOON_HOURS = 1.5

/** Whether what suffers from the heat of the afternoon would suffer here. */
export const isHotAfternoon = (hours: SunHours): boolean => hours.heat >= HOT_AFTERNOON_HOURS
