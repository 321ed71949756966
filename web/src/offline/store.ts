import type { JobDone, ObservationEntry, PhotoRequest, PlaceEntry, WalkEntry } from '@border/contract'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** How far an entry has come: noted, tried over the wire at least once, in the record, or refused by it. */
export type EntryState = 'noted' | 'tried' | 'kept' | 'refused'

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
  /** Answers taken along: by address. */
  taken: { key: string; value: { path: string; answer: unknown } }
}

export type Entry = ObservationEntry | PlaceEntry

let opened: Promise<IDBPDatabase<WalkDb>> | undefined

export const walkDb = (): Promise<IDBPDatabase<WalkDb>> =>
  (opened ??= openDB<WalkDb>('border-walk', 2, {
    upgrade(db, before) {
      db.createObjectStore('jobs', { keyPath: 'id' }).createIndex('garden', 'gardenId')
      if (before > 0) return
      db.createObjectStore('entries', { keyPath: 'id' }).createIndex('garden', 'gardenId')
      db.createObjectStore('photos', { keyPath: 'id' }).createIndex('garden', 'gardenId')
      db.createObjectStore('taken', { keyPath: 'path' })
    },
    terminated() {
      opened = undefined
    },
  }))

/** Keeps an answer for where there is no connection. */
export async function takeAlong(path: string, answer: unknown): Promise<void> {
  const db = await walkDb()
  await db.put('taken', { path, answer })
}

/** An answer taken along earlier. */
export async function takenAlong<T>(path: string): Promise<T | undefined> {
  const db = await walkDb()
  return (await db.get('taken', path))?.answer as T | undefined
}

/** What was taken along is one person's; what waits to be sent stays, and is sent as theirs. */
export async function forgetTaken(): Promise<void> {
  await (await walkDb()).clear('taken')
}
