import { planEndpoints, type FeatureView } from '@border/contract'
import { useCallback, useRef, useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import {
  begun,
  draftOf,
  drawnNow,
  editOf,
  inHand,
  isChanged,
  newDraft,
  restepped,
  seenIn,
  stepped,
  unstepped,
  type Draft,
  type Drafting,
} from './draft.ts'
import type { DrawnKind } from './kinds.ts'

/** The plan in somebody's hands: what is being changed, and all that was, to be taken back and done again. */
export interface Editor {
  draft: Draft | undefined
  /** The handle in hand, from 0. */
  handle: number | undefined
  hold: (handle: number | undefined) => void
  begin: (feature: FeatureView) => void
  beginNew: (kind: DrawnKind, from?: Draft) => void
  /** Lets go of what is changed and not kept. */
  leave: () => void
  /** One step on. `sameStep`: it goes on with the last one, as typing does. */
  step: (next: Draft, sameStep?: boolean) => void
  /** Shown while something is dragged; it is no step. */
  preview: (next: Draft | undefined) => void
  /** Something is being dragged: what is shown is no step yet. */
  isPreviewed: boolean
  undo: (() => void) | undefined
  redo: (() => void) | undefined
  /** Keeps it: as a correction, or as what happened on a day. */
  keep: (from?: string) => void
  /** An edit that was kept beside what is in hand: it is taken back in its turn. */
  noteKept: (edited: { editId: string | null }) => void
  isKeeping: boolean
}

/** The handle that is held, where the part still has it: a cut, an undo or a corner removed can take it away. */
const heldIn = (draft: Draft, handle: number | undefined): number | undefined =>
  handle !== undefined && handle < (drawnNow(draft)?.handles.length ?? 0) ? handle : undefined

/** @param first what is in hand from the start */
export function useEditor(first: () => Draft | undefined): Editor {
  const [drafting, setDrafting] = useState<Drafting | undefined>(() => {
    const draft = first()
    return draft && begun(draft)
  })
  const [shown, preview] = useState<Draft>()
  const [handle, hold] = useState<number>()
  const draft = shown ?? drafting?.draft
  const { kept, note, isKeeping, send, takeBack, doAgain } = useKept(draft)

  const put = useCallback((next: Drafting | undefined) => {
    setDrafting(next)
    preview(undefined)
  }, [])
  const leave = useCallback(() => {
    put(undefined)
    hold(undefined)
  }, [put])
  const back = drafting && unstepped(drafting)
  const again = drafting && restepped(drafting)
  const isDirty = drafting !== undefined && isChanged(drafting.draft)
  return {
    draft,
    handle: draft && heldIn(draft, handle),
    hold,
    begin: (feature) => {
      put(begun(draftOf(feature)))
      hold(undefined)
    },
    beginNew: (kind, from) => {
      put(begun(from ?? newDraft(crypto.randomUUID(), kind)))
      hold(undefined)
    },
    leave,
    step: (next, sameStep) => put(drafting && stepped(drafting, next, sameStep)),
    preview,
    isPreviewed: shown !== undefined,
    undo: back ? () => put(back) : !isDirty && kept.done.length > 0 ? () => takeBack(leave) : undefined,
    redo: again ? () => put(again) : !isDirty && kept.undone.length > 0 ? () => doAgain(leave) : undefined,
    keep: (from) => {
      if (drafting) send(drafting.draft, from, leave)
    },
    isKeeping,
    noteKept: note,
  }
}

/** Edits that were kept since the screen was opened, and those taken back: each is an edit of its own, and can be taken back. */
function useKept(draft: Draft | undefined) {
  const gardenId = useGardenContext().view.garden.id
  const [kept, setKept] = useState<{ done: readonly string[]; undone: readonly string[] }>({
    done: [],
    undone: [],
  })
  const sent = useRef<Draft>(undefined)
  const name = (draft && inHand(draft).now?.name) || (draft && inHand(draft).was?.name) || 'It'
  const note = ({ editId }: { editId: string | null }) => {
    if (editId) setKept((k) => ({ done: [...k.done, editId], undone: [] }))
  }
  const edit = useGardenWrite(
    planEndpoints.edit,
    { gardenId },
    ({ from }) => (from ? `${name}: so from that day.` : `${name}: the plan is right.`),
    () => (sent.current ? seenIn(sent.current) : []),
  )
  const undo = useGardenWrite(
    planEndpoints.undo,
    ({ editId }: { editId: string }) => ({ gardenId, editId }),
    'Taken back.',
  )
  const redo = useGardenWrite(
    planEndpoints.undo,
    ({ editId }: { editId: string }) => ({ gardenId, editId }),
    'Done again.',
  )
  return {
    kept,
    note,
    isKeeping: edit.isPending || undo.isPending || redo.isPending,
    send: (d: Draft, from: string | undefined, then: () => void) => {
      sent.current = d
      edit.mutate(editOf(d, from), {
        onSuccess: (answer) => {
          note(answer)
          then()
        },
      })
    },
    takeBack: (then: () => void) => {
      const editId = kept.done.at(-1)!
      undo.mutate(
        { editId },
        {
          onSuccess: (answer) => {
            setKept((k) => ({ done: k.done.slice(0, -1), undone: [...k.undone, answer.editId!] }))
            then()
          },
        },
      )
    },
    doAgain: (then: () => void) => {
      const editId = kept.undone.at(-1)!
      redo.mutate(
        { editId },
        {
          onSuccess: (answer) => {
            setKept((k) => ({ done: [...k.done, answer.editId!], undone: k.undone.slice(0, -1) }))
            then()
          },
        },
      )
    },
  }
}
