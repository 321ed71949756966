import { arrange, type Arrangement, type BedGround } from '@border/core'
import { expose } from 'comlink'

const worker = {
  /** Lays drifts out. @param tell how far it has come, 0 to 1 */
  arrange(ground: BedGround, arranged: Arrangement, seed: number, tell: (done: number) => void): Arrangement {
    const run = arrange(ground, arranged, seed)
    for (;;) {
      const step = run.next()
      if (step.done) return step.value
      tell(step.value)
    }
  },
}
export type LayoutWorker = typeof worker

expose(worker)
