import type { FeatureView } from '@border/contract'
import {
  distanceToBoundary,
  middleOfDrawn,
  mirror,
  ringOf,
  shift,
  turn,
  type Drawn,
  type Point,
} from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { carriedWhole, drawnAs, drawnNow, inHand, type Draft } from './draft.ts'
import { TakeOff } from './TakeOff.tsx'
import { withMiddle } from './useDraftHands.ts'
import type { Editor } from './useEditor.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  editor: Editor
  draft: Draft
  onSplit: () => void
  onJoin: (other: FeatureView) => void
}

/** What can be done with a part as a whole: turned, mirrored, copied, cut in two, made one with another, taken off. */
export function OutlineTools({ editor, draft, onSplit, onJoin }: Props) {
  const [deg, setDeg] = useState(90)
  const { was } = inHand(draft)
  const drawn = drawnNow(draft)
  const isShaped = drawn !== undefined && drawn.handles.length > 1
  if (!isShaped && !was) return null
  const middle: Point = isShaped ? middleOfDrawn(drawn) : [0, 0]
  const apply = (by: Parameters<typeof carriedWhole>[1]) => editor.step(carriedWhole(draft, by))
  return (
    <div className="outline-tools" role="group" aria-label="With all of it">
      {isShaped && (
        <>
          <span className="row">
            <Button size="small" onClick={() => apply(turn(middle, deg))}>
              Turn by
            </Button>
            <QuantityInput
              aria-label="Degrees to turn it by, clockwise"
              size="small"
              value={deg}
              min={-360}
              max={360}
              suffix="°"
              onChange={(v) => v !== null && setDeg(v)}
            />
          </span>
          <Button size="small" onClick={() => apply(mirror(middle, [middle[0], middle[1] + 1]))}>
            Mirror left to right
          </Button>
          <Button size="small" onClick={() => apply(mirror(middle, [middle[0] + 1, middle[1]]))}>
            Mirror top to bottom
          </Button>
        </>
      )}
      {was && (
        <Button size="small" onClick={() => editor.beginNew('bed', copyOf(draft))}>
          Copy
        </Button>
      )}
      {isShaped && editor.handle !== undefined && hasSideAfter(drawn, editor.handle) && (
        <Button
          size="small"
          onClick={() => {
            editor.step(drawnAs(draft, { ...drawn, handles: withMiddle(drawn, editor.handle!) }))
            editor.hold(editor.handle! + 1)
          }}
        >
          Another corner after {editor.handle + 1}
        </Button>
      )}
      {isShaped && drawn.closed && drawn.handles.length > 3 && (
        <Button
          size="small"
          disabled={editor.handle === undefined}
          title={
            editor.handle === undefined
              ? 'Choose the corner to cut from first'
              : 'Then choose the other corner'
          }
          onClick={onSplit}
        >
          Cut in two from {editor.handle === undefined ? 'a corner' : `corner ${editor.handle + 1}`}
        </Button>
      )}
      {was?.kind === 'bed' && isShaped && <JoinWith draft={draft} onJoin={onJoin} />}
      {was && <TakeOff editor={editor} draft={draft} />}
    </div>
  )
}

const hasSideAfter = ({ handles, closed }: Drawn, i: number) => closed || i < handles.length - 1

/** How far away a bed may lie that is offered to be joined, metres. */
const NEAR_M = 1

/** Beds that lie beside it, to be made one with it. */
function JoinWith({ draft, onJoin }: Pick<Props, 'draft' | 'onJoin'>) {
  const { standing } = useGardenContext()
  const { id, now } = inHand(draft)
  if (now?.geometry.type !== 'Polygon') return null
  const ring = ringOf(now.geometry)
  const beside = standing.filter(
    (f) =>
      f.kind === 'bed' &&
      f.id !== id &&
      draft.parts.every((p) => p.id !== f.id) &&
      [
        ...ringOf(f.geometry).map(([x, y]) => distanceToBoundary(ring, x, y)),
        ...ring.map(([x, y]) => distanceToBoundary(ringOf(f.geometry), x, y)),
      ].some((m) => m <= NEAR_M),
  )
  if (beside.length === 0) return null
  return (
    <Choose
      label="Join with"
      value=""
      onChange={(otherId) => {
        const other = beside.find((f) => f.id === otherId)
        if (other) onJoin(other)
      }}
      options={[{ value: '', label: 'Join with …' }, ...beside.map((f) => ({ value: f.id, label: f.name }))]}
    />
  )
}

/** How far beside it a copy lies, metres. */
const BESIDE: Point = [0.5, -0.5]

/** A copy beside it: everything of it but what has happened to it and what grows in it. */
function copyOf(draft: Draft): Draft {
  const { now } = inHand(draft)
  const { earlier: _e, events: _v, growth: _g, ...properties } = now!.properties
  const copy: Draft = {
    parts: [
      {
        id: crypto.randomUUID(),
        was: undefined,
        now: {
          ...now!,
          name: `${now!.name} copy`,
          properties: { ...properties, ...(_g ? { growth: _g } : {}) },
        },
      },
    ],
    carriedBy: undefined,
    rehomed: [],
    settled: new Map(),
    withdrawn: [],
  }
  return { ...carriedWhole(copy, shift(BESIDE)), carriedBy: undefined }
}
