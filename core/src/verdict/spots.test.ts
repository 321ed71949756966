import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { madeBed, madePlanting, madePot, rectangle } from '../garden/test/made.ts'
import {
  groundOf,
  groundRadiusM,
  groundTakenBy,
  metresToWall,
  obstructionOf,
  rootsAt,
  rootZones,
  type Planting,
  type TakenGround,
} from '../garden/index.ts'
import { asDisc, covers, distanceToBoundary, metresOutside, sharedAreaM2 } from '../geometry/index.ts'
import { bloomsOn, library } from '../plants/index.ts'
import {
  bestSpots,
  crowdingOf,
  fitOf,
  freeSpots,
  grownGround,
  hasRoom,
  weeksAlone,
  type SpotField,
  type SpotOption,
} from './index.ts'

/** North of a bed of three metres. */
const walls = [
  [
    [0, 3],
    [12, 3],
  ],
] as const

const bed = madeBed('bed', rectangle(0, 0, 6, 4), { moisture: 3 })
const strip = madeBed('strip', rectangle(8, 0, 14, 1.4), { moisture: 5 })
const pot = madePot('pot', 7, 3, { moisture: 3, radiusM: 0.3 })
const on = '2026-09-14'

const kinds = [
  'Hosta sieboldiana',
  'Astrantia major',
  'Helenium autumnale',
  'Cotinus coggygria',
  'Galanthus nivalis',
]
const somewhere = fc.record({
  placeId: fc.constantFrom('bed', 'strip', 'pot'),
  x: fc.double({ min: 0, max: 14, noNaN: true }),
  y: fc.double({ min: 0, max: 4, noNaN: true }),
})
const planting = fc
  .record({
    at: somewhere,
    kind: fc.constantFrom(...kinds),
    livingCount: fc.integer({ min: 1, max: 5 }),
    outlineM: fc.option(fc.double({ min: 0.2, max: 1, noNaN: true })),
  })
  .map(({ at, kind, livingCount, outlineM: m }): Planting =>
    madePlanting('', kind, {
      ...at,
      livingCount,
      outline: m === null ? null : rectangle(at.x, at.y, at.x + m, at.y + m / 2),
    }),
  )
const plantings = fc
  .array(planting, { minLength: 2, maxLength: 9 })
  .map((list) => list.map((p, i) => ({ ...p, id: `p${i}`, tag: `p${i}` })))
/** Light that changes over every bed, so that hardly two points are alike. */
const lit = fc.tuple(
  fc.double({ min: 1, max: 9, noNaN: true }),
  fc.double({ min: -0.8, max: 0.8, noNaN: true }),
)
const fieldIn = ([start, slope]: [number, number]): SpotField => ({
  places: [bed, strip, pot].map((place) => {
    const at =
      place.kind === 'container'
        ? [[place.x, place.y] as const]
        : [0.25, 0.75, 1.25, 1.75, 2.25, 2.75, 3.25, 3.75, 4.25, 4.75, 5.25].flatMap((x) =>
            [0.25, 0.75, 1.25, 1.75, 2.25, 2.75].map((y) => [x + (place === strip ? 8 : 0), y] as const),
          )
    const inside = at.filter(([x, y]) => place.kind === 'container' || covers({ ring: place.ring }, x, y))
    return {
      place,
      points: inside.map(([x, y]) => {
        const total = start + slope * x + 0.1 * y
        return {
          x,
          y,
          z: 0,
          hours: { total, morning: total / 2, midday: total / 4, afternoon: total / 4, heat: total / 8 },
        }
      }),
    }
  }),
})

/** The rule as a gardener would say it, a point at a time. */
function plainly(field: SpotField, planting: Planting, taken: readonly TakenGround[]): SpotOption[] {
  const radiusM = groundRadiusM(planting)
  const options: (SpotOption & { away: number; turn: number })[] = []
  field.places.forEach(({ place, points }, turn) => {
    const others = taken.filter((o) => o.placeId === place.id && o.plantingId !== planting.id)
    for (const p of points) {
      if (Math.hypot(p.x - planting.x, p.y - planting.y) < 2 * radiusM) continue
      const isFree =
        place.kind === 'container'
          ? others.length === 0 && radiusM <= place.radiusM
          : distanceToBoundary(place.ring, p.x, p.y) >= 0.85 * radiusM &&
            others.every((o) => {
              const interlocked = 0.3 * Math.min(radiusM, asDisc(o.ground).radiusM)
              return metresOutside(o.ground, p.x, p.y) + interlocked >= radiusM
            })
      if (!isFree) continue
      const under = points.filter((q) => q === p || Math.hypot(q.x - p.x, q.y - p.y) <= radiusM)
      const mean = (of: 'total' | 'morning' | 'midday' | 'afternoon' | 'heat') =>
        under.reduce((sum, q) => sum + q.hours[of], 0) / under.length
      const hours = {
        total: mean('total'),
        morning: mean('morning'),
        midday: mean('midday'),
        afternoon: mean('afternoon'),
        heat: mean('heat'),
      }
      const fit = fitOf(planting.taxon, { hours, moisture: place.moisture })
      const away = Math.abs(hours.total - (planting.taxon.lightMinHours + planting.taxon.lightMaxHours) / 2)
      if (fit.score >= 0.6)
        options.push({ placeId: place.id, placeName: place.name, x: p.x, y: p.y, hours, fit, away, turn })
    }
  })
  options.sort(
    (a, b) => b.fit.score - a.fit.score || a.away - b.away || a.turn - b.turn || a.x - b.x || a.y - b.y,
  )
  const chosen: SpotOption[] = []
  for (const { away: _, turn: __, ...o } of options)
    if (
      chosen.length < 3 &&
      chosen.every((c) => Math.hypot(c.x - o.x, c.y - o.y) >= 2) &&
      chosen.filter((c) => c.placeId === o.placeId).length < 2
    )
      chosen.push(o)
  return chosen
}

