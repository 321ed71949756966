import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  dappledShare,
  lightClass,
  lightDays,
  lightWords,
  sunHours,
  type Obstruction,
  type SunHours,
} from './index.ts'

const sun = (morning: number, midday: number, afternoon: number, heat = 0): SunHours => ({
  total: morning + midday + afternoon,
  morning,
  midday,
  afternoon,
  heat,
})

describe('light in words', () => {
  it.each([
    ['full sun', sun(3, 4, 3, 2)],
    ['morning sun', sun(4, 0.5, 0)],
    ['midday sun', sun(0.2, 3, 0.3)],
    ['afternoon sun', sun(0, 0.3, 3, 1)],
    ['hot afternoon sun', sun(0, 0.8, 4, 2.8)],
    ['part sun', sun(2, 1.5, 1.5, 1)],
    ['shade', sun(1, 0, 0)],
  ])('is %s', (words, hours) => {
    expect(lightWords(hours)).toBe(words)
  })

  it('is dappled where it comes mostly through leaves, and not beside a wall', () => {
    const site = { latitudeDeg: 50, longitudeDeg: 8, northDeg: 0 }
    const tree: Obstruction = {
      id: 't',
      name: 't',
      kind: 'tree',
      x: 0,
      y: 0,
      heightM: 12,
      trunkRadiusM: 0.1,
      clearStemM: 2,
      crownRadiusM: 10,
      crownShape: 'column',
      transmissionInLeaf: 0.3,
      transmissionBare: 0.7,
    }
    const wall: Obstruction = {
      id: 'w',
      name: 'w',
      kind: 'wall',
      line: [
        [-30, -2],
        [30, -2],
      ],
      heightM: 6,
      thicknessM: 0.2,
      transmission: 0,
    }
    const at = (o: Obstruction, x: number) => {
      const scene = { ...site, obstructions: [o] }
      const season = { kind: 'season', on: '2026-06-15' } as const
      const point = { x, y: 0, z: 0 }
      const share = dappledShare(lightDays(scene, season), point)
      return { share, words: lightWords(sunHours(scene, [point], season)[0]!, share) }
    }
    expect(at(tree, 2).share).toBeGreaterThan(0.5)
    expect(at(tree, 2).words).toMatch(/dappled/)
    expect(at(tree, 40)).toMatchObject({ words: 'full sun' })
    expect(at(wall, 0).share).toBe(0)
    expect(at({ ...tree, transmissionInLeaf: 0, transmissionBare: 0 }, 2).share).toBe(0)
  })

  it('is the class of the hours wherever no part of the day has most of them', () => {
    const part = fc.double({ min: 0, max: 4, noNaN: true })
    fc.assert(
      fc.property(part, part, part, (a, b, c) => {
        const hours = sun(a, b, c)
        const words = lightWords(hours)
        if (Math.max(a, b, c) < 0.75 * hours.total) expect(words).toBe(lightClass(hours.total))
        if (hours.total < 2) expect(words).toBe('shade')
      }),
    )
  })
})
