import type { WalkPlace, WalkView } from '@border/contract'
import { counted, dayMonthYear } from '@border/core'
import { useCallback, useReducer, useRef } from 'react'
import { useSignedIn } from '../api/session.ts'
import { announce } from '../frame/Announced.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Empty, Waiting } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import type { SyncState } from '../offline/sync.ts'
import { useSyncState } from '../offline/useSync.ts'
import { ClockWords } from './ClockWords.tsx'
import { ForWalkers } from './ForWalkers.tsx'
import { PlaceCard } from './PlaceCard.tsx'
import { PlantingCard } from './PlantingCard.tsx'
import { takePhoto } from './takePhoto.ts'
import { useNotes, type Noted, type Notes } from './useNotes.ts'
import { useWalkKeys } from './useWalkKeys.ts'
import { WalkEnd } from './WalkEnd.tsx'
import './walk.css'
import { WalkPlaces } from './WalkPlaces.tsx'
import {
  atTheGate,
  standingAt,
  walkReducer,
  type Standing,
  type WalkAction,
  type WalkState,
} from './walkState.ts'

/** The garden, place by place in walking order, and what is seen of it. Works without a connection. */
export const WalkScreen = () => <ForWalkers title="Walk">{(walk) => <WalkToday walk={walk} />}</ForWalkers>

function WalkToday({ walk }: { walk: WalkView }) {
  const { view, on, today } = useGardenContext()
  const session = useSignedIn()
  const notes = useNotes(view.garden.id, session, today)
  if (!notes.noted) return <Waiting />
  const places = walk.places.filter((p) => p.plantings.length > 0 || p.kind === 'bed')
  if (places.length === 0)
    return (
      <Empty>There is nothing to walk yet: draw a bed or a pot under Plan, and plant something in it.</Empty>
    )
  return (
    <Walk
      places={places}
      notes={notes}
      day={today}
      late={walk.earliness?.lateDays ?? 0}
      elsewhen={on !== today}
    />
  )
}

const lateWords = (days: number) =>
  Math.abs(days) < 3
    ? 'The season runs about as usual.'
    : `The season runs ${counted(Math.abs(days), 'day')} ${days > 0 ? 'late' : 'early'}; what is usual now is shifted by that.`

interface WalkProps {
  places: WalkPlace[]
  notes: Notes
  day: string
  late: number
  elsewhen: boolean
}

function Walk({ places, notes, day, late, elsewhen }: WalkProps) {
  const [state, dispatch] = useReducer(walkReducer, atTheGate)
  const standing = standingAt(state, places)
  const { place } = standing
  const noted = notes.noted!
  const main = useRef<HTMLDivElement>(null)
  const go = useCallback((placeId: string | undefined) => {
    if (placeId) dispatch({ do: 'go', placeId })
    main.current?.scrollTo({ top: 0 })
    // Keys act on the plantings from here, not on the button that led here.
    main.current?.focus({ preventScroll: true })
  }, [])
  useWalkKeys({ standing, openId: state.openId, notes, dispatch, go })
  const end = () => dispatch({ do: 'end' })

  if (state.ended) return <WalkEnd places={places} noted={noted} onBack={() => dispatch({ do: 'walk on' })} />
  return (
    <>
      <ScreenHead title="Walk" lead={<WalkLead {...{ places, noted, day, late, elsewhen }} />}>
        <SyncWords />
        <Button onClick={end}>End the walk</Button>
      </ScreenHead>
      <div className="walk">
        <WalkPlaces
          places={places}
          place={place}
          noted={noted}
          onGo={go}
          keepPosition={state.keepPosition}
          onKeepPosition={(keeps) => dispatch({ do: 'keep position', keeps })}
        />
        <div className="walk-main" ref={main} tabIndex={-1}>
          <div className="walk-head">
            <h2>{place.name}</h2>
            <KeyWords />
          </div>
          <ClockWords day={day} />
          {notes.failed && (
            <p role="alert" className="walk-refused">
              This browser does not let the walk be kept on the device. Leave private browsing, or free some
              space.
            </p>
          )}
          <Looks notes={notes} day={day} standing={standing} state={state} dispatch={dispatch} />
          <WalkSteps standing={standing} onGo={go} onEnd={end} />
        </div>
      </div>
    </>
  )
}

function WalkLead({ places, noted, day, late, elsewhen }: Omit<WalkProps, 'notes'> & { noted: Noted }) {
  const all = places.flatMap((p) => p.plantings)
  return (
    <>
      <b>
        {all.filter((p) => noted.has(`planting ${p.id}`)).length} of {all.length} looked at
      </b>{' '}
      on {dayMonthYear(day)}. {lateWords(late)}
      {elsewhen && ' A walk is always of today, whatever date the ribbon shows.'}
    </>
  )
}

