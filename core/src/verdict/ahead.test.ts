import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, patternAt } from '../climate/index.ts'
import type { Obstruction } from '../light/index.ts'
import { library, likesCoolSummers } from '../plants/index.ts'
import type { StandingGarden } from '../garden/index.ts'
import { madeBed, madePlanting, rectangle } from '../garden/test/made.ts'
import { comingChanges, whatIfEffects, lightEffects } from './index.ts'

/** Planned round three sides of the bed for the spring of 2029. */
const planned: Obstruction = {
  id: 'planned',
  name: 'planned screen',
  kind: 'wall',
  line: [
    [-1, 6],
    [-1, -0.5],
    [5, -0.5],
    [5, 6],
  ],
  heightM: 4,
  transmission: 0,
  thicknessM: 0,
  from: '2029-04-01',
}
const garden: StandingGarden = {
  scene: { latitudeDeg: 52, longitudeDeg: 0, northDeg: 0, obstructions: [planned] },
  places: [madeBed('bed', rectangle(0, 0, 4, 2))],
  plantings: [madePlanting('lavender', 'Lavandula angustifolia', { x: 2, y: 1, radiusM: 0.3 })],
}

describe('the years ahead', () => {
  it('name the year, the obstruction and the part of the day', () => {
    const [change, ...more] = comingChanges(garden, '2026-07-01', 10)
    expect(more).toEqual([])
    expect(change).toMatchObject({ plantingId: 'lavender', year: 2029, leaves: true })
    expect(change!.causes).toMatchObject([{ obstructionId: 'planned', what: 'appeared', date: '2029-04-01' }])
    const { hours, byPart } = change!.causes[0]!
    expect(hours).toBeCloseTo(change!.then.total - change!.now.total, 3)
    // Four metres high and a metre and a half off it stands 69 deg up: higher than the sun ever does here.
    expect(byPart.midday).toBeCloseTo(-4, 1)
  })

  it('say nothing where nothing grows or is planned', () => {
    const still = { ...garden, scene: { ...garden.scene, obstructions: [{ ...planned, from: null }] } }
    expect(comingChanges(still, '2026-07-01', 10)).toEqual([])
  })
})

describe('what-ifs', () => {
  const standing = { ...garden, scene: { ...garden.scene, obstructions: [{ ...planned, from: null }] } }
  it('name who comes back into their light when a thing goes', () => {
    const [effect] = lightEffects(standing, [{ obstructionId: 'planned', gone: true }], '2026-07-01')
    expect(effect).toMatchObject({ plantingId: 'lavender', outsideNow: true, outsideThen: false })
  })

  it('are compared with the garden as it stands', () => {
    const [now, half, gone] = whatIfEffects(
      standing,
      [[], [{ obstructionId: 'planned', heightM: 2 }], [{ obstructionId: 'planned', gone: true }]],
      '2026-07-01',
    )
    expect(now).toMatchObject({ outside: 1, leaving: 0, returning: 0 })
    expect(gone).toMatchObject({ outside: 0, returning: 1 })
    expect(half!.meanHours).toBeGreaterThan(now!.meanHours)
    expect(gone!.meanHours).toBeGreaterThan(half!.meanHours)
  })

  it('go by the summers of the garden: open sun all afternoon is too much in a hot one for what bears it in a cool one', () => {
    const climateAt = (latitude: number, longitude: number) => {
      const found = climateOf(generateWeather(patternAt({ latitude, longitude }), 1996, 2020), latitude)
      return found.ok ? found.climate : null
    }
    const kind = library.find(
      (t) =>
        t.hotAfternoon === 'bears' && t.lightMaxHours >= 24 && t.lightMinHours > 3 && likesCoolSummers(t),
    )!
    const plantings = [madePlanting('p', kind.botanical, { x: 2, y: 1, radiusM: 0.3 })]
    const [hot, cool] = [climateAt(33.7, -84.4), climateAt(57.1, -2.1)].map(
      (climate) =>
        lightEffects(
          { ...standing, plantings, climate },
          [{ obstructionId: 'planned', gone: true }],
          '2026-07-01',
        )[0],
    )
    expect(hot!.then.heat).toBeGreaterThan(2.25)
    expect([hot!.outsideThen, cool!.outsideThen]).toEqual([true, false])
  })
})
