import { useEffect, useState } from 'react'
import { useSignedIn } from '../api/session.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { doneHere } from '../offline/queue.ts'
import type { QueuedJob } from '../offline/queued.ts'
import { onSync } from '../offline/sync.ts'

/** What the person has recorded of a job on this device, as it stands with the sending of it. */
export function useDoneHere(jobId: string): QueuedJob | undefined {
  const { view } = useGardenContext()
  const { person } = useSignedIn()
  const gardenId = view.garden.id
  const [queued, setQueued] = useState<QueuedJob>()
  useEffect(() => {
    const read = () =>
      void doneHere({ gardenId, personId: person.id })
        .then((all) => setQueued(all.get(jobId)))
        .catch(() => {})
    read()
    return onSync(read)
  }, [gardenId, person.id, jobId])
  return queued
}
