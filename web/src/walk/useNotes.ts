import type { ObservationEntry, PlaceEntry } from '@border/contract'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { useSignedIn } from '../api/session.ts'
import { note, notedOn, subjectOf } from '../offline/queue.ts'
import type { QueuedEntry } from '../offline/queued.ts'
import { countWaiting, onSync } from '../offline/sync.ts'

type Patch<E> = Partial<Omit<E, 'id' | 'kind' | 'on' | 'at' | 'serverAheadMs' | 'replacesId' | 'orReplaces'>>
export type PlantingPatch = Patch<ObservationEntry>
export type PlacePatch = Patch<PlaceEntry>

/** By subject, the latest of the day. */
export type Noted = ReadonlyMap<string, QueuedEntry>

export interface Notes {
  /** Undefined until the device has been read. */
  noted: Noted | undefined
  planting: (plantingId: string, patch: PlantingPatch) => void
  place: (placeId: string, patch: PlacePatch) => void
  /** The device would not take what was noted. */
  failed: boolean
}

/** What a person notes in a garden on a day, kept on the device touch by touch. */
export function useNotes(
  gardenId: string,
  { person: { id: personId }, clockAheadMs: serverAheadMs }: ReturnType<typeof useSignedIn>,
  day: string,
): Notes {
  const [noted, setNoted] = useState<Noted>()
  const [failed, setFailed] = useState(false)
  const latest = useRef<Map<string, QueuedEntry>>(new Map())
  // One change after the other: each starts from what the one before left.
  const chain = useRef<Promise<void>>(Promise.resolve())

  const reread = useCallback(async () => {
    latest.current = await notedOn({ gardenId, personId }, day)
    setNoted(new Map(latest.current))
  }, [gardenId, personId, day])
  useEffect(() => {
    const read = () => {
      chain.current = chain.current.then(reread).catch(() => setFailed(true))
    }
    read()
    return onSync(read)
  }, [reread])

  const change = useCallback(
    <E extends ObservationEntry | PlaceEntry>(fresh: E, patch: Patch<E>) => {
      chain.current = chain.current
        .then(async () => {
          const subject = subjectOf(fresh)
          const before = latest.current.get(subject)?.entry ?? fresh
          const entry = { ...before, ...patch, at: new Date().toISOString(), serverAheadMs } as E
          const queued = await note({ gardenId, personId }, entry, Date.now(), () => crypto.randomUUID())
          latest.current.set(subject, queued)
          setNoted(new Map(latest.current))
          await countWaiting()
        })
        .catch(() => setFailed(true))
    },
    [gardenId, personId, serverAheadMs],
  )
  return {
    noted,
    failed,
    planting: useCallback(
      (plantingId, patch) =>
        change<ObservationEntry>({ kind: 'planting', id: '', on: day, at: '', plantingId }, patch),
      [change, day],
    ),
    place: useCallback(
      (placeId, patch) => change<PlaceEntry>({ kind: 'place', id: '', on: day, at: '', placeId }, patch),
      [change, day],
    ),
  }
}
