import type { WalkPlace, WalkView } from '@border/contract'
import { counted, dayMonthYear } from '@border/core'
import { Button, Checkbox } from 'antd'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useSignedIn } from '../api/session.ts'
import { announce } from '../frame/Announced.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Empty, Waiting } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useSyncState } from '../offline/useSync.ts'
import { ForWalkers } from './ForWalkers.tsx'
import { PlaceCard } from './PlaceCard.tsx'
import { PlantingCard } from './PlantingCard.tsx'
import { takePhoto } from './takePhoto.ts'
import { useNotes, type Notes } from './useNotes.ts'
import { WalkEnd } from './WalkEnd.tsx'
import './walk.css'

/** The garden, place by place in walking order, and what is seen of it. Works without a connection. */
export const WalkScreen = () => <ForWalkers title="Walk">{(walk) => <WalkToday walk={walk} />}</ForWalkers>

function WalkToday({ walk }: { walk: WalkView }) {
  const { view, on, today } = useGardenContext()
  const session = useSignedIn()
  const notes = useNotes(view.garden.id, session.person.id, today)
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
  const { view } = useGardenContext()
  const session = useSignedIn()
  const gardenId = view.garden.id
  const { search } = useLocation()
  const [at, setAt] = useState(0)
  const [open, setOpen] = useState<string>()
  const [ended, setEnded] = useState(false)
  const [keepPosition, setKeepPosition] = useState(false)
  const place = places[Math.min(at, places.length - 1)]!
  const [currentId, setCurrentId] = useState<string>()
  const current = place.plantings.find((p) => p.id === currentId) ?? place.plantings[0]
  const noted = notes.noted!
  const isNoted = (plantingId: string) => noted.has(`planting ${plantingId}`)
  const done = (p: WalkPlace) => p.plantings.filter((x) => isNoted(x.id)).length
  const all = useMemo(() => places.flatMap((p) => p.plantings), [places])
  const lookedAt = all.filter((p) => isNoted(p.id)).length

  const mainRef = useRef<HTMLDivElement>(null)
  const go = useCallback(
    (to: number) => {
      const next = Math.max(0, Math.min(places.length - 1, to))
      setAt(next)
      setCurrentId(places[next]!.plantings[0]?.id)
      setOpen(undefined)
      mainRef.current?.scrollTo({ top: 0 })
      // Keys act on the plantings from here, not on the button that led here.
      mainRef.current?.focus({ preventScroll: true })
    },
    [places],
  )
  const photo = useCallback(
    (about: { plantingId?: string; placeId?: string; standpointId?: string }, file: File) => {
      takePhoto({ gardenId, personId: session.person.id }, about, day, file, keepPosition).then(
        () => announce.done('Photo noted.'),
        () => announce.failed('This device has no room for the photo. Nothing was noted.'),
      )
    },
    [gardenId, session.person.id, day, keepPosition],
  )
  // The same for every card and every touch, so that only the card touched is drawn anew.
  const openCard = useCallback((plantingId: string, opens: boolean) => {
    setOpen(opens ? plantingId : undefined)
    setCurrentId(plantingId)
  }, [])
  const photoOfPlanting = useCallback(
    (plantingId: string, file: File) => photo({ plantingId }, file),
    [photo],
  )
  useWalkKeys({ place, current, notes, open, setOpen, setCurrentId, go: (by) => go(at + by) })

  if (ended) return <WalkEnd places={places} noted={noted} onBack={() => setEnded(false)} />
  return (
    <>
      <ScreenHead
        title="Walk"
        lead={
          <>
            <b>
              {lookedAt} of {all.length} looked at
            </b>{' '}
            on {dayMonthYear(day)}. {lateWords(late)}
            {elsewhen && ' A walk is always of today, whatever date the ribbon shows.'}
          </>
        }
      >
        <SyncWords />
        <Button onClick={() => setEnded(true)}>End the walk</Button>
      </ScreenHead>
      <div className="walk">
        <nav className="walk-places" aria-label="Places in walking order">
          <ol>
            {places.map((p, i) => (
              <li key={p.id}>
                <button type="button" aria-current={p === place ? 'step' : undefined} onClick={() => go(i)}>
                  <span>{p.name}</span>
                  <small>
                    {done(p)} of {p.plantings.length}
                  </small>
                </button>
              </li>
            ))}
          </ol>
          <p className="walk-paper">
            On paper: <Link to={{ pathname: '../walk/sheet', search }}>print a sheet</Link>,{' '}
            <Link to={{ pathname: '../walk/grid', search }}>type one in</Link>
          </p>
          <Checkbox checked={keepPosition} onChange={(e) => setKeepPosition(e.target.checked)}>
            Keep where photos were taken
          </Checkbox>
        </nav>
        <div className="walk-main" ref={mainRef} tabIndex={-1}>
          <div className="walk-head">
            <h2>{place.name}</h2>
            <KeyWords />
          </div>
          {notes.failed && (
            <p role="alert" className="walk-refused">
              This browser does not let the walk be kept on the device. Leave private browsing, or free some
              space.
            </p>
          )}
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
                current={p === current}
                open={open === p.id}
                onChange={notes.planting}
                onOpen={openCard}
                onPhoto={photoOfPlanting}
              />
            ))}
          </ul>
          <div className="walk-steps">
            <Button size="large" disabled={at === 0} onClick={() => go(at - 1)}>
              ‹ {places[at - 1]?.name ?? 'Before'}
            </Button>
            {at < places.length - 1 ? (
              <Button size="large" type="primary" onClick={() => go(at + 1)}>
                {places[at + 1]!.name} ›
              </Button>
            ) : (
              <Button size="large" type="primary" onClick={() => setEnded(true)}>
                End the walk
              </Button>
            )}
          </div>
        </div>
      </div>
    </>
  )
}

