import { extentOf, flattened, middleOfDrawn, turn, type Extent, type Point } from '@border/core'
import { useMemo, useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { UndoRedo } from '../frame/UndoRedo.tsx'
import { useStable } from '../frame/useStable.ts'
import { useSize, type Size } from '../frame/useSize.ts'
import { PlanDrawing, type Picked } from '../plan/PlanDrawing.tsx'
import { gardenExtent, grow, type PlanScale } from '../plan/scale.ts'
import { useViewport, ZOOM_STEP, type Viewport } from '../plan/useViewport.ts'
import { ZoomTools } from '../plan/ZoomTools.tsx'
import { carriedWhole, drawnAs, drawnNow, inHand, pointNow, type Draft } from './draft.ts'
import { DraftField, usePlanScreenLight } from './DraftLight.tsx'
import { DraftShape } from './DraftShape.tsx'
import { Grid } from './Grid.tsx'
import { leastCorners } from './kinds.ts'
import { nudged, snapWords, useDraftHands } from './useDraftHands.ts'
import type { Editor } from './useEditor.ts'
import '../light/light.css'
import '../pictures/pictures.css'

interface Props {
  editor: Editor
  /** Clicks on the plan put corners. */
  isAdding: boolean
  selectedId: string | undefined
  onPick: (id: string) => void
  /** A handle was clicked. */
  onHandle: (i: number) => void
  /** Drawn on the bare ground: a picture that lies under the plan. */
  underlay?: ((scale: PlanScale) => React.ReactNode) | undefined
  children?: React.ReactNode
}

/** The plan to look about on, with what is being drawn or changed. */
export function PlanCanvas(props: Props) {
  const { view, isHead } = useGardenContext()
  const { editor } = props
  const [ref, size] = useSize()
  const whole = useMemo(() => gardenExtent(view.features), [view.features])
  const viewport = useViewport(whole, size)
  const [snaps, setSnaps] = useState(true)
  const [lit, setLit] = useState(false)
  const part = editor.draft && extentOfDraft(editor.draft)
  return (
    <div className="plan-stage">
      <div className="plan-tools" role="toolbar" aria-label="Looking about">
        <ZoomTools viewport={viewport} whole="Whole garden" />
        {part && (
          <Button size="small" onClick={() => viewport.show(part)}>
            Look closer at it
          </Button>
        )}
        {isHead && (
          <>
            <UndoRedo {...editor} />
            <label>
              <input type="checkbox" checked={snaps} onChange={(e) => setSnaps(e.target.checked)} /> Snap
            </label>
          </>
        )}
        <label>
          <input type="checkbox" checked={lit} onChange={(e) => setLit(e.target.checked)} /> Sun
        </label>
        {props.children}
      </div>
      <div
        className={`light-plan${props.isAdding ? ' drawing' : ''}${props.underlay ? ' over-picture' : ''}`}
        ref={ref}
      >
        {size.width > 0 && <DrawnPlan {...props} {...{ size, viewport, snaps, lit }} />}
      </div>
    </div>
  )
}

/** Room about a part that is looked at closer, metres. */
const ABOUT_M = 1.5

function extentOfDraft(draft: Draft): Extent | undefined {
  const drawn = drawnNow(draft)
  const points = drawn ? flattened(drawn) : [pointNow(draft)].filter((p) => p !== undefined)
  return points.length > 0 ? grow(extentOf(points), ABOUT_M) : undefined
}

interface DrawnProps extends Props {
  size: Size
  viewport: Viewport
  /** What is dragged goes where it is likely meant. */
  snaps: boolean
  /** Hours of sun are shown. */
  lit: boolean
}

function DrawnPlan(props: DrawnProps) {
  const { editor, isAdding, selectedId, onPick, onHandle, underlay, size, viewport, snaps, lit } = props
  const { view, standing, on } = useGardenContext()
  const { draft } = editor
  const hands = useDraftHands(editor, viewport.scale, standing, snaps)
  const light = usePlanScreenLight(lit, draft)
  const pick = useStable((picked: Picked) => {
    if (isAdding) {
      if (picked.kind === 'spot') hands.place([picked.x, picked.y])
      return
    }
    if (picked.kind === 'feature') onPick(picked.id)
  })
  return (
    <div className="plan-canvas" {...viewport.hands}>
      <PlanDrawing
        features={view.features}
        plantings={isAdding ? NONE : view.plantings}
        isQuiet={draft !== undefined}
        on={on}
        northDeg={view.garden.northDeg}
        width={size.width}
        height={size.height}
        extent={viewport.extent}
        content={viewport.content}
        fields={light.fields}
        potColours={light.pots}
        selectedId={selectedId}
        onPick={pick}
        underlay={underlay}
        onKeyDown={(e) => keyed(e, { editor, viewport })}
        label={`Plan of ${view.garden.name}. ${draft ? KEYS_DRAFT : KEYS}`}
        overlay={(scale) => (
          <>
            <Grid scale={scale} extent={viewport.extent} />
            {draft && <DraftField draft={draft} field={light.ofDraft} scale={scale} />}
            {draft && (
              <DraftShape
                draft={draft}
                scale={scale}
                held={editor.handle}
                onGrab={hands.grab}
                onHandle={onHandle}
              />
            )}
          </>
        )}
      />
      {hands.snapped && snapWords(hands.snapped) && (
        <output className="plan-snapped">{snapWords(hands.snapped)}</output>
      )}
    </div>
  )
}

const NONE: never[] = []

const KEYS = 'Arrow keys look about, plus and minus come closer and go further, 0 shows all.'
const KEYS_DRAFT =
  'Arrow keys move what is in hand, with Shift further; full stop and comma take the next corner and the one before, Escape lets go of it; Delete removes a corner, s bends it smoothly; r and Shift r turn it; Control z takes back.'

const NUDGE_M = 0.05
const NUDGE_FAR_M = 0.5
const PAN_PX = 60
const TURN_DEG = 5

const arrows: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

/** Everything that hands can do on the plan, by keys. */
function keyed(
  e: React.KeyboardEvent,
  { editor, viewport }: { editor: Editor; viewport: Pick<Viewport, 'pan' | 'zoom' | 'fit'> },
): void {
  const { draft } = editor
  const done = (work: () => void) => {
    e.preventDefault()
    work()
  }
  if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'z')
    return done(() => (e.shiftKey ? editor.redo?.() : editor.undo?.()))
  if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'y') return done(() => editor.redo?.())
  if (e.key === '+' || e.key === '=') return done(() => viewport.zoom(ZOOM_STEP))
  if (e.key === '-') return done(() => viewport.zoom(1 / ZOOM_STEP))
  if (e.key === '0') return done(viewport.fit)
  const arrow = arrows[e.key]
  if (arrow && !draft) return done(() => viewport.pan([arrow[0] * PAN_PX, -arrow[1] * PAN_PX]))
  if (!draft) return
  if (arrow) {
    const far = e.shiftKey ? NUDGE_FAR_M : NUDGE_M
    return done(() => editor.step(nudged(draft, editor.handle, [arrow[0] * far, arrow[1] * far]), true))
  }
  const handled = withKey(e.key, editor, draft)
  if (handled) done(handled)
}

