import { describe, expect, it } from 'vitest'
import { taxonNamed } from './test/made.ts'
import { underEavesOf, eavesZones, isOnWall, placesOn, wallLines, type Feature } from './index.ts'
import { sceneOf } from './obstructions.ts'

const on = '2026-06-01'
const feature = (id: string, kind: Feature['kind'], geometry: object, more: object = {}): Feature =>
  ({ id, name: id, kind, from: null, to: null, geometry, properties: {}, ...more }) as Feature
const square = (x: number, y: number, m: number) => ({
  type: 'Polygon',
  coordinates: [
    [
      [x, y],
      [x + m, y],
      [x + m, y + m],
      [x, y + m],
      [x, y],
    ],
  ],
})
const line = (...coordinates: [number, number][]) => ({ type: 'LineString', coordinates })

describe('a bed by the water', () => {
  const isByWater = (water: object, more: object = {}) =>
    placesOn([feature('bed', 'bed', square(0, 0, 4)), feature('pond', 'water', water, more)], on)[0]!
      .byWater ?? false

  it.each([
    ['half a metre off', square(4.5, 0, 3), true],
    ['two metres off', square(6, 0, 3), false],
    ['reaching into it', square(3, 3, 3), true],
    ['within the bed', square(1, 1, 1), true],
    ['about the bed, an island', square(-5, -5, 20), true],
    ['a stream along its edge', line([-3, -0.5], [9, -0.5]), true],
    ['a stream far off', line([-3, -9], [9, -9]), false],
    ['a stream past a corner', line([4.4, -9], [4.4, 9]), true],
    ['a spring at its corner', { type: 'Point', coordinates: [4.3, 4.3] }, true],
  ] as const)('%s: %s', (_, water, is) => expect(isByWater(water)).toBe(is))

  it('only as long as the water is there', () => {
    expect(isByWater(square(4.5, 0, 3), { to: '2025-01-01' })).toBe(false)
  })
})

describe('a pot at the foot of a wall', () => {
  const wall = feature('wall', 'wall', line([0, 0], [8, 0]), { properties: { heightM: 2 } })
  const house = feature('house', 'building', square(20, 0, 6), { properties: { heightM: 5 } })
  const tree = feature(
    'tree',
    'tree',
    { type: 'Point', coordinates: [40, 0] },
    { properties: { heightM: 6 } },
  )
  const isByWall = (x: number, y: number) =>
    placesOn(
      [
        wall,
        house,
        tree,
        feature(
          'pot',
          'container',
          { type: 'Point', coordinates: [x, y] },
          { properties: { diameterM: 0.4 } },
        ),
      ],
      on,
    ).find((p) => p.id === 'pot')!.byWall ?? false

  it.each([
    [4, 0.5, true],
    [4, 0.75, false],
    [8.6, 0, true],
    [9, 0, false],
    [23, -0.5, true],
    [23, -1, false],
    [40, 0.4, false],
  ])('at %d, %d: %s', (x, y, is) => expect(isByWall(x, y)).toBe(is))
})

describe('under the eaves', () => {
  const house = feature('house', 'building', square(0, 0, 6), {
    properties: { heightM: 5, overhang: { depthM: 0.6, heightM: 2.5 } },
  })
  const scene = sceneOf({ latitude: 52, longitude: 0, northDeg: 0 }, [
    house,
    { ...house, id: 'bare', name: 'bare', properties: { heightM: 5 } },
  ])
  const zones = eavesZones(scene, on)

  it('lies what stands beside the wall no further than they reach', () => {
    expect(zones).toHaveLength(1)
    expect(underEavesOf(zones, 3, -0.5)).toBe('house')
    expect(underEavesOf(zones, 3, -0.7)).toBeUndefined()
    expect(underEavesOf(zones, 6.4, 6.4)).toBe('house')
    expect(underEavesOf(zones, 6.5, 6.5)).toBeUndefined()
    expect(underEavesOf(zones, 3, 3)).toBeUndefined()
  })
})

describe('on a wall', () => {
  const wall = feature('wall', 'wall', line([0, 0], [8, 0]), { properties: { heightM: 2 } })
  const lines = wallLines(sceneOf({ latitude: 52, longitude: 0, northDeg: 0 }, [wall]), on)
  const isAt = (botanical: string, x: number, y: number) =>
    isOnWall({ taxon: taxonNamed(botanical), x, y }, 'bed', lines)

  it('is what is woody and stands close to one', () => {
    expect(isAt('Malus domestica', 4, 0.4)).toBe(true)
    expect(isAt('Malus domestica', 4, 2)).toBe(false)
    expect(isAt('Malus domestica', 8.9, 0)).toBe(false)
    expect(isAt('Nepeta × faassenii', 4, 0.4)).toBe(false)
    // A camellia in its pot by the door is carried away from the wall, not tied to it.
    expect(isOnWall({ taxon: taxonNamed('Camellia japonica'), x: 4, y: 0.4 }, 'container', lines)).toBe(false)
  })
})
