// @vitest-environment happy-dom
import { gardenEndpoints, reworkEndpoints, type SchemeView } from '@border/contract'
import { extentOf, library, opposite, placesOn, type Bed, type Drift, type Point } from '@border/core'
import { beforeEach, expect, it } from 'vitest'
import { answerTo, MockServer, today } from '../test/server.ts'
import { repeatedIn } from './repeatedIn.ts'
import { arrangementOf, bedGround, withArrangement } from './schemeDraft.ts'

const view = answerTo(gardenEndpoints.read)
const ground = answerTo(reworkEndpoints.ground)
const [rework] = answerTo(reworkEndpoints.list)
const place = placesOn(view.features, today).find((p) => p.id === ground.placeId)! as Bed
const kindOf = new Map(library.map((t) => [t.botanical, t]))
const taxon = kindOf.get('Nepeta × faassenii')!
const drift: Drift = { id: 'here', taxon, count: 3 }

// A border of its own, two metres to the left of the place, as long as it.
const [x0, y0, , y1] = (({ minX, minY, maxX, maxY }) => [minX, minY, maxX, maxY])(extentOf(place.ring)) as [
  number,
  number,
  number,
  number,
]
const left: Bed = { ...place, id: 'left', ring: [[x0 - 4, y0], [x0 - 2, y0], [x0 - 2, y1], [x0 - 4, y1]] } // prettier-ignore
/** As high up the plan as the ground that the answers tell of. */
const middle: Point = [x0 - 2.6, (ground.stations[0]!.y + ground.stations.at(-1)!.y) / 2]
/** All that stands there goes: the ground is free. */
const leaving = view.plantings
  .filter((p) => p.placeId === place.id)
  .map((p) => ({ plantingId: p.id, how: 'leaves' as const, to: { to: 'gone' as const }, worth: 1 }))
const scheme = (said: Partial<SchemeView['said']>): SchemeView => {
  const [first] = rework!.schemes
  return { ...first!, said: { ...first!.said, leaving, between: [], ...said } }
}

beforeEach(async () => {
  const server = await MockServer.fresh()
  server.on(reworkEndpoints.relocate, () => ({ ok: true as const, cost: 0, gap: 0, went: [] }))
})

it('a drift repeated in a scheme that is laid out has its ground opposite, and the others make room', async () => {
  const bed = bedGround(place, ground, [180], [])
  const stations = ground.stations.length
  const whole = { drifts: [{ ...drift, id: 'there', count: 9 }], has: new Int16Array(stations).fill(0) }
  const laid = scheme(withArrangement(scheme({ drifts: [] }).said, bed, whole, kindOf))
  const of = { rework: rework!, scheme: laid }
  const { said, isPlaced } = await repeatedIn({ view, today }, of, drift, { place: left, middle }, kindOf)
  expect(isPlaced).toBe(true)
  const [there, copy] = said.drifts
  expect([there!.id, copy!.botanical, copy!.count]).toEqual(['there', taxon.botanical, 3])
  const { arranged } = arrangementOf(bed, said, kindOf)
  const own = ground.stations.filter((_, c) => arranged.drifts[arranged.has[c]!]?.id === copy!.id)
  const [ax, ay] = opposite(left, middle, place)
  const away = own.map((s) => Math.hypot(s.x - ax, s.y - ay))
  expect(own.length).toBeGreaterThan(0)
  // Three plants take about half a square metre: their ground is about the point itself.
  expect(Math.min(...away)).toBeLessThan(0.6)
  expect(Math.max(...away)).toBeLessThan(2)
})

it('and is one drift more, without ground, where nothing is laid out or it has none itself', async () => {
  const unlaid = { rework: rework!, scheme: scheme({ drifts: [] }) }
  for (const from of [
    { place: left, middle },
    { place: left, middle: undefined },
  ]) {
    const { said, isPlaced } = await repeatedIn({ view, today }, unlaid, drift, from, kindOf)
    expect(isPlaced).toBe(false)
    expect(said.drifts.map((d) => [d.botanical, d.count, d.ground])).toEqual([[taxon.botanical, 3, null]])
  }
})
