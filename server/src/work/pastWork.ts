import type { pastWorkRequest } from '@border/contract'
import { dayMonthYear, isAlive, isPlace, titleOf, type IsoDate } from '@border/core'
import type { z } from 'zod'
import { notFound, Refusal } from '../errors.ts'
import type { GardenReader } from '../reader.ts'
import { insertPastJob, type Job } from '../store/jobs.ts'
import { findPlanting } from '../store/plantings.ts'
import { requireDone } from './recordDone.ts'

/**
 * Writes down work that was done before, where nothing had asked for it. Run inside a transaction that holds the garden.
 *
 * @throws {Refusal} where it lies ahead, before what it was done to was there, or is on the season's list: it is recorded there
 */
export async function recordPastWork(
  reader: GardenReader,
  personId: string,
  work: z.output<typeof pastWorkRequest>,
): Promise<void> {
  const { db, garden, today } = reader
  const { on, operation } = work
  requireDone(on, today)
  const place = (await reader.features()).find((f) => f.id === work.placeId)
  if (!place || !isPlace(place)) throw notFound('This place')
  if (!isAlive(place, on)) throw new Refusal(422, `${place.name} was not there on ${dayMonthYear(on)}.`)
  const ids = [...new Set(work.plantingIds)]
  const plantings = await Promise.all(ids.map((id) => findPlanting(db, garden.id, id)))
  const found = plantings.map((p) => {
    if (!p) throw notFound('One of the plantings')
    // Of a day nobody knows, any may be right.
    if (p.plantedKnown === 'day' && on < p.plantedOn)
      throw new Refusal(422, `${p.tag} was planted on ${dayMonthYear(p.plantedOn)}, after this day.`)
    return p
  })
  const open = (await reader.jobs()).find((j) => isTheSame(j, work.placeId, ids, operation, on))
  if (open)
    throw new Refusal(
      409,
      `“${open.title}” is on the season’s list for those days: record it done there, and it is not asked for again.`,
    )
  await insertPastJob(
    db,
    { gardenId: garden.id, personId },
    {
      id: work.id,
      operation,
      title: titleOf({ operation }, [place], found),
      placeId: work.placeId,
      plantingIds: ids,
      done: {
        on,
        minutes: work.minutes ?? null,
        lived: null,
        used: null,
        note: work.note || null,
        deviceAt: null,
      },
    },
  )
}

/** An open job that what was done is the doing of. */
const isTheSame = (
  j: Job,
  placeId: string,
  ids: readonly string[],
  operation: string,
  on: IsoDate,
): boolean =>
  j.state === 'open' &&
  j.kind === operation &&
  j.window.earliest <= on &&
  on <= j.window.latest &&
  (ids.length > 0
    ? j.plantings.some((p) => ids.includes(p.id))
    : j.plantings.length === 0 && j.placeId === placeId)
