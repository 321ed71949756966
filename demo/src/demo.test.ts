import {
  addressOf,
  endpoints,
  type Endpoint,
  type GardenSummary,
  type SaidScheme,
  type SessionInfo,
} from '@border/contract'
import {
  areaM2,
  CELL_M,
  isInside,
  library,
  lieOf,
  readPlan,
  ringOf,
  sceneOf,
  straightened,
  sunHours,
  type Point,
  type Scene,
} from '@border/core'
import { composeApp, connect, migrate, migrationSource, type Db } from '@border/server'
import { randomBytes, randomUUID } from 'node:crypto'
import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { filesOf, placedIn } from './files.ts'
import { cliffLane } from './gardens/cliffLane.ts'
import { netmakersYard } from './gardens/netmakersYard.ts'
import { demoGardens, loadDemo } from './load.ts'
import { scanOf } from './scan.ts'

function sceneIn(sketch: (typeof demoGardens)[number]): Scene {
  const plan = readPlan(filesOf(sketch).plan)
  if (!plan.ok) throw new Error(JSON.stringify(plan.problems))
  return sceneOf(
    plan.value.garden,
    plan.value.features.map((f, i) => ({ ...f, id: String(i) })),
  )
}

const seasonAt = (scene: Scene, [x, y]: Point, on: string) =>
  sunHours(scene, [{ x, y, z: 0 }], { kind: 'season', on })[0]!

describe('the demo’s gardens', () => {
  const all = demoGardens.flatMap((g) => placedIn(g).map((p) => ({ ...p, sketch: g })))

  it('hold about 140 plantings of about 90 taxa, each in its bed or pot', () => {
    expect(all.length).toBeGreaterThanOrEqual(135)
    expect(new Set(all.map((p) => p.planting[0])).size).toBeGreaterThanOrEqual(85)
    for (const p of all) {
      const place = p.sketch.features.find((f) => f.properties.name === p.place)!
      const { coordinates } = place.geometry as { coordinates: Point[][] }
      if (p.at) expect([p.tag, isInside(coordinates[0]!.slice(0, -1), ...p.at)]).toEqual([p.tag, true])
    }
  })

  it('open the courtyard border to the afternoon when the storehouse goes', () => {
    const scene = sceneIn(netmakersYard)
    const rodgersia = placedIn(netmakersYard).find((p) => p.planting[0] === 'Rodgersia podophylla')!.at!
    const before = seasonAt(scene, rodgersia, '2024-07-01')
    const after = seasonAt(scene, rodgersia, '2026-07-01')
    expect(before.total).toBeLessThan(4)
    expect(after.total).toBeGreaterThan(6)
    expect(after.afternoon - before.afternoon).toBeGreaterThan(1)
  })

  it('close the slipway bed in under the alders, year by year', () => {
    const scene = sceneIn(netmakersYard)
    const hours = ['2021', '2023', '2025', '2027', '2029'].map(
      (y) => seasonAt(scene, [33, -5.8], `${y}-07-01`).total,
    )
    for (let i = 1; i < hours.length; i++) expect(hours[i]!).toBeLessThan(hours[i - 1]!)
  })

  it('have an old survey that lies where its beds do, whichever way it was scanned', async () => {
    const plan = readPlan(filesOf(netmakersYard).plan)
    if (!plan.ok) throw new Error(JSON.stringify(plan.problems))
    for (const turnDeg of [0, 8, -115]) {
      const { laying, pxOf } = await scanOf(plan.value, turnDeg)
      const lies = lieOf(laying)
      if (!lies.ok) throw new Error(lies.says)
      for (const { geometry } of plan.value.features.filter((f) => f.kind === 'bed'))
        for (const at of ringOf(geometry)) {
          const [x, y] = straightened(lies.lie.homography, pxOf(at))
          expect(Math.hypot(x - at[0], y - at[1])).toBeLessThan(1e-6)
        }
    }
  })

  it('leave the lowered cypress off the plan and in the notes', () => {
    const hedge = netmakersYard.features.find((f) => f.properties.kind === 'hedge')!
    expect(hedge.properties.events).toBeUndefined()
    expect(netmakersYard.unrecorded[0]!.feature).toBe(hedge.properties.name)
    expect(netmakersYard.notes.some((n) => /plan says the cypress/.test(n.says))).toBe(true)
    expect(cliffLane.unrecorded).toEqual([])
  })
})

const name = `border_test_${randomBytes(6).toString('hex')}`
let app: ReturnType<typeof composeApp>
let db: Db

/** Loading takes longest of all: everything below is of one that is loaded here, or of a copy of the one that the check has loaded. */
beforeAll(async () => {
  const admin = connect(process.env.BORDER_ADMIN_URL!, 1)
  await admin.raw(`create database ${name} template ${process.env.BORDER_DEMO_TEMPLATE ?? 'template1'}`)
  await admin.destroy()
  const url = new URL(process.env.BORDER_ADMIN_URL!)
  url.pathname = `/${name}`
  app = composeApp({
    databaseUrl: url.href,
    sessionSecret: 'test',
    secureCookies: false,
    checksAnswers: true,
  })
  db = app.db
  await migrate(db)
  await loadDemo(db, () => {})
})
afterAll(async () => {
  await app.close()
  const admin = connect(process.env.BORDER_ADMIN_URL!, 1)
  await admin.raw(`drop database ${name} with (force)`)
  await admin.destroy()
})

