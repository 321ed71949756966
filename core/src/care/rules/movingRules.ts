import type { Anchor, CareRule, WindowSpec } from '../rule.ts'

/** Roots grow while soil is warmer than this; the usual working figure for hardy plants. */
const ROOTING_C = 6
const roots: Anchor = { at: 'rooting time left', weeks: 6, c: ROOTING_C }

/** After bloom and heat, with six weeks of rooting soil to come. */
const afterHeat: WindowSpec = {
  season: 'autumn',
  // Where cold follows heat quickly, the last weeks of warmth are better than too few weeks of cool.
  earliest: {
    earliestOf: [
      { at: 'soil below', c: 18, or: { at: 'midsummer' } },
      { ...roots, days: -35 },
    ],
  },
  bestFrom: {
    earliestOf: [
      { at: 'soil below', c: 16 },
      { ...roots, days: -28 },
    ],
  },
  bestTo: {
    earliestOf: [
      { at: 'latest', days: -14 },
      { at: 'best from', days: 42 },
    ],
  },
  latest: roots,
  because: {
    earliest: 'in warmer soil lifted roots dry out',
    bestFrom: 'lifted roots dry less',
    bestTo: 'days in hand before the last one that leaves time to root',
    latest: '',
  },
  roundBloom: { before: 28, after: 7 },
  hurry: 21,
}

/** As growth shows, done before heat and well before bloom. */
const asGrowthShows = (soilC: number, days: number): WindowSpec => ({
  season: 'spring',
  // Where the soil is warm all winter, or long before, it is the plant that says when.
  earliest: {
    latestOf: [
      { at: 'soil above', c: soilC },
      { at: 'growth shows', days: -7 },
    ],
  },
  bestFrom: { at: 'earliest', days: 7 },
  bestTo: { at: 'earliest', days: 28 },
  latest: {
    earliestOf: [
      { at: 'days above', c: 22, or: { at: 'midsummer', days: -30 } },
      { at: 'earliest', days },
    ],
  },
  because: {
    earliest: 'warm enough for new roots',
    bestFrom: 'growth shows, so crowns can be found and judged',
    bestTo: 'new growth is still short and loses little water',
    latest: 'by then it has too much leaf to lift, or the days are too hot',
  },
  roundBloom: { before: 28, after: 7 },
})
const inSpring = asGrowthShows(ROOTING_C, 42)
/** Warm-season grasses and tender crowns rot when cut in cold soil. */
const inWarmSpring = asGrowthShows(8, 35)

const dormant: WindowSpec = {
  season: 'dormant season',
  needs: { at: 'soil below', c: 13 },
  earliest: { earliestOf: [{ at: 'soil below', c: 10 }, { at: 'is gone' }] },
  bestFrom: { at: 'earliest', days: 10 },
  bestTo: { latestOf: [{ at: 'best from' }, { at: 'soil below', c: 5, or: { at: 'next midwinter' } }] },
  latest: { at: 'growth shows', days: 368 },
  because: {
    earliest: 'leaves usually fall then',
    bestFrom: 'leafless, with soil still warm enough for some root growth',
    bestTo: 'later is possible in open weather, never in frozen or sodden ground',
    latest: 'buds have broken',
  },
}

const diedDown: WindowSpec = {
  season: 'summer',
  earliest: { at: 'bloom ends', days: 42 },
  bestFrom: { at: 'earliest' },
  bestTo: {
    earliestOf: [
      { at: 'latest' },
      {
        latestOf: [
          { at: 'earliest', days: 28 },
          { at: 'soil below', c: 16, or: { at: 'earliest' } },
        ],
      },
    ],
  },
  latest: {
    earliestOf: [
      { at: 'rooting time left', weeks: 4, c: ROOTING_C },
      {
        latestOf: [
          { at: 'soil below', c: 16, days: 28, or: { at: 'earliest', days: 60 } },
          { at: 'earliest', days: 28 },
        ],
      },
    ],
  },
  because: {
    earliest: 'its leaves feed the bulb for about six weeks after bloom',
    bestFrom: 'leaves have died down and the place is still easy to find',
    bestTo: 'before new roots start in cooling soil',
    latest: 'new roots are under way by then',
  },
}

/** Autumn bulbs have leaves in spring, rest in summer, and root again as they flower. */
const summerRest: WindowSpec = {
  season: 'summer',
  earliest: { at: 'bloom starts', days: -80 },
  bestFrom: { at: 'bloom starts', days: -60 },
  bestTo: { at: 'bloom starts', days: -28 },
  latest: { at: 'bloom starts', days: -14 },
  because: {
    earliest: 'its leaves have died down',
    bestFrom: 'it is wholly at rest',
    bestTo: 'new roots have not begun',
    latest: 'it roots as it comes into flower',
  },
}

