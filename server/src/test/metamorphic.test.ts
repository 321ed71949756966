import {
  aspects,
  changedAspects,
  endpoints,
  type Aspect,
  type Endpoint,
  type FeatureView,
  type GardenView,
  type LikelihoodView,
  type PlantingView,
  type SeasonView,
  type Versions,
  type VersionsView,
  type WalkAnswer,
} from '@border/contract'
import { addDays } from '@border/core'
import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect } from '../database/connect.ts'
import { entails, keyOf, views } from '../derived.ts'
import { queueRun } from '../store/runs.ts'
import { versionsOf } from '../store/versions.ts'
import { workOut } from '../work/runs.ts'
import * as asked from './asked.ts'
import { DERIVED, questionOf } from './asked.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'
import { amending, drawing, entering, takingOff } from './edits.ts'
import { beginning, saidOf } from './schemes.ts'
import { fillOf } from './validWrites.ts'

/**
 * Whatever is written, everything derived equals what is worked out from nothing. No expected value is written down here: what
 * is kept is held against what is not, and what a write raises against what it says it changes.
 */

const TODAY = '2026-09-15'
const NOW = Date.parse(`${TODAY}T10:00:00Z`)

let practice: TestPractice
let garden: GardenView
let crewId: string

beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => NOW)
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  garden = await look('')
  crewId = (await practice.db('gardens').where({ id: practice.gardenId }).first('crew_id')).crew_id
  await settle()
})
afterAll(() => practice.stop())

const look = <T = unknown>(rest: string): Promise<T> => asked.look<T>(practice, rest)
const write = (rest: string, body: object = {}) => asked.write(practice, rest, body)
const settle = () => asked.settle(practice)

const planting = (tag: string): PlantingView => garden.plantings.find((p) => p.tag === tag)!
const feature = (name: string): FeatureView => garden.features.find((f) => f.name === name)!

/** All that a device may be told of the garden, and keeps while what it rests on stands still. */
const named = Object.entries(endpoints).flatMap(([area, list]) =>
  Object.entries<Endpoint>(list).map(([name, endpoint]) => [endpoint, `${area}.${name}`] as const),
)
const nameOf = new Map(named)
const told = named
  .map(([endpoint]) => endpoint)
  .filter((e) => e.method === 'get' && !e.sends && (e.restsOn ?? []).length > 0 && !e.path.includes(':jobId'))

/** Of what is told, what is worked out and kept. */
const derivedPaths = [...DERIVED, '/fit', '/features/:featureId/ground']
const derived = told.filter(({ path }) => derivedPaths.some((view) => path === `/gardens/:gardenId${view}`))

type Told = ReadonlyMap<Endpoint, unknown>
async function whatIsTold(of: readonly Endpoint[]): Promise<Told> {
  const answers = new Map<Endpoint, unknown>()
  for (const endpoint of of) {
    const path = endpoint.path
      .replace(':gardenId', practice.gardenId)
      .replace(':plantingId', planting('W-03').id)
      .replace(':featureId', planting('W-03').placeId)
      .replace(':containerId', garden.features.find((f) => f.kind === 'container')!.id)
    const { status, body } = await practice.head.get(`${path}${questionOf(nameOf.get(endpoint)!)}`)
    if (status !== 200) throw new Error(`${path}: ${status} ${JSON.stringify(body)}`)
    answers.set(endpoint, body)
  }
  return answers
}

/** The work of the rules as the plan has it, by what it is: rows made anew have other ids. */
async function careJobs(): Promise<unknown[]> {
  const { jobs } = await look<SeasonView>('/season')
  return jobs
    .filter((j) => j.state === 'open' && j.ruleId !== null)
    .map(({ title, kind, ruleId, placeId, tags, minutes, window, steps, materials, cautions, unsure }) => ({
      title,
      kind,
      ruleId,
      placeId,
      tags,
      minutes,
      window,
      steps,
      materials,
      cautions,
      unsure,
    }))
    .sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1))
}

