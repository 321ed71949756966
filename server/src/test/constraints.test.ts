import { addDays } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { UNINDEXED_FOREIGN_KEYS } from '../database/007_foundation.ts'
import { constraintRefusal } from '../errors.ts'
import { practiceWithGarden, type TestPractice } from './practice.ts'

/** What the database itself refuses, whoever writes: each probe is a row that tells an untruth of a garden. */

const TODAY = '2026-09-15'
let practice: TestPractice
let other: string
const path = (rest: string) => `/gardens/${practice.gardenId}${rest}`

interface Rows {
  gardenId: string
  planting: string
  otherPlanting: string
  place: string
  person: string
  open: string
  openToo: string
  done: string
  planted: number
}
let rows: Rows

beforeAll(async () => {
  practice = await practiceWithGarden(undefined, () => Date.parse(`${TODAY}T10:00:00Z`))
  const { db, gardenId } = practice
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  const answer = await practice.head.post('/gardens', {
    name: 'Next door',
    latitude: 51,
    longitude: 0,
    timeZone: 'Europe/London',
  })
  other = answer.body.gardenId
  const jobs = await db('jobs').where({ garden_id: gardenId, state: 'open' }).orderBy('title').select('id')
  const [done, open, openToo] = jobs.map((j) => j.id as string)
  const recorded = await practice.head.post(path(`/jobs/${done}/done`), { on: TODAY, minutes: 20 })
  if (recorded.status !== 200) throw new Error(JSON.stringify(recorded.body))
  const [first, second] = await db('plantings').where({ garden_id: gardenId }).orderBy('tag')
  rows = {
    gardenId,
    planting: first.id,
    planted: first.planted_count,
    otherPlanting: second.id,
    place: (await db('features').where({ garden_id: gardenId, kind: 'bed' }).first('id')).id,
    person: (await db('people').first('id')).id,
    open: open!,
    openToo: openToo!,
    done: done!,
  }
})
afterAll(() => practice.stop())

interface Probe {
  untruth: string
  rule: string
  /** Statements of one transaction; what they do is undone in any case. */
  sql: (r: Rows) => readonly (readonly [string, Record<string, unknown>])[]
}

const site = `insert into planting_sites (id, planting_id, garden_id, place_id, x, y, from_date, to_date)
  values (:id, :planting, :gardenId, :place, 1, 1, :from, :to)`
const sitting = `insert into job_sittings (job_id, garden_id, nth, day, minutes)
  values (:job, :gardenId, 90, '2026-10-01', :minutes)`

const geometry = (type: string, coordinates: unknown) => JSON.stringify({ type, coordinates })
const bed = (across: number) =>
  geometry('Polygon', [
    [
      [0, 0],
      [across, 0],
      [across, 5],
      [0, 5],
      [0, 0],
    ],
  ])
const drawn = `update features set geometry = cast(:geometry as jsonb) where id = :place`
const look = `insert into observations (id, garden_id, planting_id, on_date, seen_at, rating, note)
  values (:id, :gardenId, :planting, :on, now(), 3, :note)`
const event = `insert into planting_events (id, garden_id, planting_id, on_date, kind, living, note)
  values (:id, :gardenId, :planting, :on, :kind, :living, :note)`
const seenNow = { on: TODAY, note: 'well' }

