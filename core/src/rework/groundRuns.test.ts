import fc from 'fast-check'
import { expect, it } from 'vitest'
import { groundFrom, groundWritten } from './index.ts'
import { bed, sited } from './test/site.ts'

it('the ground of drifts comes back as it was written, wherever the bed lies', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.double({ min: -50, max: 50, noNaN: true }),
      fc.array(fc.integer({ min: -1, max: 3 }), { minLength: 1, maxLength: 40 }),
      (x, y, pattern) => {
        const ring = [[0, 0], [5, 0.4], [4.4, 2.2], [1, 1.8]].map(([a, b]) => [x + a!, y + b!] as const) // prettier-ignore
        const of = sited([bed('Bed', ring)], undefined, 0.25).places[0]!
        const has = Int16Array.from(of.stations, (_, c) => pattern[c % pattern.length]!)
        const written = groundWritten(of, 0.25, has, 4)
        expect(groundFrom(of, 0.25, written)).toEqual(has)
        // Its runs hold as many cells as it has.
        written.forEach((runs, k) =>
          expect(runs.reduce((n, [, from, to]) => n + to - from + 1, 0)).toBe(
            has.filter((h) => h === k).length,
          ),
        )
      },
    ),
    { numRuns: 40 },
  )
})
