import type { ColourWish, Taxon, Trouble } from '../plants/index.ts'
import type { SignId } from '../diagnosis/signs.ts'
import type { SchoolId } from './schools.ts'

/** What is done to a plant or a place. */
export const operations = [
  'divide',
  'move',
  'plant',
  'prune',
  'cut back',
  'deadhead',
  'swap',
  'lift',
  'protect',
  'bring in',
  'stake',
  'tie in',
  'feed',
  'mulch',
  'soil',
  'weed',
  'refresh mix',
  'pot on',
  'upkeep',
  'prepare',
  'remove',
  'aftercare',
  'propagate',
] as const
export type Operation = (typeof operations)[number]

/** What is written down of work done before, where nothing asked for it: what plants are moved, put in or taken out by is told otherwise. */
export const pastOperations = [
  'divide',
  'prune',
  'cut back',
  'deadhead',
  'feed',
  'mulch',
  'soil',
  'weed',
  'stake',
  'tie in',
  'protect',
  'lift',
  'pot on',
  'refresh mix',
  'propagate',
  'upkeep',
] as const satisfies readonly Operation[]
export type PastOperation = (typeof pastOperations)[number]

/**
 * A point of a garden's year, as data. `days` moves it. An anchor that the place's year does not have (no frost, soil
 * never so cold) gives way to `or`; without one the window does not exist there.
 */
export type Anchor = (
  | { at: 'last frost' | 'first frost'; share: 10 | 50 | 90 }
  /** Usual soil at 10 cm rises above, between midwinter and midsummer; falls below, between midsummer and midwinter. */
  | { at: 'soil above' | 'soil below'; c: number }
  /** The usual day's highest rises above. */
  | { at: 'days above'; c: number }
  /** The usual day's lowest rises above, or in autumn falls below. */
  | { at: 'nights above' | 'nights below'; c: number }
  | { at: 'bloom starts' | 'first flush ends' | 'bloom ends' }
  | { at: 'growth shows' | 'growth has shown' | 'goes over' | 'is gone' }
  | { at: 'midwinter' | 'midsummer' | 'next midwinter' | 'longest day' }
  /** The last day that leaves so many weeks of soil above a temperature. */
  | { at: 'rooting time left'; weeks: number; c: number }
  /** The last day that leaves so many degree days above 5 °C before frost. */
  | { at: 'warmth left'; degreeDays: number }
  /** Another edge of the same window. */
  | { at: 'earliest' | 'latest' | 'best from' }
  | { latestOf: readonly Anchor[] }
  | { earliestOf: readonly Anchor[] }
) & { days?: number; or?: Anchor }

/** The four dates of a window: it opens, is best from, best until, closes. */
export type Edge = 'earliest' | 'bestFrom' | 'bestTo' | 'latest'

/** A window as data: four points, and after each why it is that point and not another. */
export interface WindowSpec {
  season: 'spring' | 'summer' | 'autumn' | 'winter' | 'dormant season' | 'any time'
  earliest: Anchor
  bestFrom: Anchor
  bestTo: Anchor
  latest: Anchor
  because: Record<Edge, string>
  /** Exists only where the usual year has this. */
  needs?: Anchor
  /** Never in flower: it opens after bloom, or closes so many days before. */
  roundBloom?: { before: number; after: number }
  /** Where the season is too short for it: it opens so many days before its last. */
  hurry?: number
}

/** In what state of plant, soil or weather a job is not done, whatever its window says. */
export const forbiddenStates = [
  'in flower',
  'heat',
  'frozen soil',
  'sodden soil',
  'hard frost',
  'rain',
  'wind',
  'nesting birds',
  'dry soil',
] as const
export type ForbiddenState = (typeof forbiddenStates)[number]

