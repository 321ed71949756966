import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { outlineFault, type Point } from '../geometry/index.ts'
import { checkFeature } from '../exchange/index.ts'
import {
  day,
  isReadable,
  limits,
  planMetre,
  recordedDay,
  remark,
  tag,
  tagKey,
  unkeepable,
  words,
} from './index.ts'

const faultOf = (
  schema: { safeParse: (v: unknown) => { error?: { issues: { message: string }[] } } },
  value: unknown,
) => schema.safeParse(value).error?.issues[0]?.message

describe('text', () => {
  it('is kept in every script, with its breaks, its ends trimmed', () => {
    for (const text of ['Größe', 'ペチュニア', 'می‌خواهم', 'two\nlines\tand a tab', '🌿', 'é', '1–2 % (dry)'])
      expect(words(100).parse(`  ${text} `)).toBe(text)
    expect(remark(100).parse('  ')).toBe('')
  })

  it('with what no keyboard makes, or halves of characters, is refused', () => {
    for (const text of ['a\u0000', '\u0007', 'x\u001b[31m', '\u0085', 'half \ud83c', '\udf3f half', '\uffff'])
      for (const schema of [words(100), remark(100), tag])
        expect(faultOf(schema, text)).toMatch(/cannot be written/)
  })

  it('of which nothing is seen is refused', () => {
    for (const text of ['\u200b', '\u2060\u200d', '\u3164', '\u2800', '\u00ad', '\ufeff\u200e'])
      for (const schema of [words(100), remark(100)])
        // What is only space is nothing at all.
        expect([text, schema.safeParse(text).data || undefined]).toEqual([text, undefined])
  })

  it('is told how long it may be', () => {
    expect(faultOf(words(5), 'longer')).toBe('must be at most 5 characters')
    expect(faultOf(words(5), ' ')).toBe('is missing')
  })
})

describe('tags', () => {
  it('hold nothing that is not seen', () => {
    for (const text of ['W\u200b-1', 'W-1\u200e', 'W\u00a0-1', 'W\n1', 'W\u3000-1'])
      expect(faultOf(tag, text)).toBe('holds a character that cannot be seen')
    expect(tag.parse(' Wien 12 ')).toBe('Wien 12')
  })

  it('that look the same are the same', () => {
    expect(tagKey('w-01')).toBe(tagKey('W-01'))
    expect(tagKey('Ｗ-01')).toBe(tagKey('W-01'))
    expect(tagKey('e\u0301')).toBe(tagKey('é'))
    expect(tagKey('W-01')).not.toBe(tagKey('W-1'))
  })
})

describe('days', () => {
  it('are of years that a garden can have', () => {
    for (const text of ['1500-01-01', '2199-12-31', ' 2026-02-28 '])
      expect(day.safeParse(text).success).toBe(true)
    for (const text of ['0000-01-01', '0001-05-05', '1499-12-31', '2200-01-01', '9999-12-31'])
      expect(faultOf(day, text)).toBe('must lie between the years 1500 and 2199')
    expect(faultOf(day, '2026-02-29')).toBe('must be a date like 2026-09-14')
  })

  it('of what somebody saw or did are of their own time', () => {
    expect(recordedDay.safeParse('1950-01-01').success).toBe(true)
    expect(faultOf(recordedDay, '1900-06-15')).toBe('must not lie before 1950')
  })
})

it('a place on the plan lies near the garden', () => {
  for (const x of [1e308, -1e308, 10_000.01, NaN, Infinity])
    expect(planMetre.safeParse(x).success).toBe(false)
  expect(planMetre.safeParse(-9999).success).toBe(true)
})

describe('what no record can hold', () => {
  it('is found wherever it lies, and nowhere else', () => {
    const path = fc.array(fc.oneof(fc.constantFrom('a', 'b', 'properties'), fc.nat(3)), { maxLength: 20 })
    fc.assert(
      fc.property(path, fc.constantFrom('x\u0000', '\ud800', 'fine'), (way, leaf) => {
        const value = way.reduceRight<unknown>(
          (inner, key) =>
            typeof key === 'number' ? [...Array(key).fill('ok'), inner] : { ok: 1, [key]: inner },
          leaf,
        )
        expect(unkeepable(value)?.path).toEqual(isReadable(leaf) ? undefined : way)
      }),
    )
  })

  it('is a name too, and whatever is nested too deep', () => {
    expect(unkeepable({ 'a\u0000': 1 })?.message).toMatch(/has a name/)
    const nested = (levels: number): unknown => (levels === 0 ? 1 : [nested(levels - 1)])
    expect(unkeepable(nested(limits.nesting))).toBeUndefined()
    expect(unkeepable(nested(limits.nesting + 1))?.message).toMatch(/deeper than 32 levels/)
  })
})

