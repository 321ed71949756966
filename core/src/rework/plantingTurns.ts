import { sum } from 'd3-array'
import type { Edge, Window } from '../care/index.ts'
import { addDays, daysBetween, maxDay, minDay, type IsoDate } from '../dates/index.ts'

/** Something that is to be planted, with every window that it could be planted in. */
export interface Plantable {
  id: string
  /** Ground that it takes, square metres: what takes more of the bed has more of a say. */
  areaM2: number
  windows: readonly Window[]
}

/** A time at which part of a place is planted. */
export interface PlantingTurn {
  /** The days on which all of it can be planted. */
  window: Window
  /** What is planted then, each with its own window about them. */
  planted: readonly { id: string; window: Window }[]
}

/** What is planted together can all be planted on so many days at the least. */
const LEAST_SHARED_DAYS = 10
/** So many days are wanted from today until a bed can be planted: it has to be emptied, dug and settled. */
const READY_DAYS = 14
/**
 * Judgements. To wait for a year costs as much as a part of the bed so large that cannot be planted at once; and of two times the one
 * is better that is best for more of it. Ground round which is planted, because what leaves it can be lifted only later, waits as well.
 */
const WAIT_A_YEAR = 0.4
const AT_ITS_BEST = 0.2
const YEAR_DAYS = 365

/**
 * When a place is planted: first at the time at which the most of it can be, waiting counted against it and what cannot be lifted before
 * it with it; then, by turns, what has to wait for its own season. What has no window in sight has no turn.
 *
 * @param lifts what must be out of the ground before: how much of it each takes, and the windows in which it can be lifted
 * @param on today
 */
export function plantingTurns(
  comes: readonly Plantable[],
  lifts: readonly Omit<Plantable, 'id'>[],
  on: IsoDate,
): PlantingTurn[] {
  const turns: PlantingTurn[] = []
  let waiting = comes.filter((c) => c.windows.length > 0)
  let from = addDays(on, READY_DAYS)
  while (waiting.length > 0) {
    const turn = bestTurn(waiting, turns.length === 0 ? lifts : [], on, from)
    if (!turn) break
    turns.push(turn)
    const done = new Set(turn.planted.map((p) => p.id))
    waiting = waiting.filter((c) => !done.has(c.id))
    // What follows is planted into ground that has been emptied and made ready.
    from = maxDay(
      turns[0]!.window.earliest,
      ...lifts.map((l) => liftedIn(l.windows, turns[0])?.earliest ?? on),
    )
  }
  const [first, ...later] = turns
  return first ? [first, ...later.toSorted((a, b) => (a.window.earliest < b.window.earliest ? -1 : 1))] : []
}

/** What is short by nature has all of itself. */
const leastDays = (w: Window): number => Math.min(LEAST_SHARED_DAYS, daysBetween(w.earliest, w.latest))

/** The time from a day on at which it is best to plant what waits; undefined where none of it can be planted any more. */
function bestTurn(
  waiting: readonly Plantable[],
  lifts: readonly Omit<Plantable, 'id'>[],
  on: IsoDate,
  from: IsoDate,
): PlantingTurn | undefined {
  const all = sum(waiting, (c) => c.areaM2)
  const starts = waiting
    .flatMap((c) => c.windows.flatMap((w) => [w.earliest, w.bestFrom, addDays(w.latest, -leastDays(w))]))
    .map((day) => maxDay(day, from))
  let best: { worth: number; planted: { id: string; window: Window }[] } | undefined
  for (const day of new Set(starts.toSorted())) {
    const planted = waiting.flatMap(({ id, windows, areaM2 }) => {
      const window = windows.find((w) => w.earliest <= day && addDays(day, leastDays(w)) <= w.latest)
      return window ? [{ id, window, areaM2 }] : []
    })
    if (planted.length === 0) continue
    const isBest = (w: Window) => w.bestFrom <= day && day <= w.bestTo
    const closes = { latest: addDays(day, LEAST_SHARED_DAYS) }
    const late = sum(
      lifts.filter((l) => !l.windows.some((w) => canBeLifted(w, closes))),
      (l) => l.areaM2,
    )
    const worth =
      sum(planted, (p) => p.areaM2 * (1 - (isBest(p.window) ? 0 : AT_ITS_BEST))) / all -
      (WAIT_A_YEAR * Math.max(0, daysBetween(on, day))) / YEAR_DAYS -
      late / Math.max(all, late)
    if (!best || worth > best.worth + 1e-9)
      best = { worth, planted: planted.map(({ id, window }) => ({ id, window })) }
  }
  return (
    best && {
      window: shared(
        best.planted.map((p) => p.window),
        from,
      ),
      planted: best.planted,
    }
  )
}

/** The days that windows share, each edge with the sentence of the one that sets it. */
function shared(windows: readonly Window[], from: IsoDate): Window {
  const setBy = (edge: Edge, later: boolean) =>
    windows.reduce((a, b) => (later === b[edge] > a[edge] && a[edge] !== b[edge] ? b : a))
  const [opens, closes] = [setBy('earliest', true), setBy('latest', false)]
  const [bestOpens, bestCloses] = [setBy('bestFrom', true), setBy('bestTo', false)]
  const earliest = maxDay(opens.earliest, from)
  const { latest } = closes
  const bestFrom = minDay(latest, maxDay(earliest, bestOpens.bestFrom))
  return {
    season: opens.season,
    earliest,
    bestFrom,
    bestTo: minDay(latest, maxDay(bestFrom, bestCloses.bestTo)),
    latest,
    why: {
      earliest: opens.why.earliest,
      bestFrom: bestOpens.why.bestFrom,
      bestTo: bestCloses.why.bestTo,
      latest: closes.why.latest,
    },
  }
}

/** From lifting to the last day of planting: the ground is cleared, fed and settles meanwhile. */
const LIFTED_BEFORE_DAYS = 14

/** Of the windows of something that is lifted the last that is early enough, so that nothing waits out of the ground for longer than it must. */
export const liftedIn = (windows: readonly Window[], turn: PlantingTurn | undefined): Window | undefined =>
  (turn && windows.filter((w) => canBeLifted(w, turn.window)).at(-1)) ?? windows[0]

/** Whether something can be lifted in time for a planting. */
export const canBeLifted = (lift: Pick<Window, 'earliest'>, planting: Pick<Window, 'latest'>): boolean =>
  lift.earliest <= addDays(planting.latest, -LIFTED_BEFORE_DAYS)
