import { verdictEndpoints } from '@border/contract'
import type { GardenReader } from '../reader.ts'
import { route, type Route } from '../routing.ts'
import { assessGardenOn } from '../work/assess.ts'
import type { ComputePool } from '../work/compute.ts'
import { draftDecision, draftMany, keepDecision } from '../work/decide.ts'
import { successorStanding, wordsStanding } from '../work/standing.ts'
import { failingOf, sayOfSuccessor, successionsOf, wordsOnSuccessors } from '../work/successions.ts'

/** How every planting is weighed, and what people decide. */
export function decisionRoutes(pool: ComputePool): Route[] {
  return [
    route(verdictEndpoints.assessment, {
      handle: async ({ read, today, query }) => {
        const view = await assessGardenOn(read, pool, query.on ?? today, query.then)
        return { ...view, decisions: await read.decisions() }
      },
    }),
    route(verdictEndpoints.decide, {
      stands: ({ read, body }) => wordsNow(read, [body.plantingId]),
      restsOn: 'assessment',
      prepare: ({ read, body }) => draftDecision(read, pool, body),
      handle: async ({ db, garden, person, prepared }) => {
        return { decisionId: await keepDecision(db, { gardenId: garden.id, personId: person.id }, prepared) }
      },
    }),
    route(verdictEndpoints.decideMany, {
      stands: ({ read, body }) => wordsNow(read, [...new Set(body.plantingIds)]),
      restsOn: 'assessment',
      prepare: ({ read, body }) => draftMany(read, pool, body),
      handle: async ({ db, garden, person, prepared }) => {
        for (const drafted of prepared.drafts)
          await keepDecision(db, { gardenId: garden.id, personId: person.id }, drafted)
        return { kept: prepared.drafts.map((d) => d.plantingId), refused: prepared.refused }
      },
    }),
    route(verdictEndpoints.successions, {
      handle: ({ read }) => successionsOf(read, pool),
    }),
    route(verdictEndpoints.saySuccessor, {
      stands: async ({ db, garden, params }) =>
        successorStanding(
          params.subjectId,
          (await wordsOnSuccessors(db, garden.id)).get(params.subjectId) ?? null,
        ),
      restsOn: 'successions',
      prepare: ({ read, body }) => (body.state === 'open' ? Promise.resolve([]) : failingOf(read, pool)),
      handle: ({ db, read, person, params, body, prepared }) =>
        sayOfSuccessor(db, read, person.id, params.subjectId, body, prepared),
    }),
  ]
}

async function wordsNow(read: GardenReader, plantingIds: readonly string[]) {
  const tags = new Map((await read.lives()).map((p) => [p.id, p.tag]))
  return wordsStanding(plantingIds, await read.decisions(), (id) => tags.get(id) ?? 'A planting')
}
