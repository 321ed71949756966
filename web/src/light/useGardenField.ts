import type { GardenField, LightPeriod, LitPlace, Obstruction, Scene } from '@border/core'
import { useEffect, useMemo, useRef, useState } from 'react'
import { latestOnly } from './latestOnly.ts'
import { askLight } from './lightPool.ts'

/** Cells a field is worked out with, metres: a first look at once, then as fine as it is drawn. */
const PASSES_M = [1, 0.25] as const
/** What is asked again sooner than this is being dragged: it is looked at more closely when it rests. */
const RESTS_MS = 150
/** Fields kept so that changing the view back and forth is instant. */
const MOST_KEPT = 40
const kept = new Map<string, GardenField>()

/** Works out the field of some places in cells of a size, metres. */
export type FieldWork = (
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod,
  cellM: number,
) => Promise<GardenField>
const inWorker: FieldWork = (scene, places, period, cellM) =>
  askLight('fields', (worker) => worker.field(scene, places, period, cellM))

export interface FieldAnswer {
  field: GardenField | undefined
  /** Cell size of the pass under way, metres; undefined when all are done. */
  refiningM: number | undefined
  /** It could not be worked out; the next question is tried afresh. */
  failed: boolean
}

/**
 * Hours of sun over every place, worked out in a worker, coarse first. A new question drops the old one; until its first
 * answer the old field stays on show.
 *
 * @param period undefined asks for nothing
 * @param work what works it out, the same for as long as it is asked
 */
export function useGardenField(
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod | undefined,
  work: FieldWork = inWorker,
): FieldAnswer {
  const question = useMemo(
    () => (period ? JSON.stringify([scene, places, period]) : undefined),
    [scene, places, period],
  )
  const [answer, setAnswer] = useState<FieldAnswer & { question?: string | undefined }>({
    field: undefined,
    refiningM: undefined,
    failed: false,
  })
  // One is worked out at a time: of questions that follow each other quickly only the latest is asked.
  const before = useRef<{ answered: Promise<void>; at: number }>({
    answered: Promise.resolve(),
    at: -Infinity,
  })
  const latest = useRef(question)
  useEffect(() => {
    if (!period || question === undefined) return
    latest.current = question
    let asked = true
    let drop = () => {}
    const dropped = new Promise<void>((resolve) => (drop = resolve))
    const now = performance.now()
    const moves = now - before.current.at < RESTS_MS
    // What is known is not kept waiting by what is not.
    const isKept = PASSES_M.every((cellM) => kept.has(`${cellM}|${question}`))
    const run = async () => {
      for (const [i, cellM] of PASSES_M.entries()) {
        if (i > 0 && moves && !isKept) await Promise.race([dropped, rested()])
        if (!asked) return
        const field = await keep(`${cellM}|${question}`, () => work(scene, places, period, cellM))
        // Of what has been asked otherwise meanwhile a first look is nearer than what is on show, until that is answered.
        setAnswer((shown) =>
          asked || (i === 0 && shown.question !== latest.current)
            ? { question, field, refiningM: PASSES_M[i + 1], failed: false }
            : shown,
        )
      }
    }
    const answered = (isKept ? Promise.resolve() : before.current.answered).then(run).catch(() => {
      if (asked) setAnswer((before) => ({ ...before, question, refiningM: undefined, failed: true }))
    })
    before.current = { answered, at: now }
    return () => {
      asked = false
      drop()
    }
  }, [question, scene, places, period, work])
  if (question === undefined) return { field: undefined, refiningM: undefined, failed: false }
  return answer.question === question
    ? answer
    : { field: answer.field, refiningM: PASSES_M[0], failed: false }
}

const rested = () => new Promise((resolve) => setTimeout(resolve, RESTS_MS))

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
 * The field with one obstruction as supposed, as fast as the pointer moves: the worker holds what all the others let
 * through, and of the sizes dragged past only the latest is worked out.
 *
 * @returns no field while nothing is tried or nothing has come back yet; `failed` when the last could not be worked out
 */
export function useSupposedField(
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod,
  trying: Trying | undefined,
): { field: GardenField | undefined; failed: boolean } {
  const [found, setFound] = useState<{ key: string; field: GardenField | undefined }>()
  const id = trying?.obstructionId
  const key = useMemo(
    () => (id === undefined ? undefined : JSON.stringify([id, scene, places, period])),
    [id, scene, places, period],
  )
  const ask = useMemo(() => {
    if (key === undefined || id === undefined) return undefined
    return supposedFieldsOf({ scene, places, period, obstructionId: id }, (field) => setFound({ key, field }))
  }, [key, id, scene, places, period])
  useEffect(() => {
    if (trying) ask?.(trying)
  }, [trying, ask])
  if (!found || found.key !== key) return { field: undefined, failed: false }
  return { field: found.field, failed: found.field === undefined }
}

interface Held {
  scene: Scene
  places: readonly LitPlace[]
  period: LightPeriod
  obstructionId: string
}

/**
 * Works out what is tried of one obstruction, the latest of it. It is held once for all that is supposed, and anew after a failure,
 * by the next worker.
 *
 * @param told undefined when it could not be worked out
 */
function supposedFieldsOf(
  { scene, places, period, obstructionId }: Held,
  told: (field: GardenField | undefined) => void,
): (trying: Trying) => void {
  let isHeld = false
  return latestOnly<Trying, GardenField>(
    (asked) =>
      askLight('suppositions', async (worker) => {
        if (!isHeld) await worker.hold(scene, places, period, obstructionId)
        isHeld = true
        return worker.supposition(asked.changed)
      }),
    {
      done: told,
      failed: () => {
        isHeld = false
        told(undefined)
      },
    },
  )
}
