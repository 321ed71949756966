import { behalfNow, onBehalfOf } from './turns.ts'

interface Shared<T> {
  result: Promise<T>
  waiting: number
  giveUp: AbortController
}

/** Work that several may ask for at once: done once, and given up when nobody waits for it any more. */
export class UnderWay<T> {
  private readonly by = new Map<string, Shared<T>>()

  /**
   * Waits for work of a name, with whoever waits for it already; begun where nobody does.
   *
   * @throws {DOMException} an AbortError, where whoever asks waits no more
   */
  async join(name: string, work: () => Promise<T>): Promise<T> {
    const { signal } = behalfNow()
    signal?.throwIfAborted()
    const shared = this.by.get(name) ?? this.begin(name, work)
    shared.waiting++
    let leave = () => {}
    try {
      return await (signal
        ? Promise.race([
            shared.result,
            new Promise<never>((_, reject) => {
              leave = () => reject(signal.reason as Error)
              signal.addEventListener('abort', leave, { once: true })
            }),
          ])
        : shared.result)
    } finally {
      signal?.removeEventListener('abort', leave)
      shared.waiting--
      if (shared.waiting === 0) {
        // Whoever comes from now on begins anew.
        if (this.by.get(name) === shared) this.by.delete(name)
        shared.giveUp.abort()
      }
    }
  }

  private begin(name: string, work: () => Promise<T>): Shared<T> {
    const giveUp = new AbortController()
    const result = onBehalfOf({ ...behalfNow(), signal: giveUp.signal }, work)
    const shared = { result, waiting: 0, giveUp }
    this.by.set(name, shared)
    // Each who waits hears of it; where nobody does any more it is of no consequence.
    result.catch(() => {})
    return shared
  }
}