async function days(): Promise<unknown[]> {
  const { jobs } = await look<SeasonView>('/season')
  return jobs
    .filter((j) => j.state === 'open')
    .map((j) => [j.id, j.plannedOn, j.parts, j.unplaced])
    .sort()
}

/** Forgets all that is kept, and works the plan and its jobs out anew. */
async function fromNothing(): Promise<void> {
  await practice.db('computed').delete()
  await practice
    .db('worked_out')
    .where({ garden_id: practice.gardenId })
    .update({ care_basis: null, schedule_basis: null })
  await workOut(practice.shop, await queueRun(practice.db, { kind: 'follow', crewId }))
}

/** As `fromNothing`, with none of the jobs of the rules left that nobody has said anything of. */
async function withoutJobs(): Promise<void> {
  const made = () =>
    practice
      .db('jobs')
      .where({ garden_id: practice.gardenId, state: 'open' })
      .whereNotNull('rule_id')
      .whereNotIn('id', practice.db('job_records').select('job_id'))
  await practice.db('job_sittings').whereIn('job_id', made().select('id')).delete()
  await made().delete()
  await fromNothing()
}

async function expectAsFromNothing(kept: Told): Promise<void> {
  const work = await careJobs()
  const planned = await days()
  await fromNothing()
  for (const [endpoint, answer] of await whatIsTold(derived))
    expect([endpoint.path, answer]).toEqual([endpoint.path, kept.get(endpoint)])
  const anew = { work: await careJobs(), planned: await days() }
  // A plan that nothing has changed stays where it is.
  expect({ work, planned }).toEqual(anew)
}

interface Write {
  name: string
  /** What it says it changes; what follows of it comes on top. */
  changes: readonly Aspect[]
  make: () => Promise<unknown>
}

/** The things remembered between writes that take one another back. */
const ids = new Map<string, string>()
const keepId = async (name: string, made: Promise<Record<string, unknown>>, key: string) => {
  const id = (await made)[key]
  if (typeof id !== 'string') throw new Error(`${name} gave no ${key}`)
  ids.set(name, id)
}
async function seen(tag: string, more: object, on = addDays(TODAY, -1)): Promise<void> {
  const entry = {
    kind: 'planting',
    id: randomUUID(),
    plantingId: planting(tag).id,
    on,
    at: `${on}T09:00:00Z`,
  }
  const answer = await write('/walk-entries', { entries: [{ ...entry, ...more }] })
  const { refused } = answer as unknown as WalkAnswer
  if (refused.length > 0) throw new Error(refused[0]!.why)
}
const openJob = async (is: (j: SeasonView['jobs'][number]) => boolean) => {
  const { jobs } = await look<SeasonView>('/season')
  const job = jobs.find((j) => j.state === 'open' && is(j))
  if (!job) throw new Error('No such job is open')
  return job
}
const draw = (properties: object, geometry: object) =>
  write('/plan/edits', drawing({ feature: { type: 'Feature', properties, geometry } }))
const enter = async (planting: object) => {
  const { plantingIds } = (await write('/plantings', entering(planting))) as { plantingIds: string[] }
  return { plantingId: plantingIds[0] }
}
const moreMoist = ({ kind, name, geometry, properties, from, to }: FeatureView) => ({
  type: 'Feature',
  geometry,
  properties: { ...properties, kind, name, from, to, moisture: 'wet' },
})
const square = (x: number, y: number) => [
  [
    [x, y],
    [x + 3, y],
    [x + 3, y + 2],
    [x, y + 2],
    [x, y],
  ],
]

