import 'fake-indexeddb/auto'
import fc from 'fast-check'
import { openDB } from 'idb'
import { describe, expect, it, vi } from 'vitest'
import type { PersistedQuery } from '@tanstack/query-persist-client-core'
import { MemoryOutbox } from './memoryOutbox.ts'
import { Openable } from './openable.ts'
import type { Outbox, Queued, QueuedJob } from './queued.ts'
import { forgetKept, keptAnswers } from './store.ts'

const job = (id: string, gardenId: string, minutes: number): QueuedJob => ({
  id,
  gardenId,
  personId: 'p',
  state: 'noted',
  notedAt: 0,
  jobId: `of ${id}`,
  title: 'Cut back',
  done: { on: '2026-09-14', minutes },
})

/** A database of the browser with one store, as the device has it. */
async function device(name: string): Promise<Outbox> {
  const db = await openDB(name, 1, {
    upgrade: (db) => void db.createObjectStore('jobs', { keyPath: 'id' }).createIndex('garden', 'gardenId'),
  })
  return db as unknown as Outbox
}

const id = fc.constantFrom('a', 'b', 'c')
const garden = fc.constantFrom('g', 'h')
const op = fc.oneof(
  fc.record({ put: fc.tuple(id, garden, fc.nat(99)) }),
  fc.record({ get: id }),
  fc.record({ delete: id }),
  fc.record({ getAll: fc.constant(true) }),
  fc.record({ of: garden }),
  fc.record({ swap: fc.tuple(id, id) }),
  fc.record({ clear: fc.constant(true) }),
)
type Op = typeof op extends fc.Arbitrary<infer T> ? T : never

async function does(outbox: Outbox, op: Op): Promise<unknown> {
  if ('put' in op) return void (await outbox.put('jobs', job(...op.put)))
  if ('get' in op) return outbox.get('jobs', op.get)
  if ('delete' in op) return void (await outbox.delete('jobs', op.delete))
  if ('getAll' in op) return outbox.getAll('jobs')
  if ('of' in op) return outbox.getAllFromIndex('jobs', 'garden', op.of)
  if ('clear' in op) return void (await outbox.clear('jobs'))
  const [a, b] = op.swap
  const tx = outbox.transaction('jobs', 'readwrite')
  const [one, other] = [await tx.store.get(a), await tx.store.get(b)]
  if (one) await tx.store.put({ ...one, id: b })
  if (other) await tx.store.put({ ...other, id: a })
  const all = await tx.store.index('garden').getAll('g')
  await tx.done
  return all
}

let made = 0

describe('what waits, kept by nothing but the page', () => {
  it('is as a browser would keep it, and goes on so where it was handed over', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(op, { maxLength: 25 }), fc.nat(25), async (ops, handedOverAt) => {
        const kept = await device(`kept ${++made}`)
        const waiting = new MemoryOutbox()
        const later = await device(`later ${made}`)
        for (const [i, op] of ops.entries()) {
          if (i === handedOverAt) await waiting.handOver(later)
          const [here, there] = [await does(waiting, op), await does(kept, op)]
          expect(here).toEqual(there)
        }
        const [handed, all] = [await later.getAll('jobs'), await kept.getAll('jobs')]
        if (ops.length > handedOverAt) expect(handed).toEqual(all)
      }),
      { numRuns: 60 },
    )
  })

  it('is changed by one at a time: nothing that two write at once is lost', async () => {
    const waiting = new MemoryOutbox()
    await waiting.put('jobs', job('a', 'g', 0))
    const more = async () => {
      const tx = waiting.transaction('jobs')
      const now = (await tx.store.get('a')) as Queued['jobs']
      await tx.store.put({ ...now, done: { ...now.done, minutes: now.done.minutes + 1 } })
      await tx.done
    }
    const all = Array.from({ length: 20 }, more)
    const handing = waiting.handOver(await device(`handed ${++made}`))
    await Promise.all([...all, handing, ...Array.from({ length: 20 }, more)])
    expect((await waiting.get('jobs', 'a'))!.done.minutes).toBe(40)
  })

  it('holds nobody up after a change that failed', async () => {
    const waiting = new MemoryOutbox()
    const tx = waiting.transaction('jobs')
    await expect(tx.store.put({ ...job('a', 'g', 1), title: (() => {}) as never })).rejects.toThrow()
    await waiting.put('jobs', job('a', 'g', 2))
    expect((await waiting.getAll('jobs')).map((j) => j.done.minutes)).toEqual([2])
  })
})

describe('a database of the browser', () => {
  const never = () => new Promise<string>(() => {})

  it('that never opens is waited for a moment by the first, and by nobody after that', async () => {
    const openable = new Openable(never, 40)
    await expect(openable.get()).rejects.toThrow()
    const began = performance.now()
    await expect(openable.get()).rejects.toThrow()
    expect(performance.now() - began).toBeLessThan(30)
  })

  it('that opens late is there from then on', async () => {
    let opens = (_: string) => {}
    const openable = new Openable(() => new Promise<string>((resolve) => (opens = resolve)), 20)
    await expect(openable.get()).rejects.toThrow()
    opens('open')
    expect(await openable.eventually()).toBe('open')
    expect(await openable.get()).toBe('open')
  })

  it('that is denied, or was closed, is tried again when it is next asked for', async () => {
    const open = vi
      .fn<() => Promise<string>>()
      .mockRejectedValueOnce(new Error('denied'))
      .mockResolvedValue('open')
    const openable = new Openable(open, 1_000)
    await expect(openable.get()).rejects.toThrow('denied')
    expect(await openable.get()).toBe('open')
    expect(await openable.get()).toBe('open')
    expect(open).toHaveBeenCalledTimes(2)
    openable.closed()
    expect(await openable.get()).toBe('open')
    expect(open).toHaveBeenCalledTimes(3)
  })
})

describe('what the device keeps of answers', () => {
  const answer = (dataUpdatedAt: number) =>
    ({ buster: '', queryHash: 'h', queryKey: ['h'], state: { dataUpdatedAt } }) as unknown as PersistedQuery

  it('is forgotten with all that is still on its way to be kept: the next person has none of it', async () => {
    const before = Date.now() - 1
    await keptAnswers.setItem('known', answer(before))
    expect(await keptAnswers.getItem('known')).toBeDefined()
    await forgetKept()
    expect(await keptAnswers.getItem('known')).toBeUndefined()
    await keptAnswers.setItem('late', answer(before))
    expect(await keptAnswers.getItem('late')).toBeUndefined()
    await keptAnswers.setItem('theirs', answer(Date.now()))
    expect(await keptAnswers.getItem('theirs')).toBeDefined()
  })
})
