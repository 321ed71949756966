import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import * as worker from './computeWorker.ts'

it('a thread run from source answers to every name that the built one answers to', () => {
  const text = readFileSync(join(import.meta.dirname, 'computeWorkerFromSource.mjs'), 'utf8')
  const names = /export const \{([^}]*)\}/.exec(text)![1]!.match(/\w+/g)!
  expect(names.toSorted()).toEqual(Object.keys(worker).toSorted())
})