const writes: readonly Write[] = [
  {
    name: 'a wall falls',
    changes: ['plan'],
    make: () => write(`/features/${feature('Old workshop').id}/end`, { to: addDays(TODAY, -40) }),
  },
  {
    name: 'and stands after all',
    changes: ['plan'],
    make: () => write(`/features/${feature('Old workshop').id}/end`, { to: null }),
  },
  {
    name: 'the pear is thinned',
    changes: ['plan'],
    make: () =>
      write(`/features/${feature('Pear').id}/events`, {
        date: addDays(TODAY, -9),
        action: 'thinned',
        fraction: 0.4,
      }),
  },
  {
    name: 'which is taken back',
    changes: ['plan'],
    make: () => write(`/features/${feature('Pear').id}/events/undo`),
  },
  {
    name: 'a fence is drawn',
    changes: ['plan'],
    make: () =>
      draw(
        { kind: 'fence', name: 'New fence', heightM: 1.8, from: addDays(TODAY, -200) },
        {
          type: 'LineString',
          coordinates: [
            [0, 9.5],
            [14, 9.5],
          ],
        },
      ),
  },
  {
    name: 'a bed is drawn',
    changes: ['plan'],
    make: () =>
      draw(
        { kind: 'bed', name: 'East bed', moisture: 'moist' },
        { type: 'Polygon', coordinates: square(20, 0) },
      ),
  },
  {
    name: 'north is put right',
    changes: ['plan'],
    make: () => write('/amend', { northDeg: 38 }),
  },
  {
    name: 'the garden lies elsewhere',
    changes: ['plan', 'climate'],
    make: () => write('/amend', { latitude: 50.4, longitude: 2.1 }),
  },
  {
    name: 'the frosts are known',
    changes: ['climate'],
    make: () => write('/known-climate', { lastFrost: '05-14', firstFrost: '10-02', coldestC: -18 }),
  },
  {
    name: 'what was known is taken back',
    changes: ['climate'],
    make: () => write('/known-climate', {}),
  },
  {
    name: 'the soil is measured',
    changes: ['climate'],
    make: () => write('/soil', { day: addDays(TODAY, -2), celsius: 11.5 }),
  },
  {
    name: 'a planting is added',
    changes: ['plantings'],
    make: async () =>
      keepId(
        'added',
        enter({
          tag: 'W-40',
          taxonBotanical: 'Hosta sieboldiana',
          placeId: feature('North bed').id,
          count: 5,
          plantedOn: addDays(TODAY, -400),
          source: 'bought',
          x: 9,
          y: 22.6,
        }),
        'plantingId',
      ),
  },
  {
    name: 'and put right',
    changes: ['plantings'],
    make: () =>
      write(
        '/plantings/amend',
        amending(ids.get('added')!, {
          tag: 'W-41',
          taxonBotanical: 'Astilbe × arendsii',
          placeId: feature('Court border').id,
          count: 4,
          plantedOn: addDays(TODAY, -500),
          source: 'bought',
          x: 6.5,
          y: 12.4,
        }),
      ),
  },
  {
    name: 'and taken out again',
    changes: ['plantings'],
    make: () => write('/plantings/withdraw', { plantingIds: [ids.get('added')] }),
  },
  {
    name: 'a bed is drawn otherwise, and what was done is taken back',
    changes: ['plan'],
    make: async () => {
      const bed = feature('North bed')
      const { editId } = (await write('/plan/edits', drawing({ feature: moreMoist(bed) }, bed.id))) as {
        editId: string
      }
      await write(`/plan/edits/${editId}/undo`)
    },
  },
  {
    name: 'something comes off the plan, and is put on it again',
    changes: ['plan'],
    make: async () => {
      const { id } = feature('Pear')
      await write('/plan/edits', takingOff(id))
      await write(`/features/${id}/restore`)
    },
  },
  {
    name: 'and brought back',
    changes: ['plantings'],
    make: () => write(`/plantings/${ids.get('added')}/restore`),
  },
  {
    name: 'a planting is seen to do badly',
    changes: ['record'],
    make: () => seen('W-02', { rating: 1, signs: ['scorched', 'wilting'] }, addDays(TODAY, -70)),
  },
  {
    name: 'and is counted',
    changes: ['record', 'plantings'],
    make: () => seen('W-03', { rating: 2, living: 3 }),
  },
  {
    name: 'nothing shows of another',
    changes: ['record'],
    make: () => seen('W-04', { absent: true }),
  },
  {
    name: 'a place is looked at',
    changes: ['record'],
    make: () =>
      write('/walk-entries', {
        entries: [
          {
            kind: 'place',
            id: randomUUID(),
            placeId: feature('Court border').id,
            on: addDays(TODAY, -1),
            at: `${addDays(TODAY, -1)}T09:00:00Z`,
            soil: 'dry',
            weeds: 'many',
            holesM: [0.6],
          },
        ],
      }),
  },
  {
    name: 'it was cut for bloom',
    changes: ['record'],
    make: () =>
      write(`/plantings/${planting('W-03').id}/treatments`, {
        on: addDays(TODAY, -90),
        what: 'cut by half',
      }),
  },
  {
    name: 'a sign speaks otherwise',
    changes: ['library'],
    make: async () => {
      const { rows } = await look<LikelihoodView>('/likelihoods')
      const { sign, cause, share } = rows.find((r) => r.share > 0 && r.share < 0.9)!
      return write('/likelihoods', { sign, cause, share: share + 0.05 })
    },
  },
  {
    name: 'a kind is described otherwise',
    // What the practice knows of a kind stands for it in all its gardens from now on.
    changes: ['library', 'plantings'],
    make: async () => {
      const { body } = await practice.head.get('/taxa')
      const taxon = (body as { botanical: string }[]).find((t) => t.botanical === 'Hosta sieboldiana')!
      const answer = await practice.head.post('/taxa', {
        taxon: { ...taxon, lightMinHours: 5, lightMaxHours: 9 },
        was: taxon.botanical,
      })
      if (answer.status !== 200) throw new Error(JSON.stringify(answer.body))
    },
  },
  {
    name: 'another school is followed',
    changes: ['rules'],
    make: () => write('/schools', { school: 'cutting-back', choice: 'autumn' }),
  },
  {
    name: 'a rule is moved',
    changes: ['rules'],
    make: async () => {
      const { ruleId } = await openJob((j) => j.ruleId !== null)
      return write(`/rules/${ruleId}`, { adjusted: { shiftDays: 6 } })
    },
  },
  {
    name: 'a rule is put out of force',
    changes: ['rules'],
    make: async () => {
      const { ruleId } = await openJob((j) => j.ruleId !== null)
      return write(`/rules/${ruleId}`, { isOn: false })
    },
  },
  {
    name: 'a move is decided',
    changes: ['decisions', 'jobs'],
    make: () =>
      write('/decisions', {
        plantingId: planting('W-01').id,
        on: TODAY,
        choice: 'otherwise',
        action: 'move',
        reason: 'It scorches here every summer.',
        target: { placeId: feature('North bed').id, x: 7, y: 22.4 },
      }),
  },
  {
    name: 'and thought better of',
    changes: ['decisions', 'jobs'],
    make: () =>
      write('/decisions', {
        plantingId: planting('W-01').id,
        on: TODAY,
        choice: 'otherwise',
        action: 'keep',
        reason: 'The new fence may do.',
      }),
  },
  {
    name: 'a job is done',
    changes: ['jobs'],
    make: async () => {
      const job = await openJob((j) => j.ruleId !== null && j.after.length === 0)
      ids.set('done', job.id)
      return write(`/jobs/${job.id}/done`, { on: TODAY, minutes: job.minutes + 13 })
    },
  },
  {
    name: 'and taken back',
    changes: ['jobs'],
    make: () => write(`/jobs/${ids.get('done')}/take-back`),
  },
  {
    name: 'another is left out this once',
    changes: ['jobs'],
    make: async () => {
      const job = await openJob((j) => j.ruleId !== null)
      ids.set('left out', job.id)
      return write(`/jobs/${job.id}/leave-out`, { leaveOut: true })
    },
  },
  {
    name: 'and taken up again',
    changes: ['jobs'],
    make: () => write(`/jobs/${ids.get('left out')}/leave-out`, { leaveOut: false }),
  },
  {
    name: 'somebody is away',
    changes: ['crew'],
    make: () =>
      write('/crew/absences', {
        personId: null,
        from: addDays(TODAY, 1),
        to: addDays(TODAY, 12),
        reason: 'course',
      }),
  },
  {
    name: 'the week is another',
    changes: ['crew'],
    make: () => practice.work([0, 0, 300, 0, 300, 0, 120]),
  },
  {
    name: 'the light is read',
    changes: ['readings'],
    make: () =>
      write('/light-readings', {
        at: `${addDays(TODAY, -1)}T11:30:00Z`,
        x: 5.5,
        y: 11.6,
        placeId: feature('Court border').id,
        seen: 'shade',
      }),
  },
  {
    name: 'something is put on the bench',
    changes: ['bench'],
    make: () => write('/bench', { taxonBotanical: 'Hosta sieboldiana', count: 3, since: addDays(TODAY, -3) }),
  },
  {
    name: 'water is given',
    changes: ['waterings'],
    make: () => write('/waterings', { on: TODAY, given: [{ plantingId: planting('W-03').id, litres: 10 }] }),
  },
  {
    name: 'a container is filled',
    changes: ['fills', 'plantings'],
    make: () => write('/containers/fills', fillOf(feature('Door pot').id)),
  },
  {
    name: 'a what-if is kept',
    changes: ['suppositions'],
    make: async () =>
      keepId(
        'what-if',
        write('/what-ifs', {
          name: 'Without the pear',
          suppositions: [{ obstructionId: feature('Pear').id, gone: true }],
        }),
        'whatIfId',
      ),
  },
  {
    name: 'and dropped',
    changes: ['suppositions'],
    make: () => write(`/what-ifs/${ids.get('what-if')}/withdraw`),
  },
  {
    name: 'past work is written down',
    changes: ['jobs'],
    make: () =>
      write('/past-work', {
        id: randomUUID(),
        on: addDays(TODAY, -400),
        operation: 'divide',
        placeId: planting('W-03').placeId,
        plantingIds: [planting('W-03').id],
      }),
  },
  {
    name: 'a scan is laid under the plan',
    changes: ['pictures'],
    make: async () => {
      const id = randomUUID()
      const file = await sharp({ create: { width: 9, height: 6, channels: 3, background: '#ddd' } })
        .png()
        .toBuffer()
      const path = `/gardens/${practice.gardenId}/plan/pictures`
      await practice.head.post(path, { id, name: 'Survey' }, { file })
    },
  },
  {
    name: 'a place is decided anew',
    changes: ['reworks'],
    make: async () => {
      const rework = beginning(feature('Court border').id)
      ids.set('rework', rework.id)
      ids.set('scheme', rework.schemes[0]!.id)
      await write('/reworks', rework)
    },
  },
  {
    name: 'otherwise',
    changes: ['reworks'],
    make: () =>
      write(`/reworks/${ids.get('rework')}/schemes/${ids.get('scheme')}/keep`, {
        said: saidOf({ name: 'Another' }),
      }),
  },
  {
    name: 'which is taken back',
    changes: ['reworks'],
    make: () => write(`/reworks/${ids.get('rework')}/schemes/${ids.get('scheme')}/step`, { to: 'before' }),
  },
  {
    name: 'and it is carried out',
    changes: ['reworks', 'jobs'],
    make: async () => {
      const path = `/reworks/${ids.get('rework')}/schemes/${ids.get('scheme')}`
      const { id: plantingId } = planting('W-03')
      const leaving = [{ plantingId, how: 'leaves' as const, to: { to: 'gone' as const }, worth: 1 }]
      await write(`${path}/keep`, { said: saidOf({ leaving }) })
      const { revision_id: revisionId } = await practice
        .db('schemes')
        .where({ id: ids.get('scheme') })
        .first()
      await write(`${path}/accept`, { revisionId })
    },
  },
  {
    name: 'and then all of it is taken away',
    changes: ['reworks', 'jobs'],
    make: () => write(`/reworks/${ids.get('rework')}/withdraw`),
  },
  {
    name: 'a price is asked',
    changes: ['prices'],
    make: () =>
      practice.head.post('/prices', {
        id: randomUUID(),
        supplier: 'Nursery',
        item: 'Hosta sieboldiana',
        packs: [{ name: '9 cm pot', holds: 1, price: 420 }],
        pricedOn: TODAY,
      }),
  },
  {
    name: 'it is gone through',
    changes: ['suspicions'],
    make: () => write('/recheck'),
  },
  {
    name: 'it is called otherwise',
    changes: ['members'],
    make: () => write('/amend', { name: 'Walled court and lane' }),
  },
  {
    name: 'somebody joins',
    changes: ['members'],
    make: () =>
      write('/people', {
        name: 'Third',
        email: 'third@example.org',
        password: 'a long enough one',
        role: 'keeper',
      }),
  },
  {
    name: 'the calendar may be read',
    changes: ['links'],
    make: () => write('/calendar-link', { on: true }),
  },
]

