import type {
  BenchView,
  GardenView,
  GroundView,
  JobView,
  RecordView,
  ReworkView,
  SaidScheme,
  SeasonView,
  StepsView,
} from '@border/contract'
import { CELL_M, groundWritten } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { look, write } from './asked.ts'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { beginning, saidOf } from './schemes.ts'

let practice: TestPractice
let garden: GardenView
let courtId: string
const TODAY = '2026-09-15'
beforeAll(async () => {
  practice = await practiceWithGarden(undefined, () => Date.parse(`${TODAY}T10:00:00Z`))
  // Nobody works: what is planned for which day is told elsewhere.
  await practice.work([0, 0, 0, 0, 0, 0, 0])
  garden = await look<GardenView>(practice, '')
  courtId = garden.features.find((f) => f.name === 'Court border')!.id
})
afterAll(() => practice.stop())

const plantings = async () => (await look<GardenView>(practice, '')).plantings
const inCourt = async () => (await plantings()).filter((p) => p.placeId === courtId)
const bench = () => look<BenchView[]>(practice, '/bench')
const season = async () => (await look<SeasonView>(practice, '/season')).jobs
const refused = async (rest: string, body: object = {}) => {
  const { status, body: said } = await practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
  return [status, (said as { error: string }).error]
}
const stepsOf = (path: string, { revisionId }: { revisionId: string }) =>
  write<StepsView>(practice, `${path}/steps`, { revisionId })
const living = async () => (await plantings()).reduce((sum, p) => sum + p.livingCount, 0)
const waiting = async () => (await bench()).reduce((sum, b) => sum + b.count, 0)

/** Two drifts side by side, one of them partly off the bench, and snowdrops between. */
async function drifts(): Promise<Pick<SaidScheme, 'drifts' | 'between'>> {
  const { stations } = await look<GroundView>(practice, `/features/${courtId}/ground`)
  const middle = stations.reduce((sum, s) => sum + s.x, 0) / stations.length
  const has = Int16Array.from(stations, (s) => (s.x < middle ? 0 : 1))
  const [a, b] = groundWritten({ stations }, CELL_M, has, 2)
  const drift = (botanical: string, count: number, ground: typeof a) => ({
    id: randomUUID(),
    botanical,
    count,
    from: 'library' as const,
    ground: ground!,
    isDrawn: false,
  })
  return {
    drifts: [drift('Hosta sieboldiana', 5, a), drift('Helenium autumnale', 7, b)],
    between: [{ id: randomUUID(), botanical: 'Galanthus nivalis', count: 20, from: 'library' }],
  }
}

const WAYS = [{ to: 'bench' }, { to: 'gone' }, { to: 'give away' }] as const

/** All of the border leaves, by turns to each way out, and something else comes in. */
async function begun(more: Partial<SaidScheme> = {}) {
  const leaving = (await inCourt())
    .filter((p) => p.taxon.moveWhen !== 'never')
    .map((p, i) => ({ plantingId: p.id, how: 'leaves' as const, to: WAYS[i % WAYS.length]!, worth: 1 }))
  const rework = beginning(courtId, { leaving, ...(await drifts()), ...more })
  await write(practice, '/reworks', rework)
  const path = `/reworks/${rework.id}/schemes/${rework.schemes[0]!.id}`
  const scheme = async () =>
    (await look<ReworkView[]>(practice, '/reworks')).find((r) => r.id === rework.id)!.schemes[0]!
  const accept = async () => {
    const { revisionId } = await scheme()
    await write(practice, `${path}/accept`, { revisionId })
  }
  const jobs = async () => (await season()).filter((j) => j.schemeId === rework.schemes[0]!.id)
  return { rework, path, scheme, accept, jobs, leaving }
}

const done = (job: JobView, more: object = {}) =>
  write(practice, `/jobs/${job.id}/done`, { on: TODAY, minutes: 20, ...more })
/** Jobs in an order in which each comes after what it waits for. */
function inOrder(jobs: readonly JobView[]): JobView[] {
  const ordered: JobView[] = []
  while (ordered.length < jobs.length) {
    const known = new Set(ordered.map((j) => j.id))
    const next = jobs.filter((j) => !known.has(j.id) && j.after.every((id) => known.has(id)))
    if (next.length === 0) throw new Error('Jobs wait for each other')
    ordered.push(...next)
  }
  return ordered
}

