import { instantsOf, localMinute } from '@border/core'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import '../draw/draw.css'

/** When a shadow was measured, by the garden's clock. */
export function TimeOfShadow({ value, onChange }: { value: string; onChange: (local: string) => void }) {
  const { view, today } = useGardenContext()
  const { timeZone } = view.garden
  const isNone = value !== '' && instantThere(value, timeZone) === undefined
  return (
    <div className="draw-field">
      <label>
        Measured at, by the clock there
        <span className="row">
          <input
            type="datetime-local"
            value={value}
            max={`${today}T23:59`}
            onChange={(e) => onChange(e.target.value)}
          />
          <Button size="small" onClick={() => onChange(localMinute(Date.now(), timeZone))}>
            Now
          </Button>
        </span>
      </label>
      {isNone && <small role="alert">The clocks there skip that time.</small>}
    </div>
  )
}

/** The instant that was said, milliseconds since 1970; undefined while nothing is, or where clocks skip it. */
export const instantThere = (local: string, timeZone: string): number | undefined =>
  local === '' ? undefined : instantsOf(local, timeZone)[0]
