import { decidedJobs, openFrom, plantingWindows, type JobDraft, type Window } from '../care/index.ts'
import { addDays, daysBetween, maxDay, type IsoDate } from '../dates/index.ts'
import { plantingM2, type Planting } from '../garden/index.ts'
import { counted, dayMonth, dayMonthYear, listed } from '../words/index.ts'
import { liftedBy, liftsOf, liftSteps } from './lifting.ts'
import { groundSteps } from './makingReady.ts'
import { plantingSteps } from './planting.ts'
import { canBeLifted, plantingTurns, type Plantable, type PlantingTurn } from './plantingTurns.ts'
import { stepOf, type Comes, type Lift, type Problem, type SchemeToCarryOut, type Step } from './step.ts'

/** A time of planting as it is told. */
export interface TurnTold {
  window: Window
  /** Of the drifts. */
  ids: readonly string[]
  says: string
}

/** The steps in an order in which they can be done; or what keeps the scheme from being carried out. */
export type CarryingOut = { ok: true; steps: Step[]; turns: TurnTold[] } | { ok: false; problems: Problem[] }

/** Ground that lies open for longer is covered. */
const OPEN_TOO_LONG_DAYS = 56

/**
 * A scheme as steps in order, each with its window: destinations made ready and what leaves lifted into them, the bed cleared, mended
 * and fed while it is empty, what comes in set out, looked at and planted, each kind in its season, and looked after.
 *
 * @param on today
 */
export function carryingOut(scheme: SchemeToCarryOut, on: IsoDate): CarryingOut {
  const { lifts, problems } = liftsOf(scheme, on)
  const divisions = divisionsOf(scheme, on, problems)
  const plantable = scheme.comes.map((c) => {
    const gives = divisions.find((d) => d.planting.taxon.botanical === c.taxon.botanical)
    const from = c.have > 0 && gives ? gives.job.window.earliest : on
    return { id: c.id, areaM2: c.areaM2, windows: windowsFor(scheme, c, on, from, problems) }
  })
  if (problems.length > 0) return { ok: false, problems }
  const { turns, late } = inTurns(scheme, plantable, lifts, on)
  for (const { id, taxon } of scheme.comes)
    if (!turns.some((t) => t.planted.some((p) => p.id === id)))
      problems.push({
        about: taxon.botanical,
        says: `${taxon.botanical} has no time in the next two years in which it can be planted here.`,
      })
  if (problems.length > 0) return { ok: false, problems }
  const [first] = turns
  const giving = [
    ...lifts.filter((l) => l.goes.to === 'here').map((l) => [l.planting, liftedBy(l)] as const),
    ...divisions.map((d) => [d.planting, d.job.key] as const),
  ]
  const gives = new Map<string, string[]>()
  for (const [{ taxon }, key] of giving)
    gives.set(taxon.botanical, [...(gives.get(taxon.botanical) ?? []), key])
  const room = liftSteps(scheme, lifts, first, on)
  const emptying = new Set(lifts.filter((l) => l.goes.to !== 'here' && !late.includes(l)).map(liftedBy))
  const steps = [
    ...room,
    ...divisions.map(({ planting, spare, job }) =>
      stepOf(scheme, { ...job, stage: 'make room', plantingId: planting.id, spare }),
    ),
    ...(first ? groundSteps(scheme, { turn: first, by: room.filter((s) => emptying.has(s.key)), on }) : []),
    ...plantingSteps(scheme, turns, gives, new Map(late.map((l) => [l.planting.id, liftedBy(l)])), on),
  ]
  return { ok: true, steps, turns: turns.map((t, i) => told(scheme, { lifts, late }, t, i)) }
}

/**
 * The turns of planting, and what can be lifted only after the first of them: the rest is planted round it, and what is to have its
 * ground waits.
 */
function inTurns(
  { comes }: SchemeToCarryOut,
  plantable: readonly Plantable[],
  lifts: readonly Lift[],
  on: IsoDate,
): { turns: PlantingTurn[]; late: Lift[] } {
  const timed = lifts.filter((l) => l.windows.length > 0)
  // What is late may leave the rest another time, for which others are late: each counts once.
  for (let late: Lift[] = []; ;) {
    const inTime = timed.filter((l) => !late.includes(l))
    const turns = plantingTurns(
      plantable.map((p) => ({ ...p, windows: afterLate(p, late) })),
      inTime.map(({ windows, planting }) => ({ windows, areaM2: plantingM2(planting) })),
      on,
    )
    const [first] = turns
    const isLate = (l: Lift) => first !== undefined && !l.windows.some((w) => canBeLifted(w, first.window))
    const more = inTime.filter(isLate)
    // What was late for another time may be in time for this one.
    if (more.length === 0) return { turns, late: late.filter(isLate) }
    late = [...late, ...more]
  }
  /** Windows of something, as far as they lie after what leaves its ground late. */
  function afterLate({ id, windows }: Plantable, late: readonly Lift[]): Window[] {
    const { over } = comes.find((c) => c.id === id)!
    const under = late.filter((l) => over.includes(l.planting.id))
    return windows
      .filter((w) => under.every((l) => canBeLifted(l.windows[0]!, w)))
      .map((w) => openFrom(w, maxDay(on, ...under.map((l) => l.windows[0]!.earliest))))
  }
}

