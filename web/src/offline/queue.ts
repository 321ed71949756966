import type { WalkAnswer, WalkEntry } from '@border/contract'
import type { Entry, QueuedEntry, QueuedJob, QueuedPhoto } from './queued.ts'
import { walkDb } from './store.ts'

/** Touches on one planting within this become one entry. */
const GATHER_MS = 3_000
/** Entries the record has are shown on the walk for so long, then forgotten. */
const REMEMBER_MS = 2 * 86_400_000
const BATCH = 100

type Owner = { gardenId: string; personId: string }

/** What an entry is about: one entry of a day for each planting and each place. */
export const subjectOf = (e: WalkEntry): string =>
  e.kind === 'planting' ? `planting ${e.plantingId}` : `place ${e.placeId}`

/**
 * Notes something. An entry that was never tried over the wire is written over; one that was may be in the record, and is
 * put right by a new one that replaces it. Written to the device before it is shown as noted.
 *
 * @returns the entry as it stands on the device
 */
export async function note(
  owner: Owner,
  entry: Entry,
  now: number,
  newId: () => string,
): Promise<QueuedEntry> {
  const db = await walkDb()
  const tx = db.transaction('entries', 'readwrite')
  const before = await latest(await tx.store.index('garden').getAll(owner.gardenId), owner, entry)
  const fresh = before?.state === 'noted'
  const id = fresh ? before.id : newId()
  const [replacesId, ...orReplaces] = fresh ? replacedBy(before.entry) : before ? puttingRight(before) : []
  const queued: QueuedEntry = {
    ...owner,
    id,
    state: 'noted',
    notedAt: fresh ? before.notedAt : now,
    sendAfter: now + GATHER_MS,
    entry: { ...entry, id, ...(replacesId && { replacesId }), ...(orReplaces.length > 0 && { orReplaces }) },
  }
  // What was refused is put right by this one, and need not be read again.
  if (before?.state === 'refused') await tx.store.delete(before.id)
  await tx.store.put(queued)
  await tx.done
  return queued
}

/** What an entry puts right, the first of these that is in the record. */
const replacedBy = ({ replacesId, orReplaces = [] }: WalkEntry): string[] =>
  replacesId ? [replacesId, ...orReplaces] : []

/** What puts an entry right puts right what it was to put right as well, where it may never have come into the record itself. */
function puttingRight({ id, state, mayBeKept, entry }: QueuedEntry): string[] {
  if (state === 'kept') return [id]
  return state === 'refused' && !mayBeKept
    ? replacedBy(entry)
    : [id, ...replacedBy(entry)].slice(0, MOST_REPLACED)
}
const MOST_REPLACED = 50

/** The last entry of a person about the subject of another, of the same day. */
const latest = (all: readonly QueuedEntry[], owner: Owner, entry: Entry): QueuedEntry | undefined =>
  all
    .filter(
      (q) =>
        q.personId === owner.personId && q.entry.on === entry.on && subjectOf(q.entry) === subjectOf(entry),
    )
    .sort((a, b) => a.notedAt - b.notedAt)
    .at(-1)

/** What a person has noted in a garden on a day, the latest on each subject. */
export async function notedOn(owner: Owner, day: string): Promise<Map<string, QueuedEntry>> {
  const db = await walkDb()
  const all = await db.getAllFromIndex('entries', 'garden', owner.gardenId)
  return new Map(
    all
      .filter((q) => q.personId === owner.personId && q.entry.on === day && q.state !== 'dropped')
      .sort((a, b) => a.notedAt - b.notedAt)
      .map((q) => [subjectOf(q.entry), q]),
  )
}

export async function notePhoto(photo: QueuedPhoto): Promise<void> {
  await (await walkDb()).put('photos', photo)
}

/**
 * Records a job as done. What was never sent, or was refused, is written over; what is on the way stands.
 *
 * @returns what the device holds of this job
 */
export async function noteDone(fresh: Omit<QueuedJob, 'state'>): Promise<QueuedJob> {
  const tx = (await walkDb()).transaction('jobs', 'readwrite')
  const own = (await tx.store.index('garden').getAll(fresh.gardenId)).filter(
    (q) => q.jobId === fresh.jobId && q.personId === fresh.personId,
  )
  const underWay = own.find((q) => q.state === 'tried')
  const queued: QueuedJob = underWay ?? { ...fresh, state: 'noted' }
  if (!underWay) {
    for (const q of own) await tx.store.delete(q.id)
    await tx.store.put(queued)
  }
  await tx.done
  return queued
}

/** Jobs that a person recorded in a garden on this device, by job. */
export async function doneHere(owner: Owner): Promise<Map<string, QueuedJob>> {
  const all = await (await walkDb()).getAllFromIndex('jobs', 'garden', owner.gardenId)
  return new Map(all.filter((q) => q.personId === owner.personId).map((q) => [q.jobId, q]))
}

export interface Waiting {
  entries: number
  photos: number
  jobs: number
  refused: (QueuedEntry | QueuedPhoto | QueuedJob)[]
}

