import { register } from 'tsx/esm/api'

/** The compute thread when the server runs from source: a thread does not inherit the loader that reads TypeScript. */
register()
export const { light, judge, ahead, scenarios, explain, record, bloom, diagnose } =
  await import('./computeWorker.ts')
