import { addDays, type IsoDate } from '../dates/index.ts'
import { hoursAt, lightDays, meanHours, type LightDay, type LightPoint, type Scene } from './hours.ts'
import { changesOf, standing, type ChangeKind, type Obstruction } from './obstruction.ts'

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
  const daysWith = (putBack?: Obstruction) =>
    lightDays(scene, { kind: 'season', on: now }, (o) => (o === putBack ? then : now))
  const daysNow = daysWith()
  const changes = changedBetween(scene.obstructions, then, now).map((o) => ({
    cause: { obstructionId: o.id, name: o.name, ...lastChange(o, then, now) },
    days: daysWith(o),
  }))
  const total = (days: readonly LightDay[], points: readonly LightPoint[]) =>
    meanHours(points.map((p) => hoursAt(days, p))).total
  return (points) => {
    if (changes.length === 0) return []
    const hoursNow = total(daysNow, points)
    return changes
      .map(({ cause, days }) => ({ ...cause, hours: hoursNow - total(days, points) }))
      .filter((c) => Math.abs(c.hours) >= LEAST_HOURS)
      .sort((a, b) => Math.abs(b.hours) - Math.abs(a.hours))
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
