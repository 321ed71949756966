import { register } from 'tsx/esm/api'

/** The compute thread when the server runs from source: a thread does not inherit the loader that reads TypeScript. */
register()
export const {
  light,
  judge,
  ahead,
  scenarios,
  explain,
  record,
  bloom,
  diagnose,
  plan,
  planTelling,
  why,
  care,
  successions,
} = await import('./computeWorker.ts')
