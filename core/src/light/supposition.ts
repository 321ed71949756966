import { addDays, isoDate, monthOf, yearOf, type IsoDate } from '../dates/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Scene } from './hours.ts'
import { eavesAt, frozen, type Obstruction } from './obstruction.ts'

/** What if: one obstruction other than it stands. What is absent stays as it is on the day of the supposition. */
export interface Supposition {
  obstructionId: string
  gone?: boolean | undefined
  /** As it will stand after so many years more of its recorded growth. */
  grownYears?: number | undefined
  heightM?: number | undefined
  crownRadiusM?: number | undefined
  clearStemM?: number | undefined
  /** Share of the foliage taken out, 0 to 1. */
  thinnedBy?: number | undefined
  /** Metres along the plan's x and y. */
  movedM?: readonly [number, number] | undefined
}

/** The obstruction as supposed, fixed in time; undefined when it is gone, or does not stand that day. */
export function supposed(o: Obstruction, supposition: Supposition, on: IsoDate): Obstruction | undefined {
  if (supposition.gone) return undefined
  const grown = frozen(o, supposition.grownYears ? yearsLater(on, supposition.grownYears) : on)
  return grown && moved(resized(grown, supposition), supposition.movedM)
}

/** A scene with every supposition carried out; obstructions without one are left as recorded. */
export function withSuppositions(scene: Scene, suppositions: readonly Supposition[], on: IsoDate): Scene {
  const byId = new Map(suppositions.map((t) => [t.obstructionId, t]))
  return {
    ...scene,
    obstructions: scene.obstructions.flatMap((o) => {
      const supposition = byId.get(o.id)
      return supposition ? (supposed(o, supposition, on) ?? []) : [o]
    }),
  }
}

/** The same day of a later year; 29 February becomes 1 March where there is none. */
export function yearsLater(day: IsoDate, years: number): IsoDate {
  const whole = Math.floor(years)
  const start = isoDate(yearOf(day) + whole, monthOf(day), Number(day.slice(8)))
  return addDays(start, Math.round((years - whole) * 365.25))
}

function resized(o: Obstruction, t: Supposition): Obstruction {
  const heightM = t.heightM ?? o.heightM
  const passing = (share: number) => (t.thinnedBy ? share ** (1 - t.thinnedBy) : share)
  switch (o.kind) {
    case 'building':
      return { ...o, heightM, overhang: eavesAt(o, heightM) }
    case 'wall':
    case 'fence':
    case 'hedge':
      return { ...o, heightM, transmission: passing(o.transmission) }
    case 'tree':
      return {
        ...o,
        heightM,
        crownRadiusM: t.crownRadiusM ?? o.crownRadiusM,
        clearStemM: Math.min(t.clearStemM ?? o.clearStemM, heightM),
        transmissionInLeaf: passing(o.transmissionInLeaf),
        transmissionBare: passing(o.transmissionBare),
      }
  }
}

function moved(o: Obstruction, by: Supposition['movedM']): Obstruction {
  if (!by) return o
  const shift = (p: Point): Point => [p[0] + by[0], p[1] + by[1]]
  if (o.kind === 'tree') return { ...o, x: o.x + by[0], y: o.y + by[1] }
  return o.kind === 'building' ? { ...o, ring: o.ring.map(shift) } : { ...o, line: o.line.map(shift) }
}
