import type { Supposition } from '@border/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { firstLook, lightReducer, scenesShown, STEP_M, type LightState } from './lightState.ts'

const higher = (id: string, heightM: number): Supposition => ({ obstructionId: id, heightM })
const trying = (state: LightState, id: string, supposition: Supposition | undefined) =>
  lightReducer(state, { do: 'suppose', id, change: () => supposition })

describe('the marked spot', () => {
  it('begins in the middle of what is shown, and goes on from where it is', () => {
    const once = lightReducer(firstLook, { do: 'nudge', steps: [1, 0], middle: [10, 20] })
    expect(once.selected).toEqual({ kind: 'spot', at: [10 + STEP_M, 20] })
    const twice = lightReducer(once, { do: 'nudge', steps: [0, -1], middle: [0, 0] })
    expect(twice.selected).toEqual({ kind: 'spot', at: [10 + STEP_M, 20 - STEP_M] })
  })

  it('comes back by as many steps the other way, whatever the way between', () => {
    const step = fc.constantFrom<[number, number]>([1, 0], [-1, 0], [0, 1], [0, -1])
    fc.assert(
      fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
        const start = lightReducer(firstLook, { do: 'select', selected: { kind: 'spot', at: [3, 4] } })
        const back = steps.map(([x, y]): [number, number] => [-x, -y]).reverse()
        const end = [...steps, ...back].reduce(
          (state, steps) => lightReducer(state, { do: 'nudge', steps, middle: [0, 0] }),
          start,
        )
        expect(end.selected).toEqual(start.selected)
      }),
    )
  })
})

describe('the scenes that are drawn', () => {
  it('are both where a difference was asked for and a moment has none, and the difference again with the hours', () => {
    const difference = lightReducer(firstLook, { do: 'show', what: { viewName: 'difference' } })
    const moment = lightReducer(difference, { do: 'show', what: { period: 'moment' } })
    expect(scenesShown(moment)).toBe('side by side')
    expect(scenesShown(lightReducer(moment, { do: 'show', what: { period: 'season' } }))).toBe('difference')
    for (const viewName of ['before', 'after', 'side by side'] as const)
      expect(scenesShown({ period: 'moment', viewName })).toBe(viewName)
  })
})

describe('what is tried', () => {
  it('is kept with the latest last, each thing once, and put back by nothing', () => {
    const both = trying(trying(firstLook, 'alder', higher('alder', 6)), 'wall', higher('wall', 1))
    const again = trying(both, 'alder', higher('alder', 7))
    expect([...again.suppositions]).toEqual([
      ['wall', higher('wall', 1)],
      ['alder', higher('alder', 7)],
    ])
    expect([...trying(again, 'wall', undefined).suppositions.keys()]).toEqual(['alder'])
    // What was shown before is as it was.
    expect([...both.suppositions.keys()]).toEqual(['alder', 'wall'])
  })

  it('is told what was tried before of the same thing', () => {
    const first = trying(firstLook, 'alder', { obstructionId: 'alder', movedM: [1, 0] })
    const next = lightReducer(first, {
      do: 'suppose',
      id: 'alder',
      change: (before) => ({ obstructionId: 'alder', movedM: [before!.movedM![0] + 1, 2] }),
    })
    expect(next.suppositions.get('alder')!.movedM).toEqual([2, 2])
  })

  it('is seen at once: in hours, not at a moment, and as tried, not as it was then', () => {
    const then = lightReducer(firstLook, { do: 'show', what: { period: 'moment', viewName: 'before' } })
    expect(trying(then, 'alder', higher('alder', 6))).toMatchObject({ period: 'season', viewName: 'after' })
    const difference = lightReducer(firstLook, {
      do: 'show',
      what: { viewName: 'difference', stretch: 'heat' },
    })
    expect(trying(difference, 'alder', higher('alder', 6))).toMatchObject({
      viewName: 'difference',
      stretch: 'heat',
    })
  })

  it('gives way to a what-if that is shown', () => {
    const tried = trying(firstLook, 'alder', higher('alder', 6))
    const shown = lightReducer(tried, { do: 'suppose only', suppositions: [higher('wall', 0.5)] })
    expect([...shown.suppositions.keys()]).toEqual(['wall'])
    expect(lightReducer(shown, { do: 'suppose only', suppositions: [] }).suppositions.size).toBe(0)
  })
})
