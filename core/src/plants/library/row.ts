import type { Caution, Habit, LifeForm, Moisture, MoveSeason, Taxon, Trouble, Wildlife } from '../taxon.ts'

/**
 * Row: botanical, common, form, habit, height m, spread m, spacing m, light hours [least, most] (24: no sun is too
 * much), hot afternoon, moisture [least, most], hardy to C, bloom `MM-DD MM-DD` (north), move season, move ease,
 * foliage, flower, and what differs from the usual of its life form.
 * Ranges are the general horticultural consensus for established plants in temperate gardens; sizes are those after
 * five to ten years (longer for trees).
 */
export type Row = readonly [
  string,
  string,
  LifeForm,
  Habit,
  number,
  number,
  number,
  readonly [number, number],
  Taxon['hotAfternoon'],
  readonly [Moisture, Moisture],
  number,
  string,
  MoveSeason,
  Taxon['moveEase'],
  string,
  string,
  More,
]

interface More {
  /** Synonyms and other names. */
  syn?: string[]
  /** Years to size. */
  years?: number
  ph?: [number, number]
  by?: Taxon['bloomsBy']
  again?: Taxon['repeats']
  /** End of the first flush, `MM-DD`. */
  flush?: string
  divide?: [number, number] | null
  how?: Taxon['divideHow']
  /** The wood that flowers. */
  wood?: 'old' | 'new' | 'both'
  prune?: Taxon['pruning']
  hard?: boolean
  cut?: Taxon['cutBack']
  /** Height cut to, m. */
  to?: number
  stands?: boolean
  halves?: boolean
  seeds?: Taxon['selfSeeds']
  vigour?: Taxon['vigour']
  wind?: Taxon['wind']
  feed?: Taxon['feed']
  crown?: boolean
  season?: Taxon['annualSeason']
  shows?: [string, string]
  fades?: [string, string]
  rests?: [string, string]
  winter?: Taxon['winter']
  bad?: Trouble[]
  texture?: Taxon['texture']
  scent?: boolean
  wild?: Wildlife[]
  cautions?: Caution[]
  sure?: Taxon['sureness']
}

type Usual = Pick<
  Taxon,
  | 'divideYears'
  | 'divideHow'
  | 'pruning'
  | 'bearsHardCut'
  | 'cutBack'
  | 'cutToM'
  | 'feed'
  | 'mulchAtCrown'
  | 'yearsToSize'
  | 'annualSeason'
  | 'texture'
>

const dies: Usual = {
  divideYears: [3, 5],
  divideHow: 'cut',
  pruning: null,
  bearsHardCut: true,
  cutBack: 'herbaceous',
  cutToM: 0.05,
  feed: 'light',
  mulchAtCrown: true,
  yearsToSize: 3,
  annualSeason: null,
  texture: 'medium',
}
const woody: Usual = {
  ...dies,
  divideYears: null,
  divideHow: null,
  pruning: 'lightly',
  cutBack: 'none',
  cutToM: 0,
  mulchAtCrown: true,
  yearsToSize: 6,
}

/** What is usual of each life form; a row says only where a kind differs. */
const usualOf: Record<LifeForm, Usual> = {
  perennial: dies,
  'warm grass': {
    ...dies,
    cutBack: 'warm grass',
    cutToM: 0.12,
    feed: 'none',
    texture: 'fine',
    divideYears: [4, 6],
    mulchAtCrown: false,
  },
  'cool grass': { ...dies, cutBack: 'comb', cutToM: 0, feed: 'none', texture: 'fine', bearsHardCut: false },
  bulb: {
    ...dies,
    cutBack: 'leave',
    cutToM: 0,
    divideHow: 'offsets',
    divideYears: [4, 6],
    mulchAtCrown: true,
  },
  fern: {
    ...dies,
    cutBack: 'old leaves',
    cutToM: 0.05,
    divideYears: [5, 8],
    texture: 'fine',
    yearsToSize: 4,
  },
  'deciduous shrub': woody,
  'evergreen shrub': woody,
  climber: { ...woody, yearsToSize: 5 },
  'small tree': { ...woody, bearsHardCut: false, feed: 'none', yearsToSize: 15 },
  groundcover: { ...dies, cutBack: 'none', cutToM: 0, mulchAtCrown: false, divideYears: [4, 6] },
  succulent: { ...dies, cutBack: 'none', cutToM: 0, feed: 'none', divideHow: 'offsets', bearsHardCut: false },
  annual: {
    ...dies,
    divideYears: null,
    divideHow: null,
    cutBack: 'none',
    cutToM: 0,
    feed: 'heavy',
    yearsToSize: 1,
    annualSeason: 'warm',
  },
  'tender perennial': {
    ...dies,
    divideYears: null,
    divideHow: null,
    cutBack: 'after frost',
    cutToM: 0.1,
    feed: 'heavy',
    yearsToSize: 1,
    annualSeason: 'warm',
  },
}

