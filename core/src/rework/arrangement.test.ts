import { describe, expect, it } from 'vitest'
import type { Planting } from '../garden/index.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { groundM2 } from '../plants/index.ts'
import { seededRandom } from '../random/index.ts'
import { finished } from '../search/index.ts'
import {
  arrange,
  arrangementScore,
  checksOf,
  driftsM2,
  middleOfDrift,
  openM2,
  plantsOf,
  pocketsOf,
  REACH_M,
  stonesFor,
  unarranged,
  withCount,
  withMatrix,
  withDrawn,
  withDrift,
  withMerged,
  withMirrored,
  withMoved,
  withoutDrift,
  withRepeated,
  withRestFilled,
  withSplit,
  withSwapped,
  type Arrangement,
  type BedGround,
  type Drift,
} from './index.ts'
import { bed, box, sited } from './test/site.ts'

const CELL_M = 0.25
const garden = sited([bed('Long', box(0, 0, 8, 3))], undefined, CELL_M)
const stays = {
  id: 'stays',
  tag: 'S-1',
  taxon: taxonNamed('Calamagrostis brachytricha'),
  livingCount: 1,
  placeId: 'Long',
  x: 4.125,
  y: 0.625,
  radiusM: 0.6,
  outline: null,
} as Planting
const ground: BedGround = { of: garden.places[0]!, cellM: CELL_M, viewedFrom: [180], stays: [stays] }
const kinds = ['Helenium autumnale', 'Nepeta × faassenii', 'Geranium macrorrhizum', 'Salvia nemorosa'].map(
  (n) => taxonNamed(n),
)
const drift = (id: string, kind: number, count: number): Drift => ({ id, taxon: kinds[kind]!, count })
const four = [drift('a', 0, 15), drift('b', 1, 21), drift('c', 2, 25), drift('d', 3, 19)]
const laid = finished(arrange(ground, unarranged(ground, four), 3))

const cellsOf = ({ has, drifts }: Arrangement, id: string) => {
  const k = drifts.findIndex((d) => d.id === id)
  return [...has.keys()].filter((c) => has[c] === k)
}
const middleOf = (arranged: Arrangement, id: string) => {
  const own = cellsOf(arranged, id).map((c) => ground.of.stations[c]!)
  return [own.reduce((s, c) => s + c.x, 0) / own.length, own.reduce((s, c) => s + c.y, 0) / own.length]
}
/** Cells within the ground of what stays, counted here from the figures above. */
const isStays = ({ x, y }: { x: number; y: number }) => Math.hypot(x - stays.x, y - stays.y) <= 0.6

/** What must be true of any arrangement, however it came about. @param isSettled after a change that settles all of it */
function holds(arranged: Arrangement, isSettled = true): void {
  expect(arranged.has).toHaveLength(ground.of.stations.length)
  expect(new Set(arranged.drifts.map((d) => d.id)).size).toBe(arranged.drifts.length)
  arranged.has.forEach((k, c) => {
    expect(k).toBeLessThan(arranged.drifts.length)
    if (isStays(ground.of.stations[c]!)) expect(k).toBe(-1)
  })
  const m2 = driftsM2(ground, arranged)
  const wanted = arranged.drifts.reduce((s, d) => s + groundM2(d.count, d.taxon.spacingM), 0)
  const crowded = wanted > ground.of.stations.length * CELL_M ** 2 - 1.5
  arranged.drifts.forEach((d, k) => {
    // Each has the ground that it takes, to a few cells, unless all together want more than there is.
    if (isSettled && !d.isDrawn && !crowded)
      expect(Math.abs(m2[k]! - groundM2(d.count, d.taxon.spacingM))).toBeLessThan(4.5 * CELL_M ** 2)
    expect(plantsOf(ground, arranged).filter((p) => p.driftId === d.id)).toHaveLength(
      m2[k]! > 0 ? d.count : 0,
    )
  })
  const kept = ground.of.stations.filter(isStays).length
  const inAll = openM2(ground, arranged) + m2.reduce((a, b) => a + b, 0) + kept * CELL_M ** 2
  expect(inAll).toBeCloseTo(ground.of.stations.length * CELL_M ** 2)
}

