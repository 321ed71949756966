import './choose.css'

interface Props<Value extends string> {
  label: string
  value: Value
  options: readonly { value: Value; label: string }[]
  onChange: (value: Value) => void
}

/** One of a few, in the browser's own way: by mouse, keys and thumb. Long lists that are searched have their own. */
export function Choose<Value extends string>({ label, value, options, onChange }: Props<Value>) {
  return (
    <select
      className="choose"
      aria-label={label}
      value={value}
      onChange={(e) => onChange(e.target.value as Value)}
    >
      {options.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  )
}
