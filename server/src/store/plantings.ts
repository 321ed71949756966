import type { PlantingView, StoryEntry, TrialOutcome, TrialOutcomeView } from '@border/contract'
import {
  capitalised,
  compareTags,
  type ColourWish,
  type Dating,
  type PlantingSite,
  type PlantingSource,
  type Ring,
  type Taxon,
  type Treatment,
  type TreatmentKind,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

interface PlantingRow {
  id: string
  tag: string
  planted_on: string
  planted_known: Dating
  planted_count: number
  source: PlantingSource
  role: string | null
  colour_wish: ColourWish | null
  from_tag: string | null
  traits: Taxon
  place_id: string
  x: number
  y: number
  radius_m: number | null
  outline: PlantingView['outline']
  since: string
  living: number | null
}

const toPlanting = (r: PlantingRow): PlantingView => ({
  id: r.id,
  tag: r.tag,
  taxon: r.traits,
  plantedOn: r.planted_on,
  plantedKnown: r.planted_known,
  plantedCount: r.planted_count,
  livingCount: r.living ?? r.planted_count,
  source: r.source,
  role: r.role,
  colourWish: r.colour_wish,
  fromTag: r.from_tag,
  placeId: r.place_id,
  x: r.x,
  y: r.y,
  radiusM: r.radius_m,
  outline: r.outline,
  inPlaceSince: r.since,
})

/** Plantings with where they stand and the living count last recorded: on a day, or as last known when `on` is null. */
async function selectPlantings(
  db: Db,
  gardenId: string,
  which: { on: string | null; plantingId: string | null },
): Promise<PlantingView[]> {
  const { rows } = await db.raw<{ rows: PlantingRow[] }>(
    `select p.id, p.tag, p.planted_on, p.planted_known, p.planted_count, p.source, p.role, p.colour_wish, t.traits, parent.tag as from_tag,
            s.place_id, s.x, s.y, s.radius_m, s.outline, s.from_date as since, c.living
     from plantings p
     join taxa t on t.id = p.taxon_id
     left join plantings parent on parent.id = p.parent_id
     join lateral (
       select * from planting_sites s
       where s.planting_id = p.id and s.withdrawn_at is null
         and (:on::date is null or (s.from_date <= :on::date and (s.to_date is null or :on::date < s.to_date)))
       order by s.from_date desc, s.to_date desc nulls first limit 1
     ) s on true
     left join lateral (
       select living from (
         (select on_date, created_at, living from planting_events e
          where e.planting_id = p.id and e.withdrawn_at is null and e.living is not null
            and (:on::date is null or e.on_date <= :on::date)
          order by e.on_date desc, e.created_at desc limit 1)
         union all
         (select on_date, created_at, living from observations o
          where o.planting_id = p.id and o.withdrawn_at is null and o.living is not null
            and (:on::date is null or o.on_date <= :on::date)
          order by o.on_date desc, o.created_at desc limit 1)
       ) latest
       order by on_date desc, created_at desc limit 1
     ) c on true
     where p.garden_id = :gardenId and p.withdrawn_at is null and (:plantingId::uuid is null or p.id = :plantingId::uuid)
     order by p.tag`,
    { gardenId, ...which },
  )
  return rows.map(toPlanting).sort((a, b) => compareTags(a.tag, b.tag))
}

/** Plantings that stand somewhere, alive, on a day. One whose last count was none is gone. */
export async function listPlantings(
  db: Db,
  gardenId: string,
  on: string,
  plantingId: string | null = null,
): Promise<PlantingView[]> {
  return (await selectPlantings(db, gardenId, { on, plantingId })).filter((p) => p.livingCount > 0)
}

/** A planting as last known, gone or not. */
export async function findPlanting(
  db: Db,
  gardenId: string,
  plantingId: string,
): Promise<PlantingView | undefined> {
  const [found] = await selectPlantings(db, gardenId, { on: null, plantingId })
  return found
}

/** Tags of the plantings that came from this one. */
export async function listOffspring(db: Db, plantingId: string): Promise<string[]> {
  const rows = await db('plantings')
    .where({ parent_id: plantingId, withdrawn_at: null })
    .orderBy('tag')
    .select<{ tag: string }[]>('tag')
  return rows.map((r) => r.tag)
}

/** A planting as it is entered: how many of a taxon, where, since when, and from what. */
export interface NewPlanting {
  gardenId: string
  taxonId: string
  tag: string
  plantedOn: string
  plantedKnown?: Dating
  count: number
  living?: number | undefined
  source: PlantingSource
  parentId?: string | null
  role?: string | null
  placeId: string
  x: number
  y: number
  radiusM?: number | null
  outline?: PlantingView['outline']
  note?: string | undefined
  personId: string | null
  /** What it was planted by. */
  jobId?: string
}

/** Enters plantings, each under the id it was given. */
export async function insertPlantings(
  db: Db,
  plantings: readonly (NewPlanting & { id: string })[],
): Promise<void> {
  const row = (p: NewPlanting & { id: string }) => ({
    id: p.id,
    garden_id: p.gardenId,
    taxon_id: p.taxonId,
    tag: p.tag,
    planted_on: p.plantedOn,
    planted_known: p.plantedKnown ?? 'day',
    planted_count: p.count,
    source: p.source,
    parent_id: p.parentId ?? null,
    role: p.role ?? null,
    planted_by: p.jobId ?? null,
  })
  // One statement: a planting may come from another of the same file, whatever their order.
  await db('plantings').insert(plantings.map(row))
  await db('planting_sites').insert(
    plantings.map((p) => ({
      id: randomUUID(),
      planting_id: p.id,
      garden_id: p.gardenId,
      place_id: p.placeId,
      x: p.x,
      y: p.y,
      radius_m: p.radiusM ?? null,
      outline: p.outline ? JSON.stringify(p.outline) : null,
      from_date: p.plantedOn,
    })),
  )
  await insertEvents(db, plantings.flatMap(plantedEvents))
}

/** What is told of a planting on the day it was planted. */
export function plantedEvents(p: NewPlanting & { id: string }): NewEvent[] {
  const of = {
    gardenId: p.gardenId,
    plantingId: p.id,
    on: p.plantedOn,
    personId: p.personId,
    jobId: p.jobId ?? null,
  }
  return [
    { ...of, kind: 'planted', facts: { placeId: p.placeId } },
    ...(p.note ? [{ ...of, kind: 'note', note: p.note } as const] : []),
    ...(p.living !== undefined && p.living !== p.count
      ? [{ ...of, kind: 'counted', living: p.living, facts: { of: p.count } } as const]
      : []),
  ]
}

/** What an event says beside its count, as facts: its sentence is made when it is read. */
export interface EventFacts {
  /** Where it was planted, or moved to. */
  placeId?: string
  /** Where it was moved from. */
  fromPlaceId?: string
  /** How many there were before. */
  of?: number
  minutes?: number
  /** It was taken out. */
  takenOut?: boolean
  /** It was lifted, and waits on the bench. */
  toBench?: boolean
}

/** Something that happened to a planting. */
export interface NewEvent {
  gardenId: string
  plantingId: string
  on: string
  kind: 'planted' | 'counted' | 'moved' | 'note' | 'lost'
  living?: number | null
  facts?: EventFacts
  /** In the words of whoever recorded it. */
  note?: string | undefined
  personId: string | null
  jobId?: string | null
}

/** Puts what happened into the stories of plantings. */
export async function insertEvents(db: Db, events: readonly NewEvent[]): Promise<void> {
  const rows = events.map((e) => ({
    id: randomUUID(),
    garden_id: e.gardenId,
    planting_id: e.plantingId,
    on_date: e.on,
    kind: e.kind,
    living: e.living ?? null,
    facts: e.facts ? JSON.stringify(e.facts) : null,
    note: e.note || null,
    person_id: e.personId,
    job_id: e.jobId ?? null,
  }))
  await db.batchInsert('planting_events', rows, 500)
}

/** Closes the present site on a day and opens another. */
export async function moveSite(
  db: Db,
  move: {
    plantingId: string
    gardenId: string
    placeId: string
    x: number
    y: number
    on: string
    radiusM: number | null
    jobId: string | null
  },
): Promise<void> {
  await presentSite(db, move.plantingId).update({ to_date: move.on })
  await db('planting_sites').insert({
    id: randomUUID(),
    planting_id: move.plantingId,
    garden_id: move.gardenId,
    place_id: move.placeId,
    x: move.x,
    y: move.y,
    radius_m: move.radiusM,
    from_date: move.on,
    job_id: move.jobId,
  })
}

const presentSite = (db: Db, plantingId: string) =>
  db('planting_sites').where({ planting_id: plantingId, to_date: null, withdrawn_at: null })

/**
 * Puts a planting back to where it stood before a move, as if it had not been recorded.
 * @returns false when it has moved on since
 */
export async function withdrawMove(db: Db, plantingId: string, jobId: string): Promise<boolean> {
  const site = await presentSite(db, plantingId).first<{
    id: string
    job_id: string | null
    from_date: string
  }>()
  if (site?.job_id !== jobId) return false
  await db('planting_sites').where({ id: site.id }).update({ withdrawn_at: db.fn.now() })
  const before = await db('planting_sites')
    .where({ planting_id: plantingId, to_date: site.from_date, withdrawn_at: null })
    .orderBy('from_date', 'desc')
    .first('id')
  await db('planting_sites').where({ id: before.id }).update({ to_date: null })
  return true
}

/** Every tag that a garden has ever given. */
export const listTags = async (db: Db, gardenId: string): Promise<string[]> =>
  (await db('plantings').where({ garden_id: gardenId }).select<{ tag: string }[]>('tag')).map((r) => r.tag)

/** What a job planted, and whether anything else has been told of it since. */
export async function plantedBy(
  db: Db,
  jobId: string,
): Promise<{ id: string; tag: string; hasGoneOn: boolean } | undefined> {
  const { rows } = await db.raw<{ rows: { id: string; tag: string; hasGoneOn: boolean }[] }>(
    `select p.id, p.tag,
            exists (select from observations where planting_id = p.id and withdrawn_at is null)
            or exists (select from planting_events e where e.planting_id = p.id and e.withdrawn_at is null
                       and e.kind <> 'note' and e.job_id is distinct from p.planted_by)
            or exists (select from decisions where planting_id = p.id)
            or exists (select from job_plantings jp join jobs j on j.id = jp.job_id
                       where jp.planting_id = p.id and j.state = 'done' and j.id <> p.planted_by) as "hasGoneOn"
     from plantings p where p.planted_by = ? and p.withdrawn_at is null`,
    [jobId],
  )
  return rows[0]
}

/** A planting was never there: what was entered by mistake. */
export async function withdrawPlanting(db: Db, plantingId: string): Promise<void> {
  await db('planting_sites').where({ planting_id: plantingId }).update({ withdrawn_at: db.fn.now() })
  await db('plantings').where({ id: plantingId }).update({ withdrawn_at: db.fn.now() })
}

/** Takes what a job did to plantings out of their stories. */
export async function withdrawEventsOf(db: Db, jobId: string): Promise<void> {
  await db('planting_events').where({ job_id: jobId }).update({ withdrawn_at: db.fn.now() })
}

interface EventRow {
  on: string
  kind: NewEvent['kind']
  living: number | null
  facts: EventFacts | null
  note: string | null
  by: string | null
  recordedAt: string
}

/** What happened to a planting itself, oldest first, in sentences. */
export async function listEvents(
  db: Db,
  planting: Pick<PlantingView, 'id' | 'plantedCount' | 'source'>,
): Promise<StoryEntry[]> {
  const rows = await db('planting_events')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ planting_id: planting.id, withdrawn_at: null })
    .orderBy(['on_date', 'planting_events.created_at'])
    .select<EventRow[]>(
      'on_date as on',
      'kind',
      'living',
      'facts',
      'note',
      'people.name as by',
      'planting_events.created_at as recordedAt',
    )
  const placeIds = rows.flatMap((r) =>
    [r.facts?.placeId, r.facts?.fromPlaceId].filter((id) => id !== undefined),
  )
  const places = new Map(
    (await db('features').whereIn('id', placeIds).select<{ id: string; name: string }[]>('id', 'name')).map(
      (f) => [f.id, f.name],
    ),
  )
  const nameOf = (id: string | undefined) => (id && places.get(id)) ?? 'its place'
  return rows.map(({ on, kind, by, recordedAt, ...e }) => ({
    on,
    kind,
    by,
    recordedAt,
    says: [eventWords(kind, e, planting, nameOf), e.note].filter(Boolean).join(' '),
  }))
}

