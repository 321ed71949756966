import { lightEndpoints, type DiagnosisView, type WalkPlace } from '@border/contract'
import { counted, dayMonthYear, listed, ratingWords, signWords, type SuspectedChange } from '@border/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useLocation } from 'react-router'
import { followGarden } from '../api/answers.ts'
import { ask } from '../api/client.ts'
import { Button } from '../frame/Button.tsx'
import { useSuspicions } from '../light/queries.ts'
import { useDiagnosis } from '../record/queries.ts'
import { Answered, Failed, Waiting } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import type { QueuedEntry } from '../offline/queued.ts'
import { countWaiting, syncNow, type SyncState } from '../offline/sync.ts'
import { dropRefused, sendAgain } from '../offline/queue.ts'
import { useSyncState } from '../offline/useSync.ts'
import { withPlanting } from '../frame/address.ts'
import { KindName } from '../frame/KindName.tsx'

interface Props {
  places: WalkPlace[]
  noted: ReadonlyMap<string, QueuedEntry>
  onBack: () => void
}

/** What the walk noted, and what it changed once the record has it. */
export function WalkEnd({ places, noted, onBack }: Props) {
  const sync = useSyncState()
  const plantings = places.flatMap((p) => p.plantings.map((planting) => ({ planting, place: p })))
  const looks = plantings.flatMap(({ planting, place }): Look[] => {
    const entry = noted.get(`planting ${planting.id}`)?.entry
    return entry?.kind === 'planting' ? [{ planting, place, entry }] : []
  })
  const left = plantings.length - looks.length
  useEffect(() => void syncNow(true), [])
  const sent = !sync.offline && !sync.sending && sync.entries + sync.photos + sync.jobs === 0
  return (
    <>
      <ScreenHead
        title="The walk"
        lead={
          <>
            <b>
              {looks.length} of {counted(plantings.length, 'planting')} looked at
            </b>
            {left > 0 ? `, ${left} passed over` : ''}.{' '}
            {sent
              ? sync.refused.length > 0
                ? `${sync.refused.length} ${sync.refused.length === 1 ? 'was' : 'were'} not kept; the rest is in the record.`
                : 'All of it is in the record.'
              : sync.offline || sync.delayed
                ? `${sync.entries + sync.photos + sync.jobs} wait on this device and go by themselves when ${sync.offline ? 'there is a connection' : 'the record takes them'}; the page may be closed.`
                : 'Sending.'}
          </>
        }
      >
        <Button onClick={onBack}>Back to the walk</Button>
      </ScreenHead>
      <div className="screen-body walk-end">
        <NotKept />
        <Dropped looks={looks} />
        <Absent looks={looks} />
        {sent && looks.length > 0 && <Changed />}
      </div>
    </>
  )
}

interface Look {
  planting: WalkPlace['plantings'][number]
  place: WalkPlace
  entry: Extract<QueuedEntry['entry'], { kind: 'planting' }>
}

/** What was refused, and why, until somebody has read it. */
function NotKept() {
  const { refused } = useSyncState()
  if (refused.length === 0) return null
  return (
    <section role="alert">
      <h2>Not kept</h2>
      {refused.map((r) => (
        <div key={r.id} className="stack walk-not-kept">
          <p>
            <b>{refusedName(r)}</b> {r.why}
          </p>
          <div className="row">
            <Button size="small" onClick={() => void sendAgain(r.id).then(() => syncNow(true))}>
              Send it again
            </Button>
            <Button size="small" onClick={() => void dropRefused(r.id).then(countWaiting)}>
              Throw it away
            </Button>
          </div>
        </div>
      ))}
    </section>
  )
}

/** What it is: of the plant or place itself its reason tells. */
function refusedName(refused: SyncState['refused'][number]): string {
  if ('entry' in refused) return `Look of ${dayMonthYear(refused.entry.on)}.`
  return 'title' in refused ? `${refused.title}.` : `Photo of ${dayMonthYear(refused.about.on)}.`
}

