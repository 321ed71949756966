import {
  backdropOf,
  EYE_M,
  fillersOfScheme,
  GROWTH_YEARS,
  nearBehind,
  paintPlan,
  paperMm,
  placeOutline,
  planOnPaper,
  plantsOfScheme,
  seenAlone,
  supportsOn,
  svgPainter,
  type Beyond,
  type Feature,
  type Paper,
  type StandingPlant,
} from '@border/core'
import { awayOf, drawnScheme, viewOf, type SchemeMoment, type SchemeToDraw } from '../paper/drawnScheme.ts'

// What is drawn for paper on the compute threads.

export { schemePdf } from '../paper/schemeSheets.ts'

/** Printers leave an edge of a sheet white, millimetres. */
const EDGE_MM = 10

/** The plan of a scheme, to a scale of rulers, as SVG. */
export function schemePlanSvg({ task, paper }: { task: SchemeToDraw; paper: Paper }): string {
  const drawn = drawnScheme(task)
  const [width, height] = paperMm[paper].map((mm) => mm - 2 * EDGE_MM) as [number, number]
  const on = planOnPaper(placeOutline(task.ground.of.place), width, height)
  const { painter, written } = svgPainter(
    { width, height: on.heightMm, wide: `${width}mm`, high: `${on.heightMm}mm` },
    `${task.place}: ${task.scheme}, 1 : ${on.scale}`,
  )
  paintPlan(painter, drawn, on)
  return written()
}

/** Pixels of a view as SVG. */
const VIEW_PX = [1600, 640] as const

/** A scheme as it is seen from its first side, or another, as SVG. */
export function schemeViewSvg({
  task,
  moment,
  side,
}: {
  task: SchemeToDraw
  moment: SchemeMoment
  side: number
}): string {
  const seen = viewOf(task, drawnScheme(task), moment, side)
  const [width, most] = VIEW_PX
  const frame = seen.framed(width, most)
  const { painter, written } = svgPainter(frame, seen.title)
  seen.paint(painter, frame)
  return written()
}

/** What a scheme is drawn from where it is looked at: every plant of it, the annuals of each year of growth, and what stands about it. */
export interface LookedAt {
  plants: StandingPlant[]
  fillers: { years: number; plants: StandingPlant[] }[]
  behind: Feature[]
  beyond: Beyond
}

export function schemePlants(task: SchemeToDraw): LookedAt {
  const { ground, today, features, beyond } = task
  const outline = placeOutline(ground.of.place)
  const standpoints = ground.viewedFrom.map((fromDeg) => ({ fromDeg, awayM: awayOf(task), eyeM: EYE_M }))
  const drawn = drawnScheme(task)
  const plants = plantsOfScheme(drawn, today)
  const near = nearBehind(outline, standpoints, beyond)
  const isSeen = (f: Feature) => {
    if (standpoints.some((s) => backdropOf(outline, [f], s, today).length > 0)) return true
    // What climbs is drawn on it.
    const supportOf = supportsOn([f], today)
    return [...plants, ...near.plants].some((p) => supportOf(p) !== undefined)
  }
  return {
    plants,
    fillers: GROWTH_YEARS.map((years) => ({ years, plants: fillersOfScheme(drawn, plants, years) })),
    behind: features.filter(isSeen).map(seenAlone),
    beyond: near,
  }
}
