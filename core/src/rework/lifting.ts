import { group, sum } from 'd3-array'
import {
  aftercareJobs,
  decidedJobs,
  MOVED_WATER_EACH,
  moveJobs,
  moveWindows,
  openFrom,
  plantCautions,
  stepsByRoot,
  toFiveMinutes,
  type JobDraft,
  type Window,
} from '../care/index.ts'
import { maxDay, type IsoDate } from '../dates/index.ts'
import type { Planting } from '../garden/index.ts'
import { isWoody, rootKind } from '../plants/index.ts'
import { counted } from '../words/index.ts'
import { beforePlanting } from './makingReady.ts'
import { liftedIn, type PlantingTurn } from './plantingTurns.ts'
import { digsHere, stepOf, type Lift, type Problem, type SchemeToCarryOut, type Step } from './step.ts'
import { minutesOf } from './totals.ts'

/** What is taken out of the ground; what may not be lifted, or has no time for it, is named. */
export function liftsOf(scheme: SchemeToCarryOut, on: IsoDate): { lifts: Lift[]; problems: Problem[] } {
  const problems: Problem[] = []
  const lift = (planting: Planting, goes: Lift['goes'], fromPlace: string): Lift => {
    const lifted = { planting, goes, fromPlace, windows: [] }
    if (goes.to === 'gone') return lifted
    const found = moveWindows(planting.taxon, scheme.climate, on, scheme.lateDays)
    if (found.ok) return { ...lifted, windows: found.windows.map((w) => openFrom(w, on)) }
    const name = `${planting.tag} ${planting.taxon.botanical}`
    problems.push({
      about: planting.id,
      says:
        found.reason === 'resents-moving'
          ? `${name} resents moving: let it stay, or take it out for good.`
          : `${name} has no time here in which it can be lifted. ${found.why}`,
    })
    return lifted
  }
  const lifts = [
    ...scheme.leaving.map(({ planting, goes }) => lift(planting, goes, scheme.place.name)),
    ...scheme.fetched.map(({ planting, placeName }) => lift(planting, { to: 'here' }, placeName)),
  ]
  return { lifts, problems }
}

/** The key of the step after which what is lifted is out of the ground. */
export const liftedBy = ({ planting: { tag }, goes }: Lift): string =>
  `${tag}/${goes.to === 'spot' ? 'move' : goes.to === 'gone' || goes.to === 'give away' ? 'remove' : 'lift'}`

/**
 * The steps by which things leave their ground: moved, with each destination made ready once for all that comes to it in a season; lifted
 * to wait; or taken out.
 */
export function liftSteps(
  scheme: SchemeToCarryOut,
  lifts: readonly Lift[],
  turn: PlantingTurn | undefined,
  on: IsoDate,
): Step[] {
  const timed = lifts.map((lift) => ({ lift, window: liftedIn(lift.windows, turn) }))
  const moving = timed.flatMap(({ lift, window }): Moving[] =>
    lift.goes.to === 'spot' && window ? [{ lift, goes: lift.goes, window }] : [],
  )
  const together = group(
    moving,
    ({ goes, window }) => `${goes.place.id} ${window.season} ${window.earliest.slice(0, 4)}`,
  )
  return [
    ...[...together.values()].flatMap((of, i) => moveSteps(scheme, of, `${i + 1}`, on)),
    ...timed
      .filter(({ lift }) => !moving.some((m) => m.lift === lift))
      .flatMap(({ lift, window }) =>
        lift.goes.to === 'gone' || !window
          ? takenOut(scheme, lift, turn, on)
          : [lifted(scheme, lift, window)],
      ),
  ]
}

/** Something that goes to a spot of its own in a window. */
interface Moving {
  lift: Lift
  goes: Extract<Lift['goes'], { to: 'spot' }>
  window: Window
}

/** A destination is made ready no longer before the last of what comes to it. */
const READY_FOR_DAYS = 28

/** Moves to one place in one season: it is made ready once, each is moved by itself, and all are looked after together. */
function moveSteps(scheme: SchemeToCarryOut, moving: readonly Moving[], nth: string, on: IsoDate): Step[] {
  const { place } = moving[0]!.goes
  const planned = moving.flatMap(({ lift, goes, window }) => {
    const { taxon, livingCount: count } = lift.planting
    const request = {
      taxon,
      count,
      fromPlace: lift.fromPlace,
      toPlace: place.name,
      hazards: goes.hazards,
      toContainer: place.kind === 'container',
      schools: scheme.schools,
    }
    const found = moveJobs(request, scheme.climate, maxDay(on, window.earliest))
    return found.ok ? [{ lift, goes, prepare: found.jobs[0]!, move: found.jobs[1]! }] : []
  })
  if (planned.length === 0) return []
  const ofPlace = { placeId: place.id }
  const key = `make ready ${nth}`
  const moves = planned.map(({ lift, goes, move }) =>
    stepOf(scheme, {
      ...move,
      ...ofPlace,
      stage: 'make room',
      plantingId: lift.planting.id,
      key: liftedBy(lift),
      after: [{ key, leastDays: 0, mostDays: READY_FOR_DAYS }],
      target: { ...ofPlace, x: goes.x, y: goes.y },
    }),
  )
  // What is moved to one place is moved on one visit where that can be: the last to close stands for the rest.
  const last = moves.reduce((a, b) => (b.window.latest > a.window.latest ? b : a))
  const [one] = planned
  const looks = aftercareJobs(
    {
      of:
        planned.length === 1
          ? `${one!.lift.planting.taxon.botanical} in ${place.name}`
          : `what was moved to ${place.name}`,
      count: sum(planned, (p) => p.lift.planting.livingCount),
      minutesEach: MOVED_WATER_EACH,
      after: last.key,
      prefix: `moved ${nth}/`,
    },
    last.window.bestFrom,
  )
  const plantingIds = planned.map((p) => p.lift.planting.id)
  return [
    stepOf(scheme, { ...ofPlace, ...preparedFor(place.name, planned), stage: 'make room', key, plantingIds }),
    ...moves,
    ...looks.map((look) => stepOf(scheme, { ...look, ...ofPlace, stage: 'look after', plantingIds })),
  ]
}

