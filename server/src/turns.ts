import { AsyncLocalStorage } from 'node:async_hooks'
import { tooMuch } from './errors.ts'

/** For whom something is done: what is scarce is shared out by it, and what nobody waits for any more is given up. */
export interface Behalf {
  /** A garden, or the crew whose gardens are planned together. */
  garden?: string | undefined
  person?: string | undefined
  /** Ends when nobody waits any more. */
  signal?: AbortSignal | undefined
}
const behalf = new AsyncLocalStorage<Behalf>()

/** Does something for someone; all that it asks for in turn is asked for them. */
export const onBehalfOf = <T>(whom: Behalf, work: () => T): T => behalf.run(whom, work)

/** For whom the caller works. */
export const behalfNow = (): Behalf => behalf.getStore() ?? {}

/** A person in a garden. */
const whoseIn = ({ garden, person }: { garden: string; person: string }) => `${garden} ${person}`

interface Waiting {
  garden: string
  person: string
  begin: () => void
}

/** How what is scarce is shared out. */
export interface Sharing {
  /** At work at once. */
  slots: number
  /** Of these for one garden: the rest are there for others. */
  slotsOfOne: number
  /** That one person may have waiting. */
  mostWaiting: number
  /** What is said to whom has more than that. */
  tooMany: string
}

/**
 * Turns at something scarce. A turn goes to the garden that has had least of it, and in it to the person who has, by time spent:
 * start-time fair queueing (Goyal, Vin and Cheng 1997, IEEE/ACM Transactions on Networking 5, 690-704). Who comes anew begins
 * where the last who began stood: nobody saves up.
 */
export class Turns {
  private readonly waiting: Waiting[] = []
  private readonly atWork = new Map<string, number>()
  private readonly gardens = new Spent()
  private readonly people = new Spent()
  private running = 0

  constructor(
    private readonly of: Sharing,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /**
   * Does something when its turn has come.
   *
   * @throws {Refusal} where whoever asks has too much waiting already
   * @throws {DOMException} an AbortError, where nobody waits for it any more
   */
  async take<T>(work: () => Promise<T>): Promise<T> {
    const { garden = '', person = '', signal } = behalfNow()
    signal?.throwIfAborted()
    await this.turnOf(garden, person, signal)
    const began = this.now()
    try {
      return await work()
    } finally {
      const took = this.now() - began
      this.gardens.add(garden, took)
      this.people.add(whoseIn({ garden, person }), took)
      this.running--
      this.count(garden, -1)
      this.next()
    }
  }

  private turnOf(garden: string, person: string, signal: AbortSignal | undefined): Promise<void> {
    const own = this.waiting.filter((w) => w.person === person)
    if (own.length >= this.of.mostWaiting) throw tooMuch(this.of.tooMany)
    return new Promise((resolve, reject) => {
      const givenUp = () => {
        this.waiting.splice(this.waiting.indexOf(waiting), 1)
        reject(signal!.reason as Error)
      }
      const waiting: Waiting = {
        garden,
        person,
        begin: () => {
          signal?.removeEventListener('abort', givenUp)
          resolve()
        },
      }
      signal?.addEventListener('abort', givenUp, { once: true })
      this.waiting.push(waiting)
      this.gardens.come(garden)
      this.people.come(whoseIn(waiting))
      this.next()
    })
  }

  /** Lets begin whoever may. */
  private next(): void {
    while (this.running < this.of.slots) {
      const free = this.waiting.filter((w) => (this.atWork.get(w.garden) ?? 0) < this.of.slotsOfOne)
      const [first] = free
      if (!first) return
      const least = free.reduce((a, b) => {
        const gardens = this.gardens.of(b.garden) - this.gardens.of(a.garden)
        return gardens < 0 || (gardens === 0 && this.people.of(whoseIn(b)) < this.people.of(whoseIn(a)))
          ? b
          : a
      }, first)
      this.waiting.splice(this.waiting.indexOf(least), 1)
      this.gardens.begin(least.garden)
      this.people.begin(whoseIn(least))
      this.running++
      this.count(least.garden, 1)
      least.begin()
    }
    this.forgetIdle()
  }

  private count(garden: string, by: 1 | -1): void {
    const left = (this.atWork.get(garden) ?? 0) + by
    if (left === 0) this.atWork.delete(garden)
    else this.atWork.set(garden, left)
  }

  /** Nothing is kept of whom nothing is done for. */
  private forgetIdle(): void {
    if (this.running > 0 || this.waiting.length > 0) return
    this.gardens.forget()
    this.people.forget()
  }
}

/** Time spent by each who shares, milliseconds. */
class Spent {
  private readonly by = new Map<string, number>()
  /** Where the last who began stood. */
  private stand = 0

  of = (who: string): number => this.by.get(who) ?? 0

  come(who: string): void {
    this.by.set(who, Math.max(this.of(who), this.stand))
  }

  begin(who: string): void {
    this.stand = Math.max(this.stand, this.of(who))
  }

  add(who: string, ms: number): void {
    this.by.set(who, this.of(who) + ms)
  }

  forget(): void {
    this.by.clear()
    this.stand = 0
  }
}
