import type { JobRecord } from '@border/contract'
import { Button, DatePicker, Form, Input, InputNumber } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useGardenWrite } from '../api/queries.ts'
import { useGardenContext } from '../frame/GardenFrame.tsx'

interface Done {
  on: string
  minutes: number
  lived?: number
  note?: string
}

/** What was really done: the day, how long it took, how many live, a word. */
export function DoneForm({ job, onClose }: { job: JobRecord; onClose: () => void }) {
  const { view, today } = useGardenContext()
  const planting = view.plantings.find((p) => p.id === job.plantingIds[0])
  const done = useGardenWrite<Done>(
    view.garden.id,
    () => `/jobs/${job.id}/done`,
    'Recorded. What follows from it is re-planned.',
  )
  const counts = job.ruleId === null && (job.kind === 'move' || job.kind === 'aftercare')
  return (
    <Form
      layout="vertical"
      className="done-form"
      requiredMark={false}
      initialValues={{ on: dayjs(today), minutes: job.minutes, lived: planting?.livingCount }}
      onFinish={(values: { on: Dayjs; minutes: number; lived?: number; note?: string }) =>
        done.mutate({ ...values, on: values.on.format('YYYY-MM-DD') }, { onSuccess: onClose })
      }
    >
      <div className="row">
        <Form.Item name="on" label="Day" rules={[{ required: true, message: 'Which day?' }]}>
          <DatePicker format="D MMM YYYY" maxDate={dayjs(today)} allowClear={false} />
        </Form.Item>
        <Form.Item name="minutes" label="Minutes" rules={[{ required: true, message: 'How long?' }]}>
          <InputNumber min={1} max={10_000} style={{ width: 90 }} />
        </Form.Item>
      </div>
      {counts && (
        <Form.Item
          name="lived"
          label={job.kind === 'move' ? 'Replanted alive' : 'Living now'}
          rules={[{ required: job.kind === 'move', message: 'How many?' }]}
        >
          <InputNumber min={0} max={planting?.livingCount} style={{ width: 90 }} />
        </Form.Item>
      )}
      <Form.Item name="note" label="Note">
        <Input.TextArea rows={2} maxLength={2000} />
      </Form.Item>
      <div className="row">
        <Button type="primary" htmlType="submit" loading={done.isPending}>
          Record
        </Button>
        <Button onClick={onClose}>Not yet</Button>
      </div>
    </Form>
  )
}
