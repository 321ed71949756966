import { describe, expect, it } from 'vitest'
import { simulatedSurvey } from '../../simulated/index.ts'
import { adjust, CRITICAL, type Adjusted, type Measured, type SurveyPoint } from './index.ts'

const fixed = (id: string, x: number, y: number): SurveyPoint => ({ id, x, y })
const tape = (from: string, to: string, metres: number, sdM?: number): Measured => ({
  id: `${from}-${to}`,
  kind: 'distance',
  from,
  to,
  metres,
  sdM,
})
const found = (a: Adjusted, id: string) => a.points.find((p) => p.id === id)!
const [A, B, P] = [fixed('A', 0, 0), fixed('B', 4, 0), { id: 'P' }]
const left = [{ point: 'P', of: ['A', 'B'] as const, side: 'left' as const }]

describe('worked examples', () => {
  it('a 3-4-5 triangle: two tapes find its corner, on the side that was said', () => {
    const tapes = [tape('A', 'P', 3), tape('B', 'P', 5)]
    expect(found(adjust([A, B, P], tapes, left), 'P').at.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      0, 3,
    ])
    const right = [{ ...left[0]!, side: 'right' as const }]
    expect(found(adjust([A, B, P], tapes, right), 'P').at[1]).toBeCloseTo(-3, 6)
  })

  it('two tapes that cross square: the ellipse is a round of 2.4477 standard errors (chi squared, two degrees)', () => {
    const { ellipse, sdM, isChecked } = found(
      adjust([A, B, P], [tape('A', 'P', Math.SQRT2 * 2, 0.02), tape('B', 'P', Math.SQRT2 * 2, 0.02)], left),
      'P',
    )
    for (const v of [ellipse.majorM, ellipse.minorM]) expect(v).toBeCloseTo(2.4477 * 0.02, 5)
    for (const v of sdM) expect(v).toBeCloseTo(0.02, 6)
    expect(isChecked).toBe(false)
  })

  it('two tapes that cross at 30 degrees: Helmert’s error of position is that of both over the sine', () => {
    const p = [10 * Math.cos(0), 10] as const
    const b = fixed('B', p[0] - 10 * Math.sin(Math.PI / 6), p[1] - 10 * Math.cos(Math.PI / 6))
    const a = fixed('A', p[0], 0)
    const { sdM } = found(
      adjust(
        [a, b, P],
        [tape('A', 'P', 10, 0.01), tape('B', 'P', 10, 0.02)],
        [{ point: 'P', of: ['A', 'B'], side: 'right' }],
      ),
      'P',
    )
    expect(Math.hypot(...sdM)).toBeCloseTo(Math.hypot(0.01, 0.02) / Math.sin(Math.PI / 6), 6)
  })

  it('a line measured in two parts and whole: the misclosure is shared by the squares of the errors', () => {
    // Parts 10.03 and 20.01 against 30.00 whole, alike: 4 cm are shared by thirds (conditional adjustment).
    const line = [fixed('A', 0, 0), { id: 'P', y: 0 }, { id: 'Q', y: 0 }]
    const a = adjust(line, [
      tape('A', 'P', 10.03, 0.01),
      tape('P', 'Q', 20.01, 0.01),
      tape('A', 'Q', 30, 0.01),
    ])
    expect(found(a, 'P').at[0]).toBeCloseTo(10.03 - 0.04 / 3, 6)
    expect(found(a, 'Q').at[0]).toBeCloseTo(30 + 0.04 / 3, 6)
    expect(a.redundancy).toBe(1)
    // With one measurement more than is needed nobody can tell which is wrong: all three are named.
    expect(a.residuals.map((r) => Math.round(r.standardised * 1000) / 1000)).toEqual([2.309, 2.309, 2.309])
  })

  it('offsets along a base line, right angles and bearings go where geometry puts them', () => {
    const base = [fixed('A', 1, 1), fixed('B', 1, 11)]
    const a = adjust(
      [...base, { id: 'P' }, { id: 'Q' }],
      [
        { id: 'o', kind: 'offset', base: ['A', 'B'], to: 'P', alongM: 4, offM: -2 },
        { id: 'b', kind: 'bearing', from: 'P', to: 'Q', deg: 90 },
        tape('P', 'Q', 3),
      ],
    )
    // To the right of a line that heads up the plan is east of it.
    expect(found(a, 'P').at.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([3, 5])
    expect(found(a, 'Q').at[0]).toBeCloseTo(6, 6)
    expect(found(a, 'Q').at[1]).toBeCloseTo(5, 6)
    const square: Measured = { id: 'r', kind: 'right angle', at: 'A', from: 'B', to: 'P' }
    const corner = adjust([A, B, P], [tape('A', 'P', 3), square], left)
    expect(found(corner, 'P').at.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 3])
  })
})

