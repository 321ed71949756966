import { extentOf } from '@border/core'
import { useDeferredValue, useMemo, useReducer } from 'react'
import { useParam } from '../frame/address.ts'
import { errorText } from '../api/writes.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { shortMonthYear } from '../frame/words.ts'
import { gardenExtent, grow, pointsOf } from '../plan/scale.ts'
import { useAssessment } from '../verdicts/queries.ts'
import { LightAside } from './LightAside.tsx'
import './light.css'
import { LightProvider, type LightContext } from './lightContext.ts'
import { LightSentence } from './LightSentence.tsx'
import { LightStage } from './LightStage.tsx'
import { firstLook, lightReducer, scenesShown } from './lightState.ts'
import { LightTools } from './LightTools.tsx'
import { useMoment } from './useMoment.ts'
import { usePlanLight } from './usePlanLight.ts'

/** The plan with hours of sun as a field, then, now and tried otherwise, beside what that means for the plantings. */
export function LightScreen() {
  const { view } = useGardenContext()
  const { error, ...context } = useLightContext()
  return (
    <LightProvider value={context}>
      <ScreenHead
        title="Light"
        lead={error ? errorText(error) : <LightSentence view={view} assessment={context.assessment} />}
      >
        <LightTools />
      </ScreenHead>
      <div className="screen-split">
        <LightStage />
        <LightAside />
      </div>
    </LightProvider>
  )
}

function useLightContext(): LightContext & { error: unknown } {
  const { view, on, today } = useGardenContext()
  const { then, askedThen, chooseThen, assessment, error } = useThen()
  const [state, dispatch] = useReducer(lightReducer, firstLook)
  const { period, suppositions, look } = state
  const shown = scenesShown(state)
  const light = usePlanLight({ period, then, suppositions, wanted: shown })
  const lightForLists = useDeferredValue(light)
  const moment = useMoment(period === 'moment')
  const outside = useMemo(
    () => new Set(assessment?.assessments.filter((a) => a.outside).map((a) => a.plantingId)),
    [assessment],
  )
  const extent = useMemo(() => {
    const place = view.features.find((f) => f.id === look)
    return place ? grow(extentOf(pointsOf(place)), 2) : gardenExtent(view.features)
  }, [view.features, look])
  const names =
    suppositions.size > 0
      ? { before: 'As it stands', after: 'What if' }
      : {
          before: then ? shortMonthYear(then) : 'Then',
          after: on === today ? 'Now' : shortMonthYear(on),
        }
  return {
    state,
    shown,
    dispatch,
    then,
    askedThen,
    chooseThen,
    assessment,
    light,
    lightForLists,
    moment,
    outside,
    extent,
    names,
    error,
  }
}

/** The day that is compared with: asked for in the address, else the one the assessment finds worth it. */
function useThen() {
  const { view, asOf } = useGardenContext()
  const [askedThen, chooseThen] = useParam('then')
  const { data: assessment, error } = useAssessment(view.garden.id, asOf, askedThen)
  return { then: askedThen ?? assessment?.then, askedThen, chooseThen, assessment, error }
}
