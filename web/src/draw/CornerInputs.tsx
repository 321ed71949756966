import { corner, pointOf, type Drawn, type Handle } from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { Segments } from '../frame/Segments.tsx'
import { PointInputs } from './PointInputs.tsx'
import { angleBefore, bearingAt, sidesOf, step, withSide } from './outline.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  drawn: Drawn
  /** So many corners it must have. */
  least: number
  /** The corner in hand, from 0. */
  held: number | undefined
  onHold: (handle: number) => void
  onHandles: (handles: readonly Handle[], sameStep?: boolean) => void
}

const angleKinds = ['bearings', 'corner angles'] as const
type AngleKind = (typeof angleKinds)[number]

/** Corners typed: the first where it lies, each other by the side that leads to it, as it was measured. */
export function CornerInputs({ drawn, least, held, onHold, onHandles }: Props) {
  const { handles, closed } = drawn
  const [angles, setAngles] = useState<AngleKind>('bearings')
  const corners = handles.map(pointOf)
  const missing = least - corners.length
  const [first] = handles
  const moveTo = (to: readonly (readonly [number, number])[]) =>
    onHandles(
      handles.map((h, k) => ({ ...h, x: to[k]![0], y: to[k]![1] })),
      true,
    )
  return (
    <section className="draw-corners" aria-label="Outline">
      <h3>Corners and measured sides</h3>
      {corners.length > 2 && (
        <Segments label="Angles" value={angles} options={angleKinds} onChange={setAngles} />
      )}
      <small>
        {missing > 0
          ? `Click ${missing} more ${missing === 1 ? 'corner' : 'corners'} on the plan, or type them.`
          : angles === 'bearings'
            ? 'Metres from the plan’s origin; bearings clockwise from up the plan.'
            : 'Metres from the plan’s origin; the angle at each corner, inside the outline.'}
      </small>
      <div className={`row${held === 0 ? ' held' : ''}`}>
        <CornerNumber n={1} of={first} onHold={() => onHold(0)} />
        <PointInputs
          at={first && pointOf(first)}
          onAt={(to) =>
            first
              ? moveTo(corners.map(([x, y]) => [x + to[0] - first.x, y + to[1] - first.y] as const))
              : onHandles([corner(to)])
          }
        />
        {first && <CornerTools {...{ handles, i: 0, least, onHandles }} />}
      </div>
      {sidesOf(corners, closed).map((side, i) => (
        <Side
          key={i}
          {...{ drawn, side, i, angles, held, least, onHold, onHandles, moveTo }}
          isClosing={closed && i === corners.length - 1}
        />
      ))}
      {first && <NextSide drawn={drawn} onHandles={onHandles} />}
    </section>
  )
}

interface SideProps extends Props {
  side: { lengthM: number; bearingDeg: number }
  i: number
  angles: AngleKind
  isClosing: boolean
  moveTo: (to: readonly (readonly [number, number])[]) => void
}

/** One side as measured, and the corner that it leads to. */
function Side({ drawn, side, i, angles, isClosing, held, least, onHold, onHandles, moveTo }: SideProps) {
  const { handles, closed } = drawn
  const corners = handles.map(pointOf)
  const byAngle = angles === 'corner angles' && (closed || i > 0)
  const set = (measured: Partial<typeof side>) => moveTo(withSide(corners, i, { ...side, ...measured }))
  return (
    <div className={`row${held === i + 1 ? ' held' : ''}`}>
      {isClosing ? (
        <span className="draw-n">→1</span>
      ) : (
        <CornerNumber n={i + 2} of={handles[i + 1]} onHold={() => onHold(i + 1)} />
      )}
      <QuantityInput
        aria-label={`Length of side ${i + 1}`}
        value={round(side.lengthM)}
        min={0.05}
        step={0.1}
        suffix="m"
        disabled={isClosing}
        onChange={(lengthM) => lengthM && set({ lengthM })}
      />
      <QuantityInput
        aria-label={byAngle ? `Angle before side ${i + 1}` : `Bearing of side ${i + 1}`}
        value={round(byAngle ? angleBefore(corners, closed, i) : side.bearingDeg)}
        min={0}
        max={360}
        suffix="°"
        disabled={isClosing}
        onChange={(deg) =>
          deg !== null && set({ bearingDeg: byAngle ? bearingAt(corners, closed, i, deg) : deg })
        }
      />
      {!isClosing && <CornerTools {...{ handles, i: i + 1, least, onHandles }} />}
    </div>
  )
}

/** The side that is added next. */
function NextSide({ drawn: { handles }, onHandles }: Pick<Props, 'drawn' | 'onHandles'>) {
  const [next, setNext] = useState({ lengthM: 3, bearingDeg: 90 })
  return (
    <div className="row">
      <span className="draw-n">+</span>
      <QuantityInput
        aria-label="Length of the next side"
        value={next.lengthM}
        min={0.05}
        step={0.1}
        suffix="m"
        onChange={(lengthM) => lengthM && setNext({ ...next, lengthM })}
      />
      <QuantityInput
        aria-label="Bearing of the next side"
        value={next.bearingDeg}
        min={0}
        max={360}
        suffix="°"
        onChange={(bearingDeg) => bearingDeg !== null && setNext({ ...next, bearingDeg })}
      />
      <Button
        size="small"
        onClick={() => onHandles([...handles, corner(step(pointOf(handles.at(-1)!), next))])}
      >
        Add side
      </Button>
    </div>
  )
}

function CornerNumber({ n, of, onHold }: { n: number; of: Handle | undefined; onHold: () => void }) {
  return (
    <button
      type="button"
      className="draw-n"
      disabled={!of}
      onClick={onHold}
      title={of?.curved ? 'It bends smoothly here' : 'A corner'}
    >
      {n}
      {of?.curved && ' ~'}
    </button>
  )
}

/** What can be made of a corner. */
function CornerTools({
  handles,
  i,
  least,
  onHandles,
}: Pick<Props, 'least' | 'onHandles'> & { handles: readonly Handle[]; i: number }) {
  const { curved } = handles[i]!
  return (
    <span className="corner-tools">
      <Button
        size="small"
        look="text"
        aria-label={curved ? `Make ${i + 1} a corner` : `Bend it smoothly at corner ${i + 1}`}
        title={curved ? 'Make it a corner' : 'Bend it smoothly here'}
        onClick={() => onHandles(handles.with(i, { ...handles[i]!, curved: !curved }))}
      >
        {curved ? '∠' : '⌒'}
      </Button>
      <Button
        size="small"
        look="text"
        aria-label={`Remove corner ${i + 1}`}
        disabled={handles.length <= Math.min(least, 1)}
        onClick={() => onHandles(handles.toSpliced(i, 1))}
      >
        ✕
      </Button>
    </span>
  )
}

const round = (v: number) => Math.round(v * 100) / 100