const flowering = { old: 'old wood', new: 'new wood', both: 'both' } as const

/** Blooms from here on hang on the shortening day rather than on warmth. */
const DAY_LENGTH_FROM = '08-10'

/** A taxon from its row of the library, with what its form implies filled in. */
export function taxonOf(row: Row): Taxon {
  const [botanical, common, lifeForm, habit, heightM, spreadM, spacingM, light, hotAfternoon, moisture] = row
  const [hardyToC, bloom, moveWhen, moveEase, foliageColour, flowerColour, more] = row.slice(10) as [
    Row[10],
    Row[11],
    Row[12],
    Row[13],
    Row[14],
    Row[15],
    More,
  ]
  const usual = usualOf[lifeForm]
  const [bloomFrom = null, bloomTo = null] = bloom ? bloom.split(' ') : []
  const tender = lifeForm === 'annual' || lifeForm === 'tender perennial'
  const divideYears = more.divide === undefined ? usual.divideYears : more.divide
  return {
    botanical,
    common,
    lifeForm,
    habit,
    heightM,
    spreadM,
    spacingM,
    lightMinHours: light[0],
    lightMaxHours: light[1],
    hotAfternoon,
    moistureMin: moisture[0],
    moistureMax: moisture[1],
    hardyToC,
    bloomFrom,
    bloomTo,
    firstFlushTo: more.flush ?? null,
    bloomsBy:
      more.by ??
      (tender ? 'frost-free' : bloomFrom && bloomFrom >= DAY_LENGTH_FROM ? 'day length' : 'warmth'),
    repeats: more.again ?? 'no',
    moveWhen,
    moveEase,
    divideYears,
    divideHow: divideYears ? (more.how ?? usual.divideHow ?? 'cut') : null,
    flowersOn: more.wood ? flowering[more.wood] : null,
    pruning: more.prune ?? usual.pruning,
    bearsHardCut: more.hard ?? usual.bearsHardCut,
    cutBack: more.cut ?? usual.cutBack,
    cutToM: more.to ?? usual.cutToM,
    standsWinter: more.stands ?? false,
    halves: more.halves ?? false,
    selfSeeds: more.seeds ?? 'no',
    vigour: more.vigour ?? 'steady',
    wind: more.wind ?? 'bears',
    feed: more.feed ?? usual.feed,
    mulchAtCrown: more.crown ?? usual.mulchAtCrown,
    phMin: more.ph?.[0] ?? 5.5,
    phMax: more.ph?.[1] ?? 7.5,
    yearsToSize: more.years ?? usual.yearsToSize,
    annualSeason: more.season === undefined ? usual.annualSeason : more.season,
    ...(more.shows && { shows: more.shows }),
    ...(more.fades && { fades: more.fades }),
    ...(more.rests && { rests: more.rests }),
    ...(more.winter && { winter: more.winter }),
    troubles: more.bad ?? [],
    texture: more.texture ?? usual.texture,
    scented: more.scent ?? false,
    wildlife: more.wild ?? [],
    foliageColour,
    flowerColour: flowerColour || null,
    cautions: more.cautions ?? [],
    synonyms: more.syn ?? [],
    sureness: more.sure ?? 'usual',
  }
}
