import { photoEndpoints, seasonEndpoints, walkEndpoints, type WalkEntry } from '@border/contract'
import { ApiError, openSession, write } from '../api/client.ts'
import { sendWaiting, waitingOf, type Judgement, type Waiting, type Wire } from './queue.ts'
import { isUnkept } from './store.ts'

/** How the sending of what waits stands. */
export interface SyncState extends Waiting {
  /** Nobody answered the last time, or the device says it has no connection. */
  offline: boolean
  /** Somebody answered the last time, and did not take all of it just then. */
  delayed: boolean
  sending: boolean
  /** What waits is kept by nothing but this page. */
  unkept: boolean
  /** Somebody must sign in before anything can be sent. */
  signedOut: boolean
}

const EVERY_MS = 8_000

const wire: Wire = {
  sendEntries: (gardenId, entries: WalkEntry[]) =>
    write(walkEndpoints.note, { params: { gardenId }, body: { entries } }),
  sendPhoto: async (photo) => {
    const { id, gardenId, about, picture } = photo
    await write(photoEndpoints.add, { params: { gardenId }, body: { ...about, id }, file: picture }, id)
  },
  sendJob: async (job) => {
    const { id, gardenId, jobId, done } = job
    await write(seasonEndpoints.recordDone, { params: { gardenId, jobId }, body: done }, id)
  },
  judged,
}

/** Whoever is signed out has nothing judged; a record that is asked too much, or is away, takes nothing just now. */
function judged(error: unknown): Judgement {
  if (!(error instanceof ApiError)) throw error
  const { status, message } = error
  if (status === 0 || status === 401) return 'nobody answered'
  if ([408, 425, 429].includes(status) || status >= 502) return 'not now'
  return status >= 500 ? 'it broke' : { refused: message }
}

const NOTHING: SyncState = {
  entries: 0,
  photos: 0,
  jobs: 0,
  refused: [],
  offline: false,
  delayed: false,
  sending: false,
  unkept: false,
  signedOut: false,
}
let state = NOTHING
/** Who has the application open; another each time that it is opened. */
let here: { personId: string } | undefined
const listeners = new Set<() => void>()
const sentListeners = new Set<() => void>()

/** Tells only of what is new: a pass over nothing, every few seconds, is no news to those who read the device on it. */
function set(change: Partial<SyncState>): void {
  const next = { ...state, ...change }
  const same = (Object.keys(next) as (keyof SyncState)[]).every((k) =>
    k === 'refused' ? sameRefused(next.refused, state.refused) : next[k] === state[k],
  )
  if (same) return
  state = next
  listeners.forEach((tell) => tell())
}

const sameRefused = (a: Waiting['refused'], b: Waiting['refused']) =>
  a.length === b.length && a.every((q, i) => q.id === b[i]!.id)

export const syncState = (): SyncState => state
export function onSync(tell: () => void): () => void {
  listeners.add(tell)
  return () => listeners.delete(tell)
}
/** Told each time the record has taken something. */
export function onSent(tell: () => void): () => void {
  sentListeners.add(tell)
  return () => sentListeners.delete(tell)
}

const standing = async (who: string) => ({ ...(await waitingOf(who)), unkept: isUnkept() })

/** What comes of a pass is news to those who had it begun: once they have closed the application it is told to nobody. */
const tellOf = (who: typeof here) => (change: Partial<SyncState>) => {
  if (who === here) set(change)
}

/** Counts anew what waits; called after each thing noted. */
export async function countWaiting(): Promise<void> {
  if (here) tellOf(here)(await standing(here.personId))
}

/** One pass over what waits. Tabs take turns; a pass that finds another under way leaves it to that one. */
export async function syncNow(all = false): Promise<void> {
  if (!here) return
  const tell = tellOf(here)
  const who = here.personId
  await navigator.locks.request('border-sync', { ifAvailable: true }, async (lock) => {
    const waiting = await standing(who)
    tell(waiting)
    if (!lock) return
    if (waiting.entries + waiting.photos + waiting.jobs === 0) {
      tell({ delayed: false })
      if (state.offline && navigator.onLine) await probe(tell)
      return
    }
    tell({ sending: true })
    try {
      // The token may be of a session that ended while there was no connection.
      const session = await openSession()
      if (session.person?.id !== who) return tell({ signedOut: true })
      const { sent, delayed } = await sendWaiting(wire, who, Date.now(), all)
      tell({ offline: false, signedOut: false, delayed })
      if (sent > 0) sentListeners.forEach((tell) => tell())
    } catch (error) {
      if (error instanceof ApiError && error.status === 401) tell({ signedOut: true })
      // What stands before the record answers for it while it is away.
      else if (error instanceof ApiError && error.status >= 500) tell({ offline: false, delayed: true })
      else tell({ offline: true })
    } finally {
      tell({ ...(await standing(who)), sending: false })
    }
  })
}

async function probe(tell: (change: Partial<SyncState>) => void): Promise<void> {
  try {
    await openSession()
    tell({ offline: false })
  } catch {
    // Still nobody there.
  }
}

/** Told by whoever asked the server for something and got no answer. */
export function seemsOffline(): void {
  if (!state.offline) set({ offline: true })
}

/** Sends what a person has waiting: now, when a connection comes, when the page is looked at, and every few seconds. */
export function startSync(who: string): () => void {
  const opened = { personId: who }
  here = opened
  // Where the device keeps nothing there is nothing to send; whoever notes something there is told.
  const pass = (all?: boolean) => void syncNow(all).catch(() => {})
  const soon = () => pass()
  const gone = () => set({ offline: true })
  const hidden = () => pass(document.visibilityState === 'hidden')
  // What only this page keeps is gone with it: whoever leaves is asked first.
  const leaving = (event: BeforeUnloadEvent) => {
    if (state.unkept && state.entries + state.photos + state.jobs > 0) event.preventDefault()
  }
  const timer = setInterval(soon, EVERY_MS)
  addEventListener('online', soon)
  addEventListener('offline', gone)
  addEventListener('beforeunload', leaving)
  document.addEventListener('visibilitychange', hidden)
  pass()
  return () => {
    if (here === opened) here = undefined
    clearInterval(timer)
    removeEventListener('online', soon)
    removeEventListener('offline', gone)
    removeEventListener('beforeunload', leaving)
    document.removeEventListener('visibilitychange', hidden)
    set(NOTHING)
  }
}
