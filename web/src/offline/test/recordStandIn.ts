import type { JobDone, WalkAnswer, WalkEntry } from '@border/contract'
import { subjectOf, type Wire } from '../queue.ts'

/** A no of the record. */
export class Refused extends Error {}

/** A record that takes nothing just now. */
export class Busy extends Error {}
/** A record that breaks over what it was sent. */
export class Broken extends Error {}

/** What becomes of something on the wire: it arrives and is answered, never arrives, or arrives and its answer is lost. */
export type Fate = 'nothing' | 'request' | 'answer'

/** A record that keeps each id once, and loses its answer, or the request, when told to. */
export class RecordStandIn {
  kept = new Map<string, WalkEntry>()
  withdrawn = new Set<string>()
  /** Jobs recorded, by the key of the write. */
  jobs = new Map<string, { jobId: string; done: JobDone }>()
  photos = new Map<string, number>()
  /** Subjects that it takes nothing of, as of a planting that is gone. */
  refuses = new Set<string>()
  /** It takes nothing at all, as of a garden that one no longer belongs to. */
  refusesAll = false
  /** Gardens of which it takes nothing. */
  refusesOf = new Set<string>()
  /** Gardens of which it takes nothing just now. */
  busyWith = new Set<string>()
  /** Subjects that it breaks over, and with it over all they are sent with. */
  breaksOver = new Set<string>()
  asked = 0
  lose: Fate = 'nothing'
  whileUnderWay: () => Promise<unknown> = async () => {}

  readonly wire: Wire = {
    sendEntries: (garden, entries) =>
      this.onTheWire(async () => {
        this.asked++
        if (this.refusesOf.has(garden)) throw new Refused('Only a crew member of this garden may do this.')
        if (this.busyWith.has(garden)) throw new Busy()
        if (entries.some((e) => this.breaksOver.has(subjectOf(e)))) throw new Broken()
        return this.takeEntries(entries)
      }),
    sendPhoto: (photo) =>
      this.onTheWire(async () => void this.photos.set(photo.id, (this.photos.get(photo.id) ?? 0) + 1)),
    sendJob: (job) =>
      this.onTheWire(async () => {
        const isOfAnother = [...this.jobs].some(([key, j]) => key !== job.id && j.jobId === job.jobId)
        if (isOfAnother) throw new Refused('already recorded')
        // The same key again is the same write: its first content stands.
        if (!this.jobs.has(job.id))
          this.jobs.set(job.id, { jobId: job.jobId, done: structuredClone(job.done) })
      }),
    judged: (error) =>
      error instanceof Refused
        ? { refused: error.message }
        : error instanceof Busy
          ? 'not now'
          : error instanceof Broken
            ? 'it broke'
            : 'nobody answered',
  }

  private async onTheWire<T>(take: () => Promise<T>): Promise<T> {
    if (this.lose === 'request') throw new Error('no connection')
    await this.whileUnderWay()
    if (this.refusesAll) throw new Refused('This garden was not found.')
    const answer = await take()
    if (this.lose === 'answer') throw new Error('no answer')
    return answer
  }

  private takeEntries(entries: readonly WalkEntry[]): WalkAnswer {
    const answer: WalkAnswer = { kept: [], refused: [] }
    for (const e of entries) {
      if (!this.kept.has(e.id) && this.refuses.has(subjectOf(e))) {
        answer.refused.push({ id: e.id, why: 'It is not there any more.' })
        continue
      }
      answer.kept.push(e.id)
      if (this.kept.has(e.id)) continue
      this.kept.set(e.id, structuredClone(e))
      const replaced = [e.replacesId, ...(e.orReplaces ?? [])].find((id) => id && this.kept.has(id))
      if (replaced) this.withdrawn.add(replaced)
    }
    return answer
  }

  /** Entries that stand: kept, and not replaced by a later one. */
  standing = (): WalkEntry[] => [...this.kept.values()].filter((e) => !this.withdrawn.has(e.id))
}
