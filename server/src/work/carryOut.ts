import type { PlantingView, SaidScheme, StepsView } from '@border/contract'
import {
  arrangementFrom,
  CELL_M,
  carryingOut,
  driftStands,
  extrasOf,
  groundM2,
  groundOf,
  metresOutside,
  MOST_LEAVING,
  plantingDivided,
  plantingM2,
  pocketsOf,
  seasonOfFeeding,
  type BedGround,
  type CarryingOut,
  type Comes,
  type DriftStand,
  type Goes,
  type Step,
  type Taxon,
} from '@border/core'
import { sum } from 'd3-array'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { featuresOn, type GardenReader } from '../reader.ts'
import { dropDecidedJobs, dropJobsOfScheme, insertJobs, type Job } from '../store/jobs.ts'
import { acceptedOf, findScheme, setAccepted } from '../store/reworks.ts'
import { caredGarden } from './care.ts'
import type { ComputePool } from './compute.ts'
import { hazardsNear } from './decide.ts'
import { groundOfPlace, inHand, placeOfGarden, plantsElsewhere, relocationTask } from './rework.ts'

type SchemeFound = NonNullable<Awaited<ReturnType<typeof findScheme>>>

/** A scheme that stands. @throws {Refusal} where there is none */
export async function schemeOfGarden(
  db: Db,
  gardenId: string,
  { reworkId, schemeId }: { reworkId: string; schemeId: string },
): Promise<SchemeFound> {
  const scheme = await findScheme(db, gardenId, reworkId, schemeId)
  if (!scheme) throw notFound('This scheme')
  return scheme
}

/**
 * What carrying a scheme out comes to, as the garden stands: without what of it is done already.
 *
 * @param seen as whoever asks saw it
 * @throws {Refusal} where it has been changed since, is not laid out, or there is no climate to hang windows on
 */
export async function stepsOfScheme(
  reader: GardenReader,
  pool: ComputePool,
  scheme: SchemeFound,
  seen: { revisionId: string },
): Promise<CarryingOut> {
  if (scheme.revisionId !== seen.revisionId)
    throw new Refusal(409, 'This scheme has been changed since you looked at it. Nothing of yours was saved.')
  const { said, placeId } = scheme
  const [place, standing, taxa, cared, jobs] = await Promise.all([
    placeOfGarden(reader, placeId),
    reader.plantings(),
    reader.taxa(),
    caredGarden(reader),
    reader.jobs(),
  ])
  if (!cared)
    throw new Refusal(409, 'There is no climate record here to hang dates on: bring one in under Set-up.')
  const done = new Set(jobs.filter((j) => j.schemeId === scheme.id && j.state === 'done').map((j) => j.key))
  const here = new Map(standing.filter((p) => p.placeId === placeId).map((p) => [p.id, p]))
  const leaving = said.leaving.filter((l) => here.has(l.plantingId))
  const goes = await destinations(
    reader,
    pool,
    leaving.filter((l) => l.how === 'leaves'),
  )
  const leavingIds = new Set(goes.keys())
  const stays = [...here.values()].filter((p) => !leavingIds.has(p.id))
  const dividing = leaving
    .filter((l) => l.how === 'divides' && !done.has(`${here.get(l.plantingId)!.tag}/divide`))
    .map((l) => {
      const planting = here.get(l.plantingId)!
      return { planting, spare: plantingDivided(planting, reader.today, measured(l)).spare, ...measured(l) }
    })
  const hazards = hazardsNear(await featuresOn(reader), [...here.values()])
  const taxonOf = new Map(taxa.map((t) => [t.taxon.botanical, t.taxon]))
  const ground: BedGround = {
    of: await groundOfPlace(reader, pool, placeId),
    cellM: CELL_M,
    viewedFrom: [180],
    stays,
  }
  const elsewhere = await plantsElsewhere(reader, pool, placeId)
  const has = await inHand(
    reader,
    elsewhere,
    dividing.map(({ planting, spare: _, ...clump }) => ({ plantingId: planting.id, ...clump })),
  )
  // What is planted already takes nothing of what is in hand.
  const isToPlant = ({ id }: { id: string }) => !done.has(`plant/${id}`)
  const comes = comingIn(
    { drifts: said.drifts.filter(isToPlant), between: said.between.filter(isToPlant) },
    ground,
    taxonOf,
    new Map(has.map((h) => [h.taxon.botanical, h.most])),
    [...here.values()].filter((p) => leavingIds.has(p.id)),
  )
  const wanted = new Set(comes.filter((c) => c.have > 0).map((c) => c.taxon.botanical))
  const keptM2 = sum(stays, plantingM2)
  const plantedM2 = Math.max(0, place.areaM2 - keptM2)
  const found = carryingOut(
    {
      place,
      leaving: [...goes].map(([id, to]) => ({ planting: here.get(id)!, goes: to })),
      dividing,
      fetched: elsewhere
        .filter((p) => wanted.has(p.taxon.botanical))
        .map((planting) => ({
          planting,
          placeName: cared.places.find((p) => p.id === planting.placeId)?.name ?? 'its place',
        })),
      comes,
      plantedM2,
      compostM: said.compostM,
      mulchM: said.mulchM,
      extras: extrasOf(said, plantedM2, seasonOfFeeding(reader.today, reader.garden.latitude < 0)),
      hazards,
      climate: cared.climate,
      lateDays: cared.lateDays,
      schools: cared.schools,
      rules: cared.rules,
    },
    reader.today,
  )
  return found.ok ? { ...found, steps: withoutDone(found.steps, done) } : found
}

