import { climateEndpoints, type UnfittedClimate } from '@border/contract'
import {
  celsius,
  dayMonth,
  fromDayOfYear,
  knownLimits,
  zoneMiddleC,
  zoneOf,
  type KnownClimate,
} from '@border/core'
import { Form, Input } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useUnfitted } from './queries.ts'
import { DayPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

type Numbers = Pick<KnownClimate, 'hottestC' | 'coldestMonthC' | 'rainMm' | 'heightM' | 'seaKm'>
type Fields = { lastFrost?: Dayjs | null; firstFrost?: Dayjs | null; zone?: string } & {
  [Name in keyof Numbers]: number | null
}

// The year is a leap year, so that every day of a year can be chosen.
const YEAR = 2024
const dayOf = (monthDay: string | undefined) => (monthDay ? dayjs(`${YEAR}-${monthDay}`) : undefined)
const monthDayOf = (day: Dayjs | null | undefined) => day?.format('MM-DD')

interface NumberField {
  name: keyof Numbers
  label: string
  unit: string
  /** What is taken without it, in words. */
  without: (record: NonNullable<UnfittedClimate>) => string
}

const madeUpFields: readonly NumberField[] = [
  {
    name: 'hottestC',
    label: 'Hottest month, usual highest by day',
    unit: '°C',
    without: (r) => celsius(Math.round(r.hottestC)),
  },
  {
    name: 'coldestMonthC',
    label: 'Coldest month, usual lowest at night',
    unit: '°C',
    without: (r) => celsius(Math.round(r.coldestMonthC)),
  },
  {
    name: 'rainMm',
    label: 'Rain and snow of a year',
    unit: 'mm',
    without: (r) => `${Math.round(r.rainMm / 10) * 10} mm`,
  },
  {
    name: 'heightM',
    label: 'Height above the sea',
    unit: 'm',
    without: (r) => (r.heightM === null ? '' : `${Math.round(r.heightM / 10) * 10} m`),
  },
  {
    name: 'seaKm',
    label: 'Distance to the sea',
    unit: 'km',
    without: () => 'as the towns lie',
  },
]

const requestOf = ({ lastFrost, firstFrost, zone, ...numbers }: Fields): KnownClimate => ({
  ...(lastFrost && { lastFrost: monthDayOf(lastFrost) }),
  ...(firstFrost && { firstFrost: monthDayOf(firstFrost) }),
  ...(zone && { coldestC: zoneMiddleC(zone) }),
  ...Object.fromEntries(Object.entries(numbers).filter(([, v]) => typeof v === 'number')),
})

/** What the gardener knows of the climate, each beside what is taken without it: it puts right what a record, or a guess, says. */
export function KnownClimateForm() {
  const { view, isHead } = useGardenContext()
  const known = view.knownClimate
  const keep = useGardenWrite(
    climateEndpoints.sayKnown,
    { gardenId: view.garden.id },
    (k) =>
      Object.keys(k).length > 0 ? 'Kept; dates follow it.' : 'Taken back; dates go by the record again.',
    () => ({ known }),
  )
  const unfitted = useUnfitted(view.garden.id)
  const isMadeUp = view.climate?.isSimulated ?? false
  return (
    <>
      <h3>What you know of it</h3>
      <p className="soft">
        {isMadeUp
          ? 'Whatever you know goes before what is made up, and the rest of the year is fitted to it. Leave out what you do not know.'
          : 'Your own frost dates and zone go before what the record says. Leave out what you do not know.'}
      </p>
      <Answered of={[unfitted]}>
        {(record) => (
          <Form<Fields>
            name="known-climate"
            key={JSON.stringify(known)}
            layout="vertical"
            disabled={!isHead}
            className="known-climate"
            initialValues={{
              ...known,
              lastFrost: dayOf(known?.lastFrost),
              firstFrost: dayOf(known?.firstFrost),
              zone: known?.coldestC === undefined ? undefined : zoneOf(known.coldestC),
            }}
            onFinish={(f) => keep.mutate(requestOf(f))}
          >
            <Form.Item
              name="lastFrost"
              label="Last frost of spring, usually"
              extra={dateWithout(record?.lastFrost)}
            >
              <DayPicker format="D MMMM" inputReadOnly />
            </Form.Item>
            <Form.Item
              name="firstFrost"
              label="First frost of autumn, usually"
              extra={dateWithout(record?.firstFrost)}
            >
              <DayPicker format="D MMMM" inputReadOnly />
            </Form.Item>
            <Form.Item
              name="zone"
              label="Hardiness zone"
              extra={record && `without it: ${zoneOf(record.coldestC)}`}
              rules={[
                {
                  validator: (_, zone?: string) =>
                    !zone || zoneMiddleC(zone) !== undefined
                      ? Promise.resolve()
                      : Promise.reject(new Error('1 to 13, with a or b: 8b')),
                },
              ]}
            >
              <Input placeholder="8b" maxLength={3} />
            </Form.Item>
            {isMadeUp &&
              madeUpFields.map(({ name, label, unit, without }) => (
                <Form.Item
                  key={name}
                  name={name}
                  label={label}
                  extra={record && without(record) && `without it: ${without(record)}`}
                >
                  <QuantityInput min={knownLimits[name][0]} max={knownLimits[name][1]} suffix={unit} />
                </Form.Item>
              ))}
            {isHead && (
              <div className="row">
                <Button type="submit" loading={keep.isPending}>
                  Keep it
                </Button>
                {known && (
                  <Button look="text" onClick={() => keep.mutate({})}>
                    Take it back
                  </Button>
                )}
              </div>
            )}
          </Form>
        )}
      </Answered>
    </>
  )
}

const dateWithout = (dayOfYear: number | null | undefined) =>
  dayOfYear !== undefined &&
  `without it: ${dayOfYear === null ? 'none in most years' : dayMonth(fromDayOfYear(YEAR, Math.round(dayOfYear)))}`
