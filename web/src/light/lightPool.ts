import { workers } from '../frame/workers.ts'
import type { LightWorker } from './lightWorker.ts'

/** Asks a worker for light by what it is for: fields, one obstruction's what-ifs, or what is worth measuring. */
export const askLight = workers<LightWorker, 'fields' | 'suppositions' | 'worth'>(
  () => new Worker(new URL('./lightWorker.ts', import.meta.url), { type: 'module' }),
  'The light’s worker failed',
)
