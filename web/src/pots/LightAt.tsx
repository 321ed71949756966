import { sceneOf, sunHours, type Point, type Taxon } from '@border/core'
import { useDeferredValue, useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { lightOffWords, sunWords } from './potWords.ts'

/**
 * The sun of the growing season at a spot of the plan, at the height of a pot's rim, and what its plants would say of it. It follows the
 * spot as that is dragged about.
 */
export function LightAt({
  at,
  rimHeightM,
  taxa,
}: {
  at: Point
  rimHeightM: number
  taxa: readonly Pick<Taxon, 'lightMinHours' | 'lightMaxHours'>[]
}) {
  const { view, on } = useGardenContext()
  const scene = useMemo(() => sceneOf(view.garden, view.features), [view.garden, view.features])
  const spot = useDeferredValue(at)
  const hours = useMemo(
    () => sunHours(scene, [{ x: spot[0], y: spot[1], z: rimHeightM }], { kind: 'season', on })[0]!,
    [scene, spot, rimHeightM, on],
  )
  const off = lightOffWords(taxa, hours)
  return (
    <small aria-live="polite">
      There: {sunWords(hours)}
      {taxa.length > 0 && `, ${off ?? 'as its plants want it'}`}.
    </small>
  )
}
