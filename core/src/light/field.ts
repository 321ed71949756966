import type { IsoDate } from '../dates/index.ts'
import { changedBetween, standing, type Obstruction, type Solid } from './obstruction.ts'
import type { Raster } from './raster.ts'
import { SAMPLE_HOURS } from '../sun/index.ts'
import {
  daysOf,
  lightDays,
  type Compared,
  type LightDay,
  type LightPeriod,
  type Replaced,
  type Scene,
} from './hours.ts'
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
const newDifferences = (count: number) => Array.from({ length: STRETCHES }, () => new Int32Array(count))

const less = (sums: readonly Uint32Array[], taken: readonly Int32Array[]) =>
  sums.map((sum, stretch) => sum.map((v, i) => v - taken[stretch]![i]!))

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
  const preparedOf = preparing(raster)
  return lightDays(scene, period, ground).map(({ solids, directions }) => ({
    directions,
    prepared: solids.map(preparedOf),
  }))
}

/** Prepares each solid of a period once: over one period only leaf tells one day's shape of it from another's. */
function preparing(raster: Raster): (solid: Solid) => Prepared {
  const known = new Map<string, Prepared>()
  return (solid) => {
    const key = `${solid.id}|${solid.shape === 'prism' ? 0 : solid.transmission}`
    const made = known.get(key) ?? prepare(raster, solid)
    known.set(key, made)
    return made
  }
}

/**
 * The light of a scene and, in the same pass over the sun, of what it would be with its changes put back, all together and each
 * alone. What has not changed is drawn once for all of them, and what has changed is reckoned only in the cells that its shadow
 * touches: the same hours as so many fields, for little more than the time of one.
 */
export function replacedLight(
  scene: Scene,
  raster: Raster,
  period: LightPeriod,
  replaced: readonly Replaced[],
  ground: Ground = LEVEL,
): Compared<FieldHours> {
  const { count } = raster
  const ids = new Set(replaced.map((r) => r.obstructionId))
  const still = { ...scene, obstructions: scene.obstructions.filter((o) => !ids.has(o.id)) }
  const standsOn = period.standing ?? period.on
  const dates = daysOf(scene, period)
  const changes = replaced.map(({ obstructionId, before }) => ({
    now: new Mask(
      raster,
      scene.obstructions.filter((o) => o.id === obstructionId),
      standsOn,
      dates,
    ),
    before: new Mask(raster, before ? [before] : [], standsOn, dates),
    /** What putting it back adds to the sums, or takes from them. */
    added: newDifferences(count),
  }))
  const nowMasks = changes.map((c) => c.now)
  const beforeMasks = changes.map((c) => c.before)
  const brush = new ShadowBrush(raster)
  const rest = new Uint16Array(count)
  const restSums = newSums(count)
  /** What the changes, as they stand and as they stood, take from the sums of the rest. */
  const nowTaken = newDifferences(count)
  const beforeTaken = newDifferences(count)
  const days = preparedDays(still, raster, period, ground)
  days.forEach((day, k) => {
    for (const d of day.directions) {
      const stretch = stretchOf(d)
      rest.fill(FULL_LIGHT)
      for (const p of day.prepared) brush.draw(p, d, rest)
      addTo(restSums[stretch]!, rest)
      for (const m of nowMasks) m.draw(k, d)
      for (const m of beforeMasks) m.draw(k, d)
      addTaken(raster, nowMasks, rest, nowTaken[stretch]!)
      addTaken(raster, beforeMasks, rest, beforeTaken[stretch]!)
      changes.forEach(({ now, before, added }, c) => putBack(now, before, c, added[stretch]!))
      for (const m of nowMasks) m.wipe()
      for (const m of beforeMasks) m.wipe()
    }
  })
  const nowSums = less(restSums, nowTaken)
  return {
    now: inHours(nowSums, days.length),
    before: inHours(less(restSums, beforeTaken), days.length),
    putBack: changes.map(({ added }) =>
      inHours(
        nowSums.map((sum, stretch) => sum.map((v, i) => v + added[stretch]![i]!)),
        days.length,
      ),
    ),
  }

  /** In the cells that one change touches: what all the others let through, times the difference that it makes. */
  function putBack(now: Mask, before: Mask, c: number, added: Int32Array): void {
    const firstRow = Math.min(now.brush.firstRow, before.brush.firstRow)
    const endRow = Math.max(now.brush.endRow, before.brush.endRow)
    for (let row = firstRow; row < endRow; row++) {
      const to = Math.max(now.brush.touchedTo[row]!, before.brush.touchedTo[row]!)
      for (let i = Math.min(now.brush.touchedFrom[row]!, before.brush.touchedFrom[row]!); i < to; i++) {
        const difference = before.share[i]! - now.share[i]!
        if (difference === 0) continue
        let others = rest[i]!
        for (let j = 0; j < nowMasks.length && others > 0; j++)
          if (j !== c) others = times(others, nowMasks[j]!.share[i]!)
        added[i]! += Math.round((others * difference) / FULL_LIGHT)
      }
    }
  }
}

