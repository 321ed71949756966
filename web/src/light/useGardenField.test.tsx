// @vitest-environment happy-dom
import type { GardenField, LightPeriod, LitPlace, Scene } from '@border/core'
import { act, renderHook } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import { useGardenField, type FieldWork } from './useGardenField.ts'

/** What was asked for, oldest first, each to be answered when a test says so. */
const asked: { on: LightPeriod; cellM: number; answer: () => Promise<void> }[] = []
const work: FieldWork = (_scene, _places, on, cellM) =>
  new Promise((resolve) => {
    asked.push({ on, cellM, answer: () => act(async () => resolve(fieldOf(on, cellM))) })
  })
const fieldOf = (on: LightPeriod, cellM: number) => ({ on, cellM }) as unknown as GardenField
const shownIn = (field: GardenField | undefined) =>
  field as unknown as { on: LightPeriod; cellM: number } | undefined

let nth = 0
/** Days that no test has asked for. */
const day = (): LightPeriod => ({ kind: 'season', on: `2026-01-${String(++nth).padStart(2, '0')}` })

function asking(first: LightPeriod) {
  const [scene, places] = [{} as Scene, [] as LitPlace[]]
  const hook = renderHook(({ period }) => useGardenField(scene, places, period, work), {
    initialProps: { period: first },
  })
  return {
    shown: () => shownIn(hook.result.current.field),
    ask: (period: LightPeriod) => act(async () => hook.rerender({ period })),
    answer: () => hook.result.current,
  }
}

it('of days that follow each other quickly only the latest is asked for, and a first look at those between is shown', async () => {
  const [a, b, c] = [day(), day(), day()]
  asked.length = 0
  const hook = asking(a)
  await act(async () => {})
  await hook.ask(b)
  await hook.ask(c)
  expect(asked.map((q) => q.on)).toEqual([a])
  await asked[0]!.answer()
  // Of the first a look, said to be under way; the second was never asked.
  expect([hook.shown(), hook.answer().refiningM]).toEqual([{ on: a, cellM: 1 }, 1])
  expect(asked.map((q) => q.on)).toEqual([a, c])
  await asked[1]!.answer()
  expect(hook.shown()).toEqual({ on: c, cellM: 1 })
})

it('what is known is shown at once, and nothing that was asked before it takes its place', async () => {
  const [a, b] = [day(), day()]
  asked.length = 0
  const hook = asking(a)
  await act(async () => {})
  await asked[0]!.answer()
  await vi.waitFor(() => expect(asked).toHaveLength(2))
  await asked[1]!.answer()
  expect([hook.shown(), hook.answer().refiningM]).toEqual([{ on: a, cellM: 0.25 }, undefined])
  await hook.ask(b)
  await vi.waitFor(() => expect(asked).toHaveLength(3))
  await hook.ask(a)
  const whole = [{ on: a, cellM: 0.25 }, undefined]
  expect([hook.shown(), hook.answer().refiningM]).toEqual(whole)
  await asked[2]!.answer()
  expect([hook.shown(), hook.answer().refiningM]).toEqual(whole)
})
