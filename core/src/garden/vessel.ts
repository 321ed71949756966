import { featureDefaults, type PlanFeature, type PotShape, type StandsOn } from './feature.ts'
import { materialOf, reckonedAs, type PotMaterial } from './material.ts'

/** A container as it is worked with: inner sizes in metres, what it is made of and how it stands. */
export interface Vessel {
  shape: PotShape
  /** Across its opening, inside: along and across; alike where it is round. */
  lengthM: number
  widthM: number
  /** The same at its floor; only a box, a trough, a tapered and a half round pot have one. */
  footLengthM: number
  footWidthM: number
  /** From the rim to the floor, inside. */
  depthM: number
  /** From the rim down to where the mix is to end, so that water does not run off. */
  rimGapM: number
  wallM: number
  /** Undefined where nobody has said one that is known: then it is reckoned as fired clay. */
  material: PotMaterial | undefined
  /** The rim above the ground it stands over. */
  rimHeightM: number
  /** Undefined where nobody has said. */
  holes: number | undefined
  feet: boolean | undefined
  saucer: boolean | undefined
  /** Water that it keeps below the mix, litres. */
  reservoirL: number
  standsOn: StandsOn | undefined
  /** What of this was taken for so, because nobody has said it. */
  assumed: readonly ('size' | 'depth' | 'foot' | 'wall' | 'material')[]
}

/** Across a pot of which the plan says no size: a usual garden pot. */
const USUAL_POT_M = 0.4

/** The opening of a container, inside: along and across, alike where it is round. */
export interface PotOpening {
  shape: PotShape
  lengthM: number
  widthM: number
  /** Whether its sides are straight: a box or a trough. */
  isBox: boolean
  /** Whether the plan says a size of it at all. */
  isSaid: boolean
}

export function openingOf({ properties }: Pick<PlanFeature, 'properties'>): PotOpening {
  const { shape, diameterM, widthM, lengthM } = { ...featureDefaults.container, ...properties } as {
    shape: PotShape
    diameterM?: number
    widthM?: number
    lengthM?: number
  }
  const isBox = diameterM === undefined && (shape === 'box' || shape === 'trough')
  const isSaid = [diameterM, widthM, lengthM].some((m) => m !== undefined)
  if (isBox) {
    const [width, length] = [widthM ?? lengthM ?? USUAL_POT_M, lengthM ?? widthM ?? USUAL_POT_M]
    return { shape, lengthM: Math.max(width, length), widthM: Math.min(width, length), isBox, isSaid }
  }
  const across = diameterM ?? Math.min(widthM ?? USUAL_POT_M, lengthM ?? USUAL_POT_M)
  return { shape, lengthM: across, widthM: across, isBox, isSaid }
}

/** The foot of a pot that tapers is so much of its opening: usual of flower pots. */
const TAPER = 0.7
/** Room for water below the rim: two to three centimetres; of a shallow pot less. */
const RIM_GAP_M = 0.025
const MOST_RIM_SHARE = 0.15
/** Feet lift a pot by so much. */
const FEET_M = 0.025
/** No pot is shallower, metres: whatever its rim and what it stands on are said to be. */
const SHALLOWEST_M = 0.05

interface Said {
  shape: PotShape
  footM?: number
  depthM?: number
  wallM?: number
  rimHeightM: number
  standsM?: number
  material?: string
  holes?: number
  feet?: boolean
  saucer?: boolean
  reservoirL?: number
  standsOn?: StandsOn
}

/** The container of a feature of the plan, with what nobody has said taken for usual, and named as such. */
export function vesselOf({ properties }: Pick<PlanFeature, 'properties'>): Vessel {
  const said = { ...featureDefaults.container, ...properties } as Said
  const { lengthM, widthM, isSaid } = openingOf({ properties })
  const material = materialOf(said.material)
  const wall = reckonedAs(material)
  const wallM = said.wallM ?? wall.wallM + wall.wallPerM * Math.min(lengthM, widthM)
  const depthM = Math.max(
    SHALLOWEST_M,
    said.depthM ?? said.rimHeightM - (said.standsM ?? 0) - (said.feet ? FEET_M : 0) - wallM,
  )
  const tapers = said.shape === 'tapered' || said.shape === 'trough'
  const foot = said.footM ?? (tapers ? TAPER * widthM : widthM)
  const narrower = widthM - foot
  return {
    shape: said.shape,
    lengthM,
    widthM,
    footLengthM: Math.max(0.01, lengthM - narrower),
    footWidthM: Math.max(0.01, foot),
    depthM,
    rimGapM: Math.min(RIM_GAP_M, MOST_RIM_SHARE * depthM),
    wallM,
    material,
    rimHeightM: said.rimHeightM,
    holes: said.holes,
    feet: said.feet,
    saucer: said.saucer,
    reservoirL: said.reservoirL ?? 0,
    standsOn: said.standsOn,
    assumed: [
      ...(isSaid ? [] : (['size'] as const)),
      ...(said.depthM === undefined ? (['depth'] as const) : []),
      ...(tapers && said.footM === undefined ? (['foot'] as const) : []),
      ...(said.wallM === undefined ? (['wall'] as const) : []),
      ...(material === undefined ? (['material'] as const) : []),
    ],
  }
}

/** Shapes with corners; the others are round. */
export const hasCorners = ({ shape }: Pick<Vessel, 'shape'>): boolean => shape === 'box' || shape === 'trough'

/** Shapes whose floor is rounded. */
export const isRounded = ({ shape }: Pick<Vessel, 'shape'>): boolean =>
  shape === 'bowl' || shape === 'hanging'
