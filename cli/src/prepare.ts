import { loadDemo } from '@border/demo'
import { connect, migrate } from '@border/server'
import { say } from './say.ts'

/**
 * Makes a database ready to be served.
 *
 * @returns the names of the demo’s people, where it is one
 */
export async function prepare(url: string, withDemo: boolean): Promise<string[]> {
  const db = connect(url, 4)
  try {
    await migrate(db)
    return withDemo ? await loadDemo(db, say) : []
  } finally {
    await db.destroy()
  }
}
