import type { Anchor, CareRule, WindowSpec } from '../rule.ts'

const handTools = ['secateurs', 'shears', 'sheet for clippings']
const cut: Pick<CareRule, 'operation' | 'forbids' | 'labour' | 'tools' | 'yearly'> = {
  operation: 'cut back',
  forbids: ['rain', 'frozen soil'],
  labour: { setUp: 5, perPlant: 2, perM2: 3 },
  tools: handTools,
  yearly: true,
}

const aroundNewGrowth = (from: number, last: number, latestWhy: string): WindowSpec => ({
  season: 'winter',
  earliest: {
    latestOf: [
      { at: 'midwinter', days: -40 },
      { at: 'growth shows', days: from },
    ],
  },
  bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: Math.round(from * 0.7) }] },
  bestTo: { at: 'growth shows', days: -3 },
  latest: { at: 'growth shows', days: last },
  because: {
    earliest: 'until then it stands for looks and shelters crown and insects',
    bestFrom: 'winter’s worst is over and it has served its time',
    bestTo: 'no new shoot is cut with the old',
    latest: latestWhy,
  },
})

/** Taxa hardy to less than this keep their old growth over the crown until spring. */
const BEARS_A_BARE_CROWN_C = -16

/** Cut down in autumn whatever the school: their diseases winter on old stems. */
const clearedInAutumn = ['Paeonia lactiflora', 'Paeonia officinalis']

/** Where frost comes before a plant has gone over of itself, it has blackened it by then. */
const blackened = (days: number): Anchor => ({
  at: 'first frost',
  share: 90,
  days,
  or: { at: 'is gone', days: -14 },
})
/** The ground is about to freeze; where it never does, it is the plant that ends it. */
const frozen = (c: number, days: number): Anchor => ({ at: 'soil below', c, or: { at: 'is gone', days } })

const asItGoesOver: WindowSpec = {
  season: 'autumn',
  earliest: {
    earliestOf: [
      {
        latestOf: [
          { at: 'goes over', days: 14 },
          { at: 'bloom ends', days: 7, or: { at: 'goes over', days: 14 } },
        ],
      },
      blackened(3),
    ],
  },
  bestFrom: { earliestOf: [{ at: 'is gone', days: -14 }, blackened(10)] },
  bestTo: { earliestOf: [{ at: 'is gone', days: 21 }, frozen(3, 21)] },
  latest: { earliestOf: [{ at: 'is gone', days: 49 }, frozen(1, 49)] },
  because: {
    earliest: 'green leaves still feed the crown',
    bestFrom: 'it has given back what it can',
    bestTo: 'the beds are tidy before hard weather',
    latest: 'after that the crowns are better left covered until late winter',
  },
}

/** Days from the first of its flowers or of its new growth, whichever comes first: hellebores flower first, lilyturf grows first. */
const beforeEither = (bloomDays: number, growthDays: number): Anchor => ({
  earliestOf: [
    { at: 'bloom starts', days: bloomDays },
    { at: 'growth shows', days: growthDays },
  ],
})

/** They hold a wall by themselves. */
const selfClingers = ['Hedera', 'Hydrangea petiolaris', 'Parthenocissus', 'Euonymus fortunei']

