// @vitest-environment happy-dom
import type { FeatureView } from '@border/contract'
import { isInside, pointOf, turn, type Point } from '@border/core'
import { render } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { fitPlan } from '../plan/scale.ts'
import { carriedWhole, draftOf, drawnNow, type Draft } from './draft.ts'
import { DraftShape } from './DraftShape.tsx'

const outline: Point[] = [
  [0, 0],
  [6, 0],
  [6, 1],
  [0, 1],
]
const bed = (corners: readonly Point[]): FeatureView => ({
  id: 'bed',
  kind: 'bed',
  name: 'bed',
  from: null,
  to: null,
  geometry: { type: 'Polygon', coordinates: [[...corners, corners[0]!].map(([x, y]) => [x, y])] },
  properties: {},
})
const scaleOf = (pxPerM: number) =>
  fitPlan({ minX: -3, minY: -3, maxX: 9, maxY: 9 }, 12 * pxPerM + 48, 12 * pxPerM + 48)

const drawing = (draft: Draft, pxPerM: number) =>
  render(
    <svg>
      <DraftShape
        draft={draft}
        scale={scaleOf(pxPerM)}
        held={undefined}
        onGrab={() => {}}
        onHandle={() => {}}
      />
    </svg>,
  ).container

describe('what is being drawn', () => {
  it.each([
    ['counter-clockwise', outline],
    ['clockwise', [...outline].reverse()],
  ])('has the length of each side outside it, %s, however it is turned', (_, corners) => {
    for (const deg of [0, 35, 90, 200]) {
      const scale = scaleOf(80)
      const draft = carriedWhole(draftOf(bed(corners)), turn([3, 0.5], deg))
      const lengths = [...drawing(draft, 80).querySelectorAll('.draft-length')]
      expect(lengths.map((t) => parseFloat(t.textContent)).sort()).toEqual([1, 1, 6, 6])
      const ground = drawnNow(draft)!.handles.map(pointOf)
      for (const t of lengths)
        expect(isInside(ground, ...scale.at(Number(t.getAttribute('x')), Number(t.getAttribute('y'))))).toBe(
          false,
        )
    }
  })

  it('numbers its corners where the numbers have room, and those alone', () => {
    const numbers = (pxPerM: number) =>
      [...drawing(draftOf(bed(outline)), pxPerM).querySelectorAll('.draft-handle text')].map(
        (t) => t.textContent,
      )
    expect(numbers(80)).toEqual(['1', '2', '3', '4'])
    expect(numbers(12)).toEqual([])
  })
})