describe('an arrangement', () => {
  it('is laid out about what stays, which counts among what is seen', () => {
    holds(laid)
    for (const p of plantsOf(ground, laid)) {
      expect(Math.hypot(p.x - stays.x, p.y - stays.y)).toBeGreaterThan(0.6)
      expect(p.x > 0 && p.x < 8 && p.y > 0 && p.y < 3).toBe(true)
    }
    // What lies behind a tall grass that stays is hidden by it; where it does not stay, by nothing.
    const behind = withDrawn(ground, unarranged(ground, []), drift('h', 2, 0), box(3.5, 1.25, 5, 2))
    expect(arrangementScore({ ...ground, stays: [] }, behind).heights).toBe(0)
    expect(arrangementScore(ground, behind).heights).toBeGreaterThan(0)
  })

  it('has its plants no nearer to each other than six tenths of their spacing', () => {
    for (const d of laid.drifts) {
      const own = plantsOf(ground, laid).filter((p) => p.driftId === d.id)
      own.forEach((p, i) => {
        for (const q of own.slice(0, i))
          expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeGreaterThan(0.6 * d.taxon.spacingM)
      })
    }
  })

  it('holds whatever is done to it, on a hundred random ways', () => {
    const random = seededRandom(7)
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
    let arranged = laid
    let made = 0
    const at = (): [number, number] => [8 * random(), 3 * random()]
    for (let i = 0; i < 100; i++) {
      const id = pick(arranged.drifts).id
      const other = pick(arranged.drifts).id
      const [x, y] = at()
      const next: Arrangement[] = [
        withMoved(ground, arranged, id, at()),
        withCount(ground, arranged, id, 1 + Math.floor(20 * random())),
        withSplit(ground, arranged, id, `s${made++}`),
        withMerged(ground, arranged, id, other),
        withSwapped(ground, arranged, id, other),
        withDrawn(ground, arranged, drift(`h${made++}`, 1, 0), box(x, y, x + 2, y + 1.5)),
        withDrift(ground, arranged, drift(`n${made++}`, 2, 3)),
        arranged.drifts.length > 3 ? withoutDrift(ground, arranged, id) : arranged,
      ]
      const before = JSON.stringify(arranged.drifts) + String(arranged.has)
      const then = pick(next)
      expect(JSON.stringify(arranged.drifts) + String(arranged.has)).toBe(before)
      // What is taken out leaves the others as they are, crowded or not; and so does what cannot be done.
      holds(then, then !== next.at(-1) && then !== arranged)
      arranged = then.drifts.length > 9 ? laid : then
    }
  })

  it('has each drift’s middle where its cells have theirs, and none of what has no ground', () => {
    for (const d of laid.drifts) {
      const [x, y] = middleOf(laid, d.id)
      expect(middleOfDrift(ground, laid, d.id)).toEqual([expect.closeTo(x!), expect.closeTo(y!)])
    }
    expect(middleOfDrift(ground, unarranged(ground, four), 'a')).toBeUndefined()
    expect(middleOfDrift(ground, laid, 'nobody')).toBeUndefined()
  })

  it('goes where a drift is moved, and a drawn one keeps its shape', () => {
    const moved = withMoved(ground, laid, 'a', [2, 1.5])
    expect(Math.hypot(middleOf(moved, 'a')[0]! - 2, middleOf(moved, 'a')[1]! - 1.5)).toBeLessThan(0.2)
    const drawn = withDrawn(ground, laid, drift('h', 1, 0), box(1, 1, 3, 2))
    const [x, y] = middleOf(drawn, 'h')
    const further = withMoved(ground, drawn, 'h', [x! + 4, y!])
    const shape = (arranged: Arrangement, by: number) =>
      cellsOf(arranged, 'h').map((c) => `${ground.of.stations[c]!.x - by} ${ground.of.stations[c]!.y}`)
    expect(shape(further, 4)).toEqual(shape(drawn, 0))
    // Two square metres of cells of a quarter metre by a quarter.
    expect(cellsOf(drawn, 'h')).toHaveLength(32)
    expect(drawn.drifts.at(-1)!.count).toBe(Math.round(2 / groundM2(1, kinds[1]!.spacingM)))
  })

  it('has as many plants after a drift is split, merged and swapped as before', () => {
    const count = (a: Arrangement) => a.drifts.reduce((s, d) => s + d.count, 0)
    const split = withSplit(ground, laid, 'c', 'c2')
    expect(split.drifts.filter((d) => d.taxon === kinds[2]).map((d) => d.count)).toEqual([13, 12])
    expect(count(split)).toBe(count(laid))
    const merged = withMerged(ground, split, 'c', 'c2')
    expect(merged.drifts.find((d) => d.id === 'c')!.count).toBe(25)
    expect(withMerged(ground, laid, 'a', 'b')).toBe(laid)
    const swapped = withSwapped(ground, laid, 'a', 'c')
    const [ax, ay] = middleOf(laid, 'a')
    expect(Math.hypot(middleOf(swapped, 'c')[0]! - ax!, middleOf(swapped, 'c')[1]! - ay!)).toBeLessThan(1.5)
  })

  it('fills the rest until not one plant more has room', () => {
    const filled = withRestFilled(ground, withoutDrift(ground, laid, 'a'))
    const least = Math.min(...filled.drifts.map((d) => groundM2(1, d.taxon.spacingM)))
    const taken = filled.drifts.reduce((s, d) => s + groundM2(d.count, d.taxon.spacingM), 0)
    const free = (ground.of.stations.length - ground.of.stations.filter(isStays).length) * CELL_M ** 2
    expect(taken).toBeLessThanOrEqual(free + 4 * CELL_M ** 2)
    expect(taken).toBeGreaterThan(free - least - 4 * CELL_M ** 2)
    // What has no ground yet wants it first.
    const fresh = withRestFilled(ground, unarranged(ground, four))
    expect(fresh.drifts.reduce((s, d) => s + groundM2(d.count, d.taxon.spacingM), 0)).toBeLessThanOrEqual(
      free + 4 * CELL_M ** 2,
    )
  })

  it('is the same on both sides of a line once mirrored, where nothing stays', () => {
    const empty = { ...ground, stays: [] }
    const mirrored = withMirrored(empty, laid, [[4, 0], [4, 3]], [1, 2], (id) => `${id}′`) // prettier-ignore
    const kindAt = (x: number, y: number) => {
      const c = empty.of.stations.findIndex((s) => Math.abs(s.x - x) < 0.01 && Math.abs(s.y - y) < 0.01)
      return mirrored.drifts[mirrored.has[c]!]?.taxon.botanical
    }
    for (const { x, y } of empty.of.stations) expect(kindAt(x, y)).toBe(kindAt(8 - x, y))
  })

  it('repeats a drift further along with its shape', () => {
    const drawn = withDrawn(ground, laid, drift('h', 1, 0), box(1, 1, 3, 2))
    const repeated = withRepeated(ground, drawn, ['h'], [4, 0], (id) => `${id} again`)
    expect(cellsOf(repeated, 'h')).toHaveLength(32)
    expect(cellsOf(repeated, 'h again').map((c) => ground.of.stations[c]!.x)).toEqual(
      cellsOf(repeated, 'h').map((c) => ground.of.stations[c]!.x + 4),
    )
  })
})

