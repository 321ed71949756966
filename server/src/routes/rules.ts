import { ruleEndpoints } from '@border/contract'
import { careRules, followed } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { askCareJob } from '../store/jobs.ts'
import { setSchool } from '../store/gardens.ts'
import { findRuleEdits, listOwnRules, removeOwnRule, saveRuleChange } from '../store/rules.ts'
import { asAsked, findAskedJob, rulesOfGarden } from '../work/care.ts'
import { ownRuleStanding, ruleStanding, schoolStanding } from '../work/standing.ts'

/** The rules of care as a garden has them, its own among them, and the work they make. */
export function rulesRoutes(): Route[] {
  return [
    route(ruleEndpoints.list, {
      handle: ({ read }) => rulesOfGarden(read),
    }),
    route(ruleEndpoints.saveOwn, {
      stands: async ({ db, garden, body: { id } }) => (id ? ownRuleNow(db, garden.id, id) : undefined),
      handle: async ({ db, garden, person, body }) => {
        const { id: known, ...own } = body
        if (known && !(await listOwnRules(db, garden.id)).has(known)) throw notFound('This rule')
        const id = known ?? `own-${randomUUID()}`
        await saveRuleChange(db, garden.id, person.id, id, { own })
        return { id }
      },
    }),
    route(ruleEndpoints.followSchool, {
      stands: ({ garden: { id, schools }, body: { school } }) =>
        Promise.resolve(schoolStanding(id, school, followed(schools, school))),
      handle: async ({ db, garden, body }) => {
        await setSchool(db, garden.id, body.school, body.choice)
      },
    }),
    route(ruleEndpoints.change, {
      stands: async ({ db, garden, params: { rule } }) => {
        const { switched, adjusted } = await findRuleEdits(db, garden.id)
        return ruleStanding(garden.id, rule, {
          isOn: switched[rule] ?? !careRules.find((r) => r.id === rule)?.off,
          adjusted: adjusted[rule] ?? null,
        })
      },
      handle: async ({ db, garden, person, params, body }) => {
        const own = await listOwnRules(db, garden.id)
        if (!careRules.some((r) => r.id === params.rule) && !own.has(params.rule)) throw notFound('This rule')
        await saveRuleChange(db, garden.id, person.id, params.rule, body)
      },
    }),
    route(ruleEndpoints.removeOwn, {
      stands: ({ db, garden, params }) => ownRuleNow(db, garden.id, params.rule),
      handle: async ({ db, garden, params }) => {
        if (!(await removeOwnRule(db, garden.id, params.rule)))
          throw notFound('This rule of the garden’s own')
      },
    }),
    route(ruleEndpoints.askJob, {
      restsOn: 'care',
      prepare: ({ read, params, body }) => findAskedJob(read, params.rule, body.subjectId),
      handle: async ({ db, garden, prepared }) => {
        if (!(await askCareJob(db, garden.id, prepared)))
          throw new Refusal(409, `“${prepared.title}” is on the plan of this season already, or done.`)
        return { title: prepared.title }
      },
    }),
  ]
}

async function ownRuleNow(db: Db, gardenId: string, id: string) {
  const own = (await listOwnRules(db, gardenId)).get(id)
  return ownRuleStanding(gardenId, id, own && asAsked(id, own))
}
