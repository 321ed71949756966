import type { Taxon } from './taxon.ts'

/**
 * A plant nobody has named yet. It stands on the plan, takes its ground, has its photos and its story; nothing is judged of it, and
 * no care follows from what it is. Its traits bear anything, so that nothing wrong could be said of it anywhere.
 */
export const UNKNOWN: Taxon = {
  botanical: 'Unknown plant',
  common: 'nobody knows yet what it is',
  lifeForm: 'perennial',
  habit: 'mound',
  heightM: 0.5,
  spreadM: 0.4,
  spacingM: 0.4,
  lightMinHours: 0,
  lightMaxHours: 24,
  hotAfternoon: 'bears',
  moistureMin: 1,
  moistureMax: 5,
  hardyToC: -60,
  bloomFrom: null,
  bloomTo: null,
  bloomsBy: 'warmth',
  repeats: 'no',
  moveWhen: 'never',
  moveEase: 'fair',
  divideYears: null,
  divideHow: null,
  flowersOn: null,
  pruning: null,
  bearsHardCut: false,
  cutBack: 'none',
  cutToM: 0,
  standsWinter: false,
  halves: false,
  selfSeeds: 'no',
  vigour: 'steady',
  wind: 'bears',
  feed: 'none',
  mulchAtCrown: true,
  phMin: 3,
  phMax: 9,
  yearsToSize: 1,
  annualSeason: null,
  troubles: [],
  texture: 'medium',
  scented: false,
  wildlife: [],
  foliageColour: '#9aa096',
  flowerColour: null,
  cautions: [],
  synonyms: [],
  sureness: 'rough',
}

/** Nobody has named it yet. */
export const isUnknown = ({ botanical }: Pick<Taxon, 'botanical'>): boolean => botanical === UNKNOWN.botanical