/** What no garden holds. */
const limitProbes: readonly Probe[] = [
  {
    untruth: 'a bed is 20 km long',
    rule: 'features_on_the_plan|beds_across',
    sql: (r) => [[drawn, { ...r, geometry: bed(20_000) }]],
  },
  {
    untruth: 'a bed is a park',
    rule: 'beds_across',
    sql: (r) => [[drawn, { ...r, geometry: bed(1001) }]],
  },
  {
    untruth: 'something stands at 1e308 m',
    rule: 'features_on_the_plan|beds_across',
    sql: (r) => [[drawn, { ...r, geometry: geometry('Point', [1e308, 0]) }]],
  },
  {
    untruth: 'an outline has 15,000 corners',
    rule: 'features_corners',
    sql: (r) => [
      [
        drawn,
        { ...r, geometry: geometry('Polygon', [Array.from({ length: 15_000 }, (_, i) => [i / 100, i % 2])]) },
      ],
    ],
  },
  {
    untruth: 'a plant stands 20 km away',
    rule: 'sites_on_the_plan',
    sql: (r) => [['update planting_sites set x = 20000 where planting_id = :planting', { ...r }]],
  },
  {
    untruth: 'a planting is of the year 1',
    rule: 'plantings_in_time',
    sql: (r) => [[`update plantings set planted_on = '0001-05-05' where id = :planting`, { ...r }]],
  },
  {
    untruth: 'a look is of 1900',
    rule: 'observations_in_time|nothing_before_planting',
    sql: (r) => [[look, { ...r, id: randomUUID(), ...seenNow, on: '1900-06-01' }]],
  },
  {
    untruth: 'a planting is seen before it was planted',
    rule: 'nothing_before_planting',
    sql: (r) => [[look, { ...r, id: randomUUID(), ...seenNow, on: '1999-06-01' }]],
  },
  {
    untruth: 'a planting is lost before it was planted',
    rule: 'nothing_before_planting',
    sql: (r) => [[event, { ...r, id: randomUUID(), on: '1999-06-01', kind: 'lost', living: 0, note: null }]],
  },
  {
    untruth: '9,000 live of five',
    rule: 'living_within_planted',
    sql: (r) => [[event, { ...r, id: randomUUID(), on: TODAY, kind: 'counted', living: 9000, note: null }]],
  },
  {
    untruth: 'a note holds nothing that is seen',
    rule: 'observations_say_something',
    sql: (r) => [[look, { ...r, id: randomUUID(), ...seenNow, note: '\u200b \u2060' }]],
  },
  {
    untruth: 'a job was done in 1900',
    rule: 'job_records_in_time',
    sql: (r) => [[`update job_records set done_on = '1900-06-01' where job_id = :done`, { ...r }]],
  },
  {
    untruth: 'an absence lasts ten thousand years',
    rule: 'absences_end',
    sql: (r) => [
      [
        `insert into crew_absences (id, crew_id, from_day, to_day)
           select :id, crew_id, '2026-01-01', '9999-12-31' from gardens where id = :gardenId`,
        { ...r, id: randomUUID() },
      ],
    ],
  },
  {
    untruth: 'two tags differ by the size of a letter',
    rule: 'plantings_tag',
    sql: (r) => [
      [
        `update plantings set tag = (select lower(tag) from plantings where id = :otherPlanting) where id = :planting`,
        { ...r },
      ],
    ],
  },
  {
    untruth: 'a tag holds what is not seen',
    rule: 'tags_are_seen',
    sql: (r) => [[`update plantings set tag = tag || :more where id = :planting`, { ...r, more: '\u200b' }]],
  },
]

