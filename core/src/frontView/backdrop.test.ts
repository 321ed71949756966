import { describe, expect, it } from 'vitest'
import type { Feature } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import { backdropOf, EYE_M } from './index.ts'

const outline: Point[] = [[0, 0], [8, 0], [8, 3], [0, 3]] // prettier-ignore
const standpoint = { fromDeg: 180, awayM: 5, eyeM: EYE_M }
const line = (kind: Feature['kind'], heightM: number, ...coordinates: Point[]): Feature => ({
  id: `${kind} ${heightM}`,
  kind,
  name: `A ${kind}`,
  from: null,
  to: null,
  geometry: { type: 'LineString', coordinates: coordinates.map(([x, y]): [number, number] => [x, y]) },
  properties: { heightM },
})

describe('what stands behind a bed', () => {
  it('is drawn where it is seen: a wall as tall as the eye ends at the horizon, along all of its length', () => {
    const [wall] = backdropOf(outline, [line('wall', EYE_M, [-1, 3.5], [9, 3.5])], standpoint)
    for (const [, y] of wall!.top) expect(y).toBeCloseTo(EYE_M)
    // By similar triangles: 3.5 m behind an edge that is 5 m away it is 5 / 8.5 as wide.
    const xs = wall!.foot.map(([x]) => x)
    expect(Math.min(...xs)).toBeCloseTo((-5 * 5) / 8.5)
    expect(wall!.depthM).toBeCloseTo(8.5)
  })

  it('is none of what stands before it, beside it, within it or far away; and from the other side it is', () => {
    const before = line('fence', 1.2, [0, -1], [8, -1])
    const beside = line('hedge', 2, [14, 0], [14, 3])
    const far = line('wall', 3, [0, 30], [8, 30])
    const tree = { ...line('wall', 5, [4, 4], [5, 4]), kind: 'tree' as const }
    expect(backdropOf(outline, [before, beside, far, tree], standpoint)).toEqual([])
    expect(backdropOf(outline, [before], { ...standpoint, fromDeg: 0 }).map((b) => b.kind)).toEqual(['fence'])
  })

  it('has each face of a house by itself, those that stand nearer later', () => {
    const house = line('building', 5)
    const ring: [number, number][] = [[1, 4], [7, 4], [7, 9], [1, 9], [1, 4]] // prettier-ignore
    const faces = backdropOf(
      outline,
      [{ ...house, geometry: { type: 'Polygon', coordinates: [ring] } }],
      standpoint,
    )
    expect(faces).toHaveLength(4)
    // The front of it is the last that is drawn, whole: six metres wide, nine from the eye.
    const xs = faces.at(-1)!.foot.map(([x]) => x)
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo((6 * 5) / 9)
  })

  it('has the farthest first', () => {
    const found = backdropOf(
      outline,
      [line('hedge', 2, [0, 4], [8, 4]), line('building', 6, [0, 7], [8, 7])],
      standpoint,
    )
    expect(found.map((b) => b.kind)).toEqual(['building', 'hedge'])
  })
})
