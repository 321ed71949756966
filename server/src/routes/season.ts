import { type ScheduleRunView, type Rescheduled, seasonEndpoints } from '@border/contract'
import { addDays, gardenDay, RESCHEDULE_ROUNDS, workingDays, type IsoDate } from '@border/core'
import type { Response } from 'express'
import type { Db } from '../database/connect.ts'
import type { Enqueue } from '../follow.ts'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  calendarLinkSince,
  gardenOfCalendarLink,
  makeCalendarLink,
  withdrawCalendarLink,
} from '../store/calendarLinks.ts'
import { findGardenForWork, type GardenAccess } from '../store/gardens.ts'
import {
  closeJobs,
  findJob,
  jobView,
  leftOutOf,
  listJobs,
  reopenJob,
  setPin,
  type Job,
} from '../store/jobs.ts'
import { changeRun, findRun, latestMoved, latestRun, queueRun, type Run } from '../store/runs.ts'
import { seasonCalendar } from '../work/calendar.ts'
import { recordPastWork } from '../work/pastWork.ts'
import { recordDone, takeBackDone } from '../work/recordDone.ts'
import { acceptSchedule, type Workshop } from '../work/runs.ts'
import { crewSeason, HORIZON_DAYS, placedNow, workingDaysOf } from '../work/schedule.ts'
import { jobStanding } from '../work/standing.ts'
import type { ComputePool } from '../work/compute.ts'

/** Jobs, the days they have, and what becomes of them. */
export function seasonRoutes(shop: Workshop, pool: ComputePool, enqueue: Enqueue): Route[] {
  return [
    route(seasonEndpoints.read, {
      handle: async ({ db, read, garden, today }) => {
        const jobs = await read.jobs()
        return {
          jobs: jobs.filter((j) => j.state !== 'dropped').map((j) => jobView(j, today)),
          leftOut: leftOutOf(jobs, today),
          workingDays: await workingDaysOf(db, garden, today, addDays(today, HORIZON_DAYS)),
          rescheduled: await rescheduledIn(db, garden, jobs),
        }
      },
    }),
    route(seasonEndpoints.calendar, {
      handle: async ({ db, garden, today, query }, { res }) =>
        sendCalendar(db, garden, today, query.alarms !== undefined, res),
    }),
    route(seasonEndpoints.linkedCalendar, {
      handle: async ({ db, params, query }, { res }) => {
        const gardenId = await gardenOfCalendarLink(db, params.token)
        const garden = gardenId && (await findGardenForWork(db, gardenId))
        if (!garden) throw new Refusal(404, 'This calendar link is not, or no longer, in use.')
        const today = gardenDay(garden.standsAt, garden.timeZone, shop.now())
        await sendCalendar(db, garden, today, query.alarms !== undefined, res)
      },
    }),
    route(seasonEndpoints.calendarLink, {
      handle: async ({ db, garden }) => ({ since: await calendarLinkSince(db, garden.id) }),
    }),
    route(seasonEndpoints.setCalendarLink, {
      handle: async ({ db, garden, person, body }) => {
        if (body.on) return { path: `/api/calendar/${await makeCalendarLink(db, garden.id, person.id)}` }
        await withdrawCalendarLink(db, garden.id)
        return { path: null }
      },
    }),
    route(seasonEndpoints.recordDone, {
      handle: ({ db, garden, person, today, params, body, truly }) =>
        recordDone(
          db,
          { gardenId: garden.id, practiceId: garden.practiceId, personId: person.id, today },
          params.jobId,
          truly(body),
        ),
    }),
    route(seasonEndpoints.recordPast, {
      handle: ({ read, person, body }) => recordPastWork(read, person.id, body),
    }),
    route(seasonEndpoints.takeBackDone, {
      handle: ({ db, garden, params }) => takeBackDone(db, garden.id, params.jobId),
    }),
    route(seasonEndpoints.leaveOut, {
      stands: jobNow,
      handle: async ({ db, garden, params, body }) => {
        const job = await findJob(db, garden.id, params.jobId)
        if (!job) throw notFound('This job')
        if (job.decisionId)
          throw new Refusal(409, 'This job follows a decision: decide otherwise in Verdicts to drop it.')
        if (body.leaveOut) {
          if (job.state !== 'open') throw new Refusal(409, 'This job is not open.')
          await closeJobs(db, [job.id], 'dropped', { leftOut: true })
        } else {
          if (!job.leftOut) throw new Refusal(409, 'This job was not left out.')
          await reopenJob(db, job.id)
        }
      },
    }),
    route(seasonEndpoints.pin, {
      stands: jobNow,
      restsOn: 'schedule',
      // Whether the day can be kept is found out before anything is changed.
      prepare: ({ db, garden, params, body }) =>
        body.day === null
          ? Promise.resolve()
          : requirePossible(db, pool, shop, garden, params.jobId, body.day),
      handle: async ({ db, garden, params, body }) => {
        const job = await openJob(db, garden.id, params.jobId)
        await setPin(db, job.id, body.day)
      },
    }),
    route(seasonEndpoints.schedule, {
      handle: async ({ db, garden, person }) => {
        const runId = await queueRun(db, {
          kind: 'season',
          crewId: garden.crewId,
          gardenId: garden.id,
          personId: person.id,
        })
        await enqueue(db, runId, 0)
        return { runId }
      },
    }),
    route(seasonEndpoints.latestSchedule, {
      handle: async ({ db, garden, read }) => {
        const run = await latestRun(db, garden.crewId, 'season')
        return { run: run ? scheduleRunView(run, await read.jobs()) : null }
      },
    }),
    route(seasonEndpoints.takeSchedule, {
      prepare: ({ db, garden, body }) =>
        body.take ? crewSeason(db, garden.crewId, shop.now()) : Promise.resolve(undefined),
      handle: async ({ db, garden, params, body, prepared }) => {
        const run = await findRun(db, params.runId)
        if (run?.crewId !== garden.crewId || run.kind !== 'season') throw notFound('This plan')
        if (body.take) await acceptSchedule(db, prepared, garden.crewId, run.id)
        else await changeRun(db, run.id, ['queued', 'running', 'ready'], { state: 'dropped' })
      },
    }),
    route(seasonEndpoints.why, {
      handle: async ({ db, garden, params }) => {
        const job = await findJob(db, garden.id, params.jobId)
        if (!job) throw notFound('This job')
        const season = await crewSeason(db, garden.crewId, shop.now())
        if (!season) throw notFound('This job')
        const { problem } = season
        return pool.run('why', { problem, placed: placedNow(problem), jobId: job.id })
      },
    }),
  ]
}

