import { reworkEndpoints } from '@border/contract'
import {
  addDays,
  gardenDay,
  kindsOf,
  placeOutline,
  planKey,
  USUAL_AWAY_M,
  type IsoDate,
  type StandingPlant,
} from '@border/core'
import type { RequestHandler, Response } from 'express'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { openGarden, type GardenReader } from '../reader.ts'
import { route, type Route } from '../routing.ts'
import { findGardenForWork } from '../store/gardens.ts'
import { makeSchemeLink, schemeOfLink, withdrawSchemeLink } from '../store/schemeLinks.ts'
import { behalfNow, onBehalfOf } from '../turns.ts'
import { schemeOfGarden } from '../work/carryOut.ts'
import type { ComputePool } from '../work/compute.ts'
import { schemeToDraw } from '../work/paper.ts'
import type { SchemeMoment, SchemeToDraw } from '../paper/drawnScheme.ts'

/** Schemes as files to be printed and sent, and as whoever is given a link may look at them. */
export const paperRoutes = (pool: ComputePool, now: () => number, limit: RequestHandler): Route[] => [
  ...files(pool),
  route(reworkEndpoints.setSchemeLink, {
    handle: async ({ db, garden, person, today, params, body: { until } }) => {
      const scheme = await schemeOfGarden(db, garden.id, params)
      if (until === null) {
        await withdrawSchemeLink(db, scheme.id)
        return { token: null }
      }
      if (until < today) throw new Refusal(422, 'until: this day is past.')
      if (until > addDays(today, MOST_DAYS)) throw new Refusal(422, 'until: at most two years from now.')
      const owner = { gardenId: garden.id, personId: person.id }
      return { token: await makeSchemeLink(db, owner, scheme.id, until) }
    },
  }),
  ...looks(pool, now, [limit]),
]

/** A link works so long at most. */
const MOST_DAYS = 731

const files = (pool: ComputePool): Route[] => [
  route(reworkEndpoints.schemePdf, {
    handle: async ({ read, today, params, query: { on = today, years, paper, prices } }, { res }) => {
      const { task, totals } = await schemeToDraw(read, pool, params)
      const pdf = await pool.run('schemePdf', {
        task,
        moment: { on, years },
        paper,
        totals: prices === 'yes' ? await totals() : undefined,
      })
      sent(res, 'application/pdf', task, 'pdf').send(Buffer.from(pdf))
    },
  }),
  route(reworkEndpoints.schemePlan, {
    handle: async ({ read, params, query: { paper } }, { res }) => {
      const { task } = await schemeToDraw(read, pool, params)
      const svg = await pool.run('schemePlanSvg', { task, paper })
      sent(res, 'image/svg+xml; charset=utf-8', task, 'svg').send(svg)
    },
  }),
  route(reworkEndpoints.schemeView, {
    handle: async ({ read, today, params, query: { on = today, years, side } }, { res }) => {
      const { task } = await schemeToDraw(read, pool, params)
      const svg = await pool.run('schemeViewSvg', { task, moment: { on, years }, side })
      sent(res, 'image/svg+xml; charset=utf-8', task, 'svg').send(svg)
    },
  }),
]

/** A scheme by the secret in an address. */
interface Looked {
  reader: GardenReader
  until: IsoDate
  ids: { reworkId: string; schemeId: string }
}

/** @throws {Refusal} where the link does not work, or no longer */
async function looked(db: Db, token: string, now: () => number): Promise<Looked> {
  const link = await schemeOfLink(db, token)
  const garden = link && (await findGardenForWork(db, link.gardenId))
  const today = garden && gardenDay(garden.standsAt, garden.timeZone, now())
  if (!link || !garden || !today || today > link.until)
    throw new Refusal(404, 'This link does not work, or no longer. Ask whoever gave it to you for a new one.')
  return { reader: openGarden(db, garden, today), until: link.until, ids: link }
}

/** A plant of a picture with its kind by name: each kind is sent once. */
const byName = ({ taxon, ...p }: StandingPlant) => ({ ...p, botanical: taxon.botanical })

const looks = (pool: ComputePool, now: () => number, limits: RequestHandler[]): Route[] => {
  /** What is drawn for a look is drawn in the turn of its garden. */
  const drawing = async <T>(db: Db, token: string, draw: (of: Looked) => Promise<T>): Promise<T> => {
    const of = await looked(db, token, now)
    return onBehalfOf({ ...behalfNow(), garden: of.reader.garden.id }, () => draw(of))
  }
  return [
    route(reworkEndpoints.look, {
      limits,
      handle: ({ db, params }) =>
        drawing(db, params.token, async ({ reader, until, ids }) => {
          const { task } = await schemeToDraw(reader, pool, ids)
          const { said, ground } = task
          const { plants, fillers, behind, beyond } = await pool.run('schemePlants', task)
          const key = planKey({ drifts: said.drifts, between: said.between, ground })
          const commonOf = new Map(task.taxa.map((t) => [t.botanical, t.common]))
          const drawn = [...plants, ...fillers.flatMap((f) => f.plants), ...beyond.plants]
          const taxa = new Map(drawn.map(({ taxon }) => [taxon.botanical, taxon]))
          return {
            garden: task.garden,
            place: task.place,
            scheme: task.scheme,
            today: reader.today,
            until,
            seenFrom: [...ground.viewedFrom],
            awayM: said.seenFromM ?? USUAL_AWAY_M,
            outline: placeOutline(ground.of.place),
            plants: plants.map(byName),
            fillers: fillers.map((f) => ({ years: f.years, plants: f.plants.map(byName) })),
            taxa: [...taxa.values()],
            behind,
            beyond: {
              beds: beyond.beds.map((bed) => [...bed]),
              pots: [...beyond.pots],
              plants: beyond.plants.map(byName),
            },
            year: task.year,
            comes: kindsOf(said).map(({ botanical, count }) => ({
              mark: key.letters.get(botanical)!,
              count,
              botanical,
              common: commonOf.get(botanical) ?? null,
            })),
            stays: ground.stays.map((p) => ({
              mark: key.numbers.get(p.id)!,
              count: p.livingCount,
              botanical: p.taxon.botanical,
              common: p.taxon.common,
            })),
          }
        }),
    }),
    route(reworkEndpoints.lookPlan, {
      limits,
      handle: ({ db, params }, { res }) =>
        drawing(db, params.token, async ({ reader, ids }) => {
          const { task } = await schemeToDraw(reader, pool, ids)
          const svg = await pool.run('schemePlanSvg', { task, paper: 'A4' })
          // It stays as it is for a while.
          res.type('image/svg+xml; charset=utf-8').set('cache-control', 'private, max-age=60').send(svg)
        }),
    }),
    route(reworkEndpoints.lookPdf, {
      limits,
      handle: ({ db, params, query: { on, years, paper } }, { res }) =>
        drawing(db, params.token, async ({ reader, ids }) => {
          const { task } = await schemeToDraw(reader, pool, ids)
          const moment: SchemeMoment = { on: on ?? reader.today, years }
          const pdf = await pool.run('schemePdf', { task, moment, paper })
          sent(res, 'application/pdf', task, 'pdf').send(Buffer.from(pdf))
        }),
    }),
  ]
}

/** A file under the name of what it is of, in letters that every system takes. */
const sent = (res: Response, type: string, { place, scheme }: SchemeToDraw, ending: string): Response =>
  res.type(type).set('content-disposition', `attachment; filename="${slug(`${place} ${scheme}`)}.${ending}"`)

const slug = (words: string): string =>
  words
    .normalize('NFKD')
    .replace(/[^a-zA-Z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase() || 'scheme'
