import { photoEndpoints, seasonEndpoints, walkEndpoints, type WalkEntry } from '@border/contract'
import { ApiError, openSession, write } from '../api/client.ts'
import { sendWaiting, waitingOf, type Judgement, type Waiting, type Wire } from './queue.ts'
import type { QueuedPhoto } from './queued.ts'
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
    const body = { ...about, id, data: await base64Of(picture) }
    await write(photoEndpoints.add, { params: { gardenId }, body }, id)
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

async function base64Of(picture: QueuedPhoto['picture']): Promise<string> {
  const bytes = new Uint8Array(await picture.arrayBuffer())
  let text = ''
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return btoa(text)
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
let personId: string | undefined
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

/** Counts anew what waits; called after each thing noted. */
export async function countWaiting(): Promise<void> {
  if (personId) set(await standing(personId))
}

/** One pass over what waits. Tabs take turns; a pass that finds another under way leaves it to that one. */
export async function syncNow(all = false): Promise<void> {
  if (!personId) return
  const who = personId
  await navigator.locks.request('border-sync', { ifAvailable: true }, async (lock) => {
    if (!lock) return
    const waiting = await standing(who)
    set(waiting)
    if (waiting.entries + waiting.photos + waiting.jobs === 0) {
      set({ delayed: false })
      if (state.offline && navigator.onLine) await probe()
      return
    }
    set({ sending: true })
    try {
      // The token may be of a session that ended while there was no connection.
      const session = await openSession()
      if (session.person?.id !== who) return set({ signedOut: true })
      const { sent, delayed } = await sendWaiting(wire, who, Date.now(), all)
      set({ offline: false, signedOut: false, delayed })
      if (sent > 0) sentListeners.forEach((tell) => tell())
    } catch (error) {
      if (error instanceof ApiError && error.status === 401) set({ signedOut: true })
      // What stands before the record answers for it while it is away.
      else if (error instanceof ApiError && error.status >= 500) set({ offline: false, delayed: true })
      else set({ offline: true })
    } finally {
      set({ ...(await standing(who)), sending: false })
    }
  })
}

async function probe(): Promise<void> {
  try {
    await openSession()
    set({ offline: false })
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
  personId = who
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
    personId = undefined
    clearInterval(timer)
    removeEventListener('online', soon)
    removeEventListener('offline', gone)
    removeEventListener('beforeunload', leaving)
    document.removeEventListener('visibilitychange', hidden)
    set(NOTHING)
  }
}
