import { availableParallelism } from 'node:os'
import type { Transferable } from 'node:worker_threads'
import { Piscina } from 'piscina'
import type * as worker from './computeWorker.ts'

type Work = typeof worker

/** What a thread can be asked for, by the name of its function, and gives back. */
type Answer<Name extends keyof Work> = Awaited<ReturnType<Work[Name]>>

interface How {
  /** Whoever asked has gone away: it is not worked out. */
  signal?: AbortSignal | undefined
  transferList?: Transferable[]
}

/** Asks a thread of the pool. */
export const compute = <Name extends keyof Work>(
  pool: Piscina,
  name: Name,
  task: Parameters<Work[Name]>[0],
  { signal, transferList }: How = {},
): Promise<Answer<Name>> => pool.run(task, { name, signal, ...(transferList && { transferList }) })

/**
 * Threads for heavy computation. From source the worker is TypeScript; built, it lies beside the server. They stay: a new one takes
 * several times as long over its first task.
 *
 * @param threads two at least for what a person waits for, so that it can be shared out
 */
export function computePool(threads = Math.max(2, availableParallelism() - 1)): Piscina {
  const file = import.meta.url.endsWith('.ts') ? './computeWorkerFromSource.mjs' : './computeWorker.js'
  return new Piscina({
    filename: new URL(file, import.meta.url).href,
    minThreads: threads,
    maxThreads: threads,
    execArgv: [],
  })
}
