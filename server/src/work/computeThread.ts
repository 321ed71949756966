import type { MessagePort } from 'node:worker_threads'
import * as worker from './computeWorker.ts'

/** What a thread is asked: a function of `computeWorker`, what it is given, and whom it tells that it is at it. */
export interface Asked {
  name: keyof typeof worker
  task: unknown
  begun: MessagePort
}

/** The one thing a thread does: it says that it is at a task, and does it. */
export function work({ name, task, begun }: Asked): unknown {
  begun.postMessage(null)
  return (worker[name] as (task: unknown) => unknown)(task)
}
