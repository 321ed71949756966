import { useId } from 'react'
import './segments.css'

type Option<Value extends string> =
  Value | { value: Value; label: string; title?: string; disabled?: boolean }

interface Props<Value extends string> {
  label: string
  value: Value
  options: readonly Option<Value>[]
  onChange: (value: Value) => void
  /** As wide as what it stands in. */
  wide?: boolean
}

/** One of two to five that are all seen at once: radio buttons side by side. */
export function Segments<Value extends string>({ label, value, options, onChange, wide }: Props<Value>) {
  const name = useId()
  return (
    <div role="radiogroup" aria-label={label} className={`segments${wide ? ' wide' : ''}`}>
      {options.map((option) => {
        const o = typeof option === 'string' ? { value: option, label: option } : option
        return (
          <label key={o.value} title={o.title}>
            <input
              type="radio"
              name={name}
              value={o.value}
              checked={o.value === value}
              disabled={o.disabled}
              onChange={() => onChange(o.value)}
            />
            <span>{o.label}</span>
          </label>
        )
      })}
    </div>
  )
}
