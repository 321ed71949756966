/** A kind of plant and what the rules read of it. */
export interface Taxon {
  /** Accepted botanical name, with the cultivar in single quotes where there is one. */
  botanical: string
  common: string
  lifeForm: LifeForm
  /** Drawing and texture: how the plant carries itself. */
  habit: Habit
  heightM: number
  spreadM: number
  /** Usual distance between plants of a drift. */
  spacingM: number
  /** Hours of direct sun it likes on a clear day of the growing season. */
  lightMinHours: number
  lightMaxHours: number
  /** How it takes sun in the heat of the day, from 14:00 to 17:00 solar time. */
  hotAfternoon: 'suffers' | 'bears' | 'enjoys'
  /** 1 dry, 2 dryish, 3 fresh, 4 moist, 5 wet: the range it does well in. */
  moistureMin: Moisture
  moistureMax: Moisture
  /** Lowest winter temperature it usually survives in the ground, degrees Celsius. */
  hardyToC: number
  /** Usual bloom in the northern temperate year, `MM-DD`; absent for plants grown for leaf. */
  bloomFrom?: string | null
  bloomTo?: string | null
  moveWhen: MoveSeason
  moveEase: 'easy' | 'fair' | 'poor'
  foliageColour: string
  flowerColour?: string | null
  cautions: Caution[]
  /** How well the row's numbers are known. */
  sureness: 'well known' | 'usual' | 'rough'
}

export const lifeForms = [
  'perennial',
  'warm grass',
  'cool grass',
  'bulb',
  'fern',
  'deciduous shrub',
  'evergreen shrub',
  'climber',
  'small tree',
  'groundcover',
  'succulent',
  'annual',
  'tender perennial',
] as const
export type LifeForm = (typeof lifeForms)[number]

export const habits = [
  'clump',
  'mound',
  'upright',
  'spire',
  'grass',
  'fern',
  'shrub',
  'mat',
  'bulb',
  'climber',
] as const
export type Habit = (typeof habits)[number]

export const moistureWords = ['dry', 'dryish', 'fresh', 'moist', 'wet'] as const
export type Moisture = 1 | 2 | 3 | 4 | 5

/**
 * When a plant is moved:
 * - `after bloom`: once flowering and heat are over, while soil stays warm enough to root;
 * - `spring`: as growth shows;
 * - `either`: early autumn or spring;
 * - `dormant`: between leaf fall and bud break;
 * - `died down`: when a bulb's leaves have gone;
 * - `after frost`: tender plants, in warm soil;
 * - `never`: resents it; start again from a cutting, seed or a young plant.
 */
export const moveSeasons = [
  'after bloom',
  'spring',
  'either',
  'dormant',
  'died down',
  'after frost',
  'never',
] as const
export type MoveSeason = (typeof moveSeasons)[number]

export const cautionKinds = ['sap', 'poison', 'thorns', 'heavy', 'invasive'] as const
export type Caution = (typeof cautionKinds)[number]

/** True where a day of the year lies in the taxon's usual bloom; dates turn by half a year in the south. */
export function bloomsOn(taxon: Pick<Taxon, 'bloomFrom' | 'bloomTo'>, monthDay: string): boolean {
  const { bloomFrom, bloomTo } = taxon
  if (!bloomFrom || !bloomTo) return false
  return bloomFrom <= bloomTo
    ? bloomFrom <= monthDay && monthDay <= bloomTo
    : monthDay >= bloomFrom || monthDay <= bloomTo
}

/** Ground that n plants at a spacing cover, square metres: each takes 0.866 s^2 in a triangular grid. */
export const groundM2 = (count: number, spacingM: number): number => count * 0.866 * spacingM ** 2

/** Radius of the round drift that n plants at a spacing fill, metres. */
export function driftRadiusM(count: number, spacingM: number): number {
  return Math.sqrt(groundM2(Math.max(1, count), spacingM) / Math.PI)
}

const woodyForms: readonly LifeForm[] = ['deciduous shrub', 'evergreen shrub', 'small tree', 'climber']
export const isWoody = (taxon: Pick<Taxon, 'lifeForm'>): boolean => woodyForms.includes(taxon.lifeForm)

/**
 * Steps of the moisture scale by which ground lies outside what a taxon likes: positive when it is too wet.
 *
 * @param moisture 1 dry to 5 wet; null where nobody has said, which counts as inside
 */
export function moistureSteps(
  taxon: Pick<Taxon, 'moistureMin' | 'moistureMax'>,
  moisture: number | null | undefined,
): number {
  if (moisture == null) return 0
  if (moisture > taxon.moistureMax) return moisture - taxon.moistureMax
  return moisture < taxon.moistureMin ? moisture - taxon.moistureMin : 0
}