const where = (spots: readonly SpotOption[]) =>
  spots.map(({ placeId, x, y, fit }) => `${placeId} ${x} ${y} ${fit.limiting}`)

describe('free spots', () => {
  it('are those that the rule says, a point at a time, whoever else asked before', () => {
    fc.assert(
      fc.property(lit, plantings, (light, list) => {
        const field = fieldIn(light)
        const taken = [...list.map(groundTakenBy), { ...groundTakenBy(list[0]!), placeId: 'strip' }]
        for (const p of list)
          expect([p.id, where(bestSpots(field, p, taken))]).toEqual([p.id, where(plainly(field, p, taken))])
        // In another order, and again.
        for (const p of list.toReversed())
          expect(where(bestSpots(field, p, taken))).toEqual(where(plainly(field, p, taken)))
      }),
      { numRuns: 60 },
    )
  })

  it('may be accepted: each has room when a person chooses it', () => {
    fc.assert(
      fc.property(lit, plantings, (light, list) => {
        const field = fieldIn(light)
        const taken = list.map(groundTakenBy)
        for (const p of list) {
          const others = taken.filter((o) => o.plantingId !== p.id)
          for (const s of bestSpots(field, p, taken)) {
            const { place } = field.places.find((of) => of.place.id === s.placeId)!
            expect(hasRoom(place, s, groundRadiusM(p), others)).toBe(true)
          }
        }
      }),
      { numRuns: 60 },
    )
  })

  it('are told in the order of the plantings', () => {
    fc.assert(
      fc.property(lit, plantings, (light, list) => {
        const field = fieldIn(light)
        const dark = { total: 0, morning: 0, midday: 0, afternoon: 0, heat: 0 }
        const ofEach = list.map((p) => ({ plantingId: p.id, before: dark, now: dark, causes: [] }))
        const asked = Object.keys(
          freeSpots({ plantings: list, reserved: [] }, { field, plantings: ofEach }, on),
        )
        expect(asked).toEqual(list.map((p) => p.id).filter((id) => asked.includes(id)))
      }),
      { numRuns: 20 },
    )
  })
})

