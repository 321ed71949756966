import type { PlanEdit } from '@border/contract'
import {
  carried,
  castsShade,
  changedFrom,
  checkFeature,
  isInside,
  isPlace,
  listed,
  ringOf,
  type Affine,
  type PlanFeature,
  type Point,
  type Ring,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { Db } from '../database/connect.ts'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { openEdit, type OpenEdit } from '../store/edits.ts'
import { findFeature, nextPosition, type FeatureRow } from '../store/gardens.ts'
import { everPlanted, listSites, standingIn, type SiteRow } from '../store/plantings.ts'

interface Editing {
  gardenId: string
  personId: string
}

/** An edit with its defaults filled in. */
type Asked = Required<Omit<PlanEdit, 'from'>> & { from?: string | undefined }

const asRow = ({ kind, name, from, to, geometry, properties }: PlanFeature) => ({
  kind,
  name,
  from_date: from,
  to_date: to,
  geometry,
  properties,
})

const ofRow = ({ kind, name, from_date, to_date, geometry, properties }: FeatureRow): PlanFeature => ({
  kind,
  name,
  from: from_date,
  to: to_date,
  geometry,
  properties,
})

/**
 * Puts the plan otherwise, with what grows on it: as a correction, or as what happened on a day. All of it, or nothing.
 *
 * @returns the edit's id; null where nothing was otherwise
 * @throws {Refusal} where a part is faulty or gone, a planting would stand outside its bed, or something still hangs on what goes
 */
export async function editPlan(db: Db, who: Editing, asked: Asked): Promise<string | null> {
  const edit = openEdit(db, { ...who, from: asked.from })
  const touched = new Set<string>()
  for (const part of asked.parts) {
    const id = await editPart(db, who.gardenId, edit, part, asked.from)
    if (id) touched.add(id)
  }
  for (const { placeId, by } of asked.carried)
    await carryPlantings(db, who.gardenId, edit, placeId, by, asked.from)
  for (const { from, to } of asked.rehomed) await rehome(db, who.gardenId, edit, from, to)
  for (const s of asked.settled) {
    touched.add(s.placeId)
    await settle(db, who.gardenId, edit, s, asked.from)
  }
  for (const id of asked.withdrawn) await edit.change('plantings', id, { withdrawn: true })
  for (const id of touched) await requireRoom(db, who.gardenId, id, asked.from)
  return edit.save()
}

/** @returns the id of what is on the plan by it */
async function editPart(
  db: Db,
  gardenId: string,
  edit: OpenEdit,
  { id, feature }: { id: string; feature?: unknown },
  from: string | undefined,
): Promise<string | undefined> {
  const row = await findFeature(db, gardenId, id)
  if (feature === null) {
    if (!row) throw notFound('This part of the plan')
    await edit.change('features', id, from ? { to_date: from } : { withdrawn: true })
    return id
  }
  const read = checkFeature(feature)
  if (!read.ok) throw fileRefusal(read.problems)
  if (!row) {
    await edit.insert('features', {
      id,
      garden_id: gardenId,
      position: await nextPosition(db, gardenId),
      ...asRow(from && !read.value.from ? { ...read.value, from } : read.value),
    })
    return id
  }
  if (row.kind !== read.value.kind && isPlace(row) && !isPlace(read.value) && (await everPlanted(db, id)))
    throw new Refusal(409, `Plants stand or stood in ${row.name}: it cannot be made a ${read.value.kind}.`)
  const right = withEventsOf(row, read.value)
  if (!from || isDeepStrictEqual(right.geometry, row.geometry)) {
    await edit.change('features', id, asRow(right))
    return id
  }
  if (row.from_date && from <= row.from_date)
    throw new Refusal(422, `${row.name} only came on ${row.from_date}: it changed on a later day.`)
  return castsShade(row)
    ? standsAnew(db, gardenId, edit, row, right, from)
    : changeInPlace(edit, row, right, from)
}

/** What was recorded of it since stays recorded by itself: only what came with a file is the plan's own. */
function withEventsOf(row: FeatureRow, right: PlanFeature): PlanFeature {
  const { events: _, ...properties } = right.properties
  const { events } = row.properties
  return { ...right, properties: events ? { ...properties, events } : properties }
}

/** What casts shade and is changed in the garden is gone as it was, and stands anew: the light of both days is told from that. */
async function standsAnew(
  db: Db,
  gardenId: string,
  edit: OpenEdit,
  row: FeatureRow,
  right: PlanFeature,
  from: string,
): Promise<string> {
  const id = randomUUID()
  await edit.change('features', row.id, { to_date: from })
  await edit.insert('features', {
    id,
    garden_id: gardenId,
    position: await nextPosition(db, gardenId),
    ...asRow({ ...right, from, to: row.to_date }),
  })
  return id
}

async function changeInPlace(
  edit: OpenEdit,
  row: FeatureRow,
  right: PlanFeature,
  from: string,
): Promise<string> {
  await edit.change('features', row.id, asRow(changedFrom(ofRow(row), right, from)))
  return row.id
}

/** Everything that grows, or grew, in a place goes where the place goes; of what happened on a day only what grows there. */
async function carryPlantings(
  db: Db,
  gardenId: string,
  edit: OpenEdit,
  placeId: string,
  by: Affine,
  from: string | undefined,
): Promise<void> {
  for (const site of await listSites(db, gardenId, placeId)) {
    if (from && site.to_date !== null) continue
    const [x, y] = carried(by, [site.x, site.y])
    await moveTo(
      gardenId,
      edit,
      site,
      { placeId, x, y, outline: site.outline?.map((p) => carried(by, p)) ?? null },
      from,
    )
  }
}

interface Spot {
  placeId: string
  x: number
  y: number
  outline: Ring | null
}

/** A site put elsewhere: it always was there or, from a day, it is a move. */
async function moveTo(
  gardenId: string,
  edit: OpenEdit,
  site: SiteRow,
  { placeId, x, y, outline }: Spot,
  from: string | undefined,
): Promise<void> {
  if (!from || from <= site.from_date) {
    await edit.change('planting_sites', site.id, { place_id: placeId, x, y, outline })
    return
  }
  await edit.change('planting_sites', site.id, { to_date: from })
  await edit.insert('planting_sites', {
    id: randomUUID(),
    planting_id: site.planting_id,
    garden_id: gardenId,
    place_id: placeId,
    x,
    y,
    radius_m: site.radius_m,
    outline,
    from_date: from,
  })
}

/** What grows, or grew, in one place and lies in the outline of another belongs to that. */
async function rehome(db: Db, gardenId: string, edit: OpenEdit, from: string, to: string): Promise<void> {
  const place = await placeNow(db, gardenId, to)
  const old = await findFeature(db, gardenId, from)
  for (const site of await listSites(db, gardenId, from)) {
    const stays = old && place.kind === 'bed' && !isInside(ringOf(place.geometry), site.x, site.y)
    if (!stays) await edit.change('planting_sites', site.id, { place_id: to })
  }
}

async function settle(
  db: Db,
  gardenId: string,
  edit: OpenEdit,
  { plantingId, placeId, x, y }: { plantingId: string; placeId: string; x: number; y: number },
  from: string | undefined,
): Promise<void> {
  await placeNow(db, gardenId, placeId)
  const site = await standingIn(db, gardenId, plantingId)
  if (!site) throw notFound('This planting')
  const by: Point = [x - site.x, y - site.y]
  const outline = site.outline?.map(([ox, oy]): Point => [ox + by[0], oy + by[1]]) ?? null
  await moveTo(gardenId, edit, site, { placeId, x, y, outline }, from)
}

async function placeNow(db: Db, gardenId: string, id: string) {
  const place = await findFeature(db, gardenId, id)
  if (!place || !isPlace(place)) throw notFound('This place')
  return place
}

/** Nobody grows nowhere: what stands in a place stands inside it, and what is off the plan holds nothing. */
async function requireRoom(db: Db, gardenId: string, id: string, from: string | undefined): Promise<void> {
  const row = await findFeature(db, gardenId, id)
  const sites = await listSites(db, gardenId, id)
  const present = sites.filter((s) => s.to_date === null)
  if (!row) {
    if (sites.length > 0)
      throw new Refusal(
        409,
        `Plants stand or stood there (${tagsOf(sites)}): put them elsewhere or take them out with it, or give it a last day instead.`,
      )
    return
  }
  if (from !== undefined && row.to_date === from && present.length > 0)
    throw new Refusal(409, `${tagsOf(present)} still stand in ${row.name}: say first where they went.`)
  if (row.kind !== 'bed') return
  const ring = ringOf(row.geometry)
  const outside = present.filter((s) => !isInside(ring, s.x, s.y))
  if (outside.length > 0)
    throw new Refusal(422, `${tagsOf(outside)} would stand outside ${row.name}: say where they stand.`)
}

const MOST_NAMED = 12
const tagsOf = (sites: readonly SiteRow[]): string => {
  const tags = [...new Set(sites.map((s) => s.tag))]
  const more = tags.length - MOST_NAMED
  return listed(more > 0 ? [...tags.slice(0, MOST_NAMED), `${more} more`] : tags)
}
