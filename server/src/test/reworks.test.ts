import type {
  FeatureView,
  GardenView,
  GroundView,
  InHandView,
  OfferView,
  PaletteAnswerView,
  RelocatedView,
  ReworkView,
  SaidScheme,
  SuitedView,
  TrayView,
  WaysView,
} from '@border/contract'
import { areaM2, asDisc, groundOf, ringOf } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { look, write } from './asked.ts'
import { entering } from './edits.ts'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { beginning, saidOf } from './schemes.ts'

let practice: TestPractice
let garden: GardenView
let court: FeatureView
beforeAll(async () => {
  practice = await practiceWithGarden(undefined, () => Date.parse('2026-09-15T10:00:00Z'))
  garden = await look<GardenView>(practice, '')
  court = garden.features.find((f) => f.name === 'Court border')!
})
afterAll(() => practice.stop())

const reworks = () => look<ReworkView[]>(practice, '/reworks')
const ask = async <T>(rest: string, body: object): Promise<T> => {
  const answer = await practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
  expect([answer.status, answer.status === 200 ? '' : answer.body]).toEqual([200, ''])
  return answer.body as T
}
const refused = async (rest: string, body: object) => {
  const { status, body: said } = await practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
  return [status, (said as { error: string }).error]
}
const begun = async (more: Partial<SaidScheme> = {}) => {
  const rework = beginning(court.id, more)
  await write(practice, '/reworks', rework)
  const path = `/reworks/${rework.id}/schemes/${rework.schemes[0]!.id}`
  const scheme = async () => (await reworks()).find((r) => r.id === rework.id)!.schemes[0]!
  const keep = async (change: Partial<SaidScheme>) => {
    const { said, revisionId } = await scheme()
    await write(practice, `${path}/keep`, { said: { ...said, ...change }, seen: { revisionId } })
  }
  return { rework, path, scheme, keep }
}
const inCourt = () => garden.plantings.filter((p) => p.placeId === court.id)
const wishes = saidOf().wishes

describe('what is said of a scheme', () => {
  it('is kept whole, step by step: back, forward, and on another way, with nothing lost', async () => {
    const { path, scheme, keep } = await begun()
    await keep({ name: 'Second' })
    await keep({ name: 'Third' })
    const step = (to: 'before' | 'after') => write(practice, `${path}/step`, { to })
    await step('before')
    await step('before')
    expect(await scheme()).toMatchObject({ said: { name: 'A quiet one' }, hasBefore: false, hasAfter: true })
    expect(await refused(`${path}/step`, { to: 'before' })).toEqual([409, 'There is nothing before this.'])
    await step('after')
    expect((await scheme()).said.name).toBe('Second')
    await keep({ name: 'Another third' })
    expect(await scheme()).toMatchObject({
      said: { name: 'Another third' },
      hasBefore: true,
      hasAfter: false,
    })
    const kept = await practice.db('scheme_revisions').where({ scheme_id: (await scheme()).id })
    expect(kept).toHaveLength(4)
  })

  it('and sent twice is kept once; of a place that is none, or under an id that is taken, nothing', async () => {
    const before = await reworks()
    expect((await refused('/reworks', beginning(randomUUID())))[0]).toBe(404)
    const pear = garden.features.find((f) => f.kind === 'tree')!
    expect((await refused('/reworks', beginning(pear.id)))[0]).toBe(404)
    const rework = beginning(court.id)
    const key = randomUUID()
    const path = `/gardens/${practice.gardenId}/reworks`
    for (let i = 0; i < 2; i++) expect((await practice.head.post(path, rework, { key })).status).toBe(200)
    expect((await practice.head.post(path, rework)).status).not.toBe(200)
    expect(await reworks()).toHaveLength(before.length + 1)
  })

  it('goes and comes back with its rework, and with a scheme by itself', async () => {
    const { rework, path } = await begun()
    const other = { id: randomUUID(), said: saidOf({ name: 'A loud one' }) }
    await write(practice, `/reworks/${rework.id}/schemes`, other)
    const names = async () =>
      (await reworks()).find((r) => r.id === rework.id)?.schemes.map((s) => s.said.name)
    expect(await names()).toEqual(['A quiet one', 'A loud one'])
    await write(practice, `${path}/withdraw`)
    expect(await names()).toEqual(['A loud one'])
    await write(practice, `${path}/restore`)
    await write(practice, `/reworks/${rework.id}/withdraw`)
    expect(await names()).toBeUndefined()
    // Of what is taken away nothing is said.
    expect((await refused(`${path}/keep`, { said: saidOf() }))[0]).toBe(404)
    await write(practice, `/reworks/${rework.id}/restore`)
    expect(await names()).toEqual(['A quiet one', 'A loud one'])
  })
})

