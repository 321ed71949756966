import { dayMonthYear } from '@border/core'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { couldHappen, inHand, isChanged, type Draft } from './draft.ts'
import type { Editor } from './useEditor.ts'
import { DayPicker } from '../units/DayPicker.tsx'

interface Props {
  editor: Editor
  draft: Draft
  /** Why it cannot be kept yet. */
  waits: string | undefined
  onKeep: (from?: string) => void
}

/** Was it always so, or did it change? Asked in those words, before anything is kept. */
export function KeepBar({ editor, draft, waits, onKeep }: Props) {
  const { today } = useGardenContext()
  const [day, setDay] = useState(today)
  const { was, now } = inHand(draft)
  const disabled = waits !== undefined
  if (!isChanged(draft))
    return (
      <div className="keep-bar">
        <Button onClick={editor.leave}>Close</Button>
      </div>
    )
  return (
    <div className="keep-bar" role="group" aria-label="Keep it">
      {waits && <small>{waits}</small>}
      {!was ? (
        <Button look="primary" disabled={disabled} loading={editor.isKeeping} onClick={() => onKeep()}>
          Put it on the plan
        </Button>
      ) : (
        <>
          <Button
            look="primary"
            size="small"
            disabled={disabled}
            loading={editor.isKeeping}
            onClick={() => onKeep()}
          >
            {now ? 'It was always so' : 'It was never there'}
          </Button>
          {couldHappen(draft) && (
            <span className="row">
              <Button size="small" disabled={disabled} loading={editor.isKeeping} onClick={() => onKeep(day)}>
                {now ? 'It changed on' : 'It went on'}
              </Button>
              <DayPicker
                aria-label="The day it changed"
                size="small"
                allowClear={false}
                maxDate={dayjs(today)}
                value={dayjs(day)}
                onChange={(d) => d && setDay(d.format('YYYY-MM-DD'))}
              />
            </span>
          )}
        </>
      )}
      <Button size="small" onClick={editor.leave}>
        Cancel
      </Button>
      {was && (
        <small>
          Always so: the past is worked out anew.
          {couldHappen(draft) && ` Changed: until ${dayMonthYear(day)} it stays as it was.`}
        </small>
      )}
    </div>
  )
}
