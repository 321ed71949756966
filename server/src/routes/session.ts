import { type SessionInfo, sessionEndpoints } from '@border/contract'
import { hash, verify } from '@node-rs/argon2'
import type { Request, RequestHandler } from 'express'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { route, type Raw, type Route } from '../routing.ts'
import type { Tokens } from '../session.ts'
import {
  anyAccount,
  findPerson,
  findAccounts,
  insertPerson,
  insertPractice,
  isDemoPerson,
  listDemoPeople,
  setClock,
  setPreferences,
} from '../store/people.ts'

/** As passwords are kept: Argon2id, with a salt of its own. */
export const hashPassword = (password: string): Promise<string> => hash(password)

/** Verified against when nobody has the address, so that both answers take as long. */
const nobodysHash = hashPassword('nobody has this password')

/**
 * @param limits who guesses is shut out by them
 * @param now the real instant, milliseconds since 1970
 */
export function sessionRoutes(limits: RequestHandler[], tokens: Tokens, now: () => number): Route[] {
  const sessionInfo = (db: Db, { req, res }: Raw) =>
    infoOf(db, req, { csrfToken: tokens.of(req, res), nowMs: now() })
  /** A new session for the person, so that a cookie from before signing in is worth nothing after it. */
  const signedIn = async (db: Db, raw: Raw, personId: string): Promise<SessionInfo> => {
    const { req } = raw
    await new Promise<void>((resolve, reject) => req.session.regenerate((e) => (e ? reject(e) : resolve())))
    req.session.personId = personId
    return sessionInfo(db, raw)
  }

  return [
    route(sessionEndpoints.read, {
      handle: ({ db }, raw) => sessionInfo(db, raw),
    }),
    route(sessionEndpoints.signIn, {
      limits,
      handle: async ({ db, body }, raw) => {
        const personId = await accountOf(db, body.email, body.password)
        if (!personId) throw new Refusal(401, 'Address and password do not match.')
        return signedIn(db, raw, personId)
      },
    }),
    route(sessionEndpoints.enterDemo, {
      limits,
      handle: async ({ db, body }, raw) => {
        if (!(await isDemoPerson(db, body.personId)))
          throw new Refusal(401, 'This is not one of the demo’s people.')
        return signedIn(db, raw, body.personId)
      },
    }),
    route(sessionEndpoints.firstAccount, {
      limits,
      handle: async ({ db, body }, raw) => {
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
        return signedIn(db, raw, id)
      },
    }),
    route(sessionEndpoints.signOut, {
      handle: async (_call, { req }) => {
        await new Promise<void>((resolve, reject) => req.session.destroy((e) => (e ? reject(e) : resolve())))
      },
    }),
    route(sessionEndpoints.setClock, {
      handle: async ({ db, body, person }, raw) => {
        await setClock(db, person.practiceId, body.useRealToday)
        return sessionInfo(db, raw)
      },
    }),
    route(sessionEndpoints.prefer, {
      handle: async ({ db, body, person }, raw) => {
        await setPreferences(db, person.id, body)
        return sessionInfo(db, raw)
      },
    }),
  ]
}

/**
 * Whose address and password these are. Practices do not know of each other: who belongs to two has an account in each, told apart
 * by the password. It takes as long where nobody has the address.
 */
async function accountOf(db: Db, email: string, password: string): Promise<string | undefined> {
  const known = await findAccounts(db, email)
  const hashes = known.length > 0 ? known : [{ id: undefined, passwordHash: await nobodysHash }]
  for (const { id, passwordHash } of hashes) if (await verify(passwordHash, password)) return id
  return undefined
}

async function infoOf(
  db: Db,
  req: Request,
  { csrfToken, nowMs }: { csrfToken: string; nowMs: number },
): Promise<SessionInfo> {
  const person = req.session.personId ? await findPerson(db, req.session.personId) : undefined
  return {
    csrfToken,
    needsFirstAccount: !person && !(await anyAccount(db)),
    demoPeople: person ? [] : await listDemoPeople(db),
    person: person
      ? {
          id: person.id,
          name: person.name,
          practiceName: person.practiceName,
          leads: person.leads,
          preferences: person.preferences,
        }
      : null,
    now: new Date(nowMs).toISOString(),
    demoDate: person?.demoDate ?? null,
    usesRealToday: person?.usesRealToday ?? false,
  }
}