const probes: readonly Probe[] = [
  ...limitProbes,
  {
    untruth: 'a dropped job has a day that somebody set',
    rule: 'jobs_closed_have_no_day',
    sql: (r) => [
      ['delete from job_sittings where job_id = :open', { ...r }],
      [`update jobs set state = 'dropped', pinned_on = '2026-10-01' where id = :open`, { ...r }],
    ],
  },
  {
    untruth: 'a dropped job has sittings',
    rule: 'job_sittings_job_id_garden_id_job_state_fkey',
    sql: (r) => [
      [sitting, { ...r, job: r.open, minutes: 30 }],
      [
        `update jobs set state = 'dropped', pinned_on = null, unplaced_reason = null where id = :open`,
        { ...r },
      ],
    ],
  },
  {
    untruth: 'a job that is done is given a day',
    rule: 'job_sittings_job_id_garden_id_job_state_fkey',
    sql: (r) => [[sitting, { ...r, job: r.done, minutes: 30 }]],
  },
  {
    untruth: 'a sitting takes no time',
    rule: 'job_sittings_minutes_check',
    sql: (r) => [[sitting, { ...r, job: r.open, minutes: 0 }]],
  },
  {
    untruth: 'a sitting lies in another garden than its job',
    rule: 'job_sittings_job_id_garden_id_job_state_fkey',
    sql: (r) => [[sitting, { ...r, gardenId: other, job: r.open, minutes: 30 }]],
  },
  {
    untruth: 'a job is done and nobody recorded it',
    rule: 'jobs_done_are_recorded',
    sql: (r) => [
      ['delete from job_sittings where job_id = :open', { ...r }],
      [`update jobs set state = 'done', pinned_on = null, unplaced_reason = null where id = :open`, { ...r }],
    ],
  },
  {
    untruth: 'a job is recorded and still open',
    rule: 'jobs_done_are_recorded',
    sql: (r) => [
      [
        `insert into job_records (id, job_id, garden_id, done_on, minutes, person_id)
         values (:id, :open, :gardenId, '2026-09-01', 10, :person)`,
        { ...r, id: randomUUID() },
      ],
    ],
  },
  {
    untruth: 'the record of a job that is done is withdrawn',
    rule: 'jobs_done_are_recorded',
    sql: (r) => [['update job_records set withdrawn_at = now() where job_id = :done', { ...r }]],
  },
  {
    untruth: 'a job is recorded twice',
    rule: 'job_records_once',
    sql: (r) => [
      [
        `insert into job_records (id, job_id, garden_id, done_on, minutes, person_id)
         values (:id, :done, :gardenId, '2026-09-01', 10, :person)`,
        { ...r, id: randomUUID() },
      ],
    ],
  },
  {
    untruth: 'a job that is open is left out',
    rule: 'jobs_left_out_are_dropped',
    sql: (r) => [['update jobs set left_out = true where id = :open', { ...r }]],
  },
  {
    untruth: 'a window ends before it begins',
    rule: 'jobs_check',
    sql: (r) => [['update jobs set latest = earliest - 1 where id = :open', { ...r }]],
  },
  {
    untruth: 'a planting is in two places at a time',
    rule: 'planting_sites_one_at_a_time',
    sql: (r) => [[site, { ...r, id: randomUUID(), from: '2021-01-01', to: TODAY }]],
  },
  {
    untruth: 'a planting has two places without an end',
    rule: 'planting_sites_one_at_a_time|planting_sites_open',
    sql: (r) => [[site, { ...r, id: randomUUID(), from: TODAY, to: null }]],
  },
  {
    untruth: 'a place of a planting hangs on a job that is nowhere',
    rule: 'planting_sites_job_id_garden_id_fkey',
    sql: (r) => [
      ['update planting_sites set job_id = :id where planting_id = :planting', { ...r, id: randomUUID() }],
    ],
  },
  {
    untruth: 'a planting stands in a place of another garden',
    rule: 'planting_sites_place_id_garden_id_fkey',
    sql: (r) => [
      [
        `insert into features (id, garden_id, kind, name, properties, geometry)
         select :id, :other, kind, 'elsewhere', properties, geometry from features where id = :place`,
        { ...r, other, id: other },
      ],
      ['update planting_sites set place_id = :id where planting_id = :planting', { ...r, id: other }],
    ],
  },
  {
    untruth: 'more live than were planted, by the count of a walk',
    rule: 'living_within_planted',
    sql: (r) => [
      [
        `insert into observations (id, garden_id, planting_id, on_date, seen_at, living, person_id)
         values (:id, :gardenId, :planting, '2026-09-01', now(), :living, :person)`,
        { ...r, id: randomUUID(), living: r.planted + 1 },
      ],
    ],
  },
  {
    untruth: 'more live than were planted, by what happened to it',
    rule: 'living_within_planted',
    sql: (r) => [
      [
        `insert into planting_events (id, garden_id, planting_id, on_date, kind, living)
         values (:id, :gardenId, :planting, '2026-09-01', 'counted', :living)`,
        { ...r, id: randomUUID(), living: r.planted + 1 },
      ],
    ],
  },
  {
    untruth: 'fewer were planted than live',
    rule: 'living_within_planted',
    sql: (r) => [
      [
        `insert into observations (id, garden_id, planting_id, on_date, seen_at, living, person_id)
         values (:id, :gardenId, :planting, '2026-09-01', now(), :planted, :person)`,
        { ...r, id: randomUUID() },
      ],
      ['update plantings set planted_count = 1 where id = :planting', { ...r }],
    ],
  },
  {
    untruth: 'a job waits for itself, over another',
    rule: 'job_order_goes_on',
    sql: (r) => [
      [
        'insert into job_order (before_id, after_id, garden_id, least_days) values (:open, :openToo, :gardenId, 0)',
        { ...r },
      ],
      [
        'insert into job_order (before_id, after_id, garden_id, least_days) values (:openToo, :open, :gardenId, 0)',
        { ...r },
      ],
    ],
  },
  {
    untruth: 'a succession is of nothing',
    rule: 'successions_of_something',
    sql: (r) => [
      [
        `insert into successions (id, garden_id, state, person_id) values (:id, :gardenId, 'dismissed', :person)`,
        { ...r, id: randomUUID() },
      ],
    ],
  },
  {
    untruth: 'two plantings bear one tag',
    rule: 'plantings_tag',
    sql: (r) => [
      [
        `update plantings set tag = (select tag from plantings where id = :planting) where id = :otherPlanting`,
        { ...r },
      ],
    ],
  },
  {
    untruth: 'two runs of a kind wait for one crew',
    rule: 'runs_one_waits',
    sql: (r) =>
      [1, 2].map(() => [
        `insert into runs (id, kind, crew_id) select :id, 'season', crew_id from gardens where id = :gardenId`,
        { ...r, id: randomUUID() },
      ]),
  },
]

