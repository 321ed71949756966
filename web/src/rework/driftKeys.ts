import {
  middleOfDrift,
  withCount,
  withMoved,
  withoutDrift,
  withSplit,
  type Arrangement,
  type BedGround,
  type Point,
} from '@border/core'

/** What a key has done: another drift is in hand, or none; or the bed is arranged otherwise. */
export type KeyDone = { chosen: string | undefined } | { arranged: Arrangement }

/** A key with Shift moves a drift so far, metres. */
const FAR_M = 1
const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

/**
 * Everything that hands can do with a drift, by keys.
 *
 * @param canChange whether more than looking is theirs
 * @returns undefined where the key does nothing
 */
export function keyedDrift(
  ground: BedGround,
  arranged: Arrangement,
  chosen: string | undefined,
  { key, shift, canChange }: { key: string; shift: boolean; canChange: boolean },
): KeyDone | undefined {
  const { drifts } = arranged
  const n = drifts.length
  if (n === 0) return undefined
  const turn = drifts.findIndex((d) => d.id === chosen)
  if (key === '.') return { chosen: drifts[(turn + 1) % n]!.id }
  if (key === ',') return { chosen: drifts[turn <= 0 ? n - 1 : turn - 1]!.id }
  const drift = drifts[turn]
  if (!drift) return undefined
  if (key === 'Escape') return { chosen: undefined }
  if (!canChange) return undefined
  const { id, count } = drift
  const arrow = ARROWS[key]
  if (arrow) {
    const by = shift ? FAR_M : ground.cellM
    const at = middleOfDrift(ground, arranged, id)
    return at && { arranged: withMoved(ground, arranged, id, [at[0] + arrow[0] * by, at[1] + arrow[1] * by]) }
  }
  if (key === '+' || key === '=') return { arranged: withCount(ground, arranged, id, count + 1) }
  if (key === '-') return count > 1 ? { arranged: withCount(ground, arranged, id, count - 1) } : undefined
  if (key === 's') return { arranged: withSplit(ground, arranged, id, crypto.randomUUID()) }
  if (key === 'Delete' || key === 'Backspace') return { arranged: withoutDrift(ground, arranged, id) }
  return undefined
}
