import type { FeatureRecord, GardenSummary, ObstructionEventRequest, Role } from '@border/contract'
import type { PlanFeature, SchoolId, Schools } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { crewIdOf, insertCrew, lockCrew } from './crews.ts'

/** A garden with the role that the person asking has in it. */
export interface GardenAccess extends GardenSummary {
  stationId: string | null
  schools: Schools
}

interface GardenRow {
  id: string
  name: string
  latitude: number
  longitude: number
  time_zone: string
  north_deg: number
  station_id: string | null
  schools: Schools
  role: Role
}

const gardenColumns = [
  'gardens.id',
  'name',
  'latitude',
  'longitude',
  'time_zone',
  'north_deg',
  'station_id',
  'schools',
  'role',
]

const toGarden = (row: GardenRow): GardenAccess => ({
  id: row.id,
  name: row.name,
  latitude: row.latitude,
  longitude: row.longitude,
  timeZone: row.time_zone,
  northDeg: row.north_deg,
  stationId: row.station_id,
  schools: row.schools,
  role: row.role,
})

export async function listGardensFor(db: Db, personId: string): Promise<GardenAccess[]> {
  const rows = await db('gardens')
    .join('memberships', 'garden_id', 'gardens.id')
    .where({ person_id: personId })
    .orderBy([{ column: 'gardens.created_at' }, { column: 'name' }])
    .select<GardenRow[]>(gardenColumns)
  return rows.map(toGarden)
}

export async function findGardenFor(
  db: Db,
  personId: string,
  gardenId: string,
): Promise<GardenAccess | undefined> {
  const row = await db('gardens')
    .join('memberships', 'garden_id', 'gardens.id')
    .where({ person_id: personId, garden_id: gardenId })
    .first<GardenRow | undefined>(gardenColumns)
  return row && toGarden(row)
}

/** A garden for work that no person asked for, with the clock its practice stands at. */
export async function findGardenForWork(
  db: Db,
  gardenId: string,
): Promise<{ garden: GardenAccess; clock: { demoDate: string | null; usesRealToday: boolean } } | undefined> {
  const row = await db('gardens')
    .join('practices', 'practices.id', 'practice_id')
    .where('gardens.id', gardenId)
    .first<(Omit<GardenRow, 'role'> & { demo_date: string | null; use_real_today: boolean }) | undefined>(
      ...gardenColumns.filter((c) => c !== 'role').map((c) => (c.includes('.') ? c : `gardens.${c}`)),
      'demo_date',
      'use_real_today',
    )
  if (!row) return undefined
  return {
    garden: toGarden({ ...row, role: 'keeper' }),
    clock: { demoDate: row.demo_date, usesRealToday: row.use_real_today },
  }
}

/** Gardens not re-checked on their practice's today. */
export async function listGardensNotChecked(db: Db): Promise<string[]> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(`
    select g.id
    from gardens g
    join practices p on p.id = g.practice_id
    left join rechecks r on r.garden_id = g.id
    where r.on_date is distinct from
      case when p.demo_date is not null and not p.use_real_today then p.demo_date
           else (now() at time zone g.time_zone)::date end`)
  return rows.map((r) => r.id)
}

export interface NewGarden {
  practiceId: string
  stationId: string | null
  name: string
  latitude: number
  longitude: number
  timeZone: string
  northDeg: number
  extra?: object
}

export async function insertGarden(db: Db, garden: NewGarden): Promise<string> {
  const id = randomUUID()
  await db('gardens').insert({
    id,
    crew_id: await insertCrew(db, garden.practiceId, garden.name),
    practice_id: garden.practiceId,
    station_id: garden.stationId,
    name: garden.name,
    latitude: garden.latitude,
    longitude: garden.longitude,
    time_zone: garden.timeZone,
    north_deg: garden.northDeg,
    extra: JSON.stringify(garden.extra ?? {}),
  })
  return id
}

export async function addMember(db: Db, gardenId: string, personId: string, role: Role): Promise<void> {
  await db('memberships')
    .insert({ garden_id: gardenId, person_id: personId, role })
    .onConflict(['person_id', 'garden_id'])
    .merge(['role'])
}