/** The same sum of weighted squares brought down by trying alone: no derivative, no matrix. */
function byTrying(measured: readonly Measured[], at: Map<string, readonly [number, number]>, free: string[]) {
  const cost = () =>
    measured.reduce((sum, m) => {
      if (m.kind !== 'distance') return sum
      const [p, q] = [at.get(m.from)!, at.get(m.to)!]
      return (
        sum + ((Math.hypot(p[0] - q[0], p[1] - q[1]) - m.metres) / Math.hypot(0.01, 0.002 * m.metres)) ** 2
      )
    }, 0)
  for (let step = 0.5; step > 1e-6; step /= 2)
    for (let isBetter = true; isBetter;) {
      isBetter = false
      for (const id of free)
        for (const [dx, dy] of [
          [step, 0],
          [-step, 0],
          [0, step],
          [0, -step],
          [step, step],
          [-step, -step],
        ] as const) {
          const [before, was] = [cost(), at.get(id)!]
          at.set(id, [was[0] + dx, was[1] + dy])
          if (cost() < before) isBetter = true
          else at.set(id, was)
        }
    }
  return at
}

describe('simulated surveys', () => {
  it('come out where the same sum of squares is least by trying', () => {
    for (const seed of [7, 8, 9]) {
      const { points, measured, truth } = simulatedSurvey(seed)
      const a = adjust(points, measured)
      const free = a.points.map((p) => p.id)
      const tried = byTrying(measured, new Map(truth), free)
      for (const p of a.points)
        expect(Math.hypot(p.at[0] - tried.get(p.id)![0], p.at[1] - tried.get(p.id)![1])).toBeLessThan(1e-3)
    }
  })

  it('hold the true points in their 95 % ellipses in 93 to 97 % of 2000', () => {
    let [inside, all] = [0, 0]
    for (let seed = 10_000; seed < 12_000; seed++) {
      const { points, measured, truth } = simulatedSurvey(seed)
      const p = adjust(points, measured).points[seed % 3]!
      const [tx, ty] = truth.get(p.id)!
      const turn = (p.ellipse.headingDeg * Math.PI) / 180
      const [dx, dy] = [tx - p.at[0], ty - p.at[1]]
      const along = dx * Math.sin(turn) + dy * Math.cos(turn)
      const across = dx * Math.cos(turn) - dy * Math.sin(turn)
      all++
      if ((along / p.ellipse.majorM) ** 2 + (across / p.ellipse.minorM) ** 2 <= 1) inside++
    }
    expect(inside / all).toBeGreaterThan(0.93)
    expect(inside / all).toBeLessThan(0.97)
  })

  it('have a blunder of 20 cm named in nine of ten, and sound ones are rarely suspected', () => {
    let [named, suspected] = [0, 0]
    const n = 400
    for (let seed = 20_000; seed < 20_000 + n; seed++) {
      const wrong = simulatedSurvey(seed, 0.2)
      if (adjust(wrong.points, wrong.measured).blunder.join() === wrong.wrong) named++
      const sound = simulatedSurvey(seed)
      if (adjust(sound.points, sound.measured).blunder.length > 0) suspected++
    }
    expect(named / n).toBeGreaterThan(0.9)
    // Twenty-odd tapes, each taken for a blunder once in a thousand.
    expect(suspected / n).toBeLessThan(0.06)
    expect(CRITICAL).toBeGreaterThan(3)
  })
})

describe('what cannot be found', () => {
  it('is said in the words of the tapes, and all else is found', () => {
    const c = fixed('C', 0, 6)
    const a = adjust(
      [fixed('A', 0, 0), fixed('B', 6, 0), c, { id: 'P' }, { id: 'Q' }, { id: 'R' }],
      [
        tape('A', 'P', 3.2),
        tape('B', 'P', 2.1),
        tape('A', 'Q', 5),
        tape('B', 'Q', 5),
        tape('C', 'Q', 3.35),
        tape('A', 'R', 2),
      ],
    )
    expect(a.points.map((p) => p.id)).toEqual(['Q'])
    expect(a.missing).toEqual([
      { id: 'P', says: '3.20 m from A and 2.10 m from B cannot meet: A and B lie 6.00 m apart' },
      { id: 'R', says: 'R needs 1 more tape than that from A' },
    ])
    expect(adjust([A, B, P], [tape('A', 'P', 3), tape('B', 'P', 5)]).missing[0]!.says).toBe(
      'P may lie on either side of the line from A to B: say on which, or measure from a third point',
    )
    expect(adjust([A, B, P], []).missing[0]!.says).toBe(
      'nothing measured leads to P from a point that is known',
    )
  })
})
