import type { RelocatedView, SaidDestination, WaysView } from '@border/contract'
import {
  flowersOf,
  groundRadiusM,
  noRoomFor,
  offeredFor,
  palettesFor,
  priceOf,
  relocate,
  relocationOf,
  sitedGarden,
  suits,
  suspectedMoisture,
  trayFor,
  waysOut,
  wishesFor,
  type Candidate,
  type Destination,
  type GardenRelocation,
  type GroundToSite,
  type IsoDate,
  type LaidSpot,
  type PaletteAnswer,
  type PaletteWishes,
  type PlaceToPlant,
  type PlaceWishes,
  type Planting,
  type Relocation,
  type RelocationProblem,
  type SitedGarden,
  type SuspectedChange,
  type TakenGround,
  type Taxon,
  type TrayCandidate,
  type WayOut,
} from '@border/core'
import { solver } from './solver.ts'

// What a rework asks of the compute threads.

export interface SitesTask {
  ground: Omit<GroundToSite, 'suspected'> & { suspected: readonly SuspectedChange[] }
  on: IsoDate
  /** How far apart stations are, metres. */
  cellM: number
}

export const sites = ({ ground: { suspected, ...ground }, on, cellM }: SitesTask): SitedGarden =>
  sitedGarden({ ...ground, suspected: suspectedMoisture(suspected) }, on, cellM)

export interface RelocationTask {
  garden: SitedGarden
  standing: readonly Planting[]
  promised: readonly TakenGround[]
  leaving: readonly { plantingId: string; to: SaidDestination | null; worth: number }[]
}

/** Somebody points at a spot as near as this, metres. */
const POINTED_M = 0.6

/** What is asked, with what is decided as the optimum knows it; or what is decided for ground that is not free. */
function problemOf({
  garden,
  standing,
  promised,
  leaving,
}: RelocationTask): { of: GardenRelocation; problem: RelocationProblem } | { notFree: string[] } {
  const worth = new Map(leaving.map((l) => [l.plantingId, l.worth]))
  const of = relocationOf(garden, standing, new Set(worth.keys()), promised, (p) => worth.get(p.id) ?? 1)
  const decided: Record<string, Destination> = {}
  const notFree: string[] = []
  for (const { plantingId, to } of leaving) {
    if (!to) continue
    const spot = to.to === 'spot' ? spotAt(of.spots, to) : undefined
    if (to.to !== 'spot') decided[plantingId] = to
    else if (spot) decided[plantingId] = { to: 'spot', spotId: spot.id }
    else notFree.push(plantingId)
  }
  return notFree.length > 0 ? { notFree } : { of, problem: { ...of.problem, decided } }
}

const spotAt = (spots: readonly LaidSpot[], at: { placeId: string; x: number; y: number }) =>
  spots
    .filter((s) => s.place.id === at.placeId)
    .map((s) => ({ s, away: Math.hypot(s.x - at.x, s.y - at.y) }))
    .filter(({ s, away }) => away <= Math.max(POINTED_M, s.radiusM))
    .sort((a, b) => a.away - b.away)[0]?.s

const saidDestination = (spots: readonly LaidSpot[], destination: Destination): SaidDestination => {
  if (destination.to !== 'spot') return destination
  const { place, x, y } = spots.find((s) => s.id === destination.spotId)!
  return { to: 'spot', placeId: place.id, x, y }
}

export async function relocation(task: RelocationTask): Promise<RelocatedView> {
  const asked = problemOf(task)
  if ('notFree' in asked)
    return { ok: false, says: 'The ground that is decided for is not free.', noRoom: asked.notFree }
  const { of, problem } = asked
  const solve = await solver()
  const found = relocate(problem, solve)
  if (!found.ok)
    return found.why === 'limit'
      ? { ok: false, says: 'It could not be worked out: decide some of it first.', noRoom: [] }
      : {
          ok: false,
          says: 'There is not room for all that is decided.',
          noRoom: noRoomFor(problem, solve),
        }
  const plantingOf = new Map(task.standing.map((p) => [p.id, p]))
  return {
    ok: true,
    cost: found.cost,
    gap: found.gap,
    went: found.destinations.map(({ plantingId, destination, cost }) => ({
      plantingId,
      destination: saidDestination(of.spots, destination),
      cost,
      suiting: of.suitingOf(plantingOf.get(plantingId)!, destination) ?? null,
    })),
  }
}

