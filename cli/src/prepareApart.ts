import { execFile } from 'node:child_process'
import { join } from 'node:path'
import { promisify } from 'node:util'

/** Makes a database ready to be served in a process of its own: for who would have to read all of the server’s code for it. */
export const prepareApart = (url: string, withDemo: boolean) =>
  promisify(execFile)(
    process.execPath,
    ['--import', 'tsx', join(import.meta.dirname, 'prepareDatabase.ts'), ...(withDemo ? ['--demo'] : [])],
    { env: { ...process.env, DATABASE_URL: url } },
  )
