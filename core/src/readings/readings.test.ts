import { describe, expect, it } from 'vitest'
import type { Obstruction, Scene } from '../light/index.ts'
import { standing, transmittance, withSuppositions } from '../light/index.ts'
import { seededRandom } from '../random/index.ts'
import { solarDay } from '../sun/index.ts'
import {
  aimOf,
  clockOffsetHours,
  explainReadings,
  logReadings,
  readingFault,
  sharesPast,
  dayWorthWaitingFor,
  tellingLooks,
  tellingOfDays,
  type Brightness,
  type Look,
  type Reading,
  type TellingLook,
} from './index.ts'
import { lookAt, simulateLog } from '../../simulated/index.ts'

const tree = (id: string, x: number, y: number, heightM = 9): Obstruction => ({
  id,
  name: id,
  kind: 'tree',
  x,
  y,
  trunkRadiusM: 0.2,
  clearStemM: 1.5,
  heightM,
  crownRadiusM: 2.5,
  crownShape: 'ellipsoid',
  transmissionInLeaf: 0.15,
  transmissionBare: 0.6,
})
const wall: Obstruction = {
  id: 'wall',
  name: 'wall',
  kind: 'wall',
  line: [
    [-8, -3],
    [8, -3],
  ],
  heightM: 3,
  transmission: 0,
  thicknessM: 0.3,
}
const drawn: Scene = {
  latitudeDeg: 51.5,
  longitudeDeg: -1.5,
  northDeg: 15,
  obstructions: [wall, tree('lime', -9, 0), tree('ash', 8, 1, 6)],
}
const DAY = '2026-06-14'

/** Every second metre of a bed of eight by four, every forty minutes. */
const looksOn = (day: string): Look[] =>
  solarDay(day, drawn.latitudeDeg, drawn.longitudeDeg)
    .filter((s, i) => i % 4 === 0 && s.elevationDeg > 8)
    .flatMap(({ instantMs }) =>
      [-4, -2, 0, 2, 4].flatMap((x) => [-2, 0, 2].map((y) => ({ instantMs, x, y, z: 0 }))),
    )
const looks = looksOn(DAY)
const read = (truth: Scene, at: readonly Look[], seed = 3, errorRate = 0.1): Reading[] => {
  const random = seededRandom(seed)
  return at.map((look, i) => ({ ...look, id: String(i), seen: lookAt(truth, look, random, errorRate)! }))
}

describe('explaining readings', () => {
  const ways: [string, Scene, string, string?][] = [
    ['a felled lime', withSuppositions(drawn, [{ obstructionId: 'lime', gone: true }], DAY), 'gone', 'lime'],
    [
      'a wall taken down by half',
      withSuppositions(drawn, [{ obstructionId: 'wall', heightM: 1.4 }], DAY),
      'lowered',
      'wall',
    ],
    [
      'an ash grown by half',
      withSuppositions(drawn, [{ obstructionId: 'ash', heightM: 10, crownRadiusM: 3.6 }], DAY),
      'grown',
      'ash',
    ],
    [
      'a new block in the east',
      {
        ...drawn,
        obstructions: [
          ...drawn.obstructions,
          {
            id: 'block',
            name: 'block',
            kind: 'building',
            ring: [
              [7, -8],
              [11, -8],
              [11, 4],
              [7, 4],
            ],
            heightM: 7,
          },
        ],
      },
      'new',
    ],
  ]
  it.each(ways)('finds %s', (_, truth, what, obstructionId) => {
    const { explanations, used } = explainReadings(drawn, read(truth, looks))
    expect(used).toBe(looks.length)
    expect(explanations[0]!.cause).toMatchObject({ what, ...(obstructionId ? { obstructionId } : {}) })
    const asDrawn = explanations.find((e) => e.cause.what === 'as drawn')!
    expect(explanations[0]!.explains.length).toBeGreaterThan(asDrawn.explains.length)
    expect(explanations.reduce((sum, e) => sum + e.posterior, 0)).toBeCloseTo(1, 9)
  })

  it('says that nothing changed when nothing did, though one reading in ten is wrong', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const some = read(drawn, looks, seed).filter((_, i) => i % 7 === seed % 7)
      expect(explainReadings(drawn, some).explanations[0]!.cause.what).toBe('as drawn')
    }
  })

  it('penalises by the readings: the criterion is that of Schwarz, -2 log L + k ln n', () => {
    const { explanations } = explainReadings(drawn, read(drawn, looks))
    const of = (what: string) => explanations.find((e) => e.cause.what === what)!
    expect(of('as drawn').bic).toBeCloseTo(-2 * of('as drawn').logLikelihood, 9)
    expect(of('gone').bic).toBeCloseTo(-2 * of('gone').logLikelihood + Math.log(looks.length), 9)
  })

  it('sets a reading aside when the sun stands behind its slope', () => {
    const early = looks.reduce((a, b) => (b.instantMs < a.instantMs ? b : a))
    const reading = {
      ...early,
      id: 'west slope',
      seen: 'shade' as const,
      ground: { slopeDeg: 40, aspectDeg: 270 },
    }
    expect(explainReadings(drawn, [reading]).unusable).toEqual(['west slope'])
  })
})

