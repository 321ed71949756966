import { randomBytes } from 'node:crypto'
import pg from 'pg'
import { databaseUrl } from './cluster.ts'

export const DEMO_DATABASE = 'border_demo'
export const PRACTICE_DATABASE = 'border_practice'

async function asAdmin<T>(
  work: (run: (sql: string) => Promise<{ rows: Record<string, unknown>[] }>) => Promise<T>,
): Promise<T> {
  const admin = new pg.Client({ connectionString: await databaseUrl('postgres') })
  await admin.connect()
  try {
    return await work((sql) => admin.query(sql))
  } finally {
    await admin.end()
  }
}

const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`

/**
 * Makes a database unless it is there, and returns its connection string.
 *
 * @param copyOf a database that nobody is using, which a new one begins as a copy of
 */
export async function ensureDatabase(name: string, copyOf = 'template1'): Promise<string> {
  await asAdmin(async (run) => {
    const { rows } = await run(`select 1 from pg_database where datname = '${name.replaceAll("'", "''")}'`)
    if (rows.length === 0) await run(`create database ${quoted(name)} template ${quoted(copyOf)}`)
  })
  return databaseUrl(name)
}

export async function dropDatabase(name: string): Promise<void> {
  await asAdmin((run) => run(`drop database if exists ${quoted(name)} with (force)`))
}

/** The name of a scratch database that was kept. */
export const keptName = (name: string) => `border_scratch_${name}`

/**
 * A database of its own for one test file or one scratch server.
 *
 * @param kept a name to find it again by
 * @param copyOf the name of the database that a new one begins as a copy of, which nobody may be using
 */
export async function scratchDatabase({
  kept,
  copyOf,
}: { kept?: string | undefined; copyOf?: string | undefined } = {}): Promise<{
  name: string
  url: string
  drop: () => Promise<void>
}> {
  const name = keptName(kept ?? randomBytes(6).toString('hex'))
  const url = await ensureDatabase(name, copyOf)
  return { name, url, drop: () => dropDatabase(name) }
}
