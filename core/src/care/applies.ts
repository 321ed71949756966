import type { Climate } from '../climate/index.ts'
import { onceFor } from '../once/index.ts'
import { colourFollowsSoil, isNamed, type ColourWish, type Taxon } from '../plants/index.ts'
import type { SignId } from '../diagnosis/signs.ts'
import type { Applies, CareRule, GroundState, WinterHere } from './rule.ts'
import { followed, type Schools } from './schools.ts'

/** What a rule is held against: a planting's kind in its place, or a place as a whole. */
export interface Subject {
  taxon?: Taxon | undefined
  place: 'bed' | 'container'
  climate: Climate
  signs?: readonly SignId[]
  ground?: GroundState | undefined
  piped?: boolean | undefined
  byWater?: boolean | undefined
  byWall?: boolean | undefined
  /** Stands so near a wall or fence that it is trained on it. */
  onWall?: boolean | undefined
  /** The colour of flowers that is wished for. */
  wish?: ColourWish | null | undefined
  /** By a test of its soil. */
  ph?: number | undefined
}

/** Roots in a pot meet the cold from all sides: about two zones of 5.6 degrees. */
const POT_COLDER_C = 11
const AT_RISK_BELOW_C = 4
const TENDER_BELOW_C = -2

/** What bears so hard a winter rests through it, and does not live long without. A judgement. */
const WANTS_WINTER_C = -20
/** Where the usual night of the coldest month is as mild, there is no winter to rest in. */
const NO_WINTER_C = 10
/** Hardy, and content without. */
const contentWithout = [
  'Coreopsis',
  'Gaillardia',
  'Hemerocallis',
  'Ophiopogon',
  'Phlox paniculata',
  'Rosa Climbing group',
  'Rosa Shrub group',
  'Rudbeckia',
  'Solidago',
  'Yucca',
]
const restless: readonly Taxon['lifeForm'][] = [
  'perennial',
  'bulb',
  'deciduous shrub',
  'small tree',
  'climber',
  'fern',
]

/** Whether a climate has nothing of a winter: asked for with every rule and planting. */
const isWinterless = onceFor((climate: Climate): boolean => Math.min(...climate.minC) >= NO_WINTER_C)

const wantsWinter = (taxon: Taxon): boolean =>
  restless.includes(taxon.lifeForm) && taxon.hardyToC <= WANTS_WINTER_C && !isNamed(contentWithout, taxon)

/** How a kind stands the winters of a place, from the mean of its years' lowest temperatures. */
export function winterHere(taxon: Taxon, climate: Climate, place: 'bed' | 'container'): WinterHere {
  if (isWinterless(climate) && wantsWinter(taxon)) return 'no winter'
  // What is grown for one season is set out knowing that.
  const inPot = place === 'container' && taxon.lifeForm !== 'annual'
  const margin = climate.meanAnnualMinimumC - taxon.hardyToC - (inPot ? POT_COLDER_C : 0)
  if (margin >= AT_RISK_BELOW_C) return 'hardy'
  return margin >= TENDER_BELOW_C ? 'at risk' : 'tender'
}

/** Whether a taxon is one of these, by the beginnings of botanical names and by the values its traits may have. */
export function isOneOf(
  taxon: Taxon,
  { taxa, notTaxa, traits = {} }: Pick<Applies, 'taxa' | 'notTaxa' | 'traits'>,
): boolean {
  if (taxa && !isNamed(taxa, taxon)) return false
  if (notTaxa && isNamed(notTaxa, taxon)) return false
  return Object.entries(traits).every(([trait, values]) =>
    (values as readonly unknown[]).includes(taxon[trait as keyof Taxon]),
  )
}

/** Whether a rule is for a subject; whether it is due, or follows the garden's school, is asked apart. */
export function isFor(applies: Applies, subject: Subject): boolean {
  const { taxon, climate, place } = subject
  if (applies.place && applies.place !== place) return false
  if (applies.winterColderThanC !== undefined && climate.meanAnnualMinimumC >= applies.winterColderThanC)
    return false
  if (applies.winterMilderThanC !== undefined && climate.meanAnnualMinimumC < applies.winterMilderThanC)
    return false
  if (applies.ground && applies.ground !== subject.ground) return false
  if (applies.piped && !subject.piped) return false
  if (applies.byWater && !subject.byWater) return false
  if (applies.byWall && !subject.byWall) return false
  if (applies.onWall !== undefined && applies.onWall !== (subject.onWall ?? false)) return false
  if (applies.wholePlace) return taxon === undefined
  if (!taxon) return false
  if (applies.signs && !applies.signs.some((s) => subject.signs?.includes(s))) return false
  if (!isOneOf(taxon, applies)) return false
  if (applies.wishes && !(subject.wish && applies.wishes.includes(subject.wish) && colourFollowsSoil(taxon)))
    return false
  if (applies.tested !== undefined && applies.tested !== (subject.ph !== undefined)) return false
  if (applies.phAbove !== undefined && !(subject.ph !== undefined && subject.ph > applies.phAbove))
    return false
  if (applies.phBelow !== undefined && !(subject.ph !== undefined && subject.ph < applies.phBelow))
    return false
  if (applies.troubles && !applies.troubles.some((t) => taxon.troubles.includes(t))) return false
  if (applies.flowers !== undefined && applies.flowers !== Boolean(taxon.bloomFrom)) return false
  if (applies.hardierThanC !== undefined && taxon.hardyToC >= applies.hardierThanC) return false
  if (applies.tendererThanC !== undefined && taxon.hardyToC < applies.tendererThanC) return false
  const winter = winterHere(taxon, climate, place)
  // Dates of a year that it does not have here would be made of nothing.
  if (winter === 'no winter' && !applies.signs) return false
  if (applies.winter && !applies.winter.includes(winter)) return false
  return true
}

/** Whether a rule's school is the one a garden follows; rules of no school are everyone's. */
export const isFollowed = (rule: CareRule, schools: Schools): boolean =>
  !rule.school || followed(schools, rule.school.id) === rule.school.choice
