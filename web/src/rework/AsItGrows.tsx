import {
  counted,
  fillersFor,
  groundM2,
  grownTo,
  grownWords,
  openGroundM2,
  type GrownOver,
  type StandingPlant,
} from '@border/core'
import { sum } from 'd3-array'
import { wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import type { GrowthWorker } from './growthWorker.ts'
import { newIn, overWords } from './growthWords.ts'
import { GROWTH_YEARS } from './useMoment.tsx'
import { useStanding, type Laid } from './useStanding.ts'
import '../season/season.css'
import './rework.css'

/** Nobody drags on for longer: what follows from it is worked out then. */
const SETTLES_MS = 700

/** What becomes of a scheme year by year: what closes, what wants dividing, what fills the gaps, what grows over what, and takes its sun. */
export function AsItGrows(laid: Laid) {
  const [isOpen, open] = useState(false)
  return (
    <details onToggle={(e) => open(e.currentTarget.open)}>
      <summary>As it grows</summary>
      {isOpen && <Years {...laid} />}
    </details>
  )
}

function Years(laid: Laid) {
  const plants = useStanding(laid)
  const { found, failed } = useGrownOver(plants)
  const { drifts } = laid.arranged
  const planted = useMemo(
    () =>
      drifts.map((d) => ({ taxon: d.taxon, count: d.count, areaM2: groundM2(d.count, d.taxon.spacingM) })),
    [drifts],
  )
  const m2 = sum(planted, (p) => p.areaM2)
  return (
    <ul className="plain-list years-list">
      {GROWTH_YEARS.map((year, i) => {
        const fillers = fillersFor(openGroundM2(planted, m2, year - 0.5))
        const of = found?.find((f) => f.years === year)
        return (
          <li key={year}>
            <b>Year {year}</b>:{' '}
            {grownWords(
              grownTo(
                drifts.map((d) => d.taxon),
                year,
              ),
            )}
            . {fillers > 0 && `${counted(fillers, 'annual')} would fill what is open. `}
            {of &&
              overWords(
                newIn(
                  of,
                  found?.find((f) => f.years === GROWTH_YEARS[i - 1]),
                ),
              )}
          </li>
        )
      })}
      {!found && !failed && (
        <li className="soft">What grows over what, and whose sun it takes, is worked out…</li>
      )}
      {failed && <li className="late">What grows over what could not be worked out.</li>}
    </ul>
  )
}

/** Worked out by a worker of its own; begun anew where the plants are others, once they rest. */
function useGrownOver(plants: readonly StandingPlant[]): { found: GrownOver[] | undefined; failed: boolean } {
  const { view, today } = useGardenContext()
  const { garden, features } = view
  const [state, setState] = useState<{ of: readonly StandingPlant[]; found?: GrownOver[]; failed?: boolean }>(
    {
      of: plants,
    },
  )
  useEffect(() => {
    let worker: Worker | undefined
    const timer = setTimeout(() => {
      worker = new Worker(new URL('./growthWorker.ts', import.meta.url), { type: 'module' })
      worker.addEventListener('error', () => setState({ of: plants, failed: true }))
      const at = { latitude: garden.latitude, longitude: garden.longitude, northDeg: garden.northDeg }
      void wrap<GrowthWorker>(worker)
        .grownOver(at, features, plants, GROWTH_YEARS, today)
        .then((found) => setState({ of: plants, found }))
        .catch(() => setState({ of: plants, failed: true }))
    }, SETTLES_MS)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [plants, garden, features, today])
  // What was found for others says nothing of these.
  return state.of === plants
    ? { found: state.found, failed: state.failed === true }
    : { found: undefined, failed: false }
}
