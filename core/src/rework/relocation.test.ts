import fc from 'fast-check'
import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { simulatedRelocation } from '../../simulated/index.ts'
import { seededRandom } from '../random/index.ts'
import { highsSolver } from '../search/index.ts'
import {
  packedIn,
  priceOf,
  relocate,
  relocatedGreedily,
  relocationCosts,
  waysOut,
  type Destination,
  type RelocationProblem,
} from './index.ts'

const solve = highsSolver(await loadHighs())

const made = (more: Partial<RelocationProblem> = {}): RelocationProblem => ({
  leaving: [
    { id: 'fern', radiusM: 0.4, worth: 1, fitHere: 0.2 },
    { id: 'peony', radiusM: 0.4, worth: 1, fitHere: 0.9 },
  ],
  spots: [
    { id: 'shady', radiusM: 0.5 },
    { id: 'sunny', radiusM: 0.5 },
  ],
  fit: [
    [1, 0.2],
    [0.7, 1],
  ],
  ...more,
})

/** The least cost by trying every choice, with ground counted as the packing of rounds tells it. */
function triedAlone(problem: RelocationProblem): number {
  const { leaving, spots, fit } = problem
  const c = relocationCosts
  let least = Infinity
  const go = (p: number, cost: number, inSpot: string[][], stays: string[]) => {
    if (cost >= least) return
    if (p === leaving.length) {
      const good = spots.every((s, k) => {
        const here = inSpot[k]!
        if (here.length === 0) return true
        if (s.vacatedBy && stays.includes(s.vacatedBy)) return false
        const radii = here.map((id) => leaving.find((l) => l.id === id)!.radiusM)
        return radii.length === 1 ? radii[0]! <= s.radiusM : packs(problem)(s.id, here)
      })
      if (good) least = cost
      return
    }
    const { id, worth, radiusM, fitHere } = leaving[p]!
    spots.forEach((s, k) => {
      const isFree = !s.vacatedBy || (s.vacatedBy !== id && leaving.some((l) => l.id === s.vacatedBy))
      if (fit[p]![k]! < 0.6 || radiusM > s.radiusM || !isFree) return
      go(
        p + 1,
        cost + worth * c.unfit * (1 - fit[p]![k]!) + c.lifting,
        inSpot.map((h, i) => (i === k ? [...h, id] : h)),
        stays,
      )
    })
    if (fitHere !== null)
      go(p + 1, cost + worth * c.unfit * (1 - fitHere) + c.staysUnwanted, inSpot, [...stays, id])
    for (const to of waysOut) if (to !== 'stay') go(p + 1, cost + worth * c[to], inSpot, stays)
  }
  go(
    0,
    0,
    spots.map(() => []),
    [],
  )
  return least
}

const packs =
  ({ leaving, spots }: RelocationProblem): ((spotId: string, ids: readonly string[]) => boolean) =>
  (spotId, ids) =>
    packedIn(
      spots.find((s) => s.id === spotId)!.radiusM,
      ids.map((id) => leaving.find((l) => l.id === id)!.radiusM),
    ) !== undefined

function drawn(seed: number, plantings: number, spots: number): RelocationProblem {
  const random = seededRandom(seed)
  const leaving = Array.from({ length: plantings }, (_, i) => ({
    id: `p${i}`,
    radiusM: 0.2 + 0.4 * random(),
    worth: random() < 0.2 ? 2 : 1,
    fitHere: random() < 0.3 ? null : random(),
  }))
  return {
    leaving,
    spots: Array.from({ length: spots }, (_, i) => ({
      id: `s${i}`,
      radiusM: 0.3 + 0.5 * random(),
      vacatedBy: random() < 0.3 ? `p${Math.floor(random() * plantings)}` : undefined,
    })),
    fit: leaving.map(() => Array.from({ length: spots }, () => Math.min(1, 0.3 + random()))),
  }
}

