import { northByShadow } from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { instantThere, TimeOfShadow } from './TimeOfShadow.tsx'
import '../draw/draw.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** Where north lies on the plan, from the way a shadow lies on it at a known time. */
export function NorthByShadow({ onTake }: { onTake: (northDeg: number) => void }) {
  const { view } = useGardenContext()
  const { latitude, longitude, timeZone } = view.garden
  const [bearingDeg, setBearing] = useState<number | null>(null)
  const [time, setTime] = useState('')
  const now = instantThere(time, timeZone)
  const found =
    bearingDeg !== null && now !== undefined
      ? northByShadow({ latitude, longitude }, { bearingDeg, now })
      : undefined
  return (
    <section aria-label="North by a shadow" className="draw-corners">
      <h3>North by a shadow</h3>
      <small>
        Lay a line along the shadow of a post or corner on the plan, from its foot outwards, and say how it
        lies there.
      </small>
      <div className="draw-field">
        <label>
          The shadow’s bearing on the plan
          <QuantityInput value={bearingDeg} min={-360} max={360} suffix="° from up" onChange={setBearing} />
        </label>
      </div>
      <TimeOfShadow value={time} onChange={setTime} />
      {found &&
        (found.ok ? (
          <div className="row">
            <b>
              {found.sized.value.toFixed(0)}°, give or take {(1.96 * found.sized.sd).toFixed(0)}°
            </b>
            <Button size="small" onClick={() => onTake(Math.round(found.sized.value * 10) / 10)}>
              Fill it in
            </Button>
          </div>
        ) : (
          <small role="alert">{found.says}</small>
        ))}
    </section>
  )
}
