import type { GardenView, SaidScheme } from '@border/contract'
import { randomUUID } from 'node:crypto'
import { look, write } from './asked.ts'
import type { TestPractice } from './practice.ts'

/** A scheme of which little is said yet. */
export const saidOf = (more: Partial<SaidScheme> = {}): SaidScheme => ({
  name: 'A quiet one',
  leaving: [],
  wishes: { tallestM: 2, kinds: { least: 4, most: 9 }, drifts: 'odd' },
  drifts: [],
  between: [],
  viewedFrom: null,
  seenFromM: null,
  baseLine: null,
  compostM: 0.04,
  mulchM: 0.05,
  spareShare: 0.05,
  hourPrice: null,
  ...more,
})

/** A rework of a place with one scheme, as it is sent. */
export const beginning = (placeId: string, more: Partial<SaidScheme> = {}) => ({
  id: randomUUID(),
  placeId,
  schemes: [{ id: randomUUID(), said: saidOf(more) }],
})

/** A scheme that somebody may look at by a link up to a day. @returns the secret of the link */
export async function sharedScheme(practice: TestPractice, until: string): Promise<string> {
  const { plantings } = await look<GardenView>(practice, '')
  const rework = beginning(plantings[0]!.placeId)
  await write(practice, '/reworks', rework)
  const path = `/reworks/${rework.id}/schemes/${rework.schemes[0]!.id}/link`
  const { token } = await write<{ token: string }>(practice, path, { until })
  return token
}
