import type { IsoDate } from '../dates/index.ts'
import { asDisc, type Footprint, type Ring } from '../geometry/index.ts'
import type { Dating } from './dating.ts'
import { driftRadiusM, groundM2, type ColourWish, type Taxon } from '../plants/index.ts'

/** Where plants came from. */
export const plantingSources = ['bought', 'division', 'cutting', 'seed', 'self-sown', 'moved'] as const
export type PlantingSource = (typeof plantingSources)[number]

/** Plants of one taxon that stand together, where they stand on a day. */
export interface Planting {
  id: string
  tag: string
  taxon: Taxon
  /** The day they came to the garden, and how many they were. */
  plantedOn: IsoDate
  /** How well that day is known: where not to the day, it is one to reckon with. */
  plantedKnown: Dating
  plantedCount: number
  livingCount: number
  source: PlantingSource
  role: string | null
  /** The colour of flowers that somebody wishes for; null where nobody does. */
  colourWish: ColourWish | null
  /** Tag of the planting it was divided, struck or moved from. */
  fromTag: string | null
  placeId: string
  x: number
  y: number
  /** As somebody measured it; null where nobody did. */
  radiusM: number | null
  /** The drift as somebody drew it; null where nobody did. */
  outline: Ring | null
  /** Days in its present place begin here. */
  inPlaceSince: IsoDate
}

/** What the ground of a planting is told from. */
export type Grounded = Pick<Planting, 'x' | 'y' | 'radiusM' | 'livingCount' | 'taxon'> &
  Partial<Pick<Planting, 'outline'>>

/** The ground a planting stands on: as drawn, as measured, else the round that so many fill at their spacing. */
export const groundOf = (p: Grounded): Footprint =>
  p.outline
    ? { ring: p.outline }
    : { x: p.x, y: p.y, radiusM: p.radiusM ?? driftRadiusM(p.livingCount, p.taxon.spacingM) }

/** Ground that a planting keeps by how many live and how far apart they stand, square metres. */
export const plantingM2 = ({ livingCount, taxon }: Pick<Planting, 'livingCount' | 'taxon'>): number =>
  groundM2(livingCount, taxon.spacingM)

/** Radius of a planting's ground taken as a round, metres. */
export const groundRadiusM = (p: Grounded): number => asDisc(groundOf(p)).radiusM

/** Ground that is taken or promised. */
export interface TakenGround {
  plantingId: string
  placeId: string
  ground: Footprint
}

/** The ground of a planting, as others must keep off it. */
export const groundTakenBy = (p: Grounded & Pick<Planting, 'id' | 'placeId'>): TakenGround => ({
  plantingId: p.id,
  placeId: p.placeId,
  ground: groundOf(p),
})

/** Where a planting stood, as a lifeline `[from, to)`. */
export interface PlantingSite {
  id: string
  placeId: string
  from: IsoDate
  to: IsoDate | null
}