const jobNow = async ({
  db,
  garden,
  params: { jobId },
}: {
  db: Db
  garden: GardenAccess
  params: { jobId: string }
}) => jobStanding(jobId, await findJob(db, garden.id, jobId))

async function openJob(db: Db, gardenId: string, jobId: string): Promise<Job> {
  const job = await findJob(db, gardenId, jobId)
  if (!job) throw notFound('This job')
  if (job.state !== 'open') throw new Refusal(409, 'Only an open job can be given a day.')
  return job
}

/** @throws {Refusal} where the job cannot be done on the day, with why */
async function requirePossible(
  db: Db,
  pool: ComputePool,
  shop: Workshop,
  garden: GardenAccess,
  jobId: string,
  day: IsoDate,
): Promise<void> {
  const { window } = await openJob(db, garden.id, jobId)
  if (day < window.earliest || day > window.latest)
    throw new Refusal(422, `That day lies outside its window, ${window.earliest} to ${window.latest}.`)
  const season = await crewSeason(db, garden.crewId, shop.now())
  if (!season) throw notFound('This job')
  const { crew, problem } = season
  const jobs = problem.jobs.map((j) => (j.id === jobId ? { ...j, pinnedTo: day } : j))
  const plan = await pool.run('schedule', { problem: { ...problem, jobs }, rounds: RESCHEDULE_ROUNDS })
  if (plan.placed.find((p) => p.id === jobId)?.parts[0]?.day === day) return
  throw new Refusal(
    409,
    `It cannot be done on that day: ${
      workingDays(crew, day, day).length === 0
        ? 'nobody works that day.'
        : 'the day is full, whoever has the skill is not there, or what comes before it is not done by then.'
    }`,
  )
}

async function sendCalendar(
  db: Db,
  garden: Pick<GardenAccess, 'id' | 'name'>,
  today: IsoDate,
  alarms: boolean,
  res: Response,
): Promise<void> {
  const jobs = (await listJobs(db, garden.id))
    .filter((j) => j.state !== 'dropped')
    .map((j) => ({ ...jobView(j, today), revision: j.revision }))
  res
    .type('text/calendar; charset=utf-8')
    .set('content-disposition', 'attachment; filename="garden-work.ics"')
    .send(seasonCalendar(garden, jobs, { alarms }))
}

/** What the latest plan that moved anything moved in a garden; null where none did. */
async function rescheduledIn(
  db: Db,
  garden: GardenAccess,
  jobs: readonly Job[],
): Promise<Rescheduled | null> {
  const run = await latestMoved(db, garden.crewId)
  const titles = new Map(jobs.map((j) => [j.id, j.title]))
  const moved = (run?.result?.moved ?? []).flatMap(({ id, from, to, says }) => {
    const title = titles.get(id)
    return title === undefined ? [] : [{ jobId: id, title, from, to, says }]
  })
  return run && moved.length > 0 ? { id: run.id, at: run.changedAt.toISOString(), moved } : null
}

/** A plan of a crew's whole season, as far as it concerns one of its gardens. */
function scheduleRunView(run: Run<'season'>, jobs: readonly Job[]): ScheduleRunView {
  const { id, state, progress, failure } = run
  if (state !== 'ready' || !run.result)
    return { id, state, progress, failure, result: null, movedElsewhere: 0 }
  const here = new Set(jobs.map((j) => j.id))
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
