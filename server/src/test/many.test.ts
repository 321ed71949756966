import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { ComputePool, computeThreads } from '../work/compute.ts'
import type { ComputeTasks } from '../work/computeTasks.ts'
import { insertPractice } from '../store/people.ts'
import { behalfNow, onBehalfOf } from '../turns.ts'
import { Client, member, practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'

/** No one request, garden or person may hurt the rest: who asks for much waits, or is told so, and nobody else does. */

const NOW = Date.parse('2026-09-15T10:00:00Z')

let practice: TestPractice
/** Another practice on the same server, with a garden and a crew of its own. */
let others: { head: Client; gardenId: string }
let plantingId: string
let treeId: string

beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => NOW)
  others = await otherPractice()
  plantingId = (await practice.db('plantings').where({ garden_id: practice.gardenId }).first('id')).id
  treeId = (await practice.db('features').where({ garden_id: practice.gardenId, kind: 'tree' }).first('id'))
    .id
})
afterAll(() => practice.stop())

async function otherPractice(): Promise<typeof others> {
  const practiceId = await insertPractice(practice.db, 'Another practice')
  const { email } = await member(practice.db, practiceId, 'another', true)
  const head = new Client(practice.app)
  await head.signIn(email)
  const { body } = await head.post('/imports', shortRecord)
  return { head, gardenId: body.gardenId }
}

const whatIf = (name: string) => ({ name, suppositions: [{ obstructionId: treeId, gone: true }] })

const timed = async <T>(of: () => PromiseLike<T>): Promise<{ value: T; ms: number }> => {
  const began = performance.now()
  return { value: await of(), ms: performance.now() - began }
}

describe('photos', () => {
  const photo = () => ({ id: randomUUID(), on: '2026-09-10', at: '2026-09-10T09:00:00Z', plantingId })
  const post = (said: ReturnType<typeof photo>, file: Buffer) =>
    practice.head.post(`/gardens/${practice.gardenId}/photos`, said, { key: said.id, file })
  const flat = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#406030' } })

  it('posted twelve at once are read one after another: nobody waits behind them, and none is half kept', async () => {
    const picture = await flat(6000, 4000).jpeg({ quality: 40 }).toBuffer()
    const sent = Array.from({ length: 12 }, () => {
      // Each is another picture: of its last bytes.
      const said = photo()
      return { ...said, post: () => post(said, Buffer.concat([picture, Buffer.from(said.id)])) }
    })
    let done = 0
    const answers = sent.map((photo) =>
      photo.post().then((a) => {
        done++
        return a
      }),
    )
    await vi.waitFor(() => expect(done).toBeGreaterThan(0), { timeout: 60_000 })
    const waits: number[] = []
    while (done < sent.length) {
      waits.push((await timed(() => practice.head.get('/gardens'))).ms)
      // The garden that the photos are of is not held either.
      const { value, ms } = await timed(() =>
        practice.head.post(`/gardens/${practice.gardenId}/what-ifs`, whatIf(randomUUID())),
      )
      expect(value.status).toBe(200)
      waits.push(ms)
    }
    expect(Math.max(...waits)).toBeLessThan(3_000)
    const outcomes = await Promise.all(answers)
    const kept = await practice
      .db('photos')
      .whereIn(
        'id',
        sent.map((p) => p.id),
      )
      .pluck('id')
    for (const [i, { status, body, headers }] of outcomes.entries()) {
      expect([200, 429]).toContain(status)
      expect([status, kept.includes(sent[i]!.id)]).toEqual([status, status === 200])
      if (status === 429)
        expect([headers['retry-after'], body.error]).toEqual(['2', expect.stringMatching(/faster than/)])
    }
    expect(kept.length).toBeGreaterThan(5)
    // What was refused for coming too soon is taken when it comes again.
    const again = sent.find((p) => !kept.includes(p.id))
    if (again) expect((await again.post()).status).toBe(200)
  })

  it('of more points than cameras make are refused by their first bytes, with how many they have', async () => {
    const huge = await flat(12_000, 5_100).png({ compressionLevel: 9 }).toBuffer()
    const { value, ms } = await timed(() => post(photo(), huge))
    expect([value.status, value.body.error]).toEqual([
      422,
      expect.stringMatching(/12000 by 5100.*60 million/),
    ])
    expect(ms).toBeLessThan(2_000)
  })
})