describe('neighbours', () => {
  it('crowd by the ground that they share, and leave weeks alone, whoever else was asked of', () => {
    const days = Array.from({ length: 52 }, (_, w) =>
      new Date(Date.UTC(2023, 0, 4 + 7 * w)).toISOString().slice(5, 10),
    )
    fc.assert(
      fc.property(plantings, (list) => {
        for (const p of list) {
          const here = list.filter((o) => o.placeId === p.placeId && o !== p)
          for (const { plantingId, share } of crowdingOf(p, list, on)) {
            const by = here.find((o) => o.id === plantingId)!
            const shared = sharedAreaM2(groundOf(p), grownGround(by, on))
            expect(share * sharedAreaM2(groundOf(p), groundOf(p))).toBeCloseTo(shared, 9)
          }
          const alone = days.filter((d) => bloomsOn(p.taxon, d) && !here.some((o) => bloomsOn(o.taxon, d)))
          expect(weeksAlone(p, list)).toBe(alone.length)
        }
      }),
      { numRuns: 40 },
    )
  })

  it('are not offered to what wants moisture among the roots of a tree, nor in the wind to what wants shelter', () => {
    const hours = { total: 5, morning: 3, midday: 2, afternoon: 0, heat: 0 }
    const bed = madeBed('bed', rectangle(0, 0, 12, 3), { moisture: 3 })
    const points = [1, 3, 5, 7, 9, 11].map((x) => ({ x, y: 1.5, z: 0, hours }))
    const tree = (name: string, x: number, crownRadiusM: number, to: string | null) =>
      obstructionOf({
        id: name,
        name,
        kind: 'tree',
        from: null,
        to,
        geometry: { type: 'Point', coordinates: [x, 1.5] },
        properties: { heightM: 6, crownRadiusM },
      })!
    const obstructions = [tree('plum', 0, 4, null), tree('felled', 12, 8, '2025-01-01')]
    const zones = rootZones({ obstructions }, '2026-06-01')
    const field = (wind?: 'open' | 'exposed'): SpotField => ({
      places: [
        { place: { ...bed, wind }, points: points.map((p) => ({ ...p, rootsOf: rootsAt(zones, p.x, p.y) })) },
      ],
    })
    const xs = (botanical: string, f: SpotField) =>
      bestSpots(f, madePlanting('p', botanical, { placeId: 'elsewhere', x: -50, y: 0 }), [], {}, 6).map(
        (s) => s.x,
      )
    // Astilbe likes moist to wet ground: fresh is a step too dry, and among roots two.
    const astilbe = library.find((t) => t.botanical === 'Astilbe × arendsii')!
    expect(astilbe.moistureMin).toBe(4)
    expect(xs('Geranium sanguineum', field()).some((x) => x <= 6)).toBe(true)
    expect(fitOf(astilbe, { hours, moisture: 4 }).limiting).not.toBe('moisture')
    expect(fitOf(astilbe, { hours, moisture: 4, rootsOf: 'plum' }).reason).toMatch(/among the roots of plum/)
    expect(xs('Astilbe × arendsii', field()).filter((x) => x <= 6)).toEqual([])
    const sheltered = library.find((t) => t.wind === 'sheltered' && t.lifeForm === 'perennial')!
    const fits = (['sheltered', 'open', 'exposed'] as const).map(
      (wind) => fitOf(sheltered, { hours, wind }).score,
    )
    expect(fits[0]).toBeGreaterThan(fits[1]!)
    expect(fits[1]).toBeGreaterThan(fits[2]!)
  })

  it('keep what is woody half its spread from walls, and a climber that leans on one at one', () => {
    const hours = { total: 5, morning: 3, midday: 2, afternoon: 0, heat: 0 }
    const ring = rectangle(0, 0, 12, 3)
    const wide = madeBed('wide', ring, { moisture: 3 })
    const points = Array.from({ length: 12 }, (_, i) =>
      [0.5, 1.5, 2.5].map((y) => ({ x: i + 0.5, y, z: 0, hours, wallM: metresToWall(walls, i + 0.5, y) })),
    ).flat()
    const at = (botanical: string, y: number) =>
      bestSpots(
        { places: [{ place: wide, points }] },
        madePlanting('p', botanical, { placeId: 'wide', x: 0.5, y }),
        [],
        {},
        9,
      )
    const shrub = library.find((t) => t.botanical === 'Hydrangea macrophylla')!
    const found = at('Hydrangea macrophylla', 0.5)
    expect(found.length).toBeGreaterThan(0)
    for (const s of found) expect(3 - s.y).toBeGreaterThanOrEqual(shrub.spreadM / 2)
    for (const s of at('Lonicera periclymenum', 2.5)) expect(s.y).toBe(2.5)
    // Where there is no wall, what is kept as text says so too.
    expect(JSON.parse(JSON.stringify({ wallM: metresToWall([], 1, 1) }))).toEqual({})
    // One on a stand of its own may go anywhere.
    expect(at('Lonicera periclymenum', 0.5).some((s) => s.y < 2)).toBe(true)
  })

  it('take ground for drier where the signs of what stands there say so, and say that they do', () => {
    const hours = { total: 4, morning: 2, midday: 2, afternoon: 0, heat: 0 }
    const astilbe = library.find((t) => t.botanical === 'Astilbe × arendsii')!
    for (const moisture of [null, 4, 5] as const) {
      const [as, dry] = [undefined, 'drier' as const].map((suspected) =>
        fitOf(astilbe, { hours, moisture, suspected }),
      )
      expect(dry!.score).toBeLessThanOrEqual(as!.score)
    }
    expect(fitOf(astilbe, { hours, moisture: 4, eavesOf: 'the house' }).reason).toMatch(
      /drier ground than it likes, under the eaves of the house/,
    )
    expect(fitOf(astilbe, { hours, moisture: 4, suspected: 'drier' }).reason).toMatch(
      /drier ground than it likes, by the signs of what stands there/,
    )
    const field: SpotField = {
      places: [
        {
          place: madeBed('moist', rectangle(0, 0, 6, 4), { moisture: 4 }),
          points: [{ x: 3, y: 2, z: 0, hours }],
        },
      ],
    }
    const asked = (suspected?: 'drier') =>
      bestSpots(field, madePlanting('p', 'Astilbe × arendsii', { placeId: 'elsewhere', x: -50 }), [], {
        suspected: new Map(suspected && [['moist', suspected]]),
      })
    expect(asked()[0]!.fit.score).toBeGreaterThan(asked('drier')[0]?.fit.score ?? 0)
  })
})
