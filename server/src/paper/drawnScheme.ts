import {
  arrangementFrom,
  backdropOf,
  dayMonth,
  EYE_M,
  fillersOfScheme,
  framing,
  frontView,
  inFullGrowth,
  isWinterAt,
  paintGround,
  paintPlants,
  placeOutline,
  plantsOfScheme,
  pocketsOfScheme,
  tallestM,
  USUAL_AWAY_M,
  type BedGround,
  type Beyond,
  type DrawnScheme,
  type Feature,
  type IsoDate,
  type Painter,
  type Point,
  type SaidForPaper,
  type Taxon,
  type Year,
} from '@border/core'

/** A scheme with all that its drawings are made from. */
export interface SchemeToDraw {
  garden: string
  place: string
  scheme: string
  /** The garden's own day. */
  today: IsoDate
  northDeg: number
  year: Year
  ground: BedGround
  said: SaidForPaper & { baseLine: readonly [Point, Point] | null; seenFromM: number | null }
  /** The kinds that it names, as far as they are known. */
  taxa: readonly Taxon[]
  features: readonly Feature[]
  /** What stands in the other places of the garden. */
  beyond: Beyond
}

/** When it is looked at. */
export interface SchemeMoment {
  on: IsoDate
  /** Since it was planted. */
  years: number
}

/** A scheme as it lies in the ground. */
export function drawnScheme({ ground, said, taxa, northDeg }: SchemeToDraw): DrawnScheme {
  const kindOf = new Map(taxa.map((t) => [t.botanical, t]))
  const arranged = arrangementFrom(ground, said.drifts, kindOf)
  return {
    ground,
    arranged,
    pockets: pocketsOfScheme(ground, arranged, said, kindOf),
    stones: said.stones ?? [],
    drifts: said.drifts,
    between: said.between,
    filler: said.filler,
    kindOf,
    northDeg,
  }
}

/** From so far it is looked at, metres. */
export const awayOf = ({ said }: SchemeToDraw): number => said.seenFromM ?? USUAL_AWAY_M

/** A scheme from the path, to be painted. */
export function viewOf(task: SchemeToDraw, drawn: DrawnScheme, { on, years }: SchemeMoment, side: number) {
  const { ground, year, today, features, beyond } = task
  const outline = placeOutline(ground.of.place)
  const stands = plantsOfScheme(drawn, today)
  const plants = [...stands, ...fillersOfScheme(drawn, stands, years)]
  const fromDeg = ground.viewedFrom[side] ?? ground.viewedFrom[0] ?? 180
  const standpoint = { fromDeg, awayM: awayOf(task), eyeM: EYE_M }
  const fullGrowth = { on: inFullGrowth(year), year, years }
  const tallest = frontView(outline, plants, standpoint, fullGrowth, { features })
  const view = frontView(outline, plants, standpoint, { on, year, years }, { features, beyond })
  const backdrop = backdropOf(outline, features, standpoint, on)
  const isWinter = isWinterAt(on, year)
  return {
    title: `${task.place} from the path, week of ${dayMonth(on)}, ${years === 1 ? 'a year' : `${years} years`} after planting`,
    /** As wide as there is room, and no higher than it needs. */
    framed: (width: number, most: number) => {
      const frame = framing(tallest, backdrop, width, most, 1, true)
      const high = Math.ceil(Math.min(most, most - frame.y(tallestM(tallest)) + SKY_M * frame.pxPerM))
      return framing(tallest, backdrop, width, high, 1, true)
    },
    paint: (painter: Painter, frame: ReturnType<typeof framing>) => {
      paintGround(painter, view.ground, backdrop, frame, isWinter)
      paintPlants(painter, view, frame)
    },
  }
}

/** So much of the sky is seen over what is tallest, metres. */
const SKY_M = 0.5
