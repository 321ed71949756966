import type { JobDone, ObservationEntry, PhotoRequest, PlaceEntry, WalkEntry } from '@border/contract'

/**
 * How far an entry has come: noted, tried over the wire at least once, in the record, or refused by it; dropped where a person threw
 * it away that the record may have all the same.
 */
export type EntryState = 'noted' | 'tried' | 'kept' | 'refused' | 'dropped'

/** Something noted on a walk, on this device until the record has it. */
export interface QueuedEntry {
  id: string
  gardenId: string
  personId: string
  state: EntryState
  /** Milliseconds since 1970; entries are sent in this order. */
  notedAt: number
  /** Not sent before: quick touches become one entry. */
  sendAfter: number
  why?: string
  /** Refused after an answer to it was lost: it may be in the record all the same. */
  mayBeKept?: boolean
  entry: WalkEntry
}

/** A photo taken on a walk, on this device until the record has it. */
export interface QueuedPhoto {
  id: string
  gardenId: string
  personId: string
  state: EntryState
  notedAt: number
  why?: string
  picture: Blob
  about: Omit<PhotoRequest, 'data' | 'id'>
}

/** A job recorded as done, on this device until the record has it. */
export interface QueuedJob {
  id: string
  gardenId: string
  personId: string
  state: EntryState
  notedAt: number
  /** When the record took it, milliseconds since 1970. */
  keptAt?: number
  why?: string
  jobId: string
  title: string
  done: JobDone
}

/** What each store holds. */
export interface Queued {
  entries: QueuedEntry
  photos: QueuedPhoto
  jobs: QueuedJob
}
export type StoreName = keyof Queued

/** A store within a transaction. */
export interface OutboxStore<Q> {
  get: (id: string) => Promise<Q | undefined>
  put: (item: Q) => Promise<unknown>
  delete: (id: string) => Promise<void>
  index: (name: 'garden') => { getAll: (gardenId: string) => Promise<Q[]> }
}

export interface OutboxTransaction<Q> {
  store: OutboxStore<Q>
  done: Promise<void>
}

/** What waits to be sent, by id: as a database of the browser keeps it, or nothing but this page. */
export interface Outbox {
  get: <Name extends StoreName>(name: Name, id: string) => Promise<Queued[Name] | undefined>
  getAll: <Name extends StoreName>(name: Name) => Promise<Queued[Name][]>
  getAllFromIndex: <Name extends StoreName>(
    name: Name,
    index: 'garden',
    gardenId: string,
  ) => Promise<Queued[Name][]>
  put: <Name extends StoreName>(name: Name, item: Queued[Name]) => Promise<unknown>
  delete: (name: StoreName, id: string) => Promise<void>
  clear: (name: StoreName) => Promise<void>
  transaction: <Name extends StoreName>(name: Name, mode: 'readwrite') => OutboxTransaction<Queued[Name]>
}

export type Entry = ObservationEntry | PlaceEntry