/** One place made ready for several at once: in the window of the first that has to be moved. */
function preparedFor(placeName: string, planned: readonly { lift: Lift; prepare: JobDraft }[]): JobDraft {
  const first = planned.reduce((a, b) => (b.prepare.window.latest < a.prepare.window.latest ? b : a)).prepare
  if (planned.length === 1) return first
  const materials = group(
    planned.flatMap((p) => p.prepare.materials),
    (m) => m.name,
  )
  return {
    ...first,
    title: `Prepare ${placeName} for ${counted(planned.length, 'planting')}`,
    minutes: sum(planned, (p) => p.prepare.minutes),
    materials: [...materials.values()].map((of) => ({ ...of[0]!, amount: sum(of, (m) => m.amount) })),
    tools: [...new Set(planned.flatMap((p) => p.prepare.tools))],
    cautions: [...new Set(planned.flatMap((p) => p.prepare.cautions))],
    steps: [
      ...planned.map(
        ({ lift, prepare }) => `${lift.planting.taxon.botanical}: ${prepare.steps.slice(0, 2).join(' ')}`,
      ),
      ...new Set(planned.flatMap((p) => p.prepare.steps.slice(2))),
    ],
  }
}

function takenOut(scheme: SchemeToCarryOut, lift: Lift, turn: PlantingTurn | undefined, on: IsoDate): Step[] {
  const { planting, fromPlace } = lift
  const { taxon, livingCount: count } = planting
  const request = { ...scheme, taxon, count, place: fromPlace, placeKind: scheme.place.kind }
  const found = decidedJobs('remove', request, scheme.climate, on)
  return (found.ok ? found.jobs : []).map((job) =>
    stepOf(scheme, {
      ...job,
      stage: 'make room',
      plantingId: planting.id,
      key: liftedBy(lift),
      window: turn ? beforePlanting(turn, on, TAKEN_OUT_BEFORE_DAYS) : job.window,
    }),
  )
}
/** What is taken out is out so many days before planting closes. */
const TAKEN_OUT_BEFORE_DAYS = 21

function lifted(scheme: SchemeToCarryOut, lift: Lift, window: Window): Step {
  const { planting, goes, fromPlace, windows } = lift
  const { taxon, livingCount: count } = planting
  const given = goes.to === 'give away'
  const waits = goes.to === 'here' ? `for ${scheme.place.name}` : 'on the bench'
  return stepOf(scheme, {
    stage: 'make room',
    plantingId: planting.id,
    placeId: planting.placeId,
    key: liftedBy(lift),
    kind: given ? 'remove' : 'lift',
    title: `Lift ${taxon.botanical} from ${fromPlace}, to ${given ? 'be given away' : `wait ${waits}`}`,
    window,
    minutes: toFiveMinutes(10 + count * (isWoody(taxon) ? minutesOf.liftWoodyEach : minutesOf.liftEach)),
    materials: [{ name: 'water', amount: 5 * count, unit: 'l' }],
    tools: ['spade', 'two forks', 'pots or damp sacking', 'watering can'],
    cautions: [
      ...plantCautions(taxon),
      ...digsHere(scheme),
      'Lift with bent knees; two people for a heavy clump.',
    ],
    steps: [
      'Water the evening before if the soil is dry; choose a cool, overcast day.',
      ...stepsByRoot[rootKind(taxon)],
      given
        ? 'Pot it or wrap its roots damp, and see that it is fetched within days.'
        : 'Pot it, or heel it in side by side in shade with its roots covered; soak it, and keep it moist until it is planted.',
      'Keep its tag with it.',
    ],
    after: [],
    nextChance: windows.find((w) => w.earliest > window.latest)?.earliest ?? null,
    forbids: ['in flower', 'heat', 'frozen soil', 'sodden soil'],
    why:
      goes.to === 'here'
        ? `It is to stand in ${scheme.place.name}.`
        : 'It does not stay here, and the ground is to be empty before it is made ready.',
  })
}
