import { lieOf, straightened, type Laying, type Point } from '@border/core'
import { describe, expect, it } from 'vitest'
import {
  draftOfLaying,
  layingOf,
  NEW_LAYING,
  planDiffersM,
  withoutMark,
  type LayingDraft,
} from './layingDraft.ts'

const above = (change: Partial<LayingDraft>): LayingDraft => ({
  ...NEW_LAYING,
  marks: [{ px: [100, 400], at: [2, 3] }, { px: [300, 400] }],
  lengthM: 5,
  ...change,
})
const laid = (draft: LayingDraft, northDeg = 0): Laying => {
  const said = layingOf(draft, northDeg)
  if (!said.ok) throw new Error(said.asks)
  return said.laying
}
const put = (draft: LayingDraft, px: Point, northDeg = 0) => {
  const lies = lieOf(laid(draft, northDeg))
  if (!lies.ok) throw new Error(lies.says)
  return straightened(lies.lie.homography, px).map((v) => Math.round(v * 1e6) / 1e6 + 0)
}
const asks = (draft: LayingDraft) => {
  const said = layingOf(draft, 0)
  return said.ok ? 'nothing' : said.asks
}

describe('a scan', () => {
  it('is turned so that its north is the plan’s, however north is told', () => {
    // North is to the right of the plan: what is up in the picture lies to the right.
    expect(put(above({ turned: 'up is north' }), [100, 360], 90)).toEqual([3, 3])
    // The arrow points to the left of the picture.
    const arrow: Point[] = [
      [50, 50],
      [10, 50],
    ]
    expect(put(above({ turned: 'a north arrow', arrow }), [60, 400])).toEqual([2, 4])
    const both = above({ turned: 'both on the plan', lengthM: null })
    const marks = [both.marks[0]!, { px: [300, 400] as Point, at: [2, 7] as Point }]
    expect(put({ ...both, marks }, [300, 400])).toEqual([2, 7])
    expect(put(above({ turned: 'by degrees', turnDeg: 90 }), [300, 400])).toEqual([2, -2])
  })

  it('asks for one thing after the other, in the order in which they are done', () => {
    expect(asks(NEW_LAYING)).toMatch(/Click a point in the picture/)
    expect(asks(above({ marks: [{ px: [1, 1] }] }))).toMatch(/second point/)
    expect(asks(above({ marks: [{ px: [1, 1] }, { px: [9, 9] }] }))).toMatch(/where A lies/)
    expect(asks(above({ turned: 'a north arrow' }))).toMatch(/foot/)
    expect(asks(above({ turned: 'a north arrow', arrow: [[1, 1]] }))).toMatch(/tip/)
    expect(asks(above({ turned: 'both on the plan' }))).toMatch(/where B lies/)
    expect(asks(above({ lengthM: null }))).toMatch(/how far A and B are apart/)
  })

  it('says where the plan has another length than was measured', () => {
    const marks = [
      { px: [100, 400] as Point, at: [2, 3] as Point },
      { px: [300, 400] as Point, at: [2, 8.4] as Point },
    ]
    expect(planDiffersM(above({ turned: 'both on the plan', marks }))).toBeCloseTo(5.4, 9)
    expect(planDiffersM(above({ turned: 'both on the plan', marks, lengthM: 5.41 }))).toBeUndefined()
  })
})

describe('a slanting photo', () => {
  const marks = [
    { px: [10, 90] as Point, at: [0, 0] as Point },
    { px: [90, 90] as Point },
    { px: [70, 40] as Point },
    { px: [30, 40] as Point },
  ]
  const photo = (change: Partial<LayingDraft>): LayingDraft => ({
    ...NEW_LAYING,
    how: 'slanting',
    marks,
    ...change,
  })

  it('asks for four points, and where each lies', () => {
    expect(asks(photo({ marks: marks.slice(0, 2) }))).toMatch(/four or more.*2 so far/)
    expect(asks(photo({}))).toMatch(/where 2 lies/)
  })

  it('by tape asks for as many as a figure needs, and for its first point and side', () => {
    const tapes = { '0-1': 8, '1-2': 4, '2-3': 4, '0-3': 5, '0-2': 7 }
    expect(asks(photo({ known: 'by tape' }))).toMatch(/from 1 to 2 first/)
    expect(asks(photo({ known: 'by tape', tapes: { '0-1': 8 } }))).toMatch(/5 tapes are needed: 1 so far/)
    expect(asks(photo({ known: 'by tape', tapes }))).toMatch(/which direction/)
    expect(laid(photo({ known: 'by tape', tapes, bearingDeg: 350 }), 20)).toMatchObject({
      at: [0, 0],
      bearingDeg: 10,
      tapes: expect.arrayContaining([{ from: 0, to: 2, metres: 7 }]),
    })
  })

  it('loses with a point the tapes to it, and the others keep theirs', () => {
    const tapes = { '0-1': 8, '1-2': 4, '2-3': 4, '0-3': 5 }
    const left = withoutMark(photo({ known: 'by tape', tapes }), 1)
    expect(left.marks).toEqual([marks[0], marks[2], marks[3]])
    expect(left.tapes).toEqual({ '1-2': 4, '0-2': 5 })
  })

  it('opened again says what was said before', () => {
    const tapes = { '0-1': 8, '1-2': 4, '2-3': 4, '0-3': 5, '0-2': 7 }
    const before = [
      laid(photo({ known: 'by tape', tapes, bearingDeg: 350 }), 20),
      laid(photo({ marks: marks.map((m, i) => ({ ...m, at: [i, i * i] as Point })) })),
      laid(above({ turned: 'by degrees', turnDeg: 33 })),
    ]
    for (const laying of before) expect(laid(draftOfLaying(laying, 20), 20)).toEqual(laying)
    expect(draftOfLaying(null, 0)).toEqual(NEW_LAYING)
  })
})
