import type { AheadView, LightEvidenceView, GardenView, WhatIfView, SuspicionsView } from '@border/contract'
import {
  addDays,
  civilDate,
  ringOf,
  sceneOf,
  seededRandom,
  solarDay,
  withSuppositions,
  type LuxSample,
} from '@border/core'
import { simulateLog } from '@border/core/simulated'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openGarden } from '../reader.ts'
import { findGardenForWork, setStandInChanges } from '../store/gardens.ts'
import { insertLog } from '../store/light.ts'
import { simulatedLogger } from '../work/loggerService.ts'
import { recheckGarden } from '../work/suspect.ts'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { drawing } from './edits.ts'

let practice: TestPractice
let view: GardenView
const ZONE = 'Europe/London'
const today = civilDate(new Date(), ZONE)
const at = (path: string) => `/gardens/${practice.gardenId}${path}`

beforeAll(async () => {
  practice = await practiceWithGarden()
  view = (await practice.head.get(at(''))).body
})
afterAll(() => practice.stop())

const shading = () => view.features.find((f) => f.kind === 'tree')!
const eventsOf = async (id: string) => {
  const { body } = await practice.head.get(at(''))
  return (body as GardenView).features.find((f) => f.id === id)!.properties.events as object[] | undefined
}
/** Noon by the sun of a day some days ago: always up, never in the future. */
const noon = (daysAgo: number) => {
  const day = solarDay(addDays(today, -daysAgo), view.garden.latitude, view.garden.longitude)
  return new Date(day.find((s) => s.solarHours > 12)!.instantMs).toISOString()
}
const inBed = () => {
  const bed = view.features.find((f) => f.kind === 'bed')!
  const [x, y] = bed.geometry.type === 'Polygon' ? bed.geometry.coordinates[0]![0]! : [0, 0]
  return { x: x! + 0.5, y: y! + 0.5, placeId: bed.id }
}

describe('what if', () => {
  it('keeps what-ifs by name, compares them with things as they stand, and drops them', async () => {
    const tree = shading()
    const kept = await practice.head.post(at('/what-ifs'), {
      name: 'Without the tree',
      suppositions: [{ obstructionId: tree.id, gone: true }],
    })
    expect(kept.status).toBe(200)
    const twice = await practice.head.post(at('/what-ifs'), {
      name: 'without the tree',
      suppositions: [{ obstructionId: tree.id, thinnedBy: 0.5 }],
    })
    expect([twice.status, twice.body.error]).toEqual([409, 'Another what-if of this garden has this name.'])
    const { body } = await practice.head.get(at('/what-ifs'))
    const [asItStands, without] = body as WhatIfView[]
    expect(asItStands).toMatchObject({ id: null, leaving: 0, returning: 0 })
    // Taking something away never takes sun away.
    expect(without!.meanHours).toBeGreaterThan(asItStands!.meanHours)
    expect((await practice.head.post(at(`/what-ifs/${kept.body.whatIfId}/withdraw`))).status).toBe(200)
    expect((await practice.head.get(at('/what-ifs'))).body).toEqual([])
  })

  it('refuses to try what is not on this plan', async () => {
    const stray = await practice.head.post(at('/what-ifs'), {
      name: 'Stray',
      suppositions: [{ obstructionId: randomUUID(), gone: true }],
    })
    expect(stray.status).toBe(404)
  })
})

