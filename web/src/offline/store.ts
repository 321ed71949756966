import type { AsyncStorage, PersistedQuery } from '@tanstack/query-persist-client-core'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { MemoryOutbox } from './memoryOutbox.ts'
import { Openable } from './openable.ts'
import type { Outbox, Queued, StoreName } from './queued.ts'

type WalkDb = DBSchema & {
  [Name in StoreName]: { key: string; value: Queued[Name]; indexes: { garden: string } }
}

/** Anybody waits so long for a database of the browser: one that opens is there in a few milliseconds. */
const OUTBOX_LIMIT_MS = 3_000
const ANSWERS_LIMIT_MS = 1_000

const deviceOutbox = new Openable<Outbox>(async () => {
  const db = await openDB<WalkDb>('border-walk', 3, {
    upgrade(db, before) {
      const outbox = (name: StoreName) =>
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
      deviceOutbox.closed()
    },
    terminated: () => deviceOutbox.closed(),
  })
  // It has all that is asked of an outbox, and more.
  return db as unknown as Outbox
}, OUTBOX_LIMIT_MS)

let memory: MemoryOutbox | undefined

/** Whether what waits to be sent is kept by nothing but this page: the browser keeps nothing for us, or not yet. */
export const isUnkept = (): boolean => memory !== undefined

/** What waits to be sent: on the device, or where the browser does not open its database for us, in this page. */
export async function walkDb(): Promise<Outbox> {
  if (memory) return memory
  try {
    return await deviceOutbox.get()
  } catch {
    memory ??= untilThereIsRoom()
    return memory
  }
}

/** Kept by this page until the device does it: where a page of an older version closes, that may be at any time. */
function untilThereIsRoom(): MemoryOutbox {
  const waiting = new MemoryOutbox()
  deviceOutbox
    .eventually()
    .then((kept) => waiting.handOver(kept))
    .then(
      () => (memory = undefined),
      () => {
        // Denied: it stays in this page.
      },
    )
  return waiting
}

interface AnswersDb extends DBSchema {
  /** Answers of the server as they were last given. */
  answers: { key: string; value: PersistedQuery }
}

/** Apart from what waits to be sent: every screen asks here first, and never waits until another page lets go of an old version. */
const deviceAnswers = new Openable(
  () =>
    openDB<AnswersDb>('border-answers', 1, {
      upgrade: (db) => void db.createObjectStore('answers'),
      blocking(_before, _blocked, event) {
        ;(event.target as IDBDatabase).close()
        deviceAnswers.closed()
      },
      terminated: () => deviceAnswers.closed(),
    }),
  ANSWERS_LIMIT_MS,
)

/** A browser that keeps nothing for us is no reason to fail. */
async function ifKept<T>(does: (db: IDBPDatabase<AnswersDb>) => Promise<T>): Promise<T | undefined> {
  try {
    return await does(await deviceAnswers.get())
  } catch {
    return undefined
  }
}

/** When this device last forgot: an answer from before is of whoever was here then, however late it comes to be kept. */
let forgottenAt = 0

/** Answers of the server, kept for where there is no connection. */
export const keptAnswers: AsyncStorage<PersistedQuery> = {
  getItem: (key) => ifKept((db) => db.get('answers', key)),
  setItem: (key, query) =>
    query.state.dataUpdatedAt < forgottenAt ? undefined : ifKept((db) => db.put('answers', query, key)),
  removeItem: (key) => ifKept((db) => db.delete('answers', key)),
  entries: async () => {
    const found = await ifKept((db) => Promise.all([db.getAllKeys('answers'), db.getAll('answers')]))
    const [keys, queries] = found ?? [[], []]
    return keys.map((key, i) => [key, queries[i]!])
  },
}

/** Answers are one person's; what waits to be sent stays, and is sent as theirs. */
export async function forgetKept(): Promise<void> {
  forgottenAt = Date.now()
  await ifKept((db) => db.clear('answers'))
}
