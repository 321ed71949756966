import { DEVICE_CLOCK } from '@border/contract'
import { gardenDay, type IsoDate } from '@border/core'
import type { Request, RequestHandler, Response } from 'express'

/** What a device noted, by a clock of its own. */
export interface Noted {
  /** The day it is of: the device's own today, or one that a person chose. */
  on: IsoDate
  at?: string | undefined
  /** How far it took the server's clock to be ahead of its own as it told its today, milliseconds. */
  serverAheadMs?: number | undefined
}

/** The same by the true clock. */
export type TrulyNoted<N extends Noted> = N & {
  /** What the device's clock said, where that was something else; UTC. */
  deviceAt: string | null
}

/** Where a garden stands in time. */
interface GardenTime {
  standsAt: IsoDate | null
  timeZone: string
  nowMs: number
}

/** Clocks this near are taken to agree: it takes a while from one to the other. */
const AGREE_MS = 5 * 60_000

/**
 * What was noted by a device's clock, by the server's. A device tells what its clock says as it sends: how far it is ahead then, it
 * is taken to have been as it noted. Nothing was noted later than now, whatever became of that clock meanwhile. What was of the
 * device's today is of the day that truly was; a day that a person chose stays.
 *
 * @param deviceAheadMs how far the device's clock was ahead as it sent; 0 where it did not say
 */
export function byTrueClock<N extends Noted>(
  noted: N,
  deviceAheadMs: number,
  { standsAt, timeZone, nowMs }: GardenTime,
): TrulyNoted<N> {
  if (noted.at === undefined) return { ...noted, deviceAt: null }
  const deviceMs = Date.parse(noted.at)
  const trueMs = Math.min(deviceMs - deviceAheadMs, nowMs)
  const agrees = Math.abs(trueMs - deviceMs) <= AGREE_MS
  const dayAt = (ms: number) => gardenDay(standsAt, timeZone, ms)
  const wasToday = noted.on === dayAt(deviceMs + (noted.serverAheadMs ?? 0))
  return {
    ...noted,
    on: wasToday ? dayAt(agrees ? deviceMs : trueMs) : noted.on,
    at: agrees ? noted.at : new Date(trueMs).toISOString(),
    deviceAt: agrees ? null : noted.at,
  }
}

/** Remembers when a question came: its body may be long under way. */
export const rememberArrival =
  (now: () => number): RequestHandler =>
  (_req, res, next) => {
    res.locals.cameMs = now()
    next()
  }

/** How far the clock of whoever asks is ahead of the server's, milliseconds; 0 where it was not said. */
export function deviceAheadMs(req: Request, res: Response): number {
  const says = Date.parse(req.get(DEVICE_CLOCK) ?? '')
  return Number.isFinite(says) ? says - (res.locals.cameMs as number) : 0
}
