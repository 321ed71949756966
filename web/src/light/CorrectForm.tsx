import { planEndpoints, type FeatureView } from '@border/contract'
import { checkFeature, problemText } from '@border/core'
import { Alert, DatePicker, Form, Input, InputNumber, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { kindFields, type DrawnKind } from '../draw/kinds.ts'
import '../draw/draw.css'
import { SizeInputs } from '../draw/SizeInputs.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useBegunWith } from '../frame/useBegunWith.ts'

type Values = Record<string, unknown>

const monthDay = /^\d{2}-\d{2}$/

/**
 * Puts right what the plan says of a place or an obstruction: sizes, slope, what it lets through, leaf dates, growth and
 * health. What it said before is kept with the plan’s history.
 */
export function CorrectForm({ feature, onDone }: { feature: FeatureView; onDone: () => void }) {
  const { view } = useGardenContext()
  const [problems, setProblems] = useState<string[]>([])
  const seen = useBegunWith(feature)
  const amend = useGardenWrite(
    planEndpoints.amendFeature,
    { gardenId: view.garden.id, featureId: feature.id },
    `${feature.name}: the plan is put right.`,
    () => seen,
  )
  const fields = kindFields[feature.kind as DrawnKind]
  const submit = (values: Values) => {
    const corrected = withValues(feature, values)
    const checked = checkFeature(corrected)
    setProblems(checked.ok ? [] : checked.problems.map((x) => problemText({ ...x, file: feature.name })))
    if (checked.ok) amend.mutate({ feature: corrected }, { onSuccess: onDone })
  }
  return (
    <Form<Values>
      name="correct"
      layout="vertical"
      className="draw-form"
      requiredMark={false}
      onFinish={submit}
      initialValues={valuesOf(feature)}
    >
      <div className="draw-sizes">
        <SizeInputs fields={fields} />
        <OfItsKind feature={feature} />
      </div>
      {problems.map((text) => (
        <Alert key={text} type="error" title={text} />
      ))}
      <div className="row">
        <Button look="primary" size="small" type="submit" loading={amend.isPending}>
          Put the plan right
        </Button>
        <Button size="small" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </Form>
  )
}

/** What only a building, a tree or a hedge has. */
function OfItsKind({ feature: { kind, properties } }: { feature: FeatureView }) {
  return (
    <>
      {kind === 'building' && (
        <>
          <Form.Item name="overhangDepthM" label="Eaves reach out">
            <InputNumber min={0} max={10} step={0.1} suffix="m" />
          </Form.Item>
          <Form.Item name="overhangHeightM" label="Eaves above ground">
            <InputNumber min={0} max={120} step={0.1} suffix="m" />
          </Form.Item>
        </>
      )}
      {kind === 'tree' && (
        <>
          <Form.Item name="crownShape" label="Crown" initialValue={properties.crownShape ?? 'ellipsoid'}>
            <Select
              options={[
                { value: 'ellipsoid', label: 'rounded' },
                { value: 'cone', label: 'cone' },
                { value: 'column', label: 'column' },
              ]}
            />
          </Form.Item>
          <Form.Item name="health" label="Health">
            <Select
              allowClear
              placeholder="not said"
              options={['good', 'fair', 'poor', 'failing'].map((h) => ({ value: h, label: h }))}
            />
          </Form.Item>
          <LeafDate name="leafFrom" label="In leaf from, month-day" />
          <LeafDate name="leafTo" label="Bare from, month-day" />
        </>
      )}
      {(kind === 'tree' || kind === 'hedge') && (
        <>
          <Form.Item name="measuredOn" label="Measured on">
            <DatePicker format="D MMM YYYY" />
          </Form.Item>
          <Form.Item name="yearsToMature" label="Full grown in">
            <InputNumber min={1} max={200} suffix="years" />
          </Form.Item>
          <Form.Item name="matureHeightM" label="Grows to">
            <InputNumber min={0} max={120} step={0.5} suffix="m" />
          </Form.Item>
          {kind === 'tree' && (
            <Form.Item name="matureCrownRadiusM" label="Crown radius to">
              <InputNumber min={0} max={40} step={0.5} suffix="m" />
            </Form.Item>
          )}
        </>
      )}
    </>
  )
}

/** The form as the plan has it now. */
function valuesOf(feature: FeatureView): Values {
  const p = feature.properties
  const growth = p.growth as
    | { measuredOn: string; matureHeightM: number; matureCrownRadiusM?: number; yearsToMature: number }
    | undefined
  return {
    ...Object.fromEntries(
      kindFields[feature.kind as DrawnKind].map((f) => {
        const value = p[f.name] as number | undefined
        return [f.name, value === undefined ? f.usual : f.unit === '%' ? value * 100 : value]
      }),
    ),
    leafFrom: p.leafFrom,
    leafTo: p.leafTo,
    health: p.health,
    measuredOn: growth ? dayjs(growth.measuredOn) : undefined,
    matureHeightM: growth?.matureHeightM,
    matureCrownRadiusM: growth?.matureCrownRadiusM,
    yearsToMature: growth?.yearsToMature,
    overhangDepthM: (p.overhang as { depthM?: number } | undefined)?.depthM ?? p.overhang,
    overhangHeightM: (p.overhang as { heightM?: number } | undefined)?.heightM,
  }
}

function LeafDate({ name, label }: { name: string; label: string }) {
  return (
    <Form.Item name={name} label={label} rules={[{ pattern: monthDay, message: 'like 04-25' }]}>
      <Input placeholder="04-25" maxLength={5} />
    </Form.Item>
  )
}

function withValues(feature: FeatureView, values: Values): unknown {
  const fields = kindFields[feature.kind as DrawnKind]
  const sizes = fields.map((f) => {
    const value = values[f.name] as number
    return [f.name, f.unit === '%' ? value / 100 : value]
  })
  const {
    growth: _g,
    overhang: _o,
    leafFrom: _f,
    leafTo: _t,
    health: _h,
    events: _e,
    ...rest
  } = feature.properties
  const { measuredOn, matureHeightM, matureCrownRadiusM, yearsToMature } = values
  const given = (name: string) => (values[name] ? { [name]: values[name] } : {})
  const depth = values.overhangDepthM as number | null | undefined
  return {
    type: 'Feature',
    properties: {
      ...rest,
      kind: feature.kind,
      name: feature.name,
      from: feature.from,
      to: feature.to,
      ...Object.fromEntries(sizes),
      ...given('crownShape'),
      ...given('health'),
      ...given('leafFrom'),
      ...given('leafTo'),
      ...(depth
        ? {
            overhang: {
              depthM: depth,
              heightM: (values.overhangHeightM as number | null | undefined) ?? (values.heightM as number),
            },
          }
        : {}),
      ...(measuredOn && matureHeightM && yearsToMature
        ? {
            growth: {
              measuredOn: (measuredOn as Dayjs).format('YYYY-MM-DD'),
              matureHeightM,
              yearsToMature,
              ...(matureCrownRadiusM ? { matureCrownRadiusM } : {}),
            },
          }
        : {}),
    },
    geometry: feature.geometry,
  }
}
