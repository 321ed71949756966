import { AstroTime, Body, Equator, Horizon, HourAngle, Observer } from 'astronomy-engine'
import type { Ground, Obstruction, Scene } from '../src/light/index.ts'

const DEG = Math.PI / 180
const MS_PER_HOUR = 3_600_000

type Of<Kind extends Obstruction['kind']> = Extract<Obstruction, { kind: Kind }>
type Screen = Exclude<Obstruction, Of<'building'> | Of<'tree'>>
type Vector = readonly [east: number, north: number, up: number]

/** The sun ten minutes after ten minutes, by true solar time, in the middle of each; below the horizon too. By VSOP87. */
function sunThrough(day: string, latitudeDeg: number, longitudeDeg: number) {
  const observer = new Observer(latitudeDeg, longitudeDeg, 0)
  return Array.from({ length: 144 }, (_, i) => {
    const solarHours = (i + 0.5) / 6
    let instantMs = Date.parse(`${day}T00:00Z`) + (solarHours - longitudeDeg / 15) * MS_PER_HOUR
    // Twice: the first puts the clock right, the second what the sun has moved by then.
    for (let k = 0; k < 2; k++) {
      const late = (HourAngle(Body.Sun, new Date(instantMs), observer) + 12 - solarHours + 36) % 24
      instantMs -= (late - 12) * MS_PER_HOUR
    }
    const time = new AstroTime(new Date(instantMs))
    // Seen from the middle of the earth: parallax moves the sun by less than 0.003 degrees.
    const { ra, dec } = Equator(Body.Sun, time, observer, true, true)
    const { azimuth, altitude } = Horizon(time, observer, ra, dec)
    return { solarHours, azimuth, altitude }
  })
}

/**
 * Hours of sun of a day at a point, by walking from it towards the sun in small steps and asking at each what it is in: written
 * apart from the engine, in space, with the ground as a plane that slopes, and the sun of another theory.
 *
 * @param scene what is in it as it stands: neither growth nor events nor days are looked at
 * @param point plan metres, and height above the ground
 * @param stepM length of a step: what a ray only grazes may be missed by as much
 */
export function marchedHours(
  scene: Scene,
  point: { x: number; y: number; z: number },
  day: string,
  ground: Ground,
  stepM: number,
): { total: number; heat: number } {
  const hours = { total: 0, heat: 0 }
  const slope = Math.tan(ground.slopeDeg * DEG)
  const fall = (ground.aspectDeg + scene.northDeg) * DEG
  const groundAt = (x: number, y: number) => -slope * (x * Math.sin(fall) + y * Math.cos(fall))
  for (const { solarHours, azimuth, altitude } of sunThrough(day, scene.latitudeDeg, scene.longitudeDeg)) {
    if (altitude <= 0) continue
    const bearing = (azimuth + scene.northDeg) * DEG
    const level = Math.cos(altitude * DEG)
    const toSun: Vector = [level * Math.sin(bearing), level * Math.cos(bearing), Math.sin(altitude * DEG)]
    const share = marchedShare(scene.obstructions, point, toSun, groundAt, day, stepM)
    hours.total += share / 6
    if (solarHours >= 14 && solarHours < 17) hours.heat += share / 6
  }
  return hours
}

/**
 * Share of the sun's light that reaches a point, transmissions multiplied.
 *
 * @param toSun unit vector in plan axes, up from the level
 * @param groundAt metres above the level, by plan metres
 * @param day decides what is in leaf
 */
export function marchedShare(
  obstructions: readonly Obstruction[],
  { x, y, z }: { x: number; y: number; z: number },
  [east, north, up]: Vector,
  groundAt: (x: number, y: number) => number,
  day: string,
  stepM: number,
): number {
  const startM = groundAt(x, y) + z
  const heightAt = (along: number) => startM + along * up - groundAt(x + along * east, y + along * north)
  if (heightAt(1) <= z) return 0
  const asks = obstructions.map((o) => asked(o, day))
  const topM = Math.max(
    0,
    ...obstructions.map((o) =>
      'overhang' in o && o.overhang ? Math.max(o.heightM, o.overhang.heightM) : o.heightM,
    ),
  )
  for (let along = 0; heightAt(along) < topM; along += stepM) {
    const middle = along + stepM / 2
    const from: Vector = [x + along * east, y + along * north, heightAt(along)]
    const at: Vector = [x + middle * east, y + middle * north, heightAt(middle)]
    const to: Vector = [x + (along + stepM) * east, y + (along + stepM) * north, heightAt(along + stepM)]
    for (const ask of asks) ask.step(from, at, to, stepM)
  }
  return asks.reduce((share, ask) => share * ask.share(), 1)
}

