import type { Role } from '@border/contract'
import { roles } from '@border/contract'
import express, { type RequestHandler, type Response, type Router } from 'express'
import { z } from 'zod'
import type { Db } from './database/connect.ts'
import { notFound, Refusal, zodRefusal } from './errors.ts'
import { once } from './once.ts'
import { findGardenFor, lockGarden, type GardenAccess } from './store/gardens.ts'
import { findPerson, type Person } from './store/people.ts'
import { requireCsrf } from './session.ts'

/**
 * Who may use a route: anyone, anyone signed in, who leads the practice, or a member of the garden in its path with at least this role.
 * This is the one place where access is decided.
 */
export type Access = 'anyone' | 'signed in' | 'leads practice' | { garden: Role }

/** What a handler is given once access is settled. */
export interface Call<B> {
  db: Db
  body: B
  params: Record<string, string>
  query: Record<string, unknown>
  person: Person
  garden: GardenAccess
}

export interface Route {
  method: 'get' | 'post'
  path: string
  access: Access
  body?: z.ZodType
  limit?: RequestHandler
  /**
   * Writes run once per idempotency key, inside the transaction in `call.db`. An answer that holds a secret is not kept: a
   * repeat is answered without it.
   */
  writes?: boolean | 'secret'
  /** Changes that outlive the call are made in `call.db`; what it returns is the answer. */
  handle: (call: Call<never>, raw: { req: express.Request; res: Response }) => Promise<unknown>
}

/** A route with its body's type kept. */
export function route<S extends z.ZodType>(
  spec: Omit<Route, 'handle' | 'body'> & {
    body?: S
    handle: (call: Call<z.infer<S>>, raw: { req: express.Request; res: Response }) => Promise<unknown>
  },
): Route {
  return spec as unknown as Route
}

export function routerOf(db: Db, routes: readonly Route[]): Router {
  const router = express.Router()
  for (const r of routes) {
    const before = [...(r.limit ? [r.limit] : []), requireCsrf]
    router[r.method](r.path, ...before, async (req, res) => {
      const { person, garden } = await admit(db, r.access, req)
      for (const [name, value] of Object.entries(req.params))
        if (name.endsWith('Id') && !z.uuid().safeParse(value).success)
          throw notFound('What this address names')
      const body = r.body ? parse(r.body, req.body) : undefined
      const call = { body, params: req.params as Record<string, string>, query: req.query, person, garden }
      const answer = r.writes
        ? await once(
            db,
            { key: keyOf(req), personId: person!.id, request: [r.path, req.params, req.body] },
            async (trx) => {
              // Plans and promised ground are read before they are changed: one change of a garden at a time.
              if (garden) await lockGarden(trx, garden.id)
              return r.handle({ ...call, db: trx } as unknown as Call<never>, { req, res })
            },
            { keepAnswer: r.writes !== 'secret' },
          )
        : await r.handle({ ...call, db } as unknown as Call<never>, { req, res })
      if (!res.headersSent) res.json(answer ?? { ok: true })
    })
  }
  return router
}

async function admit(
  db: Db,
  access: Access,
  req: express.Request,
): Promise<{ person?: Person; garden?: GardenAccess }> {
  if (access === 'anyone') return {}
  const person = req.session.personId ? await findPerson(db, req.session.personId) : undefined
  if (!person) throw new Refusal(401, 'Sign in first.')
  if (access === 'signed in') return { person }
  if (access === 'leads practice') {
    if (!person.leads) throw new Refusal(403, 'Only someone who leads the practice may do this.')
    return { person }
  }
  const gardenId = z.uuid().safeParse(req.params.gardenId)
  const garden = gardenId.success ? await findGardenFor(db, person.id, gardenId.data) : undefined
  // A garden one does not belong to is as good as none: no hint that it is there.
  if (!garden) throw notFound('This garden')
  if (roles.indexOf(garden.role) > roles.indexOf(access.garden))
    throw new Refusal(
      403,
      `Only a ${access.garden === 'head' ? 'head gardener' : 'crew member'} of this garden may do this.`,
    )
  return { person, garden }
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