const sourceWords: Record<PlantingSource, string> = {
  bought: 'bought',
  division: 'from divisions',
  cutting: 'from cuttings',
  seed: 'from seed',
  'self-sown': 'self-sown',
  moved: 'moved in',
}

/** @returns nothing for what only its note tells */
function eventWords(
  kind: NewEvent['kind'],
  { living, facts }: Pick<EventRow, 'living' | 'facts'>,
  planting: Pick<PlantingView, 'plantedCount' | 'source'>,
  nameOf: (placeId: string | undefined) => string,
): string {
  switch (kind) {
    case 'planted':
      return `${planting.plantedCount} planted${facts?.placeId ? ` in ${nameOf(facts.placeId)}` : ''}, ${sourceWords[planting.source]}.`
    case 'moved':
      if (!facts) return ''
      return `Moved from ${nameOf(facts.fromPlaceId)} to ${nameOf(facts.placeId)}${
        facts.of === undefined ? '' : `: ${living} of ${facts.of} replanted, ${facts.minutes} min`
      }.`
    case 'counted':
      if (!facts) return ''
      if (facts.toBench) return `${facts.of} lifted to the bench.`
      return facts.takenOut ? `${facts.of} taken out.` : `${living} of ${facts.of} living.`
    case 'lost':
      return facts ? 'Struck off: none living.' : ''
    case 'note':
      return ''
  }
}

