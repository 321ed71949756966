import { type PlantingView, recordEndpoints } from '@border/contract'
import { dayMonthYear, plantedWords, likelihoods, seasonYearOf } from '@border/core'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { route, type Call, type Route } from '../routing.ts'
import { findPlanting, insertEvents, insertTreatment, insertTrialOutcome } from '../store/plantings.ts'
import { listSignShares, setSignShare } from '../store/signShares.ts'
import type { ComputePool } from '../work/compute.ts'
import { diagnoseGarden, likelihoodsOf } from '../work/diagnosis.ts'
import { readOn } from '../work/fileTasks.ts'
import { exportObservations, keepLooks, readLooks } from '../work/observationsFile.ts'
import { bloomOfGarden, recordOfGarden } from '../work/record.ts'
import { shareStanding, trialStanding } from '../work/standing.ts'

/** How plants have done, and what that says. */
export function recordRoutes(pool: ComputePool): Route[] {
  return [
    route(recordEndpoints.read, {
      handle: ({ read }) => recordOfGarden(read, pool),
    }),
    route(recordEndpoints.bloom, {
      handle: ({ read, garden, query, today }) => {
        const season = query.season ?? seasonYearOf(today, garden.latitude < 0)
        return bloomOfGarden(read, pool, season)
      },
    }),
    route(recordEndpoints.diagnosis, {
      handle: ({ read }) => diagnoseGarden(read, pool),
    }),
    route(recordEndpoints.likelihoods, {
      handle: async ({ db, garden }) => {
        const changed = await listSignShares(db, garden.practiceId)
        const shipped = new Map(likelihoods.map((r) => [`${r.sign} ${r.cause}`, r.share]))
        return {
          rows: (await likelihoodsOf(db, garden)).map((r) => ({
            ...r,
            shipped: shipped.get(`${r.sign} ${r.cause}`) ?? null,
            changedBy: changed.find((c) => c.sign === r.sign && c.cause === r.cause)?.changedBy ?? null,
          })),
        }
      },
    }),
    route(recordEndpoints.setShare, {
      stands: async ({ db, garden, body: { sign, cause } }) => {
        const row = (await likelihoodsOf(db, garden)).find((r) => r.sign === sign && r.cause === cause)
        return shareStanding(garden.practiceId, sign, cause, row?.share ?? 0)
      },
      handle: async ({ db, garden, person, body }) => setSignShare(db, garden.practiceId, person.id, body),
    }),
    route(recordEndpoints.strikeOff, {
      handle: async (call) => {
        const { db, garden, person, body } = call
        const planting = await plantingOn(call, 'A loss cannot lie ahead of today.')
        if (planting.livingCount === 0) throw new Refusal(409, 'It is struck off already.')
        await insertEvents(db, [
          {
            gardenId: garden.id,
            plantingId: planting.id,
            on: body.on,
            kind: 'lost',
            living: 0,
            facts: { of: planting.livingCount },
            note: body.note,
            personId: person.id,
          },
        ])
      },
    }),
    route(recordEndpoints.found, {
      handle: async (call) => {
        const { db, garden, person, body } = call
        const planting = await plantingOn(call, 'It cannot come back ahead of today.')
        if (planting.livingCount > 0) throw new Refusal(409, 'It is not struck off.')
        await insertEvents(db, [
          {
            gardenId: garden.id,
            plantingId: planting.id,
            on: body.on,
            kind: 'counted',
            living: 1,
            note: ['It came back after all.', body.note].filter(Boolean).join(' '),
            personId: person.id,
          },
        ])
      },
    }),
    route(recordEndpoints.judgeTrial, {
      stands: async ({ read, params }) => {
        const life = (await read.lives()).find((l) => l.id === params.plantingId)
        return life && trialStanding(life.id, life.outcomes.at(-1) ?? null)
      },
      handle: async (call) => {
        const { db, garden, person, body } = call
        const planting = await plantingOn(call, 'An outcome cannot lie ahead of today.')
        await insertTrialOutcome(db, {
          gardenId: garden.id,
          plantingId: planting.id,
          personId: person.id,
          ...body,
        })
      },
    }),
    route(recordEndpoints.treat, {
      handle: async (call) => {
        const { db, garden, person, body } = call
        const planting = await plantingOn(call, 'What was done cannot lie ahead of today.')
        await insertTreatment(db, {
          gardenId: garden.id,
          plantingId: planting.id,
          personId: person.id,
          ...body,
        })
      },
    }),
    route(recordEndpoints.csv, {
      handle: async ({ db, garden, query }, { res }) => {
        const csv = await exportObservations(db, garden, query.from, query.to)
        res
          .type('text/csv; charset=utf-8')
          .set('content-disposition', 'attachment; filename="observations.csv"')
          .send(csv)
      },
    }),
    route(recordEndpoints.bring, {
      // Of plantings as they stand: where those have changed it is read again.
      restsOn: 'light',
      prepare: async ({ db, garden, body, today }) => {
        const read = await readLooks(db, garden, today, body.csv, readOn(pool))
        if (!read.ok) throw fileRefusal(read.problems)
        return read.value
      },
      handle: ({ db, garden, person, prepared }) => keepLooks(db, garden, person.id, prepared),
    }),
  ]
}

/** The planting of a path, of which something is said to have happened on a day that is not ahead of today. */
async function plantingOn(
  { db, garden, today, params, body }: Call<typeof recordEndpoints.strikeOff>,
  ahead: string,
): Promise<PlantingView> {
  const planting = await findPlanting(db, garden.id, params.plantingId)
  if (!planting) throw notFound('This planting')
  if (body.on > today) throw new Refusal(422, ahead)
  if (body.on < planting.plantedOn)
    throw new Refusal(
      422,
      `${planting.tag} was planted ${plantedWords(planting)}; ${dayMonthYear(body.on)} lies before.`,
    )
  return planting
}
