import {
  dappledShare,
  isHotAfternoon,
  lightDays,
  lightWords,
  monthOf,
  placeOf,
  quarterHours,
  sceneOf,
  skyViewFactor,
  standing,
  sunHours,
  surfaceHeightM,
  type Point,
  type PointSky,
} from '@border/core'
import { useEffect, useMemo, useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { askLight } from './lightPool.ts'
import { usePlaceAt } from './usePlaceAt.ts'
import { SkyDiagram } from './SkyDiagram.tsx'
import { YearHours } from './YearHours.tsx'

/** What a marked spot gets: by part of the day, its sky, and its hours through the year. */
export function SpotPanel({ at, then, onClose }: { at: Point; then: string; onClose: () => void }) {
  const { view, on } = useGardenContext()
  const placeAt = usePlaceAt()
  const place = useMemo(() => {
    const found = placeAt(at)
    return found && placeOf(found)
  }, [placeAt, at])
  const scene = useMemo(() => sceneOf(view.garden, view.features), [view])
  const point = useMemo(() => ({ x: at[0], y: at[1], z: surfaceHeightM(place) }), [at, place])
  const ground = place?.ground ?? undefined
  const { now, before, open, dappled } = useMemo(() => {
    const solids = scene.obstructions.map((o) => standing(o, on)).filter((s) => s !== undefined)
    return {
      now: sunHours(scene, [point], { kind: 'season', on }, ground)[0]!,
      before: sunHours(scene, [point], { kind: 'season', on, standing: then }, ground)[0]!,
      open: skyViewFactor(solids, point),
      dappled: dappledShare(lightDays(scene, { kind: 'season', on }, ground), point),
    }
  }, [scene, point, on, then, ground])
  const [sky, setSky] = useState<PointSky>()
  useEffect(() => {
    let asked = true
    askLight('fields', (worker) => worker.sky(scene, point, on, ground)).then(
      (found) => asked && setSky(found),
      () => asked && setSky(undefined),
    )
    return () => {
      asked = false
    }
  }, [scene, point, on, ground])
  const [month, setMonth] = useState(monthOf(on))
  const parts = [
    ['before 10', now.morning],
    ['10 to 14', now.midday],
    ['after 14', now.afternoon],
  ] as const
  return (
    <section className="light-panel" aria-live="polite">
      <div className="spread">
        <h2>{place ? `A spot in ${place.name}` : 'A spot off the beds'}</h2>
        <Button size="small" look="text" onClick={onClose} aria-label="Close">
          ✕
        </Button>
      </div>
      <p>
        <b>{quarterHours(now.total)}</b> of sun, {lightWords(now, dappled)}
        {isHotAfternoon(now) && ', hot in the afternoon'}; {quarterHours(before.total)} then. It sees{' '}
        {Math.round(open * 100)} % of the sky.
      </p>
      <div className="part-bars">
        {parts.map(([label, hours]) => (
          <Part key={label} label={label} hours={hours} />
        ))}
      </div>
      {sky && (
        <>
          <SkyDiagram sky={sky} month={month} />
          <YearHours sky={sky} month={month} onMonth={setMonth} />
        </>
      )}
      <small>
        {at[0].toFixed(1)} m east, {at[1].toFixed(1)} m north on the plan
        {point.z > 0 ? `, ${point.z.toFixed(1)} m above the ground` : ''}; true solar time.
      </small>
    </section>
  )
}

function Part({ label, hours }: { label: string; hours: number }) {
  return (
    <>
      <span>{label}</span>
      <span>
        <i style={{ width: `${(hours / 6) * 100}%` }} />
      </span>
      <span>{quarterHours(hours)}</span>
    </>
  )
}