const to = (problem: RelocationProblem) => {
  const found = relocate(problem, solve)
  return Object.fromEntries(
    found.ok
      ? found.destinations.map((d) => [
          d.plantingId,
          d.destination.to === 'spot' ? d.destination.spotId : d.destination.to,
        ])
      : [],
  )
}

describe('rounds in a round', () => {
  it.each([
    // Radius of n alike in a round of 1: Graham 1968, Sets of points with given minimum separation.
    [2, 0.5],
    [3, 0.4641],
    [4, 0.4142],
    [5, 0.3701],
    [7, 0.3333],
  ])('fits %i of radius %f, and not of a tenth more', (n, r) => {
    expect(packedIn(1, Array(n).fill(r - 1e-4))).toHaveLength(n)
    expect(packedIn(1, Array(n).fill(1.1 * r))).toBeUndefined()
  })

  it('lays none over another or over the edge', () => {
    const radii = fc.array(fc.double({ min: 0.05, max: 0.6, noNaN: true }), { minLength: 1, maxLength: 7 })
    fc.assert(
      fc.property(radii, (of) => {
        const at = packedIn(1, of)
        at?.forEach(([x, y], i) => {
          expect(Math.hypot(x, y) + of[i]!).toBeLessThanOrEqual(1 + 1e-5)
          at.slice(0, i).forEach(([a, b], k) =>
            expect(Math.hypot(x - a, y - b)).toBeGreaterThanOrEqual(of[i]! + of[k]! - 1e-5),
          )
        })
      }),
    )
  })
})

