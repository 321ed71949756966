import { planEndpoints } from '@border/contract'
import { addDays, dayMonthYear, type Cause } from '@border/core'
import dayjs from 'dayjs'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { DayPicker } from '../units/DayPicker.tsx'

/**
 * Puts a believed change on the plan with its day; something new stands there as a building, to be measured.
 *
 * @param before the day of the first reading, which the change came before
 */
export function ConfirmCause({
  cause,
  before,
}: {
  cause: Exclude<Cause, { what: 'as drawn' }>
  before: string
}) {
  const { view } = useGardenContext()
  const [day, setDay] = useState(addDays(before, -1))
  const featureId = 'obstructionId' in cause ? cause.obstructionId : ''
  const change = useGardenWrite(
    planEndpoints.changeFeature,
    { gardenId: view.garden.id, featureId },
    ({ date }) => `On the plan from ${dayMonthYear(date)}.`,
    () => view.features.find((f) => f.id === featureId),
  )
  const build = useGardenWrite(
    planEndpoints.edit,
    { gardenId: view.garden.id },
    'On the plan. Measure it when you can, and put it right.',
    () => [],
  )
  const confirm = () => {
    if (cause.what === 'new') {
      const { ring, heightM } = cause.building
      const feature = {
        type: 'Feature',
        properties: { kind: 'building', name: 'New building, as read from the light', heightM, from: day },
        geometry: { type: 'Polygon', coordinates: [[...ring, ring[0]]] },
      }
      build.mutate({ parts: [{ id: crypto.randomUUID(), feature }] })
      return
    }
    const { obstructionId: _, ...rest } = cause.supposition
    change.mutate({ date: day, change: rest })
  }
  return (
    <div className="row">
      <DayPicker
        aria-label="Since when"
        size="small"
        allowClear={false}
        value={dayjs(day)}
        onChange={(d) => d && setDay(d.format('YYYY-MM-DD'))}
      />
      <Button size="small" look="primary" loading={change.isPending || build.isPending} onClick={confirm}>
        Put it on the plan
      </Button>
    </div>
  )
}
