import {
  bulkDecisionRequest,
  calendarLinkRequest,
  decisionRequest,
  jobDoneRequest,
  jobPinRequest,
  noteRequest,
  planRunRequest,
  successorRequest,
  type AssessmentView,
  type BulkAnswer,
  type OutlookView,
  type PlanRunView,
  type PlantingStory,
  type SeasonView,
  type StoryEntry,
  type SuccessionView,
} from '@border/contract'
import { addDays, workingDays, type WhyHere } from '@border/core'
import type { Response } from 'express'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  findJobRow,
  listDecisions,
  listJobRows,
  listJobs,
  listLeftOut,
  listPlantingDeeds,
  setPin,
} from '../store/jobs.ts'
import {
  calendarLinkSince,
  gardenOfCalendarLink,
  makeCalendarLink,
  withdrawCalendarLink,
} from '../store/calendarLinks.ts'
import { findGardenForWork, type GardenAccess } from '../store/gardens.ts'
import { todayOf } from '../store/people.ts'
import { listObservedStory } from '../store/observations.ts'
import { listPhotos } from '../store/photos.ts'
import {
  findPlanting,
  insertEvents,
  listEvents,
  listOffspring,
  listTreatmentStory,
  listTrialStory,
} from '../store/plantings.ts'
import { crewIdOf, findCrew } from '../store/crews.ts'
import { changePlanRun, findPlanRun, latestPlanRun, type PlanRunRow } from '../store/planRuns.ts'
import { assessGardenOn, type ComputeTasks } from '../work/assess.ts'
import { seasonCalendar } from '../work/calendar.ts'
import { decide, decideMany, notAssessed } from '../work/decide.ts'
import { evidenceOfGarden } from '../work/evidence.ts'
import { outlookOf } from '../work/outlook.ts'
import { acceptPlan, requestPlan } from '../work/planRuns.ts'
import { placedNow, planSeason, seasonProblem, workingDaysOf } from '../work/planSeason.ts'
import { recordDone, takeBackDone } from '../work/recordDone.ts'
import { sayOfSuccessor, successionsOf } from '../work/successions.ts'
import { dayAsked } from './gardens.ts'
import { goneAway } from './goneAway.ts'

const head = { garden: 'head' } as const
const crew = { garden: 'crew' } as const
const keeper = { garden: 'keeper' } as const

/** Days ahead that the season's working days are listed for. */
const LISTED_DAYS = 400