/** Making a bed ready is done once; what is set out, watered and looked after is so with each planting. */
const ONCE = ['clear', 'mend', 'soil', 'mulch']

function withoutDone(steps: readonly Step[], done: ReadonlySet<string>): Step[] {
  const isDone = (key: string) => ONCE.includes(key) && done.has(key)
  return steps
    .filter((s) => !isDone(s.key))
    .map((s) => ({ ...s, after: s.after.filter((a) => !isDone(a.key)) }))
}

/** What was counted or measured of a clump. */
const measured = ({ shoots, acrossM }: SaidScheme['leaving'][number]) => ({
  ...(shoots !== undefined && { shoots }),
  ...(acrossM !== undefined && { acrossM }),
})

/** Where each of what leaves goes: as somebody decided, else by the optimum. What stays for now is not among it. */
async function destinations(
  reader: GardenReader,
  pool: ComputePool,
  leaving: SaidScheme['leaving'],
): Promise<Map<string, Goes>> {
  if (leaving.length === 0) return new Map()
  if (leaving.length > MOST_LEAVING)
    throw new Refusal(409, `More than ${MOST_LEAVING} plantings leave at once: carry it out in two schemes.`)
  const task = await relocationTask(reader, pool, leaving)
  const found = await pool.run('relocation', task)
  if (!found.ok) throw new Refusal(409, `Where what leaves goes: ${found.says}`)
  const standing = new Map(task.standing.map((p) => [p.id, p]))
  const features = await featuresOn(reader)
  const goes = new Map<string, Goes>()
  for (const { plantingId, destination } of found.went) {
    if (destination.to === 'stay') continue
    if (destination.to !== 'spot') {
      goes.set(plantingId, { to: destination.to })
      continue
    }
    const { placeId, x, y } = destination
    const place = await placeOfGarden(reader, placeId)
    const hazards = hazardsNear(features, [standing.get(plantingId)!, destination])
    goes.set(plantingId, { to: 'spot', place, x, y, hazards })
  }
  return goes
}

/** What comes in, with where it stands. @throws {Refusal} where some of it has no ground yet */
function comingIn(
  said: Pick<SaidScheme, 'drifts' | 'between'>,
  ground: BedGround,
  taxonOf: ReadonlyMap<string, Taxon>,
  inHand: ReadonlyMap<string, number>,
  leaving: readonly PlantingView[],
): Comes[] {
  const arranged = arrangementFrom(ground, said.drifts, taxonOf)
  const stands = driftStands(ground, arranged)
  const bare = arranged.drifts.filter((_, k) => !stands[k])
  if (bare.length > 0)
    throw new Refusal(
      409,
      `${bare.map((d) => d.taxon.common).join(', ')} ${bare.length === 1 ? 'has' : 'have'} no ground yet: lay the scheme out first.`,
    )
  const left = new Map(inHand)
  const have = (botanical: string, count: number) => {
    const some = Math.min(count, left.get(botanical) ?? 0)
    left.set(botanical, (left.get(botanical) ?? 0) - some)
    return some
  }
  const coming = (id: string, taxon: Taxon, count: number, stand: DriftStand, over: string[]): Comes => ({
    id,
    taxon,
    count,
    have: have(taxon.botanical, count),
    areaM2: groundM2(count, taxon.spacingM),
    stand,
    over,
  })
  const grounds = leaving.map((p) => ({ id: p.id, ground: groundOf(p) }))
  const drifts = arranged.drifts.map((d, k) => {
    const cells = ground.of.stations.filter((_, c) => arranged.has[c] === k)
    const over = grounds.filter((g) => cells.some((c) => metresOutside(g.ground, c.x, c.y) <= 0))
    return coming(
      d.id,
      d.taxon,
      d.count,
      stands[k]!,
      over.map((o) => o.id),
    )
  })
  const between = said.between.filter((b) => taxonOf.has(b.botanical))
  const pockets = pocketsOf(
    ground,
    arranged,
    between.map((b) => ({ id: b.id, taxon: taxonOf.get(b.botanical)!, count: b.count })),
  )
  return [
    ...drifts,
    ...between.map((b) => {
      const [pocket] = pockets.filter((p) => p.driftId === b.id).toSorted((a, c) => c.bulbs - a.bulbs)
      const { x, y } = pocket ?? ground.of.stations[0]!
      return coming(b.id, taxonOf.get(b.botanical)!, b.count, { x, y, outline: null }, [])
    }),
  ]
}

