import { lightEndpoints, type JobView, type RecordView, type SuspicionView } from '@border/contract'
import {
  causeClause,
  counted,
  dayMonthYear,
  daysBetween,
  listed,
  minutesText,
  quarterHours,
  signWords,
  tenths,
} from '@border/core'
import { Link, useLocation } from 'react-router'
import { useIsBehind } from '../api/answers.ts'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useLightEvidence, useSuspicions } from '../light/queries.ts'
import { useRecord } from '../record/queries.ts'
import { useSeason } from '../season/queries.ts'
import { useClock } from '../frame/useClock.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { shortDate } from '../frame/words.ts'
import { Answered } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { beliefWords, causeWords } from '../light/causeWords.ts'
import { usePlaceAt } from '../light/usePlaceAt.ts'
import { Watering } from '../season/Watering.tsx'
import { Bench } from './Bench.tsx'
import './now.css'
import { Outlook } from './Outlook.tsx'
import { KindName, useCalled } from '../frame/KindName.tsx'

/** What a caretaker opens in the morning: what seems to have changed, with the check that would settle it, and what can be done today. */
export function NowScreen() {
  const { view, isCrew } = useGardenContext()
  const suspicions = useSuspicions(view.garden.id)
  const recheck = useGardenWrite(
    lightEndpoints.recheck,
    { gardenId: view.garden.id },
    'Looked at everything again.',
  )
  return (
    <>
      <ScreenHead
        title="Now"
        lead={
          suspicions.data?.checkedOn
            ? `The plan, its growth, the readings and the signs were last gone through on ${dayMonthYear(suspicions.data.checkedOn)}.`
            : 'The plan, its growth, the readings and the signs are gone through every night.'
        }
      >
        {isCrew && (
          <Button loading={recheck.isPending} onClick={() => recheck.mutate({})}>
            Go through it now
          </Button>
        )}
      </ScreenHead>
      <div className="screen-body now">
        <section>
          <h2>What seems to have changed</h2>
          <Answered of={[suspicions]}>
            {({ checkedOn, suspicions }) =>
              suspicions.length === 0 ? (
                <p className="soft">
                  {checkedOn
                    ? 'Nothing. Readings of the light, growth over the next two years, recorded changes and the signs of plants all agree with what stands and grows here.'
                    : 'It has not been gone through yet.'}
                </p>
              ) : (
                suspicions.map((s) => <Suspicion key={s.id} suspicion={s} />)
              )
            }
          </Answered>
        </section>
        <div className="stack now-side">
          <Outlook />
          <Watering title="Water what is not rooted in" />
          <OpenJobs />
          <ToLookAt />
          <Bench />
        </div>
      </div>
    </>
  )
}

function Suspicion({ suspicion }: { suspicion: SuspicionView }) {
  const { view, isHead } = useGardenContext()
  const isReading = suspicion.detail.kind === 'unrecorded'
  const isSigns = suspicion.detail.kind === 'signs'
  const decide = useGardenWrite(
    lightEndpoints.decideSuspicion,
    { gardenId: view.garden.id, suspicionId: suspicion.id },
    ({ state }) =>
      state === 'dismissed'
        ? 'Dismissed: it will not be raised again.'
        : isReading
          ? 'On the plan.'
          : 'Kept as confirmed.',
  )
  return (
    <article className="suspicion">
      <SuspicionText suspicion={suspicion} />
      <div className="row">
        {isHead && (isReading || isSigns) && (
          <Button
            size="small"
            look="primary"
            loading={decide.isPending}
            onClick={() => decide.mutate({ state: 'confirmed' })}
          >
            {isReading ? 'It is so: put it on the plan' : 'It is so'}
          </Button>
        )}
        {isHead && (
          <Button size="small" onClick={() => decide.mutate({ state: 'dismissed' })}>
            Dismiss
          </Button>
        )}
        <small>since {shortDate(suspicion.firstSeen)}</small>
      </div>
    </article>
  )
}

