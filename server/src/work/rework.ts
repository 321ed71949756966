import {
  actionOn,
  CELL_M,
  goesElsewhere,
  placesOn,
  plantingDivided,
  plantingM2,
  regionsAt,
  type Candidate,
  type Climate,
  type Place,
  type PlaceWishes,
  type SitedGarden,
  type StationedPlace,
} from '@border/core'
import type { PlantingView } from '@border/contract'
import { derive } from '../derived.ts'
import { notFound, Refusal } from '../errors.ts'
import type { GardenReader } from '../reader.ts'
import { listBench } from '../store/bench.ts'
import { listReworks } from '../store/reworks.ts'
import { assessGardenOn, groundPromised, pricesKnown } from './assess.ts'
import type { ComputePool } from './compute.ts'
import { diagnoseGarden } from './diagnosis.ts'
import type { ChoiceTask, RelocationTask, SitesTask } from './reworkTasks.ts'

/** How far apart points are when a whole garden is looked at, metres. */
export const SITES_M = 0.5

/** What every point of a garden's places offers, or of the one asked for, closer together. */
function sitesOf(reader: GardenReader, pool: ComputePool, of?: Place): Promise<SitedGarden> {
  const { garden, today } = reader
  return derive(reader, ['sites', [today, of?.id ?? null]], async () => {
    const [features, { climate }, { suspected }] = await Promise.all([
      reader.features(),
      reader.climate(),
      diagnoseGarden(reader, pool),
    ])
    const { latitude, longitude, northDeg } = garden
    const ground: SitesTask['ground'] = {
      at: { latitude, longitude, northDeg },
      features,
      places: of ? [of] : placesOn(features, today),
      climate: climate ?? undefined,
      regions: regionsAt(garden),
      suspected,
    }
    return pool.run('sites', { ground, on: today, cellM: of ? CELL_M : SITES_M })
  })
}

/** A bed or pot of a garden as it stands today. @throws {Refusal} where there is none */
export async function placeOfGarden(reader: GardenReader, placeId: string): Promise<Place> {
  const found = placesOn(await reader.features(), reader.today).find((p) => p.id === placeId)
  if (!found) throw notFound('This bed or pot')
  return found
}

/** A place as its drifts are laid out in it. */
export async function groundOfPlace(
  reader: GardenReader,
  pool: ComputePool,
  placeId: string,
): Promise<StationedPlace> {
  const { places } = await sitesOf(reader, pool, await placeOfGarden(reader, placeId))
  if (!places[0]) throw new Refusal(409, 'This place is too small to be laid out.')
  return places[0]
}

/** All places of a garden, as whatever is to stand in them sees them. */
export const sitedGardenOf = (reader: GardenReader, pool: ComputePool): Promise<SitedGarden> =>
  sitesOf(reader, pool)

/** What is asked of where things go. @throws {Refusal} where something that leaves does not stand there */
export async function relocationTask(
  reader: GardenReader,
  pool: ComputePool,
  leaving: RelocationTask['leaving'],
): Promise<RelocationTask> {
  const standing = await reader.plantings()
  const here = new Set(standing.map((p) => p.id))
  if (leaving.some((l) => !here.has(l.plantingId))) throw notFound('One of the plantings that leave')
  const leavingIds = new Set(leaving.map((l) => l.plantingId))
  return {
    garden: await sitedGardenOf(reader, pool),
    standing,
    // What leaves now keeps to none of the ground that was promised it.
    promised: (await groundPromised(reader, reader.today)).filter((g) => !leavingIds.has(g.plantingId)),
    leaving,
  }
}

/** What is asked of the kinds for a place. */
export async function choiceTask(
  reader: GardenReader,
  pool: ComputePool,
  placeId: string,
  asked: {
    leavingIds: readonly string[]
    dividing: readonly Dividing[]
    wishes: Omit<PlaceWishes, 'areaM2'>
    areaM2?: number | undefined
  },
): Promise<ChoiceTask> {
  const place = await placeOfGarden(reader, placeId)
  const [garden, plantings, taxa, prices] = await Promise.all([
    sitedGardenOf(reader, pool),
    reader.plantings(),
    reader.taxa(),
    pricesKnown(reader),
  ])
  const of = garden.places.find((p) => p.place.id === place.id)
  if (!of) throw new Refusal(409, 'This place is too small to be planted.')
  const known = new Set(taxa.map((t) => t.taxon.botanical))
  const unknown = [...(asked.wishes.locked ?? [])].filter((name) => !known.has(name))
  if (unknown.length > 0)
    throw new Refusal(
      422,
      `${unknown.join(', ')} ${unknown.length === 1 ? 'is' : 'are'} no longer in the plant library.`,
    )
  return {
    place: {
      garden: { climate: climateOf(garden), regions: garden.regions },
      of,
      isSouthern: reader.garden.latitude < 0,
      on: reader.today,
      stays: plantings
        .filter((p) => p.placeId === placeId && !asked.leavingIds.includes(p.id))
        .map((p) => ({ taxon: p.taxon, areaM2: plantingM2(p) })),
    },
    have: await inHand(reader, await plantsElsewhere(reader, pool, placeId), asked.dividing),
    library: taxa.map((t) => t.taxon),
    prices: prices?.each ?? {},
    wishes: { ...asked.wishes, areaM2: asked.areaM2 },
  }
}

