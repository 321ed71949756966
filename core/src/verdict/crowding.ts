import { group } from 'd3-array'
import { daysBetween, type IsoDate } from '../dates/index.ts'
import { groundOf, type Planting } from '../garden/index.ts'
import { footprintAreaM2, grown, sharedAreaM2, type Footprint } from '../geometry/index.ts'
import { onceFor, onceForEach } from '../once/index.ts'
import { bloomsOn, type Taxon } from '../plants/index.ts'

/** How much of a planting's ground a stronger neighbour has grown over. */
export interface Crowding {
  plantingId: string
  botanical: string
  /** 0 to 1. */
  share: number
}

/** The drift with its outer plants grown out to their spread, in proportion to the years since it came to its place. */
export function grownGround(p: Planting, on: IsoDate): Footprint {
  const { spreadM, spacingM, yearsToSize } = p.taxon
  const age = Math.min(1, Math.max(0, daysBetween(p.inPlaceSince, on) / 365 / yearsToSize))
  return grown(groundOf(p), (age * Math.max(0, spreadM - spacingM)) / 2)
}

/** A neighbour below this share of a planting's height grows under it and takes no light. */
const AS_TALL = 0.8
/** Shares below this are drifts that interlock, as they should. */
const LEAST_SHARE = 0.15

const vigours = ['slow', 'steady', 'strong', 'thug']
/** What has its growth above others leaves them their ground: its shade is told by the light, and its roots by the tree on the plan. */
const growsAbove = ({ lifeForm }: Taxon) => lifeForm === 'climber' || lifeForm === 'small tree'
const isStronger = (a: Taxon, b: Taxon) =>
  !growsAbove(a) &&
  a.heightM >= AS_TALL * b.heightM &&
  (a.heightM > b.heightM * 1.2 || vigours.indexOf(a.vigour) > vigours.indexOf(b.vigour))

const byPlace = onceFor((plantings: readonly Planting[]) => group(plantings, (p) => p.placeId))
/** Asked for by every neighbour. */
const grownOn = onceForEach(grownGround)

/** The stronger neighbours that have grown over a planting, most first. */
export function crowdingOf(p: Planting, others: readonly Planting[], on: IsoDate): Crowding[] {
  const own = groundOf(p)
  const ownM2 = footprintAreaM2(own)
  return (byPlace(others).get(p.placeId) ?? [])
    .filter((o) => o.id !== p.id && isStronger(o.taxon, p.taxon))
    .map((o) => ({
      plantingId: o.id,
      botanical: o.taxon.botanical,
      share: sharedAreaM2(own, grownOn(o, on)) / ownM2,
    }))
    .filter((c) => c.share >= LEAST_SHARE)
    .sort((a, b) => b.share - a.share)
}

const WEEKS = Array.from({ length: 52 }, (_, w) =>
  new Date(Date.UTC(2023, 0, 4 + 7 * w)).toISOString().slice(5, 10),
)

/** Whether a kind flowers in each week of the usual year. */
const flowersInWeeks = onceFor((taxon: Taxon) => WEEKS.map((day) => bloomsOn(taxon, day)))
/** How many plantings of each place flower in each week of the usual year. */
const flowering = onceFor(
  (plantings: readonly Planting[]) =>
    new Map(
      [...byPlace(plantings)].map(([placeId, here]) => {
        const weeks = here.map((p) => flowersInWeeks(p.taxon))
        return [placeId, WEEKS.map((_, w) => weeks.filter((flowers) => flowers[w]).length)]
      }),
    ),
)

/**
 * Weeks of the usual year in which a planting is the only one of its place in flower.
 *
 * @param plantings of the garden, it among them
 */
export function weeksAlone(p: Planting, plantings: readonly Planting[]): number {
  const here = flowering(plantings).get(p.placeId) ?? []
  return flowersInWeeks(p.taxon).filter((flowers, w) => flowers && here[w] === 1).length
}
