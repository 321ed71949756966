import { dayMonthYear, extentOf, isAlive, type Point, type Supposition } from '@border/core'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { errorText } from '../api/writes.ts'
import { useAssessment } from '../verdicts/queries.ts'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Choose } from '../frame/Choose.tsx'
import { later } from '../frame/later.tsx'
import { shortMonthYear } from '../frame/words.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import type { Picked } from '../plan/PlanDrawing.tsx'
import { gardenExtent, grow, pointsOf } from '../plan/scale.ts'
import { Legend } from './Legend.tsx'
import './light.css'
import { LightPlan } from './LightPlan.tsx'
import { LightSentence } from './LightSentence.tsx'
import { LightTools } from './LightTools.tsx'
import type { Measure, PeriodName, Stretch, ViewName } from './look.ts'
import { OutsideList } from './OutsideList.tsx'
import { useMoment } from './useMoment.ts'
import { usePlanLight } from './usePlanLight.ts'

// What is not seen at first is not fetched at first.
const AheadList = later(async () => (await import('./AheadList.tsx')).AheadList)
const EffectsList = later(async () => (await import('./EffectsList.tsx')).EffectsList)
const MomentBar = later(async () => (await import('./MomentBar.tsx')).MomentBar)
const ObstructionPanel = later(async () => (await import('./ObstructionPanel.tsx')).ObstructionPanel)
const ReadingsPanel = later(async () => (await import('./ReadingsPanel.tsx')).ReadingsPanel)
const SpotPanel = later(async () => (await import('./SpotPanel.tsx')).SpotPanel)
const WhatIfPanel = later(async () => (await import('./WhatIfPanel.tsx')).WhatIfPanel)

type Selected = { kind: 'planting' | 'feature'; id: string } | { kind: 'spot'; at: Point } | undefined
type Tab = 'now' | 'ahead' | 'what if' | 'readings'

const STEP_M = 0.5

