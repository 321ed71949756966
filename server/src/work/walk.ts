import {
  walkEntry,
  type WalkAnswer,
  type WalkPlace,
  type WalkPlanting,
  type WalkView,
} from '@border/contract'
import {
  readAs,
  unseenOf,
  alongPlace,
  dayMonthYear,
  isPlace,
  isSettling,
  lightFit,
  summerOf,
  likelySigns,
  middleOf,
  seasonInPlace,
  stageOfPhase,
  usualState,
  usualWords,
  walkingOrder,
  type IsoDate,
} from '@border/core'
import { group } from 'd3-array'
import { z } from 'zod'
import type { Db } from '../database/connect.ts'
import { derive } from '../derived.ts'
import type { Noted, TrulyNoted } from '../deviceClock.ts'
import { featuresOn, type GardenReader } from '../reader.ts'
import type { GardenAccess } from '../store/gardens.ts'
import {
  insertObservation,
  insertPlaceLook,
  knownEntries,
  knownLooks,
  lastObservations,
  lastPlaceLooks,
  type Whose,
} from '../store/observations.ts'
import { constraintRefusal, unkeptRefusal } from '../errors.ts'
import { listStandpoints } from '../store/photos.ts'
import { lightOfGarden } from './gardenLight.ts'
import type { ComputePool } from './compute.ts'
import { likelihoodsOf, yearOfGarden } from './diagnosis.ts'

/** Whose looks a person may take back: their own, and anyone's where they answer for the garden. */
export const looksTakenBackBy = ({ role }: Pick<GardenAccess, 'role'>, { id }: { id: string }): Whose =>
  role === 'head' ? 'anyone' : { personId: id }

/** Everything a walk of a garden needs on a day, places in walking order. */
export async function walkOfGarden(reader: GardenReader, pool: ComputePool): Promise<WalkView> {
  const { today } = reader
  return derive(reader, ['walk', [today]], () => workOutWalk(reader, pool))
}

async function workOutWalk(reader: GardenReader, pool: ComputePool): Promise<WalkView> {
  const { db, garden, today } = reader
  const table = await likelihoodsOf(db, garden)
  const { year, earliness } = await yearOfGarden(reader)
  const plantings = await reader.plantings()
  const last = await lastObservations(
    db,
    plantings.map((p) => p.id),
    today,
  )
  const placeLooks = await lastPlaceLooks(db, garden.id, today)
  const standpoints = await listStandpoints(db, garden.id, today)
  const { light: lit } = await lightOfGarden(reader, pool, today)
  const light = new Map(lit.plantings.map((p) => [p.plantingId, p]))
  const summer = summerOf((await reader.climate()).climate)
  const places = (await featuresOn(reader)).filter(isPlace)
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
                lightOutsideHours: lit ? lightFit(p.taxon, lit.now, summer).hoursOutside : 0,
                lightChangeHours: lit ? lit.now.total - lit.before.total : 0,
              },
              table,
            ),
            unseen: unseenOf(p, before, today, year) ?? null,
          }
        }),
      }
    }),
  }
}

/** Whose looks are kept, where, and by which clock. */
interface Keeping {
  gardenId: string
  personId: string
  today: IsoDate
  truly: <N extends Noted>(noted: N) => TrulyNoted<N>
}

/**
 * Takes what a walk noted, entry by entry: what is in the record already is left as it is, what cannot be kept is named
 * with the reason, and the rest is kept. Two people's looks at one planting are both kept.
 */
export async function keepEntries(db: Db, by: Keeping, entries: readonly unknown[]): Promise<WalkAnswer> {
  const answer: WalkAnswer = { kept: [], refused: [] }
  const known = await knownEntries(
    db,
    by.gardenId,
    entries.flatMap((entry) => idOf(entry)?.toLowerCase() ?? []),
  )
  const here = await subjectsOf(db, by.gardenId)
  for (const entry of entries) {
    // Told by the name that the device has for it.
    const sentAs = idOf(entry)
    const why =
      sentAs !== undefined && known.has(sentAs.toLowerCase())
        ? undefined
        : await keptOrWhyNot(db, by, entry, { known, here })
    if (why === undefined) answer.kept.push(sentAs!)
    else answer.refused.push({ id: sentAs ?? '', why })
  }
  return answer
}

/**
 * Keeps one entry, by itself: whatever becomes of it, the others stay as they are.
 *
 * @returns why it is not kept; undefined where it is
 */
