import { Form, InputNumber } from 'antd'
import type { SizeField } from './kinds.ts'

/** The sizes a kind is asked for, each with its unit. */
export function SizeInputs({ fields }: { fields: readonly SizeField[] }) {
  return fields.map((f) => (
    <Form.Item key={f.name} name={f.name} label={f.label} rules={[{ required: true, message: 'Needed' }]}>
      <InputNumber min={f.min} max={f.max} step={f.step} suffix={f.unit} />
    </Form.Item>
  ))
}
