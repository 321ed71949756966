import type { FeatureRecord } from '@border/contract'
import { ringOf, surfaceHeightM, type LightPeriod, type Scene } from '@border/core'
import { useEffect, useMemo, useState } from 'react'
import { lightWorker, poolSize } from './lightPool.ts'
import type { BedHours } from './lightWorker.ts'

/** Cells a pass computes with, metres: a first look at once, then as fine as the beds ask. */
const PASSES_M = [1, 0.5, 0.25] as const
/** Results kept so that changing the view back and forth is instant. */
const MOST_KEPT = 400
const kept = new Map<string, BedHours | number[]>()

export interface PlaceLight {
  beds: ReadonlyMap<string, BedHours>
  pots: ReadonlyMap<string, number>
  /** Cell size of the pass under way, metres; undefined when all are done. */
  refiningM: number | undefined
}

/**
 * Hours of sun over every place that stands, worked out in workers, coarse first. A new question drops the old one.
 *
 * @param period undefined asks for nothing
 */
export function useLightFields(
  scene: Scene,
  places: readonly FeatureRecord[],
  period: LightPeriod | undefined,
): PlaceLight {
  const question = useMemo(() => (period ? JSON.stringify([scene, period]) : ''), [scene, period])
  const [answer, setAnswer] = useState<PlaceLight & { question: string }>({ question: '', ...nothing })
  useEffect(() => {
    if (!period) return
    let asked = true
    const beds = new Map<string, BedHours>()
    let pots = new Map<string, number>()
    const tell = (refiningM: number | undefined) => {
      if (asked) setAnswer({ question, beds: new Map(beds), pots, refiningM })
    }
    const run = async () => {
      pots = await potHours(question, scene, places, period)
      for (const cellM of PASSES_M) {
        const waiting = places.filter((p) => p.kind === 'bed')
        const work = async () => {
          for (let bed = waiting.shift(); bed && asked; bed = waiting.shift()) {
            beds.set(bed.id, await bedHours(question, scene, bed, period, cellM))
            tell(cellM)
          }
        }
        await Promise.all(Array.from({ length: poolSize }, work))
        if (!asked) return
      }
      tell(undefined)
    }
    void run()
    return () => {
      asked = false
    }
  }, [question, scene, places, period])
  return answer.question === question ? answer : { ...nothing, refiningM: period ? PASSES_M[0] : undefined }
}

const nothing: PlaceLight = { beds: new Map(), pots: new Map(), refiningM: undefined }

async function bedHours(
  question: string,
  scene: Scene,
  bed: FeatureRecord,
  period: LightPeriod,
  cellM: number,
): Promise<BedHours> {
  return keep(`${bed.id}|${cellM}|${JSON.stringify(bed.geometry)}|${question}`, () =>
    lightWorker().bed(scene, ringOf(bed.geometry), period, cellM),
  )
}

async function potHours(
  question: string,
  scene: Scene,
  places: readonly FeatureRecord[],
  period: LightPeriod,
): Promise<Map<string, number>> {
  const pots = places.filter((p) => p.kind === 'container' && p.geometry.type === 'Point')
  const points = pots.map((p) => {
    const [x, y] = p.geometry.type === 'Point' ? p.geometry.coordinates : [0, 0]
    return { x: x!, y: y!, z: surfaceHeightM(p) }
  })
  const hours = await keep(`pots|${JSON.stringify(points)}|${question}`, () =>
    lightWorker().points(scene, points, period),
  )
  return new Map(pots.map((p, i) => [p.id, hours[i]!]))
}

async function keep<T extends BedHours | number[]>(key: string, compute: () => Promise<T>): Promise<T> {
  const known = kept.get(key)
  if (known) return known as T
  const found = await compute()
  kept.set(key, found)
  // The oldest goes first: a map remembers the order its keys came in.
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  return found
}