describe('the next look', () => {
  it('is where the explanations differ: in the shadow that would be gone', () => {
    // Two readings in the lime's shadow that found sun leave little but how much of it is gone.
    const inShadow = looks.filter((look) => {
      const { day, rays } = aimOf(drawn, look, true)!
      const [{ x, y, z, d }] = rays as [(typeof rays)[number]]
      return transmittance([standing(drawn.obstructions[1]!, day)!], x, y, z, d) < 0.3
    })
    const found = inShadow.slice(0, 2).map((look, i): Reading => ({ ...look, id: String(i), seen: 'sun' }))
    const [first] = tellingLooks(drawn, explainReadings(drawn, found), looks, 3)
    expect(first!.bits).toBeGreaterThan(0.2)
    const seen = first!.expected.map((e) => e.seen)
    expect(seen).toContain<Brightness>('sun')
    // Each that is named beside the most believed would be seen otherwise: else the look would settle nothing.
    expect(seen.length).toBeGreaterThan(1)
    expect(seen.slice(1)).not.toContain(seen[0])
    // Once the sun is down there is nothing to look at, whatever might have grown.
    expect(tellingLooks(drawn, explainReadings(drawn, found), [], 3)).toEqual([])
  })

  it('is under the sun that the change is seen by: a low wall far to the south, on a day in December alone', () => {
    const farWall = {
      ...wall,
      id: 'far wall',
      line: wall.line.map(([x]) => [x, -12] as const),
    } as Obstruction
    const scene = { ...drawn, northDeg: 0, obstructions: [farWall] }
    const gone = {
      what: 'gone',
      obstructionId: 'far wall',
      supposition: { obstructionId: 'far wall', gone: true },
    }
    const explained = { alternatives: [{ what: 'as drawn' }, gone].map((cause) => ({ cause, weight: 0.5 })) }
    // To the north its shadow reaches 1.6 m at noon in June and 11 m in December; the bed lies 10 to 14 m off.
    const [june, december] = tellingOfDays(scene, explained as never, [looks, looksOn('2026-12-15')], 6)
    expect(june).toEqual([])
    expect(december![0]!.bits).toBeGreaterThan(0.3)
  })

  it('is worth waiting for where another day tells clearly more', () => {
    const day = (name: string, ...bits: number[]) => ({
      name,
      looks: bits.map((b) => ({ bits: b })) as TellingLook[],
    })
    const [may, june, bare] = [day('may', 0.4, 0.1), day('june', 0.5, 0.4), day('bare')]
    expect(dayWorthWaitingFor(may.looks, [bare, june, may])).toMatchObject({ name: 'june', times: 1.8 })
    expect(dayWorthWaitingFor(day('now', 0.7).looks, [may, june])).toBeNull()
    expect(dayWorthWaitingFor([], [may, june])).toMatchObject({ name: 'june', times: null })
    expect(dayWorthWaitingFor([], [bare])).toBeNull()
    expect(dayWorthWaitingFor([], [])).toBeNull()
  })

  it('is for what would alter much, before what would alter less and is as likely', () => {
    const north = { ...wall, id: 'north', line: wall.line.map(([x]) => [x, 3.5] as const) } as Obstruction
    const scene = { ...drawn, obstructions: [wall, north] }
    const gone = (obstructionId: string) => ({
      cause: { what: 'gone', obstructionId, supposition: { obstructionId, gone: true } },
      weight: 0.25,
    })
    const alternatives = [{ cause: { what: 'as drawn' }, weight: 0.5 }, gone('wall'), gone('north')]
    const told = tellingLooks(scene, { alternatives } as never, looks, looks.length)
    // The other of the two would be seen as drawn there, and so is not named.
    const ofOne = (obstructionId: string) =>
      told.filter(({ expected: [drawn, ...otherwise] }) => {
        expect(otherwise.every((e) => e.seen !== drawn!.seen)).toBe(true)
        const [{ cause, seen } = drawn!] = otherwise
        const isIt =
          otherwise.length === 1 && 'obstructionId' in cause && cause.obstructionId === obstructionId
        return isIt && seen === 'sun' && drawn!.seen === 'shade'
      })
    const [south, northern] = [ofOne('wall'), ofOne('north')] as const
    // In June the sun is seldom in the north.
    expect(south.length).toBeGreaterThan(1.5 * northern.length)
    expect(northern.length).toBeGreaterThan(0)
    expect(south[0]!.bits).toBeGreaterThan(1.2 * northern[0]!.bits)
  })

  it('is nowhere in a garden with nothing that could change', () => {
    const bare = { ...drawn, obstructions: [] }
    expect(tellingLooks(bare, explainReadings(bare, []), looks, 3)).toEqual([])
  })
})

