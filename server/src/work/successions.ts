import type { FeatureRecord, PlantingRecord, SuccessionView, successorRequest } from '@border/contract'
import {
  capitalised,
  castsShade,
  groundOfPlace,
  isAlive,
  isInside,
  isOfConsequence,
  isOutside,
  isPlace,
  lightFit,
  middleOf,
  obstructionOf,
  placeMoisture,
  ringOf,
  sceneOf,
  succession,
  successorJob,
  sunHours,
  surfaceHeightM,
  tenths,
  winterHere,
  withTrials,
  type Climate,
  type Evidence,
  type IsoDate,
  type Point,
  type Succession,
  type Taxon,
} from '@border/core'
import type { Piscina } from 'piscina'
import type { z } from 'zod'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { listFeatures, practiceOfGarden, type GardenAccess } from '../store/gardens.ts'
import { askCareJob, findJobByKey, leaveOut } from '../store/jobs.ts'
import { listPlantings } from '../store/plantings.ts'
import { insertSuccessionWord, listSuccessionWords, withdrawSuccessionWord } from '../store/successions.ts'
import { listTaxa } from '../store/taxa.ts'
import { findClimate } from '../store/weather.ts'
import { evidenceOfGarden } from './evidence.ts'
import { planSeason } from './planSeason.ts'

/** Falls by so much a season, of 5, where it is no longer well. */
const FALLING = 0.3

interface Failing {
  subjectId: string
  name: string
  placeId: string | null
  succession: Succession
}

/** Trees and shrubs of consequence that fail, with what could be planted now to stand when they go. */
export async function successionsOf(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  asked: { today: IsoDate; signal?: AbortSignal | undefined },
): Promise<SuccessionView[]> {
  const { climate } = await findClimate(db, garden)
  if (!climate) return []
  const words = new Map((await listSuccessionWords(db, garden.id)).map((w) => [w.subjectId, w]))
  const found = await failing(db, pool, garden, climate, asked)
  return found.map(({ subjectId, name, placeId, succession: s }) => {
    const word = words.get(subjectId)
    return {
      subjectId,
      name,
      placeId,
      says: s.says,
      choices: s.choices,
      word: word ? { state: word.state, botanical: word.botanical, jobId: word.jobId } : null,
    }
  })
}

async function failing(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  climate: Climate,
  asked: { today: IsoDate; signal?: AbortSignal | undefined },
): Promise<Failing[]> {
  const { today } = asked
  const features = (await listFeatures(db, garden.id)).filter((f) => isAlive(f, today))
  const scene = sceneOf(garden, features)
  const places = features.filter(isPlace)
  const library = (await listTaxa(db, await practiceOfGarden(db, garden.id))).map((t) => t.taxon)
  const hardy = (t: Taxon) => winterHere(t, climate, 'bed') === 'hardy'
  const evidence = await evidenceOfGarden(db, pool, garden, asked)
  const hoursAt = (x: number, y: number, without?: string) => {
    const place = places.find((p) => p.kind === 'bed' && isInside(ringOf(p.geometry), x, y))
    const lit = without ? withTrials(scene, [{ obstructionId: without, gone: true }], today) : scene
    const point = { x, y, z: place ? surfaceHeightM(place) : 0 }
    const ground = (place && groundOfPlace(place)) ?? undefined
    return { place, hours: sunHours(lit, [point], { kind: 'season', on: today }, ground)[0]! }
  }
  const plants = (await listPlantings(db, garden.id, today)).flatMap((p): Failing[] => {
    const why = isOfConsequence(p.taxon) && failingWords(p, evidence[p.id])
    const at = features.find((f) => f.id === p.placeId)
    if (!why || at?.kind !== 'bed') return []
    const { hours } = hoursAt(p.x, p.y)
    // What its light explains is answered by a move, not by another of its size in the same light.
    if (isOutside(lightFit(p.taxon, hours))) return []
    const ailing = {
      taxon: p.taxon,
      heightM: p.taxon.heightM,
      says: why,
      now: hours,
      then: hours,
      moisture: placeMoisture(at),
    }
    const proposal = succession(ailing, library, hardy)
    return proposal
      ? [{ subjectId: p.id, name: `${p.tag} ${p.taxon.botanical}`, placeId: at.id, succession: proposal }]
      : []
  })
  const trees = features.filter(isAilingTree).flatMap((f): Failing[] => {
    // Beside the old one, on the side where it gets most light as long as that stands.
    const beside = about(middleOf(f.geometry), Math.max(LEAST_OFF_M, OFF_SHARE * crownOf(f)))
    const spots = beside.map((at) => ({ at, ...hoursAt(...at) }))
    const { at, hours: now, place } = spots.reduce((a, b) => (b.hours.total > a.hours.total ? b : a))
    const { hours: then } = hoursAt(...at, f.id)
    const ailing = {
      heightM: heightOf(f),
      says: `${capitalised(f.name)} is in ${f.properties.health === 'failing' ? 'failing' : 'poor'} health.`,
      now,
      then,
      moisture: placeMoisture(place),
    }
    const proposal = succession(ailing, library, hardy)
    return proposal
      ? [{ subjectId: f.id, name: f.name, placeId: place?.id ?? null, succession: proposal }]
      : []
  })
  return [...trees, ...plants]
}

