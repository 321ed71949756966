import { USUAL_YEAR } from '@border/core'
import { afterAll, expect, it } from 'vitest'
import { ComputePool, computeThreads } from './compute.ts'

const threads = computeThreads(1)
afterAll(() => threads.destroy())

const nothing = { plantings: [], table: [], year: USUAL_YEAR }

it('what a task may take counts from when a thread is at it, not while the thread begins', async () => {
  const begins = performance.now()
  await new ComputePool(threads, 100).run('diagnose', nothing)
  // It has to have begun more slowly than the task may take, or this would tell nothing.
  expect(performance.now() - begins).toBeGreaterThan(100)
})