/** Small early bulbs dry out once they are bare: they are moved with their leaves on. */
const inTheGreen: WindowSpec = {
  season: 'spring',
  earliest: { at: 'bloom ends', days: 3 },
  bestFrom: { at: 'bloom ends', days: 5 },
  bestTo: { at: 'bloom ends', days: 21 },
  latest: { at: 'bloom ends', days: 35 },
  because: {
    earliest: 'the flowers are over and the clumps are easy to find',
    bestFrom: 'leaves and roots are in full growth and take again at once',
    bestTo: 'the leaves have weeks left to feed the bulb',
    latest: 'the leaves yellow, and the bulbs dry out when they are lifted bare',
  },
}
const autumnBulbs = [
  'Colchicum',
  'Crocus speciosus',
  'Crocus sativus',
  'Cyclamen hederifolium',
  'Sternbergia',
]
const greenBulbs = ['Galanthus', 'Eranthis']

const afterFrost: WindowSpec = {
  season: 'spring',
  earliest: {
    latestOf: [
      { at: 'last frost', share: 90, or: { at: 'midwinter' } },
      { at: 'soil above', c: 12 },
    ],
  },
  bestFrom: { at: 'earliest', days: 3 },
  bestTo: { at: 'earliest', days: 30 },
  latest: { at: 'earliest', days: 60 },
  because: {
    earliest: 'soil and nights are warm enough',
    bestFrom: 'nights are mild',
    bestTo: 'the whole season is still ahead',
    latest: 'too little of the season is left to pay for the check',
  },
}

/** Fleshy roots that are cut heal only while they grow: lifted as the buds swell, before they open. */
const asBudsSwell: WindowSpec = {
  season: 'spring',
  earliest: {
    latestOf: [
      { at: 'soil above', c: 4 },
      { at: 'bloom starts', days: -42 },
    ],
  },
  bestFrom: { at: 'earliest', days: 5 },
  bestTo: { at: 'bloom starts', days: -14 },
  latest: { at: 'bloom starts', days: -7 },
  because: {
    earliest: 'cut roots begin to heal',
    bestFrom: 'the buds swell and the roots are at work',
    bestTo: 'the leaves are not out yet',
    latest: 'flowers and young leaves draw more water than cut roots bring',
  },
}

/** Bearded irises rest in summer heat. */
export const afterIrisBloom: WindowSpec = {
  season: 'summer',
  earliest: { at: 'bloom ends', days: 28 },
  bestFrom: { at: 'bloom ends', days: 42 },
  bestTo: { at: 'bloom ends', days: 84 },
  latest: { at: 'rooting time left', weeks: 6, c: 8 },
  because: {
    earliest: 'the rhizomes have begun to rest',
    bestFrom: 'new roots are about to form',
    bestTo: 'later pieces flower less next year',
    latest: '',
  },
}

const lifting: Pick<CareRule, 'forbids' | 'tools' | 'steps' | 'labour'> = {
  forbids: ['in flower', 'heat', 'frozen soil', 'sodden soil'],
  labour: { setUp: 15, perPlant: 8, perM2: 20 },
  tools: ['spade', 'two forks', 'tarpaulin or damp sacking', 'watering can'],
  steps: [
    'Choose a cool, overcast day, best after rain; water the evening before if the soil is dry.',
    'Have the destination ready before anything is lifted.',
    'Lift the whole clump with as much root as possible; keep roots covered and damp.',
    'Replant at the same depth, firm, soak, and mulch off the crown.',
  ],
}

const move = (rule: Pick<CareRule, 'id' | 'applies' | 'windows' | 'why' | 'missed'>): CareRule => ({
  operation: 'move',
  does: 'Lift and replant',
  ...lifting,
  ...rule,
  yearly: false,
})

const divide = (
  rule: Pick<CareRule, 'id' | 'applies' | 'windows' | 'why' | 'missed'> & Partial<CareRule>,
): CareRule => ({
  operation: 'divide',
  does: 'Lift, divide and replant the strongest pieces',
  ...lifting,
  labour: { setUp: 15, perPlant: 15 },
  steps: [
    'Lift the whole clump; keep roots covered and damp.',
    'Cut to pieces with several buds or shoots each; discard the old centre.',
    'Replant at the same depth at full spacing, firm and water; pot or give away what is left over.',
  ],
  bySchool: [
    {
      id: 'drifts',
      steps: {
        odd: 'Set the pieces in a drift of an odd number, unevenly spaced.',
        blocks: 'Set the pieces in one block, evenly spaced.',
        matrix: 'Scatter the pieces among their neighbours.',
      },
    },
    {
      id: 'planting-hole',
      steps: {
        amend: 'Fork compost into the ground they go back to.',
        native: 'Set them in the soil as it is and mulch.',
        'starter-feed': 'A starter feed goes in, by its label, with soil between it and the roots.',
      },
      materials: {
        amend: [{ name: 'garden compost', unit: 'l', perM2: 40 }],
        native: [{ name: 'mulch', unit: 'l', perM2: 50 }],
        'starter-feed': [{ name: 'starter feed', unit: 'kg', perPlant: 0.03 }],
      },
    },
  ],
  ...rule,
  yearly: true,
})

