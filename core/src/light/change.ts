import { addDays, type IsoDate } from '../dates/index.ts'
import { replacedLight } from './field.ts'
import { plotsOf, type GardenField, type LitPlace } from './garden.ts'
import { replacedHours, type Compared, type Scene, type SunHours } from './hours.ts'
import { changedBetween, changesOf, frozen, type ChangeKind, type Obstruction } from './obstruction.ts'

/** What one obstruction's change between two dates did to a place's season. */
export interface LightCause {
  obstructionId: string
  name: string
  what: ChangeKind
  /** The recorded day of the change; undefined for growth, which has no one day. */
  date?: IsoDate
  /** Change in mean daily hours that goes back to it, signed. */
  hours: number
  /** The same by part of the day. */
  byPart: Pick<SunHours, 'morning' | 'midday' | 'afternoon'>
}

/** Changes smaller than this, in hours, name no cause. */
const LEAST_HOURS = 0.1

/** The light of a garden on two dates and, for each obstruction that changed between, with that one put back alone. */
export interface FieldsBetween {
  before: GardenField
  now: GardenField
  changed: { what: Omit<LightCause, 'hours' | 'byPart'>; putBack: GardenField }[]
}

/**
 * @param sunOf the day whose growing season the sun of all fields is of: the same sun, other obstructions
 */
export function fieldsBetween(
  scene: Scene,
  places: readonly LitPlace[],
  then: IsoDate,
  now: IsoDate,
  sunOf: IsoDate = now,
): FieldsBetween {
  const plots = plotsOf(places)
  const season = { kind: 'season', on: sunOf, standing: now } as const
  const changed = changedBetween(scene.obstructions, then, now).map((o) => ({ o, asThen: frozen(o, then) }))
  const replaced = changed.map(({ o, asThen }) => ({ obstructionId: o.id, before: asThen }))
  const lit = plots.map((plot) => replacedLight(scene, plot.raster, season, replaced, plot.ground))
  const pots = places.flatMap((p) =>
    p.kind === 'container'
      ? [
          {
            id: p.id,
            hours: replacedHours(
              scene,
              { x: p.x, y: p.y, z: p.rimHeightM },
              season,
              replaced,
              p.ground ?? undefined,
            ),
          },
        ]
      : [],
  )
  const fieldOf = (of: <T>(compared: Compared<T>) => T): GardenField => ({
    plots: plots.map((plot, i) => ({ ...plot, hours: of(lit[i]!) })),
    pots: new Map(pots.map((p) => [p.id, of(p.hours)])),
  })
  return {
    before: fieldOf((c) => c.before),
    now: fieldOf((c) => c.now),
    changed: changed.map(({ o }, k) => ({
      what: { obstructionId: o.id, name: o.name, ...lastChange(o, then, now) },
      putBack: fieldOf((c) => c.putBack[k]!),
    })),
  }
}

/**
 * Which recorded changes moved the hours somewhere: what putting each back alone takes away is what it is answerable
 * for. Where two changes hide behind each other the parts need not add up to the whole.
 *
 * @param hoursIn hours of the ground in question in one of the fields
 * @returns causes of at least a tenth of an hour, largest first
 */
export function causesOf(
  fields: Pick<FieldsBetween, 'now' | 'changed'>,
  hoursIn: (field: GardenField) => SunHours,
): LightCause[] {
  const now = hoursIn(fields.now)
  return fields.changed
    .map(({ what, putBack }) => {
      const before = hoursIn(putBack)
      return {
        ...what,
        hours: now.total - before.total,
        byPart: {
          morning: now.morning - before.morning,
          midday: now.midday - before.midday,
          afternoon: now.afternoon - before.afternoon,
        },
      }
    })
    .filter((c) => Math.abs(c.hours) >= LEAST_HOURS)
    .sort((a, b) => Math.abs(b.hours) - Math.abs(a.hours))
}

function lastChange(o: Obstruction, then: IsoDate, now: IsoDate): { what: ChangeKind; date?: IsoDate } {
  const within = changesOf(o).filter((c) => c.date > then && c.date <= now)
  return within.at(-1) ?? { what: 'grown' }
}

/** Five years: as far back as a change is looked for where none is recorded. */
const LONG_AGO_DAYS = 1826

/**
 * The day worth comparing a day with, when nobody has chosen one: the eve of the last recorded change, else five years
 * back. A size measured anew is better knowledge of what stood already, not a change.
 */
export function usualThen(obstructions: readonly Obstruction[], now: IsoDate): IsoDate {
  const last = obstructions
    .flatMap(changesOf)
    .filter((c) => c.what !== 'measured' && c.date <= now)
    .map((c) => c.date)
    .sort()
    .at(-1)
  return addDays(last ?? now, last ? -1 : -LONG_AGO_DAYS)
}
