import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'

/** Of Vite's manifest, what a file needs before it runs. */
interface Chunk {
  file: string
  imports?: string[]
  /** Fetched only when they are asked for, such as screens. */
  dynamicImports?: string[]
  css?: string[]
}
export type Manifest = Record<string, Chunk>

/**
 * What a browser fetches before it can show a screen at its address: the page's own scripts and styles, the screen's, and all that
 * those import.
 *
 * @param needs sources of the screen as the manifest names them, the page's first
 * @returns file names below the built site, each once
 * @throws Error if the manifest has none of that name
 */
export function firstFiles(manifest: Manifest, needs: readonly string[]): string[] {
  const files = new Set<string>()
  const seen = new Set<string>()
  const take = (name: string) => {
    if (seen.has(name)) return
    seen.add(name)
    const chunk = manifest[name]
    if (!chunk) throw new Error(`The build has no ${name}`)
    files.add(chunk.file)
    chunk.css?.forEach((css) => files.add(css))
    chunk.imports?.forEach(take)
  }
  needs.forEach(take)
  return [...files]
}

/** @returns bytes of the files as they travel, compressed with gzip */
export const travelling = (site: string, files: readonly string[]): number =>
  files.reduce((sum, file) => sum + gzipSync(readFileSync(join(site, file))).length, 0)

export const manifestOf = (site: string): Manifest =>
  JSON.parse(readFileSync(join(site, '.vite', 'manifest.json'), 'utf8')) as Manifest
