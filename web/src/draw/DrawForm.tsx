import { planEndpoints, type GardenView } from '@border/contract'
import { checkFeature, leafDates, problemText, type Geometry, type Point } from '@border/core'
import { Alert, Checkbox, DatePicker, Form, Input, Select } from 'antd'
import type { Dayjs } from 'dayjs'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { CornerInputs } from './CornerInputs.tsx'
import { drawnKinds, kindFields, leastCorners, shapeOf, type DrawnKind } from './kinds.ts'
import { SizeInputs } from './SizeInputs.tsx'

/** Something being drawn: its kind and its corners so far, plan metres. */
export interface Draft {
  kind: DrawnKind
  corners: readonly Point[]
}

interface Props {
  draft: Draft
  onDraft: (draft: Draft) => void
  onClose: () => void
}

interface Values {
  name: string
  from?: Dayjs | null
  deciduous?: boolean
  moisture?: string
  [size: string]: unknown
}

/** Click corners on the plan or type them: every side's length and bearing can be set as it was measured. */
export function DrawForm({ draft, onDraft, onClose }: Props) {
  const { view } = useGardenContext()
  const [form] = Form.useForm<Values>()
  const [problems, setProblems] = useState<string[]>([])
  const save = useGardenWrite(planEndpoints.addFeature, { gardenId: view.garden.id }, 'On the plan.')
  const missing = leastCorners(draft.kind) - draft.corners.length
  const submit = (values: Values) => {
    const feature = featureOf(draft, values, view)
    const checked = checkFeature(feature)
    setProblems(checked.ok ? [] : checked.problems.map((p) => problemText({ ...p, file: values.name })))
    if (checked.ok) save.mutate({ feature }, { onSuccess: onClose })
  }
  const fields = kindFields[draft.kind]
  return (
    <Form<Values>
      name="draw"
      key={draft.kind}
      form={form}
      layout="vertical"
      className="draw-form"
      requiredMark={false}
      initialValues={Object.fromEntries(fields.map((f) => [f.name, f.usual]))}
      onFinish={submit}
    >
      <h2>Add to the plan</h2>
      <Form.Item label="What">
        <Select<DrawnKind>
          aria-label="What"
          value={draft.kind}
          onChange={(kind) =>
            onDraft({ kind, corners: shapeOf(kind) === shapeOf(draft.kind) ? draft.corners : [] })
          }
          options={drawnKinds.map((k) => ({ value: k, label: k }))}
        />
      </Form.Item>
      <Form.Item name="name" label="Name" rules={[{ required: true, message: 'Give it a name' }]}>
        <Input maxLength={120} autoFocus />
      </Form.Item>
      <CornerInputs
        shape={shapeOf(draft.kind)}
        least={leastCorners(draft.kind)}
        corners={draft.corners}
        onCorners={(corners) => onDraft({ ...draft, corners })}
      />
      {fields.length > 0 && (
        <div className="draw-sizes">
          <SizeInputs fields={fields} />
        </div>
      )}
      {draft.kind === 'tree' && (
        <Form.Item name="deciduous" valuePropName="checked" initialValue={true}>
          <Checkbox>Drops its leaves in winter</Checkbox>
        </Form.Item>
      )}
      {draft.kind === 'bed' && (
        <Form.Item name="moisture" label="Ground">
          <Select
            allowClear
            placeholder="not known"
            options={['dry', 'dryish', 'fresh', 'moist', 'wet'].map((m) => ({ value: m, label: m }))}
          />
        </Form.Item>
      )}
      <Form.Item name="from" label="Standing since (leave empty for always)">
        <DatePicker format="D MMM YYYY" />
      </Form.Item>
      {problems.map((p) => (
        <Alert key={p} type="error" title={p} />
      ))}
      <div className="row">
        <Button look="primary" type="submit" disabled={missing > 0} loading={save.isPending}>
          Put it on the plan
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Form>
  )
}

const round = (v: number) => Math.round(v * 100) / 100

/** In leaf by the garden's climate; where no record says, by hemisphere. The tree's own dates can be put right later. */
function usualLeafDates({ garden, climate }: Pick<GardenView, 'garden' | 'climate'>) {
  if (climate) return leafDates(climate) ?? {}
  return garden.latitude >= 0
    ? { leafFrom: '04-25', leafTo: '11-05' }
    : { leafFrom: '10-25', leafTo: '05-05' }
}

function featureOf(draft: Draft, values: Values, view: Pick<GardenView, 'garden' | 'climate'>): unknown {
  const { name, from, deciduous, moisture } = values
  const sizes = kindFields[draft.kind].map((f) => {
    const value = values[f.name] as number
    return [f.name, f.unit === '%' ? value / 100 : value]
  })
  return {
    type: 'Feature',
    properties: {
      kind: draft.kind,
      name,
      ...(from ? { from: from.format('YYYY-MM-DD') } : {}),
      ...(moisture ? { moisture } : {}),
      ...(draft.kind === 'tree' && deciduous ? { ...usualLeafDates(view), transmissionBare: 0.6 } : {}),
      ...Object.fromEntries(sizes),
    },
    geometry: geometryOf(draft),
  }
}

function geometryOf({ kind, corners }: Draft): Geometry {
  const points = corners.map((c): [number, number] => [round(c[0]), round(c[1])])
  switch (shapeOf(kind)) {
    case 'Point':
      return { type: 'Point', coordinates: points[0]! }
    case 'LineString':
      return { type: 'LineString', coordinates: points }
    case 'Polygon':
      return { type: 'Polygon', coordinates: [[...points, points[0]!]] }
  }
}