/** Rules of lifting and replanting, by when a taxon bears it. */
export const moving: readonly CareRule[] = [
  move({
    id: 'move-after-bloom',
    applies: {
      traits: { moveWhen: ['after bloom', 'either'], moveEase: ['easy', 'fair'] },
      notTaxa: ['Iris germanica'],
    },
    windows: [afterHeat, inSpring],
    why: 'Soil that is warm below and cool above lets lifted roots take before winter.',
    missed: 'Spring, as growth shows, is the next chance.',
  }),
  move({
    id: 'move-autumn-only',
    applies: { traits: { moveWhen: ['after bloom', 'either'], moveEase: ['poor'] } },
    windows: [afterHeat],
    why: 'It is slow to settle and is lifted only when its buds are at rest and the soil is still warm.',
    missed: 'Wait for the next autumn: lifted in spring it sulks for years.',
  }),
  move({
    id: 'move-iris',
    applies: { taxa: ['Iris germanica'] },
    windows: [afterIrisBloom],
    why: 'Bearded irises rest in summer heat; replanted then they flower the next year.',
    missed: 'Wait until after the next bloom.',
  }),
  move({
    id: 'move-spring',
    applies: {
      traits: {
        moveWhen: ['spring'],
        lifeForm: [
          'perennial',
          'cool grass',
          'fern',
          'bulb',
          'groundcover',
          'succulent',
          'annual',
          'deciduous shrub',
          'evergreen shrub',
          'climber',
          'small tree',
        ],
      },
      notTaxa: ['Magnolia'],
    },
    windows: [inSpring],
    why: 'Late bloomers and plants that sulk in cold soil have the whole season to settle.',
    missed: 'Wait for the next spring: lifted in autumn it may not root before winter.',
  }),
  move({
    id: 'move-fleshy-roots',
    applies: { taxa: ['Magnolia'], traits: { moveWhen: ['spring'] } },
    windows: [asBudsSwell],
    why: 'Its fleshy roots rot when they are cut in cold soil and heal at once as growth begins.',
    missed:
      'Wait for the next spring, and open the ground a spade deep round it meanwhile so that it roots close in.',
  }),
  move({
    id: 'move-warm-spring',
    applies: { traits: { moveWhen: ['spring'], lifeForm: ['warm grass', 'tender perennial'] } },
    windows: [inWarmSpring],
    why: 'Warm-season grasses root only in warm soil; lifted in autumn they rot.',
    missed: 'Wait for the next spring.',
  }),
  move({
    id: 'move-dormant',
    applies: { traits: { moveWhen: ['dormant'] } },
    windows: [dormant],
    why: 'Without leaves a woody plant loses little water while its cut roots heal.',
    missed: 'Wait until its leaves fall again.',
  }),
  move({
    id: 'move-died-down',
    applies: { traits: { moveWhen: ['died down'] }, notTaxa: [...autumnBulbs, ...greenBulbs] },
    windows: [diedDown],
    why: 'A bulb at rest takes no harm from being lifted.',
    missed: 'Mark the spot and wait until the leaves have died down next year.',
  }),
  move({
    id: 'move-autumn-bulbs',
    applies: { taxa: autumnBulbs },
    windows: [summerRest],
    why: 'It flowers in autumn and has its leaves in spring: summer is its rest.',
    missed: 'Mark the spot; next summer, once its leaves have gone.',
  }),
  move({
    id: 'move-in-the-green',
    applies: { taxa: greenBulbs },
    windows: [inTheGreen],
    why: 'Lifted in leaf it takes at once; dry bulbs of its kind often do not.',
    missed: 'Mark the spot; next spring, when the flowers are over.',
  }),
  move({
    id: 'move-after-frost',
    applies: { traits: { moveWhen: ['after frost'] } },
    windows: [afterFrost],
    why: 'Tender plants need warm soil and nights without frost.',
    missed: 'Too late pays little this season; keep it in a pot.',
  }),
  divide({
    id: 'divide-after-bloom',
    applies: {
      traits: {
        moveWhen: ['after bloom', 'either'],
        divideHow: ['pull apart', 'cut', 'saw', 'rhizome', 'offsets'],
        lifeForm: ['perennial', 'groundcover', 'cool grass', 'fern', 'succulent'],
        moveEase: ['easy', 'fair'],
      },
      notTaxa: ['Iris germanica'],
      due: 'division',
    },
    windows: [afterHeat, inSpring],
    why: 'Spring and early-summer bloomers are divided after bloom, once the heat is over and roots can still take.',
    missed: 'Spring as growth shows, at the price of most of that year’s flowers.',
  }),
  divide({
    id: 'divide-autumn-only',
    applies: {
      traits: {
        moveWhen: ['after bloom', 'either'],
        moveEase: ['poor'],
        lifeForm: ['perennial', 'groundcover'],
        divideHow: ['cut', 'saw', 'rhizome'],
      },
      due: 'division',
    },
    windows: [afterHeat],
    why: 'It is slow to settle: divided in early autumn, when its buds are at rest, it roots before winter.',
    missed: 'Wait for the next autumn.',
  }),
  divide({
    id: 'divide-spring',
    applies: {
      traits: {
        moveWhen: ['spring'],
        divideHow: ['pull apart', 'cut', 'saw', 'rhizome', 'offsets'],
        lifeForm: ['perennial', 'groundcover', 'cool grass', 'fern', 'succulent', 'bulb'],
      },
      due: 'division',
    },
    windows: [inSpring],
    why: 'Late bloomers are divided in spring as growth shows, with the season to re-establish.',
    missed: 'Wait for the next spring.',
  }),
  divide({
    id: 'divide-warm-grass',
    applies: {
      traits: { divideHow: ['pull apart', 'cut', 'saw'], lifeForm: ['warm grass'] },
      due: 'division',
    },
    windows: [inWarmSpring],
    labour: { setUp: 20, perPlant: 25 },
    tools: ['spade', 'saw or axe', 'stout gloves'],
    why: 'Warm-season grasses make roots only once the soil has warmed; divided in autumn they rot.',
    missed: 'Wait for the next spring.',
  }),
  divide({
    id: 'divide-iris-rhizomes',
    applies: { taxa: ['Iris germanica'], due: 'division' },
    windows: [afterIrisBloom],
    forbids: ['in flower', 'sodden soil'],
    steps: [
      'Lift, cut away the old middle, keep outer pieces with one fan of leaves each.',
      'Trim leaves to a hand’s breadth; replant with the top of the rhizome in the sun.',
    ],
    why: 'Bearded irises rest in summer heat; replanted then they flower the next year.',
    missed: 'Wait until after the next bloom.',
  }),
  divide({
    id: 'divide-bulbs',
    applies: {
      traits: { lifeForm: ['bulb'], moveWhen: ['died down'], divideHow: ['offsets', 'cut'] },
      notTaxa: [...autumnBulbs, ...greenBulbs],
      due: 'division',
    },
    windows: [diedDown],
    does: 'Lift, separate the offsets and replant at two to three times their height',
    labour: { setUp: 10, perPlant: 2 },
    tools: ['fork', 'dibber or trowel'],
    steps: [
      'Lift once the leaves have died down; mark the clump before they go.',
      'Replant at two to three times the bulb’s height, point up.',
    ],
    why: 'Crowded bulbs give leaves and few flowers.',
    missed: 'Mark the clump now and do it when the leaves have died down next year.',
  }),
  divide({
    id: 'divide-autumn-bulbs',
    applies: { taxa: autumnBulbs, traits: { divideHow: ['offsets', 'cut'] }, due: 'division' },
    windows: [summerRest],
    does: 'Lift, separate the offsets and replant at two to three times their height',
    labour: { setUp: 10, perPlant: 2 },
    tools: ['fork', 'dibber or trowel'],
    steps: [
      'Lift once the leaves have gone; mark them before.',
      'Replant at once, point up: they flower even unplanted.',
    ],
    why: 'Crowded bulbs give leaves and few flowers.',
    missed: 'Mark the clump now and do it next summer.',
  }),
  divide({
    id: 'divide-in-the-green',
    applies: { taxa: greenBulbs, traits: { divideHow: ['offsets', 'cut'] }, due: 'division' },
    windows: [inTheGreen],
    does: 'Lift the clump in leaf, pull it apart and replant at the depth it had',
    labour: { setUp: 10, perPlant: 2 },
    tools: ['fork', 'trowel', 'can'],
    steps: [
      'In threes and fours, a hand apart, to the pale part of the leaf.',
      'Water in, and leave the leaves on.',
    ],
    why: 'Crowded bulbs give leaves and few flowers.',
    missed: 'Mark the clump now and do it next spring, when the flowers are over.',
  }),
]
