import { dayMonthYear } from '@border/core'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { later } from '../frame/later.tsx'
import { shortDate, shortDayMonth } from '../frame/words.ts'
import { halfMonthOf, type PeriodName, type ViewName } from './look.ts'

const ThenDay = later(
  async () => (await import('./ThenDay.tsx')).ThenDay,
  ({ then }) => <span className="light-then">{then && shortDate(then)}</span>,
)

interface Props {
  period: PeriodName
  onPeriod: (period: PeriodName) => void
  viewName: ViewName
  onView: (view: ViewName) => void
  names: { before: string; after: string }
  /** False while a what-if is compared with things as they stand. */
  comparesDates: boolean
  then: string | undefined
  canClearThen: boolean
  onThen: (day: string | undefined) => void
}

/** Over what time, and which scenes. */
export function LightTools(props: Props) {
  const { on } = useGardenContext()
  const { period, names, then } = props
  return (
    <div className="screen-tools">
      <Segments<PeriodName>
        label="Period"
        value={period}
        onChange={props.onPeriod}
        options={[
          { value: 'season', label: 'Growing season' },
          {
            value: 'half-month',
            label: 'Half-month',
            title: `The half-month about ${shortDayMonth(halfMonthOf(on))}`,
          },
          { value: 'moment', label: 'Moment', title: `Shadows on ${dayMonthYear(on)}` },
        ]}
      />
      <Segments<ViewName>
        label="Then or now"
        value={period === 'moment' && props.viewName === 'difference' ? 'side by side' : props.viewName}
        onChange={props.onView}
        options={[
          { value: 'before', label: names.before },
          { value: 'after', label: names.after },
          { value: 'side by side', label: 'Both' },
          { value: 'difference', label: 'Difference', disabled: period === 'moment' },
        ]}
      />
      {props.comparesDates && <ThenDay then={then} canClear={props.canClearThen} onThen={props.onThen} />}
    </div>
  )
}