describe('a garden that somebody holds', () => {
  async function held() {
    const hold = await practice.db.transaction()
    const { crew_id } = await practice.db('gardens').where({ id: practice.gardenId }).first('crew_id')
    await hold.raw('select 1 from crews where id = ? for update', [crew_id])
    return { hold, release: () => hold.rollback() }
  }

  it('keeps its own changes waiting, and nothing of others', async () => {
    const { release } = await held()
    const names = Array.from({ length: 30 }, (_, i) => `held ${i}`)
    const changes = names.map((name) =>
      practice.head.post(`/gardens/${practice.gardenId}/what-ifs`, whatIf(name)).then((a) => a.status),
    )
    await new Promise((r) => setTimeout(r, 300))
    // Those of the same garden are read, and others change theirs.
    expect((await practice.head.get(`/gardens/${practice.gardenId}`)).status).toBe(200)
    expect((await practice.head.get('/gardens')).status).toBe(200)
    const { value, ms } = await timed(() =>
      others.head.post(`/gardens/${others.gardenId}/amend`, { northDeg: 3 }),
    )
    expect([value.status, value.body.error]).toEqual([200, undefined])
    expect(ms).toBeLessThan(8_000)
    await release()
    expect(new Set(await Promise.all(changes))).toEqual(new Set([200]))
    const found = await practice.db('what_ifs').where({ garden_id: practice.gardenId }).pluck('name')
    expect(found.filter((name) => name.startsWith('held')).sort()).toEqual(names.toSorted())
  })

  it('takes no more of one person at once than can wait: that is said, and nothing of it is done', async () => {
    const { hold, release } = await held()
    const names = Array.from({ length: 50 }, (_, i) => `many ${i}`)
    const changes = names.map((name) =>
      practice.head.post(`/gardens/${practice.gardenId}/what-ifs`, whatIf(name)).then((a) => a),
    )
    await Promise.race(changes)
    expect(hold.isCompleted()).toBe(false)
    await release()
    const answers = await Promise.all(changes)
    expect(new Set(answers.map((a) => a.status))).toEqual(new Set([200, 429]))
    const refused = answers.find((a) => a.status === 429)!
    expect([refused.headers['retry-after'], refused.body.error]).toEqual([
      '2',
      expect.stringMatching(/at once/),
    ])
    const found = new Set(await practice.db('what_ifs').pluck('name'))
    answers.forEach((a, i) => expect([a.status, found.has(names[i])]).toEqual([a.status, a.status === 200]))
  })
})

describe('files', () => {
  it('are read on a thread, whatever they hold and wherever they are brought', async () => {
    const asked = vi.spyOn(practice.pool, 'run')
    const { gardenId, head } = practice
    const csv = (await head.get(`/gardens/${gardenId}/observations.csv`)).text
    const answers = [
      await head.post('/imports/preview', shortRecord),
      await head.post(`/gardens/${gardenId}/weather`, { weather: shortRecord.weather }),
      await head.post(`/gardens/${gardenId}/observations-file`, { csv: `${csv}\r\nno look,` }),
      await head.post('/taxa-file', { csv: 'botanical\r\nHosta' }),
      await head.post(`/gardens/${gardenId}/soil-file`, { csv: 'day,celsius,place\n2026-09-01,14,Nowhere' }),
      await head.post(`/gardens/${gardenId}/light-logs`, {
        csv: 'time,lux\nnoon,1',
        name: 'log.csv',
        x: 5,
        y: 11,
      }),
    ]
    // A file that is wrong is refused with where, as one that was read here.
    expect(
      answers.map((a) => [a.status, (a.body as { problems?: { message: string }[] }).problems?.length]),
    ).toEqual([
      // There is a garden of this name.
      [200, 1],
      [200, undefined],
      [422, expect.any(Number)],
      [422, expect.any(Number)],
      [422, 1],
      [422, 1],
    ])
    const files = [
      'planFile',
      'plantingsFile',
      'weatherFile',
      'observationsFile',
      'taxaFile',
      'soilFile',
      'logFile',
    ]
    expect(asked.mock.calls.map(([name]) => name)).toEqual(expect.arrayContaining(files))
    asked.mockRestore()
  })
})

