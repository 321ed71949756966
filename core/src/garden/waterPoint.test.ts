import { describe, expect, it } from 'vitest'
import type { PlanFeature } from './feature.ts'
import { waterPoint } from './waterPoint.ts'

const thing = (
  kind: PlanFeature['kind'],
  name: string,
  geometry: PlanFeature['geometry'],
  properties = {},
): PlanFeature => ({ kind, name, from: null, to: null, geometry, properties })
const at = (x: number, y: number): PlanFeature['geometry'] => ({ type: 'Point', coordinates: [x, y] })
const pond = thing('water', 'Pond', {
  type: 'Polygon',
  coordinates: [
    [
      [10, 0],
      [14, 0],
      [14, 4],
      [10, 4],
      [10, 0],
    ],
  ],
})
const yardTap = thing('tap', 'Yard tap', at(0, 3), { litresPerHour: 720 })

describe('water is fetched', () => {
  it('from the nearest tap, told from what is nearest to it and farthest; a 3-4-5 triangle by hand', () => {
    const far = thing('tap', 'Butt', at(40, 0))
    expect(
      waterPoint(
        [pond, far, yardTap],
        [
          [4, 0],
          [0, 0],
        ],
      ),
    ).toEqual({
      name: 'Yard tap',
      litresPerHour: 720,
      nearestM: 3,
      farthestM: 5,
    })
  })

  it('from open water by its edge only where there is no tap, and from nowhere where there is neither', () => {
    expect(waterPoint([pond], [[6, 2]])).toMatchObject({
      name: 'Pond',
      nearestM: 4,
      litresPerHour: undefined,
    })
    expect(waterPoint([], [[6, 2]])).toBeUndefined()
    expect(waterPoint([yardTap], [])).toBeUndefined()
  })
})
