import { InputNumber } from 'antd'
import { useState } from 'react'
import './figure.css'

interface Props {
  id?: string
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
    <InputNumber
      id={id}
      className="figure-number"
      aria-label={label}
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
