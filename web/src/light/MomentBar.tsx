import { Slider } from 'antd'
import { Button } from '../frame/Button.tsx'
import { useClock } from '../frame/useClock.ts'
import { compass } from './compass.ts'
import type { MomentState } from './useMoment.ts'

/** The hour of the day, to drag or to let run. */
export function MomentBar({ moment }: { moment: MomentState | undefined }) {
  const clock = useClock()
  if (!moment) return null
  const { moments, index, current, playing } = moment
  if (!current)
    return <div className="light-moment">The sun does not rise here on this day: everything is in shade.</div>
  return (
    <div className="light-moment">
      <Button size="small" onClick={() => moment.play(!playing)} aria-pressed={playing}>
        {playing ? 'Stop' : 'Let it run'}
      </Button>
      <span>{clock(moments[0]!.instantMs)}</span>
      <Slider
        ariaLabelForHandle="Time of day"
        min={0}
        max={moments.length - 1}
        value={index}
        onChange={(i: number) => {
          moment.play(false)
          moment.go(i)
        }}
        tooltip={{ formatter: null }}
      />
      <span>{clock(moments.at(-1)!.instantMs)}</span>
      <output aria-live={playing ? 'off' : 'polite'}>
        <b>{clock(current.instantMs)}</b> on the clock, {solarClock(current.solarHours)} by the sun; sun{' '}
        {Math.round(current.elevationDeg)}° high, {compass(current.azimuthDeg)}
      </output>
    </div>
  )
}

function solarClock(hours: number): string {
  const minutes = Math.round(hours * 60)
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}