/** What is noted of a place and of each planting in it. */
function Looks({
  notes,
  day,
  standing: { place, planting },
  state: { openId, keepPosition },
  dispatch,
}: {
  notes: Notes
  day: string
  standing: Standing
  state: WalkState
  dispatch: (action: WalkAction) => void
}) {
  const gardenId = useGardenContext().view.garden.id
  const {
    person: { id: personId },
    clockAheadMs,
  } = useSignedIn()
  const noted = notes.noted!
  // The same for every card and every touch, so that only the card touched is drawn anew.
  const photo = useCallback(
    (about: { plantingId?: string; placeId?: string; standpointId?: string }, file: File) => {
      takePhoto({ gardenId, personId }, about, day, file, keepPosition, clockAheadMs).then(
        () => announce.done('Photo noted.'),
        () => announce.failed('This device has no room for the photo. Nothing was noted.'),
      )
    },
    [gardenId, personId, day, keepPosition, clockAheadMs],
  )
  const photoOfPlanting = useCallback(
    (plantingId: string, file: File) => photo({ plantingId }, file),
    [photo],
  )
  const openCard = useCallback(
    (plantingId: string, opens: boolean) => dispatch({ do: 'open', plantingId, opens }),
    [dispatch],
  )
  return (
    <>
      <PlaceCard
        key={place.id}
        gardenId={gardenId}
        place={place}
        queued={noted.get(`place ${place.id}`)}
        onChange={notes.place}
        onPhoto={photo}
      />
      <ul className="walk-cards">
        {place.plantings.map((p) => (
          <PlantingCard
            key={p.id}
            planting={p}
            queued={noted.get(`planting ${p.id}`)}
            current={p === planting}
            open={openId === p.id}
            onChange={notes.planting}
            onOpen={openCard}
            onPhoto={photoOfPlanting}
          />
        ))}
      </ul>
    </>
  )
}

function WalkSteps({
  standing: { before, next },
  onGo,
  onEnd,
}: {
  standing: Standing
  onGo: (placeId: string) => void
  onEnd: () => void
}) {
  return (
    <div className="walk-steps">
      <Button size="large" disabled={!before} onClick={() => before && onGo(before.id)}>
        ‹ {before?.name ?? 'Before'}
      </Button>
      {next ? (
        <Button size="large" look="primary" onClick={() => onGo(next.id)}>
          {next.name} ›
        </Button>
      ) : (
        <Button size="large" look="primary" onClick={onEnd}>
          End the walk
        </Button>
      )}
    </div>
  )
}

function SyncWords() {
  const sync = useSyncState()
  const waiting = [
    ...(sync.entries > 0 ? [counted(sync.entries, 'look')] : []),
    ...(sync.jobs > 0 ? [counted(sync.jobs, 'job')] : []),
    ...(sync.photos > 0 ? [counted(sync.photos, 'photo')] : []),
  ].join(' and ')
  const words = sync.unkept ? unkeptWords(waiting, sync.offline) : keptWords(waiting, sync)
  return (
    <span className={`walk-sync${sync.offline || sync.signedOut ? ' is-offline' : ''}`} role="status">
      {words}
    </span>
  )
}

/** Where what waits is on the device: it can be left there. */
function keptWords(waiting: string, sync: SyncState): string {
  if (sync.signedOut) return `${waiting || 'Nothing'} waiting; sign in again to send.`
  if (sync.offline)
    return waiting
      ? `No connection. ${waiting} waiting on this device.`
      : 'No connection. What is noted waits on this device.'
  if (!waiting) return 'All is in the record.'
  return sync.delayed
    ? `The record does not take ${waiting} just now; what waits goes by itself.`
    : `${waiting} on the way.`
}

/** Where the browser keeps nothing for us: it is lost with the page. */
function unkeptWords(waiting: string, offline: boolean): string {
  if (!waiting)
    return 'All is in the record. This browser keeps nothing for later: what you note goes straight there.'
  return offline
    ? `No connection, and this browser keeps nothing: leave this page open until ${waiting} can be sent.`
    : `${waiting} on the way. This browser keeps nothing: leave this page open until then.`
}

const KeyWords = () => (
  <small className="walk-keys">
    <kbd>1</kbd>–<kbd>5</kbd> rate and go on, <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>b</kbd> bloom as usual,{' '}
    <kbd>x</kbd> nothing shows, <kbd>Enter</kbd> more, <kbd>,</kbd> <kbd>.</kbd> place
  </small>
)
