import { wrap, type Remote } from 'comlink'
import type { LightWorker } from './lightWorker.ts'

const made = new Map<string, Remote<LightWorker>>()

/** A worker for light by what it is for, made when first needed and kept warm: fields, and one obstruction's trials. */
export function lightWorker(use: 'fields' | 'trials'): Remote<LightWorker> {
  const worker =
    made.get(use) ??
    wrap<LightWorker>(new Worker(new URL('./lightWorker.ts', import.meta.url), { type: 'module' }))
  made.set(use, worker)
  return worker
}
