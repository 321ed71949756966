import { describe, expect, it } from 'vitest'
import {
  decisionRequest,
  featureEventRequest,
  crewPersonRequest,
  gardenRequest,
  isoDay,
  jobDoneRequest,
} from './index.ts'

const id = '3f2504e0-4f89-41d3-9a0c-0305e82c3301'
const accepts = (schema: { safeParse: (v: unknown) => { success: boolean } }, value: unknown) =>
  schema.safeParse(value).success

describe('what may cross the wire', () => {
  it.each([
    ['2026-09-14', true],
    ['2024-02-29', true],
    ['2026-02-29', false],
    ['14.09.2026', false],
    ['2026-9-4', false],
  ])('%s is a day: %s', (day, is) => {
    expect(accepts(isoDay, day)).toBe(is)
  })

  it.each([
    ['an acceptance', { choice: 'accept' }, true],
    ['another action with its reason', { choice: 'otherwise', action: 'keep', reason: 'It stays.' }, true],
    ['another action without one', { choice: 'otherwise', action: 'keep' }, false],
    ['an action there is not', { choice: 'otherwise', action: 'burn', reason: 'It stays.' }, false],
    ['waiting without a day', { choice: 'wait' }, false],
    ['waiting until a day', { choice: 'wait', until: '2027-03-01' }, true],
  ])('a decision: %s', (_, more, is) => {
    expect(accepts(decisionRequest, { plantingId: id, on: '2026-09-14', ...more })).toBe(is)
  })

  it.each([
    ['limbing with its height', { action: 'limbed', clearStemM: 2 }, true],
    ['limbing with a share', { action: 'limbed', fraction: 0.3 }, false],
    ['thinning by more than all', { action: 'thinned', fraction: 1.2 }, false],
    ['lowering below the ground', { action: 'lowered', heightM: -1 }, false],
  ])('an event: %s', (_, event, is) => {
    expect(accepts(featureEventRequest, { date: '2026-09-14', ...event })).toBe(is)
  })

  it.each([
    ['half a minute', { on: '2026-09-14', minutes: 0.5 }, false],
    ['no time at all', { on: '2026-09-14', minutes: 0 }, false],
    ['fewer than none alive', { on: '2026-09-14', minutes: 10, lived: -1 }, false],
    ['an honest record', { on: '2026-09-14', minutes: 10, lived: 0, note: '' }, true],
  ])('a record of %s', (_, record, is) => {
    expect(accepts(jobDoneRequest, record)).toBe(is)
  })

  it('a garden lies on Earth and in a time zone that exists; a week has seven days', () => {
    const garden = { name: 'x', latitude: -41, longitude: 174, timeZone: 'Pacific/Auckland' }
    expect(accepts(gardenRequest, garden)).toBe(true)
    expect(accepts(gardenRequest, { ...garden, latitude: -91 })).toBe(false)
    expect(accepts(gardenRequest, { ...garden, timeZone: 'Pacific/Atlantis' })).toBe(false)
    expect(accepts(crewPersonRequest, { name: 'x', skills: [], minutesByWeekday: [0, 0, 0, 0, 0, 0] })).toBe(
      false,
    )
  })
})
