import { addDays, isoDate, monthOf, yearOf, type IsoDate } from '../dates/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Scene } from './hours.ts'
import { frozen, type Obstruction } from './obstruction.ts'

/** What if: one obstruction other than it stands. What is absent stays as it is on the day of the trial. */
export interface Trial {
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

/** The obstruction as tried, fixed in time; undefined when it is gone, or does not stand that day. */
export function tried(o: Obstruction, trial: Trial, on: IsoDate): Obstruction | undefined {
  if (trial.gone) return undefined
  const grown = frozen(o, trial.grownYears ? yearsLater(on, trial.grownYears) : on)
  return grown && moved(resized(grown, trial), trial.movedM)
}

/** A scene with every trial carried out; obstructions without one are left as recorded. */
export function withTrials(scene: Scene, trials: readonly Trial[], on: IsoDate): Scene {
  const byId = new Map(trials.map((t) => [t.obstructionId, t]))
  return {
    ...scene,
    obstructions: scene.obstructions.flatMap((o) => {
      const trial = byId.get(o.id)
      return trial ? (tried(o, trial, on) ?? []) : [o]
    }),
  }
}

/** The same day of a later year; 29 February becomes 1 March where there is none. */
export function yearsLater(day: IsoDate, years: number): IsoDate {
  const whole = Math.floor(years)
  const start = isoDate(yearOf(day) + whole, monthOf(day), Number(day.slice(8)))
  return addDays(start, Math.round((years - whole) * 365.25))
}

function resized(o: Obstruction, t: Trial): Obstruction {
  const heightM = t.heightM ?? o.heightM
  const passing = (share: number) => (t.thinnedBy ? share ** (1 - t.thinnedBy) : share)
  switch (o.kind) {
    case 'building':
      return { ...o, heightM }
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

function moved(o: Obstruction, by: Trial['movedM']): Obstruction {
  if (!by) return o
  const shift = (p: Point): Point => [p[0] + by[0], p[1] + by[1]]
  if (o.kind === 'tree') return { ...o, x: o.x + by[0], y: o.y + by[1] }
  return o.kind === 'building' ? { ...o, ring: o.ring.map(shift) } : { ...o, line: o.line.map(shift) }
}
