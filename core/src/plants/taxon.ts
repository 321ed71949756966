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
  /** Where a first flush ends and a cut brings the next, `MM-DD`; absent where its flowers come in one flush or without a break. */
  firstFlushTo?: string | null
  /**
   * What its bloom hangs on: warmth gathered since midwinter, the shortening or lengthening day, or, for tender plants,
   * the time between frosts.
   */
  bloomsBy: 'warmth' | 'day length' | 'frost-free'
  /** Whether more flowers follow the first flush, and what brings them. */
  repeats: 'no' | 'when cut back' | 'when deadheaded' | 'by itself'
  moveWhen: MoveSeason
  moveEase: 'easy' | 'fair' | 'poor'
  /** Years between divisions, usual least and most; null for plants that are never divided. */
  divideYears: readonly [least: number, most: number] | null
  divideHow: DivideHow | null
  /** Woody plants: the wood that carries the flowers. */
  flowersOn: 'old wood' | 'new wood' | 'both' | null
  pruning: Pruning | null
  /** Breaks again from old wood or the base after a hard cut. */
  bearsHardCut: boolean
  cutBack: CutBack
  /** Height that growth is cut back to, metres above ground. */
  cutToM: number
  /** Stems or seed heads worth leaving through winter, for looks, birds and insects. */
  standsWinter: boolean
  /** May be cut by half in early summer to flower later on shorter stems. */
  halves: boolean
  selfSeeds: 'no' | 'some' | 'freely'
  vigour: 'slow' | 'steady' | 'strong' | 'thug'
  wind: 'bears' | 'staked' | 'sheltered'
  feed: 'none' | 'light' | 'heavy'
  /** False where mulch over the crown rots it. */
  mulchAtCrown: boolean
  phMin: number
  phMax: number
  /** Years from a usual nursery plant to about full size. */
  yearsToSize: number
  /** When an annual or biennial earns its place: the cool or the warm part of the year. */
  annualSeason: 'cool' | 'warm' | null
  /** Calendar of the usual northern year where it differs from that of its life form, `MM-DD`. */
  shows?: readonly [from: string, latest: string]
  fades?: readonly [from: string, gone: string]
  rests?: readonly [from: string, to: string]
  winter?: 'underground' | 'bare' | 'winter green'
  troubles: Trouble[]
  texture: 'fine' | 'medium' | 'bold'
  scented: boolean
  wildlife: Wildlife[]
  foliageColour: string
  flowerColour?: string | null
  cautions: Caution[]
  synonyms: string[]
  /** How well the row's numbers are known. */
  sureness: 'well known' | 'usual' | 'rough'
}

/** How a clump comes apart. */
export const divideHows = ['pull apart', 'cut', 'saw', 'rhizome', 'offsets'] as const
export type DivideHow = (typeof divideHows)[number]

/**
 * How a woody plant is pruned:
 * - `after bloom`: flowered stems out straight after flowering;
 * - `late winter`: to a framework or the ground before growth starts;
 * - `stool`: all stems to the base in early spring, for bark or leaf;
 * - `shear`: clipped over after flowering or twice a summer, never into bare wood;
 * - `spur`: side shoots shortened in summer and again in winter;
 * - `lightly`: shape, dead and crossing wood only;
 * - `hardly`: best left alone;
 * - `midsummer`: only in full leaf, because cuts bleed or let in disease earlier.
 */
export const prunings = [
  'after bloom',
  'late winter',
  'stool',
  'shear',
  'spur',
  'lightly',
  'hardly',
  'midsummer',
] as const
export type Pruning = (typeof prunings)[number]

/**
 * What happens to a plant's growth once a year:
 * - `herbaceous`: dead stems to the ground, in autumn or late winter by school;
 * - `warm grass`: cut before new green comes through;
 * - `comb`: dead blades combed out, never cut hard;
 * - `old leaves`: last year's leaves off before the new flowers or fronds;
 * - `shear`: low growth clipped over after bloom;
 * - `after frost`: tender growth taken down when frost has blackened it;
 * - `leave`: foliage left until it has died down of itself;
 * - `none`.
 */
export const cutBacks = [
  'herbaceous',
  'warm grass',
  'comb',
  'old leaves',
  'shear',
  'after frost',
  'leave',
  'none',
] as const
export type CutBack = (typeof cutBacks)[number]

/** Pests and diseases a taxon is known to suffer from. */
export const troubles = [
  'slugs',
  'mildew',
  'rust',
  'leaf spot',
  'blackspot',
  'aphids',
  'vine weevil',
  'sawfly',
  'lily beetle',
  'canker',
  'wilt',
  'blight',
  'crown rot',
  'scale',
  'mites',
  'caterpillars',
  'chlorosis',
] as const
export type Trouble = (typeof troubles)[number]

/** Who feeds on its flowers, seed or leaves. */
export const wildlife = ['bees', 'butterflies', 'moths', 'birds'] as const
export type Wildlife = (typeof wildlife)[number]

/** What it is over the years, which most rules go by. */
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

/** Its outline, which it is drawn by. */
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

/** Soil moisture 1 to 5 as it is said. */
export const moistureWords = ['dry', 'dryish', 'fresh', 'moist', 'wet'] as const
/** Soil moisture from 1, dry, to 5, wet. */
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

/** How it can hurt people or ground. */
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

/** As many plants at a spacing as stand on so much ground, one at least. */
export const plantsOn = (areaM2: number, spacingM: number): number =>
  Math.max(1, Math.round(areaM2 / groundM2(1, spacingM)))

/** Radius of the round drift that n plants at a spacing fill, metres. */
export function driftRadiusM(count: number, spacingM: number): number {
  return Math.sqrt(groundM2(Math.max(1, count), spacingM) / Math.PI)
}

/** Life forms whose stems stay over the winter. */
export const woodyForms: readonly LifeForm[] = ['deciduous shrub', 'evergreen shrub', 'small tree', 'climber']
/** Whether its stems stay over the winter. */
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
