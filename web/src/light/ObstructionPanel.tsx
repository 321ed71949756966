import { planEndpoints, type FeatureView, type BodyOf } from '@border/contract'
import {
  changesOf,
  dayMonthYear,
  obstructionOf,
  standing as standingOn,
  type Supposition,
} from '@border/core'
import { Button, Collapse, DatePicker, Form, InputNumber, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { changeWords } from './changeWords.ts'
import { CorrectForm } from './CorrectForm.tsx'
import { Life } from './Life.tsx'
import { SuppositionForm } from './SuppositionForm.tsx'

type Action = 'gone' | 'limbed' | 'lowered' | 'thinned' | 'measured'

const actionWords: Record<Action, string> = {
  gone: 'It is gone',
  limbed: 'Limbed up to',
  lowered: 'Lowered to',
  thinned: 'Thinned by',
  measured: 'Measured at',
}

interface Props {
  feature: FeatureView
  supposition?: Supposition | undefined
  /** Absent where nothing can be tried out. */
  onSuppose?: (supposition: Supposition | undefined) => void
  onClose: () => void
}

/** One obstruction's life: its size now, what has happened to it, what if, and recording what happens next. */
export function ObstructionPanel({ feature, supposition, onSuppose, onClose }: Props) {
  const { on, isHead, view } = useGardenContext()
  const gardenId = view.garden.id
  const record = useGardenWrite(
    planEndpoints.recordEvent,
    { gardenId, featureId: feature.id },
    `${feature.name}: recorded.`,
  )
  const end = useGardenWrite(planEndpoints.endFeature, { gardenId, featureId: feature.id }, ({ to }) =>
    to ? `${feature.name} is gone from ${dayMonthYear(to)}.` : `${feature.name} stands again.`,
  )
  const undo = useGardenWrite(
    planEndpoints.takeBackEvent,
    { gardenId, featureId: feature.id },
    `${feature.name}: the latest entry is taken back.`,
  )
  const makeSo = useGardenWrite(
    planEndpoints.changeFeature,
    { gardenId, featureId: feature.id },
    ({ date }) => `${feature.name}: recorded as so from ${dayMonthYear(date)}.`,
  )
  const [day, setDay] = useState(on)
  const [open, setOpen] = useState<string[]>([onSuppose ? 'what if' : 'happened'])
  const obstruction = obstructionOf(feature)
  if (!obstruction) return null
  const solid = standingOn(obstruction, on)
  const changes = changesOf(obstruction)
  const recorded = changes.some((c) => c.what !== 'appeared' && c.what !== 'gone')
  return (
    <section className="light-panel stack" aria-label={feature.name}>
      <div className="spread">
        <h2>{feature.name}</h2>
        <Button size="small" type="text" onClick={onClose} aria-label="Close">
          ✕
        </Button>
      </div>
      <p>
        {solid
          ? `${feature.kind}, ${solid.heightM.toFixed(1)} m high${solid.shape === 'crown' ? `, crown ${(2 * solid.radiusM).toFixed(1)} m across` : ''}${
              solid.shape !== 'prism' && solid.transmission > 0
                ? `, lets ${Math.round(solid.transmission * 100)} % of the sun through`
                : ''
            }.`
          : 'Not standing on this day.'}
        {typeof feature.properties.note === 'string' && ` ${feature.properties.note}`}
      </p>
      <Collapse
        ghost
        size="small"
        activeKey={open}
        onChange={setOpen}
        items={[
          ...(solid && onSuppose
            ? [
                {
                  key: 'what if',
                  label: 'What if',
                  children: (
                    <>
                      <SuppositionForm
                        obstruction={obstruction}
                        supposition={supposition}
                        onSuppose={onSuppose}
                      />
                      {supposition && (
                        <div className="row">
                          <Button size="small" onClick={() => onSuppose(undefined)}>
                            Put it back
                          </Button>
                          {isHead && (
                            <Button
                              size="small"
                              loading={makeSo.isPending}
                              onClick={() => {
                                const { obstructionId: _, ...change } = supposition
                                makeSo.mutate(
                                  { date: day, change },
                                  { onSuccess: () => onSuppose(undefined) },
                                )
                              }}
                            >
                              Record it as so from {shortDate(day)}
                            </Button>
                          )}
                        </div>
                      )}
                    </>
                  ),
                },
              ]
            : []),
          ...(isHead && solid
            ? [
                {
                  key: 'happened',
                  label: 'Record what happened',
                  children: (
                    <ChangeForm
                      key={day}
                      kind={feature.kind}
                      heightM={solid.heightM}
                      on={day}
                      busy={record.isPending || end.isPending}
                      onRecord={(action, date, value) =>
                        action === 'gone'
                          ? end.mutate({ to: date })
                          : record.mutate(eventOf(action, date, value))
                      }
                    />
                  ),
                },
              ]
            : []),
          ...(isHead
            ? [
                {
                  key: 'correct',
                  label: 'Put right what is drawn',
                  children: (
                    <CorrectForm
                      feature={feature}
                      onDone={() => setOpen([onSuppose ? 'what if' : 'happened'])}
                    />
                  ),
                },
              ]
            : []),
        ]}
      />
      <Life obstruction={obstruction} on={on} onDay={setDay} />
      {changes.length > 0 && (
        <small>{changes.map((c) => `${changeWords[c.what]} ${dayMonthYear(c.date)}`).join('; ')}</small>
      )}
      {isHead && (
        <div className="row">
          {feature.to && (
            <Button size="small" onClick={() => end.mutate({ to: null })}>
              It stands after all
            </Button>
          )}
          {recorded && (
            <Button size="small" onClick={() => undo.mutate({})}>
              Take back the latest entry
            </Button>
          )}
        </div>
      )}
    </section>
  )
}

function eventOf(
  action: Exclude<Action, 'gone'>,
  date: string,
  value: number,
): BodyOf<typeof planEndpoints.recordEvent> {
  switch (action) {
    case 'limbed':
      return { action, date, clearStemM: value }
    case 'thinned':
      return { action, date, fraction: value / 100 }
    case 'lowered':
    case 'measured':
      return { action, date, heightM: value }
  }
}

interface ChangeFormProps {
  kind: FeatureView['kind']
  heightM: number
  on: string
  busy: boolean
  onRecord: (action: Action, date: string, value: number) => void
}

function ChangeForm({ kind, heightM, on, busy, onRecord }: ChangeFormProps) {
  const actions: Action[] =
    kind === 'tree'
      ? ['gone', 'limbed', 'lowered', 'thinned', 'measured']
      : kind === 'hedge'
        ? ['gone', 'lowered', 'thinned', 'measured']
        : ['gone', 'lowered', 'measured']
  const [action, setAction] = useState<Action>('gone')
  const usual = {
    gone: 0,
    limbed: Math.min(3, heightM / 2),
    lowered: heightM / 2,
    thinned: 25,
    measured: heightM,
  }[action]
  return (
    <Form
      name="obstruction"
      key={action}
      layout="vertical"
      className="obstruction-form"
      initialValues={{ date: dayjs(on), value: Math.round(usual * 10) / 10 }}
      onFinish={({ date, value }: { date: Dayjs; value?: number }) =>
        onRecord(action, date.format('YYYY-MM-DD'), value ?? 0)
      }
    >
      <div className="row">
        <Select<Action>
          aria-label="What happened"
          value={action}
          onChange={setAction}
          options={actions.map((a) => ({ value: a, label: actionWords[a] }))}
          style={{ width: 130 }}
        />
        {action !== 'gone' && (
          <Form.Item name="value" noStyle rules={[{ required: true }]}>
            <InputNumber
              aria-label={actionWords[action]}
              min={0}
              max={action === 'thinned' ? 100 : action === 'measured' ? 120 : heightM}
              step={action === 'thinned' ? 5 : 0.1}
              suffix={action === 'thinned' ? '%' : 'm'}
              style={{ width: 96 }}
            />
          </Form.Item>
        )}
      </div>
      <div className="row" style={{ marginTop: 8 }}>
        <Form.Item name="date" noStyle rules={[{ required: true, message: 'Since when?' }]}>
          <DatePicker aria-label="Since" format="D MMM YYYY" allowClear={false} />
        </Form.Item>
        <Button type="primary" htmlType="submit" loading={busy}>
          Record
        </Button>
      </div>
    </Form>
  )
}
