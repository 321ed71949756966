import type {
  AbsenceView,
  CheckRequest,
  ContainersView,
  FillRequest,
  LineView,
  PlantingView,
  PotView,
  SpareView,
  SpotsView,
} from '@border/contract'
import {
  addDays,
  containerAs,
  coldNights,
  DAYS_OF_WATER,
  dayMonthYear,
  featuresOn,
  isSeasonal,
  leadingWoody,
  linePots,
  lineSeasons,
  maxDay,
  moveWindows,
  nextTags,
  plantingDivided,
  potsStanding,
  rulesWith,
  rootsFillOn,
  usualYearAt,
  vesselOf,
  windowOfStep,
  winterHere,
  withoutId,
  type ContainerRow,
  type DailyWeather,
  type FileProblem,
  type PotCheck,
  type PotKnown,
  type PotLight,
  type PotStanding,
  type Scene,
  type Window,
  type PotsAbout,
} from '@border/core'
import { group } from 'd3-array'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { Db } from '../database/connect.ts'
import { derive } from '../derived.ts'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import type { GardenReader } from '../reader.ts'
import { openEdit, type OpenEdit } from '../store/edits.ts'
import { listFills, listStaysInContainers, type Fill } from '../store/fills.ts'
import { findFeature, listFeatures } from '../store/gardens.ts'
import { type Job } from '../store/jobs.ts'
import { findRuleEdits } from '../store/rules.ts'
import { insertPotCheck, listPotChecks } from '../store/potChecks.ts'
import { listPlantings, listTags } from '../store/plantings.ts'
import { forecastFor, listWeather } from '../store/weather.ts'
import type { ComputePool } from './compute.ts'
import { asFeature } from './changeObstruction.ts'
import { editPlan } from './editPlan.ts'
import { enterPlanting } from './editPlantings.ts'
import { plantsElsewhere, relocationTask } from './rework.ts'

/** The containers that stand in a garden as they are worked with, with what is on record of them. */
async function potsOfGarden(reader: GardenReader) {
  const { db, garden, today } = reader
  const { scene, places } = await reader.standing()
  const fills = await listFills(db, garden.id)
  const checks = await listPotChecks(db, garden.id, addDays(today, -CHECKED_DAYS))
  const knownOf = await knownOfPots(reader, fills, checks)
  const pots = potsStanding(
    { places, features: await reader.features(), plantings: await reader.plantings() },
    ({ id }) => ({ ...fills.find((f) => f.containerId === id && standsOn(f, today)), known: knownOf(id) }),
    { on: today, south: garden.latitude < 0 },
  )
  return { scene, pots, fills, checks }
}

/** The light at their rims: of the plan alone, however often they are filled. */
const potLightOf = (
  reader: GardenReader,
  pool: ComputePool,
  scene: Scene,
  pots: readonly PotStanding[],
): Promise<PotLight[]> =>
  derive(reader, ['potLight', [reader.today]], () =>
    pool.run('potLight', {
      scene,
      pots: pots.map(({ x, y, rimHeightM }) => ({ x, y, rimHeightM })),
      on: reader.today,
    }),
  )

/** The containers that stand in a garden, with their light and what they are judged by. */
async function standingContainers(reader: GardenReader, pool: ComputePool) {
  const { db, garden, today } = reader
  const { scene, pots, fills, checks } = await potsOfGarden(reader)
  const light = await potLightOf(reader, pool, scene, pots)
  const { climate, lastDay } = await reader.climate()
  const until = lastDay && lastDay < today ? lastDay : addDays(today, -1)
  const record =
    pots.length === 0 ? [] : await listWeather(db, garden, addDays(until, 1 - DAYS_OF_WATER), until)
  const forecast = await forecastFor(db, garden, today)
  const about: PotsAbout = {
    on: today,
    latitudeDeg: garden.latitude,
    year: usualYearAt(climate, garden.latitude),
    climate,
    record: withGauge(record, checks),
    forecast: forecast.ok ? forecast.days : [],
    schools: garden.schools,
    rules: rulesWith(await findRuleEdits(db, garden.id)).filter((r) => r.operation === 'feed'),
  }
  const isSimulated = (climate?.isSimulated ?? false) || (forecast.ok && forecast.isSimulated)
  return { pots, light, about, fills, checks, isSimulated }
}

