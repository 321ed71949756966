import type { FeatureView } from '@border/contract'
import { checkFeature, problemText, type FileProblem, type PlanFeature } from '@border/core'
import { Alert, Collapse, Input } from 'antd'
import dayjs from 'dayjs'
import { useId, useState } from 'react'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { AlikeFields } from './AlikeFields.tsx'
import { CornerInputs } from './CornerInputs.tsx'
import {
  allParts,
  drawnAs,
  drawnNow,
  emptyGeometry,
  inHand,
  pointNow,
  saidAs,
  standingAt,
  straysOf,
  type Draft,
} from './draft.ts'
import { KeepBar } from './KeepBar.tsx'
import { drawnKinds, kindsLike, leastCorners, shapeOf, type DrawnKind } from './kinds.ts'
import { OutlineTools } from './OutlineTools.tsx'
import { PartFields } from './PartFields.tsx'
import { PointInputs } from './PointInputs.tsx'
import { ReadyShapes } from './ReadyShapes.tsx'
import { completed, usuallySaid, withSaid } from './said.ts'
import { Strays } from './Strays.tsx'
import { usualLeafDates } from './usualLeafDates.ts'
import { MeasureHeight } from '../survey/MeasureHeight.tsx'
import type { Editor } from './useEditor.ts'
import { DayPicker } from '../units/DayPicker.tsx'

interface Props {
  editor: Editor
  draft: Draft
  /** A corner was chosen: the one in hand, or the end of a cut. */
  onCorner: (i: number) => void
  /** The next corner that is chosen ends a cut from the one in hand. */
  onSplit: () => void
  onJoin: (other: FeatureView) => void
  said: string | undefined
}

/** The part in hand: what it is, where it lies corner by corner, what can be done with it, and keeping it. */
export function DraftPanel({ editor, draft, onCorner, onSplit, onJoin, said }: Props) {
  const { view } = useGardenContext()
  const { now, was } = inHand(draft)
  const [problems, setProblems] = useState<readonly string[]>([])
  const strays = straysOf(draft, view.plantings)
  const keep = (from?: string) => {
    const found = problemsOf(draft)
    setProblems(found)
    if (found.length === 0) editor.keep(from)
  }
  return (
    <section className="draw-form stack" aria-label={was ? `Put ${was.name} right` : 'Add to the plan'}>
      <h2>{was ? 'Correct the drawing' : 'Add to the plan'}</h2>
      {now ? (
        <>
          <WhatItIs editor={editor} draft={draft} now={now} />
          <OutlineTools {...{ editor, draft, onSplit, onJoin }} />
          {said && <Alert type="warning" title={said} />}
          <Where {...{ editor, draft, now, onCorner }} />
          <More editor={editor} draft={draft} now={now} />
        </>
      ) : (
        <Going draft={draft} />
      )}
      {strays.length > 0 && <Strays editor={editor} draft={draft} strays={strays} />}
      {problems.map((p) => (
        <Alert key={p} type="error" title={p} />
      ))}
      <KeepBar
        editor={editor}
        draft={draft}
        waits={strays.length > 0 ? 'Say first where the plants outside it stand.' : missingWords(draft)}
        onKeep={keep}
      />
    </section>
  )
}

/** What has to be drawn or said before it can be kept. */
function missingWords(draft: Draft): string | undefined {
  const { now } = inHand(draft)
  if (!now) return undefined
  if (!now.name.trim()) return 'Give it a name.'
  if (now.geometry.type === 'Point') return pointNow(draft) ? undefined : 'Say where it stands.'
  const missing = leastCorners(now.geometry.type) - drawnNow(draft)!.handles.length
  return missing > 0 ? `${missing} more ${missing === 1 ? 'corner' : 'corners'} to go.` : undefined
}

/** What is wrong with the parts of a draft, each by its name. */
function problemsOf(draft: Draft): string[] {
  return allParts(draft).flatMap(({ now }) => {
    if (!now) return []
    const read = checkFeature({
      type: 'Feature',
      properties: { ...completed(now), kind: now.kind, name: now.name, from: now.from, to: now.to },
      geometry: now.geometry,
    })
    const told = (p: FileProblem) => problemText({ ...p, file: now.name })
    return read.ok ? [] : read.problems.map(told)
  })
}

interface PartProps {
  editor: Editor
  draft: Draft
  now: PlanFeature
}

/** Its kind, its name, and what is asked first of its kind. */
function WhatItIs({ editor, draft, now }: PartProps) {
  const { view } = useGardenContext()
  const nameId = useId()
  const { was } = inHand(draft)
  const kinds = was ? kindsLike(now.geometry.type) : drawnKinds
  return (
    <>
      <div className="draw-sizes">
        <div className="draw-field">
          <span>What</span>
          <Choose<DrawnKind>
            label="What"
            value={now.kind as DrawnKind}
            onChange={(kind) => editor.step(madeA(draft, kind))}
            options={kinds.map((k) => ({ value: k, label: k }))}
          />
        </div>
        <div className="draw-field">
          <label htmlFor={nameId}>Name</label>
          <Input
            id={nameId}
            value={now.name}
            maxLength={120}
            autoFocus={!was}
            onChange={(e) => editor.step(saidAs(draft, { name: e.target.value }), true)}
          />
        </div>
      </div>
      <Said editor={editor} draft={draft} now={now} which="first" />
      {now.kind === 'tree' && (
        <label>
          <input
            type="checkbox"
            checked={now.properties.leafFrom !== undefined}
            onChange={(e) => {
              const { leafFrom: _f, leafTo: _t, transmissionBare: _b, ...rest } = now.properties
              const bare = { ...usualLeafDates(view), transmissionBare: 0.6 }
              editor.step(saidAs(draft, { properties: e.target.checked ? { ...rest, ...bare } : rest }))
            }}
          />{' '}
          Drops its leaves in winter
        </label>
      )}
    </>
  )
}