function SyncWords() {
  const sync = useSyncState()
  const waiting = [
    ...(sync.entries > 0 ? [counted(sync.entries, 'look')] : []),
    ...(sync.jobs > 0 ? [counted(sync.jobs, 'job')] : []),
    ...(sync.photos > 0 ? [counted(sync.photos, 'photo')] : []),
  ].join(' and ')
  const words = sync.signedOut
    ? `${waiting || 'Nothing'} waiting; sign in again to send.`
    : sync.offline
      ? waiting
        ? `No connection. ${waiting} waiting on this device.`
        : 'No connection. What is noted waits on this device.'
      : waiting
        ? `${waiting} on the way.`
        : 'All is in the record.'
  return (
    <span className={`walk-sync${sync.offline || sync.signedOut ? ' is-offline' : ''}`} role="status">
      {words}
    </span>
  )
}

const KeyWords = () => (
  <small className="walk-keys">
    <kbd>1</kbd>–<kbd>5</kbd> rate and go on, <kbd>↑</kbd> <kbd>↓</kbd> move, <kbd>b</kbd> bloom as usual,{' '}
    <kbd>x</kbd> nothing shows, <kbd>Enter</kbd> more, <kbd>,</kbd> <kbd>.</kbd> place
  </small>
)

interface Keys {
  place: WalkPlace
  current: WalkPlace['plantings'][number] | undefined
  notes: Notes
  open: string | undefined
  setOpen: (id: string | undefined) => void
  setCurrentId: (id: string) => void
  go: (by: number) => void
}

/** Everything unremarkable by one key a planting. */
function useWalkKeys(keys: Keys): void {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement
      if (e.ctrlKey || e.metaKey || e.altKey || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return
      if (target.closest('[role="slider"], [role="dialog"], [role="combobox"]')) return
      if (act(e.key, latest.current, target)) e.preventDefault()
    }
    document.addEventListener('keydown', onKey)
    return () => document.removeEventListener('keydown', onKey)
  }, [])
}

/** @returns true when the key was one of the walk's */
function act(key: string, k: Keys, target: HTMLElement): boolean {
  const { place, current, notes } = k
  const move = (by: number) => {
    const i = place.plantings.findIndex((p) => p === current)
    const next = place.plantings[i + by]
    if (next) {
      k.setCurrentId(next.id)
      document.getElementById(`walk-${next.id}`)?.scrollIntoView({ block: 'nearest' })
    } else if (by > 0) k.go(1)
    else k.go(-1)
  }
  if (key === ',' || key === '.') {
    k.go(key === ',' ? -1 : 1)
    return true
  }
  if (!current) return false
  if (/^[1-5]$/.test(key)) {
    notes.planting(current.id, { rating: Number(key), absent: false })
    if (k.open !== current.id) move(1)
    return true
  }
  switch (key) {
    case 'ArrowDown':
    case 'ArrowUp':
      move(key === 'ArrowDown' ? 1 : -1)
      return true
    case 'b':
      notes.planting(current.id, { stage: current.usualStage, absent: false })
      return true
    case 'x':
      notes.planting(current.id, { absent: true, stage: undefined, living: undefined, rating: undefined })
      move(1)
      return true
    case 'Enter':
      // A button under the focus means itself.
      if (target.closest('button, a, label')) return false
      k.setOpen(k.open === current.id ? undefined : current.id)
      return true
    default:
      return false
  }
}