describe('a scheme accepted', () => {
  it('makes the steps that were shown, in the season and in order; it is fixed until it is called off', async () => {
    const { path, scheme, accept, jobs, rework } = await begun()
    const steps = await stepsOf(path, await scheme())
    if (!steps.ok) throw new Error(steps.problems.join())
    expect(await jobs()).toEqual([])
    await accept()
    const made = await jobs()
    // Looks follow the day for which what they look after is planned.
    const told = ({ title, window: w, stage }: JobView | (typeof steps.steps)[number]) =>
      stage === 'look after' ? title : [title, w.earliest, w.latest, stage].join(' ')
    expect(made.map(told).toSorted()).toEqual(steps.steps.map(told).toSorted())
    expect(inOrder(made)).toHaveLength(steps.steps.length)
    expect(await scheme()).toMatchObject({
      accepted: { by: expect.any(String) },
      steps: { done: 0, open: made.length },
    })
    const { said, revisionId } = await scheme()
    const fixed = /^This scheme is being carried out/
    const kept = await refused(`${path}/keep`, { said: { ...said, name: 'Other' }, seen: { revisionId } })
    expect(kept).toEqual([409, expect.stringMatching(fixed)])
    expect(await refused(`${path}/accept`, { revisionId })).toEqual([
      409,
      'This scheme is being carried out already.',
    ])
    // Another of the same place waits until this one is called off.
    const other = { id: randomUUID(), said: saidOf({ name: 'Another', ...(await drifts()) }) }
    await write(practice, `/reworks/${rework.id}/schemes`, other)
    const second = (await look<ReworkView[]>(practice, '/reworks')).find((r) => r.id === rework.id)!
    const { revisionId: ofOther } = second.schemes[1]!
    const says = await refused(`/reworks/${rework.id}/schemes/${other.id}/accept`, { revisionId: ofOther })
    expect(says[1]).toMatch(/^Another scheme of this place/)
    await write(practice, `${path}/call-off`)
    expect(await jobs()).toEqual([])
    expect(await scheme()).toMatchObject({ accepted: null, steps: { done: 0, open: 0 } })
    expect(await refused(`${path}/call-off`)).toEqual([409, 'This scheme is not being carried out.'])
  })

  it('leaves no job when it, or its rework, is taken away', async () => {
    for (const what of ['scheme', 'rework'] as const) {
      const { path, accept, jobs, rework } = await begun()
      await accept()
      expect((await jobs()).length).toBeGreaterThan(5)
      await write(practice, what === 'scheme' ? `${path}/withdraw` : `/reworks/${rework.id}/withdraw`)
      expect(await jobs()).toEqual([])
    }
  })

  it('is not accepted without ground for what comes in, nor where something resents moving', async () => {
    const bare = await begun({ drifts: (await drifts()).drifts.map((d) => ({ ...d, ground: null })) })
    const { revisionId } = await bare.scheme()
    expect(await refused(`${bare.path}/accept`, { revisionId })).toEqual([
      409,
      expect.stringMatching(/no ground yet: lay the scheme out first/),
    ])
    const empty = await begun({ leaving: [], drifts: [], between: [] })
    expect(await refused(`${empty.path}/accept`, { revisionId: (await empty.scheme()).revisionId })).toEqual([
      409,
      'Nothing leaves and nothing comes in: there is nothing to carry out.',
    ])
  })

  it('drops what was decided for a planting before, and a later word drops its steps', async () => {
    const [planting] = (await inCourt()).filter((p) => p.taxon.moveWhen !== 'never')
    const decide = (action: string) =>
      write(practice, '/decisions', {
        plantingId: planting!.id,
        on: TODAY,
        choice: 'otherwise',
        action,
        reason: 'Said so.',
      })
    await decide('remove')
    const ofPlanting = async () =>
      (await season()).filter((j) => j.plantingIds.includes(planting!.id) && j.ruleId === null)
    expect((await ofPlanting()).map((j) => j.schemeId)).toEqual([null])
    const { accept, rework } = await begun()
    await accept()
    expect(new Set((await ofPlanting()).map((j) => j.schemeId))).toEqual(new Set([rework.schemes[0]!.id]))
    await decide('keep')
    expect(await ofPlanting()).toEqual([])
    // Nothing waits for what is not to be done any more.
    const clear = (await season()).find((j) => j.schemeId === rework.schemes[0]!.id && j.kind === 'weed')!
    for (const j of await season()) if (clear.after.includes(j.id)) await done(j)
    await done(clear)
    await write(practice, `/reworks/${rework.id}/withdraw`)
  })
})

