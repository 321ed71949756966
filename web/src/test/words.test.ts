import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseSync } from 'vite'
import { describe, expect, it } from 'vitest'
import { shownAs, sources, textOf } from './imports.ts'

const table = readFileSync(join(import.meta.dirname, '../../../docs/words.md'), 'utf8')
/** What is never said, by the last column of the table of words. */
const never = table
  .split('\n')
  .filter((line) => /^\| [a-z]/.test(line))
  .flatMap((line) => [...line.split('|')[3]!.matchAll(/`([^`]+)`/g)].map((m) => m[1]!))

/** What a source may show: text of elements, and strings and templates that hold a space, for what is one word is a key. */
function said(file: string, source: string): string[] {
  const texts: string[] = []
  const look = (node: unknown): void => {
    if (Array.isArray(node)) return node.forEach(look)
    if (typeof node !== 'object' || node === null) return
    const { type, value } = node as { type?: string; value?: unknown }
    if (type === 'JSXText') texts.push(String(value))
    else if (type === 'Literal' && typeof value === 'string' && value.includes(' ')) texts.push(value)
    else if (type === 'TemplateElement') texts.push((value as { cooked: string }).cooked)
    Object.values(node).forEach(look)
  }
  look(parseSync(file, source).program.body)
  // Names of files are as they are; addresses and classes are not shown.
  return texts
    .map((t) => t.replace(/\w+\.csv/g, ''))
    .filter((t) => !t.endsWith('/') && !/^[a-z]+(-[a-z]+)*( [a-z]+(-[a-z]+)+)+$/.test(t.trim()))
}

const isIn = (text: string, phrase: string): boolean =>
  phrase.length > 0 &&
  (/^\w+$/.test(phrase) ? new RegExp(`\\b${phrase}\\b`) : { test: (t: string) => t.includes(phrase) }).test(
    text,
  )

describe('words', () => {
  it('that are never said are found where they are', () => {
    expect(never.length).toBeGreaterThan(12)
    expect(said('a.tsx', 'const a = <p>No taxon of this name</p>').some((t) => isIn(t, 'taxon'))).toBe(true)
    expect(said('a.ts', "say('Your word is kept.')").some((t) => isIn(t, 'Your word'))).toBe(true)
    expect(said('a.ts', 'const taxon = kinds[0] // the taxon').some((t) => isIn(t, 'taxon'))).toBe(false)
  })

  it('on screens are those of the table of words', () => {
    const found = sources
      .filter((f) => /\.tsx?$/.test(f) && !/\.test\.|\/test\//.test(f))
      .flatMap((f) =>
        said(f, textOf(f)).flatMap((t) =>
          never.filter((n) => isIn(t, n)).map((n) => `${shownAs(f)}: “${n}” in ${t.trim()}`),
        ),
      )
    expect(found).toEqual([])
  })
})
