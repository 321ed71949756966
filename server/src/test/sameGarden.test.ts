import type { AssessmentView, GardenView, RecordView, SeasonView } from '@border/contract'
import { addDays } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, describe, expect, it } from 'vitest'
import { DERIVED, look, settle, write } from './asked.ts'
import { shortRecord, practiceWithGarden, type TestPractice } from './practice.ts'
import { amending, entering } from './edits.ts'

/**
 * One garden told in other ways is the same garden: drawn from another origin, turned with its north, entered in another order,
 * owned by other people. And a write with its way back leaves everything as it was. Nothing expected is written down here: one
 * telling is held against the other.
 */

const TODAY = '2026-09-15'
const NOW = Date.parse(`${TODAY}T10:00:00Z`)

type Files = typeof shortRecord
type Point = [number, number]

const opened: TestPractice[] = []
afterAll(async () => {
  for (const practice of opened) await practice.stop()
})

async function gardenOf(files: Files = shortRecord): Promise<TestPractice> {
  const practice = await practiceWithGarden(files, () => NOW)
  opened.push(practice)
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  await settle(practice)
  return practice
}

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g
/** What is of a row and not of the garden: when it was written down, and how often. */
const OF_ROWS = new Set(['recordedAt', 'createdAt', 'at', 'revision', 'gardenId', 'crewId'])

/** Whatever is worked out of a garden, in its own names: ids are what they are the ids of, lists are in the order of their words. */
async function told(
  practice: TestPractice,
  back: (p: Point) => Point = (p) => p,
): Promise<Record<string, unknown>> {
  const { features, plantings } = await look<GardenView>(practice, '')
  const { stays } = await look<RecordView>(practice, '/record')
  const names = new Map([
    ...features.map((f) => [f.id, f.name] as const),
    ...plantings.map((p) => [p.id, p.tag] as const),
    ...stays.map((s) => [s.id, `${s.tag} from ${s.from}`] as const),
  ])
  const inNames = (value: unknown): unknown => {
    if (typeof value === 'string') return value.replace(UUID, (id) => names.get(id) ?? 'a row')
    if (Array.isArray(value))
      return value.map(inNames).sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1))
    if (typeof value !== 'object' || value === null) return value
    const entries = Object.entries(value)
      .filter(([key]) => !OF_ROWS.has(key))
      .map(([key, v]): [string, unknown] => [String(inNames(key)), inNames(v)])
      .sort(([a], [b]) => (a < b ? -1 : 1))
    const named = Object.fromEntries(entries)
    if (typeof named.x !== 'number' || typeof named.y !== 'number') return named
    const [x, y] = back([named.x, named.y])
    return { ...named, x: Math.round(x * 1e6) / 1e6, y: Math.round(y * 1e6) / 1e6 }
  }
  const found: Record<string, unknown> = {}
  // Where looking would tell most is asked of an even choice of points, which goes by the order and origin of the plan.
  for (const view of DERIVED.filter((v) => v !== '/light-evidence'))
    found[view] = inNames(await look(practice, view))
  const { jobs } = await look<SeasonView>(practice, '/season')
  found.jobs = inNames(
    jobs
      .filter((j) => j.state === 'open')
      .map(
        ({ title, kind, tags, minutes, window, plannedOn, parts, unplaced, steps, materials, unsure }) => ({
          title,
          kind,
          tags,
          minutes,
          window,
          plannedOn,
          parts,
          unplaced,
          steps,
          materials,
          unsure,
        }),
      ),
  )
  return found
}

function expectAlike(a: Record<string, unknown>, b: Record<string, unknown>): void {
  for (const view of Object.keys(a)) expect(b[view], view).toEqual(a[view])
}

/** A plan with every point elsewhere and its north so many degrees on. */
function redrawn(text: string, to: (p: Point) => Point, turnedDeg = 0): string {
  const plan = JSON.parse(text)
  const move = (c: unknown): unknown =>
    Array.isArray(c) && typeof c[0] === 'number' ? to(c as Point) : (c as unknown[]).map(move)
  plan.garden.northDeg += turnedDeg
  for (const f of plan.features) f.geometry.coordinates = move(f.geometry.coordinates)
  return JSON.stringify(plan)
}