/** Days of a record with the rain that a gauge in the garden has caught: it is nearer than the station. Of several of one day the latest counts. */
function withGauge(
  record: readonly DailyWeather[],
  checks: Awaited<ReturnType<typeof listPotChecks>>,
): readonly DailyWeather[] {
  const caught = new Map(
    checks.toReversed().flatMap((c) => (c.rainMm === null ? [] : [[c.on, c.rainMm] as const])),
  )
  return caught.size === 0 ? record : record.map((d) => ({ ...d, rainMm: caught.get(d.day) ?? d.rainMm }))
}

/** What was found at a container longer ago says nothing of it. */
const CHECKED_DAYS = 365
/** A rating of this season: looks of so many days. */
const RATED_DAYS = 120

/** What is on record of each container beside its light: its fills, what was found, ratings of what grows in it, and cuts that are due. */
async function knownOfPots(
  reader: GardenReader,
  fills: readonly Fill[],
  checks: Awaited<ReturnType<typeof listPotChecks>>,
): Promise<(id: string) => PotKnown> {
  const { today } = reader
  const seen = await reader.lastSeen()
  const inPot = group(await reader.plantings(), (p) => p.placeId)
  const isDueNow = (j: Job) =>
    j.state === 'open' && j.kind === 'cut back' && j.window.earliest <= today && today <= j.window.latest
  const cut = new Set((await reader.jobs()).filter(isDueNow).flatMap((j) => j.plantings.map((p) => p.id)))
  return (id) => {
    const plants = inPot.get(id) ?? []
    return {
      fills: fills.filter((f) => f.containerId === id).toReversed(),
      checks: checks.flatMap(({ containerId, on: day, ...check }): PotCheck[] =>
        containerId !== id
          ? []
          : check.kind === 'watered'
            ? [{ day, kind: 'watered' }]
            : check.kind === 'felt'
              ? [{ day, kind: 'felt', felt: check.felt! }]
              : check.kind === 'weighed'
                ? [{ day, kind: 'weighed', lighterKg: check.lighterKg! }]
                : [],
      ),
      tests: checks.flatMap(({ containerId, on: day, ...check }) =>
        containerId === id && check.kind === 'drained'
          ? {
              day,
              sampleLitres: check.sampleLitres!,
              filledLitres: check.filledLitres!,
              drainedLitres: check.drainedLitres!,
            }
          : [],
      ),
      ratings: plants.flatMap((p) => {
        const look = seen.get(p.id)
        return look && look.rating !== null && look.on >= addDays(today, -RATED_DAYS)
          ? [{ common: p.taxon.common, score: look.rating }]
          : []
      }),
      toCut: [...new Set(plants.filter((p) => cut.has(p.id)).map((p) => p.taxon.common))],
    }
  }
}

/** The containers that stand in a garden, judged, each with its fills. */
export const containersOf = (reader: GardenReader, pool: ComputePool): Promise<ContainersView> =>
  derive(reader, ['containers', [reader.today]], async () => {
    const { fills, checks, isSimulated, ...task } = await standingContainers(reader, pool)
    const stays = await listStaysInContainers(reader.db, reader.garden.id)
    const judged = await pool.run('containers', task)
    return {
      isSimulated,
      coldestC: task.about.climate?.meanAnnualMinimumC ?? null,
      coldNights: coldNights(
        task.pots.map((p) => ({ id: p.id, taxa: p.plantings.map((q) => q.taxon) })),
        task.about.forecast,
      ),
      pots: judged.map((pot, i): PotView => ({
        ...pot,
        light: task.light[i]!,
        fills: fills
          .filter((f) => f.containerId === pot.id)
          .map(({ containerId, ...fill }) => ({
            ...fill,
            plants: stays.flatMap(({ containerId: stoodIn, ...stay }) =>
              stoodIn === containerId && overlaps(stay, fill) ? [stay] : [],
            ),
          })),
        checks: checks.flatMap(({ containerId, ...check }) => (containerId === pot.id ? [check] : [])),
      })),
    }
  })