function Dropped({ looks }: { looks: readonly Look[] }) {
  const dropped = looks.filter(({ planting, entry }) => {
    const before = planting.last?.rating
    return before != null && entry.rating !== undefined && entry.rating <= before - 2
  })
  return (
    <section>
      <h2>Two or more below last time</h2>
      {dropped.length === 0 && <p className="soft">None.</p>}
      <ul className="plain-list">
        {dropped.map(({ planting, place, entry }) => (
          <li key={planting.id}>
            <KindName of={planting} isShort /> in {place.name}: {entry.rating} of 5,{' '}
            {ratingWords[entry.rating! - 1]}, was {planting.last!.rating}
            {planting.resting && ' (in its time of rest: it says little)'}
          </li>
        ))}
      </ul>
    </section>
  )
}

function Absent({ looks }: { looks: readonly Look[] }) {
  const absent = looks.filter(({ entry }) => entry.absent)
  return (
    <section>
      <h2>Not to be seen</h2>
      {absent.length === 0 && <p className="soft">None.</p>}
      <ul className="plain-list">
        {absent.map(({ planting, place }) => (
          <li key={planting.id}>
            <KindName of={planting} isShort /> in {place.name}
            {planting.resting ? ': at rest, it keeps its place' : ': presumed lost until it is due'}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What the garden is thought of anew: diagnoses and suspicions, once the record has the walk. */
function Changed() {
  const { view } = useGardenContext()
  const client = useQueryClient()
  const gardenId = view.garden.id
  const recheck = useMutation({
    mutationFn: () => ask(lightEndpoints.recheck, { params: { gardenId } }),
    onSuccess: () => followGarden(client, gardenId),
  })
  const { mutate } = recheck
  useEffect(() => mutate(), [mutate])
  const diagnosis = useDiagnosis(gardenId)
  const suspicions = useSuspicions(gardenId)
  if (recheck.error) return <Failed error={recheck.error} onAgain={() => mutate()} />
  const waiting = 'Going through what it says.'
  if (recheck.isPending) return <Waiting>{waiting}</Waiting>
  return (
    <Answered of={[diagnosis, suspicions]} waiting={waiting}>
      {({ diagnoses }, { suspicions }) => (
        <Found
          failing={diagnoses.filter((d) => d.failing)}
          bySigns={suspicions.flatMap((s) => (s.detail.kind === 'signs' ? [s.detail.change] : []))}
        />
      )}
    </Answered>
  )
}

function Found({
  failing,
  bySigns,
}: {
  failing: DiagnosisView['diagnoses']
  bySigns: readonly SuspectedChange[]
}) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const nameOf = usePlaceName()
  return (
    <>
      <section>
        <h2>Site changes the signs point to</h2>
        {bySigns.length === 0 && <p className="soft">None: the signs agree with what is drawn.</p>}
        <ul className="plain-list">
          {bySigns.map((s) => (
            <li key={`${s.placeId} ${s.cause}`}>
              {nameOf(s.placeId)}: {s.cause}? {counted(s.plantingIds.length, 'planting')} show{' '}
              {listed(s.signs.map(signWords))}. {s.check}
            </li>
          ))}
        </ul>
      </section>
      <section>
        <h2>In trouble, and the likeliest cause</h2>
        {failing.length === 0 && <p className="soft">None.</p>}
        <ul className="plain-list">
          {failing.map((d) => {
            const planting = view.plantings.find((p) => p.id === d.plantingId)
            return (
              <li key={d.plantingId}>
                <Link to={{ pathname: `../plants/${d.plantingId}`, search }}>
                  {planting && <KindName of={planting.taxon} isShort />}
                </Link>
                : {d.causes[0]?.cause}, {d.causes[0]?.odds}.{' '}
                <Link to={{ pathname: '../verdicts', search: withPlanting(search, d.plantingId) }}>
                  Verdict
                </Link>
              </li>
            )
          })}
        </ul>
      </section>
    </>
  )
}
