import { planEndpoints, type FeatureView } from '@border/contract'
import { castsShade, isAlive, isPlace, type FeatureKind, type Point } from '@border/core'
import { Popconfirm } from 'antd'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { useSize } from '../frame/useSize.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { CorrectForm } from '../light/CorrectForm.tsx'
import { ObstructionPanel } from '../light/ObstructionPanel.tsx'
import '../light/light.css'
import { PlanDrawing, type Picked } from '../plan/PlanDrawing.tsx'
import './draw.css'
import { DrawForm, type Draft } from './DrawForm.tsx'
import { snapped } from './outline.ts'
import { DraftShape } from './DraftShape.tsx'
import { drawnKinds, shapeOf } from './kinds.ts'

/** The plan by hand: outlines by corners with typed lengths, trees and pots by a point and their sizes. */
export function PlanScreen() {
  const { view, on, isHead } = useGardenContext()
  const [ref, size] = useSize()
  const [draft, setDraft] = useState<Draft>()
  const [selectedId, setSelected] = useState<string>()
  const pick = (picked: Picked) => {
    if (draft) {
      if (picked.kind === 'spot') setDraft(withCorner(draft, snapped([picked.x, picked.y])))
      return
    }
    if (picked.kind === 'feature') setSelected(picked.id)
  }
  return (
    <>
      <ScreenHead
        title="Plan"
        lead={
          view.features.length === 0
            ? 'An empty plan. Start with what casts shade and one bed; or bring a whole garden in from files.'
            : 'What stands in the garden and about it. Sizes in metres; the light follows at once.'
        }
      >
        {isHead && !draft && (
          <Button look="primary" onClick={() => setDraft({ kind: 'bed', corners: [] })}>
            Add to the plan
          </Button>
        )}
      </ScreenHead>
      <div className="screen-split">
        <div className={`light-plan${draft ? ' drawing' : ''}`} ref={ref}>
          {size.width > 0 && (
            <PlanDrawing
              features={view.features}
              plantings={draft ? [] : view.plantings}
              on={on}
              northDeg={view.garden.northDeg}
              width={size.width}
              height={size.height}
              selectedId={selectedId}
              onPick={pick}
              label={`Plan of ${view.garden.name}`}
              overlay={(scale) =>
                draft && (
                  <DraftShape
                    corners={draft.corners}
                    closed={shapeOf(draft.kind) === 'Polygon'}
                    scale={scale}
                  />
                )
              }
            />
          )}
        </div>
        <aside className="stack" aria-label="Parts of the plan">
          {draft ? (
            <DrawForm draft={draft} onDraft={setDraft} onClose={() => setDraft(undefined)} />
          ) : (
            <Parts selectedId={selectedId} onSelect={setSelected} />
          )}
        </aside>
      </div>
    </>
  )
}

interface PartsProps {
  selectedId: string | undefined
  onSelect: (id: string | undefined) => void
}

/** What is on the plan; the one that is chosen, to put it right or try it otherwise. */
function Parts({ selectedId, onSelect }: PartsProps) {
  const { view, isHead } = useGardenContext()
  const { search } = useLocation()
  const selected = view.features.find((f) => f.id === selectedId)
  const close = () => onSelect(undefined)
  return (
    <>
      {selected && isPlace(selected) && isHead && (
        <section className="light-panel" aria-label={selected.name} key={selected.id}>
          <h2>{selected.name}</h2>
          <CorrectForm feature={selected} onDone={close} />
        </section>
      )}
      {selected && castsShade(selected) && (
        <ObstructionPanel key={selected.id} feature={selected} onClose={close} />
      )}
      <PartsList selectedId={selectedId} onSelect={onSelect} />
      {view.features.length > 0 && view.plantings.length === 0 && (
        <p>
          Next: <Link to={{ pathname: '../plants', search }}>add what grows here</Link>.
        </p>
      )}
    </>
  )
}

/** Another corner, or the one point that a tree or pot has. */
function withCorner(draft: Draft, at: Point): Draft {
  return { ...draft, corners: shapeOf(draft.kind) === 'Point' ? [at] : [...draft.corners, at] }
}

const kindOrder: readonly FeatureKind[] = [...drawnKinds, 'water', 'viewpoint']

function PartsList({ selectedId, onSelect }: PartsProps) {
  const { view, on, isHead } = useGardenContext()
  const restore = useGardenWrite(
    planEndpoints.restoreFeature,
    ({ id }: { id: string; name: string }) => ({ gardenId: view.garden.id, featureId: id }),
    ({ name }) => `${name} is back on the plan.`,
  )
  const withdraw = useGardenWrite(
    planEndpoints.withdrawFeature,
    ({ id }: { id: string; name: string }) => ({ gardenId: view.garden.id, featureId: id }),
    (part) => (
      <>
        {part.name} is off the plan.{' '}
        <Button size="small" onClick={() => restore.mutate(part)}>
          Undo
        </Button>
      </>
    ),
    ({ id }) => view.features.find((f) => f.id === id),
  )
  const parts = [...view.features].sort((a, b) => kindOrder.indexOf(a.kind) - kindOrder.indexOf(b.kind))
  const planted = new Set(view.plantings.map((p) => p.placeId))
  return (
    <div>
      <h2>On the plan</h2>
      {parts.map((f) => (
        <div key={f.id} className={`part-row${f.id === selectedId ? ' selected' : ''}`}>
          <button type="button" onClick={() => onSelect(f.id)} aria-pressed={f.id === selectedId}>
            {f.name} <small>{describe(f, on)}</small>
          </button>
          {isHead && !planted.has(f.id) && (
            <Popconfirm
              title={`Take ${f.name} off the plan?`}
              description="For something entered by mistake. What is gone in the garden gets a last day instead."
              okText="Take it off"
              onConfirm={() => withdraw.mutate({ id: f.id, name: f.name })}
            >
              <Button size="small" look="text" aria-label={`Take ${f.name} off the plan`}>
                ✕
              </Button>
            </Popconfirm>
          )}
        </div>
      ))}
    </div>
  )
}

function describe(f: FeatureView, on: string): string {
  const height = typeof f.properties.heightM === 'number' ? `, ${f.properties.heightM} m` : ''
  if (f.to && f.to <= on) return `${f.kind}, gone ${shortDate(f.to)}`
  return isAlive(f, on) ? `${f.kind}${height}` : `${f.kind}, from ${shortDate(f.from!)}`
}