/** A division of what stays, whose pieces are wanted. */
interface Dividing {
  planting: Planting
  spare: number
  job: JobDraft
}

function divisionsOf(scheme: SchemeToCarryOut, on: IsoDate, problems: Problem[]): Dividing[] {
  const { place, lateDays, schools, rules, climate } = scheme
  return scheme.dividing.flatMap(({ planting, spare }) => {
    const { taxon, livingCount: count, tag } = planting
    const request = { taxon, count, place: place.name, placeKind: place.kind, lateDays, schools, rules }
    const found = decidedJobs('divide', request, climate, on)
    if (found.ok) return found.jobs.map((job) => ({ planting, spare, job: { ...job, key: `${tag}/divide` } }))
    problems.push({ about: planting.id, says: `${tag} ${taxon.botanical}: ${found.why}` })
    return []
  })
}

/** What is given by a division is planted a week after that opens, at the soonest. */
const GIVEN_DAYS = 7
const YEAR_DAYS = 365

function windowsFor(
  { climate, lateDays }: SchemeToCarryOut,
  { taxon }: Comes,
  on: IsoDate,
  given: IsoDate,
  problems: Problem[],
): Window[] {
  const found = plantingWindows(taxon, climate, on, lateDays)
  if (!found.ok) {
    problems.push({ about: taxon.botanical, says: `${taxon.botanical}: ${found.why}.` })
    return []
  }
  const from = maxDay(on, given)
  // What waits until next year’s planting is over may have to wait for the year after.
  const later = plantingWindows(taxon, climate, addDays(on, YEAR_DAYS), lateDays)
  const last = found.windows.at(-1)!.window.earliest
  const after = later.ok ? later.windows.filter((w) => w.window.earliest > last) : []
  return [...found.windows, ...after]
    .map((w) => w.window)
    .filter((w) => w.latest >= addDays(from, from > on ? GIVEN_DAYS : 0))
}

/** Why a turn is when it is. */
function told(
  scheme: SchemeToCarryOut,
  { lifts, late }: { lifts: readonly Lift[]; late: readonly Lift[] },
  turn: PlantingTurn,
  nth: number,
): TurnTold {
  const { window, planted } = turn
  const ids = planted.map((p) => p.id)
  const kindsOf = (of: readonly Comes[]) => [...new Set(of.map((c) => c.taxon.botanical))]
  const here = kindsOf(scheme.comes.filter((c) => ids.includes(c.id)))
  const all = kindsOf(scheme.comes).length
  const when = `${dayMonth(window.earliest)} to ${dayMonthYear(window.latest)}`
  if (nth > 0) {
    const one = here.length === 1
    return {
      window,
      ids,
      says: `${listed(here)} ${one ? 'waits' : 'wait'} for ${one ? 'its' : 'their'} own season: ${when}.`,
    }
  }
  const share =
    here.length === all
      ? all === 1
        ? 'it can be planted'
        : `all ${counted(all, 'kind')} can be planted`
      : `${here.length} of ${counted(all, 'kind')} can be planted`
  const timed = lifts.filter((l) => l.windows.length > 0)
  const lifted =
    late.length === 0
      ? 'what is lifted can be lifted before'
      : `the rest is planted round ${listed(late.map((l) => l.planting.tag))}, which cannot be lifted before`
  const out = timed.map(
    (l) => l.windows.filter((w) => canBeLifted(w, window)).at(-1)?.latest ?? window.earliest,
  )
  const openFromDay = out.length > 0 ? maxDay(...out) : window.earliest
  const isOpenLong = daysBetween(openFromDay, window.earliest) > OPEN_TOO_LONG_DAYS
  return {
    window,
    ids,
    says: [
      `Planted ${when}: ${share} then${timed.length > 0 ? `, and ${lifted}` : ''}.`,
      ...(isOpenLong
        ? [`The ground lies open from ${dayMonth(openFromDay)}: cover it, or sow something quick.`]
        : []),
    ].join(' '),
  }
}