function SuspicionText({ suspicion: { detail } }: { suspicion: SuspicionView }) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const placeName = usePlaceName()
  const nameOf = (id: string) => placeName(id, 'Something')
  const plantingOf = (id: string) => view.plantings.find((p) => p.id === id)
  switch (detail.kind) {
    case 'unrecorded':
      return (
        <>
          <h3>{causeWords(detail.cause, nameOf)}</h3>
          <p>
            Seen in the readings, {beliefWords(detail)}: it explains {detail.explains} of {detail.used}, more
            than the plan does. <Check />
          </p>
        </>
      )
    case 'ahead': {
      const planting = plantingOf(detail.change.plantingId)
      const [cause] = detail.change.causes
      return (
        <>
          <h3>
            {planting ? <KindName of={planting.taxon} isShort /> : 'A planting'} leaves the light it likes in{' '}
            {detail.change.year}
          </h3>
          <p>
            {quarterHours(detail.change.now.total)} of sun now, {quarterHours(detail.change.then.total)} then
            {cause ? `: ${causeClause(cause)}` : ''}.{' '}
            <Link to={{ pathname: '../light', search }}>See it on the plan</Link>
          </p>
        </>
      )
    }
    case 'signs': {
      const { placeId, cause, plantingIds, signs, check } = detail.change
      return (
        <>
          <h3>
            {nameOf(placeId)}: {cause}?
          </h3>
          <p>
            {counted(plantingIds.length, 'planting')} there show {listed(signs.map(signWords))}, and nothing
            drawn explains it. To settle it: {check} <Link to="../record?tab=signs">See the signs</Link>
          </p>
        </>
      )
    }
    case 'changed': {
      const planting = plantingOf(detail.plantingId)
      return (
        <>
          <h3>
            {planting ? <KindName of={planting.taxon} isShort /> : 'A planting'} stands outside its light
          </h3>
          <p>
            {causeClause(detail.cause)}: {quarterHours(detail.before.total)} before,{' '}
            {quarterHours(detail.now.total)} now, and nothing is decided.{' '}
            <Link to={{ pathname: '../verdicts', search: `?planting=${detail.plantingId}` }}>
              Weigh the verdict
            </Link>
          </p>
        </>
      )
    }
  }
}

/** The next look that would settle a suspicion. */
function Check() {
  const { view } = useGardenContext()
  const { data } = useLightEvidence(view.garden.id)
  const placeAt = usePlaceAt()
  const clock = useClock()
  const [look] = data?.telling ?? []
  if (!look) return <>Look again on the next clear day.</>
  const place = placeAt([look.x, look.y])
  return (
    <>
      To settle it, look today at {clock(look.instantMs)}
      {place && ` in ${place.name}`}, {tenths(look.x)} m east and {tenths(look.y)} m north on the plan.
    </>
  )
}

const MOST_LISTED = 10

function OpenJobs() {
  const { view, today } = useGardenContext()
  const season = useSeason(view.garden.id)
  return (
    <section>
      <h2>Jobs that can be done today</h2>
      <Answered of={[season]}>
        {({ jobs }) => (
          <OpenOn
            jobs={jobs.filter(
              (j) => j.state === 'open' && j.window.earliest <= today && today <= j.window.latest,
            )}
          />
        )}
      </Answered>
    </section>
  )
}

function OpenOn({ jobs }: { jobs: readonly JobView[] }) {
  const called = useCalled()
  const { view, today } = useGardenContext()
  const isBehind = useIsBehind(view.garden.id)
  const open = [...jobs].sort((a, b) => (a.window.latest < b.window.latest ? -1 : 1))
  return (
    <>
      {open.length === 0 && (
        <p className="soft" role="status">
          {isBehind ? 'The work is being worked out.' : 'None: no job’s window is open.'}
        </p>
      )}
      <ul className="plain-list now-jobs">
        {open.slice(0, MOST_LISTED).map((job) => (
          <li key={job.id}>
            <Link to={{ pathname: '../season', search: `?job=${job.id}` }}>{called(job.title)}</Link>
            <small>
              {minutesText(job.minutes)}; {staysOpen(job, today)}
            </small>
          </li>
        ))}
      </ul>
      {open.length > MOST_LISTED && (
        <p>
          <Link to="../season">and {open.length - MOST_LISTED} more</Link>
        </p>
      )}
    </>
  )
}

/** Plants that may be lost, and trials that have run their course. */
function ToLookAt() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useRecord(view.garden.id)]} quiet>
      {(record) => <ToLookAtIn record={record} />}
    </Answered>
  )
}

function ToLookAtIn({ record }: { record: RecordView }) {
  const absent = record.unseen.filter((a) => a.unseen.state !== 'resting')
  const ripe = record.trials.filter((t) => t.proposal.outcome !== 'go on')
  if (absent.length + ripe.length === 0) return null
  const nameOf = (plantingId: string) => record.stays.findLast((s) => s.plantingId === plantingId)
  return (
    <section>
      <h2>To look at</h2>
      <ul className="plain-list now-jobs">
        {absent.map((a) => (
          <li key={a.plantingId}>
            <Link to={`../plants/${a.plantingId}`}>
              {nameOf(a.plantingId)?.botanical}, {nameOf(a.plantingId)?.tag}
            </Link>
            <small>{a.unseen.says}</small>
          </li>
        ))}
        {ripe.map((t) => (
          <li key={t.plantingId}>
            <Link to="../record?tab=taxa">
              {nameOf(t.plantingId)?.botanical}, {nameOf(t.plantingId)?.tag}: its trial can be judged
            </Link>
            <small>{t.proposal.says}</small>
          </li>
        ))}
      </ul>
    </section>
  )
}

function staysOpen(job: JobView, today: string): string {
  const days = daysBetween(today, job.window.latest)
  return days === 0
    ? 'last day of its window'
    : `open ${days} ${days === 1 ? 'day' : 'days'} more, best to ${shortDate(job.window.bestTo)}`
}
