import compression from 'compression'
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express'
import helmet from 'helmet'
import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Logger } from 'pino'
import { readBody, requestRefusal } from './body.ts'
import { connect, type Db } from './database/connect.ts'
import { rememberArrival } from './deviceClock.ts'
import { awayRefusal, constraintRefusal, Refusal, unkeptRefusal } from './errors.ts'
import { benchRoutes } from './routes/bench.ts'
import { climateRoutes } from './routes/climate.ts'
import { containerRoutes } from './routes/containers.ts'
import { crewRoutes } from './routes/crew.ts'
import { decisionRoutes } from './routes/decisions.ts'
import { gardenRoutes } from './routes/gardens.ts'
import { lightRoutes } from './routes/light.ts'
import { pictureRoutes } from './routes/pictures.ts'
import { planRoutes } from './routes/plan.ts'
import { plantingRoutes } from './routes/plantings.ts'
import { recordRoutes } from './routes/record.ts'
import { rulesRoutes } from './routes/rules.ts'
import { priceRoutes } from './routes/prices.ts'
import { paperRoutes } from './routes/paper.ts'
import { reworkRoutes } from './routes/reworks.ts'
import { seasonRoutes } from './routes/season.ts'
import { sessionRoutes } from './routes/session.ts'
import { walkRoutes } from './routes/walk.ts'
import { taxaRoutes } from './routes/taxa.ts'
import { wateringRoutes } from './routes/watering.ts'
import { routerOf, type Route } from './routing.ts'
import { sessions, lookLimit, signInLimits, tokens, usualAttempts, type AttemptsAllowed } from './session.ts'
import type { Enqueue } from './follow.ts'
import { ComputePool, computeThreads, type ComputeThreads } from './work/compute.ts'
import { tellWeatherFaults } from './store/weatherService.ts'
import { simulatedLogger } from './work/loggerService.ts'
import type { Workshop } from './work/runs.ts'

export interface AppOptions {
  databaseUrl: string
  sessionSecret: string
  /** True behind HTTPS: the cookie then never travels in the clear. */
  secureCookies: boolean
  /** Folder of the built web application; without it only the API is served. */
  webRoot?: string
  signInAttempts?: AttemptsAllowed
  /** Whose word is taken on where a request comes from: how many servers stand before this one, or their addresses. */
  trustedProxies?: number | string
  /** Every answer is held against the contract before it is sent. */
  checksAnswers?: boolean
  log?: Logger
  /** The real instant, milliseconds since 1970; the machine's clock unless given. */
  now?: () => number
  /** Where work is queued that another process takes should this one be lost; without it this process alone does it. */
  enqueue?: Enqueue
  /** Threads that others use as well, and end; its own unless given. */
  threads?: ComputeThreads
}

export interface RunningApp {
  app: Express
  /** What long work is done with. */
  shop: Workshop
  db: Db
  pool: ComputePool
  routes: readonly Route[]
  close: () => Promise<void>
}

