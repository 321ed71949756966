import { reworkEndpoints, type PaletteAnswerView, type PaletteView, type SuitedView } from '@border/contract'
import { CELL_M, GOOD_FIT, suits, whereItSuits, type Palette } from '@border/core'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  acceptedOf,
  findScheme,
  insertRework,
  insertScheme,
  keepScheme,
  listReworks,
  setWithdrawn,
  stepScheme,
} from '../store/reworks.ts'
import type { ComputePool } from '../work/compute.ts'
import {
  acceptScheme,
  callOff,
  requireNotCarriedOut,
  schemeOfGarden,
  stepsOfScheme,
  stepsView,
} from '../work/carryOut.ts'
import {
  choiceTask,
  groundOfPlace,
  inHand,
  placeOfGarden,
  plantsElsewhere,
  relocationTask,
  SITES_M,
  sitedGardenOf,
} from '../work/rework.ts'
import { schemeStanding } from '../work/standing.ts'

/** Schemes that a rework has at most: more nobody compares. */
const MOST_SCHEMES = 6

/** Places decided anew. */
export const reworkRoutes = (pool: ComputePool): Route[] => [...kept(pool), ...worked(pool)]

/** What is kept of them. */
const kept = (pool: ComputePool): Route[] => [
  route(reworkEndpoints.list, { handle: ({ db, garden }) => listReworks(db, garden.id) }),
  route(reworkEndpoints.begin, {
    handle: async ({ db, garden, person, body, read }) => {
      await placeOfGarden(read, body.placeId)
      const owner = { gardenId: garden.id, personId: person.id }
      await insertRework(db, owner, body)
      for (const scheme of body.schemes) await insertScheme(db, owner, body.id, scheme)
    },
  }),
  ...([true, false] as const).flatMap((withdrawn): Route[] => [
    route(withdrawn ? reworkEndpoints.withdraw : reworkEndpoints.restore, {
      handle: async ({ db, garden, params }) => {
        const where = { id: params.reworkId, garden_id: garden.id }
        if (!(await setWithdrawn(db, 'reworks', where, withdrawn))) throw notFound('This rework')
        if (withdrawn)
          for (const schemeId of await acceptedOf(db, params.reworkId)) await callOff(db, schemeId)
      },
    }),
    route(withdrawn ? reworkEndpoints.withdrawScheme : reworkEndpoints.restoreScheme, {
      handle: async ({ db, garden, params }) => {
        const where = { id: params.schemeId, garden_id: garden.id, rework_id: params.reworkId }
        if (!(await setWithdrawn(db, 'schemes', where, withdrawn))) throw notFound('This scheme')
        if (withdrawn) await callOff(db, params.schemeId)
      },
    }),
  ]),
  route(reworkEndpoints.addScheme, {
    handle: async ({ db, garden, person, params, body }) => {
      const rework = (await listReworks(db, garden.id)).find((r) => r.id === params.reworkId)
      if (!rework) throw notFound('This rework')
      if (rework.schemes.length >= MOST_SCHEMES)
        throw new Refusal(409, `There are ${MOST_SCHEMES} schemes of this place: take one away first.`)
      await insertScheme(db, { gardenId: garden.id, personId: person.id }, params.reworkId, body)
    },
  }),
  route(reworkEndpoints.steps, {
    handle: async ({ db, garden, read, params, body }) =>
      stepsView(await stepsOfScheme(read, pool, await schemeOfGarden(db, garden.id, params), body)),
  }),
  route(reworkEndpoints.acceptScheme, {
    restsOn: 'carriedOut',
    prepare: async ({ db, garden, read, params, body }) =>
      stepsOfScheme(read, pool, await schemeOfGarden(db, garden.id, params), body),
    handle: ({ db, garden, person, params, prepared }) =>
      acceptScheme(db, { gardenId: garden.id, personId: person.id }, params, prepared),
  }),
  route(reworkEndpoints.callOffScheme, {
    handle: async ({ db, garden, params }) => {
      const scheme = await schemeOfGarden(db, garden.id, params)
      if (!scheme.isAccepted) throw new Refusal(409, 'This scheme is not being carried out.')
      if (!(await callOff(db, scheme.id)))
        throw new Refusal(409, 'All of this scheme is done: there is nothing to call off.')
    },
  }),
  route(reworkEndpoints.keepScheme, {
    stands: async ({ db, garden, params }) => {
      const found = await findScheme(db, garden.id, params.reworkId, params.schemeId)
      return schemeStanding(params.schemeId, found)
    },
    handle: async ({ db, garden, person, params, body }) => {
      const scheme = await schemeOfGarden(db, garden.id, params)
      requireNotCarriedOut(scheme)
      return { revisionId: await keepScheme(db, { personId: person.id }, scheme, body.said) }
    },
  }),
  route(reworkEndpoints.stepScheme, {
    handle: async ({ db, garden, params, body }) => {
      const scheme = await schemeOfGarden(db, garden.id, params)
      requireNotCarriedOut(scheme)
      const revisionId = await stepScheme(db, scheme, body.to)
      if (!revisionId)
        throw new Refusal(
          409,
          body.to === 'before' ? 'There is nothing before this.' : 'There is nothing after this.',
        )
      return { revisionId }
    },
  }),
]

