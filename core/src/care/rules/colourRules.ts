import type { CareRule, WindowSpec } from '../rule.ts'
import { BLUE_AT_MOST_PH, NO_BLUE_FROM_PH, PINK_AT_LEAST_PH } from '../flowerColour.ts'
import { DUST, LIME, limeWindow, sulphurWindow } from './placeRules.ts'

/** Aluminium is taken up while the flowers are being made. */
const whileBudsForm: WindowSpec = {
  season: 'spring',
  earliest: { latestOf: [{ at: 'growth shows' }, { at: 'soil above', c: 8 }] },
  bestFrom: { at: 'earliest', days: 7 },
  bestTo: { at: 'bloom starts', days: -14 },
  latest: { at: 'bloom starts' },
  because: {
    earliest: 'roots take it up from then on',
    bestFrom: 'the flowers are being made',
    bestTo: 'what is taken up now still colours them',
    latest: 'the colour of this year’s flowers is made',
  },
}

const wished: Pick<CareRule, 'operation' | 'forbids' | 'labour' | 'yearly' | 'tools'> = {
  operation: 'soil',
  forbids: ['frozen soil', 'sodden soil', 'dry soil'],
  labour: { setUp: 10, perPlant: 5 },
  tools: ['measure', 'watering can'],
  yearly: true,
}
const testAgain = 'Test again in half a year, before anything more is given.'

/** Rules of flowers whose colour follows the soil, where somebody wishes for one. */
export const colours: readonly CareRule[] = [
  {
    ...wished,
    id: 'test-for-colour',
    verb: 'test the soil of',
    does: 'Test the soil in three spots about its roots, a hand deep',
    applies: { wishes: ['blue', 'pink'], tested: false, place: 'bed' },
    windows: [
      {
        season: 'winter',
        earliest: { at: 'next midwinter', days: -60 },
        bestFrom: { at: 'next midwinter', days: -45 },
        bestTo: { at: 'next midwinter', days: 30 },
        latest: { at: 'next midwinter', days: 60 },
        because: {
          earliest: 'the season’s feeds are used up and no longer tell',
          bestFrom: 'there is time to act on it before growth',
          bestTo: 'sulphur goes on as the soil warms',
          latest: 'this year’s flowers are on their way',
        },
      },
    ],
    labour: { setUp: 15, perPlant: 5 },
    tools: ['pH test', 'trowel'],
    steps: ['Write the pH down at the place, under Plan: the doses follow it.'],
    why: 'The colour follows the soil, and no dose can be told without a test.',
    missed: 'Any day will do; what is told late is done a year later.',
  },
  {
    ...wished,
    id: 'sulphur-for-blue',
    verb: 'acidify the soil of',
    does: 'Scratch in sulphur by the dose of its test, out to the tips of its branches, and water in',
    applies: { wishes: ['blue'], phAbove: BLUE_AT_MOST_PH, phBelow: NO_BLUE_FROM_PH, place: 'bed' },
    windows: [sulphurWindow],
    doseTo: BLUE_AT_MOST_PH - 0.2,
    tools: ['measure', 'hand fork', 'watering can'],
    cautions: [DUST],
    steps: [
      'Mulch with leaf mould or bark; no lime, no bone meal, no wood ash near it, and no hard tap water.',
      testAgain,
    ],
    why: 'Blue is wished for: acid soil sets free the aluminium that makes it.',
    missed: 'Next spring will do; the flowers stay as they are for a year.',
  },
  ...(['tested', 'potted'] as const).map((how): CareRule => ({
    ...wished,
    id: how === 'tested' ? 'aluminium-for-blue' : 'aluminium-for-blue-in-pots',
    verb: 'give aluminium to',
    does: 'Water with aluminium sulphate, 15 g to 5 litres for each plant, on moist ground',
    applies:
      how === 'tested'
        ? { wishes: ['blue'], phBelow: 6.5 }
        : { wishes: ['blue'], place: 'container', tested: false },
    windows: [whileBudsForm],
    everyDays: 28,
    materials: [{ name: 'aluminium sulphate', unit: 'kg', perPlant: 0.015 }],
    cautions: [
      DUST,
      'Not where rhododendrons, camellias or anything to be eaten shares its roots: too much aluminium harms them.',
    ],
    steps: [
      ...(how === 'potted'
        ? ['In lime-free mix and with rain water only: in limy mix it does nothing.']
        : []),
      'Never dry, never more than the label says; feed with little phosphate, which locks it up.',
      'Next year’s flowers show most of it.',
    ],
    why: 'Blue is wished for, and it is made of aluminium that the roots take up.',
    missed: 'Go on at the next turn; never double.',
  })),
  {
    ...wished,
    id: 'lime-for-pink',
    verb: 'lime the soil of',
    does: 'Spread ground limestone by the dose of its test, out to the tips of its branches, and rake it in',
    applies: { wishes: ['pink'], phBelow: PINK_AT_LEAST_PH, place: 'bed' },
    windows: [limeWindow],
    doseTo: PINK_AT_LEAST_PH + 0.3,
    tools: ['measure', 'rake'],
    cautions: [DUST, LIME],
    steps: ['Above 7 its leaves yellow: stop before.', testAgain],
    why: 'Pink is wished for: lime keeps aluminium from the roots.',
    missed: 'Next autumn will do; the flowers stay as they are for a year.',
  },
]