/** A planting's stays in places and its head counts, for the record. */
export interface PlantingLife {
  id: string
  tag: string
  taxon: Taxon
  plantedOn: string
  plantedCount: number
  livingCount: number
  stays: PlantingSite[]
  counts: { on: string; living: number }[]
  /** The day on which what lived of it was taken out or lifted to the bench: it did not die of that. */
  takenOutOn: string | null
  /** What was said of it while it was on trial, oldest first. */
  outcomes: TrialOutcomeView[]
}

/** Every planting a garden ever had, gone or not, with where it stood and what was counted. */
export async function listLives(db: Db, gardenId: string): Promise<PlantingLife[]> {
  interface Row {
    id: string
    tag: string
    traits: Taxon
    planted_on: string
    planted_count: number
    stays: PlantingLife['stays'] | null
    counts: PlantingLife['counts'] | null
    taken_out_on: string | null
    outcomes: PlantingLife['outcomes'] | null
  }
  const { rows } = await db.raw<{ rows: Row[] }>(
    // Each gathered once: a planner that does not know its tables yet would gather them again for every planting.
    `with s as materialized (
       select planting_id,
              json_agg(json_build_object('id', id, 'placeId', place_id, 'from', from_date, 'to', to_date) order by from_date) as stays
       from planting_sites where garden_id = :gardenId and withdrawn_at is null group by planting_id
     ), c as materialized (
       select l.planting_id, json_agg(json_build_object('on', l.on_date, 'living', l.living) order by l.on_date, l.created_at) as counts
       from living_counts l join plantings own on own.id = l.planting_id
       where own.garden_id = :gardenId group by l.planting_id
     ), t as materialized (
       select planting_id, min(on_date) as taken_out_on from planting_events
       where garden_id = :gardenId and withdrawn_at is null and 'true' in (facts ->> 'takenOut', facts ->> 'toBench')
       group by planting_id
     ), o as materialized (
       select planting_id,
              json_agg(json_build_object('on', on_date, 'outcome', outcome, 'driftCount', drift_count, 'reason', reason,
                                         'by', people.name) order by trial_outcomes.created_at) as outcomes
       from trial_outcomes join people on people.id = person_id
       where garden_id = :gardenId group by planting_id
     )
     select p.id, p.tag, p.planted_on, p.planted_known, p.planted_count, x.traits, s.stays, c.counts, t.taken_out_on, o.outcomes
     from plantings p
     join taxa x on x.id = p.taxon_id
     left join s on s.planting_id = p.id
     left join c on c.planting_id = p.id
     left join t on t.planting_id = p.id
     left join o on o.planting_id = p.id
     where p.garden_id = :gardenId and p.withdrawn_at is null
     order by p.tag`,
    { gardenId },
  )
  return rows.map((p) => ({
    id: p.id,
    tag: p.tag,
    taxon: p.traits,
    plantedOn: p.planted_on,
    plantedCount: p.planted_count,
    livingCount: p.counts?.at(-1)?.living ?? p.planted_count,
    stays: p.stays ?? [],
    counts: [{ on: p.planted_on, living: p.planted_count }, ...(p.counts ?? [])],
    takenOutOn: p.taken_out_on,
    outcomes: p.outcomes ?? [],
  }))
}