describe('making it so', () => {
  it('records sizes as events of the day and puts right where a thing is drawn, keeping what was said before', async () => {
    const tree = shading()
    const [x, y] = tree.geometry.type === 'Point' ? tree.geometry.coordinates : [0, 0]
    const made = await practice.head.post(at(`/features/${tree.id}/change`), {
      date: today,
      change: { heightM: 4.5, crownRadiusM: 1.5, movedM: [1, -2] },
    })
    expect(made.status).toBe(200)
    expect(await eventsOf(tree.id)).toContainEqual({
      date: today,
      action: 'measured',
      heightM: 4.5,
      crownRadiusM: 1.5,
    })
    const { body } = await practice.head.get(at(''))
    const now = (body as GardenView).features.find((f) => f.id === tree.id)!
    expect(now.geometry).toEqual({ type: 'Point', coordinates: [x! + 1, y! - 2] })
    const [edit] = await practice.db('edits').orderBy('created_at', 'desc').limit(1)
    const of = (table: string) => edit.entries.filter((e: { table: string }) => e.table === table)
    expect(of('features').map((e: { was: object }) => e.was)).toMatchObject([{ geometry: tree.geometry }])
    // One edit of both: taken back, neither stands.
    expect(of('feature_events')).toHaveLength(1)
  })

  it('refuses to limb up or thin a wall, and changes nothing', async () => {
    const wall = view.features.find((f) => f.kind === 'wall')!
    const refused = await practice.head.post(at(`/features/${wall.id}/change`), {
      date: today,
      change: { heightM: 1, clearStemM: 0.5 },
    })
    expect([refused.status, refused.body.error]).toEqual([422, 'Only a tree can be limbed up.'])
    const thinned = await practice.head.post(at(`/features/${wall.id}/change`), {
      date: today,
      change: { thinnedBy: 0.3 },
    })
    expect([thinned.status, thinned.body.error]).toEqual([422, 'Only a tree or a hedge can be thinned.'])
    expect((await eventsOf(wall.id)) ?? []).toEqual(wall.properties.events ?? [])
  })

  it('puts right what is drawn, and refuses what no plan could hold', async () => {
    const tree = shading()
    const feature = (more: object) => ({
      type: 'Feature',
      properties: {
        ...tree.properties,
        kind: 'tree',
        name: tree.name,
        from: tree.from,
        to: tree.to,
        ...more,
      },
      geometry: tree.geometry,
    })
    const tall = await practice.head.post(
      at('/plan/edits'),
      drawing({ feature: feature({ heightM: 130 }) }, tree.id),
    )
    expect(tall.status).toBe(422)
    expect(tall.body.problems[0].message).toMatch(/heightM: must be at most 120/)
    const right = await practice.head.post(
      at('/plan/edits'),
      drawing({ feature: feature({ health: 'failing' }) }, tree.id),
    )
    expect(right.status).toBe(200)
    const { body } = await practice.head.get(at('/ahead'))
    expect((body as AheadView).waiting).toMatchObject([{ obstructionId: tree.id, health: 'failing' }])
  })
})

describe('readings', () => {
  it('are taken by eye, weighed, and taken back', async () => {
    const reading = { ...inBed(), at: noon(2), seen: 'shade' }
    const key = randomUUID()
    const first = await practice.head.post(at('/light-readings'), reading, { key })
    const again = await practice.head.post(at('/light-readings'), reading, { key })
    expect([first.status, again.body]).toEqual([200, first.body])
    const { body } = await practice.head.get(at('/light-evidence'))
    const evidence = body as LightEvidenceView
    expect(evidence.readings).toMatchObject([{ seen: 'shade', x: reading.x }])
    expect(evidence.used + evidence.unusable.length).toBe(1)
    await practice.head.post(at(`/light-readings/${first.body.readingId}/withdraw`))
    const { body: after } = await practice.head.get(at('/light-evidence'))
    expect(after.readings).toEqual([])
  })

  it.each([
    ['in the future', () => new Date(Date.now() + 3_600_000).toISOString(), /future/],
    ['at midnight', () => `${addDays(today, -3)}T00:30:00.000Z`, /below the horizon/],
  ])('%s are refused', async (_, when, words) => {
    const refused = await practice.head.post(at('/light-readings'), { ...inBed(), at: when(), seen: 'sun' })
    expect([refused.status, words.test(refused.body.error)]).toEqual([422, true])
  })
})