/** So many places are told of for one planting. */
const MOST_PLACES = 6

/** What other ways would cost for one planting: the way out of it is left open, and each is asked for. */
export async function ways({
  plantingId,
  ...task
}: RelocationTask & { plantingId: string }): Promise<WaysView> {
  const free = {
    ...task,
    leaving: task.leaving.map((l) => (l.plantingId === plantingId ? { ...l, to: null } : l)),
  }
  const asked = problemOf(free)
  const none = {
    ways: Object.fromEntries(waysOut.map((w) => [w, null])) as Record<WayOut, number | null>,
    spots: [],
  }
  if ('notFree' in asked) return none
  const { of, problem } = asked
  const solve = await solver()
  const best = relocate(problem, solve)
  if (!best.ok) return none
  const planting = task.standing.find((p) => p.id === plantingId)!
  const price = (to: Destination) => priceOf(problem, best, plantingId, to, solve) ?? null
  return {
    ways: Object.fromEntries(waysOut.map((to) => [to, price({ to })])) as Record<WayOut, number | null>,
    spots: bestSpots(of, planting, best).flatMap((s) => {
      const more = price({ to: 'spot', spotId: s.id })
      if (more === null) return []
      const suiting = suits(planting.taxon, s.place, s.station, task.garden)
      return [{ placeId: s.place.id, x: s.x, y: s.y, more, suiting }]
    }),
  }
}

/** Of every other place the spot that would suit a planting best and has room for it; the one it goes to in any case. */
function bestSpots(of: GardenRelocation, planting: Planting, best: Relocation): LaidSpot[] {
  const went = best.destinations.find((d) => d.plantingId === planting.id)!.destination
  const score = (s: LaidSpot) => of.suitingOf(planting, { to: 'spot', spotId: s.id })!.score
  const roomy = of.spots
    .filter((s) => s.radiusM >= groundRadiusM(planting) - 1e-9 && s.place.id !== planting.placeId)
    .sort((a, b) => score(b) - score(a))
  const chosen = of.spots.find((s) => went.to === 'spot' && s.id === went.spotId)
  const others = roomy.filter(
    (s, i) => s.place !== chosen?.place && roomy.findIndex((o) => o.place === s.place) === i,
  )
  return [...(chosen ? [chosen] : []), ...others].slice(0, MOST_PLACES)
}

export interface ChoiceTask {
  place: PlaceToPlant
  have: readonly Omit<Candidate, 'fit'>[]
  library: readonly Taxon[]
  /** Of one, minor unit, by name. */
  prices: Readonly<Record<string, number>>
  wishes: PlaceWishes
}

const choiceOf = ({ place, have, library, prices, wishes }: ChoiceTask) => {
  const whole = wishesFor(place, wishes)
  return (
    whole && {
      wishes: whole,
      candidates: offeredFor(place, have, library, (kind) => prices[kind] ?? null, wishes.locked),
    }
  )
}

export interface TrayResult {
  wishes: PaletteWishes
  flowering: readonly (readonly string[])[]
  tray: TrayCandidate[]
}

/** Undefined where there is no ground to plant. */
export function tray(
  task: ChoiceTask & { chosen: readonly { taxon: Taxon; count: number }[] },
): TrayResult | undefined {
  const choice = choiceOf(task)
  if (!choice) return undefined
  const { candidates, wishes } = choice
  return {
    wishes,
    flowering: flowersOf(wishes, task.chosen),
    tray: trayFor(candidates, task.chosen, wishes),
  }
}

export interface PaletteResult {
  wishes: PaletteWishes
  answer: PaletteAnswer
}

export async function palette(task: ChoiceTask & { apart: string[][] }): Promise<PaletteResult | undefined> {
  const choice = choiceOf(task)
  if (!choice) return undefined
  const { candidates, wishes } = choice
  const answer = palettesFor(candidates, wishes, await solver(), { apart: task.apart, most: 1 })
  return { wishes, answer }
}
