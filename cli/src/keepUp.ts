import { counted } from '@border/core/words'
import { setTimeout } from 'node:timers/promises'
import { say } from './say.ts'
import type { Serving } from './serve.ts'

/** Waited before a server is begun again, each time twice as long while it does not come up: seconds. */
const AGAIN_S = 1
const AGAIN_MOST_S = 60

/**
 * Keeps a server up: one that has answered and then ends by itself is begun again, for nobody is there at night to do it. One
 * that has never answered, or that was told to end, is not.
 *
 * @returns the exit code of the last one
 */
export async function keepUp(
  begin: () => Promise<Pick<Serving, 'answers' | 'ended' | 'end'>>,
  told: {
    /** Requests are answered for the first time. */
    onReady: () => void
    /** Ends it. */
    signal: AbortSignal
    isWanted: () => boolean
    /** Waits so many milliseconds, or until the signal. */
    wait?: (ms: number, signal: AbortSignal) => Promise<void>
  },
): Promise<number> {
  const { wait = waitUntil } = told
  let hasEverAnswered = false
  let waitS = AGAIN_S
  for (;;) {
    const { answers, ended, end } = await begin()
    const stop = () => void end('SIGTERM')
    told.signal.addEventListener('abort', stop)
    if (told.signal.aborted) stop()
    if (await answers) {
      if (!hasEverAnswered) told.onReady()
      hasEverAnswered = true
      waitS = AGAIN_S
    }
    const code = await ended
    told.signal.removeEventListener('abort', stop)
    const isWanted = () => !told.signal.aborted && told.isWanted()
    if (code === 0 || !hasEverAnswered || !isWanted()) return code
    say(`The server ended by itself (${code}); it is begun again in ${counted(waitS, 'second')}.`)
    await wait(waitS * 1000, told.signal)
    if (!isWanted()) return code
    waitS = Math.min(2 * waitS, AGAIN_MOST_S)
  }
}

const waitUntil = (ms: number, signal: AbortSignal): Promise<void> =>
  setTimeout(ms, undefined, { signal }).catch(() => {})
