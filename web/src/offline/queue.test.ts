import 'fake-indexeddb/auto'
import { beforeEach, expect, it } from 'vitest'
import { doneHere, note, noteDone, notedOn, sendAgain, sendWaiting, waitingOf } from './queue.ts'
import type { Entry } from './queued.ts'
import { walkDb } from './store.ts'
import { RecordStandIn } from './test/recordStandIn.ts'

const owner = { gardenId: 'g', personId: 'p' }
let next = 0
const newId = () => `id ${++next}`
const entry = (plantingId: string, rating: number): Entry => ({
  kind: 'planting',
  id: '',
  on: '2026-09-14',
  at: '2026-09-14T09:00:00Z',
  plantingId,
  rating,
})
const noted = (plantingId: string, rating: number, now: number) =>
  note(owner, entry(plantingId, rating), now, newId)

let server: RecordStandIn
beforeEach(async () => {
  server = new RecordStandIn()
  const db = await walkDb()
  await db.clear('entries')
  await db.clear('photos')
  await db.clear('jobs')
})
/** Plantings with the rating that stands of each. */
const ratings = () => server.standing().map((e) => (e.kind === 'planting' ? [e.plantingId, e.rating] : []))
const send = (now: number, all = false) => sendWaiting(server.wire, 'p', now, all)

it('quick touches on one planting go as one entry, once they have settled', async () => {
  await noted('a', 3, 0)
  await noted('a', 4, 1000)
  await send(2000)
  expect(server.standing()).toEqual([])
  await send(5000)
  expect(ratings()).toEqual([['a', 4]])
  expect((await waitingOf('p')).entries).toBe(0)
})

it('an answer that is lost neither loses nor doubles', async () => {
  await noted('a', 4, 0)
  server.lose = 'answer'
  await expect(send(5000)).rejects.toThrow('no answer')
  expect((await waitingOf('p')).entries).toBe(1)
  server.lose = 'nothing'
  await send(6000)
  expect(ratings()).toEqual([['a', 4]])
})

it('a change made after a lost answer is not lost with it: it replaces what may be there', async () => {
  await noted('a', 4, 0)
  server.lose = 'answer'
  await expect(send(5000)).rejects.toThrow()
  await noted('a', 2, 6000)
  server.lose = 'nothing'
  await send(20_000)
  expect(ratings()).toEqual([['a', 2]])
})

it('a change made while the entry is under way is sent after it', async () => {
  await noted('a', 4, 0)
  server.whileUnderWay = async () => {
    server.whileUnderWay = async () => {}
    await noted('a', 1, 5001)
  }
  await send(5000)
  expect(ratings()).toEqual([['a', 4]])
  await send(20_000)
  expect(ratings()).toEqual([['a', 1]])
  expect((await notedOn(owner, '2026-09-14')).get('planting a')!.state).toBe('kept')
})

it('with no connection all waits, in order, for as long as it takes', async () => {
  server.lose = 'request'
  for (let i = 0; i < 250; i++) await noted(`p${i}`, (i % 5) + 1, i)
  await expect(send(10_000)).rejects.toThrow('no connection')
  expect((await waitingOf('p')).entries).toBe(250)
  server.lose = 'nothing'
  expect(await send(10_000)).toEqual({ sent: 250, delayed: false })
  expect(server.standing()).toHaveLength(250)
})

it('what one person noted is not sent as another’s', async () => {
  await noted('a', 4, 0)
  await sendWaiting(server.wire, 'somebody else', 10_000)
  expect(server.standing()).toEqual([])
})

it('seeded chaos: whatever is lost or noted between, every planting ends as it was last noted, once', async () => {
  let seed = 5
  const random = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647
  const last = new Map<string, number>()
  for (let t = 0; t < 400; t++) {
    const planting = `p${Math.floor(random() * 12)}`
    const rating = 1 + Math.floor(random() * 5)
    await noted(planting, rating, t * 1000)
    last.set(planting, rating)
    server.lose = (['nothing', 'request', 'answer'] as const)[Math.floor(random() * 3)]!
    if (random() < 0.5) await send(t * 1000).catch(() => {})
  }
  server.lose = 'nothing'
  await send(1e6, true)
  expect(new Map(ratings() as [string, number][])).toEqual(last)
  expect(server.standing()).toHaveLength(last.size)
})

const recorded = (jobId: string, minutes: number, now: number) =>
  noteDone({
    ...owner,
    id: newId(),
    notedAt: now,
    jobId,
    title: jobId,
    done: { on: '2026-09-14', minutes },
  })

it('a job recorded without a connection is put right until it is sent, and recorded once', async () => {
  server.lose = 'request'
  await recorded('prune', 30, 0)
  await expect(send(1000)).rejects.toThrow('no connection')
  // It may have arrived: what is on the way is not written over.
  expect((await recorded('prune', 45, 2000)).done.minutes).toBe(30)
  server.lose = 'answer'
  await expect(send(3000)).rejects.toThrow('no answer')
  server.lose = 'nothing'
  expect(await send(4000)).toEqual({ sent: 1, delayed: false })
  expect([...server.jobs.values()].map((j) => [j.jobId, j.done.minutes])).toEqual([['prune', 30]])
  expect((await doneHere(owner)).get('prune')).toMatchObject({ state: 'kept', keptAt: 4000 })
})

it('what the record refuses of a job is kept with its reason until it is put right', async () => {
  server.jobs.set('of another', { jobId: 'mulch', done: { on: '2026-09-14', minutes: 10 } })
  await recorded('mulch', 30, 0)
  await send(1000)
  expect((await waitingOf('p')).refused.map((r) => r.why)).toEqual(['already recorded'])
  await recorded('mulch', 20, 2000)
  expect((await waitingOf('p')).jobs).toBe(1)
})

const inGarden = (gardenId: string, plantingId: string, now: number) =>
  note({ gardenId, personId: 'p' }, entry(plantingId, 3), now, newId)

it('a garden that one may no longer write to, or that is busy, does not hold up another', async () => {
  await inGarden('lost', 'a', 0)
  await inGarden('busy', 'b', 1)
  await inGarden('g', 'c', 2)
  server.refusesOf.add('lost')
  server.busyWith.add('busy')
  expect(await send(5000)).toEqual({ sent: 1, delayed: true })
  expect(ratings()).toEqual([['c', 3]])
  const waiting = await waitingOf('p')
  expect(waiting.entries).toBe(1)
  expect(waiting.refused.map((r) => [r.gardenId, r.why])).toEqual([
    ['lost', 'Only a crew member of this garden may do this.'],
  ])
  // What was refused is mended there, and sent again as it was.
  server.refusesOf.clear()
  server.busyWith.clear()
  await sendAgain(waiting.refused[0]!.id)
  expect(await send(6000)).toEqual({ sent: 2, delayed: false })
  expect(ratings().map(([id]) => id)).toEqual(['c', 'a', 'b'])
  expect((await waitingOf('p')).refused).toEqual([])
})

it('an entry that the record breaks over waits alone', async () => {
  const ids = Array.from({ length: 100 }, (_, i) => `p${i}`)
  for (const [i, id] of ids.entries()) await inGarden('g', id, i)
  server.breaksOver.add('planting p37')
  expect(await send(60_000)).toEqual({ sent: 99, delayed: true })
  expect((await waitingOf('p')).entries).toBe(1)
  // Found by halves.
  expect(server.asked).toBeLessThan(20)
  server.breaksOver.clear()
  expect(await send(70_000)).toEqual({ sent: 1, delayed: false })
  expect(ratings()).toHaveLength(100)
})
