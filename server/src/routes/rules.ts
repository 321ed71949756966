import type { Piscina } from 'piscina'
import {
  askedJobRequest,
  leaveOutRequest,
  ownRuleRequest,
  ruleRequest,
  schoolRequest,
  type RuleView,
} from '@border/contract'
import { careRules } from '@border/core'
import { randomUUID } from 'node:crypto'
import { notFound, Refusal } from '../errors.ts'
import { route, type Call, type Route } from '../routing.ts'
import { askCareJob, findJobRow, leaveOut } from '../store/jobs.ts'
import { setSchool } from '../store/gardens.ts'
import { todayOf } from '../store/people.ts'
import { listOwnRules, removeOwnRule, saveRuleChange } from '../store/rules.ts'
import { findAskedJob, rulesOfGarden } from '../work/careWork.ts'
import { careAndPlan, planSeason } from '../work/planSeason.ts'

const head = { garden: 'head' } as const
const keeper = { garden: 'keeper' } as const

/** The rules of care as a garden has them, its own among them, and the work they make. */
export function rulesRoutes(pool: Piscina): Route[] {
  const follow = ({ db, garden, person }: Call<unknown>) =>
    careAndPlan(db, pool, garden, todayOf(person, garden.timeZone))
  return [
    route({
      method: 'get',
      path: '/gardens/:gardenId/rules',
      access: keeper,
      handle: async ({ db, garden, person }): Promise<RuleView[]> =>
        rulesOfGarden(db, garden, todayOf(person, garden.timeZone)),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/rules',
      access: head,
      body: ownRuleRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, body } = call
        const { id: known, ...own } = body
        if (known && !(await listOwnRules(db, garden.id)).has(known)) throw notFound('This rule')
        const id = known ?? `own-${randomUUID()}`
        await saveRuleChange(db, garden.id, person.id, id, { own })
        await follow(call)
        return { id }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/schools',
      access: head,
      body: schoolRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, body } = call
        await setSchool(db, garden.id, body.school, body.choice)
        const schools = { ...garden.schools, [body.school]: body.choice }
        await follow({ ...call, garden: { ...garden, schools } })
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/rules/:rule',
      access: head,
      body: ruleRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, params, body } = call
        const own = await listOwnRules(db, garden.id)
        if (!careRules.some((r) => r.id === params.rule) && !own.has(params.rule!))
          throw notFound('This rule')
        await saveRuleChange(db, garden.id, person.id, params.rule!, body)
        await follow(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/rules/:rule/remove',
      access: head,
      writes: true,
      handle: async (call) => {
        if (!(await removeOwnRule(call.db, call.garden.id, call.params.rule!)))
          throw notFound('This rule of the garden’s own')
        await follow(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/rules/:rule/jobs',
      access: head,
      body: askedJobRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, params, body } = call
        const today = todayOf(person, garden.timeZone)
        const job = await findAskedJob(db, garden, today, params.rule!, body.subjectId)
        if (!(await askCareJob(db, garden.id, job)))
          throw new Refusal(409, `“${job.title}” is on the plan of this season already, or done.`)
        await planSeason(db, pool, garden, today)
        return { title: job.title }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/jobs/:jobId/leave-out',
      access: head,
      body: leaveOutRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, params, body } = call
        const job = await findJobRow(db, garden.id, params.jobId!)
        if (!job) throw notFound('This job')
        if (!job.rule_key)
          throw new Refusal(409, 'This job follows a decision: decide otherwise in Verdicts to drop it.')
        if (!(await leaveOut(db, job.id, body.leaveOut)))
          throw new Refusal(409, body.leaveOut ? 'This job is not open.' : 'This job was not left out.')
        await planSeason(db, pool, garden, todayOf(person, garden.timeZone))
      },
    }),
  ]
}
