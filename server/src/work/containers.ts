import type { AbsenceView, ContainersView, FillRequest, PotView } from '@border/contract'
import {
  addDays,
  coldNights,
  DAYS_OF_WATER,
  dayMonthYear,
  maxDay,
  nextTags,
  potsStanding,
  usualYearAt,
  type PotsAbout,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { derive } from '../derived.ts'
import { notFound, Refusal } from '../errors.ts'
import type { GardenReader } from '../reader.ts'
import { openEdit } from '../store/edits.ts'
import { listFills, listStaysInContainers, type Fill } from '../store/fills.ts'
import { findFeature } from '../store/gardens.ts'
import { listPlantings, listTags } from '../store/plantings.ts'
import { forecastFor, listWeather } from '../store/weather.ts'
import type { ComputePool } from './compute.ts'
import { enterPlanting } from './editPlantings.ts'

/** The containers that stand in a garden as they are worked with, and what they are judged by. */
async function standingContainers(reader: GardenReader) {
  const { db, garden, today } = reader
  const { scene, places } = await reader.standing()
  const fills = await listFills(db, garden.id)
  const pots = potsStanding(
    { places, features: await reader.features(), plantings: await reader.plantings() },
    ({ id }) => fills.find((f) => f.containerId === id && standsOn(f, today)),
    { on: today, south: garden.latitude < 0 },
  )
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
    record,
    forecast: forecast.ok ? forecast.days : [],
  }
  const isSimulated = (climate?.isSimulated ?? false) || (forecast.ok && forecast.isSimulated)
  return { scene, pots, about, fills, isSimulated }
}

/** The containers that stand in a garden, judged, each with its fills. */
export const containersOf = (reader: GardenReader, pool: ComputePool): Promise<ContainersView> =>
  derive(reader, ['containers', [reader.today]], async () => {
    const { fills, isSimulated, ...task } = await standingContainers(reader)
    const stays = await listStaysInContainers(reader.db, reader.garden.id)
    const judged = await pool.run('containers', task)
    return {
      isSimulated,
      coldestC: task.about.climate?.meanAnnualMinimumC ?? null,
      coldNights: coldNights(
        task.pots.map((p) => ({ id: p.id, taxa: p.plantings.map((q) => q.taxon) })),
        task.about.forecast,
      ),
      pots: judged.map((pot): PotView => ({
        ...pot,
        fills: fills
          .filter((f) => f.containerId === pot.id)
          .map(({ containerId, ...fill }) => ({
            ...fill,
            plants: stays.flatMap(({ containerId: stoodIn, ...stay }) =>
              stoodIn === containerId && overlaps(stay, fill) ? [stay] : [],
            ),
          })),
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
    const { scene, pots, about, isSimulated } = await standingContainers(reader)
    return { isSimulated, ...(await pool.run('absence', { scene, pots, about, away })) }
  })

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
  const container = await findFeature(trx, gardenId, said.containerId)
  if (!container || container.kind !== 'container') throw notFound('This container')
  if (
    (container.from_date && said.on < container.from_date) ||
    (container.to_date && container.to_date <= said.on)
  )
    throw new Refusal(422, `${container.name} did not stand in the garden on that day.`)
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
    const toBench = out.to === 'bench'
    await edit.insert('planting_events', {
      id: randomUUID(),
      garden_id: gardenId,
      planting_id: planting.id,
      on_date: said.on,
      kind: 'counted',
      living: 0,
      facts: JSON.stringify({ of: planting.livingCount, ...(toBench ? { toBench } : { takenOut: true }) }),
      person_id: personId,
    })
    if (!toBench) continue
    const { taxon_id: taxonId } = await trx('plantings').where({ id: planting.id }).first('taxon_id')
    await edit.insert('bench', {
      id: randomUUID(),
      garden_id: gardenId,
      person_id: personId,
      taxon_id: taxonId,
      count: planting.livingCount,
      since: said.on,
      from_planting_id: planting.id,
    })
  }
  const free = nextTags(await listTags(trx, gardenId), said.in.length)
  const [x, y] = container.geometry.coordinates as [number, number]
  const plantingIds: string[] = []
  for (const [i, plant] of said.in.entries())
    plantingIds.push(
      await enterPlanting(trx, who, edit, {
        ...plant,
        tag: plant.tag ?? free[i]!,
        placeId: said.containerId,
        plantedOn: said.on,
        x,
        y,
      }),
    )
  return { editId: (await edit.save())!, fillId, plantingIds }
}
