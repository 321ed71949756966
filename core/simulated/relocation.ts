import { seededRandom } from '../src/random/index.ts'
import type { RelocationProblem } from '../src/rework/index.ts'

/**
 * A garden in which much leaves its place, as far as its relocation sees it: most spots are the ground that something else gives up,
 * the rest bare holes; light, moisture and edges make most of them wrong for most.
 */
export function simulatedRelocation(seed: number, plantings: number, spots: number): RelocationProblem {
  const random = seededRandom(seed)
  /** Of every five spots two are free. */
  const free = Math.round(0.4 * spots)
  const leaving = Array.from({ length: plantings }, (_, i) => ({
    id: `p${i}`,
    radiusM: 0.15 + 0.5 * random() ** 2,
    worth: random() < 0.2 ? 2 : 1,
    fitHere: random() < 0.3 ? null : 0.8 * random(),
    /** What it likes: sun and moisture, 0 to 1. */
    likes: [random(), random()] as const,
  }))
  const offered = Array.from({ length: spots }, (_, i) => ({
    id: `s${i}`,
    radiusM: i < free ? 0.3 + 0.5 * random() : leaving[(i * 7) % plantings]!.radiusM,
    vacatedBy: i < free ? undefined : leaving[(i * 7) % plantings]!.id,
    is: [random(), random()] as const,
  }))
  return {
    leaving: leaving.map(({ likes: _, ...l }) => l),
    spots: offered.map(({ is: _, ...s }) => s),
    fit: leaving.map(({ likes }) =>
      offered.map(({ is }) => {
        const off = Math.max(...likes.map((l, k) => Math.abs(l - is[k]!)))
        return Math.max(0, Math.min(1, 1.15 - 1.5 * off))
      }),
    ),
  }
}