describe('a light logger', () => {
  const csvOf = (samples: readonly LuxSample[], shiftHours = 0) =>
    [
      'time,lux',
      ...samples.map(
        (s) => `${new Date(s.instantMs + shiftHours * 3_600_000).toISOString().slice(0, 16)}Z,${s.lux}`,
      ),
    ].join('\n')
  const samples = () => {
    const fromMs = Date.parse(`${addDays(today, -20)}T00:00Z`)
    const { x, y } = inBed()
    const scene = sceneOf(view.garden, view.features)
    return simulateLog(scene, { x, y, z: 0 }, { fromMs, days: 14, everyMin: 10 }, seededRandom(4))
  }

  it('is read once, with its cloudy spells set aside', async () => {
    const log = { ...inBed(), name: 'Logger', csv: csvOf(samples()) }
    expect((await practice.head.post(at('/light-logs'), log)).status).toBe(200)
    const again = await practice.head.post(at('/light-logs'), log)
    expect([again.status, again.body.error]).toEqual([409, 'This very file has been read already.'])
    const { body } = await practice.head.get(at('/light-evidence'))
    const [record] = (body as LightEvidenceView).logs
    expect(record).toMatchObject({ name: 'Logger', sampleCount: 14 * 144 })
    expect(record!.steps).toBeGreaterThan(record!.readingCount)
  })

  it('of another time zone is refused, with how far out it is', async () => {
    const log = { ...inBed(), name: 'Far logger', csv: csvOf(samples(), -5) }
    const refused = await practice.head.post(at('/light-logs'), log)
    expect(refused.status).toBe(422)
    expect(refused.body.error).toMatch(/ 5 h too early|4\.75 h too early|5\.25 h too early/)
  })

  it('names every bad line', async () => {
    const csv = 'time,lux\n2026-03-29T01:30,100\nnoon,5\n2026-03-30T10:00,-1'
    const refused = await practice.head.post(at('/light-logs'), { ...inBed(), name: 'bad.csv', csv })
    expect(refused.status).toBe(422)
    const words = refused.body.problems.map((p: { message: string }) => p.message).join('\n')
    expect(words).toMatch(/line 2, column time: .*clocks went forward/)
    expect(words).toMatch(/line 3, column time/)
    expect(words).toMatch(/line 4, column lux: must be at least 0/)
  })
})

describe('the nightly re-check', () => {
  // A fixed midsummer, whatever day the tests are run on.
  const DAY = '2026-06-30'
  const recheck = async () => {
    const garden = (await findGardenForWork(practice.db, practice.gardenId))!
    const read = openGarden(practice.db, garden, DAY)
    await recheckGarden(read, practice.pool, Date.parse(`${DAY}T09:00Z`))
    return ((await practice.head.get(at('/suspicions'))).body as SuspicionsView).suspicions
  }

  it('raises what readings say once, and never again after it was dismissed', async () => {
    const { body } = await practice.head.get(at(''))
    const drawn = sceneOf((body as GardenView).garden, (body as GardenView).features)
    const { id: personId } = await practice.db('people').first('id')
    const house = view.features.find((f) => f.kind === 'building')!
    const truth = withSuppositions(drawn, [{ obstructionId: house.id, gone: true }], DAY)
    const fromMs = Date.parse(`${addDays(DAY, -15)}T00:00Z`)
    for (const bed of view.features.filter((f) => f.kind === 'bed'))
      for (const [x, y] of ringOf(bed.geometry)) {
        const stood = { x, y, z: 0 }
        const samples = simulateLog(
          truth,
          stood,
          { fromMs, days: 14, everyMin: 10 },
          seededRandom(x * 31 + y),
        )
        const log = { name: 'Logger', x, y, placeId: bed.id }
        await insertLog(practice.db, practice.gardenId, personId, log, samples)
      }
    const raised = (await recheck()).filter((s) => s.detail.kind === 'unrecorded')
    expect(raised).toMatchObject([{ detail: { cause: { what: 'gone', obstructionId: house.id } } }])
    expect((await recheck()).map((s) => s.id)).toContain(raised[0]!.id)
    const dismissed = await practice.head.post(at(`/suspicions/${raised[0]!.id}`), { state: 'dismissed' })
    expect(dismissed.status).toBe(200)
    expect((await recheck()).filter((s) => s.detail.kind === 'unrecorded')).toEqual([])
    const twice = await practice.head.post(at(`/suspicions/${raised[0]!.id}`), { state: 'confirmed' })
    expect(twice.status).toBe(409)
  })
})

it('the made-up logger reads what truly stands, and the same each time', async () => {
  const garden = (await findGardenForWork(practice.db, practice.gardenId))!
  const wall = view.features.find((f) => f.kind === 'wall')!
  const [x, y] = wall.geometry.type === 'LineString' ? wall.geometry.coordinates[0]! : [0, 0]
  const stood = { at: { x: x! + 0.6, y: y! + 0.6, z: 0 }, fromMs: Date.parse('2026-06-01T00:00Z'), days: 4 }
  const sumOf = async () =>
    (await simulatedLogger.read(practice.db, garden, stood)).reduce((sum, s) => sum + s.lux, 0)
  const drawn = await sumOf()
  expect(await sumOf()).toBe(drawn)
  await setStandInChanges(practice.db, practice.gardenId, [
    { feature: wall.name, event: { date: '2024-01-01', action: 'lowered', heightM: 0 } },
  ])
  expect(await sumOf()).toBeGreaterThan(drawn)
})