/** What is worked out of them. */
const worked = (pool: ComputePool): Route[] => [
  route(reworkEndpoints.ground, {
    handle: async ({ read, params }) => {
      const { place, stations, stationM2 } = await groundOfPlace(read, pool, params.featureId)
      return { placeId: place.id, cellM: CELL_M, stationM2, stations: [...stations] }
    },
  }),
  route(reworkEndpoints.fit, {
    handle: async ({ read, query }): Promise<SuitedView[]> => {
      const known = (await read.taxa()).find((t) => t.taxon.botanical === query.botanical)
      if (!known) throw notFound(`${query.botanical} in the plant library`)
      const garden = await sitedGardenOf(read, pool)
      return whereItSuits(known.taxon, garden).map(({ place, scores, best }) => {
        const { stations } = garden.places.find((p) => p.place === place)!
        // A place has a handful of reasons for hundreds of cells.
        const reasons: string[] = []
        const turnOf = (reason: string) => {
          const turn = reasons.indexOf(reason)
          return turn < 0 ? reasons.push(reason) - 1 : turn
        }
        return {
          placeId: place.id,
          cellM: SITES_M,
          cells: stations.map((s, i): SuitedView['cells'][number] => [
            s.x,
            s.y,
            scores[i]!,
            turnOf(suits(known.taxon, place, s, garden).reason),
          ]),
          reasons,
          best,
          goodShare: scores.filter((s) => s >= GOOD_FIT).length / scores.length,
        }
      })
    },
  }),
  route(reworkEndpoints.relocate, {
    handle: async ({ read, body }) => pool.run('relocation', await relocationTask(read, pool, body.leaving)),
  }),
  route(reworkEndpoints.ways, {
    handle: async ({ read, body: { leaving, plantingId } }) => {
      if (!leaving.some((l) => l.plantingId === plantingId)) throw notFound('This planting among what leaves')
      return pool.run('ways', { ...(await relocationTask(read, pool, leaving)), plantingId })
    },
  }),
  route(reworkEndpoints.inHand, {
    handle: async ({ read, params, body }) => {
      const { id } = await placeOfGarden(read, params.featureId)
      const have = await inHand(read, await plantsElsewhere(read, pool, id), body.dividing)
      return have.map(({ taxon, from, most }) => ({ botanical: taxon.botanical, from, count: most }))
    },
  }),
  route(reworkEndpoints.tray, {
    handle: async ({ read, params, body: { chosen, ...asked } }) => {
      const task = await choiceTask(read, pool, params.featureId, asked)
      const taxonOf = new Map(task.library.map((t) => [t.botanical, t]))
      const found = await pool.run('tray', {
        ...task,
        // What has left the library since it was chosen is told by the screen, and counts for nothing here.
        chosen: chosen.flatMap(({ botanical, count }) => {
          const taxon = taxonOf.get(botanical)
          return taxon ? [{ taxon, count }] : []
        }),
      })
      if (!found) throw noGround()
      return {
        weeks: [...found.wishes.weeks],
        areaM2: found.wishes.areaM2,
        flowering: found.flowering.map((w) => [...w]),
        candidates: found.tray,
      }
    },
  }),
  route(reworkEndpoints.palette, {
    handle: async ({ read, params, body: { apart, ...asked } }): Promise<PaletteAnswerView> => {
      const task = await choiceTask(read, pool, params.featureId, asked)
      const found = await pool.run('palette', { ...task, apart })
      if (!found) throw noGround()
      const { answer, wishes } = found
      if (answer.ok) {
        const [palette] = answer.palettes
        return palette
          ? { is: 'palette', palette: told(palette), weeks: [...wishes.weeks], areaM2: wishes.areaM2 }
          : { is: 'no more' }
      }
      if (answer.why === 'limit')
        return {
          is: 'not worked out',
          says: 'It could not be worked out: ask for fewer kinds, or lock some in.',
        }
      return {
        is: 'conflict',
        weeks: [...wishes.weeks],
        wishes: [...answer.wishes],
        giveUp: answer.giveUp.map(({ wish, palette }) => ({ wish, palette: told(palette) })),
      }
    },
  }),
]

const noGround = () => new Refusal(409, 'What stays here leaves no ground to plant.')

const told = (palette: Palette): PaletteView => ({
  ...palette,
  items: palette.items.map((i) => ({ ...i })),
  flowering: palette.flowering.map((w) => [...w]),
  unpriced: [...palette.unpriced],
})