describe('the ground of a place', () => {
  it('is all of it in cells, and a kind’s fit is told of every place, the best first', async () => {
    const ground = await look<GroundView>(practice, `/features/${court.id}/ground`)
    const m2 = areaM2(ringOf(court.geometry))
    expect(ground.stations.length * ground.stationM2).toBeCloseTo(m2)
    expect(ground.stations.length * ground.cellM ** 2).toBeCloseTo(m2, -0.5)
    const fit = await look<SuitedView[]>(practice, '/fit?botanical=Hosta%20sieboldiana')
    expect(fit.length).toBeGreaterThan(1)
    const scores = fit.map((f) => f.best.suiting.score)
    expect(scores).toEqual(scores.toSorted((a, b) => b - a))
    for (const f of fit) expect(Math.max(...f.cells.map((c) => c[2]))).toBeCloseTo(f.best.suiting.score)
    const { status } = await practice.head.get(`/gardens/${practice.gardenId}/fit?botanical=Nothing%20known`)
    expect(status).toBe(404)
  })
})

describe('where what leaves goes', () => {
  const leaving = () =>
    inCourt()
      .slice(0, 2)
      .map((p) => ({ plantingId: p.id, to: null, worth: 1 }))

  it('is the least cost in all, with what every other way would cost more', async () => {
    const asked = leaving()
    const found = await ask<RelocatedView>('/relocation', { leaving: asked })
    if (!found.ok) throw new Error(found.says)
    expect(found.went.map((w) => w.plantingId)).toEqual(asked.map((a) => a.plantingId))
    expect(found.cost).toBeCloseTo(found.went.reduce((sum, w) => sum + w.cost, 0))
    const { plantingId } = asked[0]!
    const ways = await ask<WaysView>('/relocation/ways', { leaving: asked, plantingId })
    // Whatever is decided for it costs as much more as was said.
    for (const [to, more] of Object.entries(ways.ways)) {
      const decided = asked.map((l) => (l.plantingId === plantingId ? { ...l, to: { to } } : l))
      const then = await ask<RelocatedView>('/relocation', { leaving: decided })
      expect([to, then.ok]).toEqual([to, more !== null])
      if (then.ok) expect(then.cost - found.cost).toBeCloseTo(more!, 1)
    }
    for (const { more } of ways.spots) expect(more).toBeGreaterThanOrEqual(0)
  })

  it('tells what is decided for ground that is not free, or for the same ground', async () => {
    const [first, second] = leaving()
    const nowhere = { to: 'spot', placeId: court.id, x: -90, y: -90 }
    const gone = await ask<RelocatedView>('/relocation', { leaving: [{ ...first, to: nowhere }] })
    expect(gone).toMatchObject({ ok: false, noRoom: [first!.plantingId] })
    const groundOfOne = (id: string) => asDisc(groundOf(garden.plantings.find((p) => p.id === id)!))
    const [large, small] = [first!, second!].sort(
      (p, q) => groundOfOne(q.plantingId).radiusM - groundOfOne(p.plantingId).radiusM,
    )
    // The ground of the larger, for the smaller, while the larger is to stay where it stands.
    const { x, y } = groundOfOne(large!.plantingId)
    const placeId = court.id
    const both = await ask<RelocatedView>('/relocation', {
      leaving: [
        { ...large, to: { to: 'stay' } },
        { ...small, to: { to: 'spot', placeId, x, y } },
      ],
    })
    if (both.ok) throw new Error('Two on one ground')
    expect(both.noRoom.toSorted()).toEqual([large!.plantingId, small!.plantingId].toSorted())
    expect((await refused('/relocation', { leaving: [{ plantingId: randomUUID(), to: null }] }))[0]).toBe(404)
  })
})