/** Puts the server together: everything chosen is chosen here. */
export function composeApp(options: AppOptions): RunningApp {
  const db = connect(options.databaseUrl)
  const threads = options.threads ?? computeThreads()
  const pool = new ComputePool(threads)
  const session = sessions(options.databaseUrl, options.sessionSecret, options.secureCookies, options.log)
  const token = tokens(options.sessionSecret, options.secureCookies)
  const { now = Date.now, enqueue = async () => {}, log } = options
  tellWeatherFaults((err) => log?.warn({ err }, 'the weather service'))
  const shop: Workshop = { db, pool, now, log }
  const routes = [
    ...sessionRoutes(signInLimits(db, options.signInAttempts ?? usualAttempts), token, now),
    ...gardenRoutes(pool),
    ...planRoutes(),
    ...taxaRoutes(pool),
    ...plantingRoutes(),
    ...decisionRoutes(pool),
    ...seasonRoutes(shop, pool, enqueue),
    ...rulesRoutes(),
    ...crewRoutes(),
    ...climateRoutes(pool),
    ...wateringRoutes(),
    ...benchRoutes(),
    ...containerRoutes(pool),
    ...lightRoutes(pool, simulatedLogger),
    ...pictureRoutes(pool),
    ...reworkRoutes(pool),
    ...paperRoutes(pool, now, lookLimit(db)),
    ...priceRoutes(),
    ...walkRoutes(pool),
    ...recordRoutes(pool),
  ]

  const app = express()
  app.disable('x-powered-by')
  app.set('trust proxy', options.trustedProxies ?? false)
  app.use(contentPolicy(options.secureCookies))
  // What holds a secret is not compressed: its length would tell of it.
  app.use(
    compression({
      filter: (req, res) => !req.path.startsWith('/api/session') && compression.filter(req, res),
    }),
  )
  app.get('/api/health', async (_req, res) => {
    await db.raw('select 1')
    res.json({ ok: true })
  })
  app.use(
    '/api',
    noStore,
    rememberArrival(now),
    session.handler,
    readBody(BODY_MB),
    routerOf(
      { ...shop, enqueue, requireToken: token.require, checksAnswers: options.checksAnswers ?? false },
      routes,
    ),
    unknownAddress,
  )
  if (options.webRoot) serveWeb(app, options.webRoot)
  app.use(answerErrors(options.log))
  return {
    app,
    shop,
    db,
    pool,
    routes,
    close: async () => {
      await session.close()
      pool.close()
      if (threads !== options.threads) await threads.destroy()
      await db.destroy()
    },
  }
}

/** Only the application's own files, and styles carrying the page's nonce. */
function contentPolicy(secure: boolean): RequestHandler {
  const nonceOf = (res: unknown) => (res as { locals: { nonce: string } }).locals.nonce
  const protect = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", (_req, res) => `'nonce-${nonceOf(res)}'`],
        styleSrc: ["'self'", (_req, res) => `'nonce-${nonceOf(res)}'`],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: secure,
  })
  return (req, res, next) => {
    res.locals.nonce = randomBytes(16).toString('base64')
    protect(req, res, next)
  }
}

const noStore: RequestHandler = (_req, res, next) => {
  res.set('cache-control', 'no-store')
  next()
}

const unknownAddress: RequestHandler = () => {
  throw new Refusal(404, 'There is nothing at this address.')
}

/** Most JSON that is taken at once: all files of a garden. */
const BODY_MB = 13
const NONCE_PLACE = /__CSP_NONCE__/g

function serveWeb(app: Express, webRoot: string): void {
  const page = readFileSync(join(webRoot, 'index.html'), 'utf8')
  app.use(
    '/assets',
    express.static(join(webRoot, 'assets'), { immutable: true, maxAge: '1y', index: false }),
    unknownAddress,
  )
  app.use(express.static(webRoot, { index: false }))
  app.get('/{*path}', (_req, res) => {
    res
      .type('html')
      .set('cache-control', 'no-store')
      .send(page.replace(NONCE_PLACE, res.locals.nonce as string))
  })
}

function answerErrors(log: Logger | undefined): ErrorRequestHandler {
  return (error, req, res, next) => {
    if (res.headersSent) return next(error)
    // Nobody is there to be answered.
    if (res.destroyed || res.closed) return
    const refusal =
      error instanceof Refusal
        ? error
        : (constraintRefusal(error) ??
          awayRefusal(error) ??
          unkeptRefusal(error) ??
          requestRefusal(error, BODY_MB))
    if (refusal) {
      // A rule should have refused it, and named what is wrong.
      if (unkeptRefusal(error)) log?.error({ err: error, path: req.path }, 'refused by the database alone')
      if (awayRefusal(error)) log?.warn({ err: error, path: req.path }, 'the database is away')
      if (refusal.againS !== undefined) res.set('retry-after', String(refusal.againS))
      const { message, problems, meanwhile } = refusal
      res.status(refusal.status).json({ error: message, problems, meanwhile })
      return
    }
    log?.error({ err: error, path: req.path }, 'request failed')
    res
      .status(500)
      .json({ error: 'Something went wrong on our side. Nothing was saved; try again in a moment.' })
  }
}
