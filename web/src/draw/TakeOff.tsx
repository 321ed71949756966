import { planEndpoints, type Hanging } from '@border/contract'
import { counted, listed } from '@border/core'
import { useState } from 'react'
import { useAnswer } from '../api/answers.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { goneWith, inHand, type Draft } from './draft.ts'
import type { Editor } from './useEditor.ts'

interface Props {
  editor: Editor
  draft: Draft
}

/** Taking a part off the plan: first it is said what hangs on it. */
export function TakeOff({ editor, draft }: Props) {
  const [asking, setAsking] = useState(false)
  if (!asking)
    return (
      <Button size="small" danger onClick={() => setAsking(true)}>
        Take it off the plan
      </Button>
    )
  return <Asked editor={editor} draft={draft} onDone={() => setAsking(false)} />
}

function Asked({ editor, draft, onDone }: Props & { onDone: () => void }) {
  const { view } = useGardenContext()
  const { id, was } = inHand(draft)
  const hanging = useAnswer(planEndpoints.hanging, { params: { gardenId: view.garden.id, featureId: id } })
  return (
    <div className="take-off" role="group" aria-label={`Take ${was!.name} off the plan`}>
      <Answered of={[hanging]} quiet>
        {(what) => (
          <>
            <p>{hangingWords(what)}</p>
            <div className="row">
              <Button
                size="small"
                danger
                disabled={what.past > 0}
                onClick={() => {
                  const here = view.plantings.filter((p) => p.placeId === id).map((p) => p.id)
                  editor.step(goneWith(draft, here))
                  onDone()
                }}
              >
                {what.plantings.length > 0 ? 'Take it off with its plants' : 'Take it off'}
              </Button>
              <Button size="small" onClick={onDone}>
                Keep it
              </Button>
            </div>
          </>
        )}
      </Answered>
    </div>
  )
}

/** What hangs on a part of the plan, and what becomes of that. */
export function hangingWords({ plantings, past, looks, photos, jobs }: Hanging): string {
  if (past > 0)
    return `${counted(past, 'planting')} stood here once and belong to its story: give it a last day instead, under “Gone from”.`
  const hangs = [
    plantings.length > 0 && `${counted(plantings.length, 'planting')} (${plantings.slice(0, 12).join(', ')})`,
    looks > 0 && counted(looks, 'look at the place', 'looks at the place'),
    photos > 0 && counted(photos, 'photo'),
    jobs > 0 && counted(jobs, 'open job'),
  ].filter((s) => typeof s === 'string')
  return hangs.length > 0 ? `${listed(hangs)} hang on it and go with it.` : 'Nothing hangs on it.'
}
