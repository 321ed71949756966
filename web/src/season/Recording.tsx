import type { JobView } from '@border/contract'
import { dayMonthYear, minutesText } from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { dropRefused } from '../offline/queue.ts'
import { countWaiting } from '../offline/sync.ts'
import { useSyncState } from '../offline/useSync.ts'
import { useSeason } from './queries.ts'
import { DoneForm } from './DoneForm.tsx'
import { useDoneHere } from './useDoneHere.ts'

/** Recording an open job as done, with or without a connection: what waits on the device says so. */
export function Recording({ job, label, primary }: { job: JobView; label: string; primary?: boolean }) {
  const { view } = useGardenContext()
  const { dataUpdatedAt } = useSeason(view.garden.id)
  const queued = useDoneHere(job.id)
  const sync = useSyncState()
  const [recording, setRecording] = useState(false)
  if (recording) return <DoneForm job={job} onClose={() => setRecording(false)} />
  const words = queued && `${dayMonthYear(queued.done.on)}, ${minutesText(queued.done.minutes)}`
  if (queued?.state === 'refused')
    return (
      <div role="alert" className="stack">
        <p className="late">
          Not kept ({words}): {queued.why}
        </p>
        <div className="row">
          <Button onClick={() => setRecording(true)}>Put it right</Button>
          <Button onClick={() => void dropRefused(queued.id).then(countWaiting)}>Throw it away</Button>
        </div>
      </div>
    )
  if (queued && (queued.state !== 'kept' || (queued.keptAt ?? 0) > dataUpdatedAt))
    return (
      <p role="status">
        <b>✓ Recorded</b>, {words}.{' '}
        {queued.state !== 'kept' &&
          (sync.signedOut
            ? 'Sign in again to send it.'
            : sync.offline
              ? 'No connection: it waits on this device and goes by itself.'
              : 'On the way.')}
      </p>
    )
  return (
    <Button look={primary ? 'primary' : 'default'} onClick={() => setRecording(true)}>
      {label}
    </Button>
  )
}