describe('an outline', () => {
  const round = (corners: number, r: number): Point[] =>
    Array.from({ length: corners }, (_, i) => {
      const a = (2 * Math.PI * i) / corners
      return [r * Math.cos(a), r * Math.sin(a)] as const
    })
  const feature = (kind: string, ring: readonly Point[], more: object = {}) =>
    checkFeature({
      type: 'Feature',
      properties: { kind, name: 'B', ...more },
      geometry: { type: 'Polygon', coordinates: [[...ring, ring[0]]] },
    })
  const wordsOf = (kind: string, ring: readonly Point[], more?: object) => {
    const read = feature(kind, ring, more)
    return read.ok ? [] : read.problems.map((p) => p.message)
  }

  /**
   * Every edge against every other, by whole numbers: they share a point where the parameters along both that solve for it lie from 0
   * to 1, or, on one line, where an end of one lies on the other.
   */
  const crossesAnywhere = (ring: readonly Point[]): boolean => {
    const cross = (a: Point, b: Point) => a[0] * b[1] - a[1] * b[0]
    const less = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]]
    const lies = (p: Point, a: Point, b: Point) =>
      cross(less(b, a), less(p, a)) === 0 &&
      [0, 1].every((k) => Math.min(a[k]!, b[k]!) <= p[k]! && p[k]! <= Math.max(a[k]!, b[k]!))
    const n = ring.length
    return ring.some((a, i) =>
      ring.some((c, j) => {
        if (j <= i + 1 || (i === 0 && j === n - 1)) return false
        const b = ring[(i + 1) % n]!
        const d = ring[(j + 1) % n]!
        const [along, across, gap] = [less(b, a), less(d, c), less(c, a)]
        const det = cross(along, across)
        if (det === 0) return lies(c, a, b) || lies(d, a, b) || lies(a, c, d) || lies(b, c, d)
        const [t, u] = [cross(gap, across) / det, cross(gap, along) / det]
        return t >= 0 && t <= 1 && u >= 0 && u <= 1
      }),
    )
  }

  it('is said to cross itself where some pair of its edges does', () => {
    const corner = fc.tuple(fc.integer({ min: 0, max: 30 }), fc.integer({ min: 0, max: 30 }))
    const rings = fc.uniqueArray(corner, { minLength: 3, maxLength: 12, selector: String })
    let crossing = 0
    fc.assert(
      fc.property(rings, (ring) => {
        const crosses = crossesAnywhere(ring)
        if (crosses) crossing++
        expect(/crosses itself/.test(outlineFault(ring) ?? '')).toBe(crosses)
      }),
      { numRuns: 400 },
    )
    expect(crossing).toBeGreaterThan(100)
    expect(crossing).toBeLessThan(390)
  })

  it('has so many corners that it is checked in a moment, and no more', () => {
    const begun = performance.now()
    expect(wordsOf('bed', round(limits.corners, 20))).toEqual([])
    // The slowest case: edges that all lie over each other, seen from the south.
    const comb = Array.from({ length: limits.corners }, (_, i): Point => [
      i % 2 ? 50 + i / 100 : i / 100,
      i / 10,
    ])
    expect(outlineFault(comb)).toMatch(/crosses itself/)
    expect(performance.now() - begun).toBeLessThan(1000)
    for (const corners of [limits.corners + 1, 15_000, 100_000])
      expect(wordsOf('bed', round(corners, 20))).toEqual([`has more than ${limits.corners} corners`])
  })

  it('lies near the garden, and a bed is no park', () => {
    expect(wordsOf('bed', round(12, 10_000))).toEqual(['is 20000 m across; a bed has at most 1000 m'])
    expect(wordsOf('building', round(12, 9000), { heightM: 4 })).toEqual([])
    expect(wordsOf('building', round(12, 11_000), { heightM: 4 })[0]).toMatch(
      /^corner 1 lies more than 10 km/,
    )
    const tree = checkFeature({
      type: 'Feature',
      properties: { kind: 'tree', name: 'T', heightM: 4, crownRadiusM: 1 },
      geometry: { type: 'Point', coordinates: [1e308, 0] },
    })
    expect(tree).toMatchObject({ ok: false, problems: [{ message: /lies more than 10 km/ }] })
  })
})
