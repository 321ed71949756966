import {
  addDays,
  climateOf,
  daysBetween,
  earlinessOf,
  isSettling,
  lightFit,
  likelihoods,
  moistureSteps,
  placeOf,
  sceneOf,
  seasonInPlace,
  seededRandom,
  signs,
  stageOfPhase,
  sunHours,
  susceptibility,
  usualState,
  yearAt,
  type BloomStage,
  type DailyWeather,
  type IsoDate,
  type LightFit,
  type Plan,
  type PlanFeature,
  type Random,
  type SignCause,
  type SiteCause,
  type SignId,
  type Taxon,
  type UsualState,
} from '@border/core'
import type { SketchGarden } from './sketch.ts'
import { DEMO_DATE } from './town.ts'

/** A planting whose seasons are to be made up. */
export interface Grown {
  tag: string
  taxon: Taxon
  count: number
  plantedOn: IsoDate
  place: string
  x: number
  y: number
  z: number
}

/** One look at a planting on a walk. */
export interface Look {
  tag: string
  on: IsoDate
  rating: number | undefined
  living: number | undefined
  absent: boolean
  stage: BloomStage | undefined
  signs: SignId[]
}

/** One look at a place on a walk. */
export interface PlaceLook {
  place: string
  on: IsoDate
  weeds: 'none' | 'some' | 'many'
  mulch: 'good' | 'thin' | 'none'
  soil: 'dry' | 'moist' | 'wet'
  holesM: number[]
  goodTogether?: string
}

/** What a cut puts bloom off by. */
const CUT_DELAY_DAYS = 18
const FIRST_SEASON = 2022
const LAST_SEASON = 2026
/** Middle days of the walks of a season. */
const WALKS = ['04-26', '06-08', '07-19', '09-04'] as const
/** One in this many walks finds a planting that is known to be there, and passes it over. */
const PASSED_OVER = 0.12

/** The days a garden was walked. */
export function walkDays(sketch: SketchGarden): IsoDate[] {
  const random = seededRandom(sketch.seed * 31)
  const days: IsoDate[] = []
  for (let year = FIRST_SEASON; year <= LAST_SEASON; year++)
    for (const walk of WALKS) {
      const on = addDays(`${year}-${walk}`, Math.floor(random() * 9) - 4)
      if (on < DEMO_DATE) days.push(on)
    }
  return days
}

/**
 * Five seasons of walks. How a plant does follows from the light it really had, so that the record, the signs and the
 * plan tell one story: from a good 4.3 it loses 0.75 for each hour of misfit, a first season costs one, looks in its time
 * of rest find it poor, a season gives or takes a little everywhere, and chance does the rest; plants of a drift die when
 * misfit goes beyond two hours. Signs follow the likelihood table, drawn by chance. Same seed, same history.
 */
export function looksOf(
  sketch: SketchGarden,
  plan: Plan,
  grown: readonly Grown[],
  weather: readonly DailyWeather[],
): Look[] {
  const random = seededRandom(sketch.seed * 977)
  const climate = climateOf(weather, sketch.latitude)
  const shift = climate.ok ? yearAt(climate.climate).shift : undefined
  const scene = sceneOf(plan.garden, trulyStanding(sketch, plan))
  const living = new Map(grown.map((g) => [g.tag, g.count]))
  const moisture = new Map(
    plan.features.map((f) => [f.name, placeOf({ ...f, id: f.name })?.moisture ?? null]),
  )
  const own = new Map(grown.map((g) => [g.tag, 0.8 * (random() - 0.5)]))
  const seasonGave = new Map<number, number>()
  const lateIn = new Map<number, number>()
  for (let y = FIRST_SEASON; y <= LAST_SEASON; y++) {
    seasonGave.set(y, 0.8 * (random() - 0.55))
    lateIn.set(y, earlinessOf(weather, sketch.latitude, `${y}-06-30`)?.lateDays ?? 0)
  }
  const looks: Look[] = []
  for (const on of walkDays(sketch)) {
    const year = Number(on.slice(0, 4))
    const hours = sunHours(scene, grown, { kind: 'season', on })
    const lateDays = lateIn.get(year)!
    grown.forEach((g, i) => {
      const chance = random()
      const passedOver = random() < PASSED_OVER
      if (daysBetween(g.plantedOn, on) < 25) return
      const cut = sketch.treatments.some((t) => t.tag === g.tag && t.on < on && t.on.startsWith(String(year)))
      const usual = usualState(g.taxon, on, {
        lateDays: lateDays + Math.round(8 * (chance - 0.5)) + (cut ? CUT_DELAY_DAYS : 0),
        south: false,
        shift,
      })
      const fit = lightFit(g.taxon, hours[i]!)
      const before = living.get(g.tag)!
      const dies = fit.misfitHours > 2 && before > 1 && chance < 0.1 && !usual.resting
      const now = dies ? before - 1 : before
      living.set(g.tag, now)
      // Nobody looks for what is underground; a planting nobody noted on a walk is one in eight.
      if (usual.phase === 'underground' || passedOver) return
      const settling = isSettling(g.taxon, g.plantedOn, on, false)
      const unnoticed = sketch.unnoticed.find((u) => u.place === g.place && u.from <= on)?.cause
      const minds = unnoticed ? Math.min(1, susceptibility(g.taxon, unnoticed)) : 0
      const rating = Math.round(
        4.3 +
          own.get(g.tag)! +
          seasonGave.get(year)! -
          0.75 * fit.misfitHours -
          (settling ? 0.8 : 0) -
          1.3 * minds -
          (usual.resting ? 1.4 : 0) +
          1.2 * (random() - 0.5),
      )
      looks.push({
        tag: g.tag,
        on,
        rating: Math.max(1, Math.min(5, rating)),
        living: now,
        absent: false,
        stage: g.taxon.bloomFrom ? stageOfPhase[usual.phase] : undefined,
        signs: signsShown(random, {
          g,
          fit,
          usual,
          settling,
          moisture: moisture.get(g.place) ?? null,
          unnoticed,
          on,
        }),
      })
    })
  }
  return looks
}

