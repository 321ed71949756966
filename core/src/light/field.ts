import { standing, type Obstruction } from './obstruction.ts'
import type { Raster } from './raster.ts'
import { SAMPLE_HOURS } from '../sun/index.ts'
import { daysOf, lightDays, type LightDay, type LightPeriod, type Scene } from './hours.ts'
import { FULL_LIGHT, prepare, ShadowBrush, type Prepared } from './shadow.ts'
import { LEVEL, type Direction, type Ground } from './trace.ts'

/** Hours of direct sun on a clear day for each kept cell of a raster, in its order; see `SunHours`. */
export interface FieldHours {
  total: Float32Array
  morning: Float32Array
  midday: Float32Array
  afternoon: Float32Array
  heat: Float32Array
}

/** Stretches of the day that hours are kept apart for; the afternoon is the heat of it and the evening. */
const MORNING = 0
const MIDDAY = 1
const HEAT = 2
const EVENING = 3
const STRETCHES = 4

function stretchOf(d: Direction): number {
  if (d.part === 'morning') return MORNING
  if (d.part === 'midday') return MIDDAY
  return d.hot ? HEAT : EVENING
}

/**
 * Hours over every cell: each obstruction's shadow drawn for each position of the sun. The same hours as
 * `sunHours` gives for the cells' centres, within a few hundredths from keeping shares in 15 bits.
 *
 * @param ground of all the cells
 */
export function lightField(
  scene: Scene,
  raster: Raster,
  period: LightPeriod,
  ground: Ground = LEVEL,
): FieldHours {
  const sums = newSums(raster.count)
  const share = new Uint16Array(raster.count)
  const brush = new ShadowBrush(raster)
  const days = preparedDays(scene, raster, period, ground)
  for (const day of days)
    for (const d of day.directions) {
      share.fill(FULL_LIGHT)
      for (const p of day.prepared) brush.draw(p, d, share)
      addTo(sums[stretchOf(d)]!, share)
    }
  return inHours(sums, days.length)
}

const newSums = (count: number) => Array.from({ length: STRETCHES }, () => new Uint32Array(count))

function addTo(sum: Uint32Array, share: Uint16Array): void {
  for (let i = 0; i < sum.length; i++) sum[i]! += share[i]!
}

function inHours(sums: readonly Uint32Array[], days: number): FieldHours {
  const count = sums[0]!.length
  const field = Object.fromEntries(
    ['total', 'morning', 'midday', 'afternoon', 'heat'].map((part) => [part, new Float32Array(count)]),
  ) as unknown as FieldHours
  const scale = SAMPLE_HOURS / FULL_LIGHT / days
  for (let i = 0; i < count; i++) {
    const morning = sums[MORNING]![i]! * scale
    const midday = sums[MIDDAY]![i]! * scale
    const heat = sums[HEAT]![i]! * scale
    const afternoon = heat + sums[EVENING]![i]! * scale
    field.total[i] = morning + midday + afternoon
    field.morning[i] = morning
    field.midday[i] = midday
    field.afternoon[i] = afternoon
    field.heat[i] = heat
  }
  return field
}

type PreparedDay = Pick<LightDay, 'directions'> & { prepared: Prepared[] }

function preparedDays(scene: Scene, raster: Raster, period: LightPeriod, ground: Ground): PreparedDay[] {
  // Over one period only leaf tells one day's shape of an obstruction from another's.
  const known = new Map<string, Prepared>()
  return lightDays(scene, period, ground).map(({ solids, directions }) => ({
    directions,
    prepared: solids.map((solid) => {
      const key = `${solid.id}|${solid.shape === 'prism' ? 0 : solid.transmission}`
      const made = known.get(key) ?? prepare(raster, solid)
      known.set(key, made)
      return made
    }),
  }))
}

/**
 * The light of a scene ready for one obstruction to be changed: for every position of the sun, what all the others let
 * through. A trial then draws one shadow instead of all.
 */
export class LightStage {
  private readonly days: { directions: Direction[]; rest: Uint16Array[] }[]
  private readonly dates: string[]
  /** Sums with the obstruction away. */
  private readonly without: Uint32Array[]
  private readonly brush: ShadowBrush
  private readonly mask: Uint16Array

  /**
   * Keeps two bytes a cell and position of the sun.
   *
   * @param obstructionId what will be changed; one that is not in the scene stands for something new
   */
  constructor(
    scene: Scene,
    private readonly raster: Raster,
    private readonly period: LightPeriod,
    obstructionId: string,
    ground: Ground = LEVEL,
  ) {
    const others = { ...scene, obstructions: scene.obstructions.filter((o) => o.id !== obstructionId) }
    this.brush = new ShadowBrush(raster)
    this.mask = new Uint16Array(raster.count).fill(FULL_LIGHT)
    this.without = newSums(raster.count)
    this.dates = daysOf(scene, period)
    this.days = preparedDays(others, raster, period, ground).map(({ directions, prepared }) => ({
      directions,
      rest: directions.map((d) => {
        const share = new Uint16Array(raster.count).fill(FULL_LIGHT)
        for (const p of prepared) this.brush.draw(p, d, share)
        addTo(this.without[stretchOf(d)]!, share)
        return share
      }),
    }))
  }

  /**
   * The field with the obstruction as given.
   *
   * @param changed undefined when it is not there
   */
  withChanged(changed: Obstruction | undefined): FieldHours {
    const sums = this.without.map((sum) => sum.slice())
    const standsOn = this.period.standing ?? this.period.on
    const known = new Map<number, Prepared>()
    this.days.forEach((day, k) => {
      const solid = changed && standing(changed, standsOn, this.dates[k])
      if (!solid) return
      const transmission = solid.shape === 'prism' ? 0 : solid.transmission
      const prepared = known.get(transmission) ?? prepare(this.raster, solid)
      known.set(transmission, prepared)
      day.directions.forEach((d, j) => this.takeAway(prepared, d, day.rest[j]!, sums[stretchOf(d)]!))
    })
    return inHours(sums, this.days.length)
  }

  /** Takes from a sum what one shadow keeps from the light the others leave. */
  private takeAway(p: Prepared, d: Direction, rest: Uint16Array, sum: Uint32Array): void {
    const { brush, mask } = this
    brush.draw(p, d, mask)
    for (let row = brush.firstRow; row < brush.endRow; row++) {
      const to = brush.touchedTo[row]!
      for (let i = brush.touchedFrom[row]!; i < to; i++) {
        sum[i]! -= (rest[i]! * (FULL_LIGHT - mask[i]!) + FULL_LIGHT / 2) >>> 15
        mask[i] = FULL_LIGHT
      }
    }
    brush.forget()
  }
}
