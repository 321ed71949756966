import type { Access, AnswerOf, Endpoint, ParamsOf, SeenOf } from '@border/contract'
import { roles, type Role } from '@border/contract'
import { gardenDay, gardenInstant, readAs, type IsoDate } from '@border/core'
import express, { type Request, type RequestHandler, type Response, type Router } from 'express'
import { z } from 'zod'
import { readSent, type SentFile } from './body.ts'
import type { Db } from './database/connect.ts'
import { byTrueClock, deviceAheadMs, type Noted, type TrulyNoted } from './deviceClock.ts'
import { notFound, Refusal, zodRefusal } from './errors.ts'
import { keyOf as viewKey, type View } from './derived.ts'
import { askWhatFollows, followUp, type Enqueue } from './follow.ts'
import { nameChanged, requireAsSeen, type Standing } from './meanwhile.ts'
import { answeredBefore, once } from './once.ts'
import { BUSY, countOpen } from './openQuestions.ts'
import { openGarden, type GardenReader } from './reader.ts'
import { lockPractice } from './store/crews.ts'
import { findMember, lockGarden, type GardenAccess } from './store/gardens.ts'
import { findPerson, standsAt, type Person } from './store/people.ts'
import { versionsOf } from './store/versions.ts'
import { behalfNow, onBehalfOf, Turns } from './turns.ts'
import type { Workshop } from './work/runs.ts'

/** What a handler is given once access is settled, by what its endpoint says of it. */
export type Call<E extends Endpoint, P = undefined> = {
  db: Db
  body: E extends { body: infer B extends z.ZodType } ? z.output<B> : undefined
  query: E extends { query: infer Q extends z.ZodType } ? z.output<Q> : undefined
  file: E extends { takesFile: true } ? SentFile : undefined
  params: ParamsOf<E['path']>
  prepared: P
  /** The day it is in a zone for this person's practice, for what has no garden yet. */
  todayIn: (timeZone: string) => IsoDate
  /** The instant its garden stands at; without one the real instant. */
  nowMs: number
} & (E['access'] extends 'anyone' ? object : { person: Person }) &
  (E['access'] extends { garden: Role } ? InGarden : object)

interface InGarden {
  garden: GardenAccess
  /** The garden as this call reads it. */
  read: GardenReader
  /** The garden's own day. */
  today: IsoDate
  /** What a device noted, by the true clock. */
  truly: <N extends Noted>(noted: N) => TrulyNoted<N>
}

/** Of an endpoint that only answers that it is done, or that sends a file itself, nothing is awaited. */
type Answered<E extends Endpoint> = AnswerOf<E> extends { ok: true } | undefined ? void : AnswerOf<E>

export interface Raw {
  req: Request
  res: Response
}

interface Handling<E extends Endpoint, P> {
  limits?: RequestHandler[]
  /** What takes long, or is asked of others, before a write holds anything; what it returns is `call.prepared`. */
  prepare?: (call: Call<E>) => Promise<P>
  /** The view that what was prepared rests on: where that has changed meanwhile it is prepared anew. */
  restsOn?: View
  /** Of a change of something that people see: what it is and how it stands. Undefined where it is new. */
  stands?: E extends { sees: z.ZodType }
    ? (call: Call<E>) => Promise<Standing<SeenOf<E>> | undefined>
    : undefined
  /**
   * Changes that outlive the call are made in `call.db`, which is a transaction where the endpoint writes; what it returns is the
   * answer. What a write entails is asked for by the aspects it has changed (`derived.ts`).
   */
  handle: (call: Call<E, P>, raw: Raw) => Promise<Answered<E>>
}

export interface Route {
  endpoint: Endpoint
  limits?: RequestHandler[]
  prepare?: (call: never) => Promise<unknown>
  restsOn?: View
  stands?: (call: never) => Promise<Standing<never> | undefined>
  handle: (call: never, raw: Raw) => Promise<unknown>
}

/** An endpoint, done. */
export const route = <E extends Endpoint, P = undefined>(endpoint: E, handling: Handling<E, P>): Route => ({
  endpoint,
  ...handling,
})

/** Writes that may hold a connection at once; the rest of them are for reading and for the queue. */
const WRITES_AT_ONCE = 6
const WRITES_WAITING = 40
/** What routes are served with. */
export interface Served extends Workshop {
  enqueue: Enqueue
  requireToken: RequestHandler
  /** In tests and in development every answer is held against what its endpoint says of it. */
  checksAnswers: boolean
}

