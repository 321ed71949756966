import {
  bulkDecisionRequest,
  decisionRequest,
  successorRequest,
  type AssessmentView,
  type BulkAnswer,
  type SuccessionView,
} from '@border/contract'
import type { Piscina } from 'piscina'
import { route, type Route } from '../routing.ts'
import { assessGardenOn } from '../work/assess.ts'
import { draftDecision, draftMany, keepDecisions } from '../work/decide.ts'
import { failingOf, sayOfSuccessor, successionsOf } from '../work/successions.ts'
import { dayAsked } from './gardens.ts'
import { goneAway } from './goneAway.ts'

const head = { garden: 'head' } as const
const keeper = { garden: 'keeper' } as const

/** How every planting is weighed, and what people decide. */
export function decisionRoutes(pool: Piscina): Route[] {
  return [
    route({
      method: 'get',
      path: '/gardens/:gardenId/assessment',
      access: keeper,
      handle: async ({ read, today, query }, { res }): Promise<AssessmentView> => {
        const view = await assessGardenOn(read, pool, dayAsked(query, 'on') ?? today, {
          then: dayAsked(query, 'then'),
          signal: goneAway(res),
        })
        return { ...view, decisions: await read.decisions() }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/decisions',
      access: head,
      body: decisionRequest,
      writes: true,
      restsOn: 'assessment',
      prepare: ({ read, body }) => draftDecision(read, pool, body),
      handle: async ({ db, garden, person, prepared }) => {
        const [decisionId] = await keepDecisions(db, { gardenId: garden.id, personId: person.id }, [prepared])
        return { decisionId }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/decisions/many',
      access: head,
      body: bulkDecisionRequest,
      writes: true,
      restsOn: 'assessment',
      prepare: ({ read, body }) => draftMany(read, pool, body),
      handle: async ({ db, garden, person, prepared }): Promise<BulkAnswer> => {
        await keepDecisions(db, { gardenId: garden.id, personId: person.id }, prepared.drafts)
        return { kept: prepared.drafts.map((d) => d.plantingId), refused: prepared.refused }
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/successions',
      access: keeper,
      handle: ({ read }, { res }): Promise<SuccessionView[]> => successionsOf(read, pool, goneAway(res)),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/successions/:subjectId',
      access: head,
      body: successorRequest,
      writes: true,
      restsOn: 'successions',
      prepare: ({ read, body }) => (body.state === 'open' ? Promise.resolve([]) : failingOf(read, pool)),
      handle: ({ db, read, person, params, body, prepared }) =>
        sayOfSuccessor(db, read, person.id, params.subjectId!, body, prepared),
    }),
  ]
}