/** What a key does to the corner in hand, or to the part. */
function withKey(key: string, editor: Editor, draft: Draft): (() => void) | undefined {
  const drawn = drawnNow(draft)
  const n = drawn?.handles.length ?? 0
  const held = editor.handle
  if (key === 'Escape' && held !== undefined) return () => editor.hold(undefined)
  if (!drawn || n === 0) return undefined
  if (key === '.') return () => editor.hold(held === undefined ? 0 : (held + 1) % n)
  if (key === ',') return () => editor.hold(held === undefined ? n - 1 : (held + n - 1) % n)
  if (key === 'r' || key === 'R') {
    const by = turn(middleOfDrawn(drawn), key === 'R' ? -TURN_DEG : TURN_DEG)
    return () => editor.step(carriedWhole(draft, by))
  }
  if (held === undefined) return undefined
  const { handles } = drawn
  if (key === 's')
    return () =>
      editor.step(
        drawnAs(draft, {
          ...drawn,
          handles: handles.with(held, { ...handles[held]!, curved: !handles[held]!.curved }),
        }),
      )
  if ((key === 'Delete' || key === 'Backspace') && n > leastCorners(inHand(draft).now!.geometry.type))
    return () => {
      editor.hold(undefined)
      editor.step(drawnAs(draft, { ...drawn, handles: handles.toSpliced(held, 1) }))
    }
  return undefined
}