/** How the containers of a garden come through an absence, by the same days of the years on record. */
export const absenceFrom = (
  reader: GardenReader,
  pool: ComputePool,
  away: { from: string; to: string },
): Promise<AbsenceView> =>
  derive(reader, ['containers', [reader.today, away.from, away.to]], async () => {
    const { pots, light, about, isSimulated } = await standingContainers(reader, pool)
    return { isSimulated, ...(await pool.run('absence', { pots, light, about, away })) }
  })

/** The best spots for a container, and the containers that would do best where it stands. */
export const spotsOfPot = async (
  reader: GardenReader,
  pool: ComputePool,
  containerId: string,
): Promise<SpotsView> =>
  derive(reader, ['potSpots', [containerId, reader.today]], async () => {
    const { scene, places } = await reader.standing()
    const plantings = await reader.plantings()
    const pots = places.flatMap((p) =>
      p.kind === 'container'
        ? [
            {
              id: p.id,
              x: p.x,
              y: p.y,
              rimHeightM: p.rimHeightM,
              acrossM: p.acrossM,
              taxa: plantings.filter((q) => q.placeId === p.id).map((q) => q.taxon),
            },
          ]
        : [],
    )
    const pot = pots.find((p) => p.id === containerId)
    if (!pot) throw notFound('This container')
    const features = featuresOn(await reader.features(), reader.today)
    const others = pots.filter((p) => p !== pot)
    return pool.run('potSpots', { scene, features, pot, others, on: reader.today })
  })

/**
 * The beds that plants of containers would go to, were all of them planted out: by the optimum of a rework, so that no two are given the same
 * ground. @returns the place by the planting; none for what finds no room that suits it
 */
async function groundFor(
  reader: GardenReader,
  pool: ComputePool,
  leaving: readonly PlantingView[],
): Promise<Map<string, string>> {
  if (leaving.length === 0) return new Map()
  const { garden, ...task } = await relocationTask(
    reader,
    pool,
    leaving.map((p) => ({ plantingId: p.id, to: null, worth: 1 })),
  )
  const beds = garden.places.filter((p) => p.place.kind === 'bed')
  if (beds.length === 0) return new Map()
  const found = await pool.run('relocation', { ...task, garden: { ...garden, places: beds } })
  return new Map(
    found.ok
      ? found.went.flatMap(({ plantingId, destination }) =>
          destination.to === 'spot' ? [[plantingId, destination.placeId] as const] : [],
        )
      : [],
  )
}