export function routerOf(served: Served, routes: readonly Route[]): Router {
  const { db, now } = served
  const router = express.Router()
  // The changes of a crew's gardens come one after another: none holds a connection while it waits for the one before.
  const writes = new Turns({
    slots: WRITES_AT_ONCE,
    slotsOfOne: 1,
    mostWaiting: WRITES_WAITING,
    tooMany: BUSY,
  })
  const open = countOpen()
  for (const r of routes) {
    const { endpoint } = r
    // What is counted is counted of the product's own pages: anybody else could lock people out by it.
    const before = [served.requireToken, ...(r.limits ?? [])]
    router[endpoint.method](endpoint.path, ...before, async (req, res) => {
      const { person, garden } = await admit(db, endpoint.access, req)
      if (person) open(person.id, res)
      for (const [name, value] of Object.entries(req.params))
        if (name.endsWith('Id') && !z.uuid().safeParse(value).success)
          throw notFound('What this address names')
      const file = endpoint.takesFile ? await readSent(req, res) : undefined
      const body = parsed(endpoint.body, req.body)
      const seen = endpoint.sees && seenIn(endpoint.sees, req.body)
      const query = parsed(endpoint.query, req.query)
      const clock = clockOf(person, garden, now(), deviceAheadMs(req, res))
      const whom = { garden: garden?.id, person: person?.id, signal: goneAway(res) }
      // What the endpoint says of a call is what it is put together from: `route` has held its handler to it.
      const callOn: CallOn = (on, as, prepared) =>
        ({
          db: on,
          body,
          file,
          query,
          params: req.params,
          person,
          garden: as,
          read: as && openGarden(on, as, clock.today!),
          ...clock,
          prepared,
        }) as never
      const answer = await onBehalfOf(whom, () =>
        endpoint.writes
          ? doWrite(served, writes, r, { req, res, person: person!, garden, seen, file, callOn })
          : r.handle(callOn(db, garden), { req, res }),
      )
      if (res.headersSent) return
      const sent = answer ?? { ok: true }
      if (served.checksAnswers) checkAnswer(endpoint, sent)
      res.json(sent)
    })
  }
  return router
}

type CallOn = (on: Db, as: GardenAccess | undefined, prepared?: unknown) => never

/** Ends when the one who asked has gone away before being answered. */
function goneAway(res: Response): AbortSignal {
  const gone = new AbortController()
  res.once('close', () => {
    if (!res.writableFinished) gone.abort()
  })
  return gone.signal
}

/** @throws {Error} where an answer is not what its endpoint says */
function checkAnswer(endpoint: Endpoint, answer: unknown): void {
  const read = endpoint.answer.safeParse(JSON.parse(JSON.stringify(answer)))
  if (!read.success)
    throw new Error(
      `${endpoint.method} ${endpoint.path} answers otherwise than it says: ${z.prettifyError(read.error)}`,
    )
}

/** The garden has moved between preparing a change and making it. */
class Moved extends Error {}
const MOST_TRIES = 6

