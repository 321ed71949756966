import { climateEndpoints, type SoilReadingView, type SoilView } from '@border/contract'
import {
  celsius,
  counted,
  dayMonth,
  fromDayOfYear,
  isPlace,
  tenths,
  yearOf,
  zoneOf,
  type SoilCorrection,
} from '@border/core'
import { DatePicker, Form, InputNumber, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { shortDate } from '../frame/words.ts'
import { useSoil } from './queries.ts'
import { BringCsv } from './BringCsv.tsx'
import { KnownClimateForm } from './KnownClimateForm.tsx'

/** What the garden's years are like, by its weather record and its soil thermometers. */
export function WeatherRecord() {
  const { view, isHead, on } = useGardenContext()
  const bring = useGardenWrite(
    climateEndpoints.bringWeather,
    { gardenId: view.garden.id },
    'Record brought in; windows follow it from now on.',
  )
  const ask = useGardenWrite(
    climateEndpoints.askWeatherService,
    { gardenId: view.garden.id },
    (_, { isSimulated }) =>
      isSimulated
        ? 'The service has nothing measured for this place: what it sent is simulated.'
        : 'The service’s record is here, and goes on by itself; windows follow it.',
  )
  const { climate } = view
  const date = (doy: number) => dayMonth(fromDayOfYear(yearOf(on), Math.round(doy)))
  return (
    <section id="climate">
      <h2>Climate</h2>
      {climate ? (
        <>
          <p>
            {view.climateSource}: {climate.years} whole years, {climate.firstYear} to {climate.lastYear}.
            {climate.isSimulated &&
              ' Nobody measured it: it is made up from the latitude, and every date that hangs on it is a guess.'}
          </p>
          <dl className="facts">
            <Fact
              term="Last frost of spring"
              value={
                climate.lastFrost
                  ? `${climate.known.frost ? 'as you say: ' : ''}by ${date(climate.lastFrost.p50)} in half the years, by ${date(climate.lastFrost.p90)} in nine of ten`
                  : 'none in most years'
              }
            />
            <Fact
              term="First frost of autumn"
              value={
                climate.firstFrost
                  ? `${climate.known.frost ? 'as you say: ' : ''}from ${date(climate.firstFrost.p50)} in half the years, from ${date(climate.firstFrost.p10)} in one of ten`
                  : 'none in most years'
              }
            />
            <Fact
              term="Coldest night of a usual year"
              value={`${celsius(Math.round(climate.meanAnnualMinimumC * 10) / 10)}, zone ${zoneOf(climate.meanAnnualMinimumC)}${climate.known.winter ? ', as you say' : ''}`}
            />
            <Fact
              term="Soil at 10 cm"
              value={`${Math.min(...climate.soilC).toFixed(1)} to ${Math.max(...climate.soilC).toFixed(1)} °C through the year`}
            />
          </dl>
        </>
      ) : (
        <p>
          No record of at least three whole years, so no windows can be worked out. Bring one as weather.csv.
        </p>
      )}
      {isHead && (
        <div className="row">
          <BringCsv loading={bring.isPending} onText={(weather) => bring.mutate({ weather })}>
            Bring a record from weather.csv
          </BringCsv>
          <Button loading={ask.isPending} onClick={() => ask.mutate({})}>
            Ask the weather service
          </Button>
        </div>
      )}
      {climate && <KnownClimateForm />}
      {climate && <SoilThermometer />}
    </section>
  )
}

const Fact = ({ term, value }: { term: string; value: string }) => (
  <div>
    <dt>{term}</dt>
    <dd>{value}</dd>
  </div>
)

const MOST_LISTED = 5

/** Readings of the soil at about 10 cm: they put right what the air says of it. */
function SoilThermometer() {
  const { view } = useGardenContext()
  return (
    <>
      <h3>Soil thermometer</h3>
      <Answered of={[useSoil(view.garden.id)]}>{(soil) => <SoilReadings data={soil} />}</Answered>
    </>
  )
}

function SoilReadings({ data }: { data: SoilView }) {
  const { view, standing, isHead, isCrew, today } = useGardenContext()
  const nameOf = usePlaceName()
  const [form] = Form.useForm()
  const add = useGardenWrite(
    climateEndpoints.measureSoil,
    { gardenId: view.garden.id },
    'Kept; what waits for the soil follows it.',
  )
  const bring = useGardenWrite(
    climateEndpoints.bringSoil,
    { gardenId: view.garden.id },
    'Read: every reading is on record, once.',
  )
  const withdraw = useGardenWrite(
    climateEndpoints.withdrawSoil,
    ({ id }: { id: string }) => ({ gardenId: view.garden.id, readingId: id }),
    'Taken back.',
  )
  const line = (r: SoilReadingView) =>
    `${shortDate(r.day)}: ${celsius(r.celsius)}${r.placeId ? ` in ${nameOf(r.placeId, 'a place')}` : ''}`
  return (
    <>
      <p>{correctionWords(data.correction)}</p>
      <ul className="plain-list">
        {data.readings.slice(0, MOST_LISTED).map((r) => (
          <li key={r.id} className="spread">
            <span>{line(r)}</span>
            {isCrew && (
              <Button size="small" onClick={() => withdraw.mutate({ id: r.id })}>
                Take back
              </Button>
            )}
          </li>
        ))}
      </ul>
      {data.readings.length > MOST_LISTED && (
        <small>and {counted(data.readings.length - MOST_LISTED, 'earlier reading')}.</small>
      )}
      {isCrew && (
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
            <DatePicker aria-label="Day of the reading" format="D MMM YYYY" maxDate={dayjs(today)} />
          </Form.Item>
          <Form.Item name="celsius" rules={[{ required: true, message: 'What did it show?' }]}>
            <InputNumber aria-label="Soil at 10 cm" min={-40} max={60} step={0.5} suffix="°C" />
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
      )}
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

function correctionWords({ days, offsetC, errorC }: SoilCorrection): string {
  if (days === 0)
    return 'No readings yet: the soil’s warmth is worked out from the air. Readings at 10 cm put it right.'
  const by = `${tenths(Math.abs(offsetC))} °C ${offsetC >= 0 ? 'warmer' : 'colder'}`
  return `By readings on ${counted(days, 'day')} the soil here is ${by} than the air says, give or take ${tenths(errorC)} °C. Every window that waits for the soil is moved by it.`
}
