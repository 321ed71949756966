import type { Band } from './body.ts'
import type { FrontView, SeenPlant } from './scene.ts'
import type { StandingPlant } from './standing.ts'

/** How much of a drift is seen: of its leaves, and of its flowers, as shares from 0 to 1; null where there are none. */
export interface SeenShare {
  leaves: number | null
  flowers: number | null
}

/** How finely it is looked at, metres on the plane of the front edge. */
const CELL_M = 0.015

/**
 * How much of what stands in a bed is seen from where somebody stands: visible over projected area, by going over the picture from the nearest
 * plant to the farthest. Leaves hide what is behind them; flowers, which stand apart from each other, hide nothing.
 *
 * @param groupOf what it is told of: a drift, a kind
 * @returns by that
 */
export function seenShares(
  view: FrontView,
  groupOf: (plant: StandingPlant) => string,
): Map<string, SeenShare> {
  const { plants } = view
  const left = Math.min(0, ...plants.map((p) => p.x - (p.scale * p.body.spreadM) / 2))
  const right = Math.max(0, ...plants.map((p) => p.x + (p.scale * p.body.spreadM) / 2))
  const top = Math.max(0, ...plants.map((p) => p.y + p.scale * p.body.heightM))
  const wide = Math.ceil((right - left) / CELL_M) + 1
  const taken = new Uint8Array(wide * (Math.ceil(top / CELL_M) + 1))
  const counts = new Map<
    string,
    { leaves: [seen: number, all: number]; flowers: [seen: number, all: number] }
  >()
  for (const p of plants.toReversed()) {
    const groupId = groupOf(p.plant)
    let count = counts.get(groupId)
    if (!count) counts.set(groupId, (count = { leaves: [0, 0], flowers: [0, 0] }))
    // Its own leaves do not hide its flowers.
    over(p, p.body.flowers, left, wide, (cell) => {
      count.flowers[1]++
      if (taken[cell] === 0) count.flowers[0]++
    })
    over(p, p.body.leaves, left, wide, (cell) => {
      count.leaves[1]++
      if (taken[cell] === 0) count.leaves[0]++
      taken[cell] = 1
    })
  }
  const share = ([seen, all]: [number, number]) => (all === 0 ? null : seen / all)
  return new Map([...counts].map(([id, c]) => [id, { leaves: share(c.leaves), flowers: share(c.flowers) }]))
}

/** Every cell of the picture that a part of a plant covers. */
function over(
  p: SeenPlant,
  band: Band | undefined,
  left: number,
  wide: number,
  at: (cell: number) => void,
): void {
  if (!band) return
  const { heightM, spreadM } = p.body
  const from = p.y + p.scale * heightM * band.from
  const to = p.y + p.scale * heightM * band.to
  for (let row = Math.max(0, Math.ceil(from / CELL_M - 0.5)); (row + 0.5) * CELL_M < to; row++) {
    const t = ((row + 0.5) * CELL_M - from) / (to - from)
    const half = (p.scale * spreadM * band.halfWidth(t)) / 2
    const first = Math.ceil((p.x - half - left) / CELL_M - 0.5)
    for (let column = first; (column + 0.5) * CELL_M + left < p.x + half; column++) at(row * wide + column)
  }
}