/** A planting as a walk found it, and what is truly the matter. */
interface Found {
  g: Grown
  fit: LightFit
  usual: UsualState
  settling: boolean
  moisture: number | null
  unnoticed: SiteCause | undefined
  on: IsoDate
}

/** Signs by chance from what is truly the matter: each cause's share of the table, as far as it is at work. */
function signsShown(random: Random, found: Found): SignId[] {
  const { g, fit, usual, settling, moisture, unnoticed, on } = found
  const { taxon } = g
  const over = Math.max(0, fit.hoursOutside) + (fit.scorched ? 1 : 0)
  const steps = moistureSteps(taxon, moisture)
  const work: Partial<Record<SignCause, number>> = {
    'more sun': Math.min(1, over / 2),
    'less sun': Math.min(1, Math.max(0, -fit.hoursOutside) / 2),
    wetter: 0.5 * Math.max(0, steps),
    drier: 0.5 * Math.max(0, -steps),
    'its season': usual.resting ? 0.7 : 0,
    'settling in': settling ? 0.6 : 0,
    'age or crowding': seasonInPlace(g.plantedOn, on, false) >= 6 && taxon.lifeForm === 'perennial' ? 0.3 : 0,
  }
  if (unnoticed) work[unnoticed] = 1
  return signs
    .filter(({ id, usual: rate }) => {
      let clear = 1 - 0.4 * rate
      for (const r of likelihoods) {
        if (r.sign !== id) continue
        const minds = susceptibility(taxon, r.cause)
        clear *= 1 - Math.min(0.9, 0.75 * r.share * minds) * (work[r.cause] ?? 0)
      }
      return random() < (1 - clear) * (usual.phase === 'emerging' ? 0.3 : 1)
    })
    .map((s) => s.id)
}

const combinations = [
  'The grasses with the late daisies, evening light behind them.',
  'Silver leaves under the purple spires.',
  'Fern fronds through the cranesbills.',
  'Dark leaves against the pale wall.',
]

/** What was noted of the places themselves. */
export function placeLooksOf(sketch: SketchGarden): PlaceLook[] {
  const random = seededRandom(sketch.seed * 463)
  const pick = <T>(of: readonly T[]) => of[Math.floor(random() * of.length)]!
  return walkDays(sketch)
    .filter((on) => on >= `${LAST_SEASON - 1}-01-01`)
    .flatMap((on) =>
      Object.keys(sketch.plantings).map((place) => ({
        place,
        on,
        weeds: pick(['none', 'none', 'some', 'some', 'many'] as const),
        mulch: pick(['good', 'good', 'thin', 'thin', 'none'] as const),
        soil:
          on.slice(5) > '07-01'
            ? pick(['dry', 'dry', 'moist'] as const)
            : pick(['moist', 'moist', 'wet'] as const),
        holesM: random() < 0.2 ? [Math.round(4 + 6 * random()) / 10] : [],
        ...(random() < 0.25 ? { goodTogether: pick(combinations) } : {}),
      })),
    )
    .filter((l) => {
      const from = sketch.features.find((f) => f.properties.name === l.place)?.properties.from
      return typeof from !== 'string' || from <= l.on
    })
}

/** What really stands: the plan and what nobody has put on it. */
export function trulyStanding(sketch: SketchGarden, plan: Plan): (PlanFeature & { id: string })[] {
  return plan.features.map((f, i) => {
    const events = sketch.unrecorded.filter((u) => u.feature === f.name).map((u) => u.event)
    const known = (f.properties.events as object[] | undefined) ?? []
    return { ...f, id: String(i), properties: { ...f.properties, events: [...known, ...events] } }
  })
}
