import type { JobDone, ObservationEntry, PhotoRequest, PlaceEntry, WalkEntry } from '@border/contract'
import type { AsyncStorage, PersistedQuery } from '@tanstack/query-persist-client-core'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

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

interface WalkDb extends DBSchema {
  entries: { key: string; value: QueuedEntry; indexes: { garden: string } }
  photos: { key: string; value: QueuedPhoto; indexes: { garden: string } }
  jobs: { key: string; value: QueuedJob; indexes: { garden: string } }
}

export type Entry = ObservationEntry | PlaceEntry

let opened: Promise<IDBPDatabase<WalkDb>> | undefined

export const walkDb = (): Promise<IDBPDatabase<WalkDb>> =>
  (opened ??= openDB<WalkDb>('border-walk', 3, {
    upgrade(db, before) {
      const outbox = (name: 'entries' | 'photos' | 'jobs') =>
        db.createObjectStore(name, { keyPath: 'id' }).createIndex('garden', 'gardenId')
      if (before < 1) {
        outbox('entries')
        outbox('photos')
      }
      if (before < 2) outbox('jobs')
      // What it held is told by the server again.
      if (before > 0) (db as unknown as IDBPDatabase).deleteObjectStore('taken')
    },
    // A page of a later version waits for nobody.
    blocking(_before, _blocked, event) {
      ;(event.target as IDBDatabase).close()
      opened = undefined
    },
    terminated() {
      opened = undefined
    },
  }))

interface AnswersDb extends DBSchema {
  /** Answers of the server as they were last given. */
  answers: { key: string; value: PersistedQuery }
}

let answersOpened: Promise<IDBPDatabase<AnswersDb>> | undefined

/** Apart from what waits to be sent: every screen asks here first, and never waits until another page lets go of an old version. */
const answersDb = (): Promise<IDBPDatabase<AnswersDb>> =>
  (answersOpened ??= openDB<AnswersDb>('border-answers', 1, {
    upgrade: (db) => void db.createObjectStore('answers'),
    terminated() {
      answersOpened = undefined
    },
  }))

/** A browser that keeps nothing for us is no reason to fail. */
async function ifKept<T>(does: (db: IDBPDatabase<AnswersDb>) => Promise<T>): Promise<T | undefined> {
  try {
    return await does(await answersDb())
  } catch {
    return undefined
  }
}

/** Answers of the server, kept for where there is no connection. */
export const keptAnswers: AsyncStorage<PersistedQuery> = {
  getItem: (key) => ifKept((db) => db.get('answers', key)),
  setItem: (key, query) => ifKept((db) => db.put('answers', query, key)),
  removeItem: (key) => ifKept((db) => db.delete('answers', key)),
  entries: async () => {
    const found = await ifKept((db) => Promise.all([db.getAllKeys('answers'), db.getAll('answers')]))
    const [keys, queries] = found ?? [[], []]
    return keys.map((key, i) => [key, queries[i]!])
  },
}

/** Answers are one person's; what waits to be sent stays, and is sent as theirs. */
export async function forgetKept(): Promise<void> {
  await (await answersDb()).clear('answers')
}
