import type { FeatureRecord } from '@border/contract'
import {
  dayMonthYear,
  daysBetween,
  extentOf,
  halfMonths,
  isAlive,
  isPlace,
  sceneOf,
  yearOf,
  type LightPeriod,
  type Point,
} from '@border/core'
import { DatePicker, Segmented, Select } from 'antd'
import dayjs from 'dayjs'
import { useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { errorText, useAssessment } from '../api/queries.ts'
import { useGardenContext } from '../frame/GardenFrame.tsx'
import { shortDayMonth, shortMonthYear } from '../frame/words.ts'
import { useSize } from '../frame/useSize.ts'
import { changeColour, hoursColour } from '../plan/colours.ts'
import { PlanDrawing, type FieldImage, type Picked } from '../plan/PlanDrawing.tsx'
import { gardenExtent, grow, pointsOf } from '../plan/scale.ts'

import { fieldImage } from './fieldImage.ts'
import { Legend } from './Legend.tsx'
import './light.css'
import { LightSentence } from './LightSentence.tsx'
import { ObstructionPanel } from './ObstructionPanel.tsx'
import { OutsideList } from './OutsideList.tsx'
import { SpotPanel } from './SpotPanel.tsx'
import { useLightFields } from './useLightFields.ts'

type PeriodName = 'season' | 'half-month' | 'day'
type ViewName = 'then' | 'now' | 'difference'
type Selected = { kind: 'planting' | 'feature'; id: string } | { kind: 'spot'; at: Point } | undefined

const STEP_M = 0.5

/** The plan with hours of sun as a field, then, now and the difference, beside the plantings that leave their range. */
export function Screen() {
  const { view, on, today } = useGardenContext()
  const [params, setParams] = useSearchParams()
  const askedThen = params.get('then') ?? undefined
  const { data: assessment, error } = useAssessment(view.garden.id, on, askedThen)
  const then = askedThen ?? assessment?.then
  const [periodName, setPeriod] = useState<PeriodName>('season')
  const [viewName, setView] = useState<ViewName>('now')
  const [look, setLook] = useState('garden')
  const [selected, setSelected] = useState<Selected>()
  const [ref, size] = useSize()

  const light = usePlanLight(periodName, viewName, then)
  const outside = useMemo(
    () => new Set(assessment?.assessments.filter((a) => a.outside).map((a) => a.plantingId)),
    [assessment],
  )
  const extent = useMemo(() => {
    const place = view.features.find((f) => f.id === look)
    return place ? grow(extentOf(pointsOf(place)), 2) : gardenExtent(view.features)
  }, [view.features, look])
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
  const pick = (picked: Picked) =>
    setSelected(
      picked.kind === 'spot'
        ? { kind: 'spot', at: [picked.x, picked.y] }
        : { kind: picked.kind, id: picked.id },
    )
  const nudge = (e: React.KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key]
    if (!by) return
    e.preventDefault()
    const from =
      selected?.kind === 'spot'
        ? selected.at
        : [(extent.minX + extent.maxX) / 2, (extent.minY + extent.maxY) / 2]
    setSelected({ kind: 'spot', at: [from[0]! + by[0]! * STEP_M, from[1]! + by[1]! * STEP_M] })
  }
  const selectedId = selected && 'id' in selected ? selected.id : undefined
  const selectedFeature = view.features.find((f) => f.id === selectedId)

  return (
    <>
      <header className="screen-head">
        <div>
          <h1>Light</h1>
          <p>{error ? errorText(error) : <LightSentence view={view} assessment={assessment} />}</p>
        </div>
        <div className="screen-tools">
          <Segmented<PeriodName>
            aria-label="Period"
            value={periodName}
            onChange={setPeriod}
            options={[
              { value: 'season', label: 'Growing season' },
              {
                value: 'half-month',
                label: 'Half-month',
                title: `The half-month about ${shortDayMonth(halfMonthOf(on))}`,
              },
              { value: 'day', label: 'Day', title: `${dayMonthYear(on)} alone` },
            ]}
          />
          <Segmented<ViewName>
            aria-label="Then or now"
            value={viewName}
            onChange={setView}
            options={[
              { value: 'then', label: then ? shortMonthYear(then) : 'Then' },
              { value: 'now', label: on === today ? 'Now' : shortMonthYear(on) },
              { value: 'difference', label: 'Difference' },
            ]}
          />
          <DatePicker
            aria-label="Compare with"
            value={then ? dayjs(then) : null}
            format="D MMM YYYY"
            style={{ width: 138 }}
            allowClear={askedThen !== undefined}
            onChange={(day) => chooseThen(day?.format('YYYY-MM-DD'))}
          />
        </div>
      </header>
      <div className="screen-split">
        <div className="light-plan" ref={ref}>
          {size.width > 0 && (
            <PlanDrawing
              features={view.features}
              plantings={view.plantings}
              on={viewName === 'then' && then ? then : on}
              northDeg={view.garden.northDeg}
              width={size.width}
              height={size.height}
              extent={extent}
              fields={light.fields}
              potColours={light.potColours}
              flagged={outside}
              selectedId={selectedId}
              onPick={pick}
              onKeyDown={nudge}
              label={`Plan of ${view.garden.name} with hours of sun. Arrow keys move the marked spot.`}
              overlay={(scale) =>
                selected?.kind === 'spot' && (
                  <g transform={`translate(${scale.x(selected.at[0])},${scale.y(selected.at[1])})`}>
                    <circle r={8} className="plan-mark" />
                    <circle r={2.2} fill="var(--act)" />
                  </g>
                )
              }
            />
          )}
          <Select
            className="light-look"
            aria-label="Part of the plan shown"
            size="small"
            value={look}
            onChange={setLook}
            popupMatchSelectWidth={false}
            options={[
              { value: 'garden', label: 'Whole garden' },
              ...view.features
                .filter((f) => f.kind === 'bed' && isAlive(f, on))
                .map((f) => ({ value: f.id, label: f.name })),
            ]}
          />
          {light.refiningM !== undefined && (
            <span className="light-busy" role="status">
              working out the light, cells of {light.refiningM} m
            </span>
          )}
          <Legend difference={viewName === 'difference'} />
        </div>
        <aside aria-label="What the light says">
          {selected?.kind === 'spot' && then && (
            <SpotPanel
              at={selected.at}
              on={on}
              then={then}
              view={view}
              onClose={() => setSelected(undefined)}
            />
          )}
          {selectedFeature && (
            <ObstructionPanel
              key={selectedFeature.id}
              feature={selectedFeature}
              onClose={() => setSelected(undefined)}
            />
          )}
          <OutsideList
            view={view}
            assessment={assessment}
            selectedId={selectedId}
            onSelect={(id) => setSelected({ kind: 'planting', id })}
          />
          {then && (
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

/** The middle of the half-month that a day lies nearest to. */
function halfMonthOf(day: string): string {
  return halfMonths(yearOf(day)).reduce((a, b) =>
    Math.abs(daysBetween(b, day)) < Math.abs(daysBetween(a, day)) ? b : a,
  )
}

/** Pictures of the chosen light for each place of the plan. */
function usePlanLight(periodName: PeriodName, viewName: ViewName, then: string | undefined) {
  const { view, standing, on } = useGardenContext()
  const scene = useMemo(() => sceneOf(view.garden, view.features), [view.garden, view.features])
  const places = useMemo(() => standing.filter(isPlace), [standing])
  const period = useMemo((): LightPeriod => {
    return periodName === 'season'
      ? { kind: 'season', on }
      : { kind: 'day', on: halfMonthOf(on), standing: on }
  }, [periodName, on])
  const wantsNow = viewName !== 'then'
  const wantsThen = viewName !== 'now' && then !== undefined
  const periodThen = useMemo(
    () => (wantsThen ? { ...period, standing: then } : undefined),
    [wantsThen, period, then],
  )
  const now = useLightFields(scene, places, wantsNow ? period : undefined)
  const before = useLightFields(scene, places, periodThen)
  return useMemo(() => {
    const fields = new Map<string, FieldImage>()
    const potColours = new Map<string, string>()
    const difference = viewName === 'difference'
    const shown = viewName === 'then' ? before : now
    for (const place of places) {
      const image =
        place.kind === 'bed' &&
        imageOf(
          place,
          shown.beds.get(place.id),
          difference ? before.beds.get(place.id) : undefined,
          difference,
        )
      if (image) fields.set(place.id, image)
      const hours = shown.pots.get(place.id)
      const hoursBefore = before.pots.get(place.id)
      if (hours === undefined || (difference && hoursBefore === undefined)) continue
      potColours.set(place.id, difference ? changeColour(hours - hoursBefore!) : hoursColour(hours))
    }
    const busy = [wantsNow ? now.refiningM : undefined, wantsThen ? before.refiningM : undefined]
    return { fields, potColours, refiningM: busy.find((m) => m !== undefined) }
  }, [places, now, before, viewName, wantsNow, wantsThen])
}

type BedLight = { cellM: number; hours: Float32Array } | undefined

function imageOf(
  bed: FeatureRecord,
  light: BedLight,
  before: BedLight,
  difference: boolean,
): FieldImage | undefined {
  if (!light) return undefined
  if (!difference) return fieldImage(bed, light.cellM, light.hours, hoursColour)
  // A difference is always taken on the same cells.
  if (!before || before.cellM !== light.cellM) return undefined
  return fieldImage(
    bed,
    light.cellM,
    light.hours.map((h, i) => h - before.hours[i]!),
    changeColour,
  )
}