// Features: what stands on the plan

interface FeatureRow {
  id: string
  kind: FeatureRecord['kind']
  name: string
  geometry: FeatureRecord['geometry']
  properties: Record<string, unknown>
  from_date: string | null
  to_date: string | null
}

const featureColumns: (keyof FeatureRow)[] = [
  'id',
  'kind',
  'name',
  'geometry',
  'properties',
  'from_date',
  'to_date',
]

const valueName = {
  limbed: 'clearStemM',
  thinned: 'fraction',
  lowered: 'heightM',
  measured: 'heightM',
} as const

interface EventRow {
  feature_id: string
  on_date: string
  action: keyof typeof valueName
  value: number
  crown_radius_m: number | null
}

/** Everything ever on the plan, with the events recorded since the file among its properties. */
export async function listFeatures(db: Db, gardenId: string): Promise<FeatureRecord[]> {
  const rows = await db('features')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy(['position', 'created_at', 'name'])
    .select<FeatureRow[]>(featureColumns)
  const events = await db('feature_events')
    .join('features', 'features.id', 'feature_id')
    .where({ garden_id: gardenId, 'feature_events.withdrawn_at': null })
    .orderBy('on_date')
    .select<EventRow[]>('feature_id', 'on_date', 'action', 'value', 'crown_radius_m')
  return rows.map((row) => {
    const recorded = events
      .filter((e) => e.feature_id === row.id)
      .map((e) => ({
        date: e.on_date,
        action: e.action,
        [valueName[e.action]]: e.value,
        ...(e.crown_radius_m === null ? {} : { crownRadiusM: e.crown_radius_m }),
      }))
    const fromFile = (row.properties.events as object[] | undefined) ?? []
    const all = [...fromFile, ...recorded]
    return {
      id: row.id,
      kind: row.kind,
      name: row.name,
      geometry: row.geometry,
      properties: all.length > 0 ? { ...row.properties, events: all } : row.properties,
      from: row.from_date,
      to: row.to_date,
    }
  })
}

/** @returns ids in the order of the features */
export async function insertFeatures(
  db: Db,
  gardenId: string,
  features: readonly PlanFeature[],
): Promise<string[]> {
  const [{ next }] = await db('features')
    .where({ garden_id: gardenId })
    .select(db.raw('coalesce(max(position) + 1, 0)::int as next'))
  const rows = features.map((f, i) => ({
    id: randomUUID(),
    garden_id: gardenId,
    kind: f.kind,
    name: f.name,
    geometry: JSON.stringify(f.geometry),
    properties: JSON.stringify(f.properties),
    from_date: f.from,
    to_date: f.to,
    position: next + i,
  }))
  if (rows.length > 0) await db('features').insert(rows)
  return rows.map((r) => r.id)
}

export async function findFeature(db: Db, gardenId: string, id: string): Promise<FeatureRow | undefined> {
  return db('features')
    .where({ garden_id: gardenId, id, withdrawn_at: null })
    .first<FeatureRow | undefined>(featureColumns)
}

/** @param to the day it is gone; null when it stands after all */
export async function endFeature(db: Db, id: string, to: string | null): Promise<void> {
  await db('features').where({ id }).update({ to_date: to })
}

export async function insertFeatureEvent(
  db: Db,
  featureId: string,
  personId: string,
  event: { date: string } & ObstructionEventRequest,
): Promise<void> {
  const { date, action } = event
  await db('feature_events').insert({
    id: randomUUID(),
    feature_id: featureId,
    on_date: date,
    action,
    value: action === 'limbed' ? event.clearStemM : action === 'thinned' ? event.fraction : event.heightM,
    crown_radius_m: action === 'measured' ? (event.crownRadiusM ?? null) : null,
    person_id: personId,
  })
}