/** Jobs and their days follow from nearly everything. */
const follows: readonly Aspect[] = ['jobs', 'days']
const restsOn = (endpoint: Endpoint) => (changed: readonly Aspect[]) =>
  endpoint.restsOn!.some((a) => changed.includes(a))

describe('every write, one after another', () => {
  let toldBefore: Told
  beforeAll(async () => {
    toldBefore = await whatIsTold(told)
  })

  it('is held against all that is worked out', () => {
    expect(derived.map((e) => e.path.replace('/gardens/:gardenId', ''))).toEqual(
      expect.arrayContaining([...DERIVED]),
    )
  })

  it.each(writes)('$name', async ({ changes, make }) => {
    garden = await look('')
    // Everything was asked for before the write and is kept, so that what is not forgotten by it shows.
    const before = await versionsOf(practice.db, practice.gardenId)
    await make()
    const raised = changedAspects(before, await versionsOf(practice.db, practice.gardenId))
    expect(raised).toEqual(expect.arrayContaining([...changes]))
    // Nothing else may be raised that was not touched.
    expect(raised.filter((a) => !follows.includes(a) && !changes.includes(a))).toEqual([])
    await settle()
    const toldAfter = await whatIsTold(told)
    const after = changedAspects(before, await versionsOf(practice.db, practice.gardenId))
    for (const endpoint of told)
      if (!isDeepStrictEqual(toldAfter.get(endpoint), toldBefore.get(endpoint)))
        expect([endpoint.path, after]).toEqual([endpoint.path, expect.toSatisfy(restsOn(endpoint))])
    await expectAsFromNothing(toldAfter)
    toldBefore = toldAfter
  })

  it('and the jobs at the end are those that a garden without any would be given', async () => {
    const made = await careJobs()
    expect(made.length).toBeGreaterThan(5)
    await withoutJobs()
    expect(await careJobs()).toEqual(made)
  })
})