/** Woody plants along the line of containers that the garden owns, season by season. */
export const lineOfPots = (reader: GardenReader, pool: ComputePool): Promise<LineView> =>
  derive(reader, ['line', [reader.today]], async () => {
    const { garden, today } = reader
    const south = garden.latitude < 0
    const { climate } = await reader.climate()
    const { places } = await reader.standing()
    const { pots } = await potsOfGarden(reader)
    const plantings = await reader.plantings()
    const seasons = lineSeasons(today, south)
    const depthOf = new Map(pots.map((p) => [p.id, vesselOf(p).depthM]))
    const plants = pots.flatMap((pot) => leadingWoody(plantings.filter((p) => p.placeId === pot.id)) ?? [])
    const inPots = new Set(pots.map((p) => p.id))
    const couldLive = (p: PlantingView) => climate && winterHere(p.taxon, climate, 'bed') !== 'tender'
    const lasting = plantings.filter((p) => inPots.has(p.placeId) && !isSeasonal(p.taxon) && couldLive(p))
    const outTo = await groundFor(reader, pool, lasting)
    const groundOf = (p: PlantingView) => places.find((at) => at.id === outTo.get(p.id))
    const found = await pool.run('line', {
      plants: plants.map(({ id, taxon, plantedOn, placeId }) => ({ id, taxon, plantedOn, potId: placeId })),
      pots: linePots(pots),
      seasons,
      on: today,
      south,
      suitGround: plants.filter((p) => groundOf(p) !== undefined).map((p) => p.id),
    })
    return {
      seasons,
      out: lasting.flatMap((p) => {
        const ground = groundOf(p)
        return ground
          ? [
              {
                plantingId: p.id,
                botanical: p.taxon.botanical,
                potId: p.placeId,
                placeId: ground.id,
                placeName: ground.name,
              },
            ]
          : []
      }),
      plants: plants.map((p, i) => {
        const ground = groundOf(p)
        return {
          plantingId: p.id,
          botanical: p.taxon.botanical,
          potId: p.placeId,
          fillOn: rootsFillOn(p.taxon, p.plantedOn, depthOf.get(p.placeId)!),
          ground: ground ? { placeId: ground.id, placeName: ground.name } : null,
          steps: found.plants[i]!.steps.map((step) => ({
            ...step,
            window: climate && windowOfStep(p.taxon, climate, step),
          })),
        }
      }),
    }
  })

/** The days of a window. */
const daysOf = ({ earliest, latest }: Pick<Window, 'earliest' | 'latest'>) => ({ from: earliest, to: latest })

/** What the rest of a garden has for a container: plants that look for other ground, and pieces of what is to be divided. */
export async function spareForPots(reader: GardenReader, pool: ComputePool): Promise<SpareView> {
  const { places } = await reader.standing()
  const { climate } = await reader.climate()
  const placeName = new Map(places.map((p) => [p.id, p.name]))
  const plantings = await reader.plantings()
  const toDivide = (await reader.jobs()).filter((j) => j.kind === 'divide' && j.state === 'open')
  return {
    plants: (await plantsElsewhere(reader, pool)).flatMap((p) => {
      const lifted = climate && moveWindows(p.taxon, climate, reader.today)
      if (lifted && !lifted.ok) return []
      return [
        {
          plantingId: p.id,
          tag: p.tag,
          botanical: p.taxon.botanical,
          count: p.livingCount,
          placeId: p.placeId,
          placeName: placeName.get(p.placeId)!,
          window: lifted ? daysOf(lifted.windows[0]!) : null,
        },
      ]
    }),
    divided: toDivide.flatMap(({ plantings: of, window }) =>
      of.flatMap(({ id }) => {
        const planting = plantings.find((p) => p.id === id)
        const pieces = planting ? plantingDivided(planting, reader.today).spare : 0
        return planting && pieces > 0
          ? [
              {
                plantingId: id,
                botanical: planting.taxon.botanical,
                pieces,
                window: daysOf(window),
              },
            ]
          : []
      }),
    ),
  }
}

/**
 * Notes what was done or found at a container.
 *
 * @throws {Refusal} for a day that is still to come, or on which it did not stand
 */
export async function checkContainer(
  db: Db,
  { gardenId, personId, today }: Pick<Filler, 'gardenId' | 'personId' | 'today'>,
  said: CheckRequest,
): Promise<{ id: string }> {
  if (said.on > today) throw new Refusal(422, 'What lies ahead cannot have been found yet.')
  await containerStanding(db, gardenId, said.containerId, said.on)
  return { id: await insertPotCheck(db, { gardenId, personId }, said) }
}

/**
 * The plan with the containers of a file: those that stand under its names put as it has them, the others new. One edit. Run inside a
 * transaction that holds the garden.
 *
 * @throws {Refusal} where two stand under one name, or a new one has no place
 */
