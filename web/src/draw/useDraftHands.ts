import type { FeatureView } from '@border/contract'
import {
  corner,
  drawnOf,
  flattened,
  middleOfDrawn,
  pointOf,
  shift,
  snap,
  turn,
  withHandle,
  withHandleAt,
  type Drawn,
  type Handle,
  type Point,
  type Snapped,
  type SnapTargets,
} from '@border/core'
import { useMemo, useState } from 'react'
import type { PlanScale } from '../plan/scale.ts'
import { carriedWhole, drawnAs, drawnNow, inHand, pointNow, standingAt, type Draft } from './draft.ts'
import type { Held } from './DraftShape.tsx'
import type { Editor } from './useEditor.ts'

/** How near a point must come to what it is meant for, pixels. */
const REACH_PX = 9
const GRID_M = 0.1
/** A turn goes by whole degrees. */
const TURN_DEG = 1

export interface DraftHands {
  /** Begins to drag a handle, or all of it. */
  grab: (e: React.PointerEvent, what: Held) => void
  /** Another corner where the plan was clicked, or the one point that it has. */
  place: (at: Point) => void
  /** What the dragged point was taken to be meant for. */
  snapped: Snapped | undefined
}

/** What hands do with a draft on the plan: what is dragged goes where it is likely meant. */
export function useDraftHands(
  editor: Editor,
  scale: PlanScale,
  standing: readonly FeatureView[],
  snaps: boolean,
): DraftHands {
  const { draft } = editor
  const [snapped, setSnapped] = useState<Snapped>()
  const ids = draft?.parts.map((p) => p.id).join()
  const targets = useMemo(() => targetsOf(standing.filter((f) => !ids?.includes(f.id))), [standing, ids])
  const meant = (p: Point, beside: Parameters<typeof snap>[1], free: boolean): Snapped =>
    snaps && !free ? snap(p, beside, targets, REACH_PX / scale.pxPerM, GRID_M) : { at: p }

  const grab = (e: React.PointerEvent, what: Held) => {
    if (!draft || e.button !== 0) return
    e.stopPropagation()
    const drag = dragOf(draft, what, meant)
    if (!drag) return
    const target = e.currentTarget as SVGElement
    const svg = target.ownerSVGElement!
    const at = (m: PointerEvent | React.PointerEvent): Point => {
      const box = svg.getBoundingClientRect()
      return scale.at(m.clientX - box.left, m.clientY - box.top)
    }
    const from = at(e)
    let latest: Draft | undefined
    target.setPointerCapture(e.pointerId)
    editor.hold(drag.handle)
    const move = (m: PointerEvent) => {
      const to = drag.to(from, at(m), m.altKey)
      latest = to.draft
      setSnapped(to.snapped)
      editor.preview(latest)
    }
    const end = () => {
      target.removeEventListener('pointermove', move)
      target.removeEventListener('pointerup', end)
      target.removeEventListener('pointercancel', end)
      setSnapped(undefined)
      if (latest) editor.step(latest)
    }
    target.addEventListener('pointermove', move)
    target.addEventListener('pointerup', end)
    target.addEventListener('pointercancel', end)
  }

  const place = (at: Point) => {
    if (!draft) return
    const drawn = drawnNow(draft)
    if (!drawn) return editor.step(standingAt(draft, meant(at, { before: [], after: [] }, false).at))
    const { handles } = drawn
    const beside = { before: [...handles].reverse().slice(0, 2).map(pointOf), after: [] }
    editor.step(drawnAs(draft, { ...drawn, handles: [...handles, corner(meant(at, beside, false).at)] }))
  }
  return { grab, place, snapped }
}

interface Drag {
  handle: number | undefined
  to: (from: Point, now: Point, free: boolean) => { draft: Draft; snapped?: Snapped }
}

type Meant = (p: Point, beside: Parameters<typeof snap>[1], free: boolean) => Snapped

/** What becomes of a draft while something of it is dragged. */
function dragOf(draft: Draft, what: Held, meant: Meant): Drag | undefined {
  const drawn = drawnNow(draft)
  if (what.of === 'whole') return wholeDrag(draft, meant)
  if (!drawn) return undefined
  if (what.of === 'turn') return turnDrag(draft, drawn)
  const [handles, i] =
    what.of === 'handle' ? [drawn.handles, what.i] : [withMiddle(drawn, what.i), what.i + 1]
  const { x, y } = handles[i]!
  return {
    handle: i,
    to: (from, now, free) => {
      const to: Point = [x + now[0] - from[0], y + now[1] - from[1]]
      const snapped = meant(to, besideOf({ ...drawn, handles }, i), free)
      const put = withHandleAt(handles, i, { x: snapped.at[0], y: snapped.at[1] })
      return { draft: drawnAs(draft, { ...drawn, handles: put }), snapped }
    },
  }
}

