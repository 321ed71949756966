import type {
  BenchView,
  ContainersView,
  EditView,
  GardenView,
  LineView,
  SpareView,
  SpotsView,
} from '@border/contract'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { drawing } from './edits.ts'
import { fillOf } from './validWrites.ts'

const TODAY = '2026-09-15'
let practice: TestPractice
const post = (rest: string, body?: object) => practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const get = async <T>(rest: string): Promise<T> =>
  (await practice.head.get(`/gardens/${practice.gardenId}${rest}`)).body
const fill = (containerId: string, more: object = {}) => post('/containers/fills', fillOf(containerId, more))
const potNow = async (id: string) => (await get<ContainersView>('/containers')).pots.find((p) => p.id === id)!
const livingIn = async (id: string) =>
  (await get<GardenView>('')).plantings.filter((p) => p.placeId === id && p.livingCount > 0)

let nth = 0
/** A pot put on the plan. */
async function potOnPlan(said: object = {}): Promise<string> {
  const id = randomUUID()
  const properties = {
    kind: 'container',
    name: `Pot ${++nth}`,
    shape: 'tapered',
    diameterM: 0.4,
    footM: 0.28,
    depthM: 0.425,
    rimHeightM: 0.45,
    material: 'terracotta',
    ...said,
  }
  const feature = { type: 'Feature', properties, geometry: { type: 'Point', coordinates: [4 + nth, 20] } }
  expect((await post('/plan/edits', drawing({ feature }, id))).status).toBe(200)
  return id
}

beforeAll(async () => {
  practice = await practiceWithGarden(undefined, () => Date.parse(`${TODAY}T10:00:00Z`))
})
afterAll(() => practice.stop())

