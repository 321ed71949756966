import { describe, expect, it } from 'vitest'
import type { Feature } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import { backdropOf, EYE_M } from './index.ts'
import { upright } from './test/upright.ts'

const outline: Point[] = [[0, 0], [8, 0], [8, 3], [0, 3]] // prettier-ignore
const on = '2026-07-20'
const standpoint = { fromDeg: 180, awayM: 5, eyeM: EYE_M }

describe('what stands behind a bed', () => {
  it('is drawn where it is seen: a wall as tall as the eye ends at the horizon, along all of its length', () => {
    const [wall] = backdropOf(outline, [upright('wall', EYE_M, [-1, 3.5], [9, 3.5])], standpoint, on)
    for (const [, y] of wall!.top) expect(y).toBeCloseTo(EYE_M)
    // By similar triangles: 3.5 m behind an edge that is 5 m away it is 5 / 8.5 as wide.
    const xs = wall!.foot.map(([x]) => x)
    expect(Math.min(...xs)).toBeCloseTo((-5 * 5) / 8.5)
    expect(wall!.depthM).toBeCloseTo(8.5)
  })

  it('is none of what stands before it, beside it, within it or far away; and from the other side it is', () => {
    const before = upright('fence', 1.2, [0, -1], [8, -1])
    const beside = upright('hedge', 2, [14, 0], [14, 3])
    const far = upright('wall', 3, [0, 30], [8, 30])
    const tree = { ...upright('wall', 5, [4, 4], [5, 4]), kind: 'tree' as const }
    expect(backdropOf(outline, [before, beside, far, tree], standpoint, on)).toEqual([])
    expect(backdropOf(outline, [before], { ...standpoint, fromDeg: 0 }, on).map((b) => b.kind)).toEqual([
      'fence',
    ])
  })

  it('has each face of a house by itself, those that stand nearer later', () => {
    const house = upright('building', 5)
    const ring: [number, number][] = [[1, 4], [7, 4], [7, 9], [1, 9], [1, 4]] // prettier-ignore
    const faces = backdropOf(
      outline,
      [{ ...house, geometry: { type: 'Polygon', coordinates: [ring] } }],
      standpoint,
      on,
    )
    expect(faces).toHaveLength(4)
    // The front of it is the last that is drawn, whole: six metres wide, nine from the eye.
    const xs = faces.at(-1)!.foot.map(([x]) => x)
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo((6 * 5) / 9)
  })

  const tree = (more: object = {}): Feature => ({
    ...upright('wall', 0, [4, 6]),
    kind: 'tree',
    name: 'Crab apple',
    geometry: { type: 'Point', coordinates: [4, 6] },
    properties: { heightM: EYE_M, crownRadiusM: 1.1, clearStemM: 0.5, ...more },
  })

  it('is a tree too, as high and wide as the distance makes it, in leaf by its own days', () => {
    const seen = (on: string, of = tree({ leafFrom: '04-25', leafTo: '10-25' })) =>
      backdropOf(outline, [of], standpoint, on)[0]!
    const june = seen('2026-06-20')
    // As tall as the eye it ends at the horizon; six metres behind an edge that is five away it is 5 / 11 as wide.
    expect(june.top[0]![1]).toBeCloseTo(EYE_M)
    expect(june.tree!.crownRadiusM).toBeCloseTo((1.1 * 5) / 11)
    expect(june.depthM).toBeCloseTo(11)
    expect([june, seen('2026-01-20'), seen('2026-11-01')].map((b) => b.tree!.isBare)).toEqual([
      false,
      true,
      true,
    ])
    // One of which nobody says when it drops its leaves keeps them.
    expect(seen('2026-01-20', tree()).tree!.isBare).toBe(false)
    const away = { ...tree(), geometry: { type: 'Point' as const, coordinates: [4, 60] as [number, number] } }
    expect(backdropOf(outline, [away], standpoint, on)).toEqual([])
  })

  it('stands as it is by then: grown, lowered, or gone', () => {
    const high = (f: Feature, on: string) => backdropOf(outline, [f], standpoint, on)[0]?.top[0]![1]
    const growing = tree({
      growth: { measuredOn: '2026-01-01', matureHeightM: 8, matureCrownRadiusM: 3, yearsToMature: 20 },
    })
    expect(high(growing, '2036-06-01')!).toBeGreaterThan(high(growing, '2026-06-01')! + 1)
    const hedge = upright('hedge', 3, [-1, 3.5], [9, 3.5])
    const lowered = {
      ...hedge,
      properties: {
        ...hedge.properties,
        events: [{ date: '2026-09-01', action: 'lowered', heightM: EYE_M }],
      },
    }
    expect(high(lowered, '2026-08-01')).toBeGreaterThan(EYE_M)
    expect(high(lowered, '2026-10-01')).toBeCloseTo(EYE_M)
    expect(high({ ...hedge, to: '2027-01-01' }, '2027-06-01')).toBeUndefined()
  })

  it('has the farthest first', () => {
    const found = backdropOf(
      outline,
      [upright('hedge', 2, [0, 4], [8, 4]), upright('wall', 6, [0, 7], [8, 7])],
      standpoint,
      on,
    )
    expect(found.map((b) => b.kind)).toEqual(['wall', 'hedge'])
  })
})
