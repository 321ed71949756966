import { randomUUID } from 'node:crypto'

/** Bodies of edits of one thing, as most tests make them. */

/** A part of the plan put on it, or put otherwise where the id is one that is there. */
export const drawing = ({ feature }: { feature: unknown }, id: string = randomUUID()) => ({
  parts: [{ id, feature }],
})
export const takingOff = (id: string) => ({ parts: [{ id, feature: null }] })
export const entering = (planting: object) => ({ plantings: [planting] })
export const amending = (plantingId: string, more: object) => ({ plantings: [{ plantingId, ...more }] })