describe('work that is not yet that of the garden as it stands', () => {
  const isBehind = async () => (await look<VersionsView>('/versions')).isBehind

  it('says so: where it was never worked out, and while what follows a walk is still to come', async () => {
    await settle()
    expect(await isBehind()).toBe(false)
    await practice.db('worked_out').where({ garden_id: practice.gardenId }).update({ care_basis: null })
    expect(await isBehind()).toBe(true)
    await fromNothing()
    expect(await isBehind()).toBe(false)
    await seen('W-05', { rating: 3 })
    expect(await isBehind()).toBe(true)
    await settle()
    expect(await isBehind()).toBe(false)
  })
})

describe('writes in any order', () => {
  /** What may be written whenever, in whatever state the garden is. */
  const free = writes.filter((w) =>
    [
      'a wall falls',
      'and stands after all',
      'the pear is thinned',
      'north is put right',
      'the frosts are known',
      'what was known is taken back',
      'the soil is measured',
      'a planting is seen to do badly',
      'and is counted',
      'a place is looked at',
      'another school is followed',
      'somebody is away',
      'the week is another',
      'a rule is moved',
    ].includes(w.name),
  )

  it('leave nothing behind that is not so', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom(...free), { minLength: 2, maxLength: 5 }),
        async (sequence) => {
          garden = await look('')
          await whatIsTold(derived)
          for (const { make } of sequence) await make()
          await settle()
          await expectAsFromNothing(await whatIsTold(derived))
        },
      ),
      { numRuns: 4, endOnFailure: true },
    )
  })
})

