import { lightEndpoints, type LightEvidenceView, type SuspicionsView } from '@border/contract'
import {
  counted,
  brightnesses,
  civilDate,
  clockTime,
  instantsOf,
  listed,
  localMinute,
  signWords,
  type Brightness,
  type Point,
  type TellingLook,
} from '@border/core'
import { Alert, Select, Upload } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import { errorText, useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useClock } from '../frame/useClock.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { Answered } from '../frame/Answered.tsx'
import { shortDate } from '../frame/words.ts'
import { useLightEvidence, useSuspicions } from './queries.ts'
import { beliefWords, causeWords } from './causeWords.ts'
import { ConfirmCause } from './ConfirmCause.tsx'
import { usePlaceAt } from './usePlaceAt.ts'
import { DayPicker } from '../units/DayPicker.tsx'

export const seenWords: Record<Brightness, string> = { sun: 'Sun', dappled: 'Dappled', shade: 'Shade' }

/** Readings by eye and by logger, what explains them, and where to look next. */
export function ReadingsPanel({ spot, onSpot }: { spot: Point | undefined; onSpot: (at: Point) => void }) {
  const { view, isCrew } = useGardenContext()
  const [time, setTime] = useState<Dayjs>()
  return (
    <>
      {isCrew && <TapReading spot={spot} time={time} onTime={setTime} />}
      <Answered of={[useLightEvidence(view.garden.id)]} waiting="Weighing the readings.">
        {(evidence) => (
          <>
            <Explanations evidence={evidence} />
            <PlantsSay />
            <Telling
              evidence={evidence}
              onLook={(look) => {
                onSpot([look.x, look.y])
                setTime(inZone(look.instantMs, view.garden.timeZone))
              }}
            />
            <Taken evidence={evidence} onSpot={onSpot} />
          </>
        )}
      </Answered>
      {isCrew && <LogReading spot={spot} />}
    </>
  )
}

/** Site changes that the signs of plants point to and nothing drawn explains, beside what readings say. */
function PlantsSay() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useSuspicions(view.garden.id)]} quiet>
      {({ suspicions }) => <SaidBySigns suspicions={suspicions} />}
    </Answered>
  )
}

function SaidBySigns({ suspicions }: Pick<SuspicionsView, 'suspicions'>) {
  const nameOf = usePlaceName()
  const suspected = suspicions.flatMap((s) => (s.detail.kind === 'signs' ? [s.detail.change] : []))
  if (suspected.length === 0) return null
  return (
    <section>
      <h2>What the plants say</h2>
      {suspected.map((s) => (
        <p key={`${s.placeId} ${s.cause}`}>
          <b>
            {nameOf(s.placeId, 'A place')}: {s.cause}?
          </b>{' '}
          {counted(s.plantingIds.length, 'planting')} show {listed(s.signs.slice(0, 3).map(signWords))}.{' '}
          <Link to="../record?tab=signs">The signs</Link>
        </p>
      ))}
    </section>
  )
}

/** The wall clock of a garden at an instant, as the picker shows it. */
const inZone = (ms: number, timeZone: string): Dayjs => dayjs(localMinute(ms, timeZone))

function TapReading({
  spot,
  time,
  onTime,
}: {
  spot: Point | undefined
  time: Dayjs | undefined
  onTime: (time: Dayjs | undefined) => void
}) {
  const { view, instantMs } = useGardenContext()
  const { timeZone } = view.garden
  const placeAt = usePlaceAt()
  const place = spot && placeAt(spot)
  const record = useGardenWrite(
    lightEndpoints.takeReading,
    { gardenId: view.garden.id },
    ({ seen }) => `${seenWords[seen]} recorded.`,
  )
  const tap = (seen: Brightness) => {
    const atMs = time ? instantsOf(time.format('YYYY-MM-DDTHH:mm'), timeZone)[0] : instantMs()
    if (!spot || atMs === undefined) return
    record.mutate(
      {
        at: new Date(atMs).toISOString(),
        x: spot[0],
        y: spot[1],
        seen,
        ...(place ? { placeId: place.id } : {}),
      },
      { onSuccess: () => onTime(undefined) },
    )
  }
  return (
    <section aria-label="Take a reading">
      <h2>What is the light here?</h2>
      <p className="soft">
        {spot
          ? `At the marked spot${place ? ` in ${place.name}` : ''}, ${time ? time.format('D MMM, HH:mm') : 'now'}:`
          : 'Mark the spot on the plan, then say what you see.'}
      </p>
      <div className="taps">
        {brightnesses.map((seen) => (
          <Button
            key={seen}
            size="large"
            disabled={!spot}
            loading={record.isPending && record.variables?.seen === seen}
            onClick={() => tap(seen)}
          >
            {seenWords[seen]}
          </Button>
        ))}
      </div>
      <DayPicker
        aria-label="When it was seen"
        size="small"
        showTime={{ format: 'HH:mm' }}
        format="D MMM YYYY, HH:mm"
        placeholder="now"
        value={time ?? null}
        onChange={(t) => onTime(t ?? undefined)}
      />
    </section>
  )
}

