import type { Db } from './database/connect.ts'
import { entails } from './derived.ts'
import { queueRun } from './store/runs.ts'
import { raisedHere } from './store/versions.ts'
import { workOut, type Workshop } from './work/runs.ts'

/** Hands a run to the queue, so that another process takes it should this one be lost. */
export type Enqueue = (trx: Db, runId: string, afterSeconds: number) => Promise<void>

/** A run is taken up by the queue only after whoever asked for it has had so long. */
const FALL_BACK_SECONDS = 15
/** What may come a little later comes once for all that changes within so long. */
const SOON_SECONDS = 20

/**
 * Asks for what the changes of a transaction entail, in it, so that neither is ever kept without the other.
 *
 * @returns runs that must be worked out before whoever made the change is answered
 */
export async function askWhatFollows(
  trx: Db,
  enqueue: Enqueue,
  by: { gardenId: string | null; personId: string },
): Promise<string[]> {
  const soonest = new Map<string, 'now' | 'soon'>()
  for (const { crewId, aspects } of await raisedHere(trx))
    for (const aspect of aspects) {
      const entailed = entails[aspect]
      if (entailed && soonest.get(crewId) !== 'now') soonest.set(crewId, entailed.when)
    }
  const now: string[] = []
  for (const [crewId, when] of soonest) {
    const runId = await queueRun(trx, { kind: 'follow', crewId, ...by })
    await enqueue(trx, runId, when === 'now' ? FALL_BACK_SECONDS : SOON_SECONDS)
    if (when === 'now') now.push(runId)
  }
  return now
}

/**
 * Works out what a change has asked for. What goes wrong is told and left to the queue: the change itself is kept, and whoever made
 * it is not told otherwise.
 */
export async function followUp(shop: Workshop, runIds: readonly string[]): Promise<void> {
  for (const id of runIds)
    await workOut(shop, id).catch((err: unknown) =>
      shop.log?.error({ err, runId: id }, 'what a change entails'),
    )
}
