import { pathPen, type Pen } from '@border/core'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { growingBox, watchedPen } from './bounds.ts'

const at = fc.double({ min: -200, max: 200, noNaN: true })
const size = fc.double({ min: 0.5, max: 40, noNaN: true })
const angle = fc.double({ min: -4, max: 4, noNaN: true })
const stroke: fc.Arbitrary<(pen: Pen) => void> = fc.oneof(
  fc.tuple(at, at, angle, size, size).map((of) => (pen: Pen) => pen.leaf(...of, '#000')),
  fc.tuple(at, at, at, at, at, at, size).map((of) => (pen: Pen) => pen.stem(...of, '#000')),
  fc.tuple(at, at, at, at, at, at, size).map((of) => (pen: Pen) => pen.blade(...of, '#000')),
  fc.tuple(at, at, size, size, angle).map((of) => (pen: Pen) => pen.oval(...of, '#000')),
)

/** Points of path data: of its curves as the file has them, of an oval its ends. */
function pointsOf(d: string): [number, number][] {
  const points: [number, number][] = []
  let from: [number, number] = [0, 0]
  for (const [, what, numbers] of d.matchAll(/([MQA])([^MQAZ]*)/g)) {
    const n = numbers!.trim().split(/\s+/).map(Number)
    const to = n.slice(-2) as [number, number]
    if (what === 'Q')
      for (let t = 0; t <= 1; t += 0.05)
        points.push([0, 1].map((k) => (1 - t) ** 2 * from[k]! + 2 * t * (1 - t) * n[k]! + t * t * to[k]!) as [number, number]) // prettier-ignore
    points.push(to)
    from = to
  }
  return points
}

it('whatever is drawn lies within the box that its pen has told of, which is no wider than its strokes reach', () => {
  fc.assert(
    fc.property(fc.array(stroke, { minLength: 1, maxLength: 8 }), (strokes) => {
      const { box, add } = growingBox()
      const paths: string[] = []
      const pen = watchedPen(
        pathPen((d) => void paths.push(d)),
        add,
      )
      for (const draw of strokes) draw(pen)
      // Files are written to a tenth.
      for (const [x, y] of paths.flatMap(pointsOf)) {
        expect(x).toBeGreaterThanOrEqual(box.left - 0.2)
        expect(x).toBeLessThanOrEqual(box.right + 0.2)
        expect(y).toBeGreaterThanOrEqual(box.top - 0.2)
        expect(y).toBeLessThanOrEqual(box.bottom + 0.2)
      }
      expect(box.right - box.left).toBeLessThan(400 + 2 * 80)
    }),
  )
})
