import { endpoints, type Endpoint } from '@border/contract'
import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import express from 'express'
import request from 'supertest'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { z } from 'zod'
import { route, routerOf } from '../routing.ts'
import { sessions, tokens } from '../session.ts'
import { versionsOf } from '../store/versions.ts'
import { look, questionOf, settle, write } from './asked.ts'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { sharedScheme } from './schemes.ts'

/** What the server answers, and what it makes of what is sent, by what the contract says of every endpoint. */

const NOW = Date.parse('2026-09-15T10:00:00Z')
let practice: TestPractice
beforeAll(async () => {
  practice = await practiceWithGarden(undefined, () => NOW)
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  await settle(practice)
})
afterAll(() => practice.stop())

const all = Object.entries(endpoints).flatMap(([area, list]) =>
  Object.entries<Endpoint>(list).map(([name, endpoint]) => ({ name: `${area}.${name}`, endpoint })),
)
const told = all.filter(({ endpoint }) => endpoint.method === 'get' && !endpoint.sends)

/** An address of the test's garden; other parts as they are there, or of nothing that there is. */
async function addressIn({ path }: Endpoint): Promise<string> {
  const known: Record<string, string> = { gardenId: practice.gardenId }
  if (path.includes(':plantingId')) {
    const { plantings } = await look<{ plantings: { id: string }[] }>(practice, '')
    known.plantingId = plantings[0]!.id
  }
  if (path.includes(':featureId')) {
    const { plantings } = await look<{ plantings: { placeId: string }[] }>(practice, '')
    known.featureId = plantings[0]!.placeId
  }
  if (path.includes(':containerId')) {
    const { features } = await look<{ features: { id: string; kind: string }[] }>(practice, '')
    known.containerId = features.find((f) => f.kind === 'container')!.id
  }
  if (path.includes(':jobId')) {
    const { jobs } = await look<{ jobs: { id: string; state: string; plannedOn: string | null }[] }>(
      practice,
      '/season',
    )
    known.jobId = jobs.find((j) => j.state === 'open' && j.plannedOn !== null)!.id
  }
  if (path.includes(':token')) known.token = await sharedScheme(practice, '2026-12-01')
  return path.replace(/:(\w+)/g, (_, name: string) => known[name] ?? randomUUID())
}

describe('an answer', () => {
  it.each(told)('to $name is what the contract says', async ({ name, endpoint }) => {
    const answer = await practice.head.get(`${await addressIn(endpoint)}${questionOf(name)}`)
    expect(answer.status).toBe(200)
    const read = endpoint.answer.safeParse(answer.body)
    expect(read.success ? '' : z.prettifyError(read.error)).toBe('')
    // What was read is what was sent: the schema drops nothing without a word.
    expect(read.data).toEqual(answer.body)
  })

  it('that is otherwise never leaves the server where answers are checked', async () => {
    const answering = (answer: unknown) => {
      const endpoint = {
        method: 'get' as const,
        path: '/what',
        access: 'anyone' as const,
        answer: z.strictObject({ hours: z.number() }),
      }
      const app = express()
      const served = {
        db: practice.db,
        pool: practice.pool,
        now: () => NOW,
        log: undefined,
        enqueue: async () => {},
        requireToken: tokens('test', false).require,
        checksAnswers: true,
      }
      const session = sessions(practice.url, 'test', false)
      app.use(
        session.handler,
        routerOf(served, [route(endpoint, { handle: () => Promise.resolve(answer as { hours: number }) })]),
      )
      app.use(
        ((error, _req, res, _next) =>
          void res.status(500).send((error as Error).message)) as express.ErrorRequestHandler,
      )
      return { asked: () => request(app).get('/what'), close: session.close }
    }
    for (const [answer, status] of [
      [{ hours: 6 }, 200],
      [{ hours: '6' }, 500],
      [{ hours: Number.NaN }, 500],
      [{ hours: 6, passwordHash: 'x' }, 500],
      [{}, 500],
    ] as const) {
      const server = answering(answer)
      expect([answer, (await server.asked()).status]).toEqual([answer, status])
      await server.close()
    }
  })
})

describe('what is sent', () => {
  const sent = all.filter(({ endpoint }) => endpoint.body && typeof endpoint.access === 'object')

  it.each(sent)(
    'to $name is taken apart before anything is changed, whatever it is',
    async ({ endpoint }) => {
      const address = await addressIn(endpoint)
      const before = await versionsOf(practice.db, practice.gardenId)
      await fc.assert(
        fc.asyncProperty(
          fc.oneof(fc.object({ maxDepth: 2 }), fc.array(fc.jsonValue(), { maxLength: 3 })),
          async (body) => {
            // JSON has no way to send what it cannot hold.
            const json: object = JSON.parse(JSON.stringify(body))
            fc.pre(!endpoint.body!.safeParse(json).success)
            const file = endpoint.takesFile && Buffer.from('a picture, or not')
            const answer = await practice.head.post(address, json, { file })
            expect([answer.status, answer.body.error?.length > 0]).toEqual([422, true])
            // In words of a person's, not of a library's.
            expect(JSON.stringify(answer.body)).not.toMatch(/Invalid input|Too (big|small)|\breceived\b/)
          },
        ),
        { numRuns: 12 },
      )
      expect(await versionsOf(practice.db, practice.gardenId)).toEqual(before)
    },
  )

  it('in the address is taken apart like a body: a day that is none is refused in words', async () => {
    const dated = told.filter(
      ({ endpoint: { query } }) =>
        query?.safeParse({}).success === true && !query.safeParse({ on: 'tomorrow' }).success,
    )
    expect(dated.length).toBeGreaterThan(3)
    for (const { name, endpoint } of dated) {
      const answer = await practice.head.get(`${await addressIn(endpoint)}?on=tomorrow`)
      expect([name, answer.status]).toEqual([name, 422])
      expect(JSON.stringify(answer.body.problems)).toContain('on: must be a date like 2026-09-14')
    }
  })

  it('and done once says so without more', async () => {
    const note = { on: '2026-09-14', note: 'Slugs at the foot of it.' }
    const { plantings } = await look<{ plantings: { id: string }[] }>(practice, '')
    expect(await write(practice, `/plantings/${plantings[0]!.id}/notes`, note)).toEqual({ ok: true })
  })
})
