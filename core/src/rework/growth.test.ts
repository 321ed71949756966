import { describe, expect, it } from 'vitest'
import { library } from '../plants/index.ts'
import { grownTo, grownWords, milestones, sizeAt } from './index.ts'

describe('what a bed has grown to', () => {
  const kinds = library.filter((t) => t.lifeForm === 'perennial').slice(0, 40)

  it('only goes on: what touches has touched, what has closed stays closed, what wants dividing wants it still', () => {
    const years = [0, 1, 2, 3, 5, 10]
    const told = years.map((y) => grownTo(kinds, y))
    told.slice(1).forEach((now, i) => {
      const before = told[i]!
      for (const k of before.closed) expect(now.closed).toContain(k)
      for (const k of before.touching) expect([...now.touching, ...now.closed]).toContain(k)
      for (const k of before.dividing) expect(now.dividing).toContain(k)
      expect(now.apart.length + now.touching.length + now.closed.length).toBe(kinds.length)
    })
  })

  it('touches when its spread has come to its spacing, by the size that it has then', () => {
    for (const t of kinds) {
      const { touchYears } = milestones(t, t.spacingM)
      if (touchYears === null || touchYears === 0) continue
      expect(sizeAt(t, touchYears).spreadM).toBeGreaterThanOrEqual(t.spacingM)
      expect(grownTo([t], touchYears - 0.25).apart).toEqual([t.common])
    }
  })

  it('names a kind once, and is told in a sentence', () => {
    const [a, b] = kinds
    const { apart, touching, closed } = grownTo([a!, a!, b!], 3)
    expect(apart.length + touching.length + closed.length).toBe(2)
    const words = { apart: ['yew'], touching: ['phlox', 'aster'], closed: ['catmint'], dividing: ['phlox'] }
    expect(grownWords(words)).toBe(
      '1 of 4 kinds has closed, 2 just touch, 1 still stands apart; phlox wants dividing',
    )
    expect(grownWords({ apart: [], touching: [], closed: [], dividing: [] })).toBe('nothing is planted yet')
  })
})