describe('what is derived names what it is derived from', () => {
  const versions = (raised: Partial<Versions> = {}): Versions =>
    ({ ...Object.fromEntries(aspects.map((a) => [a, '1'])), ...raised }) as Versions

  it('is kept under exactly the aspects that it names', () => {
    for (const [view, named] of Object.entries(views) as [keyof typeof views, readonly Aspect[]][])
      for (const aspect of aspects) {
        const raised = keyOf(view, 'g', versions({ [aspect]: '2' }), [TODAY])
        const isSame = raised === keyOf(view, 'g', versions(), [TODAY])
        expect([view, aspect, isSame]).toEqual([view, aspect, !named.includes(aspect)])
      }
  })

  it('is kept apart by garden, by view and by what was asked', () => {
    const keys = [
      keyOf('record', 'g', versions(), [TODAY]),
      keyOf('record', 'h', versions(), [TODAY]),
      keyOf('bloom', 'g', versions(), [TODAY]),
      keyOf('record', 'g', versions(), [addDays(TODAY, 1)]),
    ]
    expect(new Set(keys).size).toBe(keys.length)
  })

  it('lets the work of the rules and the plan follow from every aspect that they are made from', () => {
    for (const aspect of views.care)
      if (aspect !== 'jobs') expect([aspect, entails[aspect]?.what]).toEqual([aspect, 'care'])
    for (const aspect of views.schedule) expect(entails[aspect]).toBeDefined()
  })
})

