import { existsSync, readFileSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'
import pino from 'pino'
import { composeApp } from './app.ts'
import { migrate } from './database/connect.ts'
import { AGAIN_S, awayRefusal } from './errors.ts'
import { addressOf, listeningOf, type Listening } from './listening.ts'
import { openQueue } from './queue.ts'

/**
 * The server process. It keeps no state of its own: any number run beside each other over one database.
 *
 * Environment: DATABASE_URL; SESSION_SECRET_FILE, a file with the secret that signs cookies; PORT; HOST (loopback
 * unless told otherwise); WEB_ROOT; SECURE_COOKIES=1 behind HTTPS; TRUSTED_PROXIES, how many servers stand before this one or
 * their addresses; CHECK_ANSWERS=1 where the product is worked on.
 */
const log = pino({ name: 'border', level: process.env.LOG_LEVEL ?? 'info' }, pino.destination(2))
const { DATABASE_URL, SESSION_SECRET_FILE, WEB_ROOT } = process.env
if (!DATABASE_URL || !SESSION_SECRET_FILE) misused('DATABASE_URL and SESSION_SECRET_FILE must be set')
const listening = whereToListen()

// Wherever it is noticed that the database went away, in a worker of the queue or by a connection that nobody was using: nothing ends
// by that.
for (const unheard of ['unhandledRejection', 'uncaughtException'] as const)
  process.on(unheard, (err) => {
    if (awayRefusal(err)) return log.error({ err }, 'the database is away, and nobody heard of it')
    log.fatal({ err }, unheard)
    process.exit(1)
  })

/** A database that is still starting is waited for. */
async function onceThere<T>(begin: () => Promise<T>): Promise<T> {
  for (;;)
    try {
      return await begin()
    } catch (err) {
      if (!awayRefusal(err)) throw err
      log.warn({ err }, 'the database is away')
      await wait(AGAIN_S * 1000)
    }
}

const queue = await onceThere(() => openQueue(DATABASE_URL, log))
const attempts = Number(process.env.SIGN_IN_ATTEMPTS) || undefined
const running = composeApp({
  enqueue: queue.enqueue,
  databaseUrl: DATABASE_URL,
  sessionSecret: readFileSync(SESSION_SECRET_FILE, 'utf8').trim(),
  secureCookies: process.env.SECURE_COOKIES === '1',
  webRoot: WEB_ROOT && existsSync(WEB_ROOT) ? WEB_ROOT : undefined,
  trustedProxies: proxiesIn(process.env.TRUSTED_PROXIES),
  signInAttempts: attempts === undefined ? undefined : { fromAddress: attempts, atAccount: attempts },
  checksAnswers: process.env.CHECK_ANSWERS === '1',
  log,
})
await onceThere(() => migrate(running.db))
const stopQueue = await onceThere(() => queue.serve(running.db, Date.now))
const server = running.app.listen(listening.port, listening.host, (error) => {
  if (error) {
    log.fatal({ err: error }, `cannot serve on ${listening.host}:${listening.port}`)
    process.exit(1)
  }
  log.info(`serving on ${addressOf(listening)}`)
})
// Longer than browsers and proxies keep a connection that nobody uses: closed from here it may be just then that they ask.
server.keepAliveTimeout = 75_000
server.headersTimeout = 80_000

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    server.close(
      () =>
        void stopQueue()
          .then(running.close)
          .then(() => process.exit(0)),
    )
    server.closeIdleConnections()
    setTimeout(() => process.exit(0), 5000).unref()
  })

function whereToListen(): Listening {
  try {
    return listeningOf(process.env, 5180)
  } catch (error) {
    return misused((error as Error).message)
  }
}

/** How many there are, or their addresses and nets with commas between. */
function proxiesIn(said: string | undefined): number | string | undefined {
  return said && /^\d+$/.test(said) ? Number(said) : said || undefined
}

function misused(what: string): never {
  log.fatal(what)
  process.exit(2)
}
