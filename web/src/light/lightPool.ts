import { wrap, type Remote } from 'comlink'
import type { LightWorker } from './lightWorker.ts'

interface Pooled {
  worker: Worker
  remote: Remote<LightWorker>
  /** Never kept; broken when the worker itself fails, of which a call would otherwise hear nothing. */
  broken: Promise<never>
}

const made = new Map<string, Pooled>()

function make(): Pooled {
  const worker = new Worker(new URL('./lightWorker.ts', import.meta.url), { type: 'module' })
  const broken = new Promise<never>((_, reject) => {
    const fail = (e: Event) => reject(new Error((e as ErrorEvent).message || 'The light’s worker failed'))
    worker.addEventListener('error', fail)
    worker.addEventListener('messageerror', fail)
  })
  // Nobody may be waiting when it breaks.
  broken.catch(() => {})
  return { worker, remote: wrap<LightWorker>(worker), broken }
}

/**
 * Asks a worker for light by what it is for: fields, one obstruction's what-ifs, or what is worth measuring. It is made when first needed and kept warm;
 * one that fails is ended, and the next to ask gets another.
 */
export async function askLight<T>(
  use: 'fields' | 'suppositions' | 'worth',
  ask: (worker: Remote<LightWorker>) => Promise<T>,
): Promise<T> {
  const pooled = made.get(use) ?? make()
  made.set(use, pooled)
  try {
    return await Promise.race([ask(pooled.remote), pooled.broken])
  } catch (error) {
    if (made.get(use) === pooled) made.delete(use)
    pooled.worker.terminate()
    throw error
  }
}
