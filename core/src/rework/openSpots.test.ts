import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { groundOf, groundRadiusM, groundTakenBy, type Planting } from '../garden/index.ts'
import { madePlanting } from '../garden/test/made.ts'
import { distanceToBoundary, isInside, metresOutside } from '../geometry/index.ts'
import { highsSolver } from '../search/index.ts'
import { openSpots, relocate, relocationOf } from './index.ts'
import { bed, box, sited } from './test/site.ts'

const solve = highsSolver(await loadHighs())
/** An open bed and one that a house shades for most of the day. */
const sunny = bed('Sunny', box(0, 0, 6, 3))
const garden = sited([sunny, bed('Tall shade', box(0, 8.2, 6, 10), { moisture: 'moist' })])
const stands = (id: string, botanical: string, x: number, y: number, more: Partial<Planting> = {}) =>
  madePlanting(id, botanical, { placeId: 'Sunny', x, y, livingCount: 3, plantedCount: 3, ...more })
const standing = [
  stands('N-1', 'Helenium autumnale', 1.5, 1.5),
  stands('N-2', 'Hosta sieboldiana', 4.2, 1.5),
  stands('N-3', 'Astrantia major', 3, 8.9, { placeId: 'Tall shade' }),
]

describe('ground that is open', () => {
  const leaving = [standing[1]!]
  const stays = [standing[0]!, standing[2]!]
  const spots = openSpots(garden, leaving, stays.map(groundTakenBy))

  it('is what leaves gives up, and rounds that lie free beside what stays, inside their bed and apart', () => {
    expect(spots[0]).toMatchObject({ vacatedBy: 'N-2', x: 4.2, y: 1.5, radiusM: groundRadiusM(leaving[0]!) })
    const free = spots.slice(1)
    expect(free.length).toBeGreaterThan(2)
    free.forEach((s, i) => {
      const ring = s.place.kind === 'bed' ? s.place.ring : []
      expect(isInside(ring, s.x, s.y)).toBe(true)
      expect(distanceToBoundary(ring, s.x, s.y)).toBeGreaterThanOrEqual(s.radiusM - 1e-9)
      for (const p of standing)
        if (p.placeId === s.place.id)
          expect(metresOutside(groundOf(p), s.x, s.y)).toBeGreaterThanOrEqual(s.radiusM - 1e-9)
      for (const other of free.slice(0, i))
        if (other.place === s.place)
          expect(Math.hypot(s.x - other.x, s.y - other.y)).toBeGreaterThanOrEqual(
            s.radiusM + other.radiusM - 1e-9,
          )
      expect(s.radiusM).toBeLessThanOrEqual(free[0]!.radiusM + 1e-9)
    })
  })

  it('is none where nothing leaves', () => {
    expect(openSpots(garden, [], standing.map(groundTakenBy))).toEqual([])
  })
})

describe('a garden’s relocation', () => {
  it('sends what leaves where it does well, and says how', () => {
    const { problem, suitingOf, spots } = relocationOf(garden, standing, new Set(['N-1', 'N-3']))
    expect(problem.leaving.map((l) => l.id)).toEqual(['N-1', 'N-3'])
    expect(spots.filter((s) => s.vacatedBy).map((s) => s.vacatedBy)).toEqual(['N-1', 'N-3'])
    const found = relocate(problem, solve)
    if (!found.ok) throw new Error(found.why)
    for (const { plantingId, destination } of found.destinations) {
      if (destination.to !== 'spot') continue
      const planting = standing.find((p) => p.id === plantingId)!
      const suiting = suitingOf(planting, destination)!
      expect(suiting.score).toBeGreaterThanOrEqual(0.6)
      const at = spots.findIndex((s) => s.id === destination.spotId)
      const turn = problem.leaving.findIndex((l) => l.id === plantingId)
      expect(problem.fit[turn]![at]).toBeCloseTo(suiting.score)
    }
    expect(suitingOf(standing[0]!, { to: 'bench' })).toBeUndefined()
  })

  it('sends nothing back to the place that it leaves, unless somebody has decided so', () => {
    const { problem, spots } = relocationOf(garden, standing, new Set(['N-2']))
    const own = spots.filter((s) => s.place.id === 'Sunny')
    expect(own.length).toBeGreaterThan(0)
    const [fit] = problem.fit
    for (const s of own) expect(fit![spots.indexOf(s)]).toBe(0)
    const found = relocate(problem, solve)
    const went = found.ok ? found.destinations[0]!.destination : undefined
    expect(own.map((s) => s.id)).not.toContain(went?.to === 'spot' ? went.spotId : undefined)
    const decided = { 'N-2': { to: 'spot' as const, spotId: own.find((s) => !s.vacatedBy)!.id } }
    expect(relocate({ ...problem, decided }, solve).ok).toBe(true)
  })
})