describe('loading', () => {
  it('gives five seasons of history, and twice gives it once', async () => {
    const counts = async () => {
      const { rows } = await db.raw(`
        select (select count(*)::int from gardens) as gardens, (select count(*)::int from plantings) as plantings,
               (select count(distinct extract(year from on_date))::int from observations) as seasons,
               (select count(*)::int from observations) as looks,
               (select count(*)::int from photos) as photos`)
      return rows[0]
    }
    const first = await counts()
    expect(first).toMatchObject({ gardens: 3, seasons: 5 })
    expect(first.looks).toBeGreaterThan(1200)
    expect(first.photos).toBe(16)
    await loadDemo(db, () => {})
    expect(await counts()).toEqual(first)
  })

  it('holds a place that waits to be decided anew: two schemes that differ, each laid out in the bed, with nearly all priced', async () => {
    const rows = await db('scheme_revisions')
      .join('schemes', 'schemes.revision_id', 'scheme_revisions.id')
      .where({ accepted_at: null })
      .orderBy('schemes.created_at')
      .select<{ said: SaidScheme }[]>('said')
    expect(rows).toHaveLength(2)
    const known = new Set(library.map((t) => t.botanical))
    const priced = new Set((await db('offers').select('item')).map((o) => String(o.item)))
    const [{ geometry }] = await db('features').where({ name: 'Courtyard border' }).select('geometry')
    const cellsM2 = (runs: SaidScheme['drifts'][number]['ground']) =>
      CELL_M ** 2 * runs!.reduce((n, [, from, to]) => n + to - from + 1, 0)
    for (const { said } of rows) {
      for (const { botanical } of [...said.drifts, ...said.between]) expect(known).toContain(botanical)
      const ground = said.drifts.map((d) => cellsM2(d.ground))
      for (const m2 of ground) expect(m2).toBeGreaterThan(0.5)
      expect(ground.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(areaM2(ringOf(geometry)) * 1.02)
      const bought = said.drifts.filter((d) => d.from === 'library')
      expect(bought.filter((d) => !priced.has(d.botanical))).toEqual([])
    }
    const kinds = rows.map(({ said }) => new Set(said.drifts.map((d) => d.botanical)))
    expect([...kinds[0]!].filter((k) => !kinds[1]!.has(k)).length).toBeGreaterThanOrEqual(3)
  })

  it('holds one rework that is half done and one done three years ago, each planting under the step that planted it', async () => {
    const schemes = await db('schemes')
      .join('reworks', 'reworks.id', 'rework_id')
      .join('features', 'features.id', 'place_id')
      .whereNotNull('accepted_at')
      .select<{ id: string; name: string }[]>('schemes.id', 'features.name')
    const jobsOf = (id: string) =>
      db('jobs')
        .where({ scheme_id: id })
        .select<{ id: string; state: string; kind: string; sets: object }[]>('*')
    const [half, whole] = ['Middle terrace', 'Top terrace'].map((n) => schemes.find((s) => s.name === n)!)
    const halfDone = await jobsOf(half!.id)
    const states = (state: string) => halfDone.filter((j) => j.state === state).length
    expect(states('done')).toBeGreaterThan(10)
    expect(states('open')).toBeGreaterThan(3)
    const done = await jobsOf(whole!.id)
    expect(new Set(done.map((j) => j.state))).toEqual(new Set(['done']))
    for (const job of [...halfDone, ...done].filter((j) => j.sets)) {
      const [planted] = await db('plantings').where({ planted_by: job.id })
      expect(planted !== undefined).toBe(job.state === 'done')
      if (planted) expect(planted).toMatchObject({ planted_count: (job.sets as { count: number }).count })
    }
  })

  it('shows every screen of every garden what the contract says, to the last figure', async () => {
    const server = app.app.listen(0, '127.0.0.1')
    await once(server, 'listening')
    const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
    let cookie = ''
    const ask = async <T>(path: string, body?: object, token = ''): Promise<{ status: number; body: T }> => {
      const answer = await fetch(base + path, {
        method: body ? 'POST' : 'GET',
        headers: { cookie, 'x-csrf-token': token, 'content-type': 'application/json' },
        body: body && JSON.stringify(body),
      })
      const sent = answer.headers.getSetCookie()
      if (sent.length > 0) cookie = sent.map((c) => c.split(';')[0]).join('; ')
      return { status: answer.status, body: (await answer.json()) as T }
    }
    const { csrfToken, demoPeople } = (await ask<SessionInfo>('/api/session')).body
    await ask('/api/session/demo', { personId: demoPeople[0]!.id }, csrfToken)
    const told = Object.values(endpoints)
      .flatMap((area) => Object.values<Endpoint>(area))
      .filter((e) => e.method === 'get' && !e.sends && /:/.test(e.path) && !/:(?!gardenId)/.test(e.path))
    expect(told.length).toBeGreaterThan(20)
    // Of a kind is asked which, of an absence when.
    const asked = [
      ['/fit', '?botanical=Hosta%20sieboldiana'],
      ['/absence', '?from=2026-07-10&to=2026-07-24'],
    ] as const
    for (const { id, name } of (await ask<GardenSummary[]>('/api/gardens')).body)
      for (const { path } of told) {
        const question = asked.find(([end]) => path.endsWith(end))?.[1] ?? ''
        const { status } = await ask(`/api${addressOf(path, { gardenId: id })}${question}`)
        expect([name, path, status]).toEqual([name, path, 200])
      }
    server.close()
  })
})

const GREATEST = '007_foundation'

/** Jobs in every state with what hangs on them, as a year of use leaves them. */
async function somethingOfEverything(): Promise<void> {
  await db.raw(`
    with person as (select id from people order by email limit 1),
    made as (
      insert into jobs (id, garden_id, planting_id, place_id, key, kind, title, details, earliest, best_from, best_to, latest,
                        minutes, state, left_out, rule_id, rule_key, season, why, pinned_on)
      select gen_random_uuid(), p.garden_id, p.id, s.place_id, 'care',
             case when n % 3 = 0 then 'propagate' else 'prune' end, 'Job ' || p.tag,
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
  await db.raw(`
    insert into edits (id, garden_id, person_id, entries)
    select gen_random_uuid(), f.garden_id, (select id from people order by email limit 1), jsonb_build_array(jsonb_build_object(
      'table', 'features', 'id', f.id, 'was', jsonb_build_object('geometry', f.geometry, 'properties', f.properties), 'now', null))
    from features f where kind = 'bed'`)
  await db.raw(`update plantings set planted_known = 'before' where tag like '%-003'`)
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
  features: ['kind', 'properties'],
  feature_events: ['garden_id'],
  plantings: ['withdrawn_at', 'colour_wish', 'planted_known', 'planted_by'],
  planting_sites: ['outline'],
  observations: ['device_at'],
  place_looks: ['device_at'],
  decisions: [],
  photos: ['device_at'],
  plan_pictures: [],
  crews: [],
  crew_people: [],
  weather_days: [],
  taxa: [],
  job_plantings: ['garden_id'],
  job_order: ['garden_id'],
  job_records: ['garden_id', 'device_at'],
  planting_treatments: [],
}
/** What only the new schema has, or has otherwise. */
const anew = ['features', 'jobs', 'job_sittings', 'planting_events', 'edits']

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

/**
 * The greatest of the migrations, and those after it, down and up again over five seasons of three gardens: nothing that a person
 * recorded is lost or doubled.
 */
describe('migrations, on the loaded demo', () => {
  beforeAll(somethingOfEverything)

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
    expect(await facts('edits')).toEqual(own.edits)
    expect(await db('plantings').where({ planted_known: 'before' })).not.toEqual([])
  })

  it('brings days, pins and records of jobs back as they were', async () => {
    const jobs = () =>
      db('jobs')
        .orderBy('id')
        .select(
          'id',
          'kind',
          'details',
          'state',
          'left_out',
          'pinned_on',
          'earliest',
          'latest',
          'minutes',
          'season',
          'why',
        )
    const sittings = () =>
      db('job_sittings').orderBy(['job_id', 'nth']).select('job_id', 'nth', 'day', 'minutes')
    const before = [await jobs(), await sittings()]
    await down()
    await up()
    expect([await jobs(), await sittings()]).toEqual(before)
  })

  it('keeps the colours that are wished, and what was decided of trees', async () => {
    const planting = (await db('plantings')
      .orderBy('id')
      .first<{ id: string; garden_id: string }>('id', 'garden_id'))!
    const person = (await db('people').first<{ id: string }>('id'))!
    await db('plantings').where({ id: planting.id }).update({ colour_wish: 'blue' })
    await db('decisions').insert({
      id: randomUUID(),
      garden_id: planting.garden_id,
      planting_id: planting.id,
      as_of: '2026-06-01',
      verdict: '{}',
      choice: 'accept',
      action: 'limb up',
      person_id: person.id,
    })
    const kept = async () => [
      await db('plantings').orderBy('id').select('id', 'colour_wish'),
      await db('decisions').orderBy('id').select('id', 'action'),
    ]
    const before = await kept()
    await db.migrate.down({ migrationSource, name: '018_judgement' } as never)
    expect((await db('decisions').select('action')).map((d) => d.action)).not.toContain('limb up')
    await db.migrate.up({ migrationSource, name: '018_judgement' } as never)
    expect(await kept()).toEqual(before)
    await db('decisions').del()
    await down()
    await up()
    expect((await kept())[0]).toEqual(before[0])
    await db('plantings').where({ id: planting.id }).update({ colour_wish: null })
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
