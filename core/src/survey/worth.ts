import { group } from 'd3-array'
import type { IsoDate } from '../dates/index.ts'
import { obstructionOf, type Feature } from '../garden/index.ts'
import {
  frozen,
  hoursGainedBy,
  supposed,
  type LightPoint,
  type Obstruction,
  type Scene,
} from '../light/index.ts'

/** A size of something that casts shade. */
export type ShadingSize = 'heightM' | 'crownRadiusM' | 'clearStemM'

/** What measuring a size better is worth, by what its error does to the light of the plantings. */
export interface MeasuringWorth {
  featureId: string
  name: string
  size: ShadingSize
  valueM: number
  /** One standard error, metres. */
  sdM: number
  /** Nobody has said how it was measured: the error is assumed. */
  isAssumed: boolean
  /** Hours of sun a day over the growing season that one standard error either way moves, at the planting it moves most. */
  mostHours: number
  /** Which planting that is. */
  at: string
  /** The same, on average over the plantings that it moves at all. */
  meanHours: number
  /** How many it moves by five minutes and more. */
  moved: number
}

/** A size that somebody put down without saying how: out by a tenth, and by no less than so much. A judgement. */
const ASSUMED = { share: 0.1, leastM: 0.2 }
/** Less than this nobody would notice, hours. */
const NOTICED_HOURS = 1 / 12

const sizesOf = (o: Obstruction): readonly ShadingSize[] =>
  o.kind === 'tree' ? ['heightM', 'crownRadiusM', 'clearStemM'] : ['heightM']

const sizeIn = (o: Obstruction, size: ShadingSize): number =>
  size === 'heightM' ? o.heightM : o.kind === 'tree' ? o[size] : 0

/**
 * Which measurement is worth taking better: of every size of what casts shade, how much the sun at the plantings hangs on its error;
 * most first. Half the difference between a standard error more and one less, over the growing season.
 *
 * @param plantings their points, by id
 * @returns only what moves the light of some planting by five minutes and more
 */
export function measuringWorth(
  scene: Scene,
  features: readonly Feature[],
  plantings: readonly { id: string; point: LightPoint }[],
  on: IsoDate,
): MeasuringWorth[] {
  const tried = features.flatMap((f) => triedOf(f, on))
  if (plantings.length === 0 || tried.length === 0) return []
  // Each size of one obstruction is an obstruction of its own here: its states are told apart by their order.
  const byId = group(tried, (t) => t.featureId)
  const gained = hoursGainedBy(
    scene,
    { kind: 'season', on },
    [...byId].map(([obstructionId, sizes]) => ({
      obstructionId,
      states: sizes.flatMap((s) => s.states),
      areDarker: true,
    })),
  )
  const moves = new Map(tried.map((t) => [t, [] as { id: string; hours: number }[]]))
  for (const { id, point } of plantings)
    for (const [obstructionId, hours] of gained(point, [...byId.keys()]))
      byId.get(obstructionId)!.forEach((t, i) => {
        const by = Math.abs(hours[2 * i]!.total - hours[2 * i + 1]!.total) / 2
        if (by >= NOTICED_HOURS) moves.get(t)!.push({ id, hours: by })
      })
  return tried
    .flatMap((t): MeasuringWorth[] => {
      const moved = moves.get(t)!
      if (moved.length === 0) return []
      const most = moved.reduce((a, b) => (b.hours > a.hours ? b : a))
      const { states: _, ...size } = t
      return [
        {
          ...size,
          mostHours: most.hours,
          at: most.id,
          meanHours: moved.reduce((sum, m) => sum + m.hours, 0) / moved.length,
          moved: moved.length,
        },
      ]
    })
    .sort((a, b) => b.meanHours * b.moved - a.meanHours * a.moved)
}

interface Tried extends Pick<MeasuringWorth, 'featureId' | 'name' | 'size' | 'valueM' | 'sdM' | 'isAssumed'> {
  /** A standard error more, and one less. */
  states: [Obstruction, Obstruction]
}

function triedOf(f: Feature, on: IsoDate): Tried[] {
  const o = obstructionOf(f)
  const now = o && frozen(o, on)
  if (!now) return []
  const said = (f.properties.standardErrors ?? {}) as Partial<Record<ShadingSize, number>>
  return sizesOf(now).flatMap((size): Tried[] => {
    const valueM = sizeIn(now, size)
    const own = said[size]
    const sdM = own ?? Math.max(ASSUMED.leastM, ASSUMED.share * valueM)
    if (valueM <= 0 || sdM <= 0) return []
    const [more, less] = [valueM + sdM, Math.max(0.05, valueM - sdM)].map((to) =>
      supposed(now, { obstructionId: f.id, [size]: to }, on),
    )
    if (!more || !less) return []
    return [
      {
        featureId: f.id,
        name: f.name,
        size,
        valueM,
        sdM,
        isAssumed: own === undefined,
        states: [more, less],
      },
    ]
  })
}