const unsent = (q: { state: string }) => q.state === 'noted' || q.state === 'tried'

/** Of entries of one person the last on each subject of a day: what was refused before it was put right need not be read. */
function latestWords(entries: readonly QueuedEntry[]): QueuedEntry[] {
  const byTime = [...entries].sort((a, b) => a.notedAt - b.notedAt)
  return [...new Map(byTime.map((q) => [`${q.gardenId} ${q.entry.on} ${subjectOf(q.entry)}`, q])).values()]
}

/** What a person has on this device that the record has not, over all gardens. */
export async function waitingOf(personId: string): Promise<Waiting> {
  const db = await walkDb()
  const mine = <Q extends { personId: string }>(all: Q[]) => all.filter((q) => q.personId === personId)
  const entries = mine(await db.getAll('entries'))
  const photos = mine(await db.getAll('photos'))
  const jobs = mine(await db.getAll('jobs'))
  return {
    entries: entries.filter(unsent).length,
    photos: photos.filter(unsent).length,
    jobs: jobs.filter(unsent).length,
    refused: [...latestWords(entries), ...photos, ...jobs].filter((q) => q.state === 'refused'),
  }
}

/** Sends again what the record refused: what it was refused for may have been mended there. */
export async function sendAgain(id: string): Promise<void> {
  const db = await walkDb()
  for (const store of ['entries', 'photos', 'jobs'] as const) {
    const tx = db.transaction(store, 'readwrite')
    const q = await tx.store.get(id)
    // As tried: an answer to it may have been lost before.
    if (q?.state === 'refused') await tx.store.put({ ...q, state: 'tried', why: undefined } as never)
    await tx.done
  }
}

/** Throws away what the record refused, once the person has read why. */
export async function dropRefused(id: string): Promise<void> {
  const db = await walkDb()
  const entry = await db.get('entries', id)
  // What may be in the record is remembered, so that the next word on its subject takes its place there.
  if (entry?.mayBeKept) await db.put('entries', { ...entry, state: 'dropped' })
  else await db.delete('entries', id)
  await db.delete('photos', id)
  await db.delete('jobs', id)
}

/**
 * What came of something on the wire: nobody answered; the record takes nothing just now; it broke over this very thing, or
 * seemed to; or it refused it, in words, for good.
 */
export type Judgement = 'nobody answered' | 'not now' | 'it broke' | { refused: string }

/** The wire, as the queue sees it. */
export interface Wire {
  sendEntries: (gardenId: string, entries: WalkEntry[]) => Promise<WalkAnswer>
  sendPhoto: (photo: QueuedPhoto) => Promise<void>
  sendJob: (job: QueuedJob) => Promise<void>
  judged: (error: unknown) => Judgement
}

/** What a pass over what waits came to. */
export interface Passed {
  /** Entries, jobs and photos that the record now has and had not. */
  sent: number
  /** Somebody answered, and something waits all the same: it goes another time. */
  delayed: boolean
}

/**
 * Sends what waits, oldest first. An entry is marked as tried before it goes, so that what happens while it is under way,
 * a closed page or a lost answer among it, can neither lose nor double it. What the record does not take holds up nothing else: not
 * the other entries, not another garden.
 *
 * @param all send also what is still being gathered: the walk has ended or the page is going
 * @throws what the wire throws when nobody answered; everything then still waits
 */
export async function sendWaiting(wire: Wire, personId: string, now: number, all = false): Promise<Passed> {
  const db = await walkDb()
  await forgetOld(now)
  const passed: Passed = { sent: 0, delayed: false }
  const add = ({ sent, delayed }: Passed) => {
    passed.sent += sent
    passed.delayed ||= delayed
  }
  const due = (await db.getAll('entries'))
    .filter((q) => q.personId === personId && unsent(q) && (all || q.state === 'tried' || q.sendAfter <= now))
    .sort((a, b) => a.notedAt - b.notedAt)
  for (const gardenId of new Set(due.map((q) => q.gardenId))) {
    const own = due.filter((q) => q.gardenId === gardenId)
    for (let i = 0; i < own.length; i += BATCH) add(await sendBatch(wire, gardenId, own.slice(i, i + BATCH)))
  }
  // In the order they were recorded: what follows on another job goes after it.
  const jobs = (await db.getAll('jobs')).filter((q) => q.personId === personId && unsent(q))
  for (const job of jobs.sort((a, b) => a.notedAt - b.notedAt)) add(await sendOneJob(wire, job, now))
  const photos = (await db.getAll('photos')).filter((q) => q.personId === personId && unsent(q))
  for (const photo of photos.sort((a, b) => a.notedAt - b.notedAt)) add(await sendOnePhoto(wire, photo))
  return passed
}

