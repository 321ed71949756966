import { describe, expect, it } from 'vitest'
import { goldCases } from './cases.ts'
import { gradeOf, verdictOn, type Grade } from './test/judge.ts'

const graded = goldCases.map((c) => {
  const verdict = verdictOn(c)
  return { c, verdict, grade: gradeOf(c, verdict) }
})
const share = (grade: Grade, of = graded) => of.filter((g) => g.grade === grade).length / of.length
const told = (grades: readonly Grade[]) =>
  graded
    .filter((g) => grades.includes(g.grade))
    .map(({ c, verdict, grade }) => `${grade}: ${c.tells} (${c.plant}): ${verdict.action}`)

describe('advice', () => {
  it('harms nothing', () => {
    expect(told(['harm'])).toEqual([])
  })

  it('is right in nearly every situation that is written down; npm run gold tells which are not', () => {
    expect([share('wrong') <= 0.05, ...told(['wrong'])]).toEqual([true, ...told(['wrong'])])
    expect(share('right')).toBeGreaterThanOrEqual(0.9)
  })

  it('says what is done, when and what it costs to wait, wherever it proposes what a sign asks for', () => {
    for (const { c, verdict } of graded) {
      const own = verdict.remedies.filter((r) => r.action === verdict.action)
      for (const r of own) {
        expect([c.tells, r.does.length > 10, r.waiting.length > 5]).toEqual([c.tells, true, true])
        if (r.window) {
          expect(r.window.earliest >= c.on).toBe(true)
          expect(r.window.latest >= r.window.earliest).toBe(true)
        }
      }
    }
  })
})