/** In the cells that any of some shadows touches: adds what they take from what the rest lets through. */
function addTaken(
  { rows, count }: Raster,
  masks: readonly Mask[],
  rest: Uint16Array,
  taken: Int32Array,
): void {
  let firstRow = rows
  let endRow = 0
  for (const { brush } of masks) {
    firstRow = Math.min(firstRow, brush.firstRow)
    endRow = Math.max(endRow, brush.endRow)
  }
  for (let row = firstRow; row < endRow; row++) {
    let from = count
    let to = 0
    for (const { brush } of masks) {
      from = Math.min(from, brush.touchedFrom[row]!)
      to = Math.max(to, brush.touchedTo[row]!)
    }
    for (let i = from; i < to; i++) {
      let share = rest[i]!
      for (let j = 0; j < masks.length && share > 0; j++) share = times(share, masks[j]!.share[i]!)
      taken[i]! += rest[i]! - share
    }
  }
}

/**
 * The same sun over the garden as it stands on each of several days: the fields of a season of its first day. What stands alike on
 * all of them is drawn once; what does not is reckoned, day by day, in the cells that its shadow touches.
 */
export function lightFieldsOn(
  scene: Scene,
  raster: Raster,
  days: readonly IsoDate[],
  ground: Ground = LEVEL,
): FieldHours[] {
  const [first] = days
  if (first === undefined) return []
  const period: LightPeriod = { kind: 'season', on: first }
  const changing = new Set(days.flatMap((day) => changedBetween(scene.obstructions, first, day)))
  const still = { ...scene, obstructions: scene.obstructions.filter((o) => !changing.has(o)) }
  const dates = daysOf(scene, period)
  const standings = days.map((day) => ({
    mask: new Mask(raster, [...changing], day, dates),
    taken: newDifferences(raster.count),
  }))
  const brush = new ShadowBrush(raster)
  const rest = new Uint16Array(raster.count)
  const sums = newSums(raster.count)
  const lit = preparedDays(still, raster, period, ground)
  lit.forEach((day, k) => {
    for (const d of day.directions) {
      rest.fill(FULL_LIGHT)
      for (const p of day.prepared) brush.draw(p, d, rest)
      addTo(sums[stretchOf(d)]!, rest)
      for (const { mask, taken } of standings) {
        mask.draw(k, d)
        addTaken(raster, [mask], rest, taken[stretchOf(d)]!)
        mask.wipe()
      }
    }
  })
  return standings.map(({ taken }) => inHours(less(sums, taken), lit.length))
}

/** Two shares of light, one after the other. */
const times = (a: number, b: number): number => (a * b + FULL_LIGHT / 2) >>> 15

/** The shadow of some obstructions on the cells, drawn for one position of the sun at a time. */
class Mask {
  readonly brush: ShadowBrush
  readonly share: Uint16Array
  private readonly ofDay: Prepared[][]

  /** @param dates the days of a period, whose leaf they are in */
  constructor(
    raster: Raster,
    obstructions: readonly Obstruction[],
    standsOn: string,
    dates: readonly string[],
  ) {
    this.brush = new ShadowBrush(raster)
    this.share = new Uint16Array(raster.count).fill(FULL_LIGHT)
    const preparedOf = preparing(raster)
    this.ofDay = dates.map((date) =>
      obstructions.flatMap((o) => {
        const solid = standing(o, standsOn, date)
        return solid ? [preparedOf(solid)] : []
      }),
    )
  }

  draw(day: number, d: Direction): void {
    for (const prepared of this.ofDay[day]!) this.brush.draw(prepared, d, this.share)
  }

  wipe(): void {
    const { brush } = this
    for (let row = brush.firstRow; row < brush.endRow; row++)
      this.share.fill(
        FULL_LIGHT,
        brush.touchedFrom[row]!,
        Math.max(brush.touchedFrom[row]!, brush.touchedTo[row]!),
      )
    brush.forget()
  }
}

/**
 * The light of a scene ready for one obstruction to be changed: for every position of the sun, what all the others let
 * through. A supposition then draws one shadow instead of all.
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
    const preparedOf = preparing(this.raster)
    this.days.forEach((day, k) => {
      const solid = changed && standing(changed, standsOn, this.dates[k])
      if (!solid) return
      const prepared = preparedOf(solid)
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
