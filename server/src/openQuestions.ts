import { tooMuch } from './errors.ts'

/** Questions of one person that may be open at once: several screens of several devices. */
export const MOST_OPEN = 60
export const BUSY =
  'You ask for more at once than can be answered. Try again in a moment; nothing is done twice.'

/** An answer, as far as its end can be heard of. */
interface Answering {
  once: (event: 'close', heard: () => void) => unknown
}

/**
 * Counts what each person has asked and has not been answered yet.
 *
 * @returns counts one more until its answer has gone out or nobody waits for it; throws a `Refusal` where that is too many
 */
export function countOpen(): (personId: string, answering: Answering) => void {
  const open = new Map<string, number>()
  return (personId, answering) => {
    const already = open.get(personId) ?? 0
    if (already >= MOST_OPEN) throw tooMuch(BUSY)
    open.set(personId, already + 1)
    answering.once('close', () => {
      const left = open.get(personId)! - 1
      if (left === 0) open.delete(personId)
      else open.set(personId, left)
    })
  }
}
