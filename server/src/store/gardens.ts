import type { FeatureView, GardenSummary, ObstructionEventRequest, Role } from '@border/contract'
import {
  isPlace,
  type IsoDate,
  type KnownClimate,
  type PlanFeature,
  type SchoolId,
  type Schools,
  type StandsAt,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import type { OpenEdit } from './edits.ts'
import { crewIdOf, insertCrew } from './crews.ts'
import { standsAt, type Person } from './people.ts'

/** A garden with the role that the person asking has in it. */
export interface GardenAccess extends GardenSummary {
  practiceId: string
  crewId: string
  stationId: string | null
  schools: Schools
  /** What the gardener knows of its climate. */
  knownClimate: KnownClimate | null
}

const gardenColumns = [
  'gardens.id',
  'gardens.name',
  'gardens.practice_id as practiceId',
  'crew_id as crewId',
  'latitude',
  'longitude',
  'time_zone as timeZone',
  'north_deg as northDeg',
  'station_id as stationId',
  'schools',
  'known_climate as knownClimate',
]

/** Gardens that a person belongs to; those taken out of the practice are no longer among them. */
const gardensFor = (db: Db, personId: string) =>
  db('gardens')
    .join('memberships', 'garden_id', 'gardens.id')
    .where({ person_id: personId, 'gardens.withdrawn_at': null })

/** The gardens that a person belongs to, oldest first. */
export const listGardensFor = (db: Db, personId: string): Promise<GardenAccess[]> =>
  gardensFor(db, personId)
    .orderBy([{ column: 'gardens.created_at' }, { column: 'gardens.name' }])
    .select<GardenAccess[]>(...gardenColumns, 'role')

/** A person with a garden that they belong to, as they are asked for together. */
export async function findMember(
  db: Db,
  personId: string,
  gardenId: string,
): Promise<{ person: Person; garden: GardenAccess } | undefined> {
  const row = await gardensFor(db, personId)
    .join('people', 'people.id', 'memberships.person_id')
    .join('practices', 'practices.id', 'people.practice_id')
    .where({ garden_id: gardenId })
    .first<(GardenAccess & { person: Person }) | undefined>(
      ...gardenColumns,
      'role',
      db.raw(`json_build_object('id', people.id, 'name', people.name, 'practiceId', people.practice_id,
        'practiceName', practices.name, 'demoDate', demo_date, 'usesRealToday', use_real_today, 'leads', leads) as person`),
    )
  if (!row) return undefined
  const { person, ...garden } = row
  return { person, garden }
}

/** A garden for work that no person asked for, with the day that its practice stands at. */
export interface WorkGarden extends GardenAccess {
  standsAt: StandsAt
  travelMinutes: number
}

const workColumns = [
  ...gardenColumns,
  'travel_minutes as travelMinutes',
  'demo_date as demoDate',
  'use_real_today as usesRealToday',
]
type WorkRow = Omit<WorkGarden, 'standsAt' | 'role'> & { demoDate: StandsAt; usesRealToday: boolean }

const toWorkGarden = ({ demoDate, usesRealToday, ...garden }: WorkRow): WorkGarden => ({
  ...garden,
  role: 'keeper',
  standsAt: standsAt({ demoDate, usesRealToday }),
})

const gardensAtWork = (db: Db) =>
  db('gardens').join('practices', 'practices.id', 'practice_id').where({ 'gardens.withdrawn_at': null })

/** What working anything out for a garden needs to know of it; undefined where it is not there. */
export async function findGardenForWork(db: Db, gardenId: string): Promise<WorkGarden | undefined> {
  const row = await gardensAtWork(db)
    .where({ 'gardens.id': gardenId })
    .first<WorkRow | undefined>(...workColumns)
  return row && toWorkGarden(row)
}

/** The gardens that a crew looks after, oldest first. */
export async function listCrewGardens(db: Db, crewId: string): Promise<WorkGarden[]> {
  const rows = await gardensAtWork(db)
    .where({ crew_id: crewId })
    .orderBy(['gardens.created_at', 'gardens.name'])
    .select<WorkRow[]>(...workColumns)
  return rows.map(toWorkGarden)
}

/** Every garden with the day it was last gone through, oldest crew first. */
export async function listCheckedOn(db: Db): Promise<(WorkGarden & { checkedOn: IsoDate | null })[]> {
  const rows = await gardensAtWork(db)
    .join('crews', 'crews.id', 'crew_id')
    .leftJoin('rechecks', 'rechecks.garden_id', 'gardens.id')
    .orderBy(['crews.created_at', 'gardens.created_at', 'gardens.name'])
    .select<(WorkRow & { checkedOn: IsoDate | null })[]>(...workColumns, 'on_date as checkedOn')
  return rows.map(({ checkedOn, ...row }) => ({ ...toWorkGarden(row), checkedOn }))
}

/** A garden as it is entered: where it lies, its zone, and true north on its plan, degrees clockwise from up. */
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

/**
 * A garden with nothing on its plan.
 *
 * @returns its id
 */
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

/** Lets somebody into a garden. */
export async function addMember(db: Db, gardenId: string, personId: string, role: Role): Promise<void> {
  await db('memberships')
    .insert({ garden_id: gardenId, person_id: personId, role })
    .onConflict(['person_id', 'garden_id'])
    .merge(['role'])
}

// Features: what stands on the plan

export interface FeatureRow {
  id: string
  kind: FeatureView['kind']
  name: string
  geometry: FeatureView['geometry']
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
  on_date: string
  action: keyof typeof valueName
  value: number
  crown_radius_m: number | null
}

/** Everything ever on the plan, with the events recorded since the file among its properties. */
export async function listFeatures(db: Db, gardenId: string): Promise<FeatureView[]> {
  const { rows } = await db.raw<{ rows: (FeatureRow & { events: EventRow[] | null })[] }>(
    `select f.id, f.kind, f.name, f.geometry, f.properties, f.from_date, f.to_date, e.events
     from features f
     left join (
       select feature_id, json_agg(json_build_object('on_date', on_date, 'action', action, 'value', value,
                                                     'crown_radius_m', crown_radius_m) order by on_date, created_at) as events
       from feature_events where garden_id = :gardenId and withdrawn_at is null group by feature_id
     ) e on e.feature_id = f.id
     where f.garden_id = :gardenId and f.withdrawn_at is null
     order by f.position, f.created_at, f.name`,
    { gardenId },
  )
  return rows.map((row) => {
    const recorded = (row.events ?? []).map((e) => ({
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

/** Behind all that is on the plan. */
export async function nextPosition(db: Db, gardenId: string): Promise<number> {
  const [{ next }] = await db('features')
    .where({ garden_id: gardenId })
    .select(db.raw('coalesce(max(position) + 1, 0)::int as next'))
  return next as number
}

/** @returns ids in the order of the features */
export async function insertFeatures(
  db: Db,
  gardenId: string,
  features: readonly PlanFeature[],
): Promise<string[]> {
  const next = await nextPosition(db, gardenId)
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

/** Something on the plan of a garden; undefined where it is not on it. */
export async function findFeature(db: Db, gardenId: string, id: string): Promise<FeatureRow | undefined> {
  return db('features')
    .where({ garden_id: gardenId, id, withdrawn_at: null })
    .first<FeatureRow | undefined>(featureColumns)
}

/** What happened to something that casts shade, on its day. */
export async function insertFeatureEvent(
  edit: OpenEdit,
  { gardenId, personId }: { gardenId: string; personId: string },
  featureId: string,
  event: { date: string } & ObstructionEventRequest,
): Promise<void> {
  const { date, action } = event
  await edit.insert('feature_events', {
    id: randomUUID(),
    feature_id: featureId,
    garden_id: gardenId,
    on_date: date,
    action,
    value: action === 'limbed' ? event.clearStemM : action === 'thinned' ? event.fraction : event.heightM,
    crown_radius_m: action === 'measured' ? (event.crownRadiusM ?? null) : null,
    person_id: personId,
  })
}

/** Takes back the latest event recorded of a feature, as part of an edit. @returns false where there is none */
export async function withdrawLatestEvent(db: Db, edit: OpenEdit, featureId: string): Promise<boolean> {
  const latest = await db('feature_events')
    .where({ feature_id: featureId, withdrawn_at: null })
    .orderBy('created_at', 'desc')
    .first('id')
  if (latest) await edit.change('feature_events', latest.id, { withdrawn: true })
  return latest !== undefined
}

/** Parts taken off the plan as entered by mistake, latest first. */
export const listRemovedFeatures = (
  db: Db,
  gardenId: string,
): Promise<{ id: string; kind: string; name: string; at: Date }[]> =>
  db('features')
    .where({ garden_id: gardenId })
    .whereNotNull('withdrawn_at')
    .orderBy('withdrawn_at', 'desc')
    .select('id', 'kind', 'name', 'withdrawn_at as at')

/** How much of what people recorded hangs on a part of the plan. */
export async function countHanging(
  db: Db,
  featureId: string,
): Promise<{ looks: number; photos: number; jobs: number }> {
  const { rows } = await db.raw<{ rows: { looks: number; photos: number; jobs: number }[] }>(
    `select (select count(*)::int from place_looks where place_id = :featureId and withdrawn_at is null) as looks,
            (select count(*)::int from photos where place_id = :featureId and withdrawn_at is null) as photos,
            (select count(*)::int from jobs where place_id = :featureId and state = 'open') as jobs`,
    { featureId },
  )
  return rows[0]!
}

/** The record of weather that a garden goes by. */
export async function setStation(db: Db, gardenId: string, stationId: string): Promise<void> {
  await db('gardens').where({ id: gardenId }).update({ station_id: stationId })
}

type GardenHead = Pick<GardenSummary, 'name' | 'latitude' | 'longitude' | 'timeZone' | 'northDeg'>

/** Puts right what is said of a garden; what was said is kept. */
export async function amendGarden(
  db: Db,
  garden: GardenAccess,
  personId: string,
  right: Partial<GardenHead>,
): Promise<void> {
  const { name, latitude, longitude, timeZone, northDeg } = garden
  await db('garden_amendments').insert({
    id: randomUUID(),
    garden_id: garden.id,
    was: JSON.stringify({ name, latitude, longitude, timeZone, northDeg } satisfies GardenHead),
    person_id: personId,
  })
  const now = { name, latitude, longitude, timeZone, northDeg, ...right }
  await db('gardens').where({ id: garden.id }).update({
    name: now.name,
    latitude: now.latitude,
    longitude: now.longitude,
    time_zone: now.timeZone,
    north_deg: now.northDeg,
  })
}

/** What people know of a garden’s frosts and winters; null takes it back. */
export async function setKnownClimate(db: Db, gardenId: string, known: KnownClimate | null): Promise<void> {
  await db('gardens')
    .where({ id: gardenId })
    .update({ known_climate: known && JSON.stringify(known) })
}

/** Takes a garden out of the practice's list; everything of it is kept. */
/** @param nowMs the instant the garden stands at: the day that is told of it is on its own calendar */
export async function withdrawGarden(db: Db, gardenId: string, nowMs: number): Promise<void> {
  await db('gardens')
    .where({ id: gardenId })
    .update({ withdrawn_at: new Date(nowMs) })
}

/** Gardens of a practice that were taken out, latest first. */
export const listWithdrawnGardens = (
  db: Db,
  practiceId: string,
): Promise<{ id: string; name: string; timeZone: string; withdrawnAt: Date }[]> =>
  db('gardens')
    .where({ practice_id: practiceId })
    .whereNotNull('withdrawn_at')
    .orderBy('withdrawn_at', 'desc')
    .select('id', 'name', 'time_zone as timeZone', 'withdrawn_at as withdrawnAt')

/** False where no such garden was taken out. */
export const restoreGarden = async (db: Db, practiceId: string, gardenId: string): Promise<boolean> =>
  (await db('gardens')
    .where({ practice_id: practiceId, id: gardenId })
    .whereNotNull('withdrawn_at')
    .update({ withdrawn_at: null })) > 0

/** The answer that a garden follows where good gardeners differ. */
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

/** Changes of the light that the stand-in for light loggers plays in a demo. */
export async function standInChanges(db: Db, gardenId: string): Promise<StandInChange[]> {
  const { extra } = await db('gardens')
    .where({ id: gardenId })
    .first<{ extra: Record<string, unknown> }>('extra')
  return (extra.standInChanges as StandInChange[] | undefined) ?? []
}

/** Says which changes the stand-in for light loggers plays. */
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
  // Where it goes to another crew while that is waited for, nothing is found, and the lock is asked for again.
  for (;;) {
    const { rows } = await trx.raw(
      `select 1 from gardens g join crews c on c.id = g.crew_id where g.id = ? for no key update of c, g`,
      [gardenId],
    )
    if (rows.length > 0) return
    // Throws where there is no such garden.
    await crewIdOf(trx, gardenId)
  }
}

/** Ids of a garden's beds and containers by their names, in lower case. */
export const placesByName = async (db: Db, gardenId: string): Promise<Map<string, string>> =>
  new Map((await listFeatures(db, gardenId)).filter(isPlace).map((p) => [p.name.toLowerCase(), p.id]))
