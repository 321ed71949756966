import {
  decidedJobs,
  moveJobs,
  moveWindows,
  openFrom,
  plantCautions,
  stepsByRoot,
  toFiveMinutes,
  type Window,
} from '../care/index.ts'
import { maxDay, type IsoDate } from '../dates/index.ts'
import type { Planting } from '../garden/index.ts'
import { isWoody, rootKind } from '../plants/index.ts'
import { beforePlanting } from './makingReady.ts'
import { liftedIn, type PlantingTurn } from './plantingTurns.ts'
import { diggingCautions, stepOf, type Lift, type Problem, type SchemeToCarryOut, type Step } from './step.ts'
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

/** The steps by which something leaves its ground: moved with its destination made ready first, lifted to wait, or taken out. */
export function liftSteps(
  scheme: SchemeToCarryOut,
  lift: Lift,
  turn: PlantingTurn | undefined,
  on: IsoDate,
): Step[] {
  const { goes } = lift
  const window = liftedIn(lift.windows, turn)
  if (goes.to === 'gone' || !window) return takenOut(scheme, lift, turn, on)
  return goes.to === 'spot'
    ? moved(scheme, lift, goes, maxDay(on, window.earliest))
    : [lifted(scheme, lift, window)]
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

function moved(
  scheme: SchemeToCarryOut,
  { planting, fromPlace }: Lift,
  { place, x, y, hazards }: Extract<Lift['goes'], { to: 'spot' }>,
  from: IsoDate,
): Step[] {
  const { taxon, livingCount: count, tag } = planting
  const toContainer = place.kind === 'container'
  const request = {
    taxon,
    count,
    fromPlace,
    toPlace: place.name,
    hazards,
    toContainer,
    schools: scheme.schools,
  }
  const planned = moveJobs(request, scheme.climate, from)
  return (planned.ok ? planned.jobs : []).map((job) =>
    stepOf(scheme, {
      ...job,
      stage: job.kind === 'aftercare' ? 'look after' : 'make room',
      plantingId: planting.id,
      key: `${tag}/${job.key}`,
      after: job.after.map((a) => ({ ...a, key: `${tag}/${a.key}` })),
      placeId: place.id,
      target: { placeId: place.id, x, y },
    }),
  )
}

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
      ...diggingCautions(scheme),
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