describe('a reading', () => {
  it.each([
    ['2026-06-14T12:00Z', undefined],
    ['2026-06-14T23:30Z', 'sun down'],
    ['2026-06-14T04:05Z', 'sun too low'],
    ['2026-06-15T12:00Z', 'in the future'],
  ] as const)('at %s: %s', (at, fault) => {
    expect(readingFault(drawn, Date.parse(at), Date.parse('2026-06-14T23:59Z'))).toBe(fault)
  })
})

describe('a light logger', () => {
  const at = { x: 0, y: 1, z: 0 }
  const fromMs = Date.parse('2026-06-01T00:00Z')
  const samples = simulateLog(drawn, at, { fromMs, days: 14, everyMin: 10 }, seededRandom(11))
  const log = { id: 'log', ...at, samples }

  it('yields the share of the sun that the scene lets through, cloud set aside', () => {
    const { readings, cloudy, steps } = logReadings(drawn, log)
    expect(readings.length).toBeGreaterThan(30)
    // Six days in ten have cloud.
    expect(cloudy).toBeGreaterThan(0.15 * steps)
    const off = readings.map((r) => {
      const aim = aimOf(drawn, r, true)!
      const [{ x, y, z, d }] = aim.rays as [(typeof aim.rays)[number]]
      const solids = drawn.obstructions.map((o) => standing(o, aim.day)!)
      return Math.abs((r.seen as number) - transmittance(solids, x, y, z, d))
    })
    // At a shadow's edge twenty minutes are part sun and part shade.
    expect([...off].sort((a, b) => a - b)[Math.floor(off.length * 0.8)]).toBeLessThan(0.12)
  })

  it.each([11, 23, 52, 67, 90, 114])(
    'reads nothing where nothing comes through, under whatever sky (seed %i)',
    (seed) => {
      const shady: Scene = { ...drawn, obstructions: [{ ...wall, heightM: 12, thicknessM: 0.5 }] }
      const shaded = simulateLog(shady, at, { fromMs, days: 14, everyMin: 10 }, seededRandom(seed))
      const { readings } = logReadings(shady, { id: 'log', ...at, samples: shaded })
      // Well within the shadow, from step to step.
      const dark = readings.filter((r) =>
        [-1, 0, 1].every((k) => {
          const aim = aimOf(shady, { ...r, instantMs: r.instantMs + k * 1_200_000 }, true)
          return aim && sharesPast([aim], shady.obstructions[0]!)[0] === 0
        }),
      )
      expect(dark.length).toBeGreaterThan(8)
      for (const r of dark) expect(r.seen as number).toBeLessThan(0.03)
    },
  )

  it('finds the tree that went', () => {
    const truth = withSuppositions(drawn, [{ obstructionId: 'lime', gone: true }], DAY)
    const near = { x: -5, y: 0.5, z: 0 }
    const log = {
      id: 'log',
      ...near,
      samples: simulateLog(truth, near, { fromMs, days: 14, everyMin: 10 }, seededRandom(5)),
    }
    const { explanations } = explainReadings(drawn, logReadings(drawn, log).readings)
    expect(explanations[0]!.cause).toMatchObject({ obstructionId: 'lime' })
  })

  it.each([0, 1, 6])('shows a clock that is %s hours out', (hours) => {
    const shifted = samples.map((s) => ({ ...s, instantMs: s.instantMs + hours * 3_600_000 }))
    expect(Math.abs(clockOffsetHours(drawn, shifted)! - hours)).toBeLessThan(0.6)
  })

  it('says nothing of a single dull day', () => {
    const dull = { ...log, samples: samples.slice(0, 144).map((s) => ({ ...s, lux: s.lux * 0.1 })) }
    const { readings, undecided, steps } = logReadings(drawn, dull)
    expect(readings).toEqual([])
    expect(undecided).toBe(steps)
  })
})
