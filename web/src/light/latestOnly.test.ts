import { expect, it } from 'vitest'
import { latestOnly } from './latestOnly.ts'

const settled = () => new Promise((resolve) => setTimeout(resolve, 0))

/** Work that ends when it is told to. */
function byHand() {
  const under: { asked: number; end: (result: string) => void; fail: (e: Error) => void }[] = []
  const done: string[] = []
  const failed: string[] = []
  const ask = latestOnly<number, string>(
    (asked) => new Promise((end, fail) => under.push({ asked, end, fail })),
    { done: (r) => done.push(r), failed: (e) => failed.push((e as Error).message) },
  )
  return { ask, under, done, failed }
}

it('does one at a time, and of what is asked meanwhile only the latest', async () => {
  const { ask, under, done } = byHand()
  for (const n of [1, 2, 3, 4]) ask(n)
  expect(under.map((u) => u.asked)).toEqual([1])
  under[0]!.end('one')
  await settled()
  expect(under.map((u) => u.asked)).toEqual([1, 4])
  under[1]!.end('four')
  await settled()
  expect(done).toEqual(['one', 'four'])
})

it('goes on after a failure: what is asked next is worked out', async () => {
  const { ask, under, done, failed } = byHand()
  ask(1)
  ask(2)
  under[0]!.fail(new Error('the worker is gone'))
  await settled()
  under[1]!.end('two')
  await settled()
  ask(3)
  under[2]!.end('three')
  await settled()
  expect(failed).toEqual(['the worker is gone'])
  expect(done).toEqual(['two', 'three'])
})
