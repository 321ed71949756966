import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'

/** The sources of the browser’s application, and what they bring along. */
const root = join(import.meta.dirname, '..')
export const sources = readdirSync(root, { recursive: true, encoding: 'utf8' }).map((f) => join(root, f))
export const textOf = (file: string): string => readFileSync(file, 'utf8')
export const shownAs = (file: string): string => relative(root, file)

const brought = new Map<string, Set<string>>()

/** The files that come with a file: what it imports, and what that does; packages by name. Types bring nothing. */
export function bringsAlong(file: string): ReadonlySet<string> {
  const known = brought.get(file)
  if (known) return known
  const all = new Set<string>([file])
  brought.set(file, all)
  const imports = /^(?:import|export) (?!type )[^'"]*?from '([^']+)'|^import '([^']+)'/gm
  for (const [, from, alone] of textOf(file).matchAll(imports)) {
    const name = (from ?? alone)!
    if (!name.startsWith('.')) {
      all.add(name)
      continue
    }
    const to = join(dirname(file), name)
    all.add(to)
    if (/\.tsx?$/.test(to)) bringsAlong(to).forEach((f) => all.add(f))
  }
  return all
}
