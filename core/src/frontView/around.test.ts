import { describe, expect, it } from 'vitest'
import type { Feature } from '../garden/index.ts'
import { madePlanting, taxonNamed } from '../garden/test/made.ts'
import type { Point } from '../geometry/index.ts'
import { USUAL_YEAR } from '../plants/index.ts'
import { beyondOf, EYE_M, frontView, nearBehind, type Beyond, type StandingPlant } from './index.ts'
import { upright } from './test/upright.ts'

const outline: Point[] = [[0, 0], [8, 0], [8, 3], [0, 3]] // prettier-ignore
const standpoint = { fromDeg: 180, awayM: 5, eyeM: EYE_M }
const july = { on: '2026-07-20', year: USUAL_YEAR, years: 10 }
const nothing: Beyond = { beds: [], pots: [], plants: [] }
const plant = (botanical: string, x: number, y: number): StandingPlant => ({
  id: `${botanical} ${x} ${y}`,
  groupId: botanical,
  taxon: taxonNamed(botanical),
  x,
  y,
  ageYears: 0,
})
const look = { shape: 'round', acrossM: 0.6, footM: 0.6, highM: 0.5 } as const
const pot = (x: number, y: number) => ({ id: 'pot', x, y, rimHeightM: 0.5, look })
const seen = (features: Feature[], beyond: Beyond, plants: StandingPlant[] = []) =>
  frontView(outline, plants, standpoint, july, { features, beyond })

describe('a climber', () => {
  const climber = plant('Clematis montana', 4, 2.7)
  const grown = (...features: Feature[]) => seen(features, nothing, [climber]).plants[0]!
  const free = grown()

  it.each([1, 1.8, 2.5])('goes up a wall of %d m no higher than that lets it, and along it', (heightM) => {
    const { body, x, y } = grown(upright('wall', heightM, [0, 3], [8, 3]))
    expect(free.body.heightM).toBeGreaterThan(heightM)
    expect(body.heightM).toBeLessThan(heightM + 0.3)
    expect(body.heightM).toBeGreaterThan(0.9 * heightM)
    expect(body.spreadM).toBeGreaterThan(1.2 * free.body.spreadM)
    // No more of it than it would have grown to.
    expect(body.heightM * body.spreadM).toBeLessThanOrEqual(free.body.heightM * free.body.spreadM + 1e-9)
    // Against the wall, straight behind its root: 3 m behind an edge 5 m away, less a hand.
    expect(x).toBeCloseTo(0)
    expect(y).toBeCloseTo(EYE_M * (1 - 5 / (5 + 2.95)), 5)
  })

  it('has its own height on what is higher, far from everything, and where it does not climb', () => {
    expect(grown(upright('wall', 12, [0, 3], [8, 3])).body).toMatchObject({
      heightM: free.body.heightM,
      spreadM: free.body.spreadM,
    })
    expect(grown(upright('wall', 1, [0, 4.5], [8, 4.5])).body.heightM).toBe(free.body.heightM)
    const shrub = plant('Hydrangea paniculata', 4, 2.7)
    const heights = [[], [upright('wall', 1, [0, 3], [8, 3])]].map(
      (f) => seen(f, nothing, [shrub]).plants[0]!.body.heightM,
    )
    expect(heights[1]).toBe(heights[0])
  })
})

