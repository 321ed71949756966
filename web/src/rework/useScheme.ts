import { reworkEndpoints, type SaidScheme, type SchemeView } from '@border/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { followGarden } from '../api/answers.ts'
import { errorText, LeftStanding, writeAsSeen } from '../api/writes.ts'
import { announce } from '../frame/Announced.tsx'

/** A scheme in somebody's hands: what is said of it at once, and kept behind their back step by step. */
export interface SchemeEditor {
  said: SaidScheme
  /** One step on; it is kept. */
  step: (next: SaidScheme) => void
  undo: (() => void) | undefined
  redo: (() => void) | undefined
  /** Steps that are not kept yet. */
  isKeeping: boolean
}

/**
 * Each step is kept by itself, one after another, on what was kept before it. Where somebody else has kept another, the person
 * chooses; where it cannot be kept, it is said, and what was kept stands.
 */
export function useScheme(gardenId: string, reworkId: string, scheme: SchemeView): SchemeEditor {
  const client = useQueryClient()
  const [said, setSaid] = useState(scheme.said)
  const [waiting, setWaiting] = useState(0)
  const revision = useRef(scheme.revisionId)
  /** What is said now is to be read anew: it was gone back to, or could not be kept. */
  const isUnread = useRef(false)
  const last = useRef<Promise<void>>(Promise.resolve())
  const { id: schemeId, revisionId } = scheme

  /** Revisions that were here: an answer that was asked before the last step tells of one of them. */
  const seen = useRef(new Set([scheme.revisionId]))
  const nowAt = useCallback((at: string) => {
    revision.current = at
    seen.current.add(at)
  }, [])
  // Others' steps are seen, as long as none of one's own is on its way.
  useEffect(() => {
    if (waiting > 0) return
    const isOwn = revisionId === revision.current
    if (isOwn ? !isUnread.current : seen.current.has(revisionId)) return
    nowAt(revisionId)
    isUnread.current = false
    setSaid(scheme.said)
  }, [revisionId, scheme.said, waiting, nowAt])

  const send = useCallback(
    (write: (at: { revisionId: string }) => Promise<{ revisionId: string }>) => {
      setWaiting((n) => n + 1)
      last.current = last.current.then(async () => {
        try {
          nowAt((await write({ revisionId: revision.current })).revisionId)
        } catch (error) {
          if (!(error instanceof LeftStanding)) announce.failed(errorText(error))
          // What was kept is what there is.
          isUnread.current = true
        }
        await followGarden(client, gardenId)
        setWaiting((n) => n - 1)
      })
    },
    [client, gardenId, nowAt],
  )
  const params = { gardenId, reworkId, schemeId }
  const go = (to: 'before' | 'after') =>
    send(() => {
      isUnread.current = true
      return writeAsSeen(reworkEndpoints.stepScheme, { params, body: { to } })
    })
  return {
    said,
    step: (next) => {
      setSaid(next)
      send((at) => writeAsSeen(reworkEndpoints.keepScheme, { params, body: { said: next }, seen: at }))
    },
    undo: scheme.hasBefore || waiting > 0 ? () => go('before') : undefined,
    redo: scheme.hasAfter && waiting === 0 ? () => go('after') : undefined,
    isKeeping: waiting > 0,
  }
}
