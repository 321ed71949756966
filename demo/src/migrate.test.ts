import { composeApp, connect, migrate, migrationSource, type Db } from '@border/server'
import { randomBytes } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { loadDemo } from './load.ts'

/** The greatest of the migrations, and those after it, down and up again over five seasons of three gardens: nothing that a person recorded is lost or doubled. */

const GREATEST = '007_foundation'
let db: Db
let end: () => Promise<void>

beforeAll(async () => {
  const admin = connect(process.env.BORDER_ADMIN_URL!, 1)
  const name = `border_test_${randomBytes(6).toString('hex')}`
  await admin.raw(`create database ${name}`)
  const url = new URL(process.env.BORDER_ADMIN_URL!)
  url.pathname = `/${name}`
  const app = composeApp({
    databaseUrl: url.href,
    sessionSecret: 'test',
    secureCookies: false,
  })
  db = app.db
  await migrate(db)
  await loadDemo(db, () => {})
  await somethingOfEverything()
  end = async () => {
    await app.close()
    await admin.raw(`drop database ${name} with (force)`)
    await admin.destroy()
  }
}, 180_000)
afterAll(() => end())

/** Jobs in every state with what hangs on them, as a year of use leaves them. */
async function somethingOfEverything(): Promise<void> {
  await db.raw(`
    with person as (select id from people order by email limit 1),
    made as (
      insert into jobs (id, garden_id, planting_id, place_id, key, kind, title, details, earliest, best_from, best_to, latest,
                        minutes, state, left_out, rule_id, rule_key, season, why, pinned_on)
      select gen_random_uuid(), p.garden_id, p.id, s.place_id, 'care', 'prune', 'Job ' || p.tag,
             '{"steps":["one"],"materials":[],"tools":[],"cautions":[]}'::jsonb,
             '2026-10-01', '2026-10-05', '2026-10-20', '2026-10-30', 30,
             (array['open', 'done', 'dropped', 'open'])[1 + n % 4], n % 4 = 2, 'prune-late', 'prune-late/2026/' || p.id, '2026',
             '{"earliest":"a","bestFrom":"b","bestTo":"c","latest":"d"}'::jsonb,
             case when n % 4 = 0 then date '2026-10-07' end
      from (select *, row_number() over (order by tag, id)::int as n from plantings) p
      join planting_sites s on s.planting_id = p.id and s.to_date is null and s.withdrawn_at is null
      where n <= 24
      returning id, garden_id, planting_id, state, pinned_on),
    records as (
      insert into job_records (id, job_id, garden_id, done_on, minutes, person_id, note)
      select gen_random_uuid(), made.id, garden_id, '2026-09-02', 25, person.id, 'as it was'
      from made, person where state = 'done'),
    told as (
      insert into job_plantings (job_id, planting_id, garden_id) select id, planting_id, garden_id from made)
    insert into job_sittings (job_id, garden_id, nth, day, minutes)
    select id, garden_id, nth, date '2026-10-07' + nth, 15 from made, generate_series(0, 1) nth where state = 'open'`)
}

/** Facts by table, in an order of their own; columns that the migration adds or takes away are named. */
async function facts(table: string, without: readonly string[] = []): Promise<string[]> {
  const rows = await db(table).select<Record<string, unknown>[]>()
  return rows
    .map((row) =>
      JSON.stringify(
        Object.fromEntries(
          Object.entries(row)
            .filter(([k]) => !without.includes(k))
            .sort(([a], [b]) => (a < b ? -1 : 1)),
        ),
      ),
    )
    .sort()
}

/** Tables of facts that the migration must leave as they are, with the columns in which old and new differ. */
const untouched: Readonly<Record<string, readonly string[]>> = {
  practices: [],
  people: [],
  gardens: ['record_version', 'known_climate', 'withdrawn_at'],
  garden_members: [],
  features: [],
  feature_events: ['garden_id'],
  plantings: ['withdrawn_at'],
  planting_sites: ['outline'],
  observations: ['device_at'],
  place_looks: ['device_at'],
  decisions: [],
  photos: ['device_at'],
  crews: [],
  crew_people: [],
  weather_days: [],
  taxa: [],
  job_plantings: ['garden_id'],
  job_order: ['garden_id'],
  job_records: ['garden_id', 'device_at'],
  planting_treatments: [],
}
/** What only the new schema has. */
const anew = ['jobs', 'job_sittings', 'planting_events']

