import type { SaidScheme } from '@border/contract'
import {
  counted,
  fillerKinds,
  fillerOf,
  fillingAfter,
  GROWTH_YEARS,
  grownTo,
  grownWords,
  type GrownOver,
  type StandingPlant,
} from '@border/core'
import { wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { useTaxa } from '../plants/queries.ts'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useCanChange } from './canChange.ts'
import type { GrowthWorker } from './growthWorker.ts'
import { newIn, overWords } from './growthWords.ts'
import type { useSchemeGround } from './useReworkPlace.ts'
import { useStanding, type Laid } from './useStanding.ts'
import './rework.css'

/** Nobody drags on for longer: what follows from it is worked out then. */
const SETTLES_MS = 700

interface Props extends Laid {
  garden: ReturnType<typeof useSchemeGround>['garden']
  onSay: (change: Pick<SaidScheme, 'filler'>) => void
}

/** What becomes of a scheme year by year: what closes, what wants dividing, what fills the gaps, what grows over what, and takes its sun. */
export function AsItGrows(props: Props) {
  const [isOpen, open] = useState(false)
  return (
    <details onToggle={(e) => open(e.currentTarget.open)}>
      <summary>As it grows</summary>
      {isOpen && (
        <>
          <FillerChoice {...props} />
          <Years {...props} />
        </>
      )}
    </details>
  )
}

/** What fills the ground that is open until the plants have grown: the kinds that would do best there first. */
function FillerChoice({ ground, said, kindOf, garden, onSay }: Props) {
  const canChange = useCanChange()
  const { data: taxa } = useTaxa()
  const { place, stations } = ground.of
  const kinds = useMemo(
    () => (taxa ? fillerKinds(taxa, place, stations, garden) : []),
    [taxa, place, stations, garden],
  )
  const { filler } = said
  const kind = fillerOf(said, kindOf)
  if (!canChange) return kind ? <p>What is open is filled with {kind.common}.</p> : null
  const options = kinds.map(({ taxon }) => ({ value: taxon.botanical, label: taxon.common }))
  return (
    <label>
      Fill what is open with{' '}
      <Choose
        label="Annual that fills what is open"
        value={filler ?? ''}
        options={[
          { value: '', label: 'nothing yet' },
          // What was said before stays, whatever is thought of it now.
          ...(filler !== undefined && !options.some((o) => o.value === filler)
            ? [{ value: filler, label: kind?.common ?? filler }]
            : []),
          ...options,
        ]}
        onChange={(chosen) => onSay({ filler: chosen === '' ? undefined : chosen })}
      />
    </label>
  )
}

function Years(laid: Laid) {
  const plants = useStanding(laid)
  const { found, failed } = useGrownOver(plants)
  const { drifts } = laid.arranged
  const kind = fillerOf(laid.said, laid.kindOf)
  return (
    <ul className="plain-list years-list">
      {GROWTH_YEARS.map((year, i) => {
        const { fillers } = fillingAfter(year, drifts, kind)
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
            .{' '}
            {fillers > 0 &&
              (kind
                ? `${fillers} ${kind.common} fill what is open. `
                : `${counted(fillers, 'annual')} would fill what is open. `)}
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