export async function bringContainers(
  trx: Db,
  { gardenId, personId, today }: Pick<Filler, 'gardenId' | 'personId' | 'today'>,
  rows: readonly ContainerRow[],
): Promise<{ added: number; changed: number; editId: string | null }> {
  const standing = featuresOn(await listFeatures(trx, gardenId), today).filter((f) => f.kind === 'container')
  const byName = group(standing, (f) => f.name)
  const problems: FileProblem[] = []
  const parts = rows.flatMap((row) => {
    const [was, ...more] = byName.get(row.name) ?? []
    const feature = containerAs(row, was)
    const wrong = (column: string, message: string) =>
      problems.push({ file: 'containers.csv', line: row.line, column, message })
    if (more.length > 0) wrong('name', `${more.length + 1} containers stand here under this name`)
    if (!feature) wrong('x_m', 'where a new one stands is needed')
    if (!feature || (was && isDeepStrictEqual(feature, withoutId(was)))) return []
    return [{ id: was?.id ?? randomUUID(), isNew: was === undefined, feature: asFeature(feature) }]
  })
  if (problems.length > 0) throw fileRefusal(problems)
  const editId = await editPlan(
    trx,
    { gardenId, personId },
    {
      parts: parts.map(({ id, feature }) => ({ id, feature })),
      carried: [],
      rehomed: [],
      settled: [],
      withdrawn: [],
    },
  )
  const added = parts.filter((p) => p.isNew).length
  return { added, changed: parts.length - added, editId }
}

/** @throws {Refusal} where there is no such container, or it did not stand on that day */
async function containerStanding(db: Db, gardenId: string, id: string, on: string) {
  const container = await findFeature(db, gardenId, id)
  if (!container || container.kind !== 'container') throw notFound('This container')
  if ((container.from_date && on < container.from_date) || (container.to_date && container.to_date <= on))
    throw new Refusal(422, `${container.name} did not stand in the garden on that day.`)
  return container
}

const standsOn = ({ filledOn, emptiedOn }: Pick<Fill, 'filledOn' | 'emptiedOn'>, on: string): boolean =>
  filledOn <= on && (emptiedOn === null || on < emptiedOn)

const overlaps = (
  stay: { from: string; until: string | null },
  fill: Pick<Fill, 'filledOn' | 'emptiedOn'>,
): boolean =>
  (fill.emptiedOn === null || stay.from < fill.emptiedOn) &&
  (stay.until === null || fill.filledOn < stay.until)

interface Filler {
  gardenId: string
  practiceId: string
  personId: string
  today: string
}

/**
 * Fills a container anew: what stood in it before ends on that day, what comes out is struck off or waits on the bench, what goes in
 * stands in it from then on. One edit, so that it can be taken back as one. Run inside a transaction that holds the garden.
 *
 * @throws {Refusal} where the day is still to come or before the fill that stands, or somebody has filled it meanwhile
 */