/** Which plantings a rule is for; every part given must hold. */
export interface Applies {
  /** Botanical names, or their beginnings. */
  taxa?: readonly string[]
  notTaxa?: readonly string[]
  /** Traits and the values they may have. */
  traits?: { readonly [K in keyof Taxon]?: readonly Taxon[K][] }
  /** Known to suffer from one of these. */
  troubles?: readonly Trouble[]
  /** Only in its first seasons in place, the one after planting being the second. */
  untilSeason?: number
  /** Flowers at all. */
  flowers?: boolean
  /** Lowest winter temperature it bears, degrees Celsius: hardier or less hardy than. */
  hardierThanC?: number
  tendererThanC?: number
  /** How it stands the winters of the place: dies, is at risk, is hardy. */
  winter?: readonly WinterHere[]
  place?: 'bed' | 'container'
  /** A place as a whole rather than a planting. */
  wholePlace?: boolean
  /** Only after one of these was seen. */
  signs?: readonly SignId[]
  /** Ground of a place against what grows in it, by a soil test. */
  ground?: GroundState
  /** A place that is watered by pipes. */
  piped?: boolean
  /** A bed at the edge of a pond or stream. */
  byWater?: boolean
  /** A pot at the foot of a wall. */
  byWall?: boolean
  /** Trained on a wall or fence, or free of any. */
  onWall?: boolean
  /** Lowest night of the place's usual winter, degrees Celsius: colder than, or as mild as. */
  winterColderThanC?: number
  winterMilderThanC?: number
  /** Only when due by age. */
  due?: 'division'
  /** Flowers of one of these colours are wished for, and follow the soil. */
  wishes?: readonly ColourWish[]
  /** The soil was tested, or was not. */
  tested?: boolean
  /** By a test: soil above, or below, a pH; an untested one is neither. */
  phAbove?: number
  phBelow?: number
}

/** Reaction of the soil against what most of what grows in it likes. */
export type GroundState = 'too acid' | 'too limy'

/** How a taxon stands the winters of a place: it does not, it may not, it does; or it wants a winter and has none. */
export const wintersHere = ['tender', 'at risk', 'hardy', 'no winter'] as const
export type WinterHere = (typeof wintersHere)[number]

/** What a rule takes along, by plant, by square metre, and of containers by litre of their mix. */
export interface RuleMaterial {
  name: string
  unit: 'l' | 'kg' | 'pieces' | 'm'
  perPlant?: number
  perM2?: number
  perMixLitre?: number
}

/** Days of every month by their weekday: the first and third Saturday. */
export interface MonthDays {
  /** 0 Sunday to 6 Saturday. */
  weekday: number
  /** Which of the month, 1 to 5. */
  nths: number[]
}

/** One rule of care, as data. */
export interface CareRule {
  id: string
  operation: Operation
  /** What is done, as an instruction: `Cut back to {height}`. */
  does: string
  /** Heads the job's title where the operation's own word would mislead: `clear`. */
  verb?: string
  applies: Applies
  windows: readonly WindowSpec[]
  /** Only where the garden follows this choice. */
  school?: { id: SchoolId; choice: string }
  /** What is done otherwise by a school: of each choice a step, and what it takes. */
  bySchool?: readonly {
    id: SchoolId
    steps: Readonly<Record<string, string>>
    materials?: Readonly<Record<string, readonly RuleMaterial[]>>
  }[]
  /** Again after so many days while the window is open. */
  everyDays?: number
  /** Again on these weekdays of each month instead. */
  monthDays?: MonthDays | undefined
  /** What is given by turns where it is done again and again: each turn its own, in this order. */
  byTurns?: readonly string[] | undefined
  /** Its turns are left out while the usual day stays below, degrees Celsius. */
  notBelowC?: number
  /** Due so many days after another rule’s work was really done, within its own window. */
  dueAfter?: { rule: string; days: number }
  /** Only one season in so many. */
  everySeasons?: number
  forbids: readonly ForbiddenState[]
  /** Minutes: for setting up, for each plant, for each square metre of ground it covers, for each metre of height and plant,
   * for each litre of the mix of a container. */
  labour: { setUp: number; perPlant?: number; perM2?: number; perMetre?: number; perMixLitre?: number }
  skill?: Skill
  materials?: readonly RuleMaterial[]
  /** What moves the soil to a reaction, or to what most of its plants like: the dose is told from its test and texture. */
  doseTo?: number | 'its plants'
  tools: readonly string[]
  cautions?: readonly string[]
  steps?: readonly string[]
  why: string
  /** What happens when it is missed, and when the next chance comes. */
  missed: string
  /** Made into jobs every season; else only by a verdict, a sign or a person. */
  yearly: boolean
  /** Ships switched off. */
  off?: boolean
}

/** What not everybody may or can do. */
export const skills = ['pruning', 'machine', 'spraying', 'arborist'] as const
export type Skill = (typeof skills)[number]