describe('a container', () => {
  it('is told by what it holds, weighs and drinks, as the plan has it', async () => {
    const id = await potOnPlan({ holes: 0, standsOn: 'balcony' })
    const pot = await potNow(id)
    // π · 40/3 · (R² + R r + r²) to 2.5 cm below the rim, of a cone that is 42.5 cm deep.
    const R = 14 + 6 * (40 / 42.5)
    expect(pot.mixLitres).toBeCloseTo(((Math.PI * 40) / 3 / 1000) * (R * R + R * 14 + 14 * 14), 2)
    expect(pot.mix.isSaid).toBe(false)
    expect(pot.faults).toEqual(expect.arrayContaining(['no holes', 'deck']))
    expect(pot.fills).toEqual([])
    expect(pot.water).toHaveLength(12)
    expect(pot.light.months).toHaveLength(12)
  })

  it('is filled, swapped and told of, with what grew in it each time', async () => {
    const id = await potOnPlan()
    const first = await fill(id)
    expect(first.status).toBe(200)
    const [marigolds] = await livingIn(id)
    expect(marigolds).toMatchObject({ livingCount: 5, role: 'filler', plantedOn: '2026-05-20' })
    const before = await potNow(id)
    expect(before.mix).toMatchObject({
      isSaid: true,
      parts: [
        { name: 'compost', parts: 3 },
        { name: 'grit', parts: 1 },
      ],
    })

    const swap = await fill(id, {
      replaces: first.body.fillId,
      on: '2026-09-10',
      name: 'Winter',
      season: 'winter',
      renewed: 0.33,
      endedBy: 'went over',
      out: [{ plantingId: marigolds!.id, to: 'compost' }],
      in: [
        { taxonBotanical: 'Heuchera villosa', count: 1, source: 'bought', role: 'focal' },
        { taxonBotanical: 'Tulipa tarda', count: 15, source: 'bought' },
      ],
    })
    expect(swap.status).toBe(200)
    expect((await livingIn(id)).map((p) => p.taxon.botanical).sort()).toEqual([
      'Heuchera villosa',
      'Tulipa tarda',
    ])
    const { fills } = await potNow(id)
    expect(
      fills.map((f) => [f.name, f.filledOn, f.emptiedOn, f.endedBy, f.plants.map((p) => p.botanical).sort()]),
    ).toEqual([
      ['Winter', '2026-09-10', null, null, ['Heuchera villosa', 'Tulipa tarda']],
      ['Summer', '2026-05-20', '2026-09-10', 'went over', ['Tagetes patula']],
    ])

    // Taken back as one: the marigolds live, and the summer's fill stands.
    const [latest] = await get<EditView[]>('/plan/edits')
    expect(latest!.says[0]).toMatch(/^Pot \d+ filled: Winter\.$/)
    expect((await post(`/plan/edits/${swap.body.editId}/undo`)).status).toBe(200)
    expect((await livingIn(id)).map((p) => p.id)).toEqual([marigolds!.id])
    expect((await potNow(id)).fills.map((f) => [f.name, f.emptiedOn])).toEqual([['Summer', null]])
  })

  it('gives what is worth saving to the bench, and takes from it', async () => {
    const [one, other] = [await potOnPlan(), await potOnPlan()]
    const first = await fill(one, {
      in: [{ taxonBotanical: 'Heuchera villosa', count: 3, source: 'bought' }],
    })
    const [heuchera] = await livingIn(one)
    await fill(one, {
      replaces: first.body.fillId,
      on: '2026-09-01',
      out: [{ plantingId: heuchera!.id, to: 'bench' }],
      in: [],
    })
    const waiting = (await get<BenchView[]>('/bench')).find((b) => b.fromTag === heuchera!.tag)!
    expect(waiting).toMatchObject({ count: 3, since: '2026-09-01' })
    await fill(other, {
      on: '2026-09-05',
      in: [{ taxonBotanical: 'Heuchera villosa', count: 2, source: 'moved', benchId: waiting.id }],
    })
    expect((await livingIn(other))[0]).toMatchObject({ livingCount: 2, fromTag: heuchera!.tag })
    expect((await get<BenchView[]>('/bench')).find((b) => b.fromTag === heuchera!.tag)?.count).toBe(1)
  })

  it('takes in what a bed is to lose: all of it is lifted, what is over waits on the bench, and one step back has it stand again', async () => {
    const bedPlant = (await get<GardenView>('')).plantings.find((p) => p.livingCount > 2)!
    const decided = {
      plantingId: bedPlant.id,
      on: TODAY,
      choice: 'otherwise',
      action: 'replace',
      reason: 'Crowded.',
    }
    expect((await post('/decisions', decided)).status).toBe(200)
    const { plants } = await get<SpareView>('/containers/spare')
    expect(plants.find((p) => p.plantingId === bedPlant.id)).toMatchObject({
      count: bedPlant.livingCount,
      placeId: bedPlant.placeId,
    })
    // Each is told with the days on which it may be lifted, and none of a kind that resents it.
    const kindOf = new Map((await get<GardenView>('')).plantings.map((p) => [p.id, p.taxon]))
    for (const { plantingId, window } of plants) {
      expect(kindOf.get(plantingId)!.moveWhen).not.toBe('never')
      expect(window!.from < window!.to && window!.to >= TODAY).toBe(true)
    }
    const id = await potOnPlan()
    const lifted = (more: object = {}) => ({
      on: '2026-09-10',
      in: [
        {
          taxonBotanical: bedPlant.taxon.botanical,
          count: 2,
          source: 'moved',
          liftedId: bedPlant.id,
          ...more,
        },
      ],
    })
    for (const [more, says] of [
      [{ count: bedPlant.livingCount + 1 }, /Only \d+ live/],
      [{ taxonBotanical: 'Tagetes patula' }, /grows .*, not Tagetes patula/],
      [{ liftedId: randomUUID() }, /does not stand elsewhere/],
    ] as const) {
      const refused = await fill(id, lifted(more))
      expect(JSON.stringify([refused.status, refused.body])).toMatch(says)
    }
    expect((await potNow(id)).fills).toEqual([])
    const { body } = await fill(id, lifted())
    const living = async () =>
      (await get<GardenView>('')).plantings.filter((p) => p.taxon.botanical === bedPlant.taxon.botanical)
    const over = async () =>
      (await get<BenchView[]>('/bench')).filter((b) => b.fromTag === bedPlant.tag).map((b) => b.count)
    expect((await livingIn(id))[0]).toMatchObject({ livingCount: 2, fromTag: bedPlant.tag })
    expect((await living()).find((p) => p.id === bedPlant.id)?.livingCount ?? 0).toBe(0)
    expect(await over()).toEqual([bedPlant.livingCount - 2])
    expect((await get<SpareView>('/containers/spare')).plants.map((p) => p.plantingId)).not.toContain(
      bedPlant.id,
    )
    expect((await post(`/plan/edits/${body.editId}/undo`)).status).toBe(200)
    expect((await living()).find((p) => p.id === bedPlant.id)?.livingCount).toBe(bedPlant.livingCount)
    expect([await livingIn(id), await over()]).toEqual([[], []])
  })

  it('is not filled ahead of today, before it stood, twice on a day, over what somebody else has filled; and then nothing is otherwise', async () => {
    const id = await potOnPlan({ from: '2026-04-01' })
    const first = await fill(id)
    const now = async () => [await livingIn(id), (await potNow(id)).fills]
    const before = await now()
    const { fillId } = first.body
    const refused: [object, number, RegExp][] = [
      [{ replaces: fillId, on: '2026-09-16' }, 422, /on or after the day/],
      [{ replaces: fillId, on: '2026-03-01' }, 422, /did not stand/],
      [{ replaces: fillId, on: '2026-05-20' }, 422, /was filled on 20 May 2026/],
      [{ replaces: null, on: '2026-09-10' }, 409, /somebody else/],
      [
        { replaces: fillId, on: '2026-09-10', out: [{ plantingId: randomUUID(), to: 'bench' }] },
        409,
        /come out/,
      ],
      [
        {
          replaces: fillId,
          on: '2026-09-10',
          in: [{ taxonBotanical: 'Planta ignota', count: 1, source: 'bought' }],
        },
        422,
        /not in the plant library/,
      ],
      [{ replaces: fillId, on: '2026-09-10', mix: [] }, 422, /./],
      [{ replaces: fillId, on: '2026-09-10', mix: [{ name: 'compost', parts: -1 }] }, 422, /./],
      [{ replaces: fillId, on: '2026-09-10', renewed: 1.2 }, 422, /./],
    ]
    for (const [more, status, says] of refused) {
      const answer = await fill(id, more)
      expect([more, answer.status]).toEqual([more, status])
      expect(JSON.stringify(answer.body)).toMatch(says)
    }
    expect(await now()).toEqual(before)
    const bed = (await get<GardenView>('')).features.find((f) => f.kind === 'bed')!
    expect((await fill(bed.id)).status).toBe(404)
  })

  it('is drawn with sizes that there can be', async () => {
    for (const wrong of [
      { diameterM: 0 },
      { depthM: -1 },
      { holes: -2 },
      { standsOn: 'air' },
      { reservoirL: 1e9 },
    ]) {
      const feature = {
        type: 'Feature',
        properties: { kind: 'container', name: `Pot ${++nth}`, diameterM: 0.4, rimHeightM: 0.4, ...wrong },
        geometry: { type: 'Point', coordinates: [5, 20] },
      }
      const answer = await post('/plan/edits', drawing({ feature }))
      expect([wrong, answer.status]).toEqual([wrong, 422])
      expect(JSON.stringify(answer.body)).toContain(Object.keys(wrong)[0])
    }
  })
})

