import { register } from 'tsx/esm/api'

/** The compute thread when the server runs from source: a thread does not inherit the loader that reads TypeScript. */
register()
export const { light, judge } = await import('./computeWorker.ts')
