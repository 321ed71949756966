// @vitest-environment happy-dom
import { dirname } from 'node:path'
import { describe, expect, it } from 'vitest'
import { bringsAlong, shownAs, sources, textOf } from './imports.ts'

/** Styles are global, so names keep them apart: a class belongs to one file, and whoever uses it has that file. */

const classesOf = (selector: string): string[] =>
  [...selector.matchAll(/\.([A-Za-z][\w-]*)/g)].map((m) => m[1]!).filter((c) => !c.startsWith('ant-'))

/** Every selector of a style sheet, those under a condition too. */
function selectorsOf(file: string): string[] {
  const style = document.createElement('style')
  style.textContent = textOf(file)
  document.head.append(style)
  const of = (rules: Iterable<CSSRule>): string[] =>
    [...rules].flatMap((rule) =>
      'selectorText' in rule
        ? String(rule.selectorText).split(/,(?![^(]*\))/)
        : 'cssRules' in rule && 'conditionText' in rule
          ? of(rule.cssRules as CSSRuleList)
          : [],
    )
  const found = of(style.sheet!.cssRules)
  style.remove()
  return found
}

const sheets = new Map(sources.filter((f) => f.endsWith('.css')).map((f) => [f, selectorsOf(f)]))

/** The files that say how a class looks by itself, wherever it stands. */
const owners = new Map<string, Set<string>>()
for (const [file, selectors] of sheets)
  for (const classes of selectors.map(classesOf))
    if (new Set(classes).size === 1) owners.set(classes[0]!, (owners.get(classes[0]!) ?? new Set()).add(file))

describe('a class', () => {
  it('is found in the style sheets at all', () => {
    expect(sheets.size).toBeGreaterThan(12)
    expect(owners.size).toBeGreaterThan(150)
  })

  it('has its looks from one file', () => {
    const several = [...owners].filter(([, of]) => of.size > 1)
    expect(several.map(([name, of]) => `.${name} in ${[...of].map(shownAs).join(' and ')}`)).toEqual([])
  })

  it('of another file is changed only inside something of one’s own', () => {
    const strays = [...sheets].flatMap(([file, selectors]) =>
      selectors
        .filter((s) => {
          const classes = classesOf(s)
          return classes.length > 0 && classes.every((c) => owners.has(c) && !owners.get(c)!.has(file))
        })
        .map((s) => `${shownAs(file)}: ${s.trim()}`),
    )
    expect(strays).toEqual([])
  })

  it('is used where the file that it has its looks from is there', () => {
    const shared = (file: string) => /^(theme\.css|frame\/)/.test(shownAs(file))
    const missing = sources
      .filter((f) => f.endsWith('.tsx') && !f.includes('.test.'))
      .flatMap((file) =>
        [...textOf(file).matchAll(/className=(?:"([^"]*)"|\{`([^`]*)`\}|\{([^}]*)\})/g)]
          .flatMap((m) =>
            (m[1] ?? m[2] ?? [...m[3]!.matchAll(/'([^']*)'/g)].map((q) => q[1]).join(' ')).split(/[^\w-]+/),
          )
          .filter((name) => owners.has(name))
          .filter((name) => {
            const [owner] = owners.get(name)!
            return !shared(owner!) && dirname(owner!) !== dirname(file) && !bringsAlong(file).has(owner!)
          })
          .map((name) => `${shownAs(file)} uses .${name} of ${shownAs([...owners.get(name)!][0]!)}`),
      )
    expect(missing).toEqual([])
  })
})
