import type { Climate } from '../climate/index.ts'
import { careRules, gardenYear, windowsOf } from '../care/index.ts'
import { addDays, daysBetween, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { vesselOf, type PlanFeature } from '../garden/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { Milp, type MilpTerm, type SolveMilp } from '../search/index.ts'
import { potRoleOf } from './fitting.ts'
import { DAYS_A_YEAR, wantedDepthM } from './inPot.ts'

/** A woody plant of a container. */
export interface PottedWoody {
  id: string
  taxon: Taxon
  plantedOn: IsoDate
  potId: string
}

/** A container that woody plants may be potted on to. */
export interface LinePot {
  id: string
  depthM: number
  /** Filled by seasons: taking it costs a display. */
  isSeasonal: boolean
}

/** Where a plant is in one season. */
export interface LineStep {
  season: number
  /** The ground where null. */
  potId: string | null
  /** It moves in that spring. */
  isMoved: boolean
  /** Its roots have filled what it stands in: they are pruned, every third spring. */
  isPruned: boolean
  isBound: boolean
}

/** Woody plants along the line of containers that a garden owns. */
export interface PottingOn {
  plants: { id: string; steps: LineStep[] }[]
  /** What it costs all together, in the points below. */
  cost: number
}

/** Points, one scale: what a season costs in which roots want so many times the depth they have, or have so many times what they want. */
export const linePoints = {
  short: 10,
  over: 4,
  /** A pot is too large for a ball from so many times the depth it wants on: what roots do not draw from stays wet. */
  overFrom: 1.7,
  move: 1.5,
  /** A seasonal display given up, each season. */
  display: 3,
  /** Given to the ground, once, and each season that it is not in its pot. */
  toGround: 4,
  inGround: 1,
} as const

/** Seasons that woody plants of containers are looked ahead over. */
const SEASONS = 6
/** So long after midwinter spring is over: what is potted on is so in the next. */
const SPRING_DAYS = 150

/** The seasons that a line is told of: from the one whose spring comes next. */
export function lineSeasons(on: IsoDate, south: boolean): number[] {
  const first = seasonYearOf(addDays(on, 365 - SPRING_DAYS), south)
  return Array.from({ length: SEASONS }, (_, i) => first + i)
}

/**
 * The woody plant of a container that tells when it is potted on: of several the others go with the tallest, and what hangs over the edge of
 * others goes with those; undefined where there is none.
 */
export const leadingWoody = <P extends { taxon: Taxon; role: string | null }>(
  plants: readonly P[],
): P | undefined =>
  plants
    .filter((p) => isWoody(p.taxon) && potRoleOf(p.role) !== 'trailer')
    .reduce<P | undefined>((a, b) => (a && a.taxon.heightM >= b.taxon.heightM ? a : b), undefined)

/** The containers of a line as it is worked out. A hanging one takes no shrub that is not in it. */
export const linePots = (
  pots: readonly (Pick<PlanFeature, 'properties'> & {
    id: string
    plantings: readonly { taxon: Taxon; role: string | null }[]
  })[],
): LinePot[] =>
  pots.flatMap((p): LinePot[] => {
    const vessel = vesselOf(p)
    const isSeasonal = p.plantings.length > 0 && leadingWoody(p.plantings) === undefined
    return vessel.shape === 'hanging' && leadingWoody(p.plantings) === undefined
      ? []
      : [{ id: p.id, depthM: vessel.depthM, isSeasonal }]
  })

const PRUNED_EVERY = 3

const yearsAt = ({ plantedOn }: PottedWoody, season: number, on: IsoDate, south: boolean): number =>
  daysBetween(plantedOn, on) / DAYS_A_YEAR + (season - seasonYearOf(on, south))

/** What a season of a plant in a pot costs, without moving there. */
export function seasonCost(plant: PottedWoody, pot: LinePot, years: number): number {
  const wanted = wantedDepthM(plant.taxon, years)
  const short = Math.max(0, wanted / pot.depthM - 1)
  // What it has lived in is not too large for it, and no other display is given up for it.
  if (pot.id === plant.potId) return linePoints.short * short
  const over = Math.max(0, pot.depthM / (linePoints.overFrom * wanted) - 1)
  return linePoints.short * short + linePoints.over * over + (pot.isSeasonal ? linePoints.display : 0)
}

/**
 * Which plant stands in which container in each of the seasons ahead: the assignment over all of them that costs least, each container with one
 * plant at most, none to a shallower one, out to the ground for good where that is better. A mixed-integer programme.
 *
 * @param seasons the first is the one whose spring comes next
 * @param suitsGround whether a plant would live in the open ground here
 */
export function pottingOn(
  plants: readonly PottedWoody[],
  pots: readonly LinePot[],
  seasons: readonly number[],
  { on, south, suitsGround }: { on: IsoDate; south: boolean; suitsGround: (plant: PottedWoody) => boolean },
  solve: SolveMilp,
): PottingOn {
  const milp = new Milp()
  const depthOf = new Map(pots.map((p) => [p.id, p.depthM]))
  const stands = plants.map((plant) => {
    const now = depthOf.get(plant.potId)!
    const ground = suitsGround(plant)
    const candidates = pots.filter((p) => p.id === plant.potId || p.depthM > now)
    return seasons.map((season) => ({
      at: candidates.map((pot) => ({
        pot,
        variable: milp.binary(seasonCost(plant, pot, yearsAt(plant, season, on, south))),
      })),
      ground: ground ? milp.binary(linePoints.inGround) : undefined,
    }))
  })
  stands.forEach((ofPlant, i) =>
    ofPlant.forEach((here, k) => {
      const all: MilpTerm[] = here.at.map((a) => [a.variable, 1])
      milp.row(here.ground === undefined ? all : [...all, [here.ground, 1]], 1, 1)
      const before = ofPlant[k - 1]
      const wasAt = (potId: string) => before?.at.find((a) => a.pot.id === potId)?.variable
      // Moved to where it was not the season before.
      for (const { pot, variable } of here.at) {
        if (!before && pot.id === plants[i]!.potId) continue
        const moved = milp.amount(linePoints.move, 1)
        const was = wasAt(pot.id)
        milp.row(
          [[variable, 1], [moved, -1], ...(was === undefined ? [] : [[was, -1] as const])],
          -Infinity,
          0,
        )
      }
      if (here.ground !== undefined) {
        const moved = milp.amount(linePoints.toGround, 1)
        milp.row(
          [
            [here.ground, 1],
            [moved, -1],
            ...(before?.ground === undefined ? [] : [[before.ground, -1] as const]),
          ],
          -Infinity,
          0,
        )
        // What is in the ground stays there.
        if (before?.ground !== undefined)
          milp.row(
            [
              [here.ground, 1],
              [before.ground, -1],
            ],
            0,
            1,
          )
      }
      if (!before) return
      const deepest = Math.max(...here.at.map((a) => a.pot.depthM))
      milp.row(
        [
          ...here.at.map((a) => [a.variable, a.pot.depthM] as const),
          ...before.at.map((a) => [a.variable, -a.pot.depthM] as const),
          ...(here.ground === undefined ? [] : [[here.ground, deepest] as const]),
        ],
        0,
        Infinity,
      )
    }),
  )
  seasons.forEach((_, k) =>
    pots.forEach((pot) => {
      const claims = stands.flatMap((s): MilpTerm[] =>
        s[k]!.at.flatMap((a) => (a.pot === pot ? [[a.variable, 1]] : [])),
      )
      if (claims.length > 1) milp.row(claims, 0, 1)
    }),
  )
  const found = solve(milp, { gap: 0, nodes: 20_000 })
  if (!found.ok)
    return { plants: plants.map((p) => ({ id: p.id, steps: stayed(p, seasons) })), cost: Infinity }
  const steps = plants.map((plant, i): PottingOn['plants'][number] => {
    let was: string | null = plant.potId
    let boundFor = 0
    return {
      id: plant.id,
      steps: seasons.map((season, k): LineStep => {
        const at = stands[i]![k]!.at.find((a) => found.values[a.variable]! > 0.5)?.pot
        const potId = at?.id ?? null
        const isMoved = potId !== was
        const isBound =
          at !== undefined && wantedDepthM(plant.taxon, yearsAt(plant, season, on, south)) > at.depthM
        boundFor = isMoved || !isBound ? 0 : boundFor + 1
        was = potId
        return { season, potId, isMoved, isBound, isPruned: boundFor % PRUNED_EVERY === 1 }
      }),
    }
  })
  return { plants: steps, cost: found.cost }
}

const stayed = ({ potId }: PottedWoody, seasons: readonly number[]): LineStep[] =>
  seasons.map((season) => ({ season, potId, isMoved: false, isBound: false, isPruned: false }))

/** The best days for what is done in a step, by the rule of potting on; null where nothing is, or the rule has none here. */
export function windowOfStep(
  taxon: Taxon,
  climate: Climate,
  { season, isMoved, isPruned }: Pick<LineStep, 'season' | 'isMoved' | 'isPruned'>,
): { from: IsoDate; to: IsoDate } | null {
  if (!isMoved && !isPruned) return null
  const rule = careRules.find((r) => r.id === 'pot-on-woody')!
  const window = windowsOf(rule, [gardenYear(climate, season)], taxon, '0000-01-01').windows[0]
  return window ? { from: window.bestFrom, to: window.bestTo } : null
}
