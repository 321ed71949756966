import { sum } from 'd3-array'
import type { Point } from '../geometry/index.ts'
import { prepared, type Assignment, type LayoutProblem, type Prepared } from './layout.ts'

/** Weights of a power diagram are set anew so many times: from nothing, and from those of the layout before, which are nearly right. */
export const FIRST_SETTLING = 12
export const SETTLING = 2
/** How much of what a part lacks is made good in a round. */
const GAIN = 0.6

/** Middles of the drifts of a layout; of those without a cell the middle of the bed. */
export function middlesOf(
  { cells, drifts }: { cells: LayoutProblem['cells']; drifts: readonly unknown[] },
  has: Assignment,
): Point[] {
  return drifts.map((_, k) => {
    const own = cells.filter((_, i) => has[i] === k)
    const of = own.length > 0 ? own : cells
    return [sum(of, (c) => c.x) / of.length, sum(of, (c) => c.y) / of.length]
  })
}

/** Who has which cell when the middles of the drifts lie so: each the ground it takes, the rest open. */
export function powerDiagram({
  problem: { cells, cellM },
  held,
  loose,
  matrix,
  wants,
  x: xs,
  y: ys,
}: Prepared): (
  sites: readonly Point[],
  from: Float64Array,
  rounds: number,
) => { has: Assignment; weight: Float64Array } {
  const free = Int32Array.from([...cells.keys()].filter((c) => held[c] === -1))
  const wanted = sum(loose, (k) => wants[k])
  const open = Math.max(0, free.length - wanted)
  // Open ground is shared out among the drifts while they settle, and taken from their rims after.
  const settled = wants.map((want) => want + (open * want) / Math.max(1, wanted))
  return (sites, from, rounds) => {
    const sx = Float64Array.from(sites, (p) => p[0])
    const sy = Float64Array.from(sites, (p) => p[1])
    const weight = from.slice()
    const has = held.slice()
    if (loose.length === 0) return { has: flowed(has, matrix), weight }
    const away = new Float64Array(cells.length)
    const n = new Float64Array(sites.length)
    const gain = new Float64Array(sites.length).fill(GAIN)
    const before = new Float64Array(sites.length)
    for (let round = 0; round < rounds; round++) {
      n.fill(0)
      for (const c of free) {
        const x = xs[c]!
        const y = ys[c]!
        let best = -1
        let least = Infinity
        for (const k of loose) {
          const dx = x - sx[k]!
          const dy = y - sy[k]!
          const d = dx * dx + dy * dy - weight[k]!
          if (d < least) {
            best = k
            least = d
          }
        }
        has[c] = best
        away[c] = least
        n[best]!++
      }
      // A part that is too small by so many cells wants its radius, and so its weight, larger by about them; where that was too much, as
      // it is between middles that are near each other, by half.
      for (const k of loose) {
        const short = settled[k]! - n[k]!
        gain[k]! = short * before[k]! < 0 ? gain[k]! / 2 : Math.min(GAIN, 1.2 * gain[k]!)
        before[k] = short
        weight[k]! += (gain[k]! * short * cellM ** 2) / Math.PI
      }
    }
    const own = sites.map((): number[] => [])
    for (const c of free) own[has[c]!]!.push(c)
    own.forEach((of, k) => {
      if (of.length <= wants[k]!) return
      of.sort((a, b) => away[b]! - away[a]!)
      for (const c of of.slice(0, of.length - wants[k]!)) has[c] = -1
    })
    return { has: flowed(has, matrix), weight }
  }
}

/** What runs through a bed has all that is open. */
export const flowed = (has: Assignment, matrix: number): Assignment =>
  matrix < 0 ? has : has.map((k) => (k < 0 ? matrix : k))

/** Drifts about middles that somebody has given, each with the ground it takes: the same for the same. */
export function laidAbout(problem: LayoutProblem, middles: readonly Point[], rounds: number): Assignment {
  return powerDiagram(prepared(problem))(middles, new Float64Array(middles.length), rounds).has
}
