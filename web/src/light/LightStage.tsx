import { isAlive } from '@border/core'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { later, themed } from '../frame/later.tsx'
import { Legend } from './Legend.tsx'
import { useLight } from './lightContext.ts'
import { LightPlan } from './LightPlan.tsx'

// What is not seen at first is not fetched at first.
const MomentBar = later(themed(async () => (await import('./MomentBar.tsx')).MomentBar))

/** The drawings, what of the garden they show, and what their colours mean. */
export function LightStage() {
  const { state, shown, moment } = useLight()
  return (
    <div className="light-stage">
      <div className={`light-plans${shown === 'side by side' ? ' two' : ''}`}>
        <Plans />
      </div>
      <div className="light-corner">
        <PartShown />
        {state.period !== 'moment' && <Working />}
      </div>
      {state.period === 'moment' ? <MomentBar moment={moment} /> : <Legend />}
    </div>
  )
}

function Plans() {
  const { shown, light, names } = useLight()
  if (shown === 'side by side')
    return (
      <>
        <LightPlan scene={light.before} caption={names.before} />
        <LightPlan scene={light.after} caption={names.after} tried={light.tried} />
      </>
    )
  if (shown === 'difference')
    return <LightPlan scene={light.after} less={light.before.field} tried={light.tried} />
  return shown === 'before' ? (
    <LightPlan scene={light.before} canDrag />
  ) : (
    <LightPlan scene={light.after} tried={light.tried} canDrag />
  )
}

const WHOLE = 'garden'

function PartShown() {
  const { view, on } = useGardenContext()
  const { state, dispatch } = useLight()
  const beds = view.features.filter((f) => f.kind === 'bed' && isAlive(f, on))
  return (
    <Choose
      label="Part of the plan shown"
      value={state.look ?? WHOLE}
      onChange={(id) => dispatch({ do: 'show', what: { look: id === WHOLE ? undefined : id } })}
      options={[
        { value: WHOLE, label: 'Whole garden' },
        ...beds.map((f) => ({ value: f.id, label: f.name })),
      ]}
    />
  )
}

function Working() {
  const { light } = useLight()
  if (light.failed)
    return (
      <span className="light-busy" role="alert">
        The light could not be worked out. Change the date or what you try, and it is tried afresh.
      </span>
    )
  return (
    light.refiningM !== undefined && (
      <span className="light-busy" role="status">
        working out the light
      </span>
    )
  )
}
