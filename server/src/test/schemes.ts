import type { SaidScheme } from '@border/contract'
import { randomUUID } from 'node:crypto'

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