describe('kinds for a place', () => {
  const asked = () => ({ leavingIds: inCourt().map((p) => p.id), wishes })
  const path = () => `/features/${court.id}`

  it('are offered from what one has first, by what they would bring', async () => {
    await write(practice, '/bench', { taxonBotanical: 'Hosta sieboldiana', count: 3, since: '2026-09-10' })
    const dividing = inCourt().find((p) => p.taxon.divideHow)!
    const tray = await ask<TrayView>(`${path()}/tray`, {
      ...asked(),
      leavingIds: asked().leavingIds.filter((id) => id !== dividing.id),
      dividing: [{ plantingId: dividing.id, shoots: 40 }],
      chosen: [],
    })
    const gains = tray.candidates.map((c) => c.gain)
    expect(gains).toEqual(gains.toSorted((a, b) => b - a))
    const from = (source: string) => tray.candidates.filter((c) => c.candidate.from === source)
    for (const { candidate } of from('division'))
      expect(candidate.taxon.botanical).toBe(dividing.taxon.botanical)
    for (const { candidate } of [...from('bench'), ...from('division')]) expect(candidate.price).toBe(0)
    const [best] = tray.candidates
    const { botanical } = best!.candidate.taxon
    const then = await ask<TrayView>(`${path()}/tray`, {
      ...asked(),
      chosen: [{ botanical, count: best!.count }],
    })
    expect(then.candidates.map((c) => c.candidate.taxon.botanical)).not.toContain(botanical)
  })

  it('come out of other places where a planting is judged to do better elsewhere, or is to leave, and has no ground yet', async () => {
    // Something for full sun, set long ago where it does worst.
    const botanical = 'Lavandula angustifolia'
    const fit = await look<SuitedView[]>(practice, `/fit?botanical=${botanical.replace(' ', '%20')}`)
    const cells = fit
      .filter((f) => f.placeId !== court.id)
      .flatMap(({ placeId, cells }) => cells.map(([x, y, score]) => ({ placeId, x, y, score })))
    const { placeId, x, y } = cells.reduce((a, b) => (b.score < a.score ? b : a))
    await write(
      practice,
      '/plantings',
      entering({
        tag: 'LAV9',
        taxonBotanical: botanical,
        plantedOn: '2021-04-10',
        count: 3,
        source: 'bought',
        placeId,
        x,
        y,
      }),
    )
    const has = async () =>
      (await ask<InHandView[]>(`${path()}/in-hand`, {})).find((h) => h.botanical === botanical)
    expect(await has()).toEqual({ botanical, from: 'place', count: 3 })
    // As soon as its own place is decided anew, what the scheme says of it goes.
    const rework = beginning(placeId, { leaving: [] })
    await write(practice, '/reworks', rework)
    expect(await has()).toBeUndefined()
    await write(practice, `/reworks/${rework.id}/withdraw`)
    expect(await has()).toBeDefined()
    // What somebody has decided goes before what is proposed.
    const { id: plantingId } = (await look<GardenView>(practice, '')).plantings.find((p) => p.tag === 'LAV9')!
    const decided = {
      plantingId,
      on: '2026-09-15',
      choice: 'otherwise',
      action: 'keep',
      reason: 'Dear to us.',
    }
    await write(practice, '/decisions', decided)
    expect(await has()).toBeUndefined()
  })

  it('make palettes one after another that differ in three kinds, or tell which wishes contradict each other', async () => {
    const apart: string[][] = []
    for (let i = 0; i < 2; i++) {
      const answer = await ask<PaletteAnswerView>(`${path()}/palette`, { ...asked(), areaM2: 8, apart })
      if (answer.is !== 'palette') throw new Error(JSON.stringify(answer))
      const kinds = answer.palette.items.map((p) => p.candidate.taxon.botanical)
      for (const before of apart)
        expect(before.filter((k) => !kinds.includes(k)).length).toBeGreaterThanOrEqual(3)
      expect(answer.palette.gap).toBeLessThanOrEqual(0.01)
      apart.push(kinds)
    }
    const broke = await ask<PaletteAnswerView>(`${path()}/palette`, {
      ...asked(),
      areaM2: 8,
      apart: [],
      wishes: { ...wishes, layerShares: { front: 0.7, back: 0.7 } },
    })
    if (broke.is !== 'conflict') throw new Error(broke.is)
    expect(broke.wishes.toSorted()).toEqual(['layer back', 'layer front'])
  })

  it('that have left the library since are named, and a place that is full is said', async () => {
    const locked = { ...asked(), apart: [], wishes: { ...wishes, locked: ['Hosta deleta'] } }
    expect(await refused(`${path()}/palette`, locked)).toEqual([
      422,
      'Hosta deleta is no longer in the plant library.',
    ])
    const pot = garden.features.find((f) => f.kind === 'container')
    if (!pot) return
    const full = garden.plantings.filter((p) => p.placeId === pot.id)
    if (full.length > 0)
      expect((await refused(`/features/${pot.id}/tray`, { leavingIds: [], wishes, chosen: [] }))[0]).toBe(409)
  })
})

describe('prices', () => {
  it('are the practice’s: the last word on a thing of a supplier is told, with its day', async () => {
    const offer = (price: number, pricedOn: string): OfferView => ({
      id: randomUUID(),
      supplier: 'Lane Nursery',
      item: 'Hosta sieboldiana',
      packs: [{ name: '9 cm pot', holds: 1, price }],
      pricedOn,
    })
    for (const [price, on] of [
      [420, '2026-02-01'],
      [450, '2026-08-01'],
    ] as const)
      // prettier-ignore
      expect((await practice.head.post('/prices', offer(price, on))).status).toBe(200)
    const { body: told } = await practice.head.get('/prices')
    expect((told as OfferView[]).map((o) => [o.packs[0]!.price, o.pricedOn])).toEqual([[450, '2026-08-01']])
    expect(await practice.db('offers')).toHaveLength(2)
    expect((await practice.head.post('/prices/withdraw', { id: (told as OfferView[])[0]!.id })).status).toBe(
      200,
    )
    expect((await practice.head.get('/prices')).body).toEqual([])
    const wrong = await practice.head.post('/prices', { ...offer(1, '2026-08-01'), packs: [] })
    expect(wrong.status).toBe(422)
  })
})
