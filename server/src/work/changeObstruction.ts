import type { ObstructionChangeRequest } from '@border/contract'
import {
  castsShade,
  checkFeature,
  obstructionOf,
  supposed,
  type Obstruction,
  type PlanFeature,
  type Supposition,
} from '@border/core'
import type { Db } from '../database/connect.ts'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { openEdit } from '../store/edits.ts'
import { findFeature, insertFeatureEvent, listFeatures } from '../store/gardens.ts'

/**
 * Makes what was supposed of an obstruction, or is believed of it, so from a day: gone is its last day, sizes are events of
 * that day, a move puts right where it is drawn.
 *
 * @returns the id of the edit that it is
 * @throws {Refusal} when it does not stand that day or the change makes no sense for it
 */
export async function changeObstruction(
  db: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  featureId: string,
  { date, change }: ObstructionChangeRequest,
): Promise<string | null> {
  const row = await findFeature(db, gardenId, featureId)
  if (!row) throw notFound('This part of the plan')
  if (!castsShade(row)) throw new Refusal(422, `A ${row.kind} casts no shade that could change.`)
  const feature = (await listFeatures(db, gardenId)).find((f) => f.id === featureId)!
  const now = obstructionOf(feature)!
  const supposition: Supposition = { ...change, obstructionId: featureId }
  const then = supposed(now, { ...supposition, gone: false }, date)
  if (!then) throw new Refusal(422, `${row.name} does not stand on ${date}.`)
  const edit = openEdit(db, { gardenId, personId, from: change.movedM ? null : date })
  if (change.gone) {
    await edit.change('features', featureId, { to_date: date })
    return edit.save()
  }
  for (const event of eventsOf(supposition, then, row.kind))
    await insertFeatureEvent(edit, { gardenId, personId }, featureId, { ...event, date })
  if (!change.movedM) return edit.save()
  const right = checkFeature(asFeature({ ...feature, geometry: geometryOf(then) }))
  if (!right.ok) throw fileRefusal(right.problems)
  await edit.change('features', featureId, { geometry: right.value.geometry })
  return edit.save()
}

function eventsOf(t: Supposition, then: Obstruction, kind: PlanFeature['kind']) {
  const events: (
    | { action: 'measured'; heightM: number; crownRadiusM?: number }
    | { action: 'limbed'; clearStemM: number }
    | { action: 'thinned'; fraction: number }
  )[] = []
  const crown = then.kind === 'tree' ? { crownRadiusM: then.crownRadiusM } : {}
  if (t.heightM !== undefined || t.crownRadiusM !== undefined || t.grownYears)
    events.push({ action: 'measured', heightM: then.heightM, ...crown })
  if (t.clearStemM !== undefined) {
    if (kind !== 'tree') throw new Refusal(422, 'Only a tree can be limbed up.')
    events.push({ action: 'limbed', clearStemM: t.clearStemM })
  }
  if (t.thinnedBy) {
    if (kind !== 'tree' && kind !== 'hedge') throw new Refusal(422, 'Only a tree or a hedge can be thinned.')
    events.push({ action: 'thinned', fraction: t.thinnedBy })
  }
  return events
}

/** A feature as an edit of the plan is given it. */
export const asFeature = ({ kind, name, from, to, geometry, properties }: PlanFeature) => ({
  type: 'Feature',
  properties: { ...properties, kind, name, from, to },
  geometry,
})

function geometryOf(o: Obstruction): PlanFeature['geometry'] {
  const copy = ([x, y]: readonly [number, number]): [number, number] => [x, y]
  switch (o.kind) {
    case 'tree':
      return { type: 'Point', coordinates: [o.x, o.y] }
    case 'building':
      return { type: 'Polygon', coordinates: [[...o.ring.map(copy), copy(o.ring[0]!)]] }
    default:
      return { type: 'LineString', coordinates: o.line.map(copy) }
  }
}

/** Something new that readings point to, as a building of the plan. */
export const newBuilding = (o: Extract<Obstruction, { kind: 'building' }>, from: string): PlanFeature => ({
  kind: 'building',
  name: 'New building, as read from the light',
  from,
  to: null,
  geometry: geometryOf(o),
  properties: { heightM: o.heightM, note: 'Put on the plan from readings: measure it when you can.' },
})
