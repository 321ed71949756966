import { dayMonthYear } from '@border/core'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDayMonth } from '../frame/words.ts'
import { useLight } from './lightContext.ts'
import { halfMonthOf, type PeriodName, type ViewName } from './look.ts'
import { ThenDay } from './ThenDay.tsx'

/** Over what time, and which scenes. */
export function LightTools() {
  const { on } = useGardenContext()
  const { state, shown, dispatch, names, then, askedThen, chooseThen } = useLight()
  const { period, suppositions } = state
  return (
    <div className="screen-tools">
      <Segments<PeriodName>
        label="Period"
        value={period}
        onChange={(period) => dispatch({ do: 'show', what: { period } })}
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
        value={shown}
        onChange={(viewName) => dispatch({ do: 'show', what: { viewName } })}
        options={[
          { value: 'before', label: names.before },
          { value: 'after', label: names.after },
          { value: 'side by side', label: 'Both' },
          { value: 'difference', label: 'Difference', disabled: period === 'moment' },
        ]}
      />
      {suppositions.size === 0 && (
        <ThenDay then={then} canClear={askedThen !== undefined} onThen={chooseThen} />
      )}
    </div>
  )
}
