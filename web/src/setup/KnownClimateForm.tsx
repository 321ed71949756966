import { climateEndpoints } from '@border/contract'
import type { KnownClimate } from '@border/core'
import { zoneMiddleC, zoneOf } from '@border/core'
import { DatePicker, Form, Input } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'

interface Fields {
  lastFrost?: Dayjs | null
  firstFrost?: Dayjs | null
  zone?: string
}

// The year is a leap year, so that every day of a year can be chosen.
const dayOf = (monthDay: string | undefined) => (monthDay ? dayjs(`2024-${monthDay}`) : undefined)
const monthDayOf = (day: Dayjs | null | undefined) => day?.format('MM-DD')

const requestOf = (f: Fields): KnownClimate => ({
  ...(f.lastFrost && { lastFrost: monthDayOf(f.lastFrost) }),
  ...(f.firstFrost && { firstFrost: monthDayOf(f.firstFrost) }),
  ...(f.zone && { coldestC: zoneMiddleC(f.zone) }),
})

/** What the gardener knows of the climate: it puts right what a record, or a guess, says. */
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
  return (
    <>
      <h3>What you know of it</h3>
      <p className="soft">
        Your own frost dates and zone go before what the record says. Leave out what you do not know.
      </p>
      <Form<Fields>
        name="known-climate"
        key={JSON.stringify(known)}
        layout="vertical"
        disabled={!isHead}
        className="known-climate"
        initialValues={{
          lastFrost: dayOf(known?.lastFrost),
          firstFrost: dayOf(known?.firstFrost),
          zone: known?.coldestC === undefined ? undefined : zoneOf(known.coldestC),
        }}
        onFinish={(f) => keep.mutate(requestOf(f))}
      >
        <Form.Item name="lastFrost" label="Last frost of spring, usually">
          <DatePicker format="D MMMM" inputReadOnly />
        </Form.Item>
        <Form.Item name="firstFrost" label="First frost of autumn, usually">
          <DatePicker format="D MMMM" inputReadOnly />
        </Form.Item>
        <Form.Item
          name="zone"
          label="Hardiness zone"
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
    </>
  )
}
