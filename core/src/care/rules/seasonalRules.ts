import type { Applies, CareRule, WindowSpec } from '../rule.ts'

const planting: Pick<CareRule, 'forbids' | 'labour' | 'tools' | 'steps' | 'yearly' | 'bySchool'> = {
  forbids: ['heat', 'frozen soil', 'sodden soil', 'hard frost'],
  labour: { setUp: 10, perPlant: 4 },
  tools: ['trowel', 'watering can'],
  steps: [
    'What stood there out with its roots, sick leaves into the bin.',
    'Fork compost in, level, rake; a feed by its label.',
    'Lay out first, look, adjust, then plant.',
    'Top of the ball level with the soil; firm and water.',
  ],
  bySchool: [
    {
      id: 'mulch-order',
      steps: {
        after: 'Mulch when all is planted, off the crowns.',
        before: 'Mulch first; draw it aside and plant through it.',
      },
      materials: {
        after: [{ name: 'mulch', unit: 'l', perM2: 50 }],
        before: [{ name: 'mulch', unit: 'l', perM2: 50 }],
      },
    },
  ],
  yearly: false,
}

const annualRoots = {
  id: 'pot-roots',
  steps: {
    whole: 'Leave the root balls of annuals whole.',
    loosened: 'Loosen the root balls of annuals before they go in.',
  },
} as const

const CHILL_FIRST = 'Where winters stay above 9 °C in the soil, chill them first for eight to ten weeks.'

const warmIn: WindowSpec = {
  season: 'spring',
  earliest: {
    latestOf: [
      { at: 'last frost', share: 50, days: 10, or: { at: 'midwinter' } },
      { at: 'nights above', c: 8, or: { at: 'midsummer', days: -30 } },
    ],
  },
  bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'last frost', share: 90, or: { at: 'earliest' } }] },
  bestTo: { at: 'best from', days: 21 },
  latest: { at: 'best from', days: 50 },
  because: {
    earliest: 'nights are warm enough; bring them in on a cold one',
    bestFrom: 'frost is past',
    bestTo: 'the whole season is ahead',
    latest: 'too little of the season is left to pay for them',
  },
}

/** What a dry cover brings through a winter near its limit. */
const coverable: Applies = {
  traits: {
    lifeForm: [
      'perennial',
      'bulb',
      'deciduous shrub',
      'evergreen shrub',
      'climber',
      'warm grass',
      'tender perennial',
      'fern',
    ],
    mulchAtCrown: [true],
  },
  winter: ['at risk'],
  place: 'bed',
}

