import { isBuilt, serverFile } from './build.ts'
import { databaseUrl, restartCommand } from './cluster.ts'
import { scratchDatabase } from './databases.ts'
import { prepare } from './prepare.ts'

/**
 * Integration tests are told, in BORDER_ADMIN_URL, where they may make databases of their own, and in BORDER_TEST_TEMPLATE of
 * which: copying what is migrated takes a tenth of the time of migrating. BORDER_SERVER names the server as it was built, where that
 * is of the sources as they are: it begins in a third of the time that reading module by module takes. BORDER_RESTART_DATABASES
 * restarts PostgreSQL itself: for who is alone with it. BORDER_DEMO_TEMPLATE, where the check has made one, is the demo loaded.
 */
export default async function setup(): Promise<() => Promise<void>> {
  const template = await scratchDatabase()
  await prepare(template.url, false)
  process.env.BORDER_ADMIN_URL = await databaseUrl('postgres')
  if (!process.env.DATABASE_URL) process.env.BORDER_RESTART_DATABASES = JSON.stringify(restartCommand())
  if (isBuilt()) process.env.BORDER_SERVER = serverFile
  process.env.BORDER_TEST_TEMPLATE = template.name
  return template.drop
}