const isAilingTree = (f: FeatureRecord): boolean =>
  f.kind === 'tree' && castsShade(f) && (f.properties.health === 'poor' || f.properties.health === 'failing')

const LEAST_OFF_M = 1.5
/** So far out of its crown's radius a successor is set. */
const OFF_SHARE = 0.8

/** Eight points about another. */
const about = ([x, y]: Point, radius: number): Point[] =>
  Array.from({ length: 8 }, (_, k): Point => {
    const turn = (k * Math.PI) / 4
    return [x + radius * Math.cos(turn), y + radius * Math.sin(turn)]
  })

function crownOf(f: FeatureRecord): number {
  const tree = obstructionOf(f)
  return tree && 'crownRadiusM' in tree ? Number(tree.crownRadiusM) : 2
}

const heightOf = (f: FeatureRecord): number => obstructionOf(f)?.heightM ?? 6

function failingWords(p: PlantingRecord, e: Evidence | undefined): string | undefined {
  if (!e) return undefined
  const poor = e.rating !== null && e.rating <= 2
  if (e.decline && (poor || e.decline.perSeason >= FALLING))
    return `${p.taxon.botanical} has fallen by ${tenths(e.decline.perSeason)} a season since ${e.decline.from}.`
  if (poor && e.signs.some((s) => s === 'dieback' || s === 'crown-rot' || s === 'dead-below'))
    return `${p.taxon.botanical} is rated ${e.rating} of 5 and dies back.`
  return undefined
}

/** Keeps a person's word on a successor; a chosen one becomes a job. Run inside a transaction that holds the garden. */
export async function sayOfSuccessor(
  trx: Db,
  pool: Piscina,
  who: { personId: string; today: IsoDate },
  garden: GardenAccess,
  subjectId: string,
  word: z.infer<typeof successorRequest>,
): Promise<void> {
  const known = (await listSuccessionWords(trx, garden.id)).find((w) => w.subjectId === subjectId)
  if (word.state === 'open') {
    if (!known) throw notFound('A word on this')
    await withdrawSuccessionWord(trx, known.id)
    if (known.jobId) await leaveOut(trx, known.jobId, true)
    await planSeason(trx, pool, garden, who.today)
    return
  }
  if (known) throw new Refusal(409, 'You have said what is to be done here: take that back first.')
  const { climate } = await findClimate(trx, garden)
  if (!climate) throw new Refusal(409, 'There is no climate record here to plan planting by.')
  const found = (await failing(trx, pool, garden, climate, who)).find((f) => f.subjectId === subjectId)
  if (!found) throw notFound('A failing tree or shrub')
  const owner = { gardenId: garden.id, personId: who.personId }
  if (word.state === 'dismissed') {
    await insertSuccessionWord(trx, owner, { subjectId, state: 'dismissed', botanical: null, jobId: null })
    return
  }
  const practiceId = await practiceOfGarden(trx, garden.id)
  const chosen = (await listTaxa(trx, practiceId)).find((t) => t.taxon.botanical === word.botanical)
  if (!chosen) throw new Refusal(422, `${word.botanical} is not in the plant library.`)
  const job = successorJob(
    chosen.taxon,
    { subjectId, beside: found.name, placeId: found.placeId },
    climate,
    garden.schools,
    who.today,
  )
  if (!job) throw new Refusal(422, `${word.botanical} has no planting window in the usual year here.`)
  await askCareJob(trx, garden.id, job)
  const row = await findJobByKey(trx, garden.id, job.key)
  await insertSuccessionWord(trx, owner, {
    subjectId,
    state: 'planned',
    botanical: word.botanical,
    jobId: row?.id ?? null,
  })
  await planSeason(trx, pool, garden, who.today)
}
