import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import type { Point } from '../geometry/index.ts'
import { USUAL_YEAR } from '../plants/index.ts'
import { seededRandom } from '../random/index.ts'
import {
  EYE_M,
  frontView,
  seenShares as sharesBy,
  type FrontView,
  type Standpoint,
  type StandingPlant,
} from './index.ts'

const outline: Point[] = [[0, 0], [8, 0], [8, 3], [0, 3]] // prettier-ignore
const standpoint: Standpoint = { fromDeg: 180, awayM: 5, eyeM: EYE_M }
const july = { on: '2026-07-20', year: USUAL_YEAR, years: 3 }
const plant = (groupId: string, botanical: string, x: number, y: number): StandingPlant => ({
  id: `${groupId} ${x} ${y}`,
  groupId,
  taxon: taxonNamed(botanical),
  x,
  y,
  ageYears: 0,
})
const viewOf = (plants: StandingPlant[], at = standpoint, when = july) =>
  frontView(outline, plants, at, when, { features: [] })

const seenShares = (view: FrontView) => sharesBy(view, (p) => p.groupId)

const kinds = ['Helenium autumnale', 'Nepeta × faassenii', 'Phlox paniculata', 'Digitalis purpurea', 'Miscanthus sinensis', 'Hosta sieboldiana', 'Hydrangea paniculata'] // prettier-ignore
const drawn = (seed: number, many: number) => {
  const random = seededRandom(seed)
  return Array.from({ length: many }, (_, i) =>
    plant(`g${i % 9}`, kinds[i % kinds.length]!, 8 * random(), 3 * random()),
  )
}

/**
 * The same by rays in space: from the eye through random points of each part of a plant, as an upright disc where it stands, to the
 * nearest leaves that it meets.
 */
function byRays({ plants }: FrontView, at: Standpoint, random: () => number, rays: number) {
  const middleX = 4
  const flat = plants.map((p) => ({ ...p, lateral: p.plant.x - middleX, away: at.awayM + p.plant.y }))
  const isHidden = (lateral: number, high: number, away: number, self: string) =>
    flat.some((o) => {
      if (o.away >= away || o.plant.id === self || !o.body.leaves) return false
      // Where the ray from the eye crosses the plane of the other plant.
      const share = o.away / away
      const x = share * lateral
      const h = at.eyeM + share * (high - at.eyeM)
      const { from, to, halfWidth } = o.body.leaves
      const t = (h / o.body.heightM - from) / (to - from)
      return t >= 0 && t <= 1 && Math.abs(x - o.lateral) <= (o.body.spreadM * halfWidth(t)) / 2
    })
  const counted = new Map<string, Record<'leaves' | 'flowers', [seen: number, all: number]>>()
  for (const p of flat)
    for (const what of ['leaves', 'flowers'] as const) {
      const part = p.body[what]
      if (!part) continue
      const { from, to, halfWidth } = part
      const areaShare = (p.body.heightM * (to - from) * p.body.spreadM) / p.away ** 2
      const of = counted.get(p.plant.groupId) ?? { leaves: [0, 0], flowers: [0, 0] }
      counted.set(p.plant.groupId, of)
      // As many rays as it is large for the eye.
      for (let i = 0; i < rays * areaShare; i++) {
        const t = random()
        const u = 2 * random() - 1
        if (Math.abs(u) > halfWidth(t)) continue
        of[what][1]++
        const lateral = p.lateral + (u * p.body.spreadM) / 2
        const high = p.body.heightM * (from + t * (to - from))
        if (!isHidden(lateral, high, p.away, p.plant.id)) of[what][0]++
      }
    }
  return counted
}

