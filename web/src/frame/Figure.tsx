import { isAskedUnit, unitSpoken } from '@border/core'
import { useState } from 'react'
import { ownUnits } from '../units/ownUnits.ts'
import './figure.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  id?: string
  /** What it is of; its unit is read out with it. */
  label: string
  value: number | null
  min: number
  max: number
  step?: number
  unit?: string
  /** Nothing can be said. */
  canBeEmpty?: boolean
  disabled?: boolean
  /** Said once it is left, or Enter is pressed: not while it is typed. */
  onSay: (value: number | null) => void
}

/** A number that is said when it is there, not letter by letter. */
export function Figure({ id, label, value, min, max, step = 1, unit, canBeEmpty, disabled, onSay }: Props) {
  const [typed, setTyped] = useState<{ value: number | null }>()
  const say = () => {
    setTyped(undefined)
    if (!typed || typed.value === value || (typed.value === null && !canBeEmpty)) return
    onSay(typed.value)
  }
  return (
    <QuantityInput
      id={id}
      className="figure-number"
      aria-label={isAskedUnit(unit) ? `${label}, ${unitSpoken(unit, ownUnits())}` : label}
      value={typed ? typed.value : value}
      min={min}
      max={max}
      step={step}
      disabled={disabled}
      suffix={unit}
      onChange={(v) => setTyped({ value: typeof v === 'number' ? v : null })}
      onStep={(v) => {
        setTyped(undefined)
        onSay(v)
      }}
      onBlur={say}
      onPressEnter={say}
    />
  )
}
