import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { london } from '../climate/test/london.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { isWoody, library } from '../plants/index.ts'
import { suits, suitScore, whereItSuits, type Station } from './index.ts'
import { sited } from './test/site.ts'

const garden = sited(undefined, london)
const stationed = (name: string) => garden.places.find((p) => p.place.name === name)!
const open = stationed('Open')
const foot = stationed('Foot')
const nearest = (x: number, y: number, { stations } = open): Station =>
  stations.reduce((a, b) => (Math.hypot(b.x - x, b.y - y) < Math.hypot(a.x - x, a.y - y) ? b : a))
const at = (name: string, x: number, y: number, of = open) =>
  suits(taxonNamed(name), of.place, nearest(x, y, of), garden)

const anyKind = fc.constantFrom(...library)
const anyStation = fc.constantFrom(...open.stations, ...foot.stations)

describe('stations of a place', () => {
  it('lie half a metre apart inside it and stand for all of its ground', () => {
    for (const { place, stations, stationM2 } of garden.places) {
      expect(stations.length * stationM2).toBeCloseTo(place.areaM2)
      expect(stationM2).toBeGreaterThan(0.2)
      expect(stationM2).toBeLessThan(0.3)
    }
    expect(nearest(4, 2).edgeM).toBeCloseTo(2, 0)
  })

  it('know what is above, beside and below them', () => {
    expect(nearest(5, 9.7, foot)).toMatchObject({ eaves: { name: 'House' }, windows: [{ sillM: 0.9 }] })
    expect(nearest(5, 8.2, foot).eaves).toBeUndefined()
    expect(nearest(8, 2).buried).toMatchObject({ name: 'Cable' })
    expect(nearest(8, 2).buried!.awayM).toBeLessThan(0.3)
    expect(nearest(-0.7, 2).wallM).toBeLessThan(0.6)
  })
})

describe('how a kind would do at a spot', () => {
  it('is well where nothing limits it', () => {
    expect(at('Helenium autumnale', 4, 2)).toMatchObject({ score: 1, limiting: 'none' })
  })

  it('names what does: edge, wall, eaves, windows, a cable, nothing to climb on', () => {
    const reasons = [
      at('Cotinus coggygria', 4, 0.2),
      at('Cotinus coggygria', -0.7, 2),
      at('Cotinus coggygria', 5, 9.8, foot),
      at('Hemerocallis fulva', 5, 9.8, foot),
      at('Helenium autumnale', 8, 2),
      at('Trachelospermum jasminoides', 4, 2),
    ]
    expect(reasons.map((r) => r.limiting)).toEqual(['edge', 'edge', 'eaves', 'window', 'buried', 'wall'])
    expect(reasons[0]!.reason).toMatch(/from the edge, and it wants \d+ cm: half its spread/)
    expect(reasons[2]).toMatchObject({
      score: 0,
      reason: expect.stringContaining('eaves of House are at 2.4 m'),
    })
    expect(reasons[4]).toMatchObject({
      score: 0,
      reason: expect.stringContaining('Cable lies in the ground'),
    })
    expect(reasons[5]!.reason).toBe('nothing to climb on')
  })

  it('is the worst of all that bears on it, and never better for a smaller bed, a nearer wall, lower eaves or a cable', () => {
    fc.assert(
      fc.property(
        anyKind,
        anyStation,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (taxon, station, share) => {
          const score = suitScore(taxon, station)
          const told = suits(taxon, open.place, station, garden)
          expect(told.limiting === 'place' ? 0 : score).toBeCloseTo(told.score)
          expect(told.reason).not.toBe('')
          const nearer = (change: Partial<Station>) => suitScore(taxon, { ...station, ...change })
          expect(nearer({ edgeM: share * station.edgeM })).toBeLessThanOrEqual(score)
          if (taxon.lifeForm !== 'climber')
            expect(nearer({ wallM: share * (station.wallM ?? 5) })).toBeLessThanOrEqual(score)
          expect(nearer({ eaves: { name: 'e', heightM: share } })).toBeLessThanOrEqual(score)
          expect(nearer({ buried: { name: 'b', awayM: 0 } })).toBe(0)
          expect(
            nearer({ windows: [...(station.windows ?? []), { of: 'w', sillM: 0.1, awayM: 0 }] }),
          ).toBeLessThanOrEqual(score)
        },
      ),
    )
  })
})

describe('where a kind would do well', () => {
  it('is told for every place, the best first, and every spot of it as if it were asked alone', () => {
    for (const name of ['Hosta sieboldiana', 'Helenium autumnale', 'Rhododendron ponticum']) {
      const taxon = library.find((t) => t.botanical === name) ?? library.find(isWoody)!
      const places = whereItSuits(taxon, garden)
      expect(places).toHaveLength(2)
      expect(places[0]!.best.suiting.score).toBeGreaterThanOrEqual(places[1]!.best.suiting.score)
      for (const { place, scores, best } of places) {
        const { stations } = garden.places.find((p) => p.place === place)!
        stations.forEach((s, i) => expect(scores[i]).toBeCloseTo(suits(taxon, place, s, garden).score))
        expect(best.suiting.score).toBeCloseTo(Math.max(...scores))
      }
    }
  })

  it('is nowhere for what dies in the winters here, and says so', () => {
    const tender = library.find((t) => t.hardyToC > 0 && isWoody(t))!
    for (const { best, scores } of whereItSuits(tender, garden)) {
      expect(best.suiting).toMatchObject({ score: 0, limiting: 'place' })
      expect(Math.max(...scores)).toBe(0)
    }
  })
})