describe('plants of a drift', () => {
  it('stand off the edge by half of what they grow to where there is room for that, and tell where there is not', () => {
    const rose = taxonNamed('Rosa Shrub group')
    const wants = rose.spreadM / 2
    const wide = withDrawn(
      ground,
      unarranged(ground, []),
      { id: 'r', taxon: rose, count: 3 },
      box(0, 0, 3, 3),
    )
    const three = { ...wide, drifts: [{ id: 'r', taxon: rose, count: 3 }] }
    expect(plantsOf(ground, three)).toHaveLength(3)
    for (const p of plantsOf(ground, three)) {
      expect(Math.min(p.x, p.y, 3 - p.y)).toBeGreaterThanOrEqual(wants - 1e-9)
    }
    const said = (a: Arrangement) =>
      checksOf(ground, a, { garden, drifts: 'odd' }).find((c) => c.what === 'where it grows')?.says
    expect(said(three) ?? '').not.toContain('from the edge')
    // A strip half a metre wide along the front has no such room.
    const narrow = withDrawn(
      ground,
      unarranged(ground, []),
      { id: 'r', taxon: rose, count: 3 },
      box(0, 0, 3, 0.5),
    )
    expect(said(narrow)).toMatch(/would do poorly: \d+ cm from the edge, and it wants/)
  })
})