async function all(
  tables: readonly string[],
  without: typeof untouched = {},
): Promise<Record<string, string[]>> {
  const found: Record<string, string[]> = {}
  for (const table of tables)
    if (await db.schema.hasTable(table)) found[table] = await facts(table, without[table])
  return found
}

/** From the greatest on, in their order. */
async function later(): Promise<string[]> {
  const names = (await migrationSource.getMigrations([])).map((m) => migrationSource.getMigrationName(m))
  return names.slice(names.indexOf(GREATEST))
}
async function down(): Promise<void> {
  for (const name of (await later()).reverse()) await db.migrate.down({ migrationSource, name } as never)
}
async function up(): Promise<void> {
  for (const name of await later()) await db.migrate.up({ migrationSource, name } as never)
}

describe('migrations, on a full demo', () => {
  it('goes down and up and keeps every fact', async () => {
    const before = await all(Object.keys(untouched), untouched)
    expect(Object.values(before).reduce((n, rows) => n + rows.length, 0)).toBeGreaterThan(5000)
    const own = await all(anew)
    await down()
    const old = await all(Object.keys(untouched), untouched)
    for (const table of Object.keys(before)) expect([table, old[table]]).toEqual([table, before[table]])
    await up()
    const after = await all(Object.keys(untouched), untouched)
    for (const table of Object.keys(before)) expect([table, after[table]]).toEqual([table, before[table]])
    for (const [table, rows] of Object.entries(own))
      expect([table, (await facts(table)).length]).toEqual([table, rows.length])
  })

  it('brings days, pins and records of jobs back as they were', async () => {
    const jobs = () =>
      db('jobs')
        .orderBy('id')
        .select('id', 'state', 'left_out', 'pinned_on', 'earliest', 'latest', 'minutes', 'season', 'why')
    const sittings = () =>
      db('job_sittings').orderBy(['job_id', 'nth']).select('job_id', 'nth', 'day', 'minutes')
    const before = [await jobs(), await sittings()]
    await down()
    await up()
    expect([await jobs(), await sittings()]).toEqual(before)
  })

  it('tells what happened to plantings in the words it was told in', async () => {
    const events = () =>
      db('planting_events')
        .orderBy('id')
        .whereNotNull('note')
        .select('id', 'kind', 'on_date', 'living', 'note')
    const before = await events()
    await down()
    const said = await db('planting_events')
      .whereIn(
        'id',
        before.map((e) => e.id as string),
      )
      .select('id', 'says')
    const saidOf = new Map(said.map((e) => [e.id, e.says]))
    for (const event of before) expect(saidOf.get(event.id)).toContain(event.note)
    await up()
    expect((await events()).map((e) => [e.id, e.kind, e.on_date])).toEqual(
      expect.arrayContaining(before.map((e) => [e.id, e.kind, e.on_date])),
    )
  })

  it('gives every garden its versions, and raises them afterwards', async () => {
    await down()
    expect(await db.schema.hasTable('garden_versions')).toBe(false)
    await up()
    const gardens = await db('gardens').select('id')
    const versions = () => db('garden_versions').orderBy('garden_id').select('garden_id', 'plantings')
    const before = await versions()
    expect(before).toHaveLength(gardens.length)
    const { garden_id } = await db('plantings').first('garden_id')
    await db('plantings').where({ garden_id }).limit(1).update({ role: 'for the test' })
    const raised = (await versions()).filter((v, i) => v.plantings !== before[i]!.plantings)
    expect(raised.map((v) => v.garden_id)).toEqual([garden_id])
  })

  it('is run once, however many start at once', async () => {
    await Promise.all([migrate(db), migrate(db), migrate(db)])
    const done = await db('knex_migrations').where({ name: GREATEST })
    expect(done).toHaveLength(1)
  })
})
