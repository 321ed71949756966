import { type SessionInfo, sessionEndpoints } from '@border/contract'
import { hash, verify } from '@node-rs/argon2'
import type { Request, RequestHandler } from 'express'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { newCsrfToken } from '../session.ts'
import {
  anyAccount,
  findPerson,
  findSignIn,
  insertPerson,
  insertPractice,
  isDemoPerson,
  listDemoPeople,
  setClock,
} from '../store/people.ts'

/** As passwords are kept: Argon2id, with a salt of its own. */
export const hashPassword = (password: string): Promise<string> => hash(password)

/** Verified against when nobody has the address, so that both answers take as long. */
const nobodysHash = hashPassword('nobody has this password')

/** @param now the real instant, milliseconds since 1970 */
export function sessionRoutes(limit: RequestHandler, now: () => number): Route[] {
  const sessionInfo = (db: Db, req: Request) => infoOf(db, req, now())
  /** A new session for the person, so that a cookie from before signing in is worth nothing after it. */
  const signedIn = async (db: Db, req: Request, personId: string): Promise<SessionInfo> => {
    await new Promise<void>((resolve, reject) => req.session.regenerate((e) => (e ? reject(e) : resolve())))
    req.session.personId = personId
    req.session.csrfToken = newCsrfToken()
    return sessionInfo(db, req)
  }

  return [
    route(sessionEndpoints.read, {
      handle: async ({ db }, { req }) => {
        req.session.csrfToken ??= newCsrfToken()
        return sessionInfo(db, req)
      },
    }),
    route(sessionEndpoints.signIn, {
      limit,
      handle: async ({ db, body }, { req }) => {
        const found = await findSignIn(db, body.email)
        const matches = await verify(found?.passwordHash ?? (await nobodysHash), body.password)
        if (!found?.passwordHash || !matches) throw new Refusal(401, 'Address and password do not match.')
        return signedIn(db, req, found.id)
      },
    }),
    route(sessionEndpoints.enterDemo, {
      limit,
      handle: async ({ db, body }, { req }) => {
        if (!(await isDemoPerson(db, body.personId)))
          throw new Refusal(401, 'This is not one of the demo’s people.')
        return signedIn(db, req, body.personId)
      },
    }),
    route(sessionEndpoints.firstAccount, {
      limit,
      handle: async ({ db, body }, { req }) => {
        const passwordHash = await hashPassword(body.password)
        const id = await db.transaction(async (trx) => {
          // Two first accounts at the same moment: the second waits here and then finds the first.
          await trx.raw('lock table practices in share row exclusive mode')
          if (await anyAccount(trx))
            throw new Refusal(409, 'The first account has already been made. Sign in instead.')
          const practiceId = await insertPractice(trx, body.practiceName)
          return insertPerson(trx, {
            practiceId,
            name: body.name,
            email: body.email,
            passwordHash,
            leads: true,
          })
        })
        return signedIn(db, req, id)
      },
    }),
    route(sessionEndpoints.signOut, {
      handle: async (_call, { req }) => {
        await new Promise<void>((resolve, reject) => req.session.destroy((e) => (e ? reject(e) : resolve())))
      },
    }),
    route(sessionEndpoints.setClock, {
      handle: async ({ db, body, person }, { req }) => {
        await setClock(db, person.practiceId, body.useRealToday)
        return sessionInfo(db, req)
      },
    }),
  ]
}

async function infoOf(db: Db, req: Request, nowMs: number): Promise<SessionInfo> {
  const person = req.session.personId ? await findPerson(db, req.session.personId) : undefined
  return {
    csrfToken: req.session.csrfToken!,
    needsFirstAccount: !person && !(await anyAccount(db)),
    demoPeople: person ? [] : await listDemoPeople(db),
    person: person
      ? { id: person.id, name: person.name, practiceName: person.practiceName, leads: person.leads }
      : null,
    now: new Date(nowMs).toISOString(),
    demoDate: person?.demoDate ?? null,
    usesRealToday: person?.usesRealToday ?? false,
  }
}
