import type { Role } from '@border/contract'
import { roles } from '@border/contract'
import { gardenDay, gardenInstant, type IsoDate } from '@border/core'
import express, { type RequestHandler, type Response, type Router } from 'express'
import { z } from 'zod'
import type { Db } from './database/connect.ts'
import { notFound, Refusal, zodRefusal } from './errors.ts'
import { keyOf as viewKey, type View } from './derived.ts'
import { followUp, watchChanges, type Enqueue } from './follow.ts'
import { answeredBefore, once } from './once.ts'
import { openGarden, type GardenReader } from './reader.ts'
import { lockPractice } from './store/crews.ts'
import { findMember, lockGarden, type GardenAccess } from './store/gardens.ts'
import { findPerson, standsAt, type Person } from './store/people.ts'
import { requireCsrf } from './session.ts'
import { versionsOf } from './store/versions.ts'
import type { Workshop } from './work/runs.ts'

/**
 * Who may use a route: anyone, anyone signed in, who leads the practice, or a member of the garden in its path with at least this role.
 * This is the one place where access is decided.
 */
export type Access = 'anyone' | 'signed in' | 'leads practice' | { garden: Role }

/** What a handler is given once access is settled. */
export interface Call<B, P = undefined> {
  db: Db
  body: B
  params: Record<string, string>
  query: Record<string, unknown>
  person: Person
  garden: GardenAccess
  /** The garden as this call reads it. */
  read: GardenReader
  /** The garden's own day, and the instant it stands at. */
  today: IsoDate
  nowMs: number
  /** The day it is in a zone for this person's practice, for what has no garden yet. */
  todayIn: (timeZone: string) => IsoDate
  prepared: P
}

interface Spec<S extends z.ZodType, P> {
  method: 'get' | 'post'
  path: string
  access: Access
  body?: S
  limit?: RequestHandler
  /**
   * Writes run once per idempotency key, inside the transaction in `call.db`. An answer that holds a secret is not kept: a
   * repeat is answered without it. What a write entails is asked for by the aspects it has changed (`derived.ts`).
   */
  writes?: boolean | 'secret'
  /** What takes long, or is asked of others, before a write holds anything; what it returns is `call.prepared`. */
  prepare?: (call: Call<z.infer<S>>) => Promise<P>
  /** The view that what was prepared rests on: where that has changed meanwhile it is prepared anew. */
  restsOn?: View
  /** Changes that outlive the call are made in `call.db`; what it returns is the answer. */
  handle: (call: Call<z.infer<S>, P>, raw: { req: express.Request; res: Response }) => Promise<unknown>
}

export type Route = Omit<Spec<z.ZodType, unknown>, 'handle' | 'prepare'> & {
  prepare?: (call: Call<never>) => Promise<unknown>
  handle: (call: Call<never, never>, raw: { req: express.Request; res: Response }) => Promise<unknown>
}

/** A route with the types of its body and of what it prepares kept. */
export const route = <S extends z.ZodType, P = undefined>(spec: Spec<S, P>): Route => spec as unknown as Route

/** What routes are served with. */
export interface Served extends Workshop {
  enqueue: Enqueue
}

export function routerOf(served: Served, routes: readonly Route[]): Router {
  const { db, now } = served
  const router = express.Router()
  for (const r of routes) {
    const before = [...(r.limit ? [r.limit] : []), requireCsrf]
    router[r.method](r.path, ...before, async (req, res) => {
      const { person, garden } = await admit(db, r.access, req)
      for (const [name, value] of Object.entries(req.params))
        if (name.endsWith('Id') && !z.uuid().safeParse(value).success)
          throw notFound('What this address names')
      const body = r.body ? parse(r.body, req.body) : undefined
      const clock = clockOf(person, garden, now())
      const callOn = (on: Db, as: GardenAccess | undefined, prepared?: unknown) =>
        ({
          db: on,
          body,
          params: req.params,
          query: req.query,
          person,
          garden: as,
          read: as && openGarden(on, as, clock.today!),
          ...clock,
          prepared,
        }) as unknown as Call<never, never>
      const answer = r.writes
        ? await doWrite(served, r, { req, res, person: person!, garden, callOn })
        : await r.handle(callOn(db, garden), { req, res })
      if (!res.headersSent) res.json(answer ?? { ok: true })
    })
  }
  return router
}

/** The garden has moved between preparing a change and making it. */
class Moved extends Error {}
const MOST_TRIES = 6

async function doWrite(
  served: Served,
  r: Route,
  asked: {
    req: express.Request
    res: Response
    person: Person
    garden: GardenAccess | undefined
    callOn: (on: Db, as: GardenAccess | undefined, prepared?: unknown) => Call<never, never>
  },
): Promise<unknown> {
  const { db, enqueue } = served
  const { req, res, person, garden, callOn } = asked
  const write = { key: keyOf(req), personId: person.id, request: [r.path, req.params, req.body] }
  for (let attempt = 1; ; attempt++) {
    if (r.prepare) {
      const before = await answeredBefore(db, write)
      if (before) return before.answer
    }
    const standsAs = async (on: Db) =>
      r.restsOn && garden ? viewKey(r.restsOn, garden.id, await versionsOf(on, garden.id), []) : undefined
    const basis = await standsAs(db)
    const prepared = await r.prepare?.(callOn(db, garden) as Call<never>)
    try {
      let toFollow: string[] = []
      const answer = await once(
        db,
        write,
        async (trx) => {
          // What is read before it is changed stays as it is: one change of a garden at a time.
          if (garden) await lockGarden(trx, garden.id)
          else await lockPractice(trx, person.practiceId)
          if ((await standsAs(trx)) !== basis) throw new Moved()
          // As it stands now that nobody else changes it; it may have gone to another crew, or from this person.
          const held = garden && (await findMember(trx, person.id, garden.id))?.garden
          if (garden && !held) throw notFound('This garden')
          const changes = await watchChanges(trx, person.practiceId, enqueue)
          const made = await r.handle(callOn(trx, held, prepared), { req, res })
          toFollow = await changes.asked({ gardenId: garden?.id ?? null, personId: person.id })
          return made
        },
        { keepAnswer: r.writes !== 'secret' },
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

function clockOf(person: Person | undefined, garden: GardenAccess | undefined, nowMs: number) {
  const fixed = person ? standsAt(person) : null
  const todayIn = (timeZone: string) => gardenDay(fixed, timeZone, nowMs)
  return garden
    ? { todayIn, today: todayIn(garden.timeZone), nowMs: gardenInstant(fixed, garden.timeZone, nowMs) }
    : { todayIn, nowMs }
}

async function admit(
  db: Db,
  access: Access,
  req: express.Request,
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

function keyOf(req: express.Request): string {
  const key = z.uuid().safeParse(req.get('idempotency-key'))
  if (!key.success) throw new Refusal(400, 'A write needs an Idempotency-Key header holding a UUID.')
  return key.data
}

function parse<S extends z.ZodType>(schema: S, body: unknown): z.infer<S> {
  const read = schema.safeParse(body)
  if (!read.success) throw zodRefusal(read.error)
  return read.data
}
