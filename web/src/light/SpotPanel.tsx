import type { GardenView } from '@border/contract'
import { isHotAfternoon, lightClass, quarterHours, sceneOf, sunHours, type Point } from '@border/core'
import { Button } from 'antd'
import { useMemo } from 'react'

/** What a marked spot gets, by part of the day, then and now. */
export function SpotPanel({
  at,
  on,
  then,
  view,
  onClose,
}: {
  at: Point
  on: string
  then: string
  view: GardenView
  onClose: () => void
}) {
  const { now, before } = useMemo(() => {
    const scene = sceneOf(view.garden, view.features)
    const point = [{ x: at[0], y: at[1], z: 0 }]
    return {
      now: sunHours(scene, point, { kind: 'season', on })[0]!,
      before: sunHours(scene, point, { kind: 'season', on, standing: then })[0]!,
    }
  }, [at, on, then, view])
  const parts = [
    ['before 10', now.morning],
    ['10 to 14', now.midday],
    ['after 14', now.afternoon],
  ] as const
  return (
    <section className="light-panel" aria-live="polite">
      <div className="spread">
        <h2>The marked spot</h2>
        <Button size="small" type="text" onClick={onClose} aria-label="Close">
          ✕
        </Button>
      </div>
      <p>
        <b>{quarterHours(now.total)}</b> of sun, {lightClass(now.total)}
        {isHotAfternoon(now) && ', hot in the afternoon'}; {quarterHours(before.total)} then.
      </p>
      <div className="part-bars">
        {parts.map(([label, hours]) => (
          <Part key={label} label={label} hours={hours} />
        ))}
      </div>
      <small>
        {at[0].toFixed(1)} m east, {at[1].toFixed(1)} m north on the plan; true solar time.
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
