import { connect } from '@border/server'
import { randomBytes } from 'node:crypto'
import { databaseUrl } from './cluster.ts'

export const DEMO_DATABASE = 'border_demo'
export const PRACTICE_DATABASE = 'border_practice'

async function asAdmin<T>(
  work: (run: (sql: string) => Promise<{ rows: Record<string, unknown>[] }>) => Promise<T>,
): Promise<T> {
  const db = connect(await databaseUrl('postgres'), 1)
  try {
    return await work((sql) => db.raw(sql))
  } finally {
    await db.destroy()
  }
}

const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`

/** Makes a database unless it is there, and returns its connection string. */
export async function ensureDatabase(name: string): Promise<string> {
  await asAdmin(async (run) => {
    const { rows } = await run(`select 1 from pg_database where datname = '${name.replaceAll("'", "''")}'`)
    if (rows.length === 0) await run(`create database ${quoted(name)}`)
  })
  return databaseUrl(name)
}

export async function dropDatabase(name: string): Promise<void> {
  await asAdmin((run) => run(`drop database if exists ${quoted(name)} with (force)`))
}

/**
 * A database of its own for one test file or one scratch server.
 *
 * @param kept a name to find it again by, when whoever used it was killed before it could drop it
 */
export async function scratchDatabase(kept?: string): Promise<{ url: string; drop: () => Promise<void> }> {
  const name = `border_scratch_${kept ?? randomBytes(6).toString('hex')}`
  return { url: await ensureDatabase(name), drop: () => dropDatabase(name) }
}