describe('checks of an arrangement', () => {
  const by = { garden, drifts: 'odd' as const }
  const says = (arranged: Arrangement, of: string | null, what: string, more = {}) =>
    checksOf(ground, arranged, { ...by, ...more }).find((c) => c.driftId === of && c.what === what)?.says

  it('tell what stands before something lower, and by how much', () => {
    const tallBefore = withDrawn(
      ground,
      withDrawn(ground, unarranged(ground, []), drift('low', 2, 0), box(0, 2, 4, 3)),
      drift('tall', 0, 0),
      box(0, 1, 4, 2),
    )
    const cm = Math.round(100 * (kinds[0]!.heightM - kinds[2]!.heightM))
    expect(says(tallBefore, 'low', 'heights')).toBe(
      `${kinds[0]!.common} stands before it over 4.0 m and grows ${cm} cm taller.`,
    )
    expect(says(tallBefore, 'tall', 'heights')).toBeUndefined()
  })

  it('tell even numbers where numbers are odd, what is crowded, in pieces, small from afar, and what is open', () => {
    const even = withCount(ground, laid, 'a', 4)
    expect(says(even, 'a', 'odd numbers')).toBe('4 are an even number: 3 or 5 look less counted.')
    expect(says(even, 'a', 'odd numbers', { drifts: 'blocks' })).toBeUndefined()
    const crowded = unarranged(ground, [drift('a', 0, 15)])
    const has = crowded.has.map((_, c) => (c === 0 || c === 200 ? 0 : -1))
    expect(says({ ...crowded, has }, 'a', 'pieces')).toBe('It lies in 2 pieces.')
    expect(says({ ...crowded, has }, 'a', 'room')).toContain('15 plants want')
    // An eighth of a square metre: 0.4 m across, a twelfth of 4.8 m.
    expect(says({ ...crowded, has }, 'a', 'size', { seenFromM: 4 })).toBeUndefined()
    expect(says({ ...crowded, has }, 'a', 'size', { seenFromM: 12 })).toContain('wants 1.0 m')
    expect(says({ ...crowded, has }, null, 'open ground')).toContain('are still open')
    // All but 0.8 m round the edge of 8 by 3 m: 6.4 by 1.4.
    expect(says(laid, null, 'way in')).toMatch(/^[89]\.\d m² lie further/)
  })
})

describe('pockets for bulbs', () => {
  it('hold all the bulbs, apart from plants and from each other', () => {
    const bulb = taxonNamed('Galanthus nivalis')
    const pockets = pocketsOf(ground, laid, [
      { id: 'x', taxon: bulb, count: 30 },
      { id: 'y', taxon: bulb, count: 7 },
    ])
    const bulbsOf = (id: string) => pockets.filter((p) => p.driftId === id).map((p) => p.bulbs)
    expect(bulbsOf('x').reduce((a, b) => a + b, 0)).toBe(30)
    expect(bulbsOf('y')).toEqual([7])
    for (const [i, p] of pockets.entries())
      for (const q of pockets.slice(i + 1)) expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeGreaterThan(0.3)
  })
})