describe('what is worked out', () => {
  const assessment = (client: Client, gardenId: string, on: string) =>
    client.get(`/gardens/${gardenId}/assessment?on=${on}`)

  it('for two who ask for the same is worked out once', async () => {
    const asked = vi.spyOn(practice.pool, 'run')
    const second = await practice.join('second', 'head')
    const on = '2026-10-03'
    const [one, two] = await Promise.all([
      assessment(practice.head, practice.gardenId, on),
      assessment(second, practice.gardenId, on),
    ])
    expect([one.status, two.status]).toEqual([200, 200])
    expect(one.body).toEqual(two.body)
    expect(asked.mock.calls.filter(([name]) => name === 'judge').length).toBe(1)
    asked.mockRestore()
  })

  let task: ComputeTasks['whatIfs']
  beforeAll(async () => {
    const asked = vi.spyOn(practice.pool, 'run')
    await practice.head.post(`/gardens/${practice.gardenId}/what-ifs`, whatIf('For the threads'))
    await practice.head.get(`/gardens/${practice.gardenId}/what-ifs?on=2026-10-05`)
    ;[, task] = asked.mock.calls.find(([name]) => name === 'whatIfs') as [string, ComputeTasks['whatIfs']]
    asked.mockRestore()
  })

  it('is asked for on behalf of the garden and of whoever asks', async () => {
    const { pool } = practice
    const run = pool.run.bind(pool)
    const behalves: unknown[] = []
    const asked = vi.spyOn(pool, 'run').mockImplementation((...of) => {
      const { garden, person } = behalfNow()
      behalves.push([garden, typeof person])
      return run(...of)
    })
    await assessment(others.head, others.gardenId, '2026-10-04')
    asked.mockRestore()
    expect(behalves.length).toBeGreaterThan(0)
    expect(new Set(behalves.map(String))).toEqual(new Set([`${others.gardenId},string`]))
  })

  it('for one garden leaves the others their turn', async () => {
    const order: string[] = []
    const ask = async (garden: string) => {
      // One way of it alone: what was tried before has left many.
      const short = { ...task, suppositions: [[]] }
      await onBehalfOf({ garden, person: `of ${garden}` }, () => practice.pool.run('whatIfs', short))
      order.push(garden)
    }
    // Threads that are only beginning take longer than any task.
    for (let i = 0; i < 2; i++) await Promise.all(['this', 'that', 'those'].map(ask))
    order.length = 0
    await Promise.all([...Array.from({ length: 24 }, () => ask('one')), ask('other')])
    // Behind all that was asked before it, it would come last.
    expect(order.indexOf('other')).toBeLessThan(12)
  })

  it('and takes longer than it may is given up, with words, and the next is worked out', async () => {
    const threads = computeThreads(1)
    const pool = new ComputePool(threads, 5_000)
    try {
      const suppositions = Array.from({ length: 5_000 }, () => [
        { obstructionId: treeId, gone: true as const },
      ])
      const endless = pool.run('whatIfs', { ...task, suppositions })
      const next = pool.run('whatIfs', { ...task, suppositions: [[]] })
      await expect(endless).rejects.toMatchObject({ status: 503, againS: 60 })
      expect((await next).length).toBe(1)
    } finally {
      await threads.destroy()
    }
  })
})
