import type { CareRule } from '../rule.ts'
import { base, BLIGHT, LADDER, NESTING, REGROWTH } from './pruningWindows.ts'

/** Fruit trees, whose fruit wants thinning and whose trained forms want a cut of their own. */
const fruits = ['Malus domestica']
/** Shrubs that are often trained flat, and flower along what lies flat. */
const wallShrubs = [
  'Pyracantha',
  'Chaenomeles',
  'Ceanothus',
  'Cotoneaster horizontalis',
  'Jasminum nudiflorum',
  'Camellia',
  'Magnolia',
  'Forsythia',
]

/** What is trained on walls and fences. */
const onWalls: readonly CareRule[] = [
  {
    ...base,
    id: 'winter-prune-wall-fruit',
    applies: { taxa: fruits, onWall: true },
    does: 'Thin crowded spurs, and shorten the leaders of arms that have room left by a third',
    windows: [
      {
        season: 'winter',
        earliest: { at: 'midwinter', days: -40 },
        bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'midwinter', days: -7 }] },
        bestTo: { at: 'growth shows', days: -28 },
        latest: { at: 'growth shows', days: -14 },
        because: {
          earliest: 'the leaves have fallen and the spurs can be counted',
          bestFrom: 'it is wholly at rest',
          bestTo: 'sap is still down',
          latest: 'buds are swelling, and blight and canker find open cuts',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 20, perMetre: 8 },
    steps: [
      'Of a knot of spurs the weak and those behind the arm first; a hand between those that stay.',
      'Take mummied fruit off: scab and rot winter in it.',
    ],
    cautions: [LADDER, BLIGHT],
    why: 'Old spurs carry many small fruit; thinned, they carry fewer and better ones.',
    missed: 'Next winter; thin the fruit the harder this summer.',
  },
  {
    ...base,
    id: 'summer-prune-wall-fruit',
    applies: { taxa: fruits, onWall: true },
    does: 'Shorten this year’s side shoots to three leaves above their lowest cluster, those from spurs to one',
    windows: [
      {
        season: 'summer',
        earliest: { at: 'longest day', days: 28 },
        bestFrom: { at: 'longest day', days: 38 },
        bestTo: { at: 'longest day', days: 65 },
        latest: {
          earliestOf: [
            { at: 'longest day', days: 85 },
            { at: 'warmth left', degreeDays: 150 },
          ],
        },
        because: {
          earliest: 'cut while it grows strongly, it shoots again at once',
          bestFrom: 'the lower third of the shoots has turned to wood',
          bestTo: 'fruit and fruit buds get the light and the sap of the rest of the season',
          latest: 'nothing is left of the season for buds to form in',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 25, perMetre: 10 },
    steps: [
      'Leave the leaders of arms that have not filled their room, and tie them in.',
      'What shoots again from the cuts goes off in autumn.',
      'Loosen ties that have grown tight; pull wood that presses on the wall off it.',
    ],
    cautions: [LADDER, NESTING],
    why: 'Summer cuts keep a trained tree flat and turn shoots into fruit buds.',
    missed: 'Shorten in winter to the same length; it answers with more wood and less fruit.',
  },
  {
    ...base,
    id: 'train-wall-shrubs',
    operation: 'tie in',
    applies: { taxa: wallShrubs, onWall: true },
    does: 'Tie in what will lie flat, and cut what stands out from the wall to two buds',
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends' },
        bestFrom: { at: 'bloom ends', days: 7 },
        bestTo: { at: 'bloom ends', days: 42 },
        latest: { earliestOf: [{ at: 'bloom ends', days: 70 }, REGROWTH] },
        because: {
          earliest: 'its flowers are on what would be cut',
          bestFrom: 'shoots still bend',
          bestTo: 'next year’s flowers form on what grows from here',
          latest: 'new growth would not ripen before the cold',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 20, perMetre: 8 },
    tools: ['secateurs', 'soft twine', 'steps'],
    steps: [
      'Of those kept for berries, leave the clusters that have set.',
      'Loosen ties that have grown tight.',
    ],
    cautions: [LADDER, NESTING],
    why: 'Flat on its wires it flowers along its whole length and throws no shade on the wall’s foot.',
    missed: 'After the next flowers; hard wood no longer bends to the wall.',
  },
]

const fruiting: readonly CareRule[] = [
  {
    id: 'thin-fruit',
    operation: 'upkeep',
    forbids: [],
    yearly: true,
    verb: 'thin the fruit of',
    applies: { taxa: fruits },
    does: 'Thin the fruit to one or two a cluster, a hand apart, once the tree has shed its own',
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends', days: 35 },
        bestFrom: { at: 'bloom ends', days: 42 },
        bestTo: { at: 'bloom ends', days: 63 },
        latest: { at: 'bloom ends', days: 84 },
        because: {
          earliest: 'the tree sheds what it cannot carry by itself first',
          bestFrom: 'what is left now stays',
          bestTo: 'what is left gets all of the swelling',
          latest: 'what is taken by then is lost without gain',
        },
      },
    ],
    labour: { setUp: 5, perPlant: 20 },
    tools: ['snips', 'steps'],
    cautions: [LADDER],
    why: 'Thinned fruit is larger and sounder, and the tree bears again next year.',
    missed: 'Prop laden branches; next year it may rest.',
  },
]

/** Rules of what is trained on walls and fences, and of fruit. */
export const walls: readonly CareRule[] = [...onWalls, ...fruiting]
