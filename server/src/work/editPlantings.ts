import type { PlantingAmendment, PlantingRequest } from '@border/contract'
import {
  colourFollowsSoil,
  dayMonthYear,
  isInside,
  isPlace,
  ringOf,
  type IsoDate,
  type Ring,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { findOnBench, plantFromBench } from '../store/bench.ts'
import { openEdit, parkTags, type OpenEdit } from '../store/edits.ts'
import { findFeature } from '../store/gardens.ts'
import {
  findPlanting,
  insertEvents,
  listFirstEvents,
  listSitesOf,
  plantedEvents,
  type NewPlanting,
} from '../store/plantings.ts'
import { findTaxon } from '../store/taxa.ts'

interface Editing {
  gardenId: string
  personId: string
  practiceId: string
  today: IsoDate
}

/**
 * Enters plantings, all of them or none.
 *
 * @throws {Refusal} that names the tag of the first that cannot be so
 */
export async function addPlantings(
  db: Db,
  who: Editing,
  asked: readonly PlantingRequest[],
): Promise<{ editId: string | null; plantingIds: string[] }> {
  const edit = openEdit(db, who)
  const plantingIds: string[] = []
  for (const said of asked)
    plantingIds.push(await naming(said.tag, asked.length, () => enterPlanting(db, who, edit, said)))
  return { editId: await edit.save(), plantingIds }
}

/** Enters one planting as part of an edit. @returns its id */
export async function enterPlanting(
  db: Db,
  who: Editing,
  edit: OpenEdit,
  said: PlantingRequest,
): Promise<string> {
  const { gardenId } = who
  await requireSpot(db, gardenId, said)
  requirePast(said.plantedOn, who.today)
  const taxon = await taxonNamed(db, who.practiceId, said.taxonBotanical)
  const bench = said.benchId ? await findOnBench(db, gardenId, said.benchId) : undefined
  if (said.benchId && !bench) throw notFound('This on the bench')
  const id = randomUUID()
  await edit.insert('plantings', {
    id,
    garden_id: gardenId,
    taxon_id: taxon.id,
    tag: said.tag,
    planted_on: said.plantedOn,
    planted_known: said.plantedKnown ?? 'day',
    planted_count: said.count,
    source: said.source,
    parent_id: bench?.fromPlantingId ?? null,
    role: said.role || null,
  })
  await edit.insert('planting_sites', {
    id: randomUUID(),
    planting_id: id,
    garden_id: gardenId,
    place_id: said.placeId,
    x: said.x,
    y: said.y,
    radius_m: said.radiusM ?? null,
    outline: said.outline ?? null,
    from_date: said.plantedOn,
  })
  await insertEvents(db, plantedEvents(asNew(said, id, taxon.id, who)))
  if (said.benchId)
    await plantFromBench(db, edit, said.benchId, { count: said.count, on: said.plantedOn, plantingId: id })
  return id
}

const asNew = (
  said: PlantingRequest,
  id: string,
  taxonId: string,
  { gardenId, personId }: Editing,
): NewPlanting & { id: string } => ({
  id,
  gardenId,
  taxonId,
  personId,
  tag: said.tag,
  plantedOn: said.plantedOn,
  count: said.count,
  source: said.source,
  placeId: said.placeId,
  x: said.x,
  y: said.y,
  note: said.note,
})

/**
 * Puts plantings right, all of them or none: what is not said of one stays as it is.
 *
 * @returns the edit's id; null where nothing was otherwise
 * @throws {Refusal} that names the tag of the first that cannot be so
 */
export async function amendPlantings(
  db: Db,
  who: Editing,
  asked: readonly PlantingAmendment[],
): Promise<string | null> {
  const edit = openEdit(db, who)
  await parkTags(
    edit,
    asked.filter((a) => a.tag !== undefined).map((a) => a.plantingId),
  )
  for (const said of asked) await naming(said.tag, asked.length, () => amendOne(db, who, edit, said))
  return edit.save()
}

async function amendOne(db: Db, who: Editing, edit: OpenEdit, said: PlantingAmendment): Promise<void> {
  const planting = await findPlanting(db, who.gardenId, said.plantingId)
  if (!planting) throw notFound('This planting')
  const plantedOn = said.plantedOn ?? planting.plantedOn
  requirePast(plantedOn, who.today)
  if (plantedOn > planting.inPlaceSince && planting.inPlaceSince !== planting.plantedOn)
    throw new Refusal(
      422,
      `It came to its present place on ${dayMonthYear(planting.inPlaceSince)}: it was planted no later.`,
    )
  const botanical = said.taxonBotanical ?? planting.taxon.botanical
  const taxon = await taxonNamed(db, who.practiceId, botanical)
  const colourWish = said.colourWish === undefined ? planting.colourWish : said.colourWish
  if (said.colourWish && !colourFollowsSoil({ botanical }))
    throw new Refusal(
      422,
      `The flowers of ${botanical} do not follow the soil: no colour can be wished of them.`,
    )
  await edit.change('plantings', planting.id, {
    taxon_id: taxon.id,
    ...(said.tag === undefined ? {} : { tag: said.tag }),
    planted_on: plantedOn,
    planted_known: said.plantedKnown ?? planting.plantedKnown,
    planted_count: said.count ?? planting.plantedCount,
    source: said.source ?? planting.source,
    role: said.role === undefined ? planting.role : said.role || null,
    // What does not follow the soil has no colour to wish for.
    colour_wish: colourFollowsSoil({ botanical }) ? colourWish : null,
  })
  await amendSites(db, who, edit, planting, said, plantedOn)
}

async function amendSites(
  db: Db,
  { gardenId }: Editing,
  edit: OpenEdit,
  planting: NonNullable<Awaited<ReturnType<typeof findPlanting>>>,
  said: PlantingAmendment,
  plantedOn: IsoDate,
): Promise<void> {
  const isElsewhere = [said.placeId, said.x, said.y, said.radiusM, said.outline].some((v) => v !== undefined)
  const sites = await listSitesOf(db, gardenId, planting.id)
  if (isElsewhere) {
    const spot = {
      placeId: said.placeId ?? planting.placeId,
      x: said.x ?? planting.x,
      y: said.y ?? planting.y,
      radiusM: said.radiusM === undefined ? planting.radiusM : said.radiusM,
      outline: said.outline === undefined ? planting.outline : said.outline,
    }
    await requireSpot(db, gardenId, spot)
    await edit.change('planting_sites', sites.at(-1)!.id, {
      place_id: spot.placeId,
      x: spot.x,
      y: spot.y,
      radius_m: spot.radiusM,
      outline: spot.outline,
    })
  }
  if (plantedOn === planting.plantedOn) return
  // The first of its places, and the event that it was planted, begin with it; so does what was counted that day.
  for (const { id } of sites.filter((s) => s.from_date === planting.plantedOn))
    await edit.change('planting_sites', id, { from_date: plantedOn })
  for (const { id } of await listFirstEvents(db, planting.id, planting.plantedOn))
    await edit.change('planting_events', id, { on_date: plantedOn })
}

/** @throws {Refusal} with the tag before it where several are asked at once */
async function naming<T>(tag: string | undefined, of: number, work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    if (of === 1 || !tag || !(error instanceof Refusal)) throw error
    throw new Refusal(error.status, `${tag}: ${error.message}`, error.problems)
  }
}

function requirePast(plantedOn: IsoDate, today: IsoDate): void {
  if (plantedOn > today) throw new Refusal(422, 'The planting date lies ahead.')
}

async function requireSpot(
  db: Db,
  gardenId: string,
  { placeId, x, y, outline }: { placeId: string; x: number; y: number; outline?: Ring | null | undefined },
): Promise<void> {
  const place = await findFeature(db, gardenId, placeId)
  if (!place || !isPlace(place)) throw notFound('This place')
  if (place.kind === 'bed' && !isInside(ringOf(place.geometry), x, y))
    throw new Refusal(422, `This spot lies outside ${place.name}.`)
  if (outline && place.kind !== 'bed')
    throw new Refusal(422, `A drift is drawn in a bed; ${place.name} is none.`)
  if (outline && !isInside(outline, x, y)) throw new Refusal(422, 'This spot lies outside its own outline.')
}

async function taxonNamed(db: Db, practiceId: string, botanical: string) {
  const taxon = await findTaxon(db, practiceId, botanical)
  if (!taxon) throw new Refusal(422, `${botanical} is not in the plant library.`)
  return taxon
}