describe('versions', () => {
  it('are raised by the database itself, whoever writes', async () => {
    const db = connect(practice.url, 1)
    try {
      const before = await versionsOf(db, practice.gardenId)
      await db('plantings').where({ garden_id: practice.gardenId }).limit(1).update({ role: 'edging' })
      expect(changedAspects(before, await versionsOf(db, practice.gardenId))).toEqual(['plantings'])
    } finally {
      await db.destroy()
    }
  })

  it('stay where they were when a write is undone half way', async () => {
    const before = await versionsOf(practice.db, practice.gardenId)
    await practice.db
      .transaction(async (trx) => {
        await trx('features')
          .where({ garden_id: practice.gardenId })
          .update({ name: trx.raw(`name || '!'`) })
        throw new Error('undone')
      })
      .catch(() => undefined)
    expect(changedAspects(before, await versionsOf(practice.db, practice.gardenId))).toEqual([])
  })

  it('of one garden are not touched by another of the practice', async () => {
    const answer = await practice.head.post('/gardens', {
      name: 'Next door',
      latitude: 51,
      longitude: 0,
      timeZone: 'Europe/London',
    })
    expect(answer.status).toBe(200)
    const other = answer.body.gardenId as string
    const before = await versionsOf(practice.db, other)
    await write('/amend', { northDeg: 12 })
    await settle()
    expect(changedAspects(before, await versionsOf(practice.db, other))).toEqual([])
  })
})
