import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { london as climate } from '../climate/test/london.ts'
import { madeBed, madePot, rectangle } from '../garden/test/made.ts'
import type { Place } from '../garden/index.ts'
import { colourFollowsSoil, library, type ColourWish } from '../plants/index.ts'
import { careJobs, careRules, colourOutlook } from './index.ts'
import { careGarden, caredPlanting } from './test/cared.ts'

describe('a wish for a colour', () => {
  const border = (more: object) => madeBed('bed', rectangle(0, 0, 6, 2), more)
  const jobs = (wish: ColourWish | null, place: Place, kind = 'Hydrangea macrophylla') =>
    careJobs(
      careGarden(climate, [caredPlanting('a', kind, { colourWish: wish, placeId: place.id })], {
        places: [place],
        rules: careRules,
      }),
      '2026-11-20',
      '2027-11-20',
    ).filter((j) => /colour|blue|pink/.test(j.ruleId ?? ''))
  const ids = (...of: Parameters<typeof jobs>) => [...new Set(jobs(...of).map((j) => j.ruleId))].toSorted()

  it('begins with a test where there was none, and tells no dose before', () => {
    expect(ids('blue', border({}))).toEqual(['test-for-colour'])
    expect(ids('pink', border({}))).toEqual(['test-for-colour'])
    for (const j of jobs('blue', border({}))) expect(j.materials).toEqual([])
    expect(colourOutlook('blue', border({})).stands).toBe('not tested')
  })

  it('asks for sulphur by the test and aluminium for blue, lime for pink, and nothing where it is so', () => {
    const loam = border({ ph: 6.3, texture: 'loam' })
    expect(ids('blue', loam)).toEqual(['aluminium-for-blue', 'sulphur-for-blue'])
    const [sulphur] = jobs('blue', loam).filter((j) => j.ruleId === 'sulphur-for-blue')
    expect(sulphur!.steps.join(' ')).toMatch(/pH 6\.3 and is to have 5\.3: 110 g of sulphur/)
    expect(Number(sulphur!.window.bestFrom.slice(5, 7))).toBeLessThan(6)
    expect(ids('blue', border({ ph: 5.2 }))).toEqual(['aluminium-for-blue'])
    expect(ids('pink', border({ ph: 5.2 }))).toEqual(['lime-for-pink'])
    expect(ids('pink', loam)).toEqual([])
    expect(ids(null, loam)).toEqual([])
  })

  it('cannot be had in limy ground, and that is said; in a pot it can', () => {
    for (const limy of [border({ ph: 7.6 }), border({ texture: 'chalk' })]) {
      expect(colourOutlook('blue', limy)).toMatchObject({ stands: 'not here' })
      expect(ids('blue', limy)).not.toContain('sulphur-for-blue')
      expect(ids('blue', limy)).not.toContain('aluminium-for-blue')
    }
    expect(ids('blue', madePot('pot', 0, 0))).toEqual(['aluminium-for-blue-in-pots'])
  })

  it('is nothing to kinds whose flowers do not follow the soil', () => {
    const follow = library.filter(colourFollowsSoil).map((t) => t.botanical)
    expect(follow).toContain('Hydrangea macrophylla')
    expect(follow.every((name) => name.startsWith('Hydrangea'))).toBe(true)
    expect(ids('blue', border({ ph: 6.3 }), 'Hydrangea paniculata')).toEqual([])
  })

  it('a soil nearer to what is wished is never said to be further from it', () => {
    const order = ['not here', 'can be had', 'as wished']
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 8.5, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (at, by) => {
          const rank = (wish: ColourWish, p: number) =>
            order.indexOf(colourOutlook(wish, border({ ph: p })).stands)
          expect(rank('blue', at - by)).toBeGreaterThanOrEqual(rank('blue', at))
          expect(rank('pink', at + by)).toBeGreaterThanOrEqual(rank('pink', at))
        },
      ),
    )
  })
})