describe('what is found at a container', () => {
  const check = (containerId: string, said: object) =>
    post('/containers/checks', { containerId, on: '2026-09-10', ...said })

  it('is kept, tells of its own draw, and is taken back again', async () => {
    const id = await potOnPlan()
    expect((await fill(id)).status).toBe(200)
    expect((await potNow(id)).factor).toBeNull()
    expect((await check(id, { kind: 'watered', on: '2025-10-01' })).status).toBe(200)
    const found = await check(id, {
      kind: 'felt',
      felt: 'dry',
      on: '2025-10-03',
      note: 'Light as a feather.',
    })
    await check(id, { kind: 'rated', stars: 4 })
    const pot = await potNow(id)
    expect(pot.checks.map((c) => [c.on, c.kind, c.felt, c.stars])).toEqual([
      ['2026-09-10', 'rated', null, 4],
      ['2025-10-03', 'felt', 'dry', null],
      ['2025-10-01', 'watered', null, null],
    ])
    // Found dry two days after it was watered through, in October, it draws more than is worked out.
    expect(pot.factor).toMatchObject({ from: 1 })
    expect(pot.factor!.factor).toBeGreaterThan(1)
    expect((await post(`/containers/checks/${found.body.id}/withdraw`)).status).toBe(200)
    expect((await potNow(id)).factor).toBeNull()
    expect((await post(`/containers/checks/${found.body.id}/withdraw`)).status).toBe(404)
  })

  it('is corrected by rain that a gauge has caught: with more of it a pot was not as dry', async () => {
    const id = await potOnPlan()
    await fill(id)
    await check(id, { kind: 'watered', on: '2025-07-01' })
    // Older than a year: nothing of it is known any more.
    expect((await potNow(id)).checks).toEqual([])
    await check(id, { kind: 'watered', on: '2025-10-01' })
    await check(id, { kind: 'felt', felt: 'dry', on: '2025-10-05' })
    const without = (await potNow(id)).factor!
    await check(id, { kind: 'rained', rainMm: 3, on: '2025-10-03' })
    // Found dry in spite of it, it draws the more.
    expect((await potNow(id)).factor!.factor).toBeGreaterThan(without.factor)
  })

  it('tells what its mix holds once it was tested, however long ago, until some of it is new', async () => {
    const id = await potOnPlan()
    await fill(id, { on: '2024-05-20' })
    const before = (await potNow(id)).mix
    expect(before.testedOn).toBeNull()
    const test = { kind: 'drained', on: '2024-06-01', sampleLitres: 4, filledLitres: 3.2, drainedLitres: 1.6 }
    const wrongWith = async (more: object) => (await check(id, { ...test, ...more })).body.problems
    expect(await wrongWith({ filledLitres: 4 })).toEqual([
      { where: 'filledLitres', message: expect.stringMatching(/grains take room/) },
    ])
    expect(await wrongWith({ drainedLitres: 3.2 })).toEqual([
      { where: 'drainedLitres', message: expect.stringMatching(/some of it stays/) },
    ])
    expect((await check(id, test)).status).toBe(200)
    const tested = (await potNow(id)).mix
    expect(tested.testedOn).toBe('2024-06-01')
    // Four tenths of air is more than any mix is worked out to have: it lasts beyond the years looked at.
    expect(tested.traits.air).toBeGreaterThan(before.traits.air)
    expect([before.state!.wholeOn, tested.state!.wholeOn]).toEqual([expect.any(String), null])
    const replaces = (await potNow(id)).fills[0]!.id
    const out = (await livingIn(id)).map((p) => ({ plantingId: p.id, to: 'compost' }))
    expect((await fill(id, { on: '2026-05-20', replaces, endedBy: 'went over', out })).status).toBe(200)
    expect((await potNow(id)).mix.testedOn).toBeNull()
  })

  it('of a test speaks for a new mix where it has no air, however new it is', async () => {
    const id = await potOnPlan()
    await fill(id)
    expect((await potNow(id)).verdicts.map((v) => v.verdict)).not.toContain('refresh')
    await check(id, {
      kind: 'drained',
      on: '2026-09-01',
      sampleLitres: 4,
      filledLitres: 3,
      drainedLitres: 0.1,
    })
    expect((await potNow(id)).verdicts.map((v) => v.verdict)).toContain('refresh')
  })

  it('is refused where it lies ahead, says nothing of its kind, or was found at what is no container', async () => {
    const id = await potOnPlan()
    const before = (await potNow(id)).checks
    expect((await check(id, { kind: 'watered', on: '2026-09-16' })).status).toBe(422)
    expect((await check(id, { kind: 'felt' })).status).toBe(422)
    expect((await check(id, { kind: 'rated', stars: 6 })).status).toBe(422)
    expect((await check(id, { kind: 'rained', rainMm: -2 })).status).toBe(422)
    expect((await check(id, { kind: 'weighed', lighterKg: -1 })).status).toBe(422)
    expect((await check(randomUUID(), { kind: 'watered' })).status).toBe(404)
    expect((await potNow(id)).checks).toEqual(before)
  })
})