const words: Record<TrialOutcome, string> = {
  trial: 'Put on trial.',
  expand: 'Trial ended: to be grown to a drift.',
  'retry elsewhere': 'Trial ended: to be tried in another place.',
  'strike off': 'Trial ended: not to be planted again.',
  'go on': 'Trial goes on another season.',
}

/** What was said of a planting on trial, in a sentence. */
export const outcomeWords = (said: { outcome: TrialOutcome; driftCount: number | null }): string =>
  words[said.outcome].replace('a drift', said.driftCount ? `a drift of ${said.driftCount}` : 'a drift')

/** What was said of a planting on trial as lines of its story. */
export async function listTrialStory(db: Db, plantingId: string): Promise<StoryEntry[]> {
  const rows = await db('trial_outcomes')
    .join('people', 'people.id', 'person_id')
    .where({ planting_id: plantingId })
    .orderBy('trial_outcomes.created_at')
    .select<
      {
        on: string
        outcome: TrialOutcome
        drift_count: number | null
        reason: string | null
        by: string
        recordedAt: string
      }[]
    >(
      'on_date as on',
      'outcome',
      'drift_count',
      'reason',
      'people.name as by',
      'trial_outcomes.created_at as recordedAt',
    )
  return rows.map(({ on, outcome, drift_count, reason, by, recordedAt }) => ({
    on,
    kind: 'trial',
    says: [outcomeWords({ outcome, driftCount: drift_count }), reason].filter(Boolean).join(' '),
    by,
    recordedAt,
  }))
}

