import { climateEndpoints, type SoilReadingView, type SoilView } from '@border/contract'
import { celsius, counted, isPlace, tenths, type SoilCorrection } from '@border/core'
import { Form, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { shortDate } from '../frame/words.ts'
import { BringCsv } from './BringCsv.tsx'
import { useSoil } from './queries.ts'
import { DayPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

const MOST_LISTED = 5

/** Readings of the soil at about 10 cm: they put right what the air says of it. */
export function SoilThermometer() {
  const { view } = useGardenContext()
  return (
    <>
      <h3>Soil thermometer</h3>
      <Answered of={[useSoil(view.garden.id)]}>{(soil) => <SoilReadings data={soil} />}</Answered>
    </>
  )
}

function SoilReadings({ data }: { data: SoilView }) {
  const { view, isHead, isCrew } = useGardenContext()
  const bring = useGardenWrite(
    climateEndpoints.bringSoil,
    { gardenId: view.garden.id },
    'Read: every reading is on record, once.',
  )
  return (
    <>
      <p>{correctionWords(data.correction)}</p>
      <ul className="plain-list">
        {data.readings.slice(0, MOST_LISTED).map((r) => (
          <Reading key={r.id} reading={r} />
        ))}
      </ul>
      {data.readings.length > MOST_LISTED && (
        <small>and {counted(data.readings.length - MOST_LISTED, 'earlier reading')}.</small>
      )}
      {isCrew && <ReadingForm />}
      {isHead && (
        <div>
          <BringCsv loading={bring.isPending} onText={(csv) => bring.mutate({ csv })}>
            Bring readings from soil.csv
          </BringCsv>
        </div>
      )}
    </>
  )
}

function Reading({ reading }: { reading: SoilReadingView }) {
  const { view, isCrew } = useGardenContext()
  const nameOf = usePlaceName()
  const withdraw = useGardenWrite(
    climateEndpoints.withdrawSoil,
    { gardenId: view.garden.id, readingId: reading.id },
    'Taken back.',
  )
  return (
    <li className="spread">
      <span>
        {shortDate(reading.day)}: {celsius(reading.celsius)}
        {reading.placeId && ` in ${nameOf(reading.placeId, 'a place')}`}
      </span>
      {isCrew && (
        <Button size="small" loading={withdraw.isPending} onClick={() => withdraw.mutate({})}>
          Take back
        </Button>
      )}
    </li>
  )
}

function ReadingForm() {
  const { view, standing, today } = useGardenContext()
  const [form] = Form.useForm()
  const add = useGardenWrite(
    climateEndpoints.measureSoil,
    { gardenId: view.garden.id },
    'Kept; what waits for the soil follows it.',
  )
  return (
    <Form
      name="soil"
      form={form}
      layout="inline"
      className="crew-line"
      initialValues={{ day: dayjs(today) }}
      onFinish={(v: { day: Dayjs; celsius: number; placeId?: string }) =>
        add.mutate(
          {
            day: v.day.format('YYYY-MM-DD'),
            celsius: v.celsius,
            ...(v.placeId && { placeId: v.placeId }),
          },
          { onSuccess: () => form.resetFields(['celsius']) },
        )
      }
    >
      <Form.Item name="day" rules={[{ required: true, message: 'Which day?' }]}>
        <DayPicker aria-label="Day of the reading" maxDate={dayjs(today)} />
      </Form.Item>
      <Form.Item name="celsius" rules={[{ required: true, message: 'What did it show?' }]}>
        <QuantityInput aria-label="Soil at 10 cm" min={-40} max={60} step={0.5} suffix="°C" />
      </Form.Item>
      <Form.Item name="placeId">
        <Select
          aria-label="Place"
          placeholder="anywhere"
          allowClear
          popupMatchSelectWidth={false}
          options={standing.filter(isPlace).map((f) => ({ value: f.id, label: f.name }))}
        />
      </Form.Item>
      <Button type="submit" loading={add.isPending}>
        Keep the reading
      </Button>
    </Form>
  )
}

function correctionWords({ days, offsetC, errorC }: SoilCorrection): string {
  if (days === 0)
    return 'No readings yet: the soil’s warmth is worked out from the air. Readings at 10 cm put it right.'
  const by = `${tenths(Math.abs(offsetC))} °C ${offsetC >= 0 ? 'warmer' : 'colder'}`
  return `By readings on ${counted(days, 'day')} the soil here is ${by} than the air says, give or take ${tenths(errorC)} °C. Every window that waits for the soil is moved by it.`
}