describe('where a container would do best', () => {
  it('is told of it as it stands, and of the others at its spot', async () => {
    const id = await potOnPlan()
    await fill(id)
    const { here, better, forHere } = await get<SpotsView>(`/containers/${id}/spots`)
    expect(here.hours.total).toBeGreaterThanOrEqual(0)
    for (const spot of better) expect(spot.missesH).toBeLessThan(here.missesH)
    expect(forHere.map((f) => f.id)).not.toContain(id)
    expect(
      (await practice.head.get(`/gardens/${practice.gardenId}/containers/${randomUUID()}/spots`)).status,
    ).toBe(404)
  })
})

describe('the line of containers', () => {
  it('moves what has filled its pot on to a deeper one that is free, and no two into one', async () => {
    const small = await potOnPlan({ diameterM: 0.3, depthM: 0.28, rimHeightM: 0.3 })
    const large = await potOnPlan({ diameterM: 0.6, depthM: 0.6, rimHeightM: 0.65 })
    await fill(small, {
      on: '2016-05-20',
      in: [{ taxonBotanical: 'Laurus nobilis', count: 1, source: 'bought', role: 'focal' }],
    })
    const { seasons, plants } = await get<LineView>('/containers/line')
    expect(seasons[0]).toBe(2027)
    const laurel = plants.find((p) => p.potId === small)!
    expect(laurel.fillOn! < TODAY).toBe(true)
    expect(laurel.steps[0]).toMatchObject({ isMoved: true })
    expect(laurel.steps[0]!.potId).not.toBe(small)
    expect(laurel.steps[0]!.window!.from.slice(0, 4)).toBe('2027')
    expect([large, null]).toContain(laurel.steps[0]!.potId)
    seasons.forEach((_, k) => {
      const taken = plants.map((p) => p.steps[k]!.potId).filter((pot) => pot !== null)
      expect(new Set(taken).size).toBe(taken.length)
    })
    expect((await potNow(small)).verdicts[0]!.verdict).toBe('pot on')
  })
})

