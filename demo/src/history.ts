import {
  addDays,
  bloomsOn,
  daysBetween,
  lightFit,
  sceneOf,
  seededRandom,
  sunHours,
  type IsoDate,
  type Plan,
  type PlanFeature,
  type Taxon,
} from '@border/core'
import type { SketchGarden } from './sketch.ts'
import { DEMO_DATE } from './town.ts'

/** A planting whose seasons are to be made up. */
export interface Grown {
  tag: string
  taxon: Taxon
  count: number
  plantedOn: IsoDate
  x: number
  y: number
  z: number
}

/** One look at a planting on a walk. */
export interface Look {
  tag: string
  on: IsoDate
  living: number
  says: string
}

const FIRST_SEASON = 2022
const LAST_SEASON = 2026
/** Middle days of the two walks of a season. */
const WALKS = ['06-08', '09-04'] as const

/**
 * Five seasons of walks. How a plant does follows from the light it really had, so that the record and the plan tell
 * one story: from a good 4.3 it loses 0.75 for each hour of misfit, a first season costs one, and chance does the
 * rest; plants of a drift die when misfit goes beyond two hours. Same seed, same history.
 */
export function looksOf(sketch: SketchGarden, plan: Plan, grown: readonly Grown[]): Look[] {
  const random = seededRandom(sketch.seed * 977)
  const scene = sceneOf(plan.garden, trulyStanding(sketch, plan))
  const living = new Map(grown.map((g) => [g.tag, g.count]))
  const looks: Look[] = []
  for (let year = FIRST_SEASON; year <= LAST_SEASON; year++)
    for (const walk of WALKS) {
      const day = `${year}-${walk}`
      const hours = sunHours(scene, grown, { kind: 'season', on: day })
      grown.forEach((g, i) => {
        const on = addDays(day, Math.floor(random() * 9) - 4)
        const chance = random()
        if (daysBetween(g.plantedOn, on) < 30 || on > DEMO_DATE) return
        const misfit = lightFit(g.taxon, hours[i]!).misfitHours
        const first = daysBetween(g.plantedOn, on) < 365
        const score = Math.max(
          1,
          Math.min(5, Math.round(4.3 - 0.75 * misfit - (first ? 1 : 0) + (chance - 0.5))),
        )
        const before = living.get(g.tag)!
        const now = misfit > 2 && before > 1 && chance < 0.2 ? before - 1 : before
        living.set(g.tag, now)
        looks.push({ tag: g.tag, on, living: now, says: lookWords(g, on, score, now) })
      })
    }
  return looks
}

function lookWords(g: Grown, on: IsoDate, score: number, living: number): string {
  const word = ['failing', 'poor', 'fair', 'good', 'very good'][score - 1]
  const bloom = bloomsOn(g.taxon, on.slice(5)) ? (score >= 3 ? ', in bloom' : ', few flowers') : ''
  const count = g.count > 1 ? ` ${living} of ${g.count} living.` : ''
  return `On the walk: ${score} of 5, ${word}${bloom}.${count}`
}

/** What really stands: the plan and what nobody has put on it. */
export function trulyStanding(sketch: SketchGarden, plan: Plan): (PlanFeature & { id: string })[] {
  return plan.features.map((f, i) => {
    const events = sketch.unrecorded.filter((u) => u.feature === f.name).map((u) => u.event)
    const known = (f.properties.events as object[] | undefined) ?? []
    return { ...f, id: String(i), properties: { ...f.properties, events: [...known, ...events] } }
  })
}
