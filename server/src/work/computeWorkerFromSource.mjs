import { register } from 'tsx/esm/api'

/** The compute thread when the server runs from source: a thread does not inherit the loader that reads TypeScript. */
register()
export const {
  light,
  spots,
  judge,
  ahead,
  whatIfs,
  explain,
  record,
  bloom,
  diagnose,
  schedule,
  scheduleTelling,
  why,
  care,
  successions,
} = await import('./computeWorker.ts')
