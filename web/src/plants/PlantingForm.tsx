import {
  plantingEndpoints,
  plantingSeen,
  type BenchView,
  type FeatureView,
  type PlantingView,
} from '@border/contract'
import {
  colourFollowsSoil,
  colourWishes,
  isPlace,
  nextTag,
  plantingSources,
  readPlanted,
  writtenPlanted,
  type ColourWish,
} from '@border/core'
import { Form, Input, Modal, Select } from 'antd'
import { useGardenWrite } from '../api/writes.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useBegunWith } from '../frame/useBegunWith.ts'
import { Segments } from '../frame/Segments.tsx'
import { DriftOnPlan } from './DriftOnPlan.tsx'
import './plants.css'
import { TaxonSelect } from './TaxonSelect.tsx'
import { driftSent, useDrift, type Drift, type Ground } from './useDrift.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Values {
  taxonBotanical: string
  placeId: string
  count: number
  tag: string
  planted: string
  source: (typeof plantingSources)[number]
  role?: string | null
  colourWish?: ColourWish | null
  acrossM?: number | null
}

interface Props {
  /** Planted off the bench. */
  bench?: BenchView
  /** Put right instead of added. */
  planting?: PlantingView
  onClose: () => void
}

/** A planting by hand, off the bench, or put right: what, how many, where (clicked or typed), since when. */
export function PlantingForm({ bench, planting, onClose }: Props) {
  const { standing } = useGardenContext()
  const [form] = Form.useForm<Values>()
  const places = standing.filter(isPlace)
  const placeId = Form.useWatch('placeId', form)
  const place = places.find((p) => p.id === placeId)
  const drift = useDrift(planting, place)
  const { send, isPending } = usePlantingWrite({ bench, planting, onClose })
  const initialValues = useInitialValues({ bench, planting, places })
  return (
    <Modal
      open
      title={planting ? `Put ${planting.tag} right` : 'Add a planting'}
      okText={planting ? 'Put it right' : 'Add'}
      onCancel={onClose}
      onOk={form.submit}
      okButtonProps={{ disabled: drift.wrong !== undefined }}
      confirmLoading={isPending}
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
          onFinish={(values) => !drift.wrong && send(values, drift)}
          initialValues={initialValues}
        >
          <WhatAndWhen places={places} onPlace={drift.forget} />
          <div className="form-grid">
            {planting && (
              <Form.Item name="role" label="What it is for">
                <Input maxLength={120} placeholder="not said" />
              </Form.Item>
            )}
            {planting && colourFollowsSoil(planting.taxon) && (
              <Form.Item name="colourWish" label="Flowers wished">
                <Select
                  allowClear
                  placeholder="as they come"
                  options={colourWishes.map((c) => ({ value: c, label: c }))}
                />
              </Form.Item>
            )}
            {place?.kind === 'bed' && (
              <Form.Item label="Its ground">
                <Segments<Ground>
                  label="Its ground"
                  options={['a round', 'as drawn']}
                  value={drift.ground}
                  onChange={drift.setGround}
                />
              </Form.Item>
            )}
            {!drift.isDrawn && (
              <Form.Item name="acrossM" label="The drift across, if measured">
                <QuantityInput min={0.04} max={100} step={0.1} suffix="m" style={{ width: '100%' }} />
              </Form.Item>
            )}
          </div>
          {place?.kind === 'bed' && <DriftOnPlan drift={drift} bed={place} without={planting?.id} />}
        </Form>
      )}
    </Modal>
  )
}

/** What is added or put right, as it was filled in. */
function usePlantingWrite({ bench, planting, onClose }: Props) {
  const { view, today } = useGardenContext()
  const gardenId = view.garden.id
  const seen = useBegunWith(planting && plantingSeen(planting))
  const add = useGardenWrite(plantingEndpoints.add, { gardenId }, 'Planting added.')
  const amend = useGardenWrite(
    plantingEndpoints.amend,
    { gardenId },
    'Put right; everything that hangs on it follows.',
    () => seen && [seen],
  )
  const send = ({ acrossM, ...values }: Values, drift: Drift) => {
    const { planted, ...rest } = values
    const said = { ...rest, ...readPlanted(planted, today)!, ...driftSent(drift, acrossM) }
    if (planting) amend.mutate({ plantings: [{ plantingId: planting.id, ...said }] }, { onSuccess: onClose })
    else add.mutate({ plantings: [{ ...said, ...(bench && { benchId: bench.id }) }] }, { onSuccess: onClose })
  }
  return { send, isPending: add.isPending || amend.isPending }
}

function useInitialValues({
  bench,
  planting,
  places,
}: Pick<Props, 'bench' | 'planting'> & { places: readonly FeatureView[] }): Partial<Values> {
  const { view, today } = useGardenContext()
  if (planting)
    return {
      taxonBotanical: planting.taxon.botanical,
      placeId: planting.placeId,
      count: planting.plantedCount,
      tag: planting.tag,
      planted: writtenPlanted(planting),
      source: planting.source,
      role: planting.role,
      colourWish: planting.colourWish,
      acrossM: planting.radiusM && 2 * planting.radiusM,
    }
  return {
    count: bench?.count ?? 1,
    ...(bench && { taxonBotanical: bench.botanical }),
    planted: today,
    source: bench?.fromTag ? 'division' : 'bought',
    ...(places[0] && { placeId: places[0].id }),
    tag: nextTag(view.plantings.map((p) => p.tag)),
  }
}

/** What was planted, in which place, how many, under which tag, since when and from where. */
function WhatAndWhen({ places, onPlace }: { places: readonly FeatureView[]; onPlace: () => void }) {
  const { today } = useGardenContext()
  return (
    <div className="form-grid">
      <Form.Item name="taxonBotanical" label="Taxon" rules={[{ required: true, message: 'Which plant?' }]}>
        <TaxonSelect orUnknown />
      </Form.Item>
      <Form.Item name="placeId" label="Place" rules={[{ required: true }]}>
        <Select
          showSearch={{ optionFilterProp: 'label' }}
          options={places.map((p) => ({ value: p.id, label: p.name }))}
          onChange={onPlace}
        />
      </Form.Item>
      <Form.Item name="count" label="How many" rules={[{ required: true, message: 'How many?' }]}>
        <QuantityInput min={1} max={10_000} precision={0} style={{ width: '100%' }} />
      </Form.Item>
      <Form.Item name="tag" label="Tag" rules={[{ required: true, message: 'A tag tells it from others' }]}>
        <Input maxLength={40} />
      </Form.Item>
      <Form.Item
        name="planted"
        label="Planted"
        rules={[
          {
            validator: (_, text: string) =>
              readPlanted(text, today)
                ? Promise.resolve()
                : Promise.reject(new Error('2024-05-01, 2019, before 2015, or unknown')),
          },
        ]}
      >
        <Input placeholder="2024-05-01, 2019, before 2015, unknown" />
      </Form.Item>
      <Form.Item name="source" label="Came from">
        <Select options={plantingSources.map((s) => ({ value: s, label: s }))} />
      </Form.Item>
    </div>
  )
}
