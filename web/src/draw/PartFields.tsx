import type { PlanFeature } from '@border/core'
import { Input } from 'antd'
import dayjs from 'dayjs'
import { useId } from 'react'
import { Choose } from '../frame/Choose.tsx'
import { kindFields, type DrawnKind, type Field } from './kinds.ts'
import { saidOf } from './said.ts'
import { DayPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  part: Pick<PlanFeature, 'kind' | 'properties'>
  /** Only what is asked for first, or only the rest. */
  which: 'first' | 'rest'
  onSay: (name: string, value: unknown) => void
}

/** What can be said of a part of the plan beside how it is drawn: all that a file can say. */
export function PartFields({ part, which, onSay }: Props) {
  const said = saidOf(part)
  const fields = kindFields[part.kind as DrawnKind].filter((f) => !!f.first === (which === 'first'))
  if (fields.length === 0) return null
  return (
    <div className="draw-sizes">
      {fields.map((f) => (
        <FieldInput key={f.name} field={f} value={said[f.name]} onSay={(value) => onSay(f.name, value)} />
      ))}
    </div>
  )
}

function FieldInput({
  field: f,
  value,
  onSay,
}: {
  field: Field
  value: unknown
  onSay: (value: unknown) => void
}) {
  const id = useId()
  return (
    <div className={f.type === 'text' ? 'draw-field wide' : 'draw-field'}>
      <label htmlFor={id}>{f.label}</label>
      <FieldControl id={id} field={f} value={value} onSay={onSay} />
    </div>
  )
}

interface InputProps {
  id: string
  field: Field
  value: unknown
  onSay: (value: unknown) => void
}

function FieldControl({ id, field: f, value, onSay }: InputProps) {
  switch (f.type) {
    case 'size':
      return (
        <QuantityInput
          id={id}
          value={value as number | undefined}
          placeholder="not said"
          min={f.min}
          max={f.max}
          step={f.step}
          suffix={f.unit}
          onChange={(v) => onSay(v ?? undefined)}
        />
      )
    case 'word':
      return (
        <Choose
          id={id}
          label={f.label}
          value={(value as string | undefined) ?? ''}
          onChange={(v) => onSay(v || undefined)}
          options={[{ value: '', label: 'not said' }, ...f.options]}
        />
      )
    case 'flag':
      return (
        <Choose
          id={id}
          label={f.label}
          value={value === undefined ? '' : value ? 'yes' : 'no'}
          onChange={(v) => onSay(v === '' ? undefined : v === 'yes')}
          options={[
            { value: '', label: 'not said' },
            { value: 'yes', label: 'yes' },
            { value: 'no', label: 'no' },
          ]}
        />
      )
    case 'day':
      return (
        <DayPicker
          id={id}
          value={value ? dayjs(value as string) : null}
          onChange={(d) => onSay(d ? d.format('YYYY-MM-DD') : undefined)}
        />
      )
    case 'month-day':
      return <Typed id={id} value={value} placeholder="04-25" most={5} onSay={onSay} />
    case 'bearings':
      return <Typed id={id} value={value} placeholder="180, 270 (° from N)" most={60} onSay={onSay} />
    case 'text':
      return (
        <Input.TextArea
          id={id}
          value={(value as string | undefined) ?? ''}
          maxLength={f.most}
          autoSize={{ minRows: 1, maxRows: 5 }}
          onChange={(e) => onSay(e.target.value || undefined)}
        />
      )
  }
}

const Typed = ({
  id,
  value,
  placeholder,
  most,
  onSay,
}: Pick<InputProps, 'id' | 'value' | 'onSay'> & { placeholder: string; most: number }) => (
  <Input
    id={id}
    defaultValue={(value as string | undefined) ?? ''}
    placeholder={placeholder}
    maxLength={most}
    onBlur={(e) => onSay(e.target.value.trim() || undefined)}
  />
)