describe('a bed as it is seen', () => {
  it('is a central projection: what is as tall as the eye reaches the horizon wherever it stands, and twice as far is half as wide', () => {
    const at = (y: number) => viewOf([plant('a', 'Helenium autumnale', 6, y)]).plants[0]!
    const [front, back] = [at(0), at(3)]
    expect(front.scale).toBe(1)
    // Five metres away and three more: five eighths, by similar triangles.
    expect(back.scale).toBeCloseTo(5 / 8)
    expect(back.x).toBeCloseTo((5 / 8) * front.x)
    for (const p of [front, back]) expect(p.y + p.scale * EYE_M).toBeCloseTo(EYE_M)
  })

  it('lies the other way round from behind, and across from the side', () => {
    const left = plant('a', 'Helenium autumnale', 1, 1.5)
    const fromBehind = viewOf([left], { ...standpoint, fromDeg: 0 }).plants[0]!
    expect(Math.sign(fromBehind.x)).toBe(1)
    expect(Math.sign(viewOf([left]).plants[0]!.x)).toBe(-1)
    // From the right, one metre from the left end is seven metres behind the front.
    const fromRight = viewOf([left], { ...standpoint, fromDeg: 90 }).plants[0]!
    expect(fromRight.depthM).toBeCloseTo(5 + 7)
  })

  it('has its far plants first, and none that is not to be seen', () => {
    const view = viewOf(drawn(3, 60))
    const depths = view.plants.map((p) => p.depthM)
    expect(depths).toEqual(depths.toSorted((a, b) => b - a))
    expect(
      viewOf([plant('a', 'Hosta sieboldiana', 1, 1)], standpoint, { ...july, on: '2026-01-10' }).plants,
    ).toEqual([])
  })

  it('grows from year to year', () => {
    const heights = [1, 2, 3, 5, 10].map(
      (years) =>
        viewOf([plant('a', 'Hydrangea paniculata', 4, 1)], standpoint, { ...july, years }).plants[0]!.body
          .heightM,
    )
    expect(heights).toEqual(heights.toSorted((a, b) => a - b))
    expect(heights.at(-1)! / heights[0]!).toBeGreaterThan(1.5)
  })
})

describe('how much of a drift is seen', () => {
  it('is all of what stands alone, and nothing of what stands close behind what is larger', () => {
    const shares = seenShares(
      viewOf([
        plant('low', 'Nepeta × faassenii', 4, 1.2),
        plant('tall', 'Miscanthus sinensis', 4, 1),
        plant('alone', 'Helenium autumnale', 7, 1),
      ]),
    )
    expect(shares.get('alone')).toEqual({
      leaves: 1,
      flowers: shares.get('alone')!.flowers === null ? null : 1,
    })
    expect(shares.get('tall')!.leaves).toBe(1)
    expect(shares.get('low')!.leaves).toBeLessThan(0.35)
  })

  it.each([11, 12, 13, 14, 15])('agrees with rays counted in space within two points: bed %i', (seed) => {
    const view = viewOf(drawn(seed, 90))
    const shares = seenShares(view)
    const counted = byRays(view, standpoint, seededRandom(seed + 100), 60_000)
    let compared = 0
    for (const [id, of] of counted)
      for (const what of ['leaves', 'flowers'] as const) {
        const [seen, all] = of[what]
        if (all < 2500) continue
        compared++
        const share = shares.get(id)![what]!
        if (Math.abs(share - seen / all) > 0.02)
          throw new Error(`${id} ${what}: ${share} by cells, ${seen / all} by ${all} rays`)
      }
    expect(compared).toBeGreaterThan(9)
  })

  it('is never more for a plant more before it, and the same with one behind all of them', () => {
    for (const seed of [21, 22, 23]) {
      const plants = drawn(seed, 40).map((p) => ({ ...p, y: 0.6 + 0.6 * p.y }))
      const before = seenShares(viewOf(plants))
      const with1 = (y: number) => seenShares(viewOf([...plants, plant('more', 'Miscanthus sinensis', 4, y)]))
      const nearer = with1(0.1)
      const farther = with1(3)
      for (const [id, { leaves }] of before) {
        if (leaves === null) continue
        expect(nearer.get(id)!.leaves!).toBeLessThanOrEqual(leaves + 1e-9)
        expect(farther.get(id)!.leaves!).toBeCloseTo(leaves, 9)
      }
    }
  })
})