/** Rows of a file whose columns x and y lie elsewhere. */
function rowsElsewhere(text: string, to: (p: Point) => Point): string {
  const [head, ...rows] = text.trim().split(/\r?\n/)
  const columns = head!.split(',')
  const [x, y] = [columns.indexOf('x'), columns.indexOf('y')]
  return [
    head,
    ...rows.map((row) => {
      const cells = row.split(',')
      if (!cells[x]) return row
      const [there, up] = to([Number(cells[x]), Number(cells[y])])
      return cells.map((c, i) => (i === x ? there : i === y ? up : c)).join(',')
    }),
  ].join('\n')
}

describe('the same garden', () => {
  let first: TestPractice
  let before: Record<string, unknown>
  it('is judged the same for another practice', async () => {
    first = await gardenOf()
    before = await told(first)
    const { assessments } = await look<AssessmentView>(first, '/assessment')
    expect(assessments.length).toBeGreaterThan(5)
    expectAlike(before, await told(await gardenOf()))
  })

  it('drawn from another origin, is judged the same where it lies', async () => {
    // By whole steps of the points that are searched for spots: light and spots are looked for at the same places of the ground.
    const to = ([x, y]: Point): Point => [x + 130.5, y - 47.5]
    const back = ([x, y]: Point): Point => [x - 130.5, y + 47.5]
    const moved = await gardenOf({
      ...shortRecord,
      plan: redrawn(shortRecord.plan, to),
      plantings: rowsElsewhere(shortRecord.plantings, to),
    })
    expectAlike(before, await told(moved, back))
  })

  it('entered in the other order, is judged the same', async () => {
    const plan = JSON.parse(shortRecord.plan)
    plan.features.reverse()
    const [head, ...rows] = shortRecord.plantings.trim().split(/\r?\n/)
    const turned = await gardenOf({
      ...shortRecord,
      plan: JSON.stringify(plan),
      plantings: [head, ...rows.reverse()].join('\n'),
    })
    expectAlike(before, await told(turned))
  })

  it('drawn with another north, has the light it had', async () => {
    const hours = async (practice: TestPractice) => {
      const { plantings } = await look<GardenView>(practice, '')
      const tagOf = new Map(plantings.map((p) => [p.id, p.tag]))
      const { assessments } = await look<AssessmentView>(practice, '/assessment')
      return new Map(assessments.map((a) => [tagOf.get(a.plantingId)!, a]))
    }
    const straight = await hours(first)
    // A quarter to the left: east is up, and north with it.
    const to = ([x, y]: Point): Point => [-y, x]
    for (const turnedDeg of [-90, 270]) {
      const turned = await gardenOf({
        ...shortRecord,
        plan: redrawn(shortRecord.plan, to, turnedDeg),
        plantings: rowsElsewhere(shortRecord.plantings, to),
      })
      for (const [tag, a] of await hours(turned)) {
        const was = straight.get(tag)!
        expect(Math.abs(a.now.total - was.now.total), tag).toBeLessThan(0.02)
        expect(Math.abs(a.before.total - was.before.total), tag).toBeLessThan(0.02)
        expect([tag, a.outside, a.verdict.action]).toEqual([tag, was.outside, was.verdict.action])
      }
    }
  })
})

interface ThereAndBack {
  name: string
  there: (practice: TestPractice) => Promise<unknown>
  back: (practice: TestPractice, made: never) => Promise<unknown>
}

const planting = async (practice: TestPractice, tag: string) =>
  (await look<GardenView>(practice, '')).plantings.find((p) => p.tag === tag)!
const feature = async (practice: TestPractice, name: string) =>
  (await look<GardenView>(practice, '')).features.find((f) => f.name === name)!

