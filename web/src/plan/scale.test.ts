import type { FeatureView } from '@border/contract'
import { describe, expect, it } from 'vitest'
import { fitPlan, gardenExtent, scaleBar } from './scale.ts'

const feature = (kind: FeatureView['kind'], geometry: FeatureView['geometry']): FeatureView => ({
  id: kind,
  kind,
  name: kind,
  from: null,
  to: null,
  geometry,
  properties: {},
})
const square = (x: number, y: number, side: number): FeatureView['geometry'] => ({
  type: 'Polygon',
  coordinates: [
    [
      [x, y],
      [x + side, y],
      [x + side, y + side],
      [x, y + side],
      [x, y],
    ],
  ],
})

describe('the plan’s scale', () => {
  const scale = fitPlan({ minX: -10, minY: 0, maxX: 30, maxY: 20 }, 848, 648, 24)

  it('is the same both ways, north up, and fills the narrower side', () => {
    expect(scale.pxPerM).toBe(20)
    expect([scale.x(-10), scale.x(30)]).toEqual([24, 824])
    expect(scale.y(20)).toBeLessThan(scale.y(0))
    expect(scale.x(1) - scale.x(0)).toBe(scale.y(0) - scale.y(1))
  })

  it('gives back the metres under a pixel', () => {
    const [x, y] = scale.at(scale.x(7.3), scale.y(11.9))
    expect([x.toFixed(9), y.toFixed(9)]).toEqual(['7.300000000', '11.900000000'])
  })

  it.each([
    [20, 800, 5, 20],
    [100, 800, 1, 5],
    [2, 400, 50, 100],
  ])('shows a bar of a round length at %i px a metre on %i px', (pxPerM, width, metres, feet) => {
    expect(scaleBar(pxPerM, width, 'metres')).toEqual({ m: metres, text: `${metres} m` })
    const inFeet = scaleBar(pxPerM, width, 'feet and inches')
    expect(inFeet.text).toBe(`${feet} ft`)
    // A foot is 0.3048 m.
    expect(inFeet.m).toBeCloseTo(0.3048 * feet, 9)
  })
})

describe('the ground shown', () => {
  it('is about the places, not out to the end of a neighbour’s long wall', () => {
    const wall = feature('wall', {
      type: 'LineString',
      coordinates: [
        [-500, 0],
        [500, 0],
      ],
    })
    const extent = gardenExtent([wall, feature('bed', square(0, 2, 6))])
    expect(extent).toEqual({ minX: -7, minY: -1, maxX: 13, maxY: 9 })
  })

  it('of an empty plan is a piece of ground to draw on', () => {
    expect(gardenExtent([])).toEqual({ minX: 0, minY: 0, maxX: 20, maxY: 14 })
  })
})
