/**
 * What there is to know of a garden, by what can change without the rest. The database counts each up with every change of it;
 * what is worked out, and what a device has been told, says which of them it rests on.
 */
export const aspects = [
  /** What stands on the plan, and where the garden lies. */
  'plan',
  'plantings',
  /** Weather, soil readings, what is known of frost. */
  'climate',
  /** Rules of care and the schools followed. */
  'rules',
  /** Looks, photos, treatments, trials. */
  'record',
  /** The practice's plants and what signs mean. */
  'library',
  'decisions',
  /** Readings and logs of light. */
  'readings',
  /** What there is to do; not when. */
  'jobs',
  'crew',
  /** The days that jobs have, in any garden of the crew. */
  'days',
  /** Plans of a season asked for. */
  'runs',
  'bench',
  'waterings',
  'suspicions',
  /** What-ifs that were kept. */
  'suppositions',
  /** Scans and photos under the plan. */
  'pictures',
  /** Places decided anew, with their schemes. */
  'reworks',
  /** What containers were filled with, and when. */
  'fills',
  /** What suppliers ask, known to all of a practice. */
  'prices',
  /** Who belongs to the garden, and what it is called. */
  'members',
  /** Links by which others read the calendar. */
  'links',
] as const
export type Aspect = (typeof aspects)[number]

/** What a garden and its plants are known by: judgements of how plants do rest on this. */
export const whatIsKnown = ['plan', 'plantings', 'climate', 'record', 'library'] as const satisfies Aspect[]

/** A count for each aspect. */
export type Versions = Readonly<Record<Aspect, string>>

/** The aspects in which two states of a garden differ; all of them where one is not known. */
export const changedAspects = (before: Versions | undefined, after: Versions): Aspect[] =>
  aspects.filter((a) => before?.[a] !== after[a])