/** What came of a trial. */
export async function insertTrialOutcome(
  db: Db,
  row: {
    gardenId: string
    plantingId: string
    on: string
    outcome: TrialOutcome
    driftCount?: number | undefined
    reason?: string | undefined
    personId: string
  },
): Promise<void> {
  await db('trial_outcomes').insert({
    id: randomUUID(),
    garden_id: row.gardenId,
    planting_id: row.plantingId,
    on_date: row.on,
    outcome: row.outcome,
    drift_count: row.driftCount ?? null,
    reason: row.reason || null,
    person_id: row.personId,
  })
}

/** A cut that is tried for its bloom. */
export async function insertTreatment(
  db: Db,
  row: { gardenId: string; plantingId: string; on: string; what: TreatmentKind; personId: string | null },
): Promise<void> {
  await db('treatments').insert({
    id: randomUUID(),
    garden_id: row.gardenId,
    planting_id: row.plantingId,
    on_date: row.on,
    what: row.what,
    person_id: row.personId,
  })
}

/** Cuts and deadheading of a garden, oldest first. */
export const listTreatments = (db: Db, gardenId: string): Promise<Treatment[]> =>
  db('treatments')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy(['on_date', 'created_at'])
    .select<Treatment[]>('planting_id as plantingId', 'on_date as on', 'what')

