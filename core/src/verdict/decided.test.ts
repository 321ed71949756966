import { describe, expect, it } from 'vitest'
import type { Assessment } from './assess.ts'
import { decisionInForce, newSince, openVerdicts, type Decided } from './decided.ts'

const decision = (
  plantingId: string,
  choice: Decided['choice'],
  waitUntil: string | null = null,
): Decided => ({
  plantingId,
  choice,
  action: 'move',
  waitUntil,
  weighed: { scores: {}, terms: [] },
})
const assessed = (plantingId: string, action: string) => ({ plantingId, verdict: { action } })
const assessments = [
  assessed('a', 'move'),
  assessed('b', 'watch'),
  assessed('c', 'keep'),
] as unknown as Assessment[]
const openBy = (decisions: Decided[]) =>
  openVerdicts(assessments, decisions, '2026-09-14').map((a) => a.plantingId)

describe('what waits for a word', () => {
  it('is every proposal but to keep', () => {
    expect(openBy([])).toEqual(['a', 'b'])
  })

  it('is not what was decided, and the newest word counts', () => {
    const decisions = [decision('a', 'otherwise'), decision('a', 'accept')]
    expect(openBy(decisions)).toEqual(['b'])
    expect(decisionInForce(decisions, 'a', '2026-09-14')!.choice).toBe('otherwise')
  })

  it('is not proposed again after a refusal unless the evidence has changed, and then says what', () => {
    const scorched = { action: 'move', points: 20, says: 'It shows: scorched leaves.' } as const
    const refusal: Decided = {
      ...decision('a', 'otherwise'),
      action: 'keep',
      weighed: { scores: { move: 30, keep: 20 }, terms: [] },
    }
    const now = (move: number, terms: object[] = []) =>
      ({ verdict: { action: 'move', scores: { move, keep: 20 }, terms } }) as unknown as Parameters<
        typeof newSince
      >[1]
    expect(newSince(refusal, now(30))).toBeUndefined()
    expect(newSince(refusal, now(40))).toBeUndefined()
    expect(newSince(refusal, now(50, [scorched]))).toEqual(['It shows: scorched leaves.'])
    expect(newSince({ ...refusal, action: 'move' }, now(50, [scorched]))).toBeUndefined()
  })

  it('comes back on the day it was put off until', () => {
    const wait = [decision('a', 'wait', '2027-03-01')]
    expect(decisionInForce(wait, 'a', '2027-02-28')).toBeDefined()
    expect(decisionInForce(wait, 'a', '2027-03-01')).toBeUndefined()
  })
})