describe('stepping stones', () => {
  it('bring every part of the bed within an arm’s reach of one or of the edge, and are none where it is all in reach', () => {
    const stones = stonesFor(ground, laid)
    for (const s of ground.of.stations) {
      const away = Math.min(s.edgeM, ...stones.map(([x, y]) => Math.hypot(x - s.x, y - s.y)))
      expect(away).toBeLessThanOrEqual(REACH_M)
    }
    // A strip of 6.4 by 1.4 m lies out of reach: a round of 0.8 m covers no more than 1.6 m of its length.
    expect(stones.length).toBeGreaterThanOrEqual(4)
    expect(stones.length).toBeLessThanOrEqual(10)
    const narrow = {
      ...ground,
      of: sited([bed('Narrow', box(0, 0, 8, 1.4))], undefined, CELL_M).places[0]!,
      stays: [],
    }
    expect(stonesFor(narrow, unarranged(narrow, []))).toEqual([])
  })
})

describe('plants that are intermingled', () => {
  const through: Drift = { ...drift('m', 3, 1), isMatrix: true }
  const scattered = Array.from({ length: 9 }, (_, i) => drift(`s${i}`, i % 3, 3))
  const mixed = finished(arrange(ground, unarranged(ground, [through, ...scattered]), 3))

  /** One kind runs through the bed: everything that no other has, and as many plants as stand there. */
  function flows(arranged: Arrangement): void {
    holds(arranged)
    expect(openM2(ground, arranged)).toBeCloseTo(0)
    const k = arranged.drifts.findIndex((d) => d.isMatrix)
    const { count, taxon } = arranged.drifts[k]!
    expect(count).toBe(Math.max(1, Math.round(driftsM2(ground, arranged)[k]! / groundM2(1, taxon.spacingM))))
  }

  it('stand in one kind that has all that the others leave, and lies between all of them', () => {
    flows(mixed)
    const plants = plantsOf(ground, mixed)
    const matrix = plants.filter((p) => p.driftId === 'm')
    // Of the plants of every group the matrix is at hand on most sides: within two of its spacings there is some.
    for (const d of scattered)
      for (const p of plants.filter((o) => o.driftId === d.id))
        expect(Math.min(...matrix.map((m) => Math.hypot(m.x - p.x, m.y - p.y)))).toBeLessThan(
          2 * through.taxon.spacingM + d.taxon.spacingM,
        )
    // They lie all over the bed: in each quarter of its length some.
    for (const from of [0, 2, 4, 6])
      expect(plants.some((p) => p.driftId !== 'm' && p.x >= from && p.x < from + 2)).toBe(true)
    const ways = checksOf(ground, mixed, { garden, drifts: 'matrix' })
    expect(
      ways.filter((c) => c.driftId === 'm' && c.what !== 'heights' && c.what !== 'where it grows'),
    ).toEqual([])
  })

  it('give way and close up again, whatever is done among them', () => {
    flows(withMoved(ground, mixed, 's0', [6, 1.5]))
    flows(withCount(ground, mixed, 's1', 7))
    flows(withoutDrift(ground, mixed, 's2'))
    flows(withDrift(ground, mixed, drift('n', 2, 3)))
    flows(withRestFilled(ground, mixed))
    flows(
      withMirrored(
        ground,
        mixed,
        [
          [4, 0],
          [4, 3],
        ],
        [2, 1.5],
        (id) => `${id}'`,
      ),
    )
    flows(withRepeated(ground, mixed, ['s0'], [2, 0], (id) => `${id}'`))
    // What runs through the rest is not carried about, cut or exchanged.
    for (const same of [
      withMoved(ground, mixed, 'm', [6, 1.5]),
      withSplit(ground, mixed, 'm', 'x'),
      withSwapped(ground, mixed, 'm', 's0'),
    ])
      expect(same).toBe(mixed)
  })

  it('come together again, and another kind runs through them', () => {
    const none = withMatrix(ground, mixed, 'm', false)
    holds(none)
    expect(none.drifts.some((d) => d.isMatrix)).toBe(false)
    expect(openM2(ground, none)).toBeGreaterThan(5)
    const other = withMatrix(ground, withMatrix(ground, none, 's0', true), 's1', true)
    expect(other.drifts.filter((d) => d.isMatrix).map((d) => d.id)).toEqual(['s1'])
    flows(other)
  })
})
