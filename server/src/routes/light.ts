import { obstructionChangeRequest, lightEndpoints } from '@border/contract'
import {
  addDays,
  castsShade,
  CLOCK_OUT_HOURS,
  instantsOf,
  placeOf,
  readingFault,
  sceneOf,
  type ReadingFault,
} from '@border/core'
import type { Db } from '../database/connect.ts'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { insertFeatures, listFeatures, type GardenAccess } from '../store/gardens.ts'
import {
  decideSuspicion,
  findSuspicion,
  insertLog,
  insertReading,
  insertWhatIf,
  lastRecheck,
  listOpenSuspicions,
  withdraw,
} from '../store/light.ts'
import { changeObstruction, newBuilding } from '../work/changeObstruction.ts'
import type { ComputePool } from '../work/compute.ts'
import { readOn } from '../work/fileTasks.ts'
import { compareWhatIfs, lightAhead, lightEvidence, surfaceOf } from '../work/light.ts'
import type { LoggerService } from '../work/loggerService.ts'
import { recheckGarden } from '../work/suspect.ts'

const faultWords: Record<ReadingFault, string> = {
  'in the future': 'This reading lies in the future.',
  'sun down': 'The sun was below the horizon then: there is nothing to read.',
  'sun too low': 'The sun was under 4° high then: such light tells nothing of what stands near.',
}

const SIMULATED_DAYS = 14

/** The light: what-ifs, readings, loggers, and what they make suspect. */
export function lightRoutes(pool: ComputePool, loggers: LoggerService): Route[] {
  return [
    route(lightEndpoints.ahead, {
      handle: ({ read, query, today }) => lightAhead(read, pool, query.on ?? today),
    }),
    route(lightEndpoints.whatIfs, {
      handle: ({ read, query, today }) => compareWhatIfs(read, pool, query.on ?? today),
    }),
    route(lightEndpoints.keepWhatIf, {
      handle: async ({ db, garden, person, body }) => {
        const known = new Set((await listFeatures(db, garden.id)).filter(castsShade).map((f) => f.id))
        const stray = body.suppositions.find((t) => !known.has(t.obstructionId))
        if (stray) throw notFound('Something that is tried here')
        return { whatIfId: await insertWhatIf(db, garden.id, person.id, body) }
      },
    }),
    route(lightEndpoints.withdrawWhatIf, {
      handle: async ({ db, garden, params }) => {
        if (!(await withdraw(db, 'what_ifs', garden.id, params.whatIfId))) throw notFound('This what-if')
      },
    }),
    route(lightEndpoints.evidence, {
      handle: ({ read, nowMs }) => lightEvidence(read, pool, nowMs),
    }),
    route(lightEndpoints.takeReading, {
      handle: async ({ db, garden, person, body, nowMs }) => {
        await featureAt(db, garden, body.placeId)
        const scene = sceneOf(garden, [])
        const fault = readingFault(scene, Date.parse(body.at), nowMs)
        if (fault) throw new Refusal(422, faultWords[fault])
        return { readingId: await insertReading(db, garden.id, person.id, body) }
      },
    }),
    route(lightEndpoints.withdrawReading, {
      handle: async ({ db, garden, params }) => {
        if (!(await withdraw(db, 'light_readings', garden.id, params.readingId)))
          throw notFound('This reading')
      },
    }),
    route(lightEndpoints.bringLog, {
      prepare: async ({ garden, body, nowMs }) => {
        const timeZone = body.timeZone ?? garden.timeZone
        const { csv: text, name } = body
        const scene = sceneOf(garden, [])
        const read = await readOn(pool)('logFile', { text, scene, timeZone, nowMs, name })
        if (!read.ok) throw fileRefusal(read.problems)
        requireClockRight(read.value.clockOutHours, timeZone)
        return read.value.samples
      },
      handle: async ({ db, garden, person, body, prepared }) => {
        await featureAt(db, garden, body.placeId)
        return { logId: await insertLog(db, garden.id, person.id, body, prepared) }
      },
    }),
    route(lightEndpoints.withdrawLog, {
      handle: async ({ db, garden, params }) => {
        if (!(await withdraw(db, 'light_logs', garden.id, params.logId))) throw notFound('This log')
      },
    }),
    route(lightEndpoints.simulateLog, {
      handle: async ({ db, garden, person, body, today }) => {
        const place = await featureAt(db, garden, body.placeId)
        const [fromMs] = instantsOf(`${addDays(today, -SIMULATED_DAYS)}T00:00`, garden.timeZone)
        const samples = await loggers.read(db, garden, {
          at: { x: body.x, y: body.y, ...surfaceOf(place && placeOf(place)) },
          fromMs: fromMs!,
          days: SIMULATED_DAYS,
        })
        return { logId: await insertLog(db, garden.id, person.id, body, samples) }
      },
    }),
    route(lightEndpoints.suspicions, {
      handle: async ({ db, garden }) => ({
        checkedOn: await lastRecheck(db, garden.id),
        suspicions: (await listOpenSuspicions(db, garden.id)).map((s) => ({
          id: s.id,
          detail: s.detail,
          firstSeen: s.first_seen,
          lastSeen: s.last_seen,
        })),
      }),
    }),
    route(lightEndpoints.recheck, {
      handle: ({ read, nowMs }) => recheckGarden(read, pool, nowMs),
    }),
    route(lightEndpoints.decideSuspicion, {
      handle: async ({ db, garden, person, params, body, today }) => {
        const suspicion = await findSuspicion(db, garden.id, params.suspicionId)
        if (!suspicion) throw notFound('This suspicion')
        if (suspicion.state === 'dismissed' || suspicion.state === 'confirmed')
          throw new Refusal(409, `This was ${suspicion.state} already.`)
        const { detail } = suspicion
        if (body.state === 'confirmed' && detail.kind === 'unrecorded') {
          const { cause } = detail
          const date = body.date ?? today
          if (cause.what === 'new') await insertFeatures(db, garden.id, [newBuilding(cause.building, date)])
          else if (cause.what !== 'as drawn') {
            const { obstructionId, ...change } = cause.supposition
            await changeObstruction(
              db,
              { gardenId: garden.id, personId: person.id },
              obstructionId,
              obstructionChangeRequest.parse({ date, change }),
            )
          }
        }
        await decideSuspicion(db, suspicion.id, person.id, body.state)
      },
    }),
  ]
}

async function featureAt(db: Db, garden: GardenAccess, placeId: string | undefined) {
  if (!placeId) return undefined
  const place = (await listFeatures(db, garden.id)).find((f) => f.id === placeId)
  if (!place) throw notFound('This place')
  return place
}

/**
 * @param out hours that the days of a log are off the sun's noon
 * @throws {Refusal} where its clock was of another zone
 */
function requireClockRight(out: number, zone: string): void {
  if (Math.abs(out) < CLOCK_OUT_HOURS) return
  const hours = Math.round(Math.abs(out) * 4) / 4
  throw new Refusal(
    422,
    `The light of this log comes ${hours} h too ${out > 0 ? 'late' : 'early'} for clocks of ${zone}: it was written in another time zone, or without daylight saving. Say which zone its clock kept. Nothing was saved.`,
  )
}
