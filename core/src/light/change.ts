import { addDays, type IsoDate } from '../dates/index.ts'
import { SAMPLE_HOURS } from '../sun/index.ts'
import { growingSeason, lightDays, type LightDay, type LightPoint, type Scene } from './hours.ts'
import { changesOf, standing, type ChangeKind, type Obstruction, type Solid } from './obstruction.ts'
import { transmittance } from './trace.ts'

/** What one obstruction's change between two dates did to a place's season. */
export interface LightCause {
  obstructionId: string
  name: string
  what: ChangeKind
  /** The recorded day of the change; undefined for growth, which has no one day. */
  date?: IsoDate
  /** Change in mean daily hours that goes back to it, signed. */
  hours: number
}

/** Changes smaller than this, in hours, name no cause. */
const LEAST_HOURS = 0.1

/** The obstructions that do not stand alike on two dates. */
export function changedBetween(
  obstructions: readonly Obstruction[],
  then: IsoDate,
  now: IsoDate,
): Obstruction[] {
  return obstructions.filter(
    (o) => JSON.stringify(standing(o, then, now)) !== JSON.stringify(standing(o, now, now)),
  )
}

/**
 * Which recorded changes moved the hours at some points between two dates. Each obstruction that differs is put
 * back as it was, alone, and what that takes away is what it is answerable for. Where two changes hide behind
 * each other the parts need not add up to the whole.
 *
 * @returns for any points: causes of at least a tenth of an hour, largest first
 */
export function causeFinder(
  scene: Scene,
  then: IsoDate,
  now: IsoDate,
): (points: readonly LightPoint[]) => LightCause[] {
  const changed = changedBetween(scene.obstructions, then, now)
  const unchanged = scene.obstructions.filter((o) => !changed.includes(o))
  const dates = growingSeason(scene.latitudeDeg, now)
  const days = lightDays({ ...scene, obstructions: unchanged }, { kind: 'season', on: now }).map(
    (day, k) => ({
      ...day,
      pairs: changed.map((o) => ({ then: solidsOf(o, then, dates[k]!), now: solidsOf(o, now, dates[k]!) })),
    }),
  )
  return (points) => {
    const hours = changed.map(() => 0)
    for (const p of points) for (const day of days) addShares(hours, day, p)
    return changed
      .map((o, i) => ({
        obstructionId: o.id,
        name: o.name,
        ...lastChange(o, then, now),
        hours: hours[i]! / Math.max(1, points.length),
      }))
      .filter((c) => Math.abs(c.hours) >= LEAST_HOURS)
      .sort((a, b) => Math.abs(b.hours) - Math.abs(a.hours))
  }
}

type ChangingDay = LightDay & { pairs: { then: Solid[]; now: Solid[] }[] }

const solidsOf = (o: Obstruction, day: IsoDate, leafDay: IsoDate): Solid[] => {
  const solid = standing(o, day, leafDay)
  return solid ? [solid] : []
}

/** Adds, for each changed obstruction, the hours by which the light at a point differs from the light with it put back. */
function addShares(hours: number[], day: ChangingDay, p: LightPoint): void {
  for (const d of day.directions) {
    const rest = transmittance(day.solids, p.x, p.y, p.z, d)
    // What the unchanged keep dark is nobody's doing.
    if (rest === 0) continue
    const now = day.pairs.map((pair) => transmittance(pair.now, p.x, p.y, p.z, d))
    day.pairs.forEach((pair, i) => {
      const before = transmittance(pair.then, p.x, p.y, p.z, d)
      if (before === now[i]) return
      const others = now.reduce((product, share, j) => (j === i ? product : product * share), rest)
      hours[i]! += (now[i]! - before) * others * day.weight * SAMPLE_HOURS
    })
  }
}

function lastChange(o: Obstruction, then: IsoDate, now: IsoDate): { what: ChangeKind; date?: IsoDate } {
  const within = changesOf(o).filter((c) => c.date > then && c.date <= now)
  return within.at(-1) ?? { what: 'grown' }
}

/** Recorded changes this recent are what a caretaker compares with. */
const RECENT_DAYS = 913
const LONG_AGO_DAYS = 1826

/**
 * The day worth comparing a day with, when nobody has chosen one: the eve of the first recorded change of the last two
 * and a half years, else five years back.
 */
export function usualThen(obstructions: readonly Obstruction[], now: IsoDate): IsoDate {
  const recent = obstructions
    .flatMap(changesOf)
    .map((c) => c.date)
    .filter((date) => date <= now && date > addDays(now, -RECENT_DAYS))
    .sort()[0]
  return recent ? addDays(recent, -1) : addDays(now, -LONG_AGO_DAYS)
}