/** Rules of what follows the growth of a season: cutting back, staking, dividing, feeding. */
export const growth: readonly CareRule[] = [
  {
    ...cut,
    id: 'cut-back-late-winter',
    does: 'Cut dead growth to the crown',
    applies: {
      traits: { cutBack: ['herbaceous'] },
      notTaxa: clearedInAutumn,
      hardierThanC: BEARS_A_BARE_CROWN_C,
    },
    school: { id: 'cutting-back', choice: 'late-winter' },
    windows: [aroundNewGrowth(-55, 12, 'new shoots stand among the old and are cut with them')],
    why: 'Left standing, dead growth feeds birds, shelters insects and keeps frost off the crown.',
    missed: 'Pick the old stems out by hand between the new ones.',
  },
  {
    ...cut,
    id: 'cut-back-after-winter',
    does: 'Leave the growth on through winter; cut it to the crown as new shoots show',
    applies: { traits: { cutBack: ['herbaceous'] }, tendererThanC: BEARS_A_BARE_CROWN_C },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows', days: -7 },
        bestFrom: { at: 'growth shows' },
        bestTo: { at: 'growth shows', days: 14 },
        latest: { at: 'growth shows', days: 30 },
        because: {
          earliest: 'a late frost still finds the crown covered',
          bestFrom: 'living buds can be told from dead wood',
          bestTo: 'new shoots are short enough to miss',
          latest: 'new shoots stand among the old and are cut with them',
        },
      },
    ],
    why: 'Of what is not very hardy the old growth keeps frost off the crown, whatever the school.',
    missed: 'Pick the old stems out by hand between the new ones.',
  },
  {
    ...cut,
    id: 'cut-back-autumn',
    does: 'Cut growth that has gone over to the crown',
    applies: {
      traits: { cutBack: ['herbaceous'] },
      notTaxa: clearedInAutumn,
      hardierThanC: BEARS_A_BARE_CROWN_C,
    },
    school: { id: 'cutting-back', choice: 'autumn' },
    windows: [asItGoesOver],
    why: 'A bed cleared in autumn is tidy through winter and leaves fewer slugs and spores.',
    missed: 'Leave it standing now, and cut in late winter.',
  },
  {
    ...cut,
    id: 'clear-in-autumn',
    does: 'Cut to the ground and clear every leaf',
    applies: { taxa: clearedInAutumn },
    windows: [asItGoesOver],
    cautions: ['Sick leaves go into the bin, not onto the heap.'],
    why: 'Its blight and leaf spot winter on old stems: whatever the school, these are cleared in autumn.',
    missed: 'Clear it before new shoots show; what has wintered on it is in the crown by then.',
  },
  {
    ...cut,
    id: 'cut-back-warm-grass',
    does: 'Cut to a hand’s breadth before new green comes through',
    applies: { traits: { cutBack: ['warm grass'] } },
    windows: [aroundNewGrowth(-50, 8, 'new blades are through and would be cut off square')],
    labour: { setUp: 5, perPlant: 6 },
    tools: ['shears or hedge trimmer', 'twine', 'stout gloves'],
    cautions: ['Blades cut: gloves and sleeves.'],
    steps: ['Tie the clump with twine, cut below the tie, lift it off whole.'],
    why: 'Its new blades come in warm soil; last year’s stand handsomely until shortly before.',
    missed: 'Comb out what comes loose; cut above the new green.',
  },
  {
    ...cut,
    id: 'comb-grass',
    does: 'Comb dead blades out with gloved fingers or a rake; never cut hard',
    applies: { traits: { cutBack: ['comb'] } },
    windows: [
      {
        season: 'spring',
        earliest: {
          latestOf: [
            { at: 'growth shows', days: -10 },
            { at: 'midwinter', days: 14 },
          ],
        },
        bestFrom: { at: 'growth shows' },
        bestTo: { at: 'growth shows', days: 35 },
        latest: { at: 'growth shows', days: 56 },
        because: {
          earliest: 'its leaves carry it through winter',
          bestFrom: 'growth is moving and dead blades come away',
          bestTo: 'flower stems are not yet up',
          latest: 'flower stems would be pulled with the dead',
        },
      },
    ],
    labour: { setUp: 5, perPlant: 4 },
    tools: ['rubber gloves', 'spring rake'],
    why: 'Cool-season and evergreen grasses grow from what a hard cut would take.',
    missed: 'It can be combed lightly at any time.',
  },
  {
    ...cut,
    id: 'old-leaves-before-bloom',
    verb: 'take old leaves off',
    does: 'Take last year’s leaves off at the base',
    applies: { traits: { cutBack: ['old leaves'] }, flowers: true },
    windows: [
      {
        season: 'winter',
        earliest: {
          latestOf: [{ at: 'midwinter', days: -40 }, beforeEither(-60, -42)],
        },
        bestFrom: { latestOf: [{ at: 'earliest' }, beforeEither(-40, -21)] },
        bestTo: beforeEither(-5, 7),
        latest: beforeEither(10, 21),
        because: {
          earliest: 'old leaves still shelter the buds',
          bestFrom: 'buds are about to rise',
          bestTo: 'new leaves and stems are not yet among the old',
          latest: 'what is new would be cut with what is old',
        },
      },
    ],
    why: 'The flowers show, and leaf spot is not carried over.',
    missed: 'Take single spotted leaves as you see them.',
  },
  {
    ...cut,
    id: 'old-fronds',
    verb: 'take old fronds off',
    does: 'Take old fronds off before the new ones unroll',
    applies: { traits: { cutBack: ['old leaves'], lifeForm: ['fern'] } },
    windows: [aroundNewGrowth(-45, 10, 'unrolling fronds snap off')],
    why: 'New fronds unroll clean when the old are off first.',
    missed: 'Cut single old fronds out between the new.',
  },
  {
    ...cut,
    id: 'shear-after-bloom-low',
    does: 'Clip over once flowers are spent',
    applies: { traits: { cutBack: ['shear'] }, flowers: true },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends', days: -4 },
        bestFrom: { at: 'bloom ends' },
        bestTo: { at: 'bloom ends', days: 14 },
        latest: {
          earliestOf: [
            { at: 'bloom ends', days: 35 },
            { at: 'warmth left', degreeDays: 250 },
          ],
        },
        because: {
          earliest: 'the last flowers go then',
          bestFrom: 'it makes new leaves at once',
          bestTo: 'fresh growth has the longest season',
          latest: 'new growth would not harden before cold',
        },
      },
    ],
    why: 'It makes a fresh low cover of leaves and does not go bare.',
    missed: 'Leave it; clip after the next bloom.',
  },
  {
    ...cut,
    id: 'cut-by-half',
    does: 'Cut by half, or only the front stems, to flower later and stand up',
    applies: { traits: { halves: [true] }, flowers: true },
    windows: [
      {
        season: 'summer',
        earliest: {
          latestOf: [
            { at: 'longest day', days: -40 },
            { at: 'growth shows', days: 25 },
          ],
        },
        bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'longest day', days: -30 }] },
        bestTo: { latestOf: [{ at: 'best from' }, { at: 'longest day', days: -12 }] },
        latest: {
          earliestOf: [
            { at: 'longest day', days: 10 },
            { at: 'bloom starts', days: -38 },
          ],
        },
        because: {
          earliest: 'stems must be tall enough to branch',
          bestFrom: 'stems are about knee high',
          bestTo: 'flowering is put back by some three weeks, not more',
          latest: 'flower buds are forming in the tips',
        },
      },
    ],
    labour: { setUp: 5, perPlant: 2 },
    steps: [
      'Cut all stems of a clump by half for compact plants, or every other stem or plant of a drift to lengthen its bloom.',
    ],
    why: 'Shorter, branched stems flower some three weeks later and need no stake.',
    missed: 'Support it instead; from then on a cut costs flowers.',
  },
  {
    ...cut,
    id: 'cut-after-first-flush',
    does: 'Cut to low growth, feed nothing, water once',
    applies: { traits: { repeats: ['when cut back'] } },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'first flush ends', days: -14 },
        bestFrom: { at: 'first flush ends', days: -7 },
        bestTo: { at: 'first flush ends', days: 7 },
        latest: {
          earliestOf: [
            { at: 'first flush ends', days: 21 },
            { at: 'warmth left', degreeDays: 450 },
          ],
        },
        because: {
          earliest: 'the first flush is past its best',
          bestFrom: 'fewer flowers are left than are spent',
          bestTo: 'a second flush has the longest season',
          latest: 'too little warmth is left for a second flush',
        },
      },
    ],
    why: 'Cut to low growth after the first flush it makes new leaves and flowers again.',
    missed: 'Take only the spent stems; there will be no second flush.',
  },
  {
    id: 'deadhead',
    operation: 'deadhead',
    does: 'Take off spent flowers',
    applies: { traits: { repeats: ['when deadheaded'] }, flowers: true },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom starts', days: 12 },
        bestFrom: { at: 'bloom starts', days: 12 },
        bestTo: { at: 'bloom ends', days: -14 },
        latest: { at: 'bloom ends', days: -3 },
        because: {
          earliest: 'the first flowers are spent',
          bestFrom: 'spent flowers are there to take',
          bestTo: 'there is time for more flowers',
          latest: 'after that let heads set seed for the birds',
        },
      },
    ],
    everyDays: 14,
    notBelowC: 6,
    forbids: ['rain'],
    labour: { setUp: 5, perPlant: 1.5 },
    tools: ['snips', 'bucket'],
    why: 'Without seed to ripen it goes on flowering.',
    missed: 'Do it at the next round.',
    yearly: true,
  },
  {
    id: 'deadhead-self-seeders',
    operation: 'deadhead',
    does: 'Take the seed heads off before they shed, but for a few where seedlings are welcome',
    applies: { traits: { selfSeeds: ['freely'] }, flowers: true },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends', days: -12 },
        bestFrom: { at: 'bloom ends', days: -7 },
        bestTo: { at: 'bloom ends', days: 4 },
        latest: { at: 'bloom ends', days: 14 },
        because: {
          earliest: 'the first heads are ripening',
          bestFrom: 'most flowers are spent and no seed has fallen',
          bestTo: 'seed is not yet loose',
          latest: 'seed has been shed by then',
        },
      },
    ],
    forbids: ['wind'],
    labour: { setUp: 5, perPlant: 1.5 },
    tools: ['snips', 'bag'],
    why: 'It seeds itself freely: an hour now saves many of weeding.',
    missed: 'Hoe the seedlings as they come.',
    yearly: true,
  },
  {
    ...cut,
    id: 'clear-bulb-leaves',
    verb: 'clear',
    does: 'Clear leaves that have died down; never tie or cut them green',
    applies: { traits: { cutBack: ['leave'] } },
    windows: [
      {
        season: 'summer',
        earliest: { latestOf: [{ at: 'is gone' }, { at: 'bloom ends', days: 42, or: { at: 'is gone' } }] },
        bestFrom: { at: 'earliest' },
        bestTo: { at: 'earliest', days: 21 },
        latest: { at: 'earliest', days: 45 },
        because: {
          earliest: 'leaves feed next year’s bulb until they have yellowed',
          bestFrom: 'they come away at a touch',
          bestTo: 'neighbours have not yet grown over them',
          latest: 'they have rotted away of themselves',
        },
      },
    ],
    labour: { setUp: 5, perM2: 4 },
    why: 'Leaves taken green cost next year’s flowers.',
    missed: 'Nothing is lost.',
  },
  {
    ...cut,
    id: 'cut-after-frost',
    does: 'Take blackened growth down to a hand’s breadth',
    applies: { traits: { cutBack: ['after frost'] } },
    windows: [
      {
        season: 'autumn',
        earliest: {
          latestOf: [
            { at: 'first frost', share: 10, or: { at: 'is gone' } },
            { at: 'bloom starts', days: 21 },
          ],
        },
        bestFrom: { at: 'first frost', share: 50, days: 2, or: { at: 'is gone' } },
        bestTo: { at: 'first frost', share: 50, days: 16, or: { at: 'is gone', days: 21 } },
        latest: { at: 'first frost', share: 90, days: 21, or: { at: 'is gone', days: 45 } },
        because: {
          earliest: 'it flowers until frost',
          bestFrom: 'the first frost has blackened it and sap has gone down',
          bestTo: 'before the cold reaches the crown',
          latest: 'the crown is cold and wet by then',
        },
      },
    ],
    why: 'Frosted growth rots into the crown.',
    missed: 'Take it down as soon as it is seen.',
  },
  {
    id: 'stake',
    operation: 'stake',
    does: 'Put supports in while they can still grow through',
    applies: { traits: { wind: ['staked'] } },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows', days: 10 },
        bestFrom: { at: 'growth shows', days: 21 },
        bestTo: { at: 'growth shows', days: 50 },
        latest: { at: 'bloom starts', days: -14, or: { at: 'growth has shown', days: 45 } },
        because: {
          earliest: 'crowns can be seen',
          bestFrom: 'shoots are a hand high and grow through the support',
          bestTo: 'stems are still straight',
          latest: 'stems that have leaned stay bent',
        },
      },
    ],
    forbids: [],
    labour: { setUp: 5, perPlant: 5 },
    tools: ['stakes or twigs', 'twine', 'mallet'],
    cautions: ['Cap the tops of canes: eyes.'],
    why: 'Put in early, a support is hidden and the stem never leans.',
    missed: 'Single canes and ties as stems lean.',
    yearly: true,
  },
  {
    id: 'tie-in-climbers',
    operation: 'tie in',
    does: 'Tie new shoots in, fanned out and as level as they will go',
    applies: { traits: { lifeForm: ['climber'] }, notTaxa: selfClingers },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'growth has shown', days: 14 },
        bestFrom: { at: 'growth has shown', days: 28 },
        bestTo: { at: 'growth has shown', days: 75 },
        latest: { at: 'goes over', days: -30 },
        because: {
          earliest: 'shoots are long enough to lead',
          bestFrom: 'shoots still bend',
          bestTo: 'shoots are not yet woody',
          latest: 'wood has set',
        },
      },
    ],
    forbids: ['wind'],
    labour: { setUp: 5, perPlant: 12 },
    tools: ['soft twine', 'steps'],
    cautions: ['On steps: level ground, a second person for height.', 'Look for nesting birds first.'],
    why: 'Led shoots cover the wall and flower along their length; loose ones break.',
    missed: 'Tie what still bends; cut the rest back when it is pruned.',
    yearly: true,
  },
]