/** What an obstruction is asked at every step, and the share of the light that is left of it at last. */
interface Asked {
  step: (from: Vector, at: Vector, to: Vector, stepM: number) => void
  share: () => number
}

function asked(o: Obstruction, day: string): Asked {
  switch (o.kind) {
    case 'building':
      return askedBuilding(o)
    case 'tree':
      return askedTree(o, day)
    default:
      return o.thicknessM > 0 ? askedHedge(o) : askedSheet(o)
  }
}

function askedBuilding({ ring, heightM, overhang }: Of<'building'>): Asked {
  let isStopped = false
  return {
    step([, , before], [x, y, height], [, , after]) {
      if (height < heightM && winding(ring, x, y) !== 0) isStopped = true
      if (!overhang || before >= overhang.heightM || after < overhang.heightM) return
      const isOver = winding(ring, x, y) !== 0 || nearest([...ring, ring[0]!], x, y) <= overhang.depthM
      if (isOver) isStopped = true
    },
    share: () => (isStopped ? 0 : 1),
  }
}

function askedTree(t: Of<'tree'>, day: string): Asked {
  let chord = 0
  let isStopped = false
  const half = (t.heightM - t.clearStemM) / 2
  const date = day.slice(5)
  const isInLeaf =
    !t.leafFrom ||
    !t.leafTo ||
    (t.leafFrom <= t.leafTo ? date >= t.leafFrom && date < t.leafTo : date >= t.leafFrom || date < t.leafTo)
  const transmission = isInLeaf ? t.transmissionInLeaf : t.transmissionBare
  const isInCrown = (off: number, height: number) => {
    if (t.crownShape === 'ellipsoid')
      return (off / t.crownRadiusM) ** 2 + ((height - t.clearStemM - half) / half) ** 2 <= 1
    if (height < t.clearStemM || height > t.heightM) return false
    const reach = t.crownShape === 'column' ? 1 : (t.heightM - height) / (2 * half)
    return off <= t.crownRadiusM * reach
  }
  return {
    step(_, [x, y, height], __, stepM) {
      const off = Math.hypot(x - t.x, y - t.y)
      if (off <= t.trunkRadiusM && height < t.clearStemM) isStopped = true
      if (isInCrown(off, height)) chord += stepM
    },
    // Through as much as a ball of the crown's size is wide, its transmission passes.
    share: () => (isStopped ? 0 : transmission ** (chord / (2 * Math.cbrt(t.crownRadiusM ** 2 * half)))),
  }
}

function askedHedge({ line, heightM, thicknessM, transmission }: Screen): Asked {
  let passages = 0
  let wasIn = false
  return {
    step(_, [x, y, height]) {
      const isIn = height < heightM && nearest(line, x, y) <= thicknessM / 2
      if (isIn && !wasIn) passages++
      wasIn = isIn
    },
    share: () => transmission ** passages,
  }
}

function askedSheet({ line, heightM, transmission }: Screen): Asked {
  let crossings = 0
  return {
    step(from, [, , height], to) {
      if (height >= heightM) return
      for (let i = 0; i + 1 < line.length; i++) if (crosses(from, to, line[i]!, line[i + 1]!)) crossings++
    },
    share: () => transmission ** crossings,
  }
}

type Flat = readonly [x: number, y: number, ...rest: number[]]

const turn = (a: Flat, b: Flat, c: Flat) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])

/** Whether one stretch crosses another; its end belongs to the next. */
const crosses = (a: Flat, b: Flat, c: Flat, d: Flat): boolean =>
  turn(c, d, a) >= 0 !== turn(c, d, b) >= 0 && turn(a, b, c) >= 0 !== turn(a, b, d) >= 0

/** How often a ring goes round a point (Sunday 2001). */
function winding(ring: readonly Flat[], x: number, y: number): number {
  let times = 0
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length]!
    const side = turn(a, b, [x, y])
    if (a[1] <= y && b[1] > y && side > 0) times++
    if (a[1] > y && b[1] <= y && side < 0) times--
  })
  return times
}

/** Metres to the nearest point of a line. */
function nearest(line: readonly Flat[], x: number, y: number): number {
  let least = Infinity
  for (let i = 0; i + 1 < line.length; i++) {
    const [a, b] = [line[i]!, line[i + 1]!]
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
    const along = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)))
    least = Math.min(least, Math.hypot(x - a[0] - along * dx, y - a[1] - along * dy))
  }
  return least
}
