import { databaseUrl } from './cluster.ts'

/** Integration tests are told, in BORDER_ADMIN_URL, where they may make databases of their own. */
export default async function setup(): Promise<void> {
  process.env.BORDER_ADMIN_URL = await databaseUrl('postgres')
}
