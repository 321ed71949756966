/** A seeded source of uniform numbers in [0, 1). Mulberry32: same seed, same sequence, everywhere. */
export type Random = () => number

/** Numbers from 0 up to 1, the same for the same seed (mulberry32). */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** A seed for a word, the same for the same: FNV-1a (Fowler, Noll and Vo). */
export function seedOf(word: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < word.length; i++) hash = Math.imul(hash ^ word.charCodeAt(i), 0x01000193)
  return hash >>> 0
}

/** A standard normal deviate (Box and Muller 1958). */
export function normal(random: Random): number {
  const u = Math.max(random(), 1e-12)
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random())
}