describe('where what leaves goes', () => {
  it('is the spot that each likes', () => {
    expect(to(made())).toEqual({ fern: 'shady', peony: 'sunny' })
  })

  it('takes a little from one where the whole is better for it', () => {
    // The shady spot alone is free: the fern, which is bad where it stands, has more of it than the peony would.
    const one = made({ spots: [{ id: 'shady', radiusM: 0.5 }], fit: [[1], [0.9]] })
    expect(to(one)).toEqual({ fern: 'shady', peony: 'bench' })
  })

  it('uses the ground of what leaves, only once that has left', () => {
    const swap = made({
      spots: [{ id: 'shady', radiusM: 0.5, vacatedBy: 'peony' }],
      fit: [[1], [1]],
    })
    expect(to(swap)).toEqual({ fern: 'shady', peony: 'bench' })
    expect(to({ ...swap, decided: { peony: { to: 'stay' } } })).toEqual({ fern: 'bench', peony: 'stay' })
    // What is not to leave gives nothing up, and the fern is better on the bench than where it stands.
    expect(to(made({ spots: [{ id: 'shady', radiusM: 0.5, vacatedBy: 'rose' }], fit: [[1], [1]] }))).toEqual({
      fern: 'bench',
      peony: 'bench',
    })
  })

  it('costs least of all there is: as trying every choice tells, on drawn gardens', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const problem = drawn(seed, 4, 3)
        const found = relocate(problem, solve)
        expect(found.ok && found.cost).toBeCloseTo(triedAlone(problem), 0)
        expect(found.ok && found.bound <= found.cost + 1e-6).toBe(true)
      }),
      { numRuns: 25 },
    )
  })

  it('keeps to the room there is, gives each one destination, and is never worse than a quick hand', () => {
    for (const seed of [11, 12, 13]) {
      const problem = simulatedRelocation(seed, 20, 14)
      const found = relocate(problem, solve)
      if (!found.ok) throw new Error(found.why)
      expect(found.destinations.map((d) => d.plantingId).sort()).toEqual(
        problem.leaving.map((l) => l.id).sort(),
      )
      for (const spot of problem.spots) {
        const here = found.destinations.filter(
          (d) => d.destination.to === 'spot' && d.destination.spotId === spot.id,
        )
        if (here.length > 1)
          expect(
            packs(problem)(
              spot.id,
              here.map((d) => d.plantingId),
            ),
          ).toBe(true)
        const before = found.destinations.find((d) => d.plantingId === spot.vacatedBy)
        if (here.length > 0 && before) expect(before.destination).not.toEqual({ to: 'stay' })
      }
      const greedy = relocatedGreedily(problem).reduce((sum, d) => sum + d.cost, 0)
      expect(found.cost).toBeLessThanOrEqual(greedy + 1e-6)
      expect(found.gap).toBeLessThanOrEqual(0.001)
    }
  })

  it('costs no more with a spot more, and no less with one thing more to find a place for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const whole = drawn(seed, 16, 9)
        const less = { ...whole, spots: whole.spots.slice(1), fit: whole.fit.map((f) => f.slice(1)) }
        const fewer = { ...whole, leaving: whole.leaving.slice(1), fit: whole.fit.slice(1) }
        // Nothing is vacated that does not leave.
        const freed = {
          ...fewer,
          spots: whole.spots.map((s) => (s.vacatedBy === 'p0' ? { ...s, vacatedBy: undefined } : s)),
        }
        const [all, cramped, alone] = [whole, less, freed].map((problem) => relocate(problem, solve))
        if (!all!.ok || !cramped!.ok || !alone!.ok) throw new Error('nothing was found')
        expect(all!.bound).toBeLessThanOrEqual(cramped!.cost + 1e-6)
        expect(alone!.bound).toBeLessThanOrEqual(all!.cost + 1e-6)
        for (const found of [all!, cramped!, alone!]) expect(found.gap).toBeLessThanOrEqual(0.001)
      }),
      { numRuns: 25 },
    )
  })

  it('is found however dear all of it is: without a spot it waits on the bench', () => {
    for (const worth of [0.1, 1, 10]) {
      const leaving = Array.from({ length: 60 }, (_, i) => ({
        id: `p${i}`,
        radiusM: 0.5,
        worth,
        fitHere: null,
      }))
      const found = relocate({ leaving, spots: [], fit: leaving.map(() => []) }, solve)
      expect(found.ok && found.cost).toBeCloseTo(60 * 35 * worth, 6)
    }
  })

  it('is told within a thousandth where room is dear', () => {
    // Drawn so that sets of plantings cut into parts come to one to two hundredths less than whole.
    for (const seed of [1003, 3044]) {
      const found = relocate(simulatedRelocation(seed, 60, 40), solve)
      if (!found.ok) throw new Error(found.why)
      expect(found.gap).toBeLessThanOrEqual(0.001)
      expect(found.cost).toBeCloseTo(
        found.destinations.reduce((sum, d) => sum + d.cost, 0),
        6,
      )
    }
  })

  it('does what somebody decided, tells its price, and says what cannot be', () => {
    const problem = made()
    const best = relocate(problem, solve)
    if (!best.ok) throw new Error(best.why)
    const price = (id: string, destination: Destination) => priceOf(problem, best, id, destination, solve)
    expect(price('fern', { to: 'spot', spotId: 'shady' })).toBeCloseTo(0)
    // On the bench instead of in the shade: 35 for 5.
    expect(price('fern', { to: 'bench' })).toBeCloseTo(30)
    // The peony in the shade, and the fern where it can: 5 + 18 and the bench, for 5 and 5.
    expect(price('peony', { to: 'spot', spotId: 'shady' })).toBeCloseTo(48)
    // Against the advice, but there is room for it: the fern in the sun, the peony in the shade.
    expect(price('fern', { to: 'spot', spotId: 'sunny' })).toBeCloseTo(5 + 48 + 5 + 18 - 10)
    expect(price('fern', { to: 'spot', spotId: 'nowhere' })).toBeUndefined()
    const both = { to: 'spot', spotId: 'shady' } as const
    expect(relocate({ ...problem, decided: { fern: both, peony: both } }, solve)).toEqual({
      ok: false,
      why: 'infeasible',
    })
  })
})