describe('containers as a file', () => {
  const bring = (csv: string) => post('/containers-file', { csv })
  const standing = async () =>
    (await get<GardenView>('')).features.filter((f) => f.kind === 'container' && f.to === null)

  it('go out and come back with nothing changed; a row changed and one new are one edit that can be taken back', async () => {
    await potOnPlan({ holes: 1 })
    const out = await practice.head.get(`/gardens/${practice.gardenId}/containers.csv`)
    const csv = out.text
    expect(csv.split('\r\n')[0]).toMatch(/^name,x_m,y_m,shape,diameter_m/)
    expect((await bring(csv)).body).toEqual({ added: 0, changed: 0, editId: null })
    const before = await standing()
    const [first] = before
    const brought = await bring(`name,x_m,y_m,holes,material\n${first!.name},,,4,zinc\nNew urn,7,22,1,lead\n`)
    expect(brought.body).toMatchObject({ added: 1, changed: 1 })
    const after = await standing()
    expect(after).toHaveLength(before.length + 1)
    expect(after.find((f) => f.id === first!.id)).toMatchObject({
      geometry: first!.geometry,
      properties: { ...first!.properties, holes: 4, material: 'zinc' },
    })
    expect((await post(`/plan/edits/${brought.body.editId}/undo`)).status).toBe(200)
    expect(await standing()).toEqual(before)
  })

  it('that are faulty change nothing, and say what and where', async () => {
    const before = await standing()
    const refused = await bring(`name,x_m,y_m,holes\n${before[0]!.name},1,1,3\nNowhere,,,1\n`)
    expect(refused.status).toBe(422)
    expect(refused.body.problems).toEqual([
      {
        where: 'containers.csv',
        message: expect.stringMatching(/line 3, column x_m: where a new one stands/),
      },
    ])
    expect((await bring('name,holes\nA,many\n')).status).toBe(422)
    expect(await standing()).toEqual(before)
  })
})