describe('what stands behind a bed', () => {
  const potted = { ...plant('Lavandula angustifolia', 2, 5), surfaceM: 0.5 }

  it('is drawn as it is seen, by similar triangles, a plant in a pot on its rim', () => {
    const { beyond } = seen([], { ...nothing, pots: [pot(2, 5)], plants: [potted] })
    // 5 m behind an edge that is 5 m away all is half as large; x is 2 m to the left of the middle.
    expect(beyond).toMatchObject([
      {
        x: expect.closeTo(-1),
        y: EYE_M / 2,
        scale: 0.5,
        depthM: 10,
        hiddenBelow: -Infinity,
        pot: { id: 'pot' },
      },
      { x: expect.closeTo(-1), y: EYE_M / 2 + 0.25, scale: 0.5, plant: { surfaceM: 0.5 } },
    ])
  })

  it('is nothing of what stands before the bed, beside it or far away', () => {
    const away = [pot(2, -1), pot(-9, 2), pot(2, 20)]
    expect(seen([], { ...nothing, pots: away }).beyond).toEqual([])
    const near = nearBehind(outline, [standpoint], { ...nothing, pots: [...away, pot(2, 5)] })
    expect(near.pots).toEqual([pot(2, 5)])
    // From the other side it is what stands before it that is behind.
    const back = nearBehind(outline, [{ ...standpoint, fromDeg: 0 }], { ...nothing, pots: away })
    expect(back.pots).toEqual([away[0]])
  })

  it('has its ground where that is seen, and none of beds that lie elsewhere', () => {
    const bed = (y: number): Point[] => [[2, y], [6, y], [6, y + 2], [2, y + 2]] // prettier-ignore
    const { bedsBeyond } = seen([], { ...nothing, beds: [bed(5), bed(-4), bed(30)] }).ground
    // One that reaches far to both sides is there all the same.
    const long: Point[] = [[-40, 4], [40, 4], [40, 6], [-40, 6]] // prettier-ignore
    expect(seen([], { ...nothing, beds: [long] }).ground.bedsBeyond).toHaveLength(1)
    // Its front edge is 5 m behind that of the bed: half as wide, its middle straight ahead.
    expect(bedsBeyond).toHaveLength(1)
    expect(bedsBeyond[0]![0]![0]).toBeCloseTo(-1)
    expect(bedsBeyond[0]![1]).toEqual([expect.closeTo(1), expect.closeTo(EYE_M / 2)])
  })

  it('is hidden by a wall before it as far as a line of sight over that says', () => {
    const before = (heightM: number) =>
      seen([upright('wall', heightM, [0, 4], [8, 4])], { ...nothing, plants: [potted] })
    // From the eye at 1.6 m over a wall at 9 m to a plant at 10 m: hidden below 1.6 + (h − 1.6) · 10/9.
    for (const heightM of [0.3, 0.6, 0.9]) {
      const [b] = before(heightM).beyond
      const hidden = (b!.hiddenBelow - EYE_M / 2) / 0.5
      expect(hidden).toBeCloseTo(1.6 + ((heightM - 1.6) * 10) / 9)
    }
    expect(before(2).beyond).toEqual([])
    // What is behind it, or ends beside the line of sight, hides nothing.
    for (const wall of [upright('wall', 3, [0, 6], [8, 6]), upright('wall', 3, [5, 4], [8, 4])])
      expect(seen([wall], { ...nothing, pots: [pot(2, 5)] }).beyond[0]!.hiddenBelow).toBe(-Infinity)
  })

  it('is what the plan and the record of the other places say', () => {
    const at = (
      id: string,
      kind: Feature['kind'],
      geometry: Feature['geometry'],
      properties: object,
    ): Feature => ({
      id,
      kind,
      name: id,
      from: null,
      to: null,
      geometry,
      properties: { ...properties },
    })
    const square = (x: number): Feature['geometry'] => ({
      type: 'Polygon',
      coordinates: [[[x, 0], [x + 2, 0], [x + 2, 2], [x, 2], [x, 0]]], // prettier-ignore
    })
    const features = [
      at('own', 'bed', square(0), {}),
      at('other', 'bed', square(5), {}),
      at('trough', 'container', { type: 'Point', coordinates: [1, 4] }, { shape: 'box', widthM: 0.3, lengthM: 1, rimHeightM: 0.45 }), // prettier-ignore
    ]
    const plantings = ['own', 'other', 'trough'].map((placeId) =>
      madePlanting(placeId, 'Lavandula angustifolia', { placeId, livingCount: 3, x: 1, y: 1 }),
    )
    const { beds, pots, plants } = beyondOf(features, plantings, 'own', '2026-06-01')
    expect(beds).toEqual([[[5, 0], [7, 0], [7, 2], [5, 2]]]) // prettier-ignore
    // Its walls are those of fired clay, a hundredth and a fiftieth of what it is across, on both sides.
    const wall = 0.01 + 0.02 * 0.3
    expect(pots).toEqual([
      {
        id: 'trough',
        x: 1,
        y: 4,
        rimHeightM: 0.45,
        look: {
          shape: 'box',
          acrossM: expect.closeTo(1 + 2 * wall),
          footM: expect.closeTo(1 + 2 * wall),
          highM: expect.closeTo(0.45),
          material: undefined,
        },
      },
    ])
    expect(plants.map((p) => [p.groupId, p.surfaceM])).toEqual([
      ...Array.from({ length: 3 }, () => ['other', undefined]),
      ...Array.from({ length: 3 }, () => ['trough', 0.45]),
    ])
  })
})
