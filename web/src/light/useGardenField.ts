import type { GardenField, LightPeriod, LitPlace, Obstruction, Scene } from '@border/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { lightWorker } from './lightPool.ts'

/** Cells a field is worked out with, metres: a first look at once, then as fine as it is drawn. */
const PASSES_M = [1, 0.25] as const
/** Fields kept so that changing the view back and forth is instant. */
const MOST_KEPT = 40
const kept = new Map<string, GardenField>()

export interface FieldAnswer {
  field: GardenField | undefined
  /** Cell size of the pass under way, metres; undefined when all are done. */
  refiningM: number | undefined
}

/**
 * Hours of sun over every place, worked out in a worker, coarse first. A new question drops the old one; until its first
 * answer the old field stays on show.
 *
 * @param period undefined asks for nothing
 */
export function useGardenField(
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod | undefined,
): FieldAnswer {
  const question = useMemo(
    () => (period ? JSON.stringify([scene, places, period]) : undefined),
    [scene, places, period],
  )
  const [answer, setAnswer] = useState<FieldAnswer & { question?: string | undefined }>({
    field: undefined,
    refiningM: undefined,
  })
  useEffect(() => {
    if (!period || question === undefined) return
    let asked = true
    const run = async () => {
      for (const [i, cellM] of PASSES_M.entries()) {
        if (!asked) return
        const field = await keep(`${cellM}|${question}`, () =>
          lightWorker('fields').field(scene, places, period, cellM),
        )
        if (asked) setAnswer({ question, field, refiningM: PASSES_M[i + 1] })
      }
    }
    void run()
    return () => {
      asked = false
    }
  }, [question, scene, places, period])
  if (question === undefined) return { field: undefined, refiningM: undefined }
  return answer.question === question ? answer : { field: answer.field, refiningM: PASSES_M[0] }
}

async function keep(key: string, compute: () => Promise<GardenField>): Promise<GardenField> {
  const known = kept.get(key)
  if (known) return known
  const found = await compute()
  kept.set(key, found)
  // The oldest goes first: a map remembers the order its keys came in.
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  return found
}

/** An obstruction being tried otherwise; `changed` is undefined when it is tried away. */
export interface Trying {
  obstructionId: string
  changed: Obstruction | undefined
}

/**
 * The field with one obstruction as tried, as fast as the pointer moves: the worker holds what all the others let
 * through, and of the sizes dragged past only the latest is worked out.
 *
 * @returns undefined while nothing is tried or nothing has come back yet
 */
export function useTrialField(
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod,
  trying: Trying | undefined,
): GardenField | undefined {
  const [found, setFound] = useState<{ key: string; field: GardenField }>()
  const holding = useRef<{ key: string; ready: Promise<void> }>(undefined)
  const latest = useRef<Trying | undefined>(undefined)
  const busy = useRef(false)
  const id = trying?.obstructionId
  const key = useMemo(
    () => (id === undefined ? undefined : JSON.stringify([id, scene, places, period])),
    [id, scene, places, period],
  )
  useEffect(() => {
    latest.current = trying
    if (!trying || key === undefined) return
    const worker = lightWorker('trials')
    if (holding.current?.key !== key)
      holding.current = { key, ready: worker.hold(scene, places, period, trying.obstructionId) }
    if (busy.current) return
    const run = async () => {
      busy.current = true
      for (let next: Trying | undefined = trying; next;) {
        const { key: asked, ready } = holding.current!
        await ready
        const field = await worker.trial(next.changed)
        if (latest.current) setFound({ key: asked, field })
        next = latest.current === next ? undefined : latest.current
      }
      busy.current = false
    }
    void run()
  }, [trying, key, scene, places, period])
  return found && found.key === key ? found.field : undefined
}
