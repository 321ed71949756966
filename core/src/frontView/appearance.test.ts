import { describe, expect, it } from 'vitest'
import { addDays } from '../dates/index.ts'
import { isWoody, library, usualBloom, USUAL_YEAR } from '../plants/index.ts'
import { appearanceOn } from './index.ts'

const named = (botanical: string) => library.find((t) => t.botanical.startsWith(botanical))!
const on = (botanical: string, day: string) => appearanceOn(named(botanical), day, USUAL_YEAR)
const days = Array.from({ length: 122 }, (_, i) => addDays('2026-01-01', 3 * i))

describe('what there is to see of a plant', () => {
  it('is made of shares, on every day of the year, of every kind', () => {
    for (const t of library)
      for (const day of days) {
        const { isStraw: _, isDull: __, ...shares } = appearanceOn(t, day, USUAL_YEAR)
        for (const [what, share] of Object.entries(shares))
          if (!(share >= 0 && share <= 1)) throw new Error(`${t.botanical} on ${day}: ${what} ${share}`)
      }
  })

  it('has flowers on just the days on which its bloom usually is', () => {
    for (const t of library)
      for (const day of days) {
        const blooms = [2025, 2026].some((s) => {
          const bloom = usualBloom(t, s, USUAL_YEAR)
          return bloom && bloom.from <= day && day <= bloom.to
        })
        if (blooms !== appearanceOn(t, day, USUAL_YEAR).flower > 0)
          throw new Error(`${t.botanical} on ${day}`)
      }
  })

  it('never leaves what is woody or evergreen without anything to see', () => {
    for (const t of library.filter((o) => isWoody(o)))
      for (const day of days) expect(appearanceOn(t, day, USUAL_YEAR).height).toBe(1)
  })

  it('grows and goes by little from one day to the next', () => {
    for (const t of library.filter((o) => !o.standsWinter && o.lifeForm === 'perennial'))
      for (const day of days) {
        const [a, b] = [day, addDays(day, 1)].map((d) => appearanceOn(t, d, USUAL_YEAR))
        if (Math.abs(a!.leaf - b!.leaf) > 0.2 && b!.height > 0) throw new Error(`${t.botanical} on ${day}`)
      }
  })

  it('is by the season: a hosta gone in January, a beech bare, a yew green, a grass straw', () => {
    expect(on('Hosta sieboldiana', '2026-01-20').height).toBe(0)
    expect(on('Hosta sieboldiana', '2026-06-20')).toMatchObject({ leaf: 1 })
    expect(on('Hydrangea paniculata', '2026-01-20')).toMatchObject({ height: 1, leaf: 0 })
    expect(on('Taxus baccata', '2026-01-20')).toMatchObject({ height: 1, leaf: 1, turned: 0 })
    expect(on('Miscanthus sinensis', '2026-01-20')).toMatchObject({ isStraw: true, heads: 1 })
    // In the south the same half a year on.
    const south = { ...USUAL_YEAR, south: true }
    expect(appearanceOn(named('Hosta sieboldiana'), '2026-07-20', south).height).toBe(0)
    expect(appearanceOn(named('Hosta sieboldiana'), '2026-12-20', south).leaf).toBe(1)
  })
})
