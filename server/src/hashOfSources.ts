import { createHash, type Hash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'

/**
 * A short hash of the sources that results are worked out with.
 *
 * @param root the folder that `core` and `server` lie in
 */
export function hashOfSources(root: URL): string {
  const hash = createHash('sha256')
  for (const folder of ['core/src/', 'server/src/']) addFolder(hash, new URL(folder, root))
  return hash.digest('hex').slice(0, 16)
}

function addFolder(hash: Hash, folder: URL): void {
  for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) =>
    a.name < b.name ? -1 : 1,
  )) {
    if (entry.isDirectory()) addFolder(hash, new URL(`${entry.name}/`, folder))
    else if (/\.ts$/.test(entry.name) && !/\.test\.ts$/.test(entry.name))
      hash.update(entry.name).update(readFileSync(new URL(entry.name, folder)))
  }
}