export async function fillContainer(
  trx: Db,
  who: Filler,
  said: Required<Pick<FillRequest, 'out' | 'in'>> & FillRequest,
): Promise<{ editId: string; fillId: string; plantingIds: string[] }> {
  const { gardenId, personId, today } = who
  if (said.on > today) throw new Refusal(422, 'A fill is recorded on or after the day it is made.')
  const container = await containerStanding(trx, gardenId, said.containerId, said.on)
  const fills = (await listFills(trx, gardenId)).filter((f) => f.containerId === said.containerId)
  const before = fills[0] && fills[0].emptiedOn === null ? fills[0] : undefined
  if ((before?.id ?? null) !== said.replaces)
    throw new Refusal(409, `${container.name} has been filled by somebody else meanwhile: look at it again.`)
  const latest = fills[0] && maxDay(fills[0].filledOn, fills[0].emptiedOn ?? fills[0].filledOn)
  if (latest && (before ? said.on <= latest : said.on < latest))
    throw new Refusal(
      422,
      `What is in ${container.name} was filled on ${dayMonthYear(latest)}: say a later day.`,
    )
  const edit = openEdit(trx, { gardenId, personId, from: said.on })
  if (before)
    await edit.change('fills', before.id, {
      emptied_on: said.on,
      ended_by: said.endedBy ?? null,
      ended_note: said.endedNote || null,
    })
  const fillId = randomUUID()
  await edit.insert('fills', {
    id: fillId,
    garden_id: gardenId,
    container_id: said.containerId,
    name: said.name,
    season: said.season,
    filled_on: said.on,
    mix: said.mix,
    renewed: said.renewed,
    note: said.note || null,
    person_id: personId,
  })
  for (const out of said.out) {
    const [planting] = await listPlantings(trx, gardenId, said.on, out.plantingId)
    if (planting?.placeId !== said.containerId)
      throw new Refusal(409, `What was to come out does not stand in ${container.name} on that day.`)
    await takeOut(trx, who, edit, planting, { on: said.on, to: out.to })
  }
  const free = nextTags(await listTags(trx, gardenId), said.in.length)
  const [x, y] = container.geometry.coordinates as [number, number]
  const plantingIds: string[] = []
  for (const [i, { liftedId, ...plant }] of said.in.entries()) {
    const benchId = liftedId ? await liftFor(trx, who, edit, { ...said, liftedId, ...plant }) : plant.benchId
    plantingIds.push(
      await enterPlanting(trx, who, edit, {
        ...plant,
        ...(benchId && { benchId }),
        tag: plant.tag ?? free[i]!,
        placeId: said.containerId,
        plantedOn: said.on,
        x,
        y,
      }),
    )
  }
  return { editId: (await edit.save())!, fillId, plantingIds }
}

/** Takes all of a planting out as part of an edit. @returns under what it waits on the bench; undefined of what is composted */
async function takeOut(
  trx: Db,
  { gardenId, personId }: Pick<Filler, 'gardenId' | 'personId'>,
  edit: OpenEdit,
  planting: PlantingView,
  { on, to }: { on: string; to: 'bench' | 'compost' },
): Promise<string | undefined> {
  const toBench = to === 'bench'
  await edit.insert('planting_events', {
    id: randomUUID(),
    garden_id: gardenId,
    planting_id: planting.id,
    on_date: on,
    kind: 'counted',
    living: 0,
    facts: JSON.stringify({ of: planting.livingCount, ...(toBench ? { toBench } : { takenOut: true }) }),
    person_id: personId,
  })
  if (!toBench) return undefined
  const { taxon_id: taxonId } = await trx('plantings').where({ id: planting.id }).first('taxon_id')
  const benchId = randomUUID()
  await edit.insert('bench', {
    id: benchId,
    garden_id: gardenId,
    person_id: personId,
    taxon_id: taxonId,
    count: planting.livingCount,
    since: on,
    from_planting_id: planting.id,
  })
  return benchId
}

/**
 * Lifts a planting elsewhere in the garden for a container. @returns under what it waits on the bench until it is planted
 * @throws {Refusal} where it does not stand elsewhere on that day, is of another kind, or fewer live of it
 */
async function liftFor(
  trx: Db,
  who: Filler,
  edit: OpenEdit,
  said: { on: string; containerId: string; liftedId: string; taxonBotanical: string; count: number },
): Promise<string | undefined> {
  const [planting] = await listPlantings(trx, who.gardenId, said.on, said.liftedId)
  if (!planting || planting.livingCount === 0 || planting.placeId === said.containerId)
    throw new Refusal(409, 'What was to be lifted for it does not stand elsewhere in the garden on that day.')
  if (planting.taxon.botanical !== said.taxonBotanical)
    throw new Refusal(
      409,
      `Under ${planting.tag} grows ${planting.taxon.botanical}, not ${said.taxonBotanical}.`,
    )
  if (planting.livingCount < said.count)
    throw new Refusal(409, `Only ${planting.livingCount} live of ${planting.tag}: lift no more than that.`)
  return takeOut(trx, who, edit, planting, { on: said.on, to: 'bench' })
}
