import connectPgSimple from 'connect-pg-simple'
import { parse } from 'cookie'
import { ipKeyGenerator, rateLimit, type Options, type Store } from 'express-rate-limit'
import session from 'express-session'
import type { Request, RequestHandler, Response } from 'express'
import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto'
import pg from 'pg'
import type { Logger } from 'pino'
import type { Db } from './database/connect.ts'
import { Refusal } from './errors.ts'

declare module 'express-session' {
  interface SessionData {
    personId?: string
  }
}

const SESSION_DAYS = 30
/** A session that is used lasts longer, by whole days: nobody waits for a disk each time that it is. */
const LONGER_BY_DAYS = 1
export const SESSION_COOKIE = 'border.sid'

/** Sessions live in PostgreSQL; the cookie carries their name only. */
export function sessions(
  databaseUrl: string,
  secret: string,
  secure: boolean,
  log?: Logger,
): { handler: RequestHandler; close: () => Promise<void> } {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 4 })
  // A connection that is lost while nobody uses it is made anew when somebody does.
  pool.on('error', (err) => log?.warn({ err }, 'a connection of the sessions'))
  const Store = connectPgSimple(session)
  const store = new Store({
    pool,
    tableName: 'session',
    pruneSessionInterval: 3600,
    errorLog: (...said: unknown[]) => log?.warn({ said }, 'the sessions'),
  })
  store.touch = (sid, _session, done) => {
    pool
      .query(
        `update session set expire = now() + $2 * interval '1 day'
         where sid = $1 and expire < now() + ($2 - $3::int) * interval '1 day'`,
        [sid, SESSION_DAYS, LONGER_BY_DAYS],
      )
      .catch((err: unknown) => log?.warn({ err }, 'a session that was not prolonged'))
      .then(() => done?.())
  }
  const handler = session({
    name: SESSION_COOKIE,
    secret,
    store,
    resave: false,
    saveUninitialized: false,
    rolling: false,
    // What stands before the server ends HTTPS; where it does not say so, no cookie would ever be sent.
    ...(secure && { proxy: true }),
    cookie: { httpOnly: true, sameSite: 'strict', secure, maxAge: SESSION_DAYS * 86_400_000 },
  })
  return {
    handler,
    close: async () => {
      store.close()
      await pool.end()
    },
  }
}

/** Who has not signed in has no session: this random name alone, of which nothing is kept. */
const VISIT_COOKIE = 'border.visit'

/** Every write carries a token in a header, which another site cannot read or set. */
export interface Tokens {
  /** The token of whoever asks; a visit begins with it. */
  of: (req: Request, res: Response) => string
  /** Refuses a write without it. */
  require: RequestHandler
}

/** Tokens are the secret's seal on the session, or on the visit of who has none. */
export function tokens(secret: string, secure: boolean): Tokens {
  const seal = (of: string) => createHmac('sha256', secret).update(`token ${of}`).digest('base64url')
  const known = (req: Request) =>
    req.session.personId
      ? `session ${req.sessionID}`
      : sealedVisit(parse(req.headers.cookie ?? '')[VISIT_COOKIE])
  return {
    of: (req, res) => {
      const on = known(req)
      if (on) return seal(on)
      const visit = randomBytes(24).toString('base64url')
      res.cookie(VISIT_COOKIE, visit, { httpOnly: true, sameSite: 'strict', secure })
      return seal(sealedVisit(visit)!)
    },
    require: (req, _res, next) => {
      if (req.method === 'GET' || req.method === 'HEAD') return next()
      const on = known(req)
      const expected = Buffer.from(on ? seal(on) : '')
      const given = Buffer.from(req.get('x-csrf-token') ?? '')
      if (expected.length === 0 || expected.length !== given.length || !timingSafeEqual(expected, given))
        throw new Refusal(
          403,
          'This page has been open too long. Reload it and try again; nothing was saved.',
        )
      next()
    },
  }
}

const sealedVisit = (visit: string | undefined) => visit && `visit ${visit}`

/** Counts attempts in the database, so that every process sees them. */
class DatabaseRateStore implements Store {
  windowMs = 60_000
  constructor(private readonly db: Db) {}
  init(options: { windowMs: number }) {
    this.windowMs = options.windowMs
  }
  async increment(key: string) {
    await this.db('rate_counts').where('resets_at', '<', this.db.fn.now()).delete()
    const { rows } = await this.db.raw(
      `insert into rate_counts (key, hits, resets_at) values (:key, 1, now() + :ms * interval '1 millisecond')
       on conflict (key) do update set
         hits = case when rate_counts.resets_at < now() then 1 else rate_counts.hits + 1 end,
         resets_at = case when rate_counts.resets_at < now() then excluded.resets_at else rate_counts.resets_at end
       returning hits, extract(epoch from resets_at - now())::float8 * 1000 as "leftMs"`,
      { key, ms: this.windowMs },
    )
    // Counted by the database's clock; told by this machine's, which may be another.
    const { hits, leftMs } = rows[0] as { hits: number; leftMs: number }
    return { totalHits: hits, resetTime: new Date(Date.now() + leftMs) }
  }
  async decrement(key: string) {
    await this.db('rate_counts').where({ key }).decrement('hits', 1)
  }
  async resetKey(key: string) {
    await this.db('rate_counts').where({ key }).delete()
  }
}

/** Failed attempts to sign in that are allowed in a quarter of an hour. */
export interface AttemptsAllowed {
  /** From one address of the network. */
  fromAddress: number
  /** At one account, from wherever. */
  atAccount: number
}
export const usualAttempts: AttemptsAllowed = { fromAddress: 60, atAccount: 12 }

/** Shuts out who guesses, by where they are and by whom they claim to be; counted once the token is known to be right. */
export function signInLimits(db: Db, allowed: AttemptsAllowed): RequestHandler[] {
  const limit = (most: number, of: Partial<Options>) =>
    rateLimit({
      windowMs: 15 * 60_000,
      limit: most,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      store: new DatabaseRateStore(db),
      skipSuccessfulRequests: true,
      // Passed over on purpose, unless a server before this one is trusted.
      validate: { xForwardedForHeader: false },
      handler: (_req, _res, next) =>
        next(new Refusal(429, 'Too many attempts. Wait a quarter of an hour and try again.')),
      ...of,
    })
  return [
    limit(allowed.fromAddress, { identifier: 'address' }),
    limit(allowed.atAccount, {
      identifier: 'account',
      keyGenerator: (req) => `account ${claimedAccount(req)}`,
      skip: (req) => claimedAccount(req) === undefined,
    }),
  ]
}

/** Looks at shared schemes that one address of the network may take in a quarter of an hour: many times over what one client asks. */
const LOOKS_ALLOWED = 300

/** Keeps one address from having pictures drawn without end. */
export const lookLimit = (db: Db): RequestHandler =>
  rateLimit({
    windowMs: 15 * 60_000,
    limit: LOOKS_ALLOWED,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: new DatabaseRateStore(db),
    keyGenerator: (req) => `look ${ipKeyGenerator(req.ip ?? '')}`,
    validate: { xForwardedForHeader: false },
    handler: (_req, _res, next) =>
      next(new Refusal(429, 'That is more than can be drawn for you now. Wait a quarter of an hour.')),
  })

/** Whom a request claims to be; hashed, for what is counted need not tell. */
function claimedAccount(req: Request): string | undefined {
  const { email } = (req.body ?? {}) as { email?: unknown }
  return typeof email === 'string'
    ? createHash('sha256').update(email.trim().toLowerCase()).digest('base64url')
    : undefined
}
