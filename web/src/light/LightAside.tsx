import { dayMonthYear, type Point } from '@border/core'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { later, themed } from '../frame/later.tsx'
import { Segments } from '../frame/Segments.tsx'
import { useLight } from './lightContext.ts'
import { idOf, spotOf, type Tab } from './lightState.ts'
import { OutsideList } from './OutsideList.tsx'

// What is not seen at first is not fetched at first.
const AheadList = later(async () => (await import('./AheadList.tsx')).AheadList)
const EffectsList = later(async () => (await import('./EffectsList.tsx')).EffectsList)
const ObstructionPanel = later(themed(async () => (await import('./ObstructionPanel.tsx')).ObstructionPanel))
const ReadingsPanel = later(themed(async () => (await import('./ReadingsPanel.tsx')).ReadingsPanel))
const SpotPanel = later(async () => (await import('./SpotPanel.tsx')).SpotPanel)
const WhatIfPanel = later(themed(async () => (await import('./WhatIfPanel.tsx')).WhatIfPanel))

/** What was chosen on the plan, what is tried, and what the light means for the plantings. */
export function LightAside() {
  const { on } = useGardenContext()
  const { state, dispatch, then } = useLight()
  const { selected, tab } = state
  const aside = useRef<HTMLElement>(null)
  useEffect(() => {
    // The panel of what was chosen stands at the head of the list it was chosen from.
    if (selected && selected.kind !== 'planting') aside.current?.scrollTo(0, 0)
  }, [selected])
  return (
    <aside aria-label="What the light says" ref={aside}>
      <Chosen />
      <Tried />
      <Segments<Tab>
        wide
        label="What to list"
        value={tab}
        onChange={(tab) => dispatch({ do: 'show', what: { tab } })}
        options={[
          { value: 'now', label: 'Outside' },
          { value: 'ahead', label: 'Ahead' },
          { value: 'what if', label: 'What ifs' },
          { value: 'readings', label: 'Readings' },
        ]}
      />
      <div className="light-tab">
        <Listed />
      </div>
      {then && tab === 'now' && (
        <small className="light-note">
          The list counts clear-day hours on the mean day of the growing season, as the garden stands on{' '}
          {dayMonthYear(on)} and stood on {dayMonthYear(then)}. Good to a quarter of an hour.
        </small>
      )}
    </aside>
  )
}

/** The spot, wall or tree that was chosen. */
function Chosen() {
  const { view } = useGardenContext()
  const { state, dispatch, then } = useLight()
  const { selected, tab, suppositions } = state
  const close = () => dispatch({ do: 'select', selected: undefined })
  if (selected?.kind === 'spot')
    return then && tab !== 'readings' && <SpotPanel at={selected.at} then={then} onClose={close} />
  const feature = view.features.find((f) => f.id === selected?.id)
  return (
    feature && (
      <ObstructionPanel
        key={feature.id}
        feature={feature}
        supposition={suppositions.get(feature.id)}
        onSuppose={(supposition) => dispatch({ do: 'suppose', id: feature.id, change: () => supposition })}
        onClose={close}
      />
    )
  )
}

/** What the things being tried would do. */
function Tried() {
  const { state, dispatch, lightForLists } = useLight()
  const { suppositions, period } = state
  const list = useMemo(() => [...suppositions.values()], [suppositions])
  const { choosePlanting } = useChoosing()
  if (list.length === 0) return null
  return (
    <EffectsList
      light={lightForLists}
      suppositions={list}
      onSelect={choosePlanting}
      onDrop={() => dispatch({ do: 'suppose only', suppositions: [] })}
      onSeason={period === 'season' ? undefined : () => dispatch({ do: 'show', what: { period: 'season' } })}
    />
  )
}

function Listed() {
  const { view } = useGardenContext()
  const { state, dispatch, assessment } = useLight()
  const { selected, suppositions } = state
  const selectedId = idOf(selected)
  const { choosePlanting, markSpot } = useChoosing()
  switch (state.tab) {
    case 'now':
      return (
        <OutsideList
          view={view}
          assessment={assessment}
          selectedId={selectedId}
          onSelect={choosePlanting}
          onSpot={markSpot}
        />
      )
    case 'ahead':
      return (
        <AheadList
          selectedId={selectedId}
          onSelect={choosePlanting}
          onObstruction={(id) => dispatch({ do: 'select', selected: { kind: 'feature', id } })}
        />
      )
    case 'what if':
      return (
        <WhatIfPanel
          suppositions={[...suppositions.values()]}
          onShow={(suppositions) => dispatch({ do: 'suppose only', suppositions })}
        />
      )
    case 'readings':
      return <ReadingsPanel spot={spotOf(selected)} onSpot={markSpot} />
  }
}

/** The same from one drawing to the next, so that only what has changed is drawn anew. */
function useChoosing() {
  const { dispatch } = useLight()
  return {
    choosePlanting: useCallback(
      (id: string) => dispatch({ do: 'select', selected: { kind: 'planting', id } }),
      [dispatch],
    ),
    markSpot: useCallback(
      (at: Point) => dispatch({ do: 'select', selected: { kind: 'spot', at } }),
      [dispatch],
    ),
  }
}