function climateOf({ climate }: SitedGarden): Climate {
  if (!climate)
    throw new Refusal(409, 'There is no climate record here to plan planting by: bring one in under Set-up.')
  return climate
}

/** What is divided, with what was measured or counted of a clump of it. */
interface Dividing {
  plantingId: string
  shoots?: number | undefined
  acrossM?: number | undefined
}

/** What one has of a kind. */
type InHand = Omit<Candidate, 'fit'> & { most: number }

/** What one has of kinds that could come in: off the bench, of what looks for ground elsewhere, and from what is divided. */
export async function inHand(
  reader: GardenReader,
  elsewhere: readonly PlantingView[],
  dividing: readonly Dividing[],
): Promise<InHand[]> {
  const { db, garden } = reader
  const [bench, plantings, taxa] = await Promise.all([
    listBench(db, garden.id),
    reader.plantings(),
    reader.taxa(),
  ])
  const taxonOf = new Map(taxa.map((t) => [t.taxon.botanical, t.taxon]))
  const plantingOf = new Map(plantings.map((p) => [p.id, p]))
  const found: { from: Candidate['from']; botanical: string; count: number }[] = [
    ...bench.map(({ botanical, count }) => ({ from: 'bench' as const, botanical, count })),
    ...elsewhere.map((p) => ({ from: 'place' as const, botanical: p.taxon.botanical, count: p.livingCount })),
    ...dividing.flatMap(({ plantingId, ...measured }) => {
      const p = plantingOf.get(plantingId)
      if (!p) return []
      const count = plantingDivided(p, reader.today, measured).spare
      return [{ from: 'division' as const, botanical: p.taxon.botanical, count }]
    }),
  ]
  const of = new Map<string, InHand>()
  for (const { from, botanical, count } of found) {
    const taxon = taxonOf.get(botanical)
    if (!taxon || count < 1) continue
    const known = of.get(botanical)
    // Of a kind that one has from several sides, all of it under the first.
    of.set(botanical, known ? { ...known, most: known.most + count } : { taxon, from, price: 0, most: count })
  }
  return [...of.values()]
}

/** Plants that look for ground; of all places but one, where one is named. */
export async function plantsElsewhere(
  reader: GardenReader,
  pool: ComputePool,
  placeId?: string,
): Promise<PlantingView[]> {
  const moving = await lookingForGround(reader, pool)
  return (await reader.plantings()).filter((p) => p.placeId !== placeId && moving.has(p.id))
}

/**
 * Plantings that are to leave where they stand and have no other ground yet: by the scheme of their place that was said of last (others
 * are other ways of doing the same); where their place has none, because they are judged to do better elsewhere, unless somebody has
 * decided otherwise or where to.
 */
async function lookingForGround(reader: GardenReader, pool: ComputePool): Promise<Set<string>> {
  const { db, garden, today } = reader
  const [reworks, plantings, decisions, promised, { assessments }] = await Promise.all([
    listReworks(db, garden.id),
    reader.plantings(),
    reader.decisions(),
    groundPromised(reader, today),
    assessGardenOn(reader, pool, today),
  ])
  const placeOf = new Map(plantings.map((p) => [p.id, p.placeId]))
  // What is carried out has its ground, or waits on the bench before long.
  const handled = new Set(
    (await reader.jobs()).filter((j) => j.schemeId && j.state === 'open').map((j) => j.plantingId),
  )
  const byScheme = reworks.flatMap((r) => {
    const [last] = r.schemes.toSorted((a, b) => (a.at < b.at ? 1 : -1))
    return (last?.said.leaving ?? []).filter(
      (l) =>
        l.how === 'leaves' &&
        (l.to === null || l.to.to === 'bench') &&
        placeOf.get(l.plantingId) === r.placeId &&
        !handled.has(l.plantingId),
    )
  })
  const decidedAnew = new Set(reworks.filter((r) => r.schemes.length > 0).map((r) => r.placeId))
  const hasGround = new Set(promised.map((g) => g.plantingId))
  const byVerdict = assessments.filter((a) => {
    return (
      goesElsewhere(actionOn(decisions, a, today)) &&
      !decidedAnew.has(placeOf.get(a.plantingId) ?? '') &&
      !hasGround.has(a.plantingId)
    )
  })
  return new Set([...byScheme, ...byVerdict].map((l) => l.plantingId))
}
