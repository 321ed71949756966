import type { JobView } from '@border/contract'
import { useCalled } from '../frame/KindName.tsx'

/** A job in a list: what it is, and what is to be said of it there. */
export function JobLine({
  job,
  chosenId,
  onChoose,
  extra,
}: {
  job: JobView
  chosenId: string
  onChoose: (job: JobView) => void
  extra: string
}) {
  const called = useCalled()
  return (
    <button
      type="button"
      className={`job-line${job.id === chosenId ? ' selected' : ''}`}
      aria-pressed={job.id === chosenId}
      onClick={() => onChoose(job)}
    >
      <span>
        {job.state === 'done' ? '✓ ' : ''}
        {called(job.title)}
      </span>
      <small>
        {job.unsure && 'unsure, '}
        {job.pinnedOn && 'pinned, '}
        {extra}
      </small>
    </button>
  )
}
