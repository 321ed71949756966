import { describe, expect, it } from 'vitest'
import type { StandingGarden } from '../garden/index.ts'
import { madeBed, madePlanting, madePot } from '../garden/test/made.ts'
import { extentOf } from '../geometry/index.ts'
import { fieldsBetween, hoursWithin } from '../light/index.ts'
import { sampleScene } from '../../simulated/index.ts'
import { seededRandom } from '../random/index.ts'
import { gardenLight, joinLight, lightParts } from './index.ts'

const THEN = '2021-07-01'
const NOW = '2026-07-01'

/** South of all the beds; it went between the two days. */
const goneWall = {
  id: 'gone',
  name: 'gone wall',
  kind: 'wall',
  line: [
    [0, -0.5],
    [14, -0.5],
  ],
  heightM: 3,
  transmission: 0,
  thicknessM: 0,
  to: '2024-03-01',
} as const

/** A seeded garden: two plantings in each bed, one in a pot and one in a bed that is no more. */
function seededGarden(seed: number): StandingGarden {
  const { scene, beds } = sampleScene(seed, 12, 60)
  const random = seededRandom(seed)
  const places = [
    ...beds.map((ring, k) =>
      madeBed(`bed${k}`, ring, k === 3 ? { ground: { slopeDeg: 12, aspectDeg: 200 } } : {}),
    ),
    madePot('pot', -1, -1),
  ]
  const within = (from: number, to: number) => from + (0.2 + 0.6 * random()) * (to - from)
  const plantings = beds.flatMap((ring, k) => {
    const e = extentOf(ring)
    return ['a', 'b'].map((name) =>
      madePlanting(`${name}${k}`, 'Lavandula angustifolia', {
        placeId: `bed${k}`,
        x: within(e.minX, e.maxX),
        y: within(e.minY, e.maxY),
        radiusM: 0.2 + 0.6 * random(),
      }),
    )
  })
  return {
    scene: { ...scene, obstructions: [...scene.obstructions, goneWall] },
    places,
    plantings: [
      ...plantings,
      madePlanting('potted', 'Lavandula angustifolia', { placeId: 'pot', x: -1, y: -1 }),
      madePlanting('lost', 'Lavandula angustifolia', { placeId: 'a bed that went', x: 3, y: -1 }),
    ],
  }
}

describe('the light of a garden in parts', () => {
  it.each([3, 14, 159])('joined is that of the whole, however many parts (seed %i)', (seed) => {
    const garden = seededGarden(seed)
    const whole = gardenLight(garden, THEN, NOW)
    expect(whole.plantings.some((p) => p.causes.length > 0)).toBe(true)
    for (const most of [1, 2, 3, 9]) {
      const parts = lightParts(garden, most)
      expect(parts.flatMap((p) => p.places).length).toBe(garden.places.length)
      const joined = joinLight(
        garden,
        parts.map((part) => gardenLight(part, THEN, NOW)),
      )
      expect(joined).toEqual(whole)
    }
  })

  it('shares the ground out evenly, and a garden without places is one part', () => {
    const ground = lightParts(seededGarden(3), 2).map((p) =>
      p.places.reduce((sum, place) => sum + (place.kind === 'bed' ? place.areaM2 : 0), 0),
    )
    expect(Math.abs(ground[0]! - ground[1]!)).toBeLessThanOrEqual(15)
    const bare = { ...seededGarden(3), places: [] }
    expect(lightParts(bare, 2)).toEqual([bare])
  })
})

describe('the light of a bed', () => {
  it.each([26, 535])('is the same to the last digit whatever beds are drawn beside it (seed %i)', (seed) => {
    const { scene, places, plantings } = seededGarden(seed)
    const all = fieldsBetween(scene, places, THEN, NOW)
    for (const p of plantings.filter((q) => q.placeId === 'bed1')) {
      const alone = fieldsBetween(
        scene,
        places.filter((place) => place.id === 'bed1'),
        THEN,
        NOW,
      )
      const ground = { x: p.x, y: p.y, radiusM: p.radiusM! }
      for (const day of ['before', 'now'] as const)
        expect(hoursWithin(alone[day], 'bed1', ground)).toEqual(hoursWithin(all[day], 'bed1', ground))
    }
  })
})