/** The handles with another in the middle of the side after one. @param i the handle before the side, from 0 */
export function withMiddle({ handles }: Drawn, i: number): Handle[] {
  const [a, b] = [handles[i]!, handles[(i + 1) % handles.length]!]
  // Between two that bend it bends as well.
  return withHandle(handles, i, { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, curved: a.curved && b.curved })
}

function besideOf({ handles, closed }: Drawn, i: number) {
  const n = handles.length
  const at = (k: number) => (closed ? handles[(k + 2 * n) % n] : handles[k])
  const points = (ks: number[]) => ks.flatMap((k) => (k !== i && at(k) ? [pointOf(at(k)!)] : []))
  return { before: points([i - 1, i - 2]), after: points([i + 1, i + 2]) }
}

function wholeDrag(draft: Draft, meant: Meant): Drag {
  const point = pointNow(draft)
  if (point)
    return {
      handle: undefined,
      to: (from, now, free) => {
        const snapped = meant(
          [point[0] + now[0] - from[0], point[1] + now[1] - from[1]],
          { before: [], after: [] },
          free,
        )
        return { draft: standingAt(draft, snapped.at), snapped }
      },
    }
  const first = pointOf(drawnNow(draft)!.handles[0]!)
  return {
    handle: undefined,
    // Its first corner goes where it is meant, and all else along.
    to: (from, now, free) => {
      const snapped = meant(
        [first[0] + now[0] - from[0], first[1] + now[1] - from[1]],
        { before: [], after: [] },
        free,
      )
      const by: Point = [snapped.at[0] - first[0], snapped.at[1] - first[1]]
      return { draft: carriedWhole(draft, shift(by)), snapped }
    },
  }
}

function turnDrag(draft: Draft, drawn: Drawn): Drag {
  const middle = middleOfDrawn(drawn)
  const bearing = (p: Point) => (Math.atan2(p[0] - middle[0], p[1] - middle[1]) * 180) / Math.PI
  return {
    handle: undefined,
    to: (from, now, free) => {
      const by = bearing(now) - bearing(from)
      const deg = free ? by : Math.round(by / TURN_DEG) * TURN_DEG
      return { draft: carriedWhole(draft, turn(middle, deg)) }
    },
  }
}

/** Corners and edges of everything else that is drawn. */
function targetsOf(features: readonly FeatureView[]): SnapTargets {
  const corners: SnapTargets['corners'][number][] = []
  const edges: SnapTargets['edges'][number][] = []
  for (const f of features) {
    const drawn = drawnOf(f)
    if (!drawn) continue
    corners.push(...drawn.handles.filter((h) => !h.curved).map((h) => ({ at: pointOf(h), of: f.name })))
    const flat = flattened(drawn)
    const sides = drawn.closed ? flat.length : flat.length - 1
    for (let i = 0; i < sides; i++)
      edges.push({ from: flat[i]!, to: flat[(i + 1) % flat.length]!, of: f.name })
  }
  return { corners, edges }
}

/** What a snapped point was taken to be meant for, in words. */
export function snapWords({ by, of }: Snapped): string | undefined {
  switch (by) {
    case 'corner':
      return `on a corner of ${of}`
    case 'edge':
      return `along ${of}`
    case 'right angle':
      return 'at a right angle'
    case 'line':
      return 'in line'
    default:
      return undefined
  }
}

/** The part in hand with one of its handles, or all of it, moved by the keys. @param byM plan metres */
export function nudged(draft: Draft, handle: number | undefined, byM: Point): Draft {
  const point = pointNow(draft)
  if (point) return standingAt(draft, [point[0] + byM[0], point[1] + byM[1]])
  const drawn = drawnNow(draft)
  if (!drawn || !inHand(draft).now) return draft
  if (handle === undefined) return carriedWhole(draft, shift(byM))
  const { x, y } = drawn.handles[handle]!
  return drawnAs(draft, {
    ...drawn,
    handles: withHandleAt(drawn.handles, handle, { x: x + byM[0], y: y + byM[1] }),
  })
}