function Explanations({ evidence }: { evidence: LightEvidenceView }) {
  const { view, isHead, today } = useGardenContext()
  const nameOf = (id: string) => view.features.find((f) => f.id === id)?.name ?? 'Something'
  const { explanations, used } = evidence
  const firstDay = [...evidence.readings.map((r) => r.at), ...evidence.logs.map((l) => l.firstAt)]
    .map((at) => civilDate(new Date(at), view.garden.timeZone))
    .reduce((a, b) => (b < a ? b : a), today)
  if (used === 0)
    return (
      <p className="soft">
        No readings in the last months. Two or three a day at the times named below soon tell whether the plan
        still holds.
      </p>
    )
  const shown = explanations.filter((e, i) => i < 4 && (i === 0 || e.posterior > 0.002))
  return (
    <section aria-label="What explains the readings">
      <h2>What explains {counted(used, 'reading')}</h2>
      <ol className="explanations">
        {shown.map((e, i) => (
          <li key={i}>
            <span className="spread">
              <b>{causeWords(e.cause, nameOf)}</b>
            </span>
            <span className="belief">
              <i style={{ width: `${Math.max(1, e.posterior * 100)}%` }} />
            </span>
            <small>
              {beliefWords(e)}; explains {e.explains.length} of {used}
            </small>
            {i === 0 && isHead && e.cause.what !== 'as drawn' && (
              <ConfirmCause cause={e.cause} before={firstDay} />
            )}
          </li>
        ))}
      </ol>
      {evidence.unusable.length > 0 && (
        <small>
          {counted(evidence.unusable.length, 'reading')} left out: the sun was behind the ground there.
        </small>
      )}
    </section>
  )
}

