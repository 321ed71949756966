import { seededRandom } from '@border/core'
import { describe, expect, it } from 'vitest'
import { placeLabels, type WantedLabel } from './labels.ts'

const label = (key: string, x: number, y: number, weight: number, text = 'Astrantia'): WantedLabel => ({
  key,
  text,
  x,
  y,
  weight,
  kind: 'planting',
})

describe('labels of the plan', () => {
  it('keep the weightier of two that collide where it is, and move the other a line', () => {
    const placed = placeLabels([label('light', 100, 100, 1), label('heavy', 104, 102, 5)], 400, 300)
    expect(placed.find((l) => l.key === 'heavy')).toMatchObject({ x: 104, y: 102 })
    expect(Math.abs(placed.find((l) => l.key === 'light')!.y - 102)).toBeGreaterThan(15)
  })

  it('drop what finds no room and keep what was wanted inside the drawing', () => {
    const crowd = Array.from({ length: 12 }, (_, i) => label(String(i), 100, 100, 12 - i))
    expect(placeLabels(crowd, 400, 300).length).toBeLessThan(6)
    const [edge] = placeLabels([label('edge', 2, 100, 1)], 400, 300)
    expect(edge!.x - edge!.width / 2).toBeGreaterThanOrEqual(0)
  })

  it('are the same for the same drawing, whatever its rows are called and in whichever order they come', () => {
    const random = seededRandom(7)
    const crowd = Array.from(
      { length: 30 },
      () => [random() * 300, random() * 120, `Alder ${Math.ceil(random() * 9)}`] as const,
    )
    const drawn = (keyOf: (i: number) => string, order: (i: number) => number) =>
      placeLabels(
        crowd
          .map(([x, y, text], i) => ({ ...label(keyOf(i), x, y, 20, text), at: order(i) }))
          .sort((a, b) => a.at - b.at),
        400,
        200,
      )
        .map(({ text, x, y }) => `${text} ${x} ${y}`)
        .sort()
    const once = drawn(
      (i) => `a${i}`,
      (i) => i,
    )
    expect(once.length).toBeLessThan(30)
    expect(
      drawn(
        (i) => `z${99 - i}`,
        (i) => (i * 7) % 30,
      ),
    ).toEqual(once)
  })

  it('never cover each other, whatever is asked for', () => {
    const random = seededRandom(41)
    for (let run = 0; run < 40; run++) {
      const wanted = Array.from({ length: 60 }, (_, i) =>
        label(String(i), random() * 800, random() * 500, random(), 'x'.repeat(2 + Math.floor(random() * 24))),
      )
      const placed = placeLabels(wanted, 800, 500)
      const covering = placed.flatMap((a, i) =>
        placed
          .slice(i + 1)
          .filter((b) => Math.abs(a.x - b.x) <= (a.width + b.width) / 2 && Math.abs(a.y - b.y) <= 15),
      )
      expect(covering).toEqual([])
    }
  })
})
