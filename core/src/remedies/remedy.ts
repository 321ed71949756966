import type { Applies, ForbiddenState, Operation, RuleMaterial, WindowSpec } from '../care/index.ts'
import type { SignCause, SignId } from '../diagnosis/index.ts'
import type { Taxon } from '../plants/index.ts'
import type { Action } from './actions.ts'
import type { Elsewhere, Opening, Stage } from './situation.ts'

/** A kind of plant, by names or their beginnings and by traits; every part given must hold. */
export interface Kinds extends Pick<Applies, 'taxa' | 'notTaxa' | 'traits'> {
  notTraits?: { readonly [K in keyof Taxon]?: readonly Taxon[K][] }
  /** Said of it, one of these. */
  cautions?: readonly Taxon['cautions'][number][]
  /** Known to suffer from one of these. */
  troubles?: readonly Taxon['troubles'][number][]
}

/** When a remedy is the answer; every part given must hold. */
export interface Circumstances extends Kinds {
  /** One of these was seen this season. Absent: no sign is needed. */
  signs?: readonly SignId[]
  /** The sign was seen within so many days: later it is no longer what is the matter. */
  seenWithinDays?: number
  /** All of these were. */
  allSigns?: readonly SignId[]
  /** None of these was. */
  notSigns?: readonly SignId[]
  /** What the plant is usually about. */
  stage?: readonly Stage[]
  light?: readonly ('too little' | 'right' | 'too much')[]
  /** Ground against what it likes, or as its neighbours' signs suggest. */
  ground?: readonly ('too dry' | 'right' | 'too wet' | 'unknown')[]
  place?: 'bed' | 'container'
  /** Seasons in place, the first counting as one. */
  fromSeason?: number
  untilSeason?: number
  /** Share of what was planted that lives. */
  livingAtMost?: number
  livingAtLeast?: number
  /** So many were planted. */
  plantedAtLeast?: number
  /** A last telling rating of at most, or at least. None given counts as sound. */
  ratingAtMost?: number
  /** Rated well when last it told. */
  thriving?: boolean
  ratingAtLeast?: number
  /** It has gone without dividing for as long as its kind bears. */
  divisionDue?: true
  /** The soil is usually cold on the day. */
  cold?: boolean
  /** Stronger neighbours stand over its ground. */
  overgrown?: boolean
  /** What this garden's record says of the kind. */
  again?: readonly ('yes' | 'no' | 'not here' | 'open')[]
  /** A cut to a tree would give it the light it likes: its crown raised, or thinned only. */
  opens?: 'raised' | 'thinned'
  /** Another place of the garden was found so at about the same time. */
  elsewhere?: Elsewhere
}

/**
 * When a remedy is done: within so many days; in a window of the year; with the moving, the dividing or another rule of care of
 * its kind.
 */
export type RemedyTime =
  | { withinDays: number; because: string }
  | { windows: readonly WindowSpec[] }
  | { as: 'a move' | 'a division' }
  /** Of several the first that has one, and only if that opens within so many days. */
  | { rules: readonly string[]; openDays: number }

/** The work that a remedy is; without it nothing is done but what its action says. */
export interface RemedyWork {
  operation: Operation
  time: RemedyTime
  /** Minutes: for setting up, for each plant, for each metre of height and plant. */
  labour: { setUp: number; perPlant: number; perMetre?: number }
  tools: readonly string[]
  forbids?: readonly ForbiddenState[]
  materials?: readonly RuleMaterial[]
  cautions?: readonly string[]
}

/** The same for every planting, or by the cut to a tree that was worked out for this one. */
export type Wording = string | { ofOpening: (opening: Opening) => string }

/** What a sign asks for, by what the plant is, where and when it is, as data. */
export interface Remedy {
  id: string
  action: Action
  when: Circumstances
  /** What it is the answer to, where one sign may come of several causes: the likelier that is, the more it counts. */
  answers?: readonly SignCause[]
  /**
   * Points it gives its action. Keeping a sound plant in its light has some 55 with one sign seen: what must be done has more,
   * what may be done has less. A judgement of this product, shown with every verdict.
   */
  points: number
  /** Why, as a sentence. */
  says: Wording
  /** What is done, as an instruction. */
  does: Wording
  steps: readonly string[]
  /** What it costs to wait. */
  waiting: string
  work?: RemedyWork
  /** When it is done, where it is work that the rules of care know already. */
  time?: RemedyTime
}