/** The plan with hours of sun as a field, then, now and tried otherwise, beside what that means for the plantings. */
export function LightScreen() {
  const { view, on, today } = useGardenContext()
  const { then, askedThen, chooseThen, assessment, error } = useThen()
  const [period, setPeriod] = useState<PeriodName>('season')
  const [viewName, setView] = useState<ViewName>('after')
  const [stretch, setStretch] = useState<Stretch>('total')
  const [measure, setMeasure] = useState<Measure>('hours')
  const [look, setLook] = useState('garden')
  const [selected, setSelected] = useState<Selected>()
  const [tab, setTab] = useState<Tab>('now')
  const [suppositions, setSuppositions] = useState<ReadonlyMap<string, Supposition>>(new Map())

  const choosePlanting = useCallback((id: string) => setSelected({ kind: 'planting', id }), [])
  const markSpot = useCallback((at: Point) => setSelected({ kind: 'spot', at }), [])
  const suppositionList = useMemo(() => [...suppositions.values()], [suppositions])
  const tries = suppositions.size > 0
  const light = usePlanLight({ period, then, suppositions, wanted: viewName })
  // The plan follows the pointer; the lists may come a moment later.
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
  const pick = useCallback(
    (picked: Picked) =>
      setSelected(
        picked.kind === 'spot'
          ? { kind: 'spot', at: [picked.x, picked.y] }
          : { kind: picked.kind, id: picked.id },
      ),
    [],
  )
  const nudge = useCallback(
    (e: React.KeyboardEvent) => {
      const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key]
      if (!by) return
      e.preventDefault()
      setSelected((before) => {
        const from =
          before?.kind === 'spot'
            ? before.at
            : [(extent.minX + extent.maxX) / 2, (extent.minY + extent.maxY) / 2]
        return { kind: 'spot', at: [from[0]! + by[0]! * STEP_M, from[1]! + by[1]! * STEP_M] }
      })
    },
    [extent],
  )
  const tryOut = useCallback(
    (id: string, change: (before: Supposition | undefined) => Supposition | undefined) => {
      setSuppositions((before) => {
        const next = new Map(before)
        const supposition = change(before.get(id))
        // Put back in, the latest is last.
        next.delete(id)
        if (supposition) next.set(id, supposition)
        return next
      })
      setPeriod((p) => (p === 'moment' ? 'season' : p))
      setView((v) => (v === 'before' ? 'after' : v))
    },
    [],
  )
  const drag = useCallback(
    (id: string, [dx, dy]: Point) =>
      tryOut(id, (t) => {
        const [x, y] = t?.movedM ?? [0, 0]
        return { ...t, obstructionId: id, movedM: [x + dx, y + dy] }
      }),
    [tryOut],
  )
  const aside = useRef<HTMLElement>(null)
  useEffect(() => {
    // The panel of what was chosen stands at the head of the list it was chosen from.
    if (selected && selected.kind !== 'planting') aside.current?.scrollTo(0, 0)
  }, [selected])
  const selectedId = selected && 'id' in selected ? selected.id : undefined
  const selectedFeature = view.features.find((f) => f.id === selectedId)
  const names = tries
    ? { before: 'As it stands', after: 'What if' }
    : {
        before: then ? shortMonthYear(then) : 'Then',
        after: on === today ? 'Now' : shortMonthYear(on),
      }
  const shared = {
    extent,
    stretch,
    measure,
    moment,
    flagged: outside,
    selectedId,
    spot: selected?.kind === 'spot' ? selected.at : undefined,
    onPick: pick,
    onKeyDown: nudge,
  }

  return (
    <>
      <ScreenHead
        title="Light"
        lead={error ? errorText(error) : <LightSentence view={view} assessment={assessment} />}
      >
        <LightTools
          period={period}
          onPeriod={setPeriod}
          viewName={viewName}
          onView={setView}
          names={names}
          comparesDates={!tries}
          then={then}
          canClearThen={askedThen !== undefined}
          onThen={chooseThen}
        />
      </ScreenHead>
      <div className="screen-split">
        <div className="light-stage">
          <div className={`light-plans${viewName === 'side by side' ? ' two' : ''}`}>
            {viewName === 'side by side' ? (
              <>
                <LightPlan {...shared} scene={light.before} caption={names.before} />
                <LightPlan {...shared} scene={light.after} caption={names.after} tried={light.tried} />
              </>
            ) : viewName === 'difference' && period !== 'moment' ? (
              <LightPlan {...shared} scene={light.after} less={light.before.field} tried={light.tried} />
            ) : (
              <LightPlan
                {...shared}
                scene={viewName === 'before' ? light.before : light.after}
                tried={viewName === 'before' ? undefined : light.tried}
                onDrag={drag}
              />
            )}
          </div>
          <div className="light-corner">
            <Choose
              label="Part of the plan shown"
              value={look}
              onChange={setLook}
              options={[
                { value: 'garden', label: 'Whole garden' },
                ...view.features
                  .filter((f) => f.kind === 'bed' && isAlive(f, on))
                  .map((f) => ({ value: f.id, label: f.name })),
              ]}
            />
            {light.failed && period !== 'moment' && (
              <span className="light-busy" role="alert">
                The light could not be worked out. Change the date or what you try, and it is tried afresh.
              </span>
            )}
            {!light.failed && light.refiningM !== undefined && period !== 'moment' && (
              <span className="light-busy" role="status">
                working out the light
              </span>
            )}
          </div>
          {period === 'moment' ? (
            <MomentBar moment={moment} />
          ) : (
            <Legend
              difference={viewName === 'difference'}
              stretch={stretch}
              measure={measure}
              onStretch={setStretch}
              onMeasure={setMeasure}
            />
          )}
        </div>
        <aside aria-label="What the light says" ref={aside}>
          {selected?.kind === 'spot' && then && tab !== 'readings' && (
            <SpotPanel at={selected.at} then={then} onClose={() => setSelected(undefined)} />
          )}
          {selectedFeature && (
            <ObstructionPanel
              key={selectedFeature.id}
              feature={selectedFeature}
              supposition={suppositions.get(selectedFeature.id)}
              onSuppose={(supposition) => tryOut(selectedFeature.id, () => supposition)}
              onClose={() => setSelected(undefined)}
            />
          )}
          {tries && (
            <EffectsList
              light={lightForLists}
              suppositions={suppositionList}
              onSelect={choosePlanting}
              onDrop={() => setSuppositions(new Map())}
              onSeason={period === 'season' ? undefined : () => setPeriod('season')}
            />
          )}
          <Segments<Tab>
            wide
            label="What to list"
            value={tab}
            onChange={setTab}
            options={[
              { value: 'now', label: 'Outside' },
              { value: 'ahead', label: 'Ahead' },
              { value: 'what if', label: 'What ifs' },
              { value: 'readings', label: 'Readings' },
            ]}
          />
          <div className="light-tab">
            {tab === 'now' && (
              <OutsideList
                view={view}
                assessment={assessment}
                selectedId={selectedId}
                onSelect={choosePlanting}
                onSpot={markSpot}
              />
            )}
            {tab === 'ahead' && (
              <AheadList
                selectedId={selectedId}
                onSelect={choosePlanting}
                onObstruction={(id) => setSelected({ kind: 'feature', id })}
              />
            )}
            {tab === 'what if' && (
              <WhatIfPanel
                suppositions={suppositionList}
                onShow={(chosen) => setSuppositions(new Map(chosen.map((t) => [t.obstructionId, t])))}
              />
            )}
            {tab === 'readings' && (
              <ReadingsPanel spot={selected?.kind === 'spot' ? selected.at : undefined} onSpot={markSpot} />
            )}
          </div>
          {then && tab === 'now' && (
            <small className="light-note">
              The list counts clear-day hours on the mean day of the growing season, as the garden stands on{' '}
              {dayMonthYear(on)} and stood on {dayMonthYear(then)}. Good to a quarter of an hour.
            </small>
          )}
        </aside>
      </div>
    </>
  )
}

/** The day that is compared with: asked for in the address, else the one the assessment finds worth it. */
function useThen() {
  const { view, asOf } = useGardenContext()
  const [params, setParams] = useSearchParams()
  const askedThen = params.get('then') ?? undefined
  const { data: assessment, error } = useAssessment(view.garden.id, asOf, askedThen)
  const chooseThen = (day: string | undefined) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before)
        if (day) next.set('then', day)
        else next.delete('then')
        return next
      },
      { replace: true },
    )
  return { then: askedThen ?? assessment?.then, askedThen, chooseThen, assessment, error }
}