/** Cuts and deadheading of a planting as lines of its story. */
export async function listTreatmentStory(db: Db, plantingId: string): Promise<StoryEntry[]> {
  const rows = await db('treatments')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ planting_id: plantingId, withdrawn_at: null })
    .orderBy(['on_date', 'treatments.created_at'])
    .select<{ on: string; what: TreatmentKind; by: string | null; recordedAt: string }[]>(
      'on_date as on',
      'what',
      'people.name as by',
      'treatments.created_at as recordedAt',
    )
  return rows.map(({ what, ...row }) => ({
    ...row,
    kind: 'treated',
    says: `${capitalised(what)}.`,
  }))
}

// Where plantings stand and stood, as edits put it right

export interface SiteRow {
  id: string
  planting_id: string
  tag: string
  place_id: string
  x: number
  y: number
  radius_m: number | null
  outline: Ring | null
  from_date: string
  to_date: string | null
}

const sites = (db: Db, gardenId: string) =>
  db('planting_sites as s')
    .join('plantings as p', 'p.id', 's.planting_id')
    .where({ 's.garden_id': gardenId, 's.withdrawn_at': null, 'p.withdrawn_at': null })
    .orderBy('s.from_date')
    .select<SiteRow[]>(
      's.id',
      's.planting_id',
      'p.tag',
      's.place_id',
      's.x',
      's.y',
      's.radius_m',
      's.outline',
      's.from_date',
      's.to_date',
    )

/** Where plantings stand and stood in a place, oldest first. */
export const listSites = (db: Db, gardenId: string, placeId: string): Promise<SiteRow[]> =>
  sites(db, gardenId).andWhere({ 's.place_id': placeId })

/** Where a planting stood and stands, oldest first. */
export const listSitesOf = (db: Db, gardenId: string, plantingId: string): Promise<SiteRow[]> =>
  sites(db, gardenId).andWhere({ 's.planting_id': plantingId })

/** Where a planting stands, or last stood. */
export const standingIn = async (
  db: Db,
  gardenId: string,
  plantingId: string,
): Promise<SiteRow | undefined> => (await listSitesOf(db, gardenId, plantingId)).at(-1)

/** Whether any planting stands, or ever stood, in a place. */
export const everPlanted = async (db: Db, placeId: string): Promise<boolean> =>
  (await db('planting_sites').where({ place_id: placeId }).first('id')) !== undefined

/** What of a planting begins with the day it was planted: that it was, and what was counted that day. */
export const listFirstEvents = (db: Db, plantingId: string, plantedOn: string): Promise<{ id: string }[]> =>
  db('planting_events')
    .where({ planting_id: plantingId, on_date: plantedOn })
    .whereIn('kind', ['planted', 'counted'])
    .whereNull('job_id')
    .select('id')

/** Plantings taken out as entered by mistake, latest first. */
export const listRemovedPlantings = (
  db: Db,
  gardenId: string,
): Promise<{ id: string; tag: string; botanical: string; place: string; at: Date }[]> =>
  db('plantings as p')
    .join('taxa as t', 't.id', 'p.taxon_id')
    .joinRaw(
      `join lateral (select place_id from planting_sites where planting_id = p.id order by from_date desc limit 1) s on true`,
    )
    .join('features as f', 'f.id', 's.place_id')
    .where({ 'p.garden_id': gardenId })
    .whereNotNull('p.withdrawn_at')
    .orderBy('p.withdrawn_at', 'desc')
    .select('p.id', 'p.tag', 't.botanical', 'f.name as place', 'p.withdrawn_at as at')
