import type { DecisionView, MoveTarget, StoryEntry } from '@border/contract'
import type { Verdict } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

/** A person’s word on a proposal, with the verdict as it stood. */
export interface NewDecision {
  gardenId: string
  plantingId: string
  asOf: string
  verdict: Verdict
  choice: DecisionView['choice']
  action: string
  reason: string | null
  waitUntil: string | null
  target: MoveTarget | null
  personId: string
}

/**
 * Keeps a word. A later one on the same planting stands over it; both stay on record.
 *
 * @returns its id
 */
export async function insertDecision(db: Db, d: NewDecision): Promise<string> {
  const id = randomUUID()
  await db('decisions').insert({
    id,
    garden_id: d.gardenId,
    planting_id: d.plantingId,
    as_of: d.asOf,
    verdict: JSON.stringify(d.verdict),
    choice: d.choice,
    action: d.action,
    reason: d.reason,
    wait_until: d.waitUntil,
    target: d.target && JSON.stringify(d.target),
    person_id: d.personId,
  })
  return id
}

/** Every decision of a garden, newest first. */
export async function listDecisions(db: Db, gardenId: string): Promise<DecisionView[]> {
  const { rows } = await db.raw(
    `select d.id, d.planting_id as "plantingId", d.verdict ->> 'action' as proposed, d.choice, d.action, d.reason,
            d.wait_until as "waitUntil", d.as_of as "decidedOn", p.name as "decidedBy",
            jsonb_build_object('scores', d.verdict -> 'scores', 'terms', d.verdict -> 'terms') as weighed,
            (select count(*)::int from jobs j where j.decision_id = d.id and j.state <> 'dropped') as "jobCount"
     from decisions d join people p on p.id = d.person_id
     where d.garden_id = ? order by d.created_at desc`,
    [gardenId],
  )
  return rows
}

type Words = Pick<DecisionView, 'proposed' | 'choice' | 'action' | 'reason' | 'waitUntil'>

/** What was decided of a planting, as lines of its story. */
export async function listDecisionStory(db: Db, plantingId: string): Promise<StoryEntry[]> {
  const rows = await db('decisions')
    .join('people', 'people.id', 'person_id')
    .where({ planting_id: plantingId })
    .select<(Words & Pick<StoryEntry, 'on' | 'by' | 'recordedAt'>)[]>(
      'as_of as on',
      db.raw(`verdict ->> 'action' as proposed`),
      'choice',
      'action',
      'reason',
      'wait_until as waitUntil',
      'people.name as by',
      'decisions.created_at as recordedAt',
    )
  return rows.map(({ on, by, recordedAt, ...d }) => ({
    on,
    kind: 'decided',
    says: decisionWords(d),
    by,
    recordedAt,
  }))
}

function decisionWords(d: Words): string {
  const reason = d.reason ? ` ${d.reason}` : ''
  if (d.choice === 'accept') return `Proposed and accepted: ${d.proposed}.`
  if (d.choice === 'wait') return `Proposed ${d.proposed}; left until ${d.waitUntil}.${reason}`
  return `Proposed ${d.proposed}; decided ${d.action} instead.${reason}`
}
