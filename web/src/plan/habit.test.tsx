// @vitest-environment happy-dom
import { habits, library, type Taxon } from '@border/core'
import { render } from '@testing-library/react'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Mass } from './habit.tsx'

const taxonOf = (habit: Taxon['habit']): Taxon => ({ ...library[0]!, habit })

/** The outlines of a planting as they are drawn: its soft edge first. */
function drawn(habit: Taxon['habit'], radiusM: number, count: number, id = 'p1'): string[] {
  const { container, unmount } = render(
    <svg>
      <Mass id={id} taxon={taxonOf(habit)} ground={{ x: 400, y: 300, radiusM }} count={count} />
    </svg>,
  )
  const outlines = [...container.querySelectorAll('path')].map((path) => path.getAttribute('d')!)
  expect(container.querySelectorAll('svg *').length).toBe(outlines.length)
  unmount()
  return outlines
}

const place = fc.record({
  habit: fc.constantFrom(...habits),
  radiusPx: fc.double({ min: 1, max: 200, noNaN: true }),
  count: fc.integer({ min: 1, max: 400 }),
})

describe('a planting on the plan', () => {
  it('is a soft edge and at most two outlines more, however many plants it has, drawn in numbers alone', () => {
    fc.assert(
      fc.property(place, ({ habit, radiusPx, count }) => {
        const outlines = drawn(habit, radiusPx, count)
        expect(outlines.length).toBeLessThanOrEqual(3)
        expect(outlines.length > 1).toBe(radiusPx > 5)
        for (const outline of outlines) expect(outline).toMatch(/^M[-\d.,\sMLCZahvqe]+$/)
      }),
      { numRuns: 60 },
    )
  })

  it('has its plants stand on its ground', () => {
    fc.assert(
      fc.property(place, ({ habit, radiusPx, count }) => {
        const [, ...marks] = drawn(habit, radiusPx, count)
        for (const [, x, y] of marks.join('').matchAll(/M([-\d.]+),([-\d.]+)/g))
          // A plant reaches as far as the next one begins, which the outermost may do over the edge.
          expect(Math.hypot(Number(x) - 400, Number(y) - 300)).toBeLessThanOrEqual(radiusPx * 1.6)
      }),
      { numRuns: 60 },
    )
  })

  it('is drawn the same every time, and unlike another', () => {
    for (const habit of habits) {
      expect(drawn(habit, 30, 5)).toEqual(drawn(habit, 30, 5))
      expect(drawn(habit, 30, 5)).not.toEqual(drawn(habit, 30, 5, 'p2'))
    }
  })
})
