import { describe, expect, it } from 'vitest'
import { contradictions, library } from '../plants/index.ts'
import { readTaxa, taxonSchema, writeTaxa } from './index.ts'

describe('taxa as a file', () => {
  it('comes back from taxa.csv as it went, every taxon of the library', () => {
    const read = readTaxa(writeTaxa(library))
    expect(read.ok && read.value.length).toBe(library.length)
    if (!read.ok) return
    read.value.forEach((t, i) => {
      const clean = Object.fromEntries(
        Object.entries(library[i]!).filter(([, v]) => v !== undefined && v !== null),
      )
      expect(Object.fromEntries(Object.entries(t).filter(([, v]) => v !== null))).toEqual(clean)
    })
  })

  it('is refused whole, each fault with its line and column', () => {
    const [header, first, second] = writeTaxa(library.slice(0, 2)).split('\r\n')
    const cells = (line: string, changed: Record<string, string>) => {
      const columns = header!.split(',')
      return line
        .split(',')
        .map((v, i) => changed[columns[i]!] ?? v)
        .join(',')
    }
    const bad = readTaxa(
      [
        header,
        cells(first!, { height_m: 'tall', bloom_from: '13-40' }),
        cells(second!, { light_min_hours: '20', light_max_hours: '9' }),
      ].join('\n'),
    )
    expect(bad.ok ? [] : bad.problems.map((p) => `${p.line} ${p.column}`)).toEqual([
      '2 height_m',
      '2 bloom_from',
      '3 light_max_hours',
    ])
    for (const day of ['02-30', '04-31', '00-10', '6-15'])
      expect(readTaxa([header, cells(first!, { bloom_from: day })].join('\n')).ok, day).toBe(false)
    const twice = readTaxa([header, first, first].join('\n'))
    expect(twice.ok ? [] : twice.problems.map((p) => p.message)).toEqual(['already on line 2'])
    expect(readTaxa('botanical\nX\n')).toMatchObject({ ok: false })
  })
})

it('the library contradicts itself nowhere, and a contradiction is found', () => {
  expect(library.flatMap((t) => contradictions(t).map((c) => `${t.botanical}: ${c.message}`))).toEqual([])
  const lilac = library.find((t) => t.botanical === 'Syringa vulgaris')!
  expect(taxonSchema.safeParse(lilac).success).toBe(true)
  const wrong = taxonSchema.safeParse({ ...lilac, pruning: null })
  expect(wrong.success ? '' : wrong.error.issues[0]!.path.join('.')).toBe('flowersOn')
})