describe('a scheme carried out step by step', () => {
  it('moves, plants and takes out exactly what each step says, and loses and makes up no plant', async () => {
    await write(practice, '/bench', { taxonBotanical: 'Hosta sieboldiana', count: 2, since: '2026-09-01' })
    const { accept, jobs, scheme } = await begun()
    await accept()
    const [before, benchBefore] = [await living(), await waiting()]
    const survival = async () => (await look<RecordView>(practice, '/record')).survival
    const survivedBefore = await survival()
    let [gone, bought] = [0, 0]
    for (const job of inOrder(await jobs())) {
      const [was, wasOnBench] = [await plantings(), await waiting()]
      const handled = was.find((p) => job.plantingIds.includes(p.id))
      await done(job, { ...(job.sets && { lived: job.sets.count }) })
      const now = await plantings()
      const [lived, onBench] = [
        now.reduce((s, p) => s + p.livingCount, 0) - was.reduce((s, p) => s + p.livingCount, 0),
        (await waiting()) - wasOnBench,
      ]
      if (job.kind === 'lift') expect([lived, onBench]).toEqual([-handled!.livingCount, handled!.livingCount])
      else if (job.kind === 'remove') {
        expect([lived, onBench]).toEqual([-handled!.livingCount, 0])
        gone += handled!.livingCount
      } else if (job.sets) {
        const made = now.filter((p) => !was.some((w) => w.id === p.id))
        expect(made.map((p) => [p.taxon.botanical, p.plantedCount, p.placeId, p.plantedOn])).toEqual([
          [job.sets.botanical, job.sets.count, courtId, TODAY],
        ])
        expect(made[0]!.source).toBe(onBench < 0 ? 'moved' : 'bought')
        bought += job.sets.count + onBench
      } else expect([lived, onBench]).toEqual([0, 0])
    }
    // What was lifted, given away or taken out did not die.
    expect(await survival()).toEqual(survivedBefore)
    // The two hostas of the bench were used.
    expect(bought).toBe(5 + 7 + 20 - 2)
    expect((await living()) + (await waiting()) + gone).toBe(before + benchBefore + bought)
    expect((await scheme()).steps.open).toBe(0)
    expect((await scheme()).accepted).not.toBeNull()
    // What was planted is looked after under its tag, and stands in a drift of its own.
    const [hosta] = (await inCourt()).filter((p) => p.taxon.botanical === 'Hosta sieboldiana')
    expect(hosta!.outline!.length).toBeGreaterThan(3)
    const looks = (await jobs()).filter((j) => j.kind === 'aftercare')
    expect(looks.some((j) => j.plantingIds.includes(hosta!.id))).toBe(true)
  })

  it('is taken back step by step; what was planted was never there, and the bench has its own again', async () => {
    await write(practice, '/bench', { taxonBotanical: 'Helenium autumnale', count: 3, since: '2026-09-01' })
    const { accept, jobs, path } = await begun({ leaving: [] })
    await accept()
    const [standing, onBench] = [await plantings(), await bench()]
    const planted = inOrder(await jobs()).filter((j) => j.stage !== 'look after')
    const until = planted.findIndex((j) => j.sets?.botanical === 'Helenium autumnale')
    const doing = planted.slice(0, until + 1)
    for (const job of doing) await done(job, job.sets ? { lived: job.sets.count } : {})
    const helenium = (await plantings()).find(
      (p) => !standing.some((s) => s.id === p.id) && p.taxon.botanical === 'Helenium autumnale',
    )!
    expect(helenium.plantedCount).toBe(7)
    for (const job of doing.toReversed()) await write(practice, `/jobs/${job.id}/take-back`)
    expect(await plantings()).toEqual(standing)
    expect(await bench()).toEqual(onBench)
    // What has been looked at since is not taken back.
    for (const job of doing) await done(job, job.sets ? { lived: job.sets.count } : {})
    const again = (await plantings()).find(
      (p) => !standing.some((s) => s.id === p.id) && p.taxon.botanical === 'Helenium autumnale',
    )!
    await write(practice, `/plantings/${again.id}/strike-off`, { on: TODAY })
    const last = doing.at(-1)!
    expect((await refused(`/jobs/${last.id}/take-back`))[0]).toBe(409)
    await write(practice, `${path}/call-off`)
  })

  it('called off half way keeps what is done, and accepted anew has the rest alone', async () => {
    const { accept, jobs, path, scheme } = await begun({ leaving: [] })
    await accept()
    const all = inOrder(await jobs())
    const first = all.findIndex((j) => j.sets)
    for (const job of all.slice(0, first + 1)) await done(job, job.sets ? { lived: job.sets.count } : {})
    await write(practice, `${path}/call-off`)
    expect((await jobs()).map((j) => j.state)).toEqual(Array(first + 1).fill('done'))
    const steps = await stepsOf(path, await scheme())
    if (!steps.ok) throw new Error(steps.problems.join())
    expect(steps.steps.map((s) => s.driftId).filter(Boolean)).toHaveLength(2)
    expect(steps.steps.map((s) => s.key)).not.toContain('soil')
    await accept()
    expect((await scheme()).steps.done).toBe(first + 1)
    const rest = inOrder(await jobs()).filter((j) => j.state === 'open')
    for (const job of rest) await done(job, job.sets ? { lived: job.sets.count } : {})
    expect((await scheme()).steps).toEqual({ done: first + 1 + rest.length, open: 0 })
  })

  it('asks how many were planted, and takes none for nothing planted', async () => {
    const { accept, jobs, path } = await begun({ leaving: [] })
    await accept()
    const all = inOrder(await jobs())
    const plant = all.find((j) => j.sets)!
    for (const job of all.slice(0, all.indexOf(plant))) if (!job.sets) await done(job)
    expect(await refused(`/jobs/${plant.id}/done`, { on: TODAY, minutes: 5 })).toEqual([
      422,
      'Say how many were planted.',
    ])
    const before = await plantings()
    await done(plant, { lived: 0 })
    expect(await plantings()).toEqual(before)
    await write(practice, `${path}/call-off`)
  })
})
