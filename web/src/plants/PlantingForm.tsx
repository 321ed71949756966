import { plantingEndpoints, type BenchView, type FeatureView, type PlantingView } from '@border/contract'
import {
  areaM2,
  extentOf,
  innerPoint,
  isPlace,
  middleOf,
  plantingSources,
  selfCrossing,
  type Point,
} from '@border/core'
import { Alert, Button, DatePicker, Form, Input, InputNumber, Modal, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { CornerInputs } from '../draw/CornerInputs.tsx'
import '../draw/draw.css'
import { DraftShape } from '../draw/DraftShape.tsx'
import { PointInputs } from '../draw/PointInputs.tsx'
import { snapped } from '../draw/outline.ts'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { grow, pointsOf, type PlanScale } from '../plan/scale.ts'
import { useTaxa } from './queries.ts'
import './plants.css'
import { nextTag } from './tags.ts'

interface Values {
  taxonBotanical: string
  placeId: string
  count: number
  tag: string
  plantedOn: Dayjs
  source: (typeof plantingSources)[number]
  role?: string | null
  acrossM?: number | null
}

type Ground = 'a round' | 'as drawn'

interface Props {
  /** Planted off the bench. */
  bench?: BenchView
  /** Put right instead of added. */
  planting?: PlantingView
  onClose: () => void
}

/** A planting by hand, off the bench, or put right: what, how many, where (clicked or typed), since when. */
export function PlantingForm({ bench, planting, onClose }: Props) {
  const { view, standing, today } = useGardenContext()
  const { data: taxa } = useTaxa()
  const [form] = Form.useForm<Values>()
  const places = standing.filter(isPlace)
  const placeId = Form.useWatch('placeId', form)
  const place = places.find((p) => p.id === placeId)
  const [at, setAt] = useState<readonly [number, number] | undefined>(planting && [planting.x, planting.y])
  const add = useGardenWrite(plantingEndpoints.add, { gardenId: view.garden.id }, 'Planting added.')
  const amend = useGardenWrite(
    plantingEndpoints.amend,
    { gardenId: view.garden.id, plantingId: planting?.id ?? '' },
    'Put right; everything that hangs on it follows.',
  )
  const [ground, setGround] = useState<Ground>(planting?.outline ? 'as drawn' : 'a round')
  const [corners, setCorners] = useState<readonly Point[]>(planting?.outline ?? [])
  const drawn = ground === 'as drawn' && place?.kind === 'bed'
  const wrong = drawn ? outlineProblem(corners) : undefined
  const spot = at ?? (place && proposedAt(place))
  const submit = ({ acrossM, ...v }: Values) => {
    if (wrong) return
    const [x, y] = drawn ? innerPoint(corners) : spot!
    const said = {
      ...v,
      plantedOn: v.plantedOn.format('YYYY-MM-DD'),
      x,
      y,
      ...(drawn ? { outline: corners } : acrossM && { radiusM: acrossM / 2 }),
    }
    if (planting) amend.mutate(said, { onSuccess: onClose })
    else add.mutate({ ...said, ...(bench && { benchId: bench.id }) }, { onSuccess: onClose })
  }
  return (
    <Modal
      open
      title={planting ? `Put ${planting.tag} right` : 'Add a planting'}
      okText={planting ? 'Put it right' : 'Add'}
      onCancel={onClose}
      onOk={form.submit}
      okButtonProps={{ disabled: wrong !== undefined }}
      confirmLoading={add.isPending || amend.isPending}
      width={680}
    >
      {places.length === 0 ? (
        <p>There is no bed or pot to plant in yet. Draw one under Plan first.</p>
      ) : (
        <Form<Values>
          name="planting"
          form={form}
          layout="vertical"
          requiredMark={false}
          onFinish={submit}
          initialValues={
            planting
              ? {
                  taxonBotanical: planting.taxon.botanical,
                  placeId: planting.placeId,
                  count: planting.plantedCount,
                  tag: planting.tag,
                  plantedOn: dayjs(planting.plantedOn),
                  source: planting.source,
                  role: planting.role,
                  acrossM: planting.radiusM && 2 * planting.radiusM,
                }
              : {
                  count: bench?.count ?? 1,
                  taxonBotanical: bench?.botanical,
                  plantedOn: dayjs(today),
                  source: bench?.fromTag ? 'division' : 'bought',
                  placeId: places[0]!.id,
                  tag: nextTag(view.plantings.map((p) => p.tag)),
                }
          }
        >
          <div className="form-grid">
            <Form.Item
              name="taxonBotanical"
              label="Taxon"
              rules={[{ required: true, message: 'Which plant?' }]}
            >
              <Select
                showSearch={{ optionFilterProp: 'label' }}
                options={taxa?.map((t) => ({ value: t.botanical, label: `${t.botanical}, ${t.common}` }))}
              />
            </Form.Item>
            <Form.Item name="placeId" label="Place" rules={[{ required: true }]}>
              <Select
                showSearch={{ optionFilterProp: 'label' }}
                options={places.map((p) => ({ value: p.id, label: p.name }))}
                onChange={() => {
                  setAt(undefined)
                  setCorners([])
                }}
              />
            </Form.Item>
            <Form.Item name="count" label="How many" rules={[{ required: true, message: 'How many?' }]}>
              <InputNumber min={1} max={10_000} precision={0} style={{ width: '100%' }} />
            </Form.Item>
            <Form.Item
              name="tag"
              label="Tag"
              rules={[{ required: true, message: 'A tag tells it from others' }]}
            >
              <Input maxLength={40} />
            </Form.Item>
            <Form.Item name="plantedOn" label="Planted on" rules={[{ required: true, message: 'When?' }]}>
              <DatePicker format="D MMM YYYY" maxDate={dayjs(today)} style={{ width: '100%' }} />
            </Form.Item>
            <Form.Item name="source" label="Came from">
              <Select options={plantingSources.map((s) => ({ value: s, label: s }))} />
            </Form.Item>
          </div>
          <div className="form-grid">
            {planting && (
              <Form.Item name="role" label="What it is for">
                <Input maxLength={120} placeholder="not said" />
              </Form.Item>
            )}
            {place?.kind === 'bed' && (
              <Form.Item label="Its ground">
                <Segments<Ground>
                  label="Its ground"
                  options={['a round', 'as drawn']}
                  value={ground}
                  onChange={setGround}
                />
              </Form.Item>
            )}
            {!drawn && (
              <Form.Item name="acrossM" label="The drift across, if measured">
                <InputNumber min={0.04} max={100} step={0.1} suffix="m" style={{ width: '100%' }} />
              </Form.Item>
            )}
          </div>
          {place?.kind === 'bed' && spot && (
            <>
              <PlaceDrawing
                place={place}
                without={planting?.id}
                label={drawn ? 'the corners of the drift' : 'where the drift goes'}
                onSpot={(p) => {
                  if (drawn) setCorners([...corners, snapped(p)])
                  else setAt([round(p[0]), round(p[1])])
                }}
                overlay={(scale) =>
                  drawn ? (
                    <DraftShape corners={corners} closed scale={scale} />
                  ) : (
                    <circle className="plan-mark" cx={scale.x(spot[0])} cy={scale.y(spot[1])} r={9} />
                  )
                }
              />
              {drawn ? (
                <>
                  <CornerInputs shape="Polygon" least={3} corners={corners} onCorners={setCorners} />
                  {corners.length > 0 && (
                    <div className="row">
                      <span>{corners.length > 2 && !wrong ? `${round(areaM2(corners))} m²` : ''}</span>
                      <Button size="small" onClick={() => setCorners(corners.slice(0, -1))}>
                        Take the last corner back
                      </Button>
                    </div>
                  )}
                  {wrong && corners.length > 2 && <Alert type="error" title={wrong} />}
                </>
              ) : (
                <div className="row" style={{ marginBottom: 8 }}>
                  <span>Middle of the drift:</span>
                  <PointInputs at={spot} onAt={setAt} />
                </div>
              )}
            </>
          )}
        </Form>
      )}
    </Modal>
  )
}

interface PlaceDrawingProps {
  place: FeatureView
  /** A planting that is left out of the drawing: it is drawn anew. */
  without: string | undefined
  /** What a click is for. */
  label: string
  onSpot: (at: Point) => void
  overlay: (scale: PlanScale) => React.ReactNode
}

/** One place of the plan, as wide as there is room, to be clicked. */
function PlaceDrawing({ place, without, label, onSpot, overlay }: PlaceDrawingProps) {
  const { view, on } = useGardenContext()
  const [ref, { width }] = useSize()
  return (
    <div className="drawing" ref={ref}>
      {width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings.filter((p) => p.id !== without)}
          on={on}
          northDeg={view.garden.northDeg}
          width={width}
          height={210}
          extent={grow(extentOf(pointsOf(place)), 1)}
          label={`Plan of ${place.name}; click ${label}`}
          onPick={(p) => p.kind === 'spot' && onSpot([p.x, p.y])}
          overlay={overlay}
        />
      )}
    </div>
  )
}

/** What keeps corners from being the outline of a drift, for people. */
function outlineProblem(corners: readonly Point[]): string | undefined {
  if (corners.length < 3) return 'A drift has three corners at least.'
  const crossed = selfCrossing(corners)
  if (crossed) return `Its edge crosses itself, after corners ${crossed[0] + 1} and ${crossed[1] + 1}.`
  return undefined
}

const round = (v: number) => Math.round(v * 100) / 100

/** Where a new planting is proposed: the middle of its place, to the centimetre in a bed. */
function proposedAt({ geometry }: { geometry: Parameters<typeof middleOf>[0] }): readonly [number, number] {
  const [x, y] = middleOf(geometry)
  return geometry.type === 'Point' ? [x, y] : [round(x), round(y)]
}
