import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { bringsAlong, shownAs, sources, textOf } from './imports.ts'

/** Each part that is fetched later, with the words before it that say how it is. */
const fetchedLater = sources
  .filter((f) => /\.tsx?$/.test(f) && !f.includes('.test.'))
  .flatMap((file) =>
    [...textOf(file).matchAll(/import\('(\.[^']+)'\)/g)].map((m) => ({
      by: file,
      part: join(dirname(file), m[1]!),
      as: textOf(file)
        .slice(0, m.index)
        .split(/[;{}]|\n\n/)
        .at(-1)!,
    })),
  )

const first = ['main.tsx', 'comeIn.ts', 'gardens/SignIn.tsx']
const firstFiles = sources.filter((f) => first.includes(shownAs(f)))

describe('the component library', () => {
  it('is fetched by none who come in: not at the start, not by Light, not at the sign-in', () => {
    expect(firstFiles).toHaveLength(first.length)
    expect(firstFiles.filter((f) => bringsAlong(f).has('antd')).map(shownAs)).toEqual([])
  })

  it('comes with the product’s look, wherever what comes without it fetches a part that uses it', () => {
    const without = new Set(firstFiles.flatMap((f) => [...bringsAlong(f)]))
    const fetched = fetchedLater.filter(({ by }) => without.has(by))
    expect(fetched.length).toBeGreaterThan(20)
    const bare = fetched
      .filter(({ part }) => bringsAlong(part).has('antd') && !part.endsWith('Themed.tsx'))
      .filter(({ as }) => !/\b(themed|screen)\(/.test(as))
    expect(bare.map(({ part }) => shownAs(part))).toEqual([])
  })
})