describe('the database refuses that', () => {
  it.each(probes)('$untruth', async ({ rule, sql }) => {
    const { db } = practice
    const before = await db('garden_versions').orderBy('garden_id')
    const failed = await db
      .transaction(async (trx) => {
        // What is judged at the end of a transaction is judged here.
        for (const [statement, values] of sql(rows)) await trx.raw(statement, bindings(statement, values))
        await trx.raw('set constraints all immediate')
        throw new Error('It was accepted')
      })
      .then(
        () => undefined,
        (error: Error & { constraint?: string }) => error,
      )
    expect(failed!.constraint ?? failed!.message).toMatch(new RegExp(`^(${rule})$`))
    // Nothing of it has stayed, and nothing derived has gone stale for it.
    expect(await db('garden_versions').orderBy('garden_id')).toEqual(before)
  })

  it('and whoever sent it is told what is wrong, not that something broke', async () => {
    for (const { rule } of probes) {
      const [constraint] = rule.split('|')
      const refusal = constraintRefusal({ code: '23514', constraint })
      expect([constraint, refusal?.status]).toEqual([constraint, expect.any(Number)])
      expect(refusal!.status).toBeLessThan(500)
    }
  })
})

/** Knex takes no values that a statement does not name. */
const bindings = (statement: string, values: Record<string, unknown>): Record<string, never> =>
  Object.fromEntries(Object.entries(values).filter(([k]) => new RegExp(`:${k}\\b`).test(statement))) as never

describe('the shape of the database', () => {
  it('has an index for every foreign key', async () => {
    const { rows: without } = await practice.db.raw(UNINDEXED_FOREIGN_KEYS)
    expect(without).toEqual([])
  })

  it('carries the garden in every table that is of one', async () => {
    const { rows: found } = await practice.db.raw<{ rows: { table: string; column: string; to: string }[] }>(`
      select c.conrelid::regclass::text as table, a.attname::text as column, c.confrelid::regclass::text as to
      from pg_constraint c
      cross join lateral unnest(c.conkey) as k(attnum)
      join pg_attribute a on a.attrelid = c.conrelid and a.attnum = k.attnum
      where c.contype = 'f' and c.connamespace = 'public'::regnamespace`)
    const ofGarden = ['plantings', 'features', 'jobs', 'decisions', 'observations', 'photos']
    const tables = new Set(found.filter((f) => ofGarden.includes(f.to)).map((f) => f.table))
    const carrying = new Set(found.filter((f) => f.column === 'garden_id').map((f) => f.table))
    expect([...tables].filter((t) => !carrying.has(t))).toEqual([])
  })

  it('keeps windows of jobs in columns only', async () => {
    const { rows: found } = await practice.db.raw<{ rows: { keys: string[] }[] }>(
      `select array_agg(distinct k) as keys from jobs, jsonb_object_keys(details) k`,
    )
    for (const column of ['window', 'earliest', 'latest', 'title', 'minutes', 'kind'])
      expect(found[0]!.keys).not.toContain(column)
  })
})

describe('places of a planting', () => {
  it('may follow one another on the same day', async () => {
    await practice.db
      .transaction(async (trx) => {
        await trx('planting_sites')
          .where({ planting_id: rows.planting, to_date: null })
          .update({ to_date: addDays(TODAY, -3) })
        await trx.raw(site, bindings(site, { ...rows, id: randomUUID(), from: addDays(TODAY, -3), to: null }))
        await trx.raw('set constraints all immediate')
        const sites = await trx('planting_sites').where({ planting_id: rows.planting })
        expect(sites).toHaveLength(2)
        throw new Error('undone')
      })
      .catch((error: Error) => expect(error.message).toBe('undone'))
  })
})
