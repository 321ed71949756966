import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { areaM2, isInside, readyShape, turn, type Point } from '../geometry/index.ts'
import { compareTags } from '../words/index.ts'
import {
  asDrawnOn,
  carriedFeature,
  changedFrom,
  depths,
  drawAs,
  drawnOf,
  featuresOn,
  nearestInside,
  plantedWords,
  readPlanted,
  ringOf,
  roughSpot,
  sides,
  strayedFrom,
  writtenPlanted,
  type PlanFeature,
} from './index.ts'

const bed = (handles = readyShape('kidney', [0, 0], 6, 4)): PlanFeature =>
  drawAs(
    {
      kind: 'bed',
      name: 'Bed',
      from: null,
      to: null,
      geometry: { type: 'Polygon', coordinates: [[]] },
      properties: {},
    },
    { handles, closed: true },
  )

describe('a part of the plan', () => {
  it('is drawn through its handles again, until its corners were drawn otherwise', () => {
    const drawn = bed()
    expect(drawnOf(drawn)!.handles).toHaveLength(11)
    const moved = structuredClone(drawn)
    const corners = (moved.geometry as { coordinates: number[][][] }).coordinates[0]!
    corners[3]![0]! += 0.2
    expect(drawnOf(moved)!.handles.every((h) => !h.curved)).toBe(true)
  })

  it('has its ground and its handles go along when it is turned', () => {
    const turned = carriedFeature(bed(), turn([1, 1], 37))
    expect(areaM2(ringOf(turned.geometry))).toBeCloseTo(areaM2(ringOf(bed().geometry)), 1)
    expect(drawnOf(turned)!.handles.filter((h) => h.curved)).toHaveLength(11)
  })

  it('that changed on a day is as it was before, and as it is since', () => {
    const was = bed(readyShape('rectangle', [0, 0], 4, 2))
    const wider = changedFrom(was, bed(readyShape('rectangle', [0, 0], 6, 2)), '2024-03-01')
    const widest = changedFrom(
      wider,
      { ...wider, ...bed(readyShape('rectangle', [0, 0], 8, 2)) },
      '2025-03-01',
    )
    const areaOn = (on: string) => areaM2(ringOf(asDrawnOn(widest, on).geometry))
    expect(['2020-01-01', '2024-02-29', '2024-03-01', '2025-03-01'].map(areaOn)).toEqual([8, 8, 12, 16])
    expect(featuresOn([{ ...widest, to: '2025-06-01' }], '2025-06-01')).toEqual([])
  })
})

describe('plantings outside an outline', () => {
  it('are named, and where they would stand inside is inside and near', () => {
    const ring = ringOf(bed().geometry)
    const at = fc.double({ min: -6, max: 6, noNaN: true })
    fc.assert(
      fc.property(at, at, (x, y) => {
        const inside = nearestInside(ring, [x, y])
        expect(isInside(ring, ...inside)).toBe(true)
        expect(strayedFrom(ring, [{ x, y }]).length).toBe(isInside(ring, x, y) ? 0 : 1)
        if (isInside(ring, x, y)) expect(inside).toEqual([x, y])
      }),
    )
  })
})

describe('front left, when nobody measures', () => {
  const box: Point[] = [
    [0, 0],
    [6, 0],
    [6, 3],
    [0, 3],
  ]
  it('is front and left as seen by one who stands south, and the other way round from the north', () => {
    const [x, y] = roughSpot(box, 'front', 'left', 180)
    expect([x < 2, y < 1]).toEqual([true, true])
    const [xn, yn] = roughSpot(box, 'front', 'left', 0)
    expect([xn > 4, yn > 2]).toEqual([true, true])
  })

  it('is always inside, and of several none lies on another', () => {
    const ring = ringOf(bed().geometry)
    const seen: Point[] = []
    for (const depth of depths)
      for (const side of sides)
        for (let nth = 0; nth < 6; nth++) {
          const at = roughSpot(ring, depth, side, 200, nth)
          expect(isInside(ring, ...at)).toBe(true)
          if (side === 'left' && depth === 'front') seen.push(at)
        }
    expect(new Set(seen.map((p) => p.map((v) => v.toFixed(2)).join())).size).toBe(seen.length)
  })
})

describe('when something was planted', () => {
  const today = '2026-11-30'
  it.each([
    ['2020-05-03', 'on 3 May 2020'],
    ['2015', 'in 2015'],
    ['before 2015', 'before 2015'],
    ['unknown', 'nobody knows when'],
  ])('%s is said, read and written as it was meant', (text, says) => {
    const read = readPlanted(text, today)!
    expect(plantedWords(read)).toBe(says)
    expect(writtenPlanted(read)).toBe(text)
    expect(read.plantedOn <= today).toBe(true)
  })

  it('is none of what is no day', () => {
    for (const text of [
      '',
      'spring',
      '2020-13-01',
      '15',
      'before spring',
      '0001-05-05',
      '1066',
      'before 1066',
      '9999-01-01',
    ])
      expect(readPlanted(text, today)).toBeUndefined()
    // A year that is not over is reckoned no later than today.
    expect(readPlanted('2026', '2026-02-01')!.plantedOn).toBe('2026-02-01')
  })
})

describe('tags', () => {
  it('come in the order people count', () => {
    expect(['B-10', 'B-2', 'A-100', 'b-1', '10', '9'].sort(compareTags)).toEqual([
      '9',
      '10',
      'A-100',
      'b-1',
      'B-2',
      'B-10',
    ])
  })
})
