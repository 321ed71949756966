import type { Response } from 'express'

/** Aborts when the one who asked has hung up before the answer. */
export function goneAway(res: Response): AbortSignal {
  const controller = new AbortController()
  res.once('close', () => {
    if (!res.writableFinished) controller.abort()
  })
  return controller.signal
}
