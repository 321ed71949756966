import type { AnswerOf, Endpoint } from '@border/contract'
import { ask, hrefOf, nobodyAnswered, type Sent } from '../api/client.ts'
import { takeAlong, takenAlong } from './store.ts'
import { seemsOffline } from './sync.ts'

/**
 * An answer from the server, taken along as it comes; where nobody answers, the one taken along last.
 *
 * @param as the name to keep it under, where the address says more than matters
 */
export async function askOrTaken<E extends Endpoint>(
  endpoint: E,
  sent: Sent<E>,
  { signal, as = hrefOf(endpoint, sent) }: { signal?: AbortSignal; as?: string } = {},
): Promise<AnswerOf<E>> {
  return orTaken(as, () => ask(endpoint, sent, signal))
}

export async function orTaken<T>(name: string, asked: () => Promise<T>): Promise<T> {
  try {
    const answer = await asked()
    // A browser that keeps nothing for us still shows what it was given.
    await takeAlong(name, answer).catch(() => {})
    return answer
  } catch (error) {
    if (!nobodyAnswered(error)) throw error
    seemsOffline()
    const taken = await takenAlong<T>(name).catch(() => undefined)
    if (taken === undefined) throw error
    return taken
  }
}