/** Rules of what stands for a season: setting out, swapping, taking in for the winter. */
export const seasonal: readonly CareRule[] = [
  {
    id: 'plant-warm-season',
    operation: 'swap',
    does: 'Set warm-season plants out, in bud',
    applies: { traits: { annualSeason: ['warm'] } },
    windows: [warmIn],
    ...planting,
    bySchool: [...planting.bySchool!, annualRoots],
    why: 'Warm-season plants stand still in cold soil and die of frost.',
    missed: 'Buy larger plants, or wait for the cool-season swap.',
  },
  {
    id: 'plant-cool-season',
    operation: 'swap',
    does: 'Set cool-season plants out, in bud',
    applies: { traits: { annualSeason: ['cool'] } },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'soil below', c: 18, or: { at: 'midsummer' } },
        bestFrom: { at: 'earliest', days: 5 },
        bestTo: {
          earliestOf: [
            { at: 'latest', days: -10 },
            { at: 'earliest', days: 42 },
          ],
        },
        latest: { at: 'rooting time left', weeks: 4, c: 6 },
        because: {
          earliest: 'in warmer soil they stretch and stop',
          bestFrom: 'soil is cool and falling',
          bestTo: 'they root well before cold',
          latest: '',
        },
        hurry: 21,
      },
      {
        season: 'spring',
        earliest: {
          latestOf: [
            { at: 'soil above', c: 6 },
            { at: 'last frost', share: 50, days: -35, or: { at: 'midwinter' } },
          ],
        },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'earliest', days: 28 },
        latest: { at: 'days above', c: 20, or: { at: 'earliest', days: 45 } },
        because: {
          earliest: 'they bear light frost and root from then',
          bestFrom: 'the cool weeks are all ahead',
          bestTo: 'they still have weeks before heat',
          latest: 'heat soon ends them',
        },
      },
    ],
    ...planting,
    bySchool: [...planting.bySchool!, annualRoots],
    why: 'Cool-season plants root while soil is below about 18 °C and falling, and flower until heat.',
    missed: 'The next cool spell: spring where winters are hard, autumn where they are mild.',
  },
  {
    id: 'clear-warm-season',
    verb: 'clear',
    operation: 'swap',
    does: 'Take warm-season plants out; save what is worth keeping',
    applies: { traits: { annualSeason: ['warm'], cutBack: ['none', 'after frost'] } },
    school: { id: 'faded-annuals', choice: 'remove' },
    windows: [
      {
        season: 'autumn',
        earliest: {
          earliestOf: [
            { at: 'first frost', share: 10, days: -7, or: { at: 'is gone', days: -21 } },
            { at: 'soil below', c: 13, or: { at: 'is gone', days: -21 } },
            // What is to follow has its last weeks then, frost or not.
            { at: 'rooting time left', weeks: 4, c: 6, days: -21 },
          ],
        },
        bestFrom: {
          latestOf: [
            { at: 'earliest' },
            {
              earliestOf: [
                { at: 'first frost', share: 50, days: -10, or: { at: 'is gone', days: -14 } },
                { at: 'rooting time left', weeks: 4, c: 6, days: -14 },
              ],
            },
          ],
        },
        bestTo: { at: 'first frost', share: 50, days: 7, or: { at: 'is gone' } },
        latest: { at: 'first frost', share: 90, days: 14, or: { at: 'is gone', days: 30 } },
        because: {
          earliest: 'sooner they still flower, and what follows does not yet want their place',
          bestFrom: 'they are about to end, and what follows still roots',
          bestTo: 'their successors still root',
          latest: 'nothing planted after them would root before winter',
        },
      },
    ],
    forbids: ['sodden soil'],
    labour: { setUp: 10, perPlant: 1.5 },
    tools: ['fork', 'barrow'],
    why: 'Their place is wanted by what carries the cool months.',
    missed: 'Clear when frost has taken them.',
    yearly: true,
  },
  {
    id: 'clear-cool-season',
    verb: 'clear',
    operation: 'swap',
    does: 'Take cool-season plants out as heat ends them',
    applies: { traits: { annualSeason: ['cool'] } },
    windows: [
      {
        season: 'summer',
        earliest: {
          earliestOf: [
            { at: 'days above', c: 22, or: { at: 'bloom ends', days: -10 } },
            { at: 'bloom ends', days: -10, or: { at: 'days above', c: 22 } },
          ],
          or: { at: 'longest day' },
        },
        bestFrom: { at: 'earliest', days: 5 },
        bestTo: { at: 'earliest', days: 21 },
        latest: { at: 'earliest', days: 42 },
        because: {
          earliest: 'they flower well until then',
          bestFrom: 'they stretch and stop flowering',
          bestTo: 'what follows still has the season',
          latest: 'what follows would come too late',
        },
      },
    ],
    forbids: [],
    labour: { setUp: 10, perPlant: 1.5 },
    tools: ['fork', 'barrow'],
    why: 'Heat ends them, and their place is wanted.',
    missed: 'Clear at the next visit.',
    yearly: true,
  },
  {
    id: 'plant-spring-bulbs',
    operation: 'plant',
    does: 'Plant bulbs two to three times their height deep, closer in pots, point up, in clumps',
    applies: {
      traits: { lifeForm: ['bulb'], moveWhen: ['died down'] },
      notTaxa: ['Tulipa', 'Crocus speciosus', 'Colchicum', 'Cyclamen', 'Lilium'],
    },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'soil below', c: 16, or: { at: 'next midwinter', days: -60 } },
        bestFrom: { at: 'soil below', c: 14, or: { at: 'earliest' } },
        bestTo: { at: 'soil below', c: 9, or: { at: 'earliest', days: 45 } },
        latest: { at: 'soil below', c: 4, or: { at: 'next midwinter' } },
        because: {
          earliest: 'in warm soil bulbs rot or start too soon',
          bestFrom: 'roots start in cooling soil',
          bestTo: 'roots are made before winter',
          latest: 'ground that cold makes no roots',
        },
      },
    ],
    ...planting,
    labour: { setUp: 10, perPlant: 1.2 },
    steps: ['Plant in clumps, at two to three times the bulb’s height, closer in pots.', CHILL_FIRST],
    why: 'Bulbs root in cooling soil and need a winter’s cold to flower.',
    missed: 'Plant as long as the ground is open; they flower shorter the first year.',
  },
  {
    id: 'plant-tulips',
    operation: 'plant',
    does: 'Plant tulips at three times their height, point up, in clumps',
    applies: { taxa: ['Tulipa'] },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'soil below', c: 12, or: { at: 'next midwinter', days: -35 } },
        bestFrom: { at: 'soil below', c: 10, or: { at: 'earliest' } },
        bestTo: { at: 'best from', days: 30 },
        latest: { at: 'soil below', c: 3, or: { at: 'next midwinter', days: 14 } },
        because: {
          earliest: 'in warmer soil they catch blight',
          bestFrom: 'the soil is cold enough to check tulip fire',
          bestTo: 'roots are made before the ground is coldest',
          latest: 'ground that cold is hard to open',
        },
      },
    ],
    ...planting,
    steps: ['Plant in clumps, three times the bulb’s height deep, closer in pots.', CHILL_FIRST],
    labour: { setUp: 10, perPlant: 1.2 },
    why: 'Tulips are planted last of the bulbs: cold soil keeps blight off.',
    missed: 'Plant into midwinter while the ground is open.',
  },
  {
    id: 'chill-bulbs',
    operation: 'prepare',
    verb: 'chill',
    does: 'Chill the bulbs dry at 3 to 7 °C for eight to ten weeks, away from ripening fruit',
    applies: { taxa: ['Tulipa', 'Hyacinthus', 'Crocus'], winterMilderThanC: -1 },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'next midwinter', days: -91 },
        bestFrom: { at: 'next midwinter', days: -84 },
        bestTo: { at: 'next midwinter', days: -63 },
        latest: { at: 'next midwinter', days: -56 },
        because: {
          earliest: 'chilled sooner they start in the cold',
          bestFrom: 'ten weeks on, the soil is at its coldest',
          bestTo: 'ten weeks of cold are still to be had',
          latest: 'eight weeks are the least that make them flower',
        },
      },
    ],
    forbids: [],
    labour: { setUp: 10, perPlant: 0.2 },
    tools: ['paper bags', 'refrigerator'],
    why: 'Where the soil never turns cold, bulbs of cold countries do not flower unless they are chilled.',
    missed: 'Buy bulbs that were chilled.',
    yearly: true,
  },
  {
    id: 'lift-tender-roots',
    operation: 'lift',
    does: 'Lift, dry and store frost-free',
    applies: {
      taxa: ['Dahlia', 'Canna', 'Gladiolus × hortulanus', 'Colocasia', 'Begonia × tuberhybrida', 'Musa'],
      winter: ['tender'],
      place: 'bed',
    },
    windows: [
      {
        season: 'autumn',
        earliest: {
          latestOf: [
            { at: 'first frost', share: 10, days: -3, or: { at: 'is gone' } },
            { at: 'bloom starts', days: 21 },
          ],
        },
        bestFrom: { at: 'first frost', share: 50, days: 2, or: { at: 'is gone' } },
        bestTo: { at: 'first frost', share: 50, days: 16, or: { at: 'is gone', days: 21 } },
        latest: { at: 'first frost', share: 90, days: 10, or: { at: 'is gone', days: 30 } },
        because: {
          earliest: 'roots ripen until growth is blackened',
          bestFrom: 'the tops are blackened and roots are ripe',
          bestTo: 'frost has not reached the roots',
          latest: 'frost reaches the roots by then',
        },
      },
    ],
    forbids: ['sodden soil', 'frozen soil'],
    labour: { setUp: 15, perPlant: 8 },
    tools: ['fork', 'labels', 'crates'],
    steps: [
      'Cut to a hand’s breadth, lift without piercing, shake off soil, dry upside down for some days.',
      'Store labelled, dry, at 5 to 10 °C.',
    ],
    cautions: ['Lift with bent knees.'],
    why: 'Its roots die in ground that freezes.',
    missed: 'Cover the crown with a thick dry mulch at once, and hope.',
    yearly: true,
  },
  {
    id: 'bring-in-tender',
    operation: 'bring in',
    does: 'Bring under cover before cold nights',
    applies: {
      traits: { lifeForm: ['tender perennial', 'small tree', 'evergreen shrub', 'succulent'] },
      winter: ['tender'],
      tendererThanC: -12,
      place: 'container',
    },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'nights below', c: 10, or: { at: 'first frost', share: 10, days: -28 } },
        bestFrom: { at: 'nights below', c: 8, or: { at: 'earliest' } },
        bestTo: { at: 'first frost', share: 10, days: -3, or: { at: 'earliest', days: 21 } },
        latest: { at: 'first frost', share: 50, or: { at: 'earliest', days: 45 } },
        because: {
          earliest: 'cool nights harden it',
          bestFrom: 'nights near its limit begin',
          bestTo: 'before the first frost in most years',
          latest: 'frost usually comes then',
        },
      },
    ],
    forbids: [],
    labour: { setUp: 10, perPlant: 10 },
    tools: ['sack truck', 'fleece'],
    cautions: ['Wet pots are heavy: two people or a sack truck.'],
    steps: ['Clean, check for pests, and bring it in before the forecast nears its limit.'],
    why: 'It does not survive this garden’s winter outdoors.',
    missed: 'Cover with fleece tonight; bring in tomorrow.',
    yearly: true,
  },
  {
    id: 'protect-crowns',
    operation: 'protect',
    does: 'Cover the crown with a dry mulch',
    applies: coverable,
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'first frost', share: 50, days: -14, or: { at: 'is gone' } },
        bestFrom: { at: 'first frost', share: 50 },
        bestTo: { at: 'first frost', share: 90, days: 7, or: { at: 'is gone', days: 21 } },
        latest: {
          latestOf: [
            { at: 'next midwinter', days: -14 },
            { at: 'earliest', days: 28 },
          ],
        },
        because: {
          earliest: 'covered while warm it goes on growing',
          bestFrom: 'light frost has hardened it',
          bestTo: 'before the ground freezes',
          latest: 'the hardest cold is near',
        },
      },
    ],
    forbids: ['sodden soil'],
    labour: { setUp: 10, perPlant: 6 },
    materials: [{ name: 'straw, bracken or bark', unit: 'l', perPlant: 20 }],
    tools: ['fork', 'pegs and netting'],
    why: 'Its limit lies near the lowest usual temperature here.',
    missed: 'Cover before the next hard frost in the forecast.',
    yearly: true,
  },
  {
    id: 'uncover-crowns',
    verb: 'uncover',
    operation: 'protect',
    does: 'Take winter covers off on a dull day',
    applies: coverable,
    windows: [
      {
        season: 'spring',
        earliest: { at: 'last frost', share: 50, days: -21, or: { at: 'growth shows' } },
        // What shows in autumn is not waited for.
        bestFrom: {
          earliestOf: [
            { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: -3 }] },
            { at: 'earliest', days: 35 },
          ],
        },
        bestTo: { at: 'best from', days: 14 },
        latest: { at: 'best from', days: 28 },
        because: {
          earliest: 'hard frosts are usually over',
          bestFrom: 'growth is about to show',
          bestTo: 'new shoots are still hard',
          latest: 'shoots grow pale and soft under cover',
        },
      },
    ],
    forbids: ['hard frost'],
    labour: { setUp: 5, perPlant: 3 },
    tools: ['barrow'],
    why: 'Kept covered, new growth rots or is drawn.',
    missed: 'Take them off at once; keep fleece at hand.',
    yearly: true,
  },
]
