import { availableParallelism } from 'node:os'
import { MessageChannel, type Transferable } from 'node:worker_threads'
import { Piscina } from 'piscina'
import { Refusal } from '../errors.ts'
import { behalfNow, Turns } from '../turns.ts'
import type { ThreadOptions } from './computeTasks.ts'
import type { Asked } from './computeThread.ts'
import type * as worker from './computeWorker.ts'

type Work = typeof worker

/** What a thread can be asked for, by the name of its function, and gives back. */
type Answer<Name extends keyof Work> = Awaited<ReturnType<Work[Name]>>

/**
 * The most that one task may take of a thread, milliseconds, from when the thread is at it; to be at it, a thread that has to begin
 * first has as long as a task has at most. A whole season is planned in the background, by a search.
 */
const MOST_MS = 60_000
const MOST_MS_OF: Partial<Record<keyof Work, number>> = { scheduleTelling: 15 * 60_000 }

/** Of one person's tasks so many may wait: a screen asks for a handful. */
const MOST_WAITING = 60

/** Threads that compute. */
export type ComputeThreads = Piscina

/**
 * Threads begin when they are first needed and stay: a new one takes several times as long over its first task. From source the
 * worker is TypeScript; built, it lies beside the server.
 *
 * @param most that there are at once
 * @param inBackground that give way to all others: nobody waits for what they work out
 */
export function computeThreads(
  most: number = Math.max(3, availableParallelism()),
  inBackground = false,
): ComputeThreads {
  const file = import.meta.url.endsWith('.ts') ? './computeThreadFromSource.mjs' : './computeThread.js'
  return new Piscina({
    filename: new URL(file, import.meta.url).href,
    minThreads: 0,
    maxThreads: most,
    idleTimeout: Infinity,
    execArgv: [],
    workerData: { inBackground } satisfies ThreadOptions,
  })
}

/**
 * Threads for heavy computation, shared out between gardens and people: turns are taken on behalf of whoever asks. What one garden
 * asks for takes one thread less at most, so that others never wait behind it. A thread whose task takes longer than it may is
 * ended, and another begun.
 */
export class ComputePool {
  private readonly turns: Turns
  private readonly underWay = new Set<AbortController>()

  /** @param mostMs that a task may take from when a thread is at it, in place of what each may */
  constructor(
    private readonly threads: ComputeThreads,
    private readonly mostMs?: number,
  ) {
    const slots = threads.options.maxThreads
    this.turns = new Turns({
      slots,
      slotsOfOne: Math.max(1, slots - 1),
      mostWaiting: MOST_WAITING,
      tooMany: 'More is being worked out for you than can be at once. Try again in a moment.',
    })
  }

  /** Asks a thread, when it is the turn of whoever asks; given up where nobody waits for it any more. */
  run<Name extends keyof Work>(
    name: Name,
    task: Parameters<Work[Name]>[0],
    transferList: Transferable[] = [],
  ): Promise<Answer<Name>> {
    return this.turns.take(async () => {
      const limit = new AbortController()
      const giveUpAfter = (ms: number) => setTimeout(() => limit.abort(), ms)
      let timer = giveUpAfter(MOST_MS)
      const { port1: begun, port2: tellsBegun } = new MessageChannel()
      begun.once('message', () => {
        clearTimeout(timer)
        timer = giveUpAfter(this.mostMs ?? MOST_MS_OF[name] ?? MOST_MS)
      })
      const { signal } = behalfNow()
      const closing = new AbortController()
      const ends = [limit.signal, closing.signal, ...(signal ? [signal] : [])]
      this.underWay.add(closing)
      try {
        const asked: Asked = { name, task, begun: tellsBegun }
        return await this.threads.run(asked, {
          name: 'work',
          signal: AbortSignal.any(ends),
          transferList: [...transferList, tellsBegun],
        })
      } catch (error) {
        if (!limit.signal.aborted || signal?.aborted) throw error
        throw new Refusal(
          503,
          'This takes longer to work out than it may, and was given up. Nothing else is touched by it.',
          undefined,
          GIVEN_UP_AGAIN_S,
        )
      } finally {
        clearTimeout(timer)
        begun.close()
        this.underWay.delete(closing)
      }
    })
  }

  /** What it is asked for, and has not answered, is given up; the threads stay whose they are. */
  close(): void {
    for (const task of this.underWay) task.abort()
  }
}

/** Seconds after which it is worth asking again for what took too long. */
const GIVEN_UP_AGAIN_S = 60