async function doWrite(
  served: Served,
  writes: Turns,
  r: Route,
  asked: {
    req: Request
    res: Response
    person: Person
    garden: GardenAccess | undefined
    /** What is changed, as it was seen; undefined where that was not said. */
    seen: unknown
    file: SentFile | undefined
    callOn: CallOn
  },
): Promise<unknown> {
  const { db, enqueue } = served
  const { req, res, person, garden, seen, file, callOn } = asked
  const request = [r.endpoint.path, req.params, req.body, ...(file ? [file.digest] : [])]
  const write = { key: keyOf(req), personId: person.id, request }
  for (let attempt = 1; ; attempt++) {
    if (r.prepare) {
      const before = await answeredBefore(db, write)
      if (before) return before.answer
    }
    const standsAs = async (on: Db) =>
      r.restsOn && garden ? viewKey(r.restsOn, garden.id, await versionsOf(on, garden.id), []) : undefined
    const basis = await standsAs(db)
    const prepared = await r.prepare?.(callOn(db, garden))
    try {
      let toFollow: string[] = []
      const change = async (trx: Db) => {
        // What is read before it is changed stays as it is: one change of a garden at a time.
        if (garden) await lockGarden(trx, garden.id)
        else await lockPractice(trx, person.practiceId)
        if ((await standsAs(trx)) !== basis) throw new Moved()
        // As it stands now that nobody else changes it; it may have gone to another crew, or from this person.
        const held = garden && (await asMember(trx, person.id, garden.id))
        const standing = seen !== undefined && (await r.stands?.(callOn(trx, held)))
        if (standing) await requireAsSeen(trx, person.id, standing, seen as never)
        const made = await r.handle(callOn(trx, held, prepared), { req, res })
        if (r.stands) {
          const left = await r.stands(callOn(trx, garden && (await asMember(trx, person.id, garden.id))))
          if (left) await nameChanged(trx, write.key, left)
        }
        toFollow = await askWhatFollows(trx, enqueue, { gardenId: garden?.id ?? null, personId: person.id })
        return made
      }
      const answer = await onBehalfOf({ ...behalfNow(), garden: garden?.crewId ?? person.practiceId }, () =>
        writes.take(() => once(db, write, change, { keepAnswer: r.endpoint.writes !== 'secret' })),
      )
      await followUp(served, toFollow)
      return answer
    } catch (error) {
      if (!(error instanceof Moved)) throw error
      if (attempt >= MOST_TRIES)
        throw new Refusal(
          409,
          'Others are changing this garden just now. Nothing was saved; try again in a moment.',
        )
    }
  }
}

/** @throws {Refusal} where the garden is not, or no longer, one of the person's */
async function asMember(trx: Db, personId: string, gardenId: string): Promise<GardenAccess> {
  const member = await findMember(trx, personId, gardenId)
  if (!member) throw notFound('This garden')
  return member.garden
}

function clockOf(
  person: Person | undefined,
  garden: GardenAccess | undefined,
  nowMs: number,
  aheadMs: number,
) {
  const fixed = person ? standsAt(person) : null
  const todayIn = (timeZone: string) => gardenDay(fixed, timeZone, nowMs)
  if (!garden) return { todayIn, nowMs }
  const { timeZone } = garden
  return {
    todayIn,
    today: todayIn(timeZone),
    nowMs: gardenInstant(fixed, timeZone, nowMs),
    truly: <N extends Noted>(noted: N) => byTrueClock(noted, aheadMs, { standsAt: fixed, timeZone, nowMs }),
  }
}

async function admit(
  db: Db,
  access: Access,
  req: Request,
): Promise<{ person?: Person; garden?: GardenAccess }> {
  if (access === 'anyone') return {}
  const { personId } = req.session
  if (access !== 'signed in' && access !== 'leads practice') {
    const gardenId = z.uuid().safeParse(req.params.gardenId)
    const member = personId && gardenId.success ? await findMember(db, personId, gardenId.data) : undefined
    if (member) return permitted(access, member)
  }
  const person = personId ? await findPerson(db, personId) : undefined
  if (!person) throw new Refusal(401, 'Sign in first.')
  if (access === 'signed in') return { person }
  // A garden one does not belong to is as good as none: no hint that it is there.
  if (access !== 'leads practice') throw notFound('This garden')
  if (!person.leads) throw new Refusal(403, 'Only someone who leads the practice may do this.')
  return { person }
}

function permitted<M extends { garden: GardenAccess }>(access: { garden: Role }, member: M): M {
  const { garden } = member
  if (roles.indexOf(garden.role) > roles.indexOf(access.garden))
    throw new Refusal(
      403,
      `Only a ${access.garden === 'head' ? 'head gardener' : 'crew member'} of this garden may do this.`,
    )
  return member
}

function keyOf(req: Request): string {
  const key = z.uuid().safeParse(req.get('idempotency-key'))
  if (!key.success) throw new Refusal(400, 'A write needs an Idempotency-Key header holding a UUID.')
  return key.data
}

/** What is said to have been seen, beside what is to be changed. */
const seenIn = (sees: z.ZodType, body: unknown): unknown =>
  (parsed(z.object({ seen: sees.optional() }), body ?? {}) as { seen?: unknown }).seen

function parsed(schema: z.ZodType | undefined, value: unknown): unknown {
  if (!schema) return undefined
  const read = readAs(schema, value)
  if (!read.success) throw zodRefusal(read.error)
  return read.data
}