async function sendBatch(wire: Wire, gardenId: string, batch: readonly QueuedEntry[]): Promise<Passed> {
  const db = await walkDb()
  const taken: QueuedEntry[] = []
  const triedBefore = new Set<string>()
  const marking = db.transaction('entries', 'readwrite')
  for (const { id } of batch) {
    // As it stands now: it may have been noted over since the list was made.
    const q = await marking.store.get(id)
    if (!q || !unsent(q)) continue
    if (q.state === 'tried') triedBefore.add(q.id)
    const tried: QueuedEntry = { ...q, state: 'tried' }
    await marking.store.put(tried)
    taken.push(tried)
  }
  await marking.done
  const { kept, refused, delayed } = await answerOf(wire, gardenId, taken)
  const settling = db.transaction('entries', 'readwrite')
  for (const q of taken) {
    const no = refused.get(q.id)
    if (kept.has(q.id)) await settling.store.put({ ...q, state: 'kept' })
    else if (no) {
      // A record that looked at the entry knows that it has it not; one that took nothing at all does not say.
      const mayBeKept = no.isOfAll && triedBefore.has(q.id)
      await settling.store.put({ ...q, state: 'refused', why: no.why, ...(mayBeKept && { mayBeKept }) })
    }
  }
  await settling.done
  return { sent: kept.size, delayed }
}

interface BatchAnswer {
  kept: ReadonlySet<string>
  refused: ReadonlyMap<string, { why: string; isOfAll: boolean }>
  delayed: boolean
}

/**
 * A refusal of the whole batch, as of a garden one no longer belongs to, is a refusal of each entry. Where the record breaks over a
 * batch, its halves are sent by themselves, until the entry that it breaks over waits alone.
 */
async function answerOf(wire: Wire, gardenId: string, taken: readonly QueuedEntry[]): Promise<BatchAnswer> {
  if (taken.length === 0) return { kept: new Set(), refused: new Map(), delayed: false }
  try {
    const answer = await wire.sendEntries(
      gardenId,
      taken.map((q) => q.entry),
    )
    const refused = new Map(answer.refused.map(({ id, why }) => [id, { why, isOfAll: false }]))
    return { kept: new Set(answer.kept), refused, delayed: false }
  } catch (error) {
    const judgement = wire.judged(error)
    if (judgement === 'nobody answered') throw error
    if (typeof judgement === 'object') {
      const no = { why: judgement.refused, isOfAll: true }
      return { kept: new Set(), refused: new Map(taken.map((q) => [q.id, no])), delayed: false }
    }
    if (judgement === 'not now' || taken.length === 1)
      return { kept: new Set(), refused: new Map(), delayed: true }
    const half = Math.ceil(taken.length / 2)
    const one = await answerOf(wire, gardenId, taken.slice(0, half))
    const other = await answerOf(wire, gardenId, taken.slice(half))
    return {
      kept: new Set([...one.kept, ...other.kept]),
      refused: new Map([...one.refused, ...other.refused]),
      delayed: one.delayed || other.delayed,
    }
  }
}

async function sendOnePhoto(wire: Wire, photo: QueuedPhoto): Promise<Passed> {
  const db = await walkDb()
  await db.put('photos', { ...photo, state: 'tried' })
  const came = await whatCameOf(wire, () => wire.sendPhoto(photo))
  if (came === 'delayed') return { sent: 0, delayed: true }
  if (came !== 'taken') {
    await db.put('photos', { ...photo, state: 'refused', why: came.refused })
    return { sent: 0, delayed: false }
  }
  // The picture itself is in the record now; the device need not hold it.
  await db.delete('photos', photo.id)
  return { sent: 1, delayed: false }
}

/** Throws when nobody answered. */
async function whatCameOf(
  wire: Wire,
  send: () => Promise<void>,
): Promise<'taken' | 'delayed' | { refused: string }> {
  try {
    await send()
    return 'taken'
  } catch (error) {
    const judgement = wire.judged(error)
    if (judgement === 'nobody answered') throw error
    return typeof judgement === 'object' ? judgement : 'delayed'
  }
}

async function sendOneJob(wire: Wire, job: QueuedJob, now: number): Promise<Passed> {
  const db = await walkDb()
  const marking = db.transaction('jobs', 'readwrite')
  // As it stands now: it may have been recorded anew since the list was made.
  const standing = await marking.store.get(job.id)
  if (standing && unsent(standing)) await marking.store.put({ ...standing, state: 'tried' })
  await marking.done
  if (!standing || !unsent(standing)) return { sent: 0, delayed: false }
  const came = await whatCameOf(wire, () => wire.sendJob(job))
  if (came === 'delayed') return { sent: 0, delayed: true }
  const settled: QueuedJob =
    came === 'taken'
      ? { ...job, state: 'kept', keptAt: now }
      : { ...job, state: 'refused', why: came.refused }
  await db.put('jobs', settled)
  return { sent: came === 'taken' ? 1 : 0, delayed: false }
}

async function forgetOld(now: number): Promise<void> {
  const db = await walkDb()
  for (const q of await db.getAll('entries'))
    if ((q.state === 'kept' || q.state === 'dropped') && q.notedAt < now - REMEMBER_MS)
      await db.delete('entries', q.id)
  for (const q of await db.getAll('jobs'))
    if (q.state === 'kept' && q.notedAt < now - REMEMBER_MS) await db.delete('jobs', q.id)
}
