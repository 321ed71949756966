import { type Adjusted, type Measured, type OnSide } from '@border/core'
import { Alert } from 'antd'
import { useMemo, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import '../draw/draw.css'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { usePlanCorners } from './planCorners.ts'
import { TapesDrawing } from './TapesDrawing.tsx'
import {
  adjusted,
  isKnown,
  keepTapes,
  keptTapes,
  measuredWords,
  nextPoint,
  NO_TAPES,
  withoutPoint,
  type Tapes,
} from './tapes.ts'
import './tapes.css'
import '../plants/plants.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** Points by tape: typed beside the bed, with or without a connection; each with how far it may be out. */
export function TapesScreen() {
  const { view, isHead } = useGardenContext()
  const gardenId = view.garden.id
  const [tapes, setTapes] = useState(() => keptTapes(gardenId))
  const navigate = useNavigate()
  const { search } = useLocation()
  const put = (next: Tapes) => {
    keepTapes(gardenId, next)
    setTapes(next)
  }
  const result = useMemo(() => adjusted(tapes), [tapes])
  const found = tapes.points
    .filter((p) => !isKnown(p))
    .flatMap((p) => result.points.find((r) => r.id === p.id) ?? [])
  const draw = (curved: boolean) =>
    navigate(
      { pathname: '../plan', search },
      { state: { kind: 'bed', through: found.map((p) => p.at), curved } },
    )
  return (
    <>
      <ScreenHead
        title="By tape"
        lead="Measure each corner from two points that are on the plan; a third tape checks it."
      >
        <Button onClick={() => window.print()}>Print a sheet</Button>
        {isHead && (
          <>
            <Button disabled={found.length < 3} onClick={() => void draw(true)}>
              A curved bed through them
            </Button>
            <Button look="primary" disabled={found.length < 3} onClick={() => void draw(false)}>
              Draw a bed through them
            </Button>
          </>
        )}
      </ScreenHead>
      <div className="screen-body tapes">
        <div className="stack">
          <Known tapes={tapes} onTapes={put} />
          <Measuring tapes={tapes} onTapes={put} />
          <Found tapes={tapes} result={result} onTapes={put} />
          {tapes.points.length > 0 && (
            <Button size="small" look="text" danger onClick={() => put(NO_TAPES)}>
              Begin anew
            </Button>
          )}
        </div>
        <TapesDrawing tapes={tapes} result={result} />
        <PaperSheet tapes={tapes} />
      </div>
    </>
  )
}

interface Props {
  tapes: Tapes
  onTapes: (tapes: Tapes) => void
}

/** Points that tapes are held to: corners of what is on the plan already, or two stakes to begin with. */
function Known({ tapes, onTapes }: Props) {
  const corners = usePlanCorners()
  const known = tapes.points.filter(isKnown)
  const left = corners.filter((c) => tapes.points.every((p) => p.id !== c.id))
  return (
    <section aria-label="Points on the plan">
      <h2>From these points</h2>
      {known.map((p) => (
        <div className="row" key={p.id}>
          <b>{p.id}</b>
          <small>
            {p.x!.toFixed(2)} m E, {p.y!.toFixed(2)} m N
          </small>
          <Button
            size="small"
            look="text"
            aria-label={`Leave out ${p.id}`}
            onClick={() => onTapes(withoutPoint(tapes, p.id))}
          >
            ✕
          </Button>
        </div>
      ))}
      <div className="row">
        <Choose
          label="A corner on the plan"
          value=""
          onChange={(id) => {
            const corner = left.find((c) => c.id === id)
            if (corner) onTapes({ ...tapes, points: [...tapes.points, corner] })
          }}
          options={[
            { value: '', label: 'A corner on the plan …' },
            ...left.map((c) => ({ value: c.id, label: c.id })),
          ]}
        />
        {known.length === 0 && (
          <Button
            size="small"
            onClick={() =>
              onTapes({
                ...tapes,
                points: [...tapes.points, { id: 'A', x: 0, y: 0 }, { id: 'B', y: 0 }],
              })
            }
          >
            Begin with two stakes, A and B
          </Button>
        )}
      </div>
    </section>
  )
}

const kinds = ['a tape', 'along a line', 'a right angle', 'a bearing'] as const
type Kind = (typeof kinds)[number]

/** One measurement typed after another. */
function Measuring({ tapes, onTapes }: Props) {
  const [kind, setKind] = useState<Kind>('a tape')
  const [names, setNames] = useState<readonly string[]>(['', '', ''])
  const [a, setA] = useState<number | null>(null)
  const [b, setB] = useState<number | null>(null)
  const fresh = nextPoint(tapes)
  const all = tapes.points.map((p) => p.id)
  const pick = (i: number, label: string) => (
    <Choose
      label={label}
      value={names[i]!}
      onChange={(id) => setNames(names.with(i, id))}
      options={[
        { value: '', label },
        ...all.map((id) => ({ value: id, label: id })),
        { value: fresh, label: `${fresh}, a new point` },
      ]}
    />
  )
  const number = (label: string, value: number | null, set: (v: number | null) => void, unit: string) => (
    <QuantityInput
      aria-label={label}
      placeholder={label}
      inputMode="decimal"
      value={value}
      step={0.01}
      suffix={unit}
      onChange={set}
    />
  )
  const made = measuredOf(kind, names, a, b, tapes.measured.length)
  const add = () => {
    if (!made) return
    const used = names.filter(Boolean)
    const points = [...tapes.points, ...used.filter((id) => !all.includes(id)).map((id) => ({ id }))]
    onTapes({ ...tapes, points, measured: [...tapes.measured, made] })
    setA(null)
    setB(null)
  }
  return (
    <section aria-label="What was measured">
      <h2>What was measured</h2>
      <Segments label="Kind of measurement" value={kind} options={kinds} onChange={setKind} wide />
      <div className="tape-row">
        {kind === 'a tape' && (
          <>
            {pick(0, 'From')}
            {pick(1, 'To')}
            {number('Length', a, setA, 'm')}
          </>
        )}
        {kind === 'along a line' && (
          <>
            {pick(0, 'Line from')}
            {pick(1, 'Line to')}
            {pick(2, 'Point')}
            {number('Along it', a, setA, 'm')}
            {number('Off it, left +, right −', b, setB, 'm')}
          </>
        )}
        {kind === 'a right angle' && (
          <>
            {pick(0, 'At')}
            {pick(1, 'Between')}
            {pick(2, 'And')}
          </>
        )}
        {kind === 'a bearing' && (
          <>
            {pick(0, 'From')}
            {pick(1, 'To')}
            {number('Clockwise from up the plan', a, setA, '°')}
          </>
        )}
        <Button look="primary" disabled={!made} onClick={add}>
          Add
        </Button>
      </div>
    </section>
  )
}

/** What is typed as a measurement; undefined while something of it is missing. */
function measuredOf(
  kind: Kind,
  [p, q, r]: readonly string[],
  a: number | null,
  b: number | null,
  nth: number,
): Measured | undefined {
  const id = `m${nth + 1} ${p}-${q}-${r} ${Date.now()}`
  if (!p || !q || p === q) return undefined
  switch (kind) {
    case 'a tape':
      return a !== null && a > 0 ? { id, kind: 'distance', from: p, to: q, metres: a } : undefined
    case 'along a line':
      return r && a !== null && b !== null
        ? { id, kind: 'offset', base: [p, q], to: r, alongM: a, offM: b }
        : undefined
    case 'a right angle':
      return r ? { id, kind: 'right angle', at: p, from: q, to: r } : undefined
    case 'a bearing':
      return a !== null ? { id, kind: 'bearing', from: p, to: q, deg: a } : undefined
  }
}

/** Each point with how far it may be out, what could not be found, and the tape that does not fit. */
function Found({ tapes, result, onTapes }: Props & { result: Adjusted }) {
  const name = (id: string) => {
    const m = tapes.measured.find((x) => x.id === id)
    return m ? measuredWords(m) : id
  }
  return (
    <section aria-label="Where they lie">
      {result.blunder.length > 0 && (
        <Alert
          type="error"
          title={
            result.blunder.length === 1
              ? `This does not fit the rest. Measure it again: ${name(result.blunder[0]!)}.`
              : `One of these does not fit, and they cannot be told apart. Measure them again: ${result.blunder.map(name).join('; ')}.`
          }
        />
      )}
      {result.missing.map((m) => (
        <div key={m.id}>
          <Alert type="warning" title={`${m.says}.`} />
          {/ either side /.test(m.says) && <SideOf tapes={tapes} point={m.id} onTapes={onTapes} />}
        </div>
      ))}
      {result.points.length > 0 && (
        <ul className="changes" aria-label="Points found">
          {result.points.map((p) => (
            <li key={p.id}>
              <b>{p.id}</b> {p.at[0].toFixed(2)} m E, {p.at[1].toFixed(2)} m N{' '}
              <small>
                within {Math.max(1, Math.round(p.ellipse.majorM * 100))} cm, 95 times in 100
                {p.isChecked ? '' : '; not checked by a third tape'}
              </small>
              <Button
                size="small"
                look="text"
                aria-label={`Leave out ${p.id}`}
                onClick={() => onTapes(withoutPoint(tapes, p.id))}
              >
                ✕
              </Button>
            </li>
          ))}
        </ul>
      )}
      {tapes.measured.length > 0 && (
        <details>
          <summary>{tapes.measured.length} measured</summary>
          <ul className="changes">
            {tapes.measured.map((m) => (
              <li key={m.id} className={result.blunder.includes(m.id) ? 'armful-unsure' : undefined}>
                {measuredWords(m)}
                <Button
                  size="small"
                  look="text"
                  aria-label={`Take out ${measuredWords(m)}`}
                  onClick={() => onTapes({ ...tapes, measured: tapes.measured.filter((x) => x !== m) })}
                >
                  ✕
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

/** Two tapes leave two places open: on which side of the line between them it lies is said. */
function SideOf({ tapes, point, onTapes }: Props & { point: string }) {
  const from = tapes.measured.flatMap((m) =>
    m.kind === 'distance' && (m.from === point || m.to === point) ? [m.from === point ? m.to : m.from] : [],
  )
  const squared = tapes.measured.flatMap((m) =>
    m.kind === 'right angle' && (m.from === point || m.to === point)
      ? [m.at, m.from === point ? m.to : m.from]
      : [],
  )
  const [a, b] = from.length > 1 ? from : squared
  if (!a || !b) return null
  const say = (side: OnSide['side']) =>
    onTapes({ ...tapes, sides: [...tapes.sides, { point, of: [a, b], side }] })
  return (
    <div className="row">
      <span>
        Looking from {a} to {b}, it lies
      </span>
      <Button size="small" onClick={() => say('left')}>
        left
      </Button>
      <Button size="small" onClick={() => say('right')}>
        right
      </Button>
    </div>
  )
}

/** To print: blanks for every new point from every known one, and where each lies. */
function PaperSheet({ tapes }: { tapes: Tapes }) {
  const { view } = useGardenContext()
  const known = tapes.points.filter(isKnown)
  return (
    <section className="only-print" aria-label="Sheet">
      <h1>By tape: {view.garden.name}</h1>
      <p>
        From each point on the plan to each corner, the tape level and taut; write the unit once. Three tapes
        to each corner: the third finds a slip. Number the corners as you go round.
      </p>
      <table className="plain-table">
        <thead>
          <tr>
            <th>From</th>
            {Array.from({ length: 8 }, (_, i) => (
              <th key={i}>P{i + 1}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {(known.length > 0 ? known : [{ id: 'A' }, { id: 'B' }, { id: 'C' }]).map((p) => (
            <tr key={p.id}>
              <td>
                {p.id}
                {p.x !== undefined && p.y !== undefined && ` (${p.x.toFixed(2)} E, ${p.y.toFixed(2)} N)`}
              </td>
              {Array.from({ length: 8 }, (_, i) => (
                <td key={i} className="blank" />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
