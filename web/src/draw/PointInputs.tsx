import type { Point } from '@border/core'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  /** Plan metres; undefined while nothing is said. */
  at: Point | undefined
  onAt: (at: Point) => void
}

/** Where something lies, typed. */
export function PointInputs({ at, onAt }: Props) {
  const field = (label: string, unit: string, axis: 0 | 1) => (
    <QuantityInput
      aria-label={label}
      value={at?.[axis]}
      step={0.1}
      precision={2}
      suffix={unit}
      onChange={(v) => v !== null && onAt(axis === 0 ? [v, at?.[1] ?? 0] : [at?.[0] ?? 0, v])}
    />
  )
  return (
    <>
      {field('Metres east', 'm E', 0)}
      {field('Metres north', 'm N', 1)}
    </>
  )
}
