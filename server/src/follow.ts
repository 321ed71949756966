import { changedAspects, type Versions } from '@border/contract'
import type { Db } from './database/connect.ts'
import { entails } from './derived.ts'
import { queueRun } from './store/runs.ts'
import { versionsOfPractice } from './store/versions.ts'
import { workOut, type Workshop } from './work/runs.ts'

/** Hands a run to the queue, so that another process takes it should this one be lost. */
export type Enqueue = (trx: Db, runId: string, afterSeconds: number) => Promise<void>

/** A run is taken up by the queue only after whoever asked for it has had so long. */
const FALL_BACK_SECONDS = 15
/** What may come a little later comes once for all that changes within so long. */
const SOON_SECONDS = 20

/**
 * What a change of a practice's gardens entails. The change is made between this and `asked`; what must follow is asked for in
 * its transaction, so that neither is ever kept without the other, and worked out after it.
 */
export async function watchChanges(
  trx: Db,
  practiceId: string,
  enqueue: Enqueue,
): Promise<{ asked: (by: { gardenId: string | null; personId: string }) => Promise<string[]> }> {
  const before = new Map<string, Versions>(
    (await versionsOfPractice(trx, practiceId)).map((v) => [v.gardenId, v]),
  )
  return {
    asked: async (by) => {
      const soonest = new Map<string, 'now' | 'soon'>()
      for (const after of await versionsOfPractice(trx, practiceId))
        for (const aspect of changedAspects(before.get(after.gardenId), after)) {
          const entailed = entails[aspect]
          if (entailed && soonest.get(after.crewId) !== 'now') soonest.set(after.crewId, entailed.when)
        }
      const now: string[] = []
      for (const [crewId, when] of soonest) {
        const runId = await queueRun(trx, { kind: 'follow', crewId, ...by })
        await enqueue(trx, runId, when === 'now' ? FALL_BACK_SECONDS : SOON_SECONDS)
        if (when === 'now') now.push(runId)
      }
      return now
    },
  }
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
