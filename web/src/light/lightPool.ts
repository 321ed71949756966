import { wrap, type Remote } from 'comlink'
import type { LightWorker } from './lightWorker.ts'

/** Workers for light, made when first needed and kept warm; one core is left to the page. */
const SIZE = Math.max(1, Math.min(3, navigator.hardwareConcurrency - 1))
const workers: Remote<LightWorker>[] = []
let next = 0

export function lightWorker(): Remote<LightWorker> {
  if (workers.length < SIZE)
    workers.push(
      wrap<LightWorker>(new Worker(new URL('./lightWorker.ts', import.meta.url), { type: 'module' })),
    )
  return workers[next++ % workers.length]!
}

export const poolSize = SIZE
