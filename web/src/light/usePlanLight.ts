import {
  frozen,
  placesOn,
  sceneOf,
  supposed,
  withSuppositions,
  type GardenField,
  type LightPeriod,
  type Place,
  type Obstruction,
  type Scene,
  type Supposition,
} from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { halfMonthOf, type PeriodName, type ViewName } from './look.ts'
import { useGardenField, useSupposedField, type Trying } from './useGardenField.ts'

/** One scene of the two that are compared: what stands in it, from which day on the plan, and its light. */
export interface LitScene {
  scene: Scene
  on: string
  field: GardenField | undefined
}

export interface PlanLight extends Pick<Tried, 'tried'> {
  before: LitScene
  after: LitScene
  places: readonly Place[]
  refiningM: number | undefined
  /** Why nothing, or nothing new, is shown. */
  failed: boolean
}

/**
 * The two scenes that the screen compares, with their light: then and now or, while something is supposed, as it stands and
 * as tried.
 */
export function usePlanLight({
  period: name,
  then,
  suppositions,
  wanted,
}: {
  period: PeriodName
  then: string | undefined
  suppositions: ReadonlyMap<string, Supposition>
  wanted: ViewName
}): PlanLight {
  const { view, standing, on } = useGardenContext()
  const scene = useMemo(() => sceneOf(view.garden, view.features), [view.garden, view.features])
  const places = useMemo(() => placesOn(standing, on), [standing, on])
  const period = useMemo(
    (): LightPeriod =>
      name === 'season' ? { kind: 'season', on } : { kind: 'day', on: halfMonthOf(on), standing: on },
    [name, on],
  )
  const sceneThen = useMemo(
    () => ({ ...scene, obstructions: standingThen(scene, then ?? on) }),
    [scene, then, on],
  )

  const { tried, trying, scene: sceneOthers } = useTried(scene, suppositions, on)
  const tries = tried.size > 0
  const wantsNow = tries || wanted !== 'before'
  const wantsThen = !tries && wanted !== 'after' && then !== undefined
  const periodThen = useMemo(() => ({ ...period, standing: then ?? on }), [period, then, on])
  const now = useGardenField(scene, places, wantsNow ? period : undefined)
  const before = useGardenField(scene, places, wantsThen ? periodThen : undefined)
  const supposition = useSupposedField(sceneOthers, places, period, trying)

  return useMemo(() => {
    const asStands: LitScene = { scene, on, field: now.field }
    const asTried = (): LitScene => ({
      scene: withSuppositions(scene, [...suppositions.values()], on),
      on,
      field: supposition.field ?? now.field,
    })
    const asStood: LitScene = { scene: sceneThen, on: then ?? on, field: before.field }
    return {
      ...(tries ? { before: asStands, after: asTried() } : { before: asStood, after: asStands }),
      places,
      tried,
      refiningM: tries
        ? now.refiningM
        : [wantsNow ? now.refiningM : undefined, wantsThen ? before.refiningM : undefined].find(
            (m) => m !== undefined,
          ),
      failed: now.failed || (tries ? supposition.failed : before.failed),
    }
  }, [
    tries,
    scene,
    sceneThen,
    on,
    then,
    now,
    before,
    supposition,
    suppositions,
    tried,
    places,
    wantsNow,
    wantsThen,
  ])
}

interface Tried {
  /** What is tried other than it stands, by obstruction; null when it is tried away. */
  tried: ReadonlyMap<string, Obstruction | null>
  /** The one that is in hand, as it is tried. */
  trying: Trying | undefined
  /** All others as they are tried: what the one in hand is held against. */
  scene: Scene
}

/** What is supposed of a scene. The last one supposed is in hand; only the light that it takes is worked out as it is dragged. */
function useTried(scene: Scene, suppositions: ReadonlyMap<string, Supposition>, on: string): Tried {
  const tried = useMemo(() => {
    const found = new Map<string, Obstruction | null>()
    for (const supposition of suppositions.values()) {
      const o = scene.obstructions.find((x) => x.id === supposition.obstructionId)
      if (o) found.set(o.id, supposed(o, supposition, on) ?? null)
    }
    return found
  }, [suppositions, scene, on])
  const latestId = [...suppositions.keys()].at(-1)
  const othersKey = JSON.stringify([...suppositions.values()].slice(0, -1))
  const others = useMemo(
    () => withSuppositions(scene, JSON.parse(othersKey) as Supposition[], on),
    [scene, othersKey, on],
  )
  const trying = useMemo(
    (): Trying | undefined =>
      latestId === undefined
        ? undefined
        : { obstructionId: latestId, changed: tried.get(latestId) ?? undefined },
    [latestId, tried],
  )
  return { tried, trying, scene: others }
}

const standingThen = (scene: Scene, then: string): Obstruction[] =>
  scene.obstructions.map((o) => frozen(o, then)).filter((o) => o !== undefined)
