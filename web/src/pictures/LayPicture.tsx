import { pictureEndpoints, type PictureView } from '@border/contract'
import { clickedOutM, lieOf, type Laying, type Lies, type Point } from '@border/core'
import { Alert } from 'antd'
import { useMemo, useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { sideBetween, turned } from '../draw/outline.ts'
import { PointInputs } from '../draw/PointInputs.tsx'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { lengthText } from '../frame/words.ts'
import { usePlanCorners } from '../survey/planCorners.ts'
import {
  draftOfLaying,
  keyOf,
  layingOf,
  markName,
  planDiffersM,
  tapesOf,
  turnings,
  withoutMark,
  type LayingDraft,
  type Turning,
} from './layingDraft.ts'
import { MarkedPicture } from './MarkedPicture.tsx'
import { pictureAddress } from './queries.ts'
import { TieDrawing } from './TieDrawing.tsx'
import '../draw/draw.css'
import './pictures.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** A picture laid under the plan by points that are found in both, or by tapes between them. */
export function LayPicture({ picture, onDone }: { picture: PictureView; onDone: () => void }) {
  const { view } = useGardenContext()
  const { id: gardenId, northDeg } = view.garden
  const [draft, setDraft] = useState(() => draftOfLaying(picture.laying, northDeg))
  const [chosen, choose] = useState<number>()
  const put = (change: Partial<LayingDraft>) => setDraft((before) => ({ ...before, ...change }))
  const said = layingOf(draft, northDeg)
  const key = said.ok ? JSON.stringify(said.laying) : ''
  // Worked out anew only when something is said otherwise.
  const lies = useMemo(() => (key ? lieOf(JSON.parse(key) as Laying) : undefined), [key])
  const keep = useGardenWrite(
    pictureEndpoints.amend,
    { gardenId, pictureId: picture.id },
    'It lies under the plan.',
    () => picture,
  )
  const asksArrow = draft.how === 'from above' && draft.turned === 'a north arrow' && draft.marks.length === 2
  const mark = (px: Point) => {
    if (draft.how === 'from above' && draft.marks.length === 2) {
      if (asksArrow) put({ arrow: draft.arrow.length < 2 ? [...draft.arrow, px] : [px] })
      return
    }
    // An empty plan begins at the first point.
    const at: Point | undefined = view.features.length === 0 && draft.marks.length === 0 ? [0, 0] : undefined
    put({ marks: [...draft.marks, { px, at }] })
    choose(draft.marks.length)
  }
  const marks = draft.marks.map((m, i) => ({ ...m, name: markName(draft.how, i) }))
  const arrow = asksArrow ? draft.arrow.map((px, i) => ({ px, name: i === 0 ? 'foot' : 'N' })) : []
  const move = (i: number, px: Point) =>
    i < marks.length
      ? put({ marks: draft.marks.with(i, { ...draft.marks[i]!, px }) })
      : put({ arrow: draft.arrow.with(i - marks.length, px) })
  const setAt = (i: number, at: Point) => put({ marks: draft.marks.with(i, { ...draft.marks[i]!, at }) })
  /** The plan is clicked for the mark in hand, else for the first that lies nowhere yet. */
  const asked = chosen !== undefined && draft.marks[chosen] ? chosen : draft.marks.findIndex((m) => !m.at)
  return (
    <div className="pictures">
      <div className="pictures-stages">
        <MarkedPicture
          address={pictureAddress(gardenId, picture)}
          width={picture.width}
          height={picture.height}
          marks={[...marks, ...arrow]}
          chosen={chosen}
          onChoose={choose}
          onMove={move}
          onPoint={mark}
        />
        <TieDrawing
          marks={marks.map(({ name, at }) => ({ name, at }))}
          picture={lies?.ok ? { ...picture, lie: lies.lie } : undefined}
          onAt={(at) => {
            if (asked < 0) return
            setAt(asked, at)
            choose(undefined)
          }}
        />
      </div>
      <aside className="stack" aria-label="How it lies">
        <Segments
          label="How it was taken"
          wide
          value={draft.how}
          onChange={(how) => {
            choose(undefined)
            put({ how, marks: how === 'from above' ? draft.marks.slice(0, 2) : draft.marks })
          }}
          options={[
            { value: 'from above', label: 'A scan, or from above' },
            { value: 'slanting', label: 'A slanting photo' },
          ]}
        />
        {draft.how === 'slanting' && <KnownBy draft={draft} put={put} />}
        <MarkRows
          draft={draft}
          chosen={chosen}
          onChoose={choose}
          onAt={setAt}
          onOut={(i) => {
            choose(undefined)
            setDraft(withoutMark(draft, i))
          }}
        />
        {draft.how === 'from above' ? (
          <LengthAndTurn draft={draft} put={put} />
        ) : (
          draft.known === 'by tape' && (
            <TapeTable draft={draft} put={put} doubtful={lies?.ok ? lies.lie.doubtful : []} />
          )
        )}
        <div role="status">
          {said.ok ? <HowItLies lies={lies!} draft={draft} /> : <p className="next-step">{said.asks}</p>}
        </div>
        <div className="row">
          <Button
            look="primary"
            disabled={!said.ok || !lies?.ok}
            loading={keep.isPending}
            onClick={() => said.ok && keep.mutate({ laying: said.laying }, { onSuccess: onDone })}
          >
            Lay it so
          </Button>
          {picture.laying && (
            <Button look="text" danger onClick={() => keep.mutate({ laying: null }, { onSuccess: onDone })}>
              Do not lay it
            </Button>
          )}
        </div>
      </aside>
    </div>
  )
}

interface DraftProps {
  draft: LayingDraft
  put: (change: Partial<LayingDraft>) => void
}

const KnownBy = ({ draft, put }: DraftProps) => (
  <Segments
    label="How its points are known"
    wide
    value={draft.known}
    onChange={(known) => put({ known })}
    options={[
      { value: 'on the plan', label: 'They are on the plan' },
      { value: 'by tape', label: 'By tapes between them' },
    ]}
  />
)

interface RowsProps {
  draft: LayingDraft
  chosen: number | undefined
  onChoose: (i: number) => void
  onAt: (i: number, at: Point) => void
  onOut: (i: number) => void
}

/** The points that are marked, and where those lie that have to be found on the plan. */
function MarkRows({ draft, chosen, onChoose, onAt, onOut }: RowsProps) {
  const corners = usePlanCorners()
  const isTied = (i: number) =>
    draft.how === 'slanting'
      ? draft.known === 'on the plan' || i === 0
      : i === 0 || draft.turned === 'both on the plan'
  if (draft.marks.length === 0) return null
  return (
    <ol className="mark-rows" aria-label="Points">
      {draft.marks.map((m, i) => {
        const name = markName(draft.how, i)
        return (
          <li key={i} className={i === chosen ? 'chosen' : undefined}>
            <Button size="small" aria-pressed={i === chosen} onClick={() => onChoose(i)}>
              {name}
            </Button>
            {isTied(i) && (
              <>
                <Choose
                  label={`Where ${name} lies`}
                  value=""
                  onChange={(id) => {
                    const corner = corners.find((c) => c.id === id)
                    if (corner) onAt(i, [corner.x, corner.y])
                  }}
                  options={[
                    { value: '', label: 'lies at a corner of …' },
                    ...corners.map((c) => ({ value: c.id, label: c.id })),
                  ]}
                />
                <PointInputs at={m.at} onAt={(at) => onAt(i, at)} />
              </>
            )}
            <Button size="small" look="text" aria-label={`Take out ${name}`} onClick={() => onOut(i)}>
              ✕
            </Button>
          </li>
        )
      })}
    </ol>
  )
}

const turningWords: Readonly<Record<Turning, string>> = {
  'up is north': 'Up in it is north',
  'a north arrow': 'By its north arrow',
  'both on the plan': 'By A and B on the plan',
  'by degrees': 'By degrees',
}

function LengthAndTurn({ draft, put }: DraftProps) {
  const differs = planDiffersM(draft)
  return (
    <div className="draw-sizes">
      <div className="draw-field">
        <label>
          From A to B
          <QuantityInput
            aria-label="From A to B"
            min={0.01}
            max={2000}
            step={0.1}
            precision={2}
            suffix="m"
            value={draft.lengthM}
            placeholder={draft.turned === 'both on the plan' ? 'as on the plan' : ''}
            onChange={(lengthM) => put({ lengthM })}
          />
        </label>
      </div>
      <div className="draw-field">
        <label>
          Turned
          <Choose
            label="Turned"
            value={draft.turned}
            onChange={(turned) => put({ turned, arrow: [] })}
            options={turnings.map((value) => ({ value, label: turningWords[value] }))}
          />
        </label>
      </div>
      {draft.turned === 'by degrees' && (
        <div className="draw-field">
          <label>
            Clockwise
            <QuantityInput
              aria-label="Turned clockwise"
              step={1}
              suffix="°"
              value={Math.round(draft.turnDeg * 10) / 10}
              onChange={(v) => v !== null && put({ turnDeg: v })}
            />
          </label>
        </div>
      )}
      {differs !== undefined && (
        <small className="draw-field wide">
          On the plan A and B are {lengthText(differs)} apart. Where the length is right, the plan is not.
        </small>
      )}
    </div>
  )
}

/** A tape between any two of the points, as many as were measured; and which way the second lies from the first. */
function TapeTable({ draft, put, doubtful }: DraftProps & { doubtful: readonly number[] }) {
  const { view } = useGardenContext()
  const n = draft.marks.length
  const pairs = draft.marks.flatMap((_, a) => draft.marks.slice(a + 1).map((_, b) => [a, a + 1 + b] as const))
  const tapes = tapesOf(draft)
  const bad = new Set(doubtful.map((i) => keyOf(tapes[i]!.from, tapes[i]!.to)))
  const corners = usePlanCorners()
  const { at } = draft.marks[0] ?? {}
  if (n < 2) return null
  return (
    <>
      <div className="mark-tapes" role="group" aria-label="Tapes between the points">
        {pairs.map(([a, b]) => {
          const key = keyOf(a, b)
          return (
            <label key={key} className={bad.has(key) ? 'doubtful' : undefined}>
              {a + 1}–{b + 1}
              <QuantityInput
                aria-label={`From ${a + 1} to ${b + 1}`}
                min={0.01}
                max={2000}
                step={0.01}
                suffix="m"
                value={draft.tapes[key] ?? null}
                onChange={(v) => {
                  const { [key]: _, ...others } = draft.tapes
                  put({ tapes: v === null ? others : { ...draft.tapes, [key]: v } })
                }}
              />
            </label>
          )
        })}
      </div>
      <div className="draw-sizes">
        <div className="draw-field">
          <label>
            2 lies from 1, from north
            <QuantityInput
              aria-label="2 lies from 1, clockwise from north"
              step={1}
              suffix="°"
              value={draft.bearingDeg}
              onChange={(bearingDeg) => put({ bearingDeg })}
            />
          </label>
        </div>
        <div className="draw-field">
          <label>
            or towards
            <Choose
              label="2 lies towards"
              value=""
              onChange={(id) => {
                const corner = corners.find((c) => c.id === id)
                if (!corner || !at) return
                const { bearingDeg } = sideBetween(at, [corner.x, corner.y])
                put({ bearingDeg: Math.round(turned(bearingDeg - view.garden.northDeg)) })
              }}
              options={[
                { value: '', label: at ? 'a corner of …' : 'first say where 1 lies' },
                ...(at ? corners.map((c) => ({ value: c.id, label: c.id })) : []),
              ]}
            />
          </label>
        </div>
      </div>
    </>
  )
}

/** How far out it may be, as far as anything tells. */
function HowItLies({ lies, draft }: { lies: Lies; draft: LayingDraft }) {
  if (!lies.ok) return <Alert type="error" title={lies.says} />
  const { errorM, misfitsM, doubtful } = lies.lie
  if (doubtful.length > 0) {
    const tapes = tapesOf(draft)
    const names = doubtful.map((i) => `${tapes[i]!.from + 1}–${tapes[i]!.to + 1}`)
    return (
      <Alert
        type="warning"
        title={
          names.length === 1
            ? `The tape ${names[0]} does not fit the others. Measure it again.`
            : `One of the tapes ${names.join(', ')} does not fit, and they cannot be told apart. Measure them again.`
        }
      />
    )
  }
  if (draft.how === 'from above')
    return <small>Two points place it; nothing checks them. Measure something else that it shows.</small>
  const clicks = `A click two pixels out moves it by ${lengthText(clickedOutM(lies.lie))}: look closer before you click, or take the photo from higher up.`
  if (errorM === null)
    return (
      <small>Four points place it, and nothing checks them; a fifth tells how far it is out. {clicks}</small>
    )
  const worst = misfitsM.indexOf(Math.max(...misfitsM))
  return (
    <small>
      It is out by about {lengthText(errorM)}; most at {worst + 1}, by {lengthText(misfitsM[worst]!)}.{' '}
      {clicks} Only what lies flat on the ground comes straight.
    </small>
  )
}