/** Puts right what the plan says of a feature; what it said is kept. Events stay those that were recorded. */
export async function amendFeature(
  db: Db,
  { id, geometry, properties }: FeatureRow,
  personId: string,
  right: Pick<PlanFeature, 'geometry' | 'properties'>,
): Promise<void> {
  await db('feature_amendments').insert({
    id: randomUUID(),
    feature_id: id,
    geometry: JSON.stringify(geometry),
    properties: JSON.stringify(properties),
    person_id: personId,
  })
  const { events: _, ...rest } = right.properties
  await db('features')
    .where({ id })
    .update({
      geometry: JSON.stringify(right.geometry),
      properties: JSON.stringify(properties.events ? { ...rest, events: properties.events } : rest),
    })
}

export async function withdrawFeature(db: Db, id: string): Promise<void> {
  await db('features').where({ id }).update({ withdrawn_at: db.fn.now() })
}

/** @returns false when there is no such feature, or it was not withdrawn */
export async function restoreFeature(db: Db, gardenId: string, id: string): Promise<boolean> {
  const withdrawn = db('features').where({ garden_id: gardenId, id }).whereNotNull('withdrawn_at')
  return (await withdrawn.update({ withdrawn_at: null })) > 0
}

/** Takes back the latest event recorded of a feature. */
export async function withdrawLatestEvent(db: Db, featureId: string): Promise<boolean> {
  const latest = await db('feature_events')
    .where({ feature_id: featureId, withdrawn_at: null })
    .orderBy('created_at', 'desc')
    .first('id')
  if (latest) await db('feature_events').where({ id: latest.id }).update({ withdrawn_at: db.fn.now() })
  return latest !== undefined
}

/** Whether any planting stands, or ever stood, in a place. */
export async function everPlanted(db: Db, placeId: string): Promise<boolean> {
  return (await db('planting_sites').where({ place_id: placeId }).first('id')) !== undefined
}

export async function setStation(db: Db, gardenId: string, stationId: string): Promise<void> {
  await db('gardens').where({ id: gardenId }).update({ station_id: stationId })
}

export async function setNorth(db: Db, gardenId: string, northDeg: number): Promise<void> {
  await db('gardens').where({ id: gardenId }).update({ north_deg: northDeg })
}

export async function setSchool(db: Db, gardenId: string, school: SchoolId, choice: string): Promise<void> {
  await db('gardens')
    .where({ id: gardenId })
    .update({ schools: db.raw('schools || ?::jsonb', [JSON.stringify({ [school]: choice })]) })
}

/** A change that truly happened in a made-up garden and that its plan does not know: for the stand-in logger alone. */
export interface StandInChange {
  feature: string
  event: object
}

export async function standInChanges(db: Db, gardenId: string): Promise<StandInChange[]> {
  const { extra } = await db('gardens')
    .where({ id: gardenId })
    .first<{ extra: Record<string, unknown> }>('extra')
  return (extra.standInChanges as StandInChange[] | undefined) ?? []
}

export async function setStandInChanges(
  db: Db,
  gardenId: string,
  changes: readonly StandInChange[],
): Promise<void> {
  await db('gardens')
    .where({ id: gardenId })
    .update({ extra: db.raw(`jsonb_set(extra, '{standInChanges}', ?::jsonb)`, [JSON.stringify(changes)]) })
}

/** Makes other changes of this garden, and of all that its crew looks after, wait until this transaction ends. */
export async function lockGarden(trx: Db, gardenId: string): Promise<void> {
  for (let held: string | undefined; ;) {
    const crewId = await crewIdOf(trx, gardenId)
    // It may have gone to another crew while this one was waited for.
    if (crewId === held) break
    await lockCrew(trx, crewId)
    held = crewId
  }
  await trx.raw('select 1 from gardens where id = ? for no key update', [gardenId])
}

/** Counts up with every look, count, move and planting of a garden. */
export async function recordVersion(db: Db, gardenId: string): Promise<string> {
  return String((await db('gardens').where({ id: gardenId }).first('record_version')).record_version)
}

export async function practiceOfGarden(db: Db, gardenId: string): Promise<string> {
  return (await db('gardens').where({ id: gardenId }).first('practice_id')).practice_id
}