/** Steps as they are shown. */
export const stepsView = (found: CarryingOut): StepsView =>
  found.ok
    ? {
        ok: true,
        steps: found.steps.map(
          ({ key, stage, title, placeId, plantingId, sets, window, minutes, after }) => ({
            key,
            stage,
            title,
            placeId,
            plantingId,
            driftId: sets?.id ?? null,
            window,
            minutes,
            after: after.map((a) => a.key),
          }),
        ),
        turns: found.turns.map(({ window, ids, says }) => ({
          from: window.earliest,
          until: window.latest,
          driftIds: [...ids],
          says,
        })),
      }
    : { ok: false, problems: found.problems.map((p) => p.says) }

/** A scheme accepted: its steps are jobs of the season from now on. Run inside a transaction that holds the garden. */
export async function acceptScheme(
  trx: Db,
  owner: { gardenId: string; personId: string },
  { reworkId, schemeId }: { reworkId: string; schemeId: string },
  found: CarryingOut,
): Promise<void> {
  const scheme = await schemeOfGarden(trx, owner.gardenId, { reworkId, schemeId })
  if (scheme.isAccepted) throw new Refusal(409, 'This scheme is being carried out already.')
  if ((await acceptedOf(trx, reworkId)).length > 0)
    throw new Refusal(409, 'Another scheme of this place is being carried out: call that off first.')
  if (!found.ok) throw new Refusal(409, found.problems.map((p) => p.says).join(' '))
  if (found.steps.length === 0)
    throw new Refusal(409, 'Nothing leaves and nothing comes in: there is nothing to carry out.')
  await acceptSteps(trx, { ...owner, schemeId }, found.steps)
}

/** Steps of a scheme as jobs of the season. */
export async function acceptSteps(
  trx: Db,
  { gardenId, personId, schemeId }: { gardenId: string; personId: string; schemeId: string },
  steps: readonly Step[],
): Promise<void> {
  // A later word replaces what an earlier one set going.
  for (const plantingId of new Set(steps.map((s) => s.plantingId)))
    if (plantingId) await dropDecidedJobs(trx, plantingId)
  await insertJobs(
    trx,
    { gardenId, schemeId },
    steps.map((s) => ({ ...s, sets: s.sets && setsOf(s.sets) })),
  )
  await setAccepted(trx, schemeId, personId)
}

const setsOf = ({ id, taxon, count, have, stand }: Comes): Job['sets'] => ({
  driftId: id,
  botanical: taxon.botanical,
  count,
  have,
  ...stand,
})

/** What of a scheme is not done yet is not done any more. One of which all is done has been carried out, and stays so. @returns whether anything was to be done */
export async function callOff(trx: Db, schemeId: string): Promise<boolean> {
  const anything = await dropJobsOfScheme(trx, schemeId)
  if (anything) await setAccepted(trx, schemeId, null)
  return anything
}

/** @throws {Refusal} where a scheme is being carried out: what is worked by does not change under the spade */
export function requireNotCarriedOut({ isAccepted }: Pick<SchemeFound, 'isAccepted'>): void {
  if (isAccepted)
    throw new Refusal(
      409,
      'This scheme is being carried out. Call it off to change it, or make another like it; what is done stays done.',
    )
}
