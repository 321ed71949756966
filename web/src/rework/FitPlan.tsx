import type { SuitedView } from '@border/contract'
import { GOOD_FIT, type Point } from '@border/core'
import { memo, useMemo, useState } from 'react'
import { useParam } from '../frame/address.ts'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { gardenExtent } from '../plan/scale.ts'
import { useViewport } from '../plan/useViewport.ts'
import { ZoomTools } from '../plan/ZoomTools.tsx'
import { TaxonSelect } from '../plants/TaxonSelect.tsx'
import { useFit } from './queries.ts'
import './rework.css'

/** Below this a kind is said not to do there. */
const POOR = 0.4
const STEPS = [
  { least: GOOD_FIT, name: 'does well', colour: 'var(--fit-good)' },
  { least: POOR, name: 'makes do', colour: 'var(--fit-fair)' },
  { least: -1, name: 'does poorly or not at all', colour: 'var(--fit-poor)' },
] as const
const colourOf = (score: number): string => STEPS.find((s) => score >= s.least)!.colour

/** Where a kind would do well, all over the garden. */
export function FitPlan() {
  const { view } = useGardenContext()
  const [botanical, choose] = useParam('kind')
  const fit = useFit(view.garden.id, botanical)
  const [at, setAt] = useState<Point>()
  return (
    <div className="rework">
      <div className="rework-stage">
        <div className="rework-tools">
          <TaxonSelect
            label="The kind in your hand"
            placeholder="The kind in your hand"
            value={botanical}
            onChange={(b) => choose(b)}
            style={{ width: 270 }}
          />
          <span className="fit-legend">
            {STEPS.map((s) => (
              <span key={s.name}>
                <i style={{ background: s.colour }} />
                {s.name}
              </span>
            ))}
          </span>
        </div>
        <Stage fit={botanical ? fit.data : undefined} onPoint={setAt} />
        <div className="rework-under">
          <UnderPointer fit={botanical ? fit.data : undefined} at={at} />
        </div>
      </div>
      <aside className="rework-aside" aria-label="Where it could go">
        {botanical ? (
          <Answered of={[fit]} waiting="Every spot is tried…">
            {(places) => <PlacesByFit places={places} />}
          </Answered>
        ) : (
          <p className="soft">Choose one: what is left on the cart, or what somebody gave you.</p>
        )}
      </aside>
    </div>
  )
}

/** How the kind would do where the pointer is, and why. */
function UnderPointer({ fit, at }: { fit: readonly SuitedView[] | undefined; at: Point | undefined }) {
  const placeName = usePlaceName()
  const found =
    at &&
    fit
      ?.flatMap((p) =>
        p.cells.map(([x, y, score, reason]) => ({
          p,
          score,
          reason,
          away: Math.hypot(x - at[0], y - at[1]),
        })),
      )
      .filter(({ p, away }) => away <= p.cellM)
      .sort((a, b) => a.away - b.away)[0]
  if (found)
    return (
      <>
        {placeName(found.p.placeId)}: {STEPS.find((s) => found.score >= s.least)!.name} here,{' '}
        {found.p.reasons[found.reason]}.
      </>
    )
  return (
    <span className="soft">
      By sun and afternoon heat, moisture, wind, soil and winter; by room to edge and wall; by eaves, windows
      and what lies in the ground. Point at a spot to see what limits it there.
    </span>
  )
}

function PlacesByFit({ places }: { places: readonly SuitedView[] }) {
  const placeName = usePlaceName()
  return (
    <ul className="rework-list" aria-label="Places, the best first">
      {places.map((p) => (
        <li key={p.placeId} className="rework-row">
          <b>{placeName(p.placeId)}</b>
          <span>
            {p.best.suiting.score >= GOOD_FIT
              ? p.goodShare > 0.98
                ? 'all of it'
                : `${Math.max(1, Math.round(100 * p.goodShare))} % of it`
              : 'none of it'}
          </span>
          <small>At its best spot: {p.best.suiting.reason}.</small>
        </li>
      ))}
    </ul>
  )
}

/** Drawn anew only where the answer is another: not while a pointer goes over it. */
const Stage = memo(function Stage({
  fit,
  onPoint,
}: {
  fit: readonly SuitedView[] | undefined
  onPoint: (at: Point | undefined) => void
}) {
  const { view, on } = useGardenContext()
  const [ref, size] = useSize()
  const whole = useMemo(() => gardenExtent(view.features), [view.features])
  const viewport = useViewport(whole, size)
  const best = fit?.[0]
  return (
    <div className="fit-stage" ref={ref}>
      {size.width > 0 && (
        <div className="plan-canvas" {...viewport.hands}>
          <PlanDrawing
            features={view.features}
            plantings={view.plantings}
            isQuiet
            on={on}
            northDeg={view.garden.northDeg}
            width={size.width}
            height={size.height}
            extent={viewport.extent}
            content={viewport.content}
            onPoint={(pointed) => onPoint(pointed?.at)}
            label={`Plan of ${view.garden.name}${fit ? ', coloured by where the kind would do well' : ''}`}
            overlay={(scale) => (
              <>
                {fit?.map((p) => (
                  <g key={p.placeId} className="fit-cells">
                    {p.cells.map(([x, y, score]) => {
                      const side = p.cellM * scale.pxPerM
                      return (
                        <rect
                          key={`${x} ${y}`}
                          className="fit-cell"
                          x={scale.x(x) - side / 2}
                          y={scale.y(y) - side / 2}
                          width={side}
                          height={side}
                          fill={colourOf(score)}
                        />
                      )
                    })}
                  </g>
                ))}
                {best && best.best.suiting.score >= GOOD_FIT && (
                  <circle className="fit-best" cx={scale.x(best.best.x)} cy={scale.y(best.best.y)} r={9}>
                    <title>The best spot there is for it</title>
                  </circle>
                )}
              </>
            )}
          />
          <div className="rework-zoom">
            <ZoomTools viewport={viewport} whole="Whole garden" />
          </div>
        </div>
      )}
    </div>
  )
})
