import './choose.css'

interface Props<Value extends string> {
  id?: string
  label: string
  value: Value
  options: readonly { value: Value; label: string }[]
  onChange: (value: Value) => void
}

/** One of a few, in the browser's own way: by mouse, keys and thumb. Long lists that are searched have their own. */
export function Choose<Value extends string>({ id, label, value, options, onChange }: Props<Value>) {
  return (
    <select
      id={id}
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
