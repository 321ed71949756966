import { describe, expect, it } from 'vitest'
import { adjusted, measuredWords, nextPoint, NO_TAPES, withoutPoint, type Tapes } from './tapes.ts'

const tapes: Tapes = {
  points: [{ id: 'A', x: 0, y: 0 }, { id: 'B', y: 0 }, { id: 'P1' }],
  measured: [
    { id: '1', kind: 'distance', from: 'A', to: 'B', metres: 4 },
    { id: '2', kind: 'distance', from: 'A', to: 'P1', metres: 3 },
    { id: '3', kind: 'distance', from: 'B', to: 'P1', metres: 5 },
    { id: '4', kind: 'offset', base: ['A', 'B'], to: 'P1', alongM: 0, offM: 3 },
  ],
  sides: [{ point: 'P1', of: ['A', 'B'], side: 'left' }],
}

describe('tapes typed beside the bed', () => {
  it('from two stakes alone find a corner: the 3-4-5 triangle stands on its base', () => {
    const { points, blunder } = adjusted(tapes)
    const at = (id: string) => points.find((p) => p.id === id)!.at.map((v) => Math.round(v * 100) / 100)
    expect([at('B'), at('P1')]).toEqual([
      [4, 0],
      [0, 3],
    ])
    expect(blunder).toEqual([])
  })

  it('name points in turn, and leave out a point with all that was measured to it', () => {
    expect([nextPoint(NO_TAPES), nextPoint(tapes)]).toEqual(['P1', 'P2'])
    const left = withoutPoint(tapes, 'P1')
    expect([left.points.length, left.measured.map((m) => m.id), left.sides]).toEqual([2, ['1'], []])
  })

  it('are read back as they were typed', () => {
    expect(tapes.measured.map(measuredWords)).toEqual([
      'A to B: 4.00 m',
      'A to P1: 3.00 m',
      'B to P1: 5.00 m',
      'P1: 0.00 m along A–B, 3.00 m to the left',
    ])
  })
})
