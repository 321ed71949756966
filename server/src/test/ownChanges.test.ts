import type { Aspect } from '@border/contract'
import { randomUUID } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Db } from '../database/connect.ts'
import { findKept, kept, keepLatest } from '../store/computed.ts'
import { raisedHere } from '../store/versions.ts'
import { ComputePool, computeThreads } from '../work/compute.ts'
import { look, write } from './asked.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'

/** Many write at once, in gardens of one practice and on several servers: each change is its own, and leaves little behind. */

const NOW = Date.parse('2026-09-15T10:00:00Z')

let practice: TestPractice
/** The gardens of the practice, each with a crew of its own. */
let here: string
let there: string

beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => NOW)
  here = practice.gardenId
  const plan = JSON.parse(shortRecord.plan)
  plan.garden.name = 'Next door'
  const { body } = await practice.head.post('/imports', { ...shortRecord, plan: JSON.stringify(plan) })
  if (!body.gardenId) throw new Error(JSON.stringify(body))
  there = body.gardenId
})
afterAll(() => practice.stop())

const raisedIn = async (trx: Db): Promise<[garden: string, aspects: Aspect[]][]> =>
  (await raisedHere(trx)).map((r) => [r.gardenId, r.aspects.sort()])

const rename = (trx: Db, gardenId: string, to: string) =>
  trx('features')
    .where({ garden_id: gardenId, kind: 'bed' })
    .update({ name: trx.raw('name || ?', [to]) })
const praise = (trx: Db, gardenId: string, role: string) =>
  trx('plantings').where({ garden_id: gardenId }).update({ role })

describe('what a change has raised', () => {
  it('is told apart from what others change meanwhile, in the same practice', async () => {
    await practice.db.transaction(async (mine) => {
      await rename(mine, here, ' I')
      await practice.db.transaction((theirs) => praise(theirs, there, 'edging'))
      // What the other has left is there to be read by now, and yet is none of this one's.
      expect(await mine('plantings').where({ garden_id: there, role: 'edging' }).first('id')).toBeTruthy()
      expect(await raisedIn(mine)).toEqual([[here, ['plan']]])
      await praise(mine, here, 'filler')
      expect(await raisedIn(mine)).toEqual([[here, ['plan', 'plantings']]])
    })
  })

  it('leaves out what is taken back of it, and begins anew with the next transaction', async () => {
    await practice.db.transaction(async (trx) => {
      await rename(trx, here, ' II')
      await trx
        .transaction(async (part) => {
          await praise(part, there, 'lost')
          throw new Error('taken back')
        })
        .catch(() => undefined)
      expect(await raisedIn(trx)).toEqual([[here, ['plan']]])
    })
    for (let connection = 0; connection < 12; connection++)
      expect(await practice.db.transaction((trx) => raisedIn(trx))).toEqual([])
  })

  it('is what the run that follows it is for: two crews at once each get their own', async () => {
    await practice.db('runs').delete()
    const lookAt = async (gardenId: string) => {
      const { id } = await practice.db('plantings').where({ garden_id: gardenId }).first('id')
      const entry = { kind: 'planting', id: randomUUID(), plantingId: id, on: '2026-09-14', rating: 4 }
      return practice.head.post(`/gardens/${gardenId}/walk-entries`, {
        entries: [{ ...entry, at: '2026-09-14T09:00:00Z' }],
      })
    }
    const answers = await Promise.all([here, there, here, there, here, there].map(lookAt))
    expect(answers.map((a) => a.body.refused)).toEqual(answers.map(() => []))
    const runs = await practice.db('runs').where({ kind: 'follow' }).select('crew_id', 'garden_id')
    const crews = await practice.db('gardens').whereIn('id', [here, there]).select('id', 'crew_id')
    expect(runs.map((r) => [r.garden_id, r.crew_id]).sort()).toEqual(
      crews.map((g) => [g.id, g.crew_id]).sort(),
    )
  })
})

describe('what is kept of what was worked out', () => {
  const rows = async () => Number((await practice.db('computed').count('* as n').first())!.n)

  it('does not grow by walks that are noted and read again and again', async () => {
    const read = () => look(practice, '/walk')
    await read()
    const { id } = await practice.db('plantings').where({ garden_id: here }).first('id')
    const before = await rows()
    for (let rating = 1; rating <= 5; rating++) {
      await write(practice, '/walk-entries', {
        entries: [
          {
            kind: 'planting',
            id: randomUUID(),
            plantingId: id,
            on: '2026-09-14',
            at: `2026-09-14T09:0${rating}:00Z`,
            rating,
          },
        ],
      })
      await read()
    }
    expect(await rows()).toBe(before)
  })

  it('is the latest of each view, and all of what is no view', async () => {
    await keepLatest(practice.db, [
      { hash: 'a1', viewOf: 'a', result: 1 },
      { hash: 'b1', viewOf: 'b', result: 2 },
    ])
    await keepLatest(practice.db, [{ hash: 'a2', viewOf: 'a', result: 3 }])
    // By two processes at once, the same.
    await Promise.all([1, 2].map(() => keepLatest(practice.db, [{ hash: 'a3', viewOf: 'a', result: 4 }])))
    expect(Object.fromEntries(await findKept(practice.db, ['a1', 'a2', 'a3', 'b1']))).toEqual({
      a3: 4,
      b1: 2,
    })
    const before = await rows()
    const worked = [1, 2, 1].map((n) => kept(practice.db, ['no view', n], () => Promise.resolve(10 * n)))
    expect(await Promise.all(worked)).toEqual([10, 20, 10])
    expect(await rows()).toBe(before + 2)
  })
})

describe('a session that is used', () => {
  const DAY_MS = 86_400_000
  const left = async () => {
    const sessions = await practice.db('session').select('expire')
    return Math.max(...sessions.map((s) => (s.expire.getTime() - Date.now()) / DAY_MS))
  }
  it('lasts longer, and is written down once a day only', async () => {
    const expire = (days: number) =>
      practice.db('session').update({ expire: practice.db.raw(`now() + ? * interval '1 day'`, [days]) })
    await expire(20)
    await look(practice, '')
    expect(await left()).toBeCloseTo(30, 1)
    await expire(29.5)
    await look(practice, '')
    expect(await left()).toBeCloseTo(29.5, 1)
  })
})

describe.runIf(process.platform === 'linux')('a thread that nobody waits for', () => {
  /** Of the threads of this process: how nice they are. */
  const nice = () => {
    return readdirSync('/proc/self/task').map((id) =>
      Number(readFileSync(`/proc/self/task/${id}/stat`, 'utf8').split(') ')[1]!.split(' ')[16]),
    )
  }

  it('gives way to all others, and they stay as they are', async () => {
    const before = nice().filter((n) => n > 0).length
    const behind = computeThreads(1, true)
    const usual = computeThreads(1)
    for (const threads of [behind, usual])
      await new ComputePool(threads).run('planFile', '{}' as never).catch(() => undefined)
    expect(nice().filter((n) => n > 0)).toHaveLength(before + 1)
    await Promise.all([behind.destroy(), usual.destroy()])
  })
})
