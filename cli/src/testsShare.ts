import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** What is made or fetched, not written. */
const notWritten = ['node_modules', 'dist', 'test-results', 'playwright-report']

/** Whether a file of a project serves its tests alone: a test, what tests share, a flow in the browser. */
export const isTest = (path: string): boolean =>
  /\.test\.tsx?$/.test(path) || /(^|\/)test\//.test(path) || path.startsWith('e2e/')

/**
 * The share of the lines of TypeScript under a folder that are tests, 0 to 1.
 *
 * @throws {RangeError} where there is no TypeScript
 */
export function testsShare(root: string): number {
  let tests = 0
  let all = 0
  for (const path of typeScriptIn(root, '')) {
    const lines = readFileSync(join(root, path), 'utf8').split('\n').length - 1
    all += lines
    if (isTest(path)) tests += lines
  }
  if (all === 0) throw new RangeError(`${root}: no TypeScript`)
  return tests / all
}

function* typeScriptIn(root: string, folder: string): Generator<string> {
  for (const entry of readdirSync(join(root, folder), { withFileTypes: true })) {
    if (entry.name.startsWith('.') || notWritten.includes(entry.name)) continue
    const path = folder ? `${folder}/${entry.name}` : entry.name
    if (entry.isDirectory()) yield* typeScriptIn(root, path)
    else if (/\.m?tsx?$/.test(entry.name)) yield path
  }
}