/** @param pool threads for what is too heavy for the event loop */
export function workRoutes(pool: Piscina): Route[] {
  return [
    route({
      method: 'get',
      path: '/gardens/:gardenId/assessment',
      access: keeper,
      handle: async ({ db, garden, person, query }, { res }): Promise<AssessmentView> => {
        const today = todayOf(person, garden.timeZone)
        const on = dayAsked(query, 'on') ?? today
        const evidence = await evidenceOfGarden(db, pool, garden, { today, signal: goneAway(res) })
        const view = await assessGardenOn(db, pool, garden, on, {
          today,
          evidence,
          then: dayAsked(query, 'then'),
          signal: goneAway(res),
        })
        return { ...view, decisions: await listDecisions(db, garden.id) }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/decisions',
      access: head,
      body: decisionRequest,
      writes: true,
      handle: async ({ db, garden, person, body }) => {
        const who = { personId: person.id, today: todayOf(person, garden.timeZone) }
        const evidence = await evidenceOfGarden(db, pool, garden, { today: who.today })
        const { assessments } = await assessGardenOn(db, pool, garden, body.on, {
          today: who.today,
          evidence,
        })
        const assessment = assessments.find((a) => a.plantingId === body.plantingId)
        if (!assessment) throw notAssessed(body.on)
        return decide(db, pool, who, garden, body, assessment)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/decisions/many',
      access: head,
      body: bulkDecisionRequest,
      writes: true,
      handle: async ({ db, garden, person, body }): Promise<BulkAnswer> => {
        const who = { personId: person.id, today: todayOf(person, garden.timeZone) }
        const evidence = await evidenceOfGarden(db, pool, garden, { today: who.today })
        return decideMany(
          db,
          pool,
          who,
          garden,
          body,
          async () =>
            (await assessGardenOn(db, pool, garden, body.on, { today: who.today, evidence })).assessments,
        )
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/successions',
      access: keeper,
      handle: ({ db, garden, person }, { res }): Promise<SuccessionView[]> =>
        successionsOf(db, pool, garden, {
          today: todayOf(person, garden.timeZone),
          signal: goneAway(res),
        }),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/successions/:subjectId',
      access: head,
      body: successorRequest,
      writes: true,
      handle: ({ db, garden, person, params, body }) =>
        sayOfSuccessor(
          db,
          pool,
          { personId: person.id, today: todayOf(person, garden.timeZone) },
          garden,
          params.subjectId!,
          body,
        ),
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/season',
      access: keeper,
      handle: async ({ db, garden, person }): Promise<SeasonView> => {
        const today = todayOf(person, garden.timeZone)
        return {
          jobs: await listJobs(db, garden.id),
          leftOut: await listLeftOut(db, garden.id, today),
          workingDays: await workingDaysOf(db, garden.id, today, addDays(today, LISTED_DAYS)),
        }
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/calendar.ics',
      access: keeper,
      handle: async ({ db, garden, query }, { res }) => sendCalendar(db, garden, 'alarms' in query, res),
    }),
    route({
      method: 'get',
      path: '/calendar/:token',
      // Whoever has the secret in the address may read the jobs of its garden, and nothing else.
      access: 'anyone',
      handle: async ({ db, params, query }, { res }) => {
        const gardenId = await gardenOfCalendarLink(db, params.token!)
        const found = gardenId && (await findGardenForWork(db, gardenId))
        if (!found) throw new Refusal(404, 'This calendar link is not, or no longer, in use.')
        await sendCalendar(db, found.garden, 'alarms' in query, res)
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/calendar-link',
      access: head,
      handle: async ({ db, garden }) => ({ since: await calendarLinkSince(db, garden.id) }),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/calendar-link',
      access: head,
      body: calendarLinkRequest,
      writes: 'secret',
      handle: async ({ db, garden, person, body }) => {
        if (body.on) return { path: `/api/calendar/${await makeCalendarLink(db, garden.id, person.id)}` }
        await withdrawCalendarLink(db, garden.id)
        return { path: null }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/jobs/:jobId/done',
      access: crew,
      body: jobDoneRequest,
      writes: true,
      handle: async ({ db, garden, person, params, body }) =>
        recordDone(
          db,
          pool,
          { personId: person.id, today: todayOf(person, garden.timeZone) },
          garden,
          params.jobId!,
          body,
        ),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/jobs/:jobId/take-back',
      access: crew,
      writes: true,
      handle: async ({ db, garden, person, params }) =>
        takeBackDone(db, pool, todayOf(person, garden.timeZone), garden, params.jobId!),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/jobs/:jobId/pin',
      access: head,
      body: jobPinRequest,
      writes: true,
      handle: async ({ db, garden, person, params, body }) => {
        const job = await findJobRow(db, garden.id, params.jobId!)
        if (!job) throw notFound('This job')
        if (job.state !== 'open') throw new Refusal(409, 'Only an open job can be given a day.')
        const { earliest, latest } = job.plan.window
        if (body.day && (body.day < earliest || body.day > latest))
          throw new Refusal(422, `That day lies outside its window, ${earliest} to ${latest}.`)
        await setPin(db, job.id, body.day)
        await planSeason(db, pool, garden, todayOf(person, garden.timeZone))
        const [planned] = (await listJobRows(db, garden.id)).filter((r) => r.id === job.id)
        if (body.day && planned?.planned_on !== body.day)
          throw new Refusal(409, `It cannot be done on that day: ${await whyNot(db, garden.id, body.day)}`)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/plan-runs',
      access: head,
      writes: true,
      handle: async ({ db, garden, person }) =>
        requestPlan(db, {
          gardenId: garden.id,
          today: todayOf(person, garden.timeZone),
          personId: person.id,
        }),
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/plan-runs/latest',
      access: keeper,
      handle: async ({ db, garden }): Promise<{ run: PlanRunView | null }> => {
        const run = await latestPlanRun(db, await crewIdOf(db, garden.id))
        return { run: run ? await planRunView(db, garden.id, run) : null }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/plan-runs/:runId',
      access: head,
      body: planRunRequest,
      writes: true,
      handle: async ({ db, garden, params, body }) => {
        const run = await findPlanRun(db, params.runId!)
        if (run?.crew_id !== (await crewIdOf(db, garden.id))) throw notFound('This plan')
        if (body.take) await acceptPlan(db, garden, run.id)
        else await changePlanRun(db, run.id, ['queued', 'running', 'ready'], { state: 'dropped' })
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/jobs/:jobId/why',
      access: keeper,
      handle: async ({ db, garden, person, params }): Promise<WhyHere> => {
        const job = await findJobRow(db, garden.id, params.jobId!)
        if (!job) throw notFound('This job')
        const crewId = await crewIdOf(db, garden.id)
        const problem = await seasonProblem(db, crewId, todayOf(person, garden.timeZone))
        const task: ComputeTasks['why'] = { problem, placed: placedNow(problem), jobId: job.id }
        return pool.run(task, { name: 'why' })
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/outlook',
      access: keeper,
      handle: async ({ db, garden, person }): Promise<OutlookView> =>
        outlookOf(db, garden, todayOf(person, garden.timeZone)),
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/plantings/:plantingId',
      access: keeper,
      handle: async ({ db, garden, params }): Promise<PlantingStory> => {
        const planting = await findPlanting(db, garden.id, params.plantingId!)
        if (!planting) throw notFound('This planting')
        const story = [
          ...(await listEvents(db, planting.id)),
          ...(await listObservedStory(db, planting.id)),
          ...(await listPlantingDeeds(db, planting.id)),
          ...(await listTrialStory(db, planting.id)),
          ...(await listTreatmentStory(db, planting.id)),
        ]
        return {
          planting,
          photos: await listPhotos(db, garden.id, planting.id),
          offspring: await listOffspring(db, planting.id),
          story: story.sort(inOrder),
        }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/plantings/:plantingId/notes',
      access: crew,
      body: noteRequest,
      writes: true,
      handle: async ({ db, garden, person, params, body }) => {
        const planting = await findPlanting(db, garden.id, params.plantingId!)
        if (!planting) throw notFound('This planting')
        if (body.on > todayOf(person, garden.timeZone))
          throw new Refusal(422, 'A note cannot lie ahead of today.')
        await insertEvents(db, [
          { plantingId: planting.id, on: body.on, kind: 'note', says: body.note, personId: person.id },
        ])
      },
    }),
  ]
}

async function sendCalendar(
  db: Db,
  garden: Pick<GardenAccess, 'id' | 'name'>,
  alarms: boolean,
  res: Response,
): Promise<void> {
  const revisions = new Map((await listJobRows(db, garden.id)).map((r) => [r.id, r.revision]))
  const jobs = (await listJobs(db, garden.id)).map((j) => ({ ...j, revision: revisions.get(j.id) ?? 0 }))
  res
    .type('text/calendar; charset=utf-8')
    .set('content-disposition', 'attachment; filename="garden-work.ics"')
    .send(seasonCalendar(garden, jobs, { alarms }))
}

/** By the day it happened, then by when it was written down. */
function inOrder(a: StoryEntry, b: StoryEntry): number {
  const later = (x: StoryEntry) => `${x.on} ${new Date(x.recordedAt).toISOString()}`
  return later(a) < later(b) ? -1 : 1
}

async function whyNot(db: Db, gardenId: string, day: string): Promise<string> {
  const crew = await findCrew(db, await crewIdOf(db, gardenId))
  return workingDays(crew, day, day).length === 0
    ? 'nobody works that day.'
    : 'the day is full, whoever has the skill is not there, or what comes before it is not done by then.'
}

/** A plan of a crew's whole season, as far as it concerns one of its gardens. */
async function planRunView(db: Db, gardenId: string, run: PlanRunRow): Promise<PlanRunView> {
  const { id, state, progress, failure } = run
  if (state !== 'ready' || !run.result)
    return { id, state, progress, failure, result: null, movedElsewhere: 0 }
  const here = new Set((await listJobRows(db, gardenId)).map((r) => r.id))
  const isHere = (job: { id: string }) => here.has(job.id)
  const { placed, unplaced, moved } = run.result
  return {
    id,
    state,
    progress,
    failure,
    result: {
      placed: placed.filter(isHere),
      unplaced: unplaced.filter(isHere),
      moved: moved.filter(isHere),
    },
    movedElsewhere: moved.filter((m) => !isHere(m)).length,
  }
}
