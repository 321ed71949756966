import { planEndpoints, type AnswerOf, type FeatureView, type BodyOf } from '@border/contract'
import {
  changesOf,
  dayMonthYear,
  obstructionOf,
  standing as standingOn,
  type Obstruction,
  type Solid,
  type Supposition,
} from '@border/core'
import { Collapse, Form, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { withPart } from '../draw/part.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { changeWords } from './changeWords.ts'
import { Life } from './Life.tsx'
import { SuppositionForm } from './SuppositionForm.tsx'
import { DayPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

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
  /** Something of it was recorded or taken back: the edit that it is. */
  onEdited?: ((edited: Edited) => void) | undefined
}

type Edited = AnswerOf<typeof planEndpoints.recordEvent>

/** One obstruction's life: its size now, what has happened to it, what if, and recording what happens next. */
export function ObstructionPanel({ feature, supposition, onSuppose, onClose, onEdited }: Props) {
  const { on, isHead } = useGardenContext()
  const [day, setDay] = useState(on)
  const usual = onSuppose ? 'what if' : 'happened'
  const [open, setOpen] = useState<string[]>([usual])
  const { search } = useLocation()
  const obstruction = obstructionOf(feature)
  if (!obstruction) return null
  const solid = standingOn(obstruction, on)
  const part = (key: string, label: string, children: React.ReactNode) => ({ key, label, children })
  return (
    <section className="light-panel stack" aria-label={feature.name}>
      <div className="spread">
        <h2>{feature.name}</h2>
        <Button size="small" look="text" onClick={onClose} aria-label="Close">
          ✕
        </Button>
      </div>
      <p>
        {solid ? sizeWords(feature, solid) : 'Not standing on this day.'}
        {typeof feature.properties.note === 'string' && (
          <span translate="no"> {feature.properties.note}</span>
        )}
      </p>
      <Collapse
        ghost
        size="small"
        activeKey={open}
        onChange={setOpen}
        items={[
          ...(solid && onSuppose
            ? [
                part(
                  'what if',
                  'What if',
                  <Trying {...{ feature, obstruction, supposition, onSuppose, day }} />,
                ),
              ]
            : []),
          ...(isHead && solid
            ? [
                part(
                  'happened',
                  'Record what happened',
                  <Happened
                    key={day}
                    feature={feature}
                    heightM={solid.heightM}
                    on={day}
                    onEdited={onEdited}
                  />,
                ),
              ]
            : []),
        ]}
      />
      {isHead && onSuppose && (
        <Link to={{ pathname: '../plan', search: withPart(search, feature.id) }}>
          Correct the drawing of it
        </Link>
      )}
      <Life obstruction={obstruction} on={on} onDay={setDay} />
      <Events feature={feature} obstruction={obstruction} onEdited={onEdited} />
    </section>
  )
}

function sizeWords(feature: FeatureView, solid: Solid): string {
  const across = solid.shape === 'crown' ? `, crown ${(2 * solid.radiusM).toFixed(1)} m across` : ''
  const through =
    solid.shape !== 'prism' && solid.transmission > 0
      ? `, lets ${Math.round(solid.transmission * 100)}\u00a0% of the sun through`
      : ''
  return `${feature.kind}, ${solid.heightM.toFixed(1)} m high${across}${through}.`
}

/** What if it were otherwise, and that it is so from a day. */
function Trying({
  feature,
  obstruction,
  supposition,
  onSuppose,
  day,
}: {
  feature: FeatureView
  obstruction: Obstruction
  supposition: Supposition | undefined
  onSuppose: (supposition: Supposition | undefined) => void
  day: string
}) {
  const { isHead, view } = useGardenContext()
  const makeSo = useGardenWrite(
    planEndpoints.changeFeature,
    { gardenId: view.garden.id, featureId: feature.id },
    ({ date }) => `${feature.name}: recorded as so from ${dayMonthYear(date)}.`,
    () => feature,
  )
  const record = ({ obstructionId: _, ...change }: Supposition) =>
    makeSo.mutate({ date: day, change }, { onSuccess: () => onSuppose(undefined) })
  return (
    <>
      <SuppositionForm obstruction={obstruction} supposition={supposition} onSuppose={onSuppose} />
      {supposition && (
        <div className="row">
          <Button size="small" onClick={() => onSuppose(undefined)}>
            Put it back
          </Button>
          {isHead && (
            <Button size="small" loading={makeSo.isPending} onClick={() => record(supposition)}>
              Record it as so from {shortDate(day)}
            </Button>
          )}
        </div>
      )}
    </>
  )
}

/** What has happened to it, and taking that back. */
function Events({
  feature,
  obstruction,
  onEdited,
}: { feature: FeatureView; obstruction: Obstruction } & Pick<Props, 'onEdited'>) {
  const { isHead, view } = useGardenContext()
  const end = useEnd(feature)
  const undo = useGardenWrite(
    planEndpoints.takeBackEvent,
    { gardenId: view.garden.id, featureId: feature.id },
    `${feature.name}: the latest entry is taken back.`,
    () => feature,
  )
  const changes = changesOf(obstruction)
  return (
    <>
      {changes.length > 0 && (
        <small>{changes.map((c) => `${changeWords[c.what]} ${dayMonthYear(c.date)}`).join('; ')}</small>
      )}
      {isHead && (
        <div className="row">
          {feature.to && (
            <Button size="small" onClick={() => end.mutate({ to: null }, { onSuccess: onEdited })}>
              It is still there
            </Button>
          )}
          {changes.some((c) => c.what !== 'appeared' && c.what !== 'gone') && (
            <Button size="small" onClick={() => undo.mutate({}, { onSuccess: onEdited })}>
              Take back the latest entry
            </Button>
          )}
        </div>
      )}
    </>
  )
}

function useEnd(feature: FeatureView) {
  const { view } = useGardenContext()
  return useGardenWrite(
    planEndpoints.endFeature,
    { gardenId: view.garden.id, featureId: feature.id },
    ({ to }) => (to ? `${feature.name} is gone from ${dayMonthYear(to)}.` : `${feature.name} stands again.`),
    () => feature,
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

/** Recording what happens to it next. */
function Happened({
  feature,
  heightM,
  on,
  onEdited,
}: { feature: FeatureView; heightM: number; on: string } & Pick<Props, 'onEdited'>) {
  const { view } = useGardenContext()
  const event = useGardenWrite(
    planEndpoints.recordEvent,
    { gardenId: view.garden.id, featureId: feature.id },
    `${feature.name}: recorded.`,
    () => feature,
  )
  const end = useEnd(feature)
  const record = (action: Action, date: string, value: number) =>
    action === 'gone'
      ? end.mutate({ to: date }, { onSuccess: onEdited })
      : event.mutate(eventOf(action, date, value), { onSuccess: onEdited })
  const actions: Action[] =
    feature.kind === 'tree'
      ? ['gone', 'limbed', 'lowered', 'thinned', 'measured']
      : feature.kind === 'hedge'
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
        record(action, date.format('YYYY-MM-DD'), value ?? 0)
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
            <QuantityInput
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
          <DayPicker aria-label="Since" allowClear={false} />
        </Form.Item>
        <Button look="primary" type="submit" loading={event.isPending || end.isPending}>
          Record
        </Button>
      </div>
    </Form>
  )
}
