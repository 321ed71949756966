import { wrap, type Remote } from 'comlink'

interface Pooled<W> {
  worker: Worker
  remote: Remote<W>
  /** Never kept; broken when the worker itself fails, of which a call would otherwise hear nothing. */
  broken: Promise<never>
}

/**
 * Workers by what they are for. Each is made when it is first needed and kept warm; one that fails is ended, and the next to ask gets
 * another.
 *
 * @param failed said where one fails without a word
 * @returns asks the worker of a use
 */
export function workers<W, Use extends string>(make: () => Worker, failed: string) {
  const made = new Map<Use, Pooled<W>>()
  const begin = (): Pooled<W> => {
    const worker = make()
    const broken = new Promise<never>((_, reject) => {
      const fail = (e: Event) => reject(new Error((e as ErrorEvent).message || failed))
      worker.addEventListener('error', fail)
      worker.addEventListener('messageerror', fail)
    })
    // Nobody may be waiting when it breaks.
    broken.catch(() => {})
    return { worker, remote: wrap<W>(worker), broken }
  }
  return async <T>(use: Use, ask: (worker: Remote<W>) => Promise<T>): Promise<T> => {
    const pooled = made.get(use) ?? begin()
    made.set(use, pooled)
    try {
      return await Promise.race([ask(pooled.remote), pooled.broken])
    } catch (error) {
      if (made.get(use) === pooled) made.delete(use)
      pooled.worker.terminate()
      throw error
    }
  }
}
