import type { FeatureView } from '@border/contract'
import { castsShade, corner, isAlive, type FeatureKind, type Point } from '@border/core'
import { memo, useCallback, useMemo, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { shortDate } from '../frame/words.ts'
import { ObstructionPanel } from '../light/ObstructionPanel.tsx'
import '../light/light.css'
import { PicturesUnder } from '../pictures/PicturesUnder.tsx'
import { usePictures } from '../pictures/queries.ts'
import type { PlanScale } from '../plan/scale.ts'
import { WorthMeasuring } from '../survey/WorthMeasuring.tsx'
import { Beginning, isBeginning } from './Beginning.tsx'
import { Changes } from './Changes.tsx'
import './draw.css'
import {
  draftOf,
  drawnAs,
  drawnNow,
  inHand,
  isChanged,
  joinDraft,
  newDraft,
  splitDraft,
  type Draft,
} from './draft.ts'
import { DraftPanel } from './DraftPanel.tsx'
import { DraftPotLight } from './DraftPotLight.tsx'
import { drawnKinds, type DrawnKind } from './kinds.ts'
import { partIn } from './part.ts'
import { PlanCanvas } from './PlanCanvas.tsx'
import { useEditor, type Editor } from './useEditor.ts'

/** The plan by hand: looked about on, drawn, and put right, by mouse, touch and keys. */
export function PlanScreen() {
  const { view, isHead } = useGardenContext()
  const { search, state } = useLocation()
  const editor = useEditor(() => (isHead ? begunWith(view.features, search, state) : undefined))
  const [chosenId, choose] = useState<string>()
  const [aside, setAside] = useState<'plan' | 'changes'>('plan')
  const cutting = useCutting(editor)
  const pictures = useUnderlay()
  const { draft } = editor
  const pick = (id: string) => {
    // What is being changed stays in hand until it is kept or left.
    if (draft) return
    const feature = view.features.find((f) => f.id === id)
    choose(id)
    if (isHead && feature) editor.begin(feature)
  }
  return (
    <>
      <ScreenHead
        title="Plan"
        lead={
          view.features.length === 0
            ? 'An empty plan. Start with what casts shade and one bed; or bring a whole garden in from files.'
            : 'What stands in the garden and about it. Click a part to put it right; the light follows at once.'
        }
      >
        <Segments
          label="Beside the plan"
          value={aside}
          onChange={setAside}
          options={[
            { value: 'plan', label: 'Parts' },
            { value: 'changes', label: 'Changes' },
          ]}
        />
        {isHead && !draft && (
          <>
            <Link to={{ pathname: 'tapes', search }}>By tape</Link>
            <Link to={{ pathname: 'pictures', search }}>From a picture</Link>
          </>
        )}
        {isHead && !draft && (
          <Button look="primary" onClick={() => editor.beginNew('bed')}>
            Add to the plan
          </Button>
        )}
      </ScreenHead>
      <div className="screen-split plan-split">
        <PlanCanvas
          editor={editor}
          isAdding={isAdding(editor)}
          selectedId={draft ? undefined : chosenId}
          onPick={pick}
          onHandle={cutting.choose}
          underlay={pictures.underlay}
        >
          {pictures.laid > 0 && (
            <label>
              <input type="checkbox" checked={pictures.isOn} onChange={pictures.turn} />{' '}
              {pictures.laid === 1 ? 'Picture' : 'Pictures'}
            </label>
          )}
        </PlanCanvas>
        <aside className="stack" aria-label="Parts of the plan">
          {draft && <WhatHappened editor={editor} />}
          {draft && <DraftPotLight draft={draft} />}
          {draft ? (
            <SteadyPanel
              editor={editor}
              draft={draft}
              onCorner={cutting.choose}
              onSplit={cutting.begin}
              onJoin={cutting.join}
              said={cutting.said}
            />
          ) : aside === 'changes' ? (
            <Changes />
          ) : (
            <>
              {isBeginning(view) && <Beginning onDraw={(kind) => editor.beginNew(kind)} />}
              <Parts chosenId={chosenId} onChoose={pick} onClose={() => choose(undefined)} />
            </>
          )}
        </aside>
      </div>
    </>
  )
}

/** The pictures that lie under the plan, and whether they are to be seen just now. */
function useUnderlay() {
  const { view } = useGardenContext()
  const { data } = usePictures(view.garden.id)
  const [isOn, setOn] = useState(true)
  const laid = useMemo(() => (data ?? []).filter((p) => p.isShown && p.laying), [data])
  const underlay = useCallback(
    (scale: PlanScale) => <PicturesUnder gardenId={view.garden.id} pictures={laid} scale={scale} />,
    [view.garden.id, laid],
  )
  return {
    laid: laid.length,
    isOn,
    turn: () => setOn(!isOn),
    underlay: isOn && laid.length > 0 ? underlay : undefined,
  }
}

/** While something is dragged it is told on the drawing: what is beside it waits for where it is let go. */
const SteadyPanel = memo(DraftPanel, (_, { editor }) => editor.isPreviewed)

/** What an address, or another screen, asks to have in hand: a part to put right, or points to draw something through. */
function begunWith(features: readonly FeatureView[], search: string, state: unknown): Draft | undefined {
  const part = features.find((f) => f.id === partIn(search))
  if (part) return draftOf(part)
  const {
    kind,
    through,
    curved = false,
  } = (state ?? {}) as {
    kind?: DrawnKind
    through?: readonly Point[]
    curved?: boolean
  }
  if (!kind || !through) return undefined
  return drawnAs(newDraft(crypto.randomUUID(), kind), {
    handles: through.map((p) => ({ ...corner(p), curved })),
    closed: true,
  })
}

/** Clicks put corners while something new is drawn that did not come ready. */
function isAdding({ draft }: Editor): boolean {
  if (!draft) return false
  const { was, now } = inHand(draft)
  if (was || !now) return false
  const drawn = drawnNow(draft)
  return !drawn || !drawn.handles.some((h) => h.curved)
}

/** Cutting a bed in two and making two one: what could not be done is said. */
function useCutting(editor: Editor) {
  const [begun, setBegun] = useState<{ partId: string; from: number }>()
  const [said, setSaid] = useState<string>()
  const { draft } = editor
  // A cut ends with the part that it was begun in.
  const from = draft && begun?.partId === inHand(draft).id ? begun.from : undefined
  const tell = (made: ReturnType<typeof joinDraft>) => {
    setSaid(made.ok ? undefined : `That cannot be done: ${made.says}.`)
    if (made.ok) editor.step(made.draft)
  }
  return {
    said: from === undefined ? said : `Choose the corner to cut to, from corner ${from + 1}.`,
    begin: () =>
      draft && editor.handle !== undefined && setBegun({ partId: inHand(draft).id, from: editor.handle }),
    /** A corner is chosen, on the plan or in the list: the end of a cut, or the one in hand. */
    choose: (i: number) => {
      if (from === undefined || !draft) return editor.hold(i)
      setBegun(undefined)
      const { name } = inHand(draft).now!
      tell(splitDraft(draft, from, i, crypto.randomUUID(), `${name}, second part`))
    },
    join: (other: FeatureView) => draft && tell(joinDraft(draft, other)),
  }
}

/** What has happened to a part that casts shade, while nothing of it is being changed. */
function WhatHappened({ editor }: { editor: Editor }) {
  const { was } = inHand(editor.draft!)
  if (!was || !castsShade(was) || isChanged(editor.draft!)) return null
  return (
    <ObstructionPanel
      key={was.id}
      feature={was}
      onClose={editor.leave}
      onEdited={(edited) => {
        editor.noteKept(edited)
        // What is in hand is of before.
        editor.leave()
      }}
    />
  )
}

interface PartsProps {
  chosenId: string | undefined
  onChoose: (id: string) => void
  onClose: () => void
}

/** What is on the plan; of the one that is chosen, what has happened to it. */
function Parts({ chosenId, onChoose, onClose }: PartsProps) {
  const { view, isHead } = useGardenContext()
  const chosen = view.features.find((f) => f.id === chosenId)
  return (
    <>
      {chosen && castsShade(chosen) && !isHead && (
        <ObstructionPanel key={chosen.id} feature={chosen} onClose={onClose} />
      )}
      <PartsList chosenId={chosenId} onChoose={onChoose} />
      {isHead && <WorthMeasuring onChoose={onChoose} />}
    </>
  )
}

const kindOrder: readonly FeatureKind[] = drawnKinds

function PartsList({ chosenId, onChoose }: Pick<PartsProps, 'chosenId' | 'onChoose'>) {
  const { view, on } = useGardenContext()
  const parts = [...view.features].sort((a, b) => kindOrder.indexOf(a.kind) - kindOrder.indexOf(b.kind))
  return (
    <div>
      <h2>On the plan</h2>
      {parts.map((f) => (
        <div key={f.id} className={`part-row${f.id === chosenId ? ' selected' : ''}`}>
          <button type="button" onClick={() => onChoose(f.id)} aria-pressed={f.id === chosenId}>
            {f.name} <small>{describe(f, on)}</small>
          </button>
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
