import type { AssessmentView, DecisionRecord } from '@border/contract'
import { describe, expect, it } from 'vitest'
import { openVerdicts, standingDecision } from './standing.ts'

const decision = (
  plantingId: string,
  choice: DecisionRecord['choice'],
  waitUntil: string | null = null,
): DecisionRecord => ({
  id: `${plantingId}-${choice}`,
  plantingId,
  proposed: 'move',
  choice,
  action: 'move',
  reason: null,
  waitUntil,
  decidedOn: '2026-09-14',
  decidedBy: 'someone',
  jobCount: 0,
})
const view = (decisions: DecisionRecord[]): AssessmentView => {
  const assessed = (plantingId: string, action: string) => ({ plantingId, verdict: { action } })
  const assessments = [assessed('a', 'move'), assessed('b', 'watch'), assessed('c', 'keep')]
  return { on: '2026-09-14', then: '2025-02-16', assessments, decisions } as unknown as AssessmentView
}

describe('what waits for a word', () => {
  it('is every proposal but to keep', () => {
    expect(openVerdicts(view([]), '2026-09-14').map((a) => a.plantingId)).toEqual(['a', 'b'])
  })

  it('is not what was decided, and the newest word counts', () => {
    const decisions = [decision('a', 'otherwise'), decision('a', 'accept')]
    expect(openVerdicts(view(decisions), '2026-09-14').map((a) => a.plantingId)).toEqual(['b'])
    expect(standingDecision(decisions, 'a', '2026-09-14')!.choice).toBe('otherwise')
  })

  it('comes back on the day it was put off until', () => {
    const wait = [decision('a', 'wait', '2027-03-01')]
    expect(standingDecision(wait, 'a', '2027-02-28')).toBeDefined()
    expect(standingDecision(wait, 'a', '2027-03-01')).toBeUndefined()
  })
})
