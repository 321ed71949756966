import type { JobView, SeasonView } from '@border/contract'
import { capitalised } from '@border/core'
import { useSearchParams } from 'react-router'
import { withParam } from '../frame/address.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { usePlaceName } from '../frame/usePlaceName.ts'

/** Which jobs are shown: of one kind of work, at one place, on days that somebody works; all where nothing is said. */
export interface JobFilter {
  kind: string | undefined
  placeId: string | undefined
  person: string | undefined
}

/** Whether a job is shown. Of a person: where a sitting of it falls on a day that they work; what has no day is anybody's. */
export function passes(
  { kind, placeId, person }: JobFilter,
  job: Pick<JobView, 'kind' | 'placeIds' | 'parts'>,
  days: SeasonView['workingDays'],
): boolean {
  const works = (day: string) => days.some((d) => d.day === day && d.people.includes(person!))
  return (
    (kind === undefined || job.kind === kind) &&
    (placeId === undefined || job.placeIds.includes(placeId)) &&
    (person === undefined || job.parts.length === 0 || job.parts.some((p) => works(p.day)))
  )
}

/** The filter as it is in the address, so that it stays while one goes about. */
export function useJobFilter(): [JobFilter, (change: Partial<JobFilter>) => void] {
  const [params, setParams] = useSearchParams()
  const of = (name: keyof JobFilter) => params.get(addressOf[name]) ?? undefined
  const say = (change: Partial<JobFilter>) =>
    setParams(
      (before) =>
        (Object.keys(change) as (keyof JobFilter)[]).reduce(
          (now, name) => withParam(now, addressOf[name], change[name]),
          before,
        ),
      { replace: true },
    )
  return [{ kind: of('kind'), placeId: of('placeId'), person: of('person') }, say]
}

const addressOf: Record<keyof JobFilter, string> = { kind: 'work', placeId: 'place', person: 'who' }

/** What jobs can be told apart by, of those that are open. */
export function JobFilters({
  season,
  filter,
  onFilter,
}: {
  season: SeasonView
  filter: JobFilter
  onFilter: (change: Partial<JobFilter>) => void
}) {
  const nameOf = usePlaceName()
  const open = season.jobs.filter((j) => j.state === 'open')
  const kinds = [...new Set(open.map((j) => j.kind))].sort()
  const places = [...new Set(open.flatMap((j) => j.placeIds))]
    .map((id) => ({ value: id, label: nameOf(id, 'a place that is gone') }))
    .sort((a, b) => (a.label < b.label ? -1 : 1))
  const people = [...new Set(season.workingDays.flatMap((d) => d.people))].sort()
  const isSaid = filter.kind !== undefined || filter.placeId !== undefined || filter.person !== undefined
  const choice = (
    label: string,
    all: string,
    name: keyof JobFilter,
    options: { value: string; label: string }[],
  ) => (
    <Choose
      label={label}
      value={filter[name] ?? ''}
      options={[{ value: '', label: all }, ...options]}
      onChange={(v) => onFilter({ [name]: v || undefined })}
    />
  )
  return (
    <div className="row" role="group" aria-label="Which jobs">
      {choice(
        'Kind of work',
        'all work',
        'kind',
        kinds.map((k) => ({ value: k, label: capitalised(k) })),
      )}
      {choice('Place', 'every place', 'placeId', places)}
      {people.length > 1 &&
        choice(
          'On days of',
          'everybody’s days',
          'person',
          people.map((p) => ({ value: p, label: p })),
        )}
      {isSaid && (
        <Button
          size="small"
          look="text"
          onClick={() => onFilter({ kind: undefined, placeId: undefined, person: undefined })}
        >
          Show all
        </Button>
      )}
    </div>
  )
}