async function keptOrWhyNot(
  db: Db,
  by: Keeping,
  entry: unknown,
  { known, here }: { known: Set<string>; here: Subjects },
): Promise<string | undefined> {
  const read = readAs(walkEntry, entry)
  if (!read.success) return wordsOf(read.error, subjectNamed(entry, here))
  const e = by.truly(read.data)
  const fault = faultOf(e, here, by.today)
  if (fault) return fault
  try {
    const added = await db.transaction(async (one) => {
      const replacesId = await replacedBy(one, by.gardenId, e)
      return e.kind === 'planting'
        ? insertObservation(one, by, { ...e, replacesId })
        : insertPlaceLook(one, by, { ...e, replacesId })
    })
    // Not added though unknown here: the id is another garden's.
    if (!added) return 'This entry was already kept for another garden.'
  } catch (error) {
    const refusal = constraintRefusal(error) ?? unkeptRefusal(error)
    if (!refusal) throw error
    return refusal.message
  }
  known.add(e.id)
  return undefined
}

/** The entry that one puts right: the latest of those it names that is in the record. */
async function replacedBy(
  db: Db,
  gardenId: string,
  { kind, replacesId, orReplaces = [] }: z.output<typeof walkEntry>,
): Promise<string | undefined> {
  const named = replacesId ? [replacesId, ...orReplaces] : []
  if (named.length === 0) return undefined
  // A look at a planting puts right none at a place.
  const inRecord = await knownLooks(db, kind === 'planting' ? 'observations' : 'place_looks', gardenId, named)
  return named.find((id) => inRecord.has(id))
}

const idOf = (entry: unknown): string | undefined => {
  const id = (entry as { id?: unknown } | null)?.id
  return z.uuid().safeParse(id).success ? (id as string) : undefined
}

interface Planted {
  on: IsoDate
  count: number
}
/** What a look can be at: its name and, of a planting, how many were planted and when. */
interface Subject {
  name: string
  planted: Planted | null
}
/** By id. */
type Subjects = ReadonlyMap<string, Subject>

async function subjectsOf(db: Db, gardenId: string): Promise<Subjects> {
  const plantings = await db('plantings')
    .join('taxa', 'taxa.id', 'taxon_id')
    .where({ garden_id: gardenId })
    .select<(Planted & { id: string; tag: string; botanical: string })[]>(
      'plantings.id',
      'tag',
      'botanical',
      'planted_count as count',
      'planted_on as on',
    )
  const places = await db('features')
    .where({ garden_id: gardenId })
    .whereIn('kind', ['bed', 'container'])
    .select<{ id: string; name: string }[]>('id', 'name')
  const subjects = new Map<string, Subject>()
  for (const p of places) subjects.set(p.id, { name: p.name, planted: null })
  for (const p of plantings) subjects.set(p.id, { name: `${p.tag} ${p.botanical}`, planted: p })
  return subjects
}

/** Why an entry cannot be kept, named by what it is of; undefined where it can. */
function faultOf(e: z.output<typeof walkEntry>, here: Subjects, today: IsoDate): string | undefined {
  const subject = here.get(e.kind === 'planting' ? e.plantingId : e.placeId)
  if (!subject) return `This ${e.kind} is not in this garden.`
  if (e.on > today)
    return `${subject.name}: ${dayMonthYear(e.on)} lies ahead, it is ${dayMonthYear(today)} in this garden. Set the clock of this device right and note it again.`
  if (e.kind !== 'planting' || !subject.planted) return undefined
  const { on, count } = subject.planted
  if (e.on < on)
    return `${subject.name}: it was planted on ${dayMonthYear(on)}; ${dayMonthYear(e.on)} lies before. Correct when it was planted, or the day.`
  if ((e.living ?? 0) > count)
    return `${subject.name}: ${e.living} living of ${count} planted. Correct how many were planted, or the count.`
  return undefined
}

const subjectNamed = (entry: unknown, here: Subjects): Subject | undefined => {
  const { plantingId, placeId } = (entry ?? {}) as { plantingId?: unknown; placeId?: unknown }
  const named = plantingId ?? placeId
  return typeof named === 'string' ? here.get(named.toLowerCase()) : undefined
}

const wordsOf = (error: z.ZodError, subject: { name: string } | undefined) =>
  (subject ? `${subject.name}: ` : '') +
  error.issues.map((i) => `${i.path.join('.') || 'entry'}: ${i.message}`).join('; ')