const ways: readonly ThereAndBack[] = [
  {
    name: 'a building comes down, and stands after all',
    there: async (p) =>
      write(p, `/features/${(await feature(p, 'Old workshop')).id}/end`, { to: addDays(TODAY, -40) }),
    back: async (p) => write(p, `/features/${(await feature(p, 'Old workshop')).id}/end`, { to: null }),
  },
  {
    name: 'a tree is thinned, and was not',
    there: async (p) =>
      write(p, `/features/${(await feature(p, 'Pear')).id}/events`, {
        date: addDays(TODAY, -9),
        action: 'thinned',
        fraction: 0.4,
      }),
    back: async (p) => write(p, `/features/${(await feature(p, 'Pear')).id}/events/undo`),
  },
  {
    name: 'north is put wrong, and right',
    there: (p) => write(p, '/amend', { northDeg: 61 }),
    back: (p) => write(p, '/amend', { northDeg: 0 }),
  },
  {
    name: 'the garden is put elsewhere, and back',
    there: (p) => write(p, '/amend', { latitude: 45.2, longitude: 9.1 }),
    back: (p) => write(p, '/amend', { latitude: 52.1, longitude: 1.3 }),
  },
  {
    name: 'a planting is entered, and never was there',
    there: async (p) =>
      write<{ plantingIds: string[] }>(
        p,
        '/plantings',
        entering({
          tag: 'W-99',
          taxonBotanical: 'Astilbe × arendsii',
          placeId: (await feature(p, 'North bed')).id,
          count: 3,
          plantedOn: addDays(TODAY, -100),
          source: 'bought',
          x: 10,
          y: 23,
        }),
      ),
    back: (p, { plantingIds }: { plantingIds: string[] }) => write(p, '/plantings/withdraw', { plantingIds }),
  },
  {
    name: 'a planting is put wrong, and right',
    there: async (p) => {
      const was = await planting(p, 'W-02')
      await write(p, '/plantings/amend', amending(was.id, { count: 9, plantedOn: '2022-03-03' }))
      return was
    },
    back: (p, was: Awaited<ReturnType<typeof planting>>) =>
      write(p, '/plantings/amend', amending(was.id, amendmentOf(was))),
  },
  {
    name: 'a look is noted, and taken back',
    there: async (p) => {
      const id = randomUUID()
      const on = addDays(TODAY, -1)
      const { id: plantingId } = await planting(p, 'W-03')
      const noted = { kind: 'planting', id, plantingId, on, at: `${on}T09:00:00Z`, rating: 1, living: 2 }
      await write(p, '/walk-entries', { entries: [noted] })
      return id
    },
    back: (p, id: string) => write(p, `/observations/${id}/withdraw`),
  },
  {
    name: 'a rule is switched off, and on',
    there: (p) => write(p, '/rules/mulch-beds', { isOn: false }),
    back: (p) => write(p, '/rules/mulch-beds', { isOn: true }),
  },
  {
    name: 'the frosts are said to be known, and are not',
    there: (p) => write(p, '/known-climate', { lastFrost: '05-24', firstFrost: '09-20', coldestC: -22 }),
    back: (p) => write(p, '/known-climate', {}),
  },
  {
    // On a day that the weather record reaches.
    name: 'the soil is measured, and was not',
    there: (p) => write(p, '/soil', { day: '2025-11-20', celsius: 15.5 }),
    back: async (p) => {
      const soil = await look<{ readings: { id: string }[] }>(p, '/soil')
      return write(p, `/soil/${soil.readings[0]!.id}/withdraw`)
    },
  },
]

const amendmentOf = (p: Awaited<ReturnType<typeof planting>>) => ({
  tag: p.tag,
  taxonBotanical: p.taxon.botanical,
  placeId: p.placeId,
  count: p.plantedCount,
  plantedOn: p.plantedOn,
  source: p.source,
  role: p.role,
  x: p.x,
  y: p.y,
  ...(p.radiusM !== null && { radiusM: p.radiusM }),
})

/** Days of jobs may stay where a plan between has moved them: a plan made anew leaves alone what is as good. */
const withoutDays = ({ jobs, ...views }: Record<string, unknown>) => ({
  ...views,
  jobs: (jobs as { title: string }[]).map((j) => ({ ...j, plannedOn: 0, parts: 0, unplaced: 0 })),
})

describe('a write and its way back', () => {
  let practice: TestPractice
  let before: Record<string, unknown>
  it.each(ways)('leave everything as it was: $name', async ({ there, back }) => {
    practice ??= await gardenOf()
    before ??= withoutDays(await told(practice))
    const made = (await there(practice)) as never
    await settle(practice)
    const between = withoutDays(await told(practice))
    expect(JSON.stringify(between) === JSON.stringify(before), 'it changed something').toBe(false)
    await back(practice, made)
    await settle(practice)
    expectAlike(before, withoutDays(await told(practice)))
  })
})
