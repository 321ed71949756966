import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { inState, projectRoot } from './paths.ts'
import { say } from './say.ts'

export const webRoot = join(projectRoot, 'web', 'dist')
export const serverFile = join(projectRoot, 'server', 'dist', 'main.js')
export const weatherServiceFile = join(projectRoot, 'server', 'dist', 'weatherService.js')
const stamp = inState('build.stamp')

/** Whether what is built was made from the sources as they are, of which this is the hash. */
export const isBuilt = (sources = sourceHash()): boolean =>
  existsSync(serverFile) &&
  existsSync(join(webRoot, 'index.html')) &&
  existsSync(stamp) &&
  readFileSync(stamp, 'utf8') === sources

/** Builds the server and the web application when anything they are made from has changed. */
export function ensureBuilt(): void {
  const want = sourceHash()
  if (isBuilt(want)) return
  say('building (once after a change, about half a minute)')
  for (const workspace of ['server', 'web']) {
    const built = spawnSync('npm', ['run', 'build', '-w', workspace], { cwd: projectRoot, encoding: 'utf8' })
    if (built.status !== 0)
      throw new Error(`The ${workspace} could not be built:\n${built.stdout}\n${built.stderr}`)
  }
  writeFileSync(stamp, want)
}

function sourceHash(): string {
  const hash = createHash('sha256').update(readFileSync(join(projectRoot, 'package-lock.json')))
  for (const workspace of ['core', 'contract', 'server', 'web']) addFolder(hash, join(projectRoot, workspace))
  return hash.digest('hex')
}

function addFolder(hash: ReturnType<typeof createHash>, folder: string): void {
  for (const name of readdirSync(folder).sort()) {
    if (name === 'node_modules' || name === 'dist') continue
    const path = join(folder, name)
    if (statSync(path).isDirectory()) addFolder(hash, path)
    else hash.update(path).update(readFileSync(path))
  }
}
