import type { CareRule } from '../rule.ts'

const EDGE = 'At the edge of water: a second person, firm footing, and children kept away.'

/** Rules of the edge of a pond or stream. */
export const waters: readonly CareRule[] = [
  {
    id: 'pond-margin-autumn',
    operation: 'cut back',
    verb: 'clear the margin of',
    does: 'Cut what dies down at the water’s edge before it falls in, and net fallen leaves out',
    applies: { wholePlace: true, place: 'bed', byWater: true },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'soil below', c: 13 },
        bestFrom: { at: 'soil below', c: 11 },
        bestTo: { at: 'soil below', c: 7, or: { at: 'next midwinter', days: -21 } },
        latest: { at: 'soil below', c: 4, or: { at: 'next midwinter' } },
        because: {
          earliest: 'leaves are still green and feed the crowns',
          bestFrom: 'leaves are turning and have not yet fallen',
          bestTo: 'what lies in the water rots from now on',
          latest: 'ice comes, and the bank is slippery',
        },
      },
    ],
    forbids: ['hard frost', 'frozen soil'],
    labour: { setUp: 15, perM2: 5 },
    tools: ['shears', 'pond net', 'rake', 'waterproof gloves'],
    cautions: [EDGE],
    steps: [
      'Hollow stems are cut above the water: under it they let water in and rot.',
      'What is pulled out of the water lies beside it for a day, so that what lives in it can go back.',
      'Leave some standing on the far side, for what winters in it.',
    ],
    why: 'Leaves that rot in still water take its air and feed next summer’s algae.',
    missed: 'Net out what has fallen as soon as the ice is gone.',
    yearly: true,
  },
  {
    id: 'pond-margin-spring',
    operation: 'upkeep',
    verb: 'thin the margin of',
    does: 'Lift and thin what runs into the water, and take duckweed and blanket weed out',
    applies: { wholePlace: true, place: 'bed', byWater: true },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'soil above', c: 8 },
        bestFrom: { at: 'soil above', c: 10, or: { at: 'earliest' } },
        bestTo: { at: 'best from', days: 35 },
        latest: { at: 'best from', days: 60 },
        because: {
          earliest: 'spawn and what winters in the mud are left in peace until then',
          bestFrom: 'shoots show what runs, and pieces root at once',
          bestTo: 'leaves are still short enough to work between',
          latest: 'growth covers the edge, and much lives in it',
        },
      },
    ],
    everySeasons: 2,
    forbids: ['frozen soil'],
    labour: { setUp: 20, perM2: 8 },
    tools: ['old knife', 'spade', 'pond net', 'waterproof gloves'],
    cautions: [EDGE],
    steps: [
      'Work from a board; a liner is cut by a spade before one sees it.',
      'No more than a third of the edge in one year.',
      'No feed and no weedkiller here: both run into the water.',
    ],
    why: 'Left alone the strongest of the edge takes it whole, and the open water with it.',
    missed: 'Late summer will do, before the leaves turn.',
    yearly: true,
  },
]
