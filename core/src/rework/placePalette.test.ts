import { describe, expect, it } from 'vitest'
import { london } from '../climate/test/london.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { library } from '../plants/index.ts'
import { isEvergreen, offeredFor, trayFor, wishesFor, type PlaceToPlant, type PlaceWishes } from './index.ts'
import { bed, box, sited } from './test/site.ts'

const garden = { ...sited([bed('Open', box(0, 0, 6, 2))], london), climate: london }
const place: PlaceToPlant = { garden, of: garden.places[0]!, isSouthern: false, on: '2026-09-01', stays: [] }
const wished: PlaceWishes = { drifts: 'odd', tallestM: 2, kinds: { least: 4, most: 9 } }
const stays = [{ taxon: taxonNamed('Helenium autumnale'), areaM2: 3 }]

describe('a place to be planted anew', () => {
  it('has the ground that what stays leaves, for the season in which what is decided is planted', () => {
    expect(wishesFor({ ...place, stays }, wished)).toMatchObject({ areaM2: 9, season: 2027 })
    expect(wishesFor({ ...place, stays }, { ...wished, areaM2: 4 })!.areaM2).toBe(4)
    expect(wishesFor({ ...place, stays: [{ taxon: stays[0]!.taxon, areaM2: 12 }] }, wished)).toBeUndefined()
  })

  it('is offered what one has of a kind before what is bought of it', () => {
    const have = [{ taxon: taxonNamed('Nepeta × faassenii'), from: 'bench' as const, price: 0, most: 4 }]
    const offered = offeredFor(place, have, library, (kind) => kind.length)
    const nepeta = offered.filter((o) => o.taxon.botanical === 'Nepeta × faassenii')
    expect(nepeta).toEqual([{ ...have[0], fit: nepeta[0]!.fit }])
    const bought = offered.filter((o) => o.taxon.botanical !== 'Nepeta × faassenii')
    expect(bought.length).toBeGreaterThan(20)
    for (const o of bought) expect(o).toMatchObject({ from: 'library', price: o.taxon.botanical.length })
  })

  it('has its tray by what each would bring: never what is in it, weeks that are bare, layers that it lacks', () => {
    const wishes = wishesFor({ ...place, stays }, wished)!
    const offered = offeredFor(place, [], library, () => null)
    const chosen = [{ taxon: taxonNamed('Geranium macrorrhizum'), count: 9 }]
    const tray = trayFor(offered, chosen, wishes)
    expect(tray.map((t) => t.candidate.taxon.botanical)).not.toContain('Geranium macrorrhizum')
    for (const [i, t] of tray.slice(1).entries()) expect(t.gain).toBeLessThanOrEqual(tray[i]!.gain)
    const named = (list: typeof tray) => list.map((t) => t.candidate.taxon.botanical)
    expect(tray.some((t) => t.candidate.taxon.lifeForm === 'annual')).toBe(false)
    expect(named(trayFor(offered, chosen, { ...wishes, barred: [named(tray)[0]!] }))).toEqual(
      named(tray).slice(1),
    )
    const winter = tray.find((t) => t.fillsWeeks.includes(0))
    // The first weeks of a year have nothing of these two.
    expect(winter?.gain).toBeGreaterThan(0)
    const evergreen = tray.find((t) => t.brings.includes('evergreen'))
    if (evergreen) expect(isEvergreen(evergreen.candidate.taxon)).toBe(true)
    // Both grow to more than a third of two metres, or less: whatever layer they have is not brought again.
    expect(tray.some((t) => t.brings.includes('back') && t.candidate.taxon.heightM > 2 / 3)).toBe(true)
    expect(trayFor(offered, [], wishes)[0]!.gain).toBeGreaterThanOrEqual(tray[0]!.gain)
  })
})
