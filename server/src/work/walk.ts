import {
  walkEntry,
  type FeatureRecord,
  type WalkAnswer,
  type WalkPlace,
  type WalkPlanting,
  type WalkView,
} from '@border/contract'
import {
  absenceOf,
  alongPlace,
  isAlive,
  isPlace,
  isSettling,
  lightFit,
  likelySigns,
  middleOf,
  seasonInPlace,
  stageOfPhase,
  usualState,
  usualWords,
  walkingOrder,
  type IsoDate,
  type Likelihood,
} from '@border/core'
import { group } from 'd3-array'
import type { Piscina } from 'piscina'
import { z } from 'zod'
import type { Db } from '../database/connect.ts'
import { kept } from '../store/computed.ts'
import { listFeatures, recordVersion, type GardenAccess } from '../store/gardens.ts'
import {
  insertObservation,
  insertPlaceLook,
  knownEntries,
  lastObservations,
  lastPlaceLooks,
} from '../store/observations.ts'
import { listStandpoints } from '../store/photos.ts'
import { listPlantings } from '../store/plantings.ts'
import { COMPUTATION, lightOfGarden } from './assess.ts'
import { likelihoodsOf, yearOfGarden } from './diagnosis.ts'

/** Everything a walk of a garden needs on a day, places in walking order. */
export async function walkOfGarden(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  { today, signal }: { today: IsoDate; signal?: AbortSignal | undefined },
): Promise<WalkView> {
  const version = await recordVersion(db, garden.id)
  const features = await listFeatures(db, garden.id)
  const table = await likelihoodsOf(db, garden.id)
  return kept(db, ['walk', COMPUTATION, garden.id, version, features, table, today], () =>
    workOutWalk(db, pool, garden, features, table, { today, signal }),
  )
}

async function workOutWalk(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  features: readonly FeatureRecord[],
  table: readonly Likelihood[],
  { today, signal }: { today: IsoDate; signal?: AbortSignal | undefined },
): Promise<WalkView> {
  const { year, earliness } = await yearOfGarden(db, garden, today)
  const plantings = await listPlantings(db, garden.id, today)
  const last = await lastObservations(
    db,
    plantings.map((p) => p.id),
    today,
  )
  const placeLooks = await lastPlaceLooks(db, garden.id, today)
  const standpoints = await listStandpoints(db, garden.id, today)
  const { light: lit } = await lightOfGarden(db, pool, garden, today, { today, signal })
  const light = new Map(lit.plantings.map((p) => [p.plantingId, p]))
  const places = features.filter((f) => isPlace(f) && isAlive(f, today))
  const byId = new Map(places.map((f) => [f.id, f]))
  const growing = group(plantings, (p) => p.placeId)
  const order = walkingOrder(places.map((f) => ({ id: f.id, at: middleOf(f.geometry) })))
  return {
    on: today,
    earliness,
    places: order.map((placeId): WalkPlace => {
      const place = byId.get(placeId)!
      const own = alongPlace(growing.get(placeId) ?? [])
      return {
        id: placeId,
        name: place.name,
        kind: place.kind === 'container' ? 'container' : 'bed',
        last: placeLooks.get(placeId) ?? null,
        standpoints: standpoints.filter((s) => s.placeId === placeId),
        plantings: own.map((p): WalkPlanting => {
          const usual = usualState(p.taxon, today, year)
          const lit = light.get(p.id)
          const before = last.get(p.id)
          const settling = isSettling(p.taxon, p.inPlaceSince, today, year.south)
          return {
            id: p.id,
            tag: p.tag,
            botanical: p.taxon.botanical,
            common: p.taxon.common,
            plantedCount: p.plantedCount,
            livingCount: p.livingCount,
            usual: usualWords(p.taxon, today, year),
            phase: usual.phase,
            resting: usual.resting,
            settling,
            usualStage: stageOfPhase[usual.phase],
            last: before ?? null,
            likely: likelySigns(
              {
                taxon: p.taxon,
                usual,
                settling,
                seasons: seasonInPlace(p.inPlaceSince, today, year.south),
                inPot: place.kind === 'container',
                lastSigns: before?.signs ?? [],
                lightOutsideHours: lit ? lightFit(p.taxon, lit.now).hoursOutside : 0,
                lightChangeHours: lit ? lit.now.total - lit.before.total : 0,
              },
              table,
            ),
            absence: absenceOf(p, before, today, year) ?? null,
          }
        }),
      }
    }),
  }
}

/**
 * Takes what a walk noted, entry by entry: what is in the record already is left as it is, what cannot be kept is named
 * with the reason, and the rest is kept. Two people's looks at one planting are both kept.
 */
export async function keepEntries(
  db: Db,
  by: { gardenId: string; personId: string; today: IsoDate },
  entries: readonly unknown[],
): Promise<WalkAnswer> {
  const answer: WalkAnswer = { kept: [], refused: [] }
  const ids = entries.map(idOf)
  const known = await knownEntries(
    db,
    by.gardenId,
    ids.filter((id) => id !== undefined),
  )
  const [plantings, places] = await Promise.all([
    db('plantings').where({ garden_id: by.gardenId }).select('id'),
    db('features').where({ garden_id: by.gardenId }).whereIn('kind', ['bed', 'container']).select('id'),
  ])
  const here = new Set([...plantings, ...places].map((r) => r.id as string))
  for (const [i, entry] of entries.entries()) {
    const id = ids[i]
    if (id !== undefined && known.has(id)) {
      answer.kept.push(id)
      continue
    }
    const read = walkEntry.safeParse(entry)
    const fault = read.success ? faultOf(read.data, here, by.today) : wordsOf(read.error)
    if (!read.success || fault) {
      answer.refused.push({ id: id ?? '', why: fault ?? '' })
      continue
    }
    const e = read.data
    if (
      e.replacesId &&
      !known.has(e.replacesId) &&
      !(await knownEntries(db, by.gardenId, [e.replacesId])).has(e.replacesId)
    )
      delete e.replacesId
    const added =
      e.kind === 'planting' ? await insertObservation(db, by, e) : await insertPlaceLook(db, by, e)
    // Not added though unknown here: the id is another garden's.
    if (added) {
      answer.kept.push(e.id)
      known.add(e.id)
    } else answer.refused.push({ id: e.id, why: 'This entry was already kept for another garden.' })
  }
  return answer
}

const idOf = (entry: unknown): string | undefined => {
  const id = (entry as { id?: unknown } | null)?.id
  return z.uuid().safeParse(id).success ? (id as string) : undefined
}

function faultOf(
  e: z.output<typeof walkEntry>,
  here: ReadonlySet<string>,
  today: IsoDate,
): string | undefined {
  if (e.on > today) return `${e.on} lies ahead of today.`
  if (e.kind === 'planting' && !here.has(e.plantingId)) return 'This planting is not in this garden.'
  if (e.kind === 'place' && !here.has(e.placeId)) return 'This place is not in this garden.'
  return undefined
}

const wordsOf = (error: z.ZodError) =>
  error.issues.map((i) => `${i.path.join('.') || 'entry'}: ${i.message}`).join('; ')
