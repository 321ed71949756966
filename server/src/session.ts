import connectPgSimple from 'connect-pg-simple'
import { rateLimit, type Store } from 'express-rate-limit'
import session from 'express-session'
import type { RequestHandler } from 'express'
import { randomBytes, timingSafeEqual } from 'node:crypto'
import pg from 'pg'
import type { Logger } from 'pino'
import type { Db } from './database/connect.ts'
import { Refusal } from './errors.ts'

declare module 'express-session' {
  interface SessionData {
    personId?: string
    csrfToken?: string
  }
}

const SESSION_DAYS = 30
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
  const handler = session({
    name: SESSION_COOKIE,
    secret,
    store,
    resave: false,
    saveUninitialized: false,
    rolling: false,
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

/** Every write carries the session's token in a header, which another site cannot read or set. */
export const requireCsrf: RequestHandler = (req, _res, next) => {
  if (req.method === 'GET' || req.method === 'HEAD') return next()
  const expected = Buffer.from(req.session.csrfToken ?? '')
  const given = Buffer.from(req.get('x-csrf-token') ?? '')
  if (expected.length === 0 || expected.length !== given.length || !timingSafeEqual(expected, given))
    throw new Refusal(403, 'This page has been open too long. Reload it and try again; nothing was saved.')
  next()
}

export const newCsrfToken = () => randomBytes(24).toString('base64url')

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

/** Sign-in attempts from one address. */
export function signInLimit(db: Db, most: number): RequestHandler {
  return rateLimit({
    windowMs: 15 * 60_000,
    limit: most,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: new DatabaseRateStore(db),
    skipSuccessfulRequests: true,
    handler: (_req, _res, next) =>
      next(new Refusal(429, 'Too many attempts. Wait a quarter of an hour and try again.')),
  })
}