/** Another kind of part: what was drawn stays where it can, sizes of its own come with it. */
function madeA(draft: Draft, kind: DrawnKind): Draft {
  const { was, now } = inHand(draft)
  const usual = Object.entries(usuallySaid(kind)).reduce<PlanFeature>(
    (part, [name, value]) =>
      part.properties[name] === undefined ? { ...part, properties: withSaid(part, name, value) } : part,
    { ...now!, kind },
  )
  const isAlike = was || shapeOf(kind) === now!.geometry.type
  const said = saidAs(draft, { kind, properties: usual.properties })
  if (isAlike) return said
  return {
    ...said,
    parts: said.parts.with(0, {
      ...inHand(said),
      now: { ...inHand(said).now!, geometry: emptyGeometry(kind) },
    }),
  }
}

function Said({ editor, draft, now, which }: PartProps & { which: 'first' | 'rest' }) {
  return (
    <PartFields
      part={now}
      which={which}
      onSay={(name, value) => editor.step(saidAs(draft, { properties: withSaid(now, name, value) }), true)}
    />
  )
}

/** Where it lies: its corners, or the point that it has. */
function Where({ editor, draft, now, onCorner }: PartProps & Pick<Props, 'onCorner'>) {
  if (now.geometry.type === 'Point')
    return (
      <section className="draw-corners" aria-label="Outline">
        <h3>Where</h3>
        <small>Click the plan, or type where it stands: metres from the plan’s origin.</small>
        <div className="row">
          <PointInputs at={pointNow(draft)} onAt={(at) => editor.step(standingAt(draft, at), true)} />
        </div>
        {now.kind === 'container' && !inHand(draft).was && <AlikeFields {...{ editor, draft, now }} />}
      </section>
    )
  const drawn = drawnNow(draft)!
  return (
    <>
      {drawn.closed && drawn.handles.length === 0 && <ReadyShapes editor={editor} draft={draft} />}
      <CornerInputs
        drawn={drawn}
        least={leastCorners(now.geometry.type)}
        held={editor.handle}
        onHold={onCorner}
        onHandles={(handles, sameStep) => editor.step(drawnAs(draft, { ...drawn, handles }), sameStep)}
      />
    </>
  )
}

/** Its height as it was measured, and how far that may be out. */
const measuredAs = ({ properties }: PlanFeature, heightM: number, sdM: number) => ({
  ...properties,
  heightM: Math.round(heightM * 100) / 100,
  standardErrors: { ...(properties.standardErrors as object), heightM: Math.round(sdM * 100) / 100 },
})

/** The rest of what can be said, and the days it stands from and to. */
function More({ editor, draft, now }: PartProps) {
  return (
    <Collapse
      ghost
      size="small"
      items={[
        ...(typeof now.properties.heightM === 'number'
          ? [
              {
                key: 'height',
                label: 'Measure its height',
                children: (
                  <MeasureHeight
                    onTake={({ value, sd }) =>
                      editor.step(saidAs(draft, { properties: measuredAs(now, value, sd) }))
                    }
                  />
                ),
              },
            ]
          : []),
        {
          key: 'more',
          label: 'More about it',
          children: (
            <>
              <Said editor={editor} draft={draft} now={now} which="rest" />
              <div className="draw-sizes">
                {(['from', 'to'] as const).map((end) => (
                  <div className="draw-field" key={end}>
                    <span>{end === 'from' ? 'Standing since' : 'Gone from'}</span>
                    <DayPicker
                      aria-label={end === 'from' ? 'Standing since' : 'Gone from'}
                      placeholder={end === 'from' ? 'always' : 'it stands'}
                      value={now[end] ? dayjs(now[end]) : null}
                      onChange={(d) =>
                        editor.step(saidAs(draft, { [end]: d ? d.format('YYYY-MM-DD') : null }))
                      }
                    />
                  </div>
                ))}
              </div>
            </>
          ),
        },
      ]}
    />
  )
}

/** It is to go: said with what goes along. */
function Going({ draft }: { draft: Draft }) {
  const { view } = useGardenContext()
  const tags = draft.withdrawn.map((id) => view.plantings.find((p) => p.id === id)?.tag).filter(Boolean)
  return (
    <p>
      It comes off the plan{tags.length > 0 && <>, and with it {tags.join(', ')}</>}. Everything is kept, and
      can be brought back under Changes.
    </p>
  )
}