function Telling({
  evidence: { telling, later },
  onLook,
}: {
  evidence: LightEvidenceView
  onLook: (look: TellingLook) => void
}) {
  const placeAt = usePlaceAt()
  const clock = useClock()
  const nameAt = (look: TellingLook) => placeAt([look.x, look.y])?.name
  const inPlace = (look: TellingLook) => (nameAt(look) ? ` in ${nameAt(look)}` : '')
  return (
    <section aria-label="Where to look">
      {telling.length === 0 && (
        <p className="soft">
          Nothing left today would tell more: the sun is down, or nothing stands in its way.
        </p>
      )}
      {telling.length > 0 && (
        <>
          <h2>Where looking tells most today</h2>
          <ul className="effects">
            {telling.map((look) => (
              <li key={`${look.instantMs}|${look.x}|${look.y}`}>
                <button type="button" className="plain" onClick={() => onLook(look)}>
                  <span>
                    <b>{clock(look.instantMs)}</b> {nameAt(look) ?? 'on the plan'}, {look.x.toFixed(1)} E{' '}
                    {look.y.toFixed(1)} N
                    <Expected look={look} />
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {later && (
        <p>
          Another sun shows more: looking about <b>{shortDate(later.day)}</b> would tell{' '}
          {timesWords(later.times)}, best at{' '}
          {listed(later.looks.slice(0, 2).map((look) => `${clock(look.instantMs)}${inPlace(look)}`))}.
        </p>
      )}
    </section>
  )
}

/** Against what looking now would tell. */
function timesWords(times: number | null): string {
  if (times === null) return 'something, and now nothing'
  if (times < 1.75) return 'half as much again as now'
  if (times < 2.5) return 'twice as much as now'
  return times < 6 ? `${Math.round(times)} times as much as now` : 'far more than now'
}

/** What would be seen there, were it one thing or the other. */
function Expected({ look: { expected } }: { look: TellingLook }) {
  const { view } = useGardenContext()
  const nameOf = (id: string) => view.features.find((f) => f.id === id)?.name ?? 'something'
  if (expected.length < 2) return null
  return (
    <small className="block">
      {expected
        .slice(0, 2)
        .map((e) => `${seenWords[e.seen].toLowerCase()} if ${shortCause(e.cause, nameOf)}`)
        .join(', ')}
    </small>
  )
}

function shortCause(cause: TellingLook['expected'][number]['cause'], nameOf: (id: string) => string): string {
  if (cause.what === 'as drawn') return 'as drawn'
  return cause.what === 'new' ? 'something new' : `${nameOf(cause.obstructionId)} ${cause.what}`
}

function Taken({ evidence, onSpot }: { evidence: LightEvidenceView; onSpot: (at: Point) => void }) {
  const { view, isCrew } = useGardenContext()
  const { timeZone } = view.garden
  const withdrawReading = useGardenWrite(
    lightEndpoints.withdrawReading,
    ({ id }: { id: string }) => ({ gardenId: view.garden.id, readingId: id }),
    'Taken back.',
  )
  const withdrawLog = useGardenWrite(
    lightEndpoints.withdrawLog,
    ({ id }: { id: string }) => ({ gardenId: view.garden.id, logId: id }),
    'Taken back.',
  )
  const places = new Map(view.features.map((f) => [f.id, f.name]))
  const [latest] = evidence.readings
  const dayAndTime = (at: string) =>
    `${shortDate(civilDate(new Date(at), timeZone))}, ${clockTime(Date.parse(at), timeZone)}`
  return (
    <section aria-label="Readings taken">
      <h2>Taken since {shortDate(civilDate(new Date(evidence.since), timeZone))}</h2>
      {evidence.readings.length > 0 && latest && (
        <p>
          {counted(evidence.readings.length, 'look')} by eye, the last {dayAndTime(latest.at)}:{' '}
          <button type="button" className="plain link" onClick={() => onSpot([latest.x, latest.y])}>
            {seenWords[latest.seen].toLowerCase()}
            {latest.placeId ? ` in ${places.get(latest.placeId)}` : ''}
          </button>
          .{' '}
          {isCrew && (
            <Button size="small" look="link" onClick={() => withdrawReading.mutate({ id: latest.id })}>
              Take it back
            </Button>
          )}
        </p>
      )}
      {evidence.logs.map((log) => (
        <p key={log.id}>
          <button type="button" className="plain link" onClick={() => onSpot([log.x, log.y])}>
            {log.name}
          </button>
          , {dayAndTime(log.firstAt)} to {dayAndTime(log.lastAt)}: {log.readingCount} times of day read,{' '}
          {Math.round((100 * (log.cloudy + log.undecided)) / Math.max(1, log.steps))} % set aside as cloud.{' '}
          {isCrew && (
            <Button size="small" look="link" onClick={() => withdrawLog.mutate({ id: log.id })}>
              Take it back
            </Button>
          )}
        </p>
      ))}
      {evidence.readings.length === 0 && evidence.logs.length === 0 && <p className="soft">None.</p>}
    </section>
  )
}

const zones = Intl.supportedValuesOf('timeZone')

function LogReading({ spot }: { spot: Point | undefined }) {
  const { view } = useGardenContext()
  const placeAt = usePlaceAt()
  const place = spot && placeAt(spot)
  const [zone, setZone] = useState(view.garden.timeZone)
  const read = useGardenWrite(lightEndpoints.bringLog, { gardenId: view.garden.id }, 'The log is read.')
  const stand = useGardenWrite(
    lightEndpoints.simulateLog,
    { gardenId: view.garden.id },
    'The made-up logger has sent a fortnight.',
  )
  const at = spot && { x: spot[0], y: spot[1], ...(place ? { placeId: place.id } : {}) }
  return (
    <section aria-label="Read a light logger">
      <h2>From a light logger</h2>
      <p className="soft">
        A file with the columns time and lux, from a logger that stood at the marked spot. Cloudy spells are
        found and set aside.
      </p>
      <div className="row">
        <Select
          size="small"
          aria-label="Time zone of the logger’s clock"
          showSearch
          value={zone}
          onChange={setZone}
          style={{ width: 170 }}
          options={[...new Set(['UTC', view.garden.timeZone, ...zones])].map((z) => ({ value: z, label: z }))}
        />
        <Upload
          accept=".csv,text/csv"
          showUploadList={false}
          disabled={!at}
          beforeUpload={async (file) => {
            if (at) read.mutate({ ...at, name: file.name, csv: await file.text(), timeZone: zone })
            return false
          }}
        >
          <Button size="small" disabled={!at} loading={read.isPending}>
            Read a file
          </Button>
        </Upload>
      </div>
      {read.error && <Alert type="error" title={errorText(read.error)} />}
      <Button
        size="small"
        disabled={!at}
        loading={stand.isPending}
        onClick={() =>
          at && stand.mutate({ ...at, name: `Made-up logger${place ? ` in ${place.name}` : ''}` })
        }
      >
        Let the made-up logger stand here a fortnight
      </Button>
    </section>
  )
}
