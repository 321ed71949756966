import { woodyForms } from '../../plants/index.ts'
import type { CareRule } from '../rule.ts'
import { kindsWithTheirOwn, pruningByKind } from './pruningByKind.ts'
import {
  afterBloom,
  anyTime,
  asBudsShow,
  base,
  BUDS_DIE_BELOW_C,
  mopheads,
  beforeGrowth,
  beforeShoots,
  NESTING,
  pastHardFrost,
  REGROWTH,
} from './pruningWindows.ts'

/** Heaths that flower into autumn. */
const lateHeaths = ['Calluna', 'Daboecia', 'Erica cinerea', 'Erica vagans', 'Erica tetralix']

/** Rules of pruning, by the wood a taxon flowers on. */
export const pruning: readonly CareRule[] = [
  ...pruningByKind,
  {
    ...base,
    id: 'prune-after-bloom',
    does: 'Take flowered stems back to strong young shoots, and a few of the oldest to the base',
    applies: {
      traits: { pruning: ['after bloom'], lifeForm: ['deciduous shrub', 'climber'] },
      notTaxa: kindsWithTheirOwn,
      flowers: true,
    },
    windows: [afterBloom(21, 49)],
    cautions: [NESTING],
    steps: [
      'Dead, broken and crossing wood first.',
      'Then flowered stems to a strong shoot low down.',
      'Of old shrubs, up to a third of the oldest stems to the ground.',
    ],
    why: 'It flowers on last year’s wood: cut in late winter it would lose its flowers.',
    missed: 'Leave it until after the next bloom; meanwhile only dead and broken wood.',
  },
  {
    ...base,
    id: 'prune-late-winter',
    does: 'Cut back to a low framework of strong buds',
    applies: {
      traits: { pruning: ['late winter'], flowersOn: ['new wood'] },
      notTaxa: [...kindsWithTheirOwn, 'Hydrangea arborescens'],
      hardierThanC: -23,
    },
    windows: [pastHardFrost(beforeShoots)],
    why: 'It flowers on the wood it makes this year: a cut before growth gives fewer and stronger stems.',
    missed: 'A light cut until growth is a hand long; then leave it until next winter.',
  },
  {
    ...base,
    id: 'prune-spring-tender-wood',
    does: 'Cut hard to live buds as growth shows',
    applies: {
      traits: { pruning: ['late winter'], flowersOn: ['new wood', null] },
      notTaxa: kindsWithTheirOwn,
      tendererThanC: -23,
    },
    windows: [asBudsShow],
    why: 'Its wood is not fully hardy, and it flowers on new growth: the cut waits until hard frost is over.',
    missed: 'Shorten lightly; it will flower high and bare at the base this year.',
  },
  {
    ...base,
    id: 'prune-winter-old-wood',
    does: 'Take out old and crossing stems to an open framework',
    applies: {
      traits: { pruning: ['late winter'], flowersOn: ['old wood', 'both'] },
      notTaxa: [...kindsWithTheirOwn, 'Clematis'],
    },
    windows: [
      beforeGrowth(-60, 10, {
        from: 'before midwinter its wood is not yet at rest',
        to: 'sap and buds are on the move',
      }),
    ],
    why: 'Its frame is clearest while it is bare; it bears some loss of flowers for better wood.',
    missed: 'Only dead wood now; the frame waits until next winter.',
  },
  {
    ...base,
    id: 'prune-clematis-both-woods',
    does: 'Shorten each stem to the first pair of strong buds',
    applies: { taxa: ['Clematis'], traits: { flowersOn: ['both'] } },
    windows: [
      beforeGrowth(-35, 10, {
        from: 'buds are too small to judge earlier',
        to: 'new shoots break off when handled',
      }),
    ],
    labour: { setUp: 5, perPlant: 20 },
    why: 'Its first large flowers come from last year’s buds, the later ones from new growth: it is only tidied.',
    missed: 'Cut some stems after the first flush instead.',
  },
  ...(['frame', 'ground'] as const).map((choice): CareRule => ({
    ...base,
    id: `prune-smooth-hydrangea-${choice}`,
    does: choice === 'frame' ? 'Cut to a frame of 30 to 45 cm' : 'Cut all stems to the ground',
    applies: { taxa: ['Hydrangea arborescens'] },
    school: { id: 'smooth-hydrangea', choice },
    windows: [
      beforeGrowth(-50, 14, {
        from: 'the spent heads shelter the stems until then',
        to: 'the stems that will flower are growing by then',
      }),
    ],
    why:
      choice === 'frame'
        ? 'It flowers on new wood; a frame of old stems holds smaller heads up.'
        : 'It flowers on new wood; from the ground it makes fewer stems with huge heads, which may need a support.',
    missed: 'Take off only the old heads; cut it next winter.',
  })),
  {
    ...base,
    id: 'tidy-mophead-hydrangea',
    verb: 'tidy',
    does: 'Take the old heads off to the first strong pair of buds, and a few of the oldest stems to the base',
    applies: { taxa: mopheads, winterMilderThanC: BUDS_DIE_BELOW_C },
    windows: [
      {
        season: 'spring',
        earliest: {
          latestOf: [
            { at: 'growth shows', days: -14 },
            { at: 'last frost', share: 50, days: -28, or: { at: 'growth shows', days: -14 } },
          ],
        },
        bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: 7 }] },
        bestTo: { at: 'best from', days: 28 },
        latest: { at: 'best from', days: 45 },
        because: {
          earliest: 'the old heads shelter the flower buds from frost',
          bestFrom: 'live buds show and hard frost is going',
          bestTo: 'shoots are short enough to work between',
          latest: 'this year’s flowers are forming at the tips',
        },
      },
    ],
    why: 'Its flowers sit in the top buds of last year’s stems: a hard cut takes a year’s bloom.',
    missed: 'Leave the heads; take them off next spring.',
  },
  {
    ...base,
    id: 'prune-oakleaf-hydrangea',
    does: 'Shape lightly, and take out a few of the oldest stems',
    applies: { taxa: ['Hydrangea quercifolia'] },
    windows: [afterBloom(21, 35)],
    why: 'It flowers on old wood and sets its buds in late summer.',
    missed: 'Only dead wood in spring; shape it after the next bloom.',
  },
  {
    ...base,
    id: 'prune-lightly-after-bloom',
    does: 'Shape lightly: dead, crossing and wayward wood only',
    applies: {
      traits: { pruning: ['lightly'], flowersOn: ['old wood', 'both'] },
      notTaxa: [...kindsWithTheirOwn, 'Hydrangea'],
      flowers: true,
    },
    windows: [afterBloom(28, 56)],
    labour: { setUp: 5, perPlant: 6, perMetre: 2 },
    everySeasons: 2,
    cautions: [NESTING],
    why: 'It needs little; what is taken after flowering costs no bloom.',
    missed: 'It can wait a year.',
  },
  {
    ...base,
    id: 'prune-lightly-in-spring',
    does: 'Shape lightly: dead, crossing and wayward wood only',
    applies: {
      traits: {
        pruning: ['lightly'],
        flowersOn: [null, 'new wood'],
        lifeForm: ['evergreen shrub', 'small tree', 'climber', 'deciduous shrub'],
      },
      notTaxa: kindsWithTheirOwn,
    },
    windows: [
      {
        season: 'spring',
        earliest: {
          latestOf: [
            { at: 'growth shows', days: -7 },
            { at: 'last frost', share: 50, days: -14, or: { at: 'growth shows', days: -7 } },
          ],
        },
        bestFrom: { at: 'earliest', days: 7 },
        bestTo: { at: 'earliest', days: 42 },
        latest: { earliestOf: [{ at: 'earliest', days: 75 }, REGROWTH] },
        because: {
          earliest: 'soft growth after an earlier cut would be frosted',
          bestFrom: 'growth is moving and cuts heal',
          bestTo: 'new shoots cover the cuts this season',
          latest: 'later growth would not ripen',
        },
      },
    ],
    labour: { setUp: 5, perPlant: 6, perMetre: 2 },
    everySeasons: 2,
    cautions: [NESTING],
    why: 'A light shaping as growth starts is covered within weeks.',
    missed: 'It can wait a year.',
  },
  {
    ...base,
    id: 'stool-for-stems',
    does: 'Cut all stems, or the older half, close to the base',
    applies: { traits: { pruning: ['stool'] } },
    windows: [
      beforeGrowth(-28, 14, {
        from: 'the bright stems are at their best until then',
        to: 'the new stems that colour next winter have begun',
      }),
    ],
    everySeasons: 2,
    why: 'Young wood colours best; it is cut as late as it can be so that the winter show is not lost.',
    missed: 'Take only the oldest stems out; cut it next year.',
  },
  {
    ...base,
    id: 'shear-after-bloom',
    verb: 'clip',
    does: 'Clip over after flowering, into leafy growth, never into bare wood',
    applies: {
      traits: { pruning: ['shear'] },
      notTaxa: [...lateHeaths, ...kindsWithTheirOwn],
      flowers: true,
    },
    windows: [afterBloom(21, 42)],
    labour: { setUp: 5, perPlant: 4 },
    tools: ['shears', 'secateurs'],
    why: 'Clipped young it stays dense; from bare wood it does not break again.',
    missed: 'Trim lightly in spring as growth shows.',
  },
  {
    ...base,
    id: 'shear-late-heaths',
    verb: 'clip',
    does: 'Clip the old flower spikes off, into leafy growth, never into bare wood',
    applies: { taxa: lateHeaths },
    windows: [
      beforeGrowth(-28, 21, {
        from: 'the spent spikes shelter the new buds through the cold',
        to: 'this year’s flowering shoots are on their way',
      }),
    ],
    labour: { setUp: 5, perPlant: 3 },
    tools: ['shears'],
    why: 'It flowers into autumn, too late to clip and regrow; the spikes stand for winter, and bare wood never breaks.',
    missed: 'Leave it until next spring rather than clip into growth.',
  },
  {
    ...base,
    id: 'clip-evergreens',
    verb: 'clip',
    does: 'Clip to shape',
    applies: {
      traits: { pruning: ['shear'], lifeForm: ['evergreen shrub'] },
      notTaxa: kindsWithTheirOwn,
      flowers: false,
    },
    windows: [
      {
        season: 'summer',
        earliest: {
          latestOf: [
            { at: 'growth has shown', days: 14 },
            { at: 'last frost', share: 90, days: 7, or: { at: 'growth has shown', days: 14 } },
          ],
        },
        bestFrom: { at: 'earliest', days: 14 },
        bestTo: { at: 'best from', days: 35 },
        latest: {
          earliestOf: [
            { at: 'warmth left', degreeDays: 300 },
            { at: 'first frost', share: 50, days: -42, or: { at: 'midsummer', days: 60 } },
          ],
        },
        because: {
          earliest: 'clipped sooner, the soft growth that follows is frosted',
          bestFrom: 'the first flush has hardened',
          bestTo: 'one clip then holds its line for the season',
          latest: 'new growth would not harden before cold',
        },
      },
    ],
    forbids: ['heat', 'rain', 'nesting birds'],
    labour: { setUp: 15, perPlant: 10, perMetre: 8 },
    tools: ['shears or trimmer', 'line', 'sheet for clippings'],
    cautions: [NESTING, 'Clip on a dull day: leaves newly bared scorch in sun.'],
    why: 'One clip after the first flush keeps the shape with the least cutting.',
    missed: 'Leave it until next summer rather than clip before cold.',
  },
  {
    ...base,
    id: 'prune-midsummer',
    does: 'Prune only what must go, in full leaf',
    applies: { traits: { pruning: ['midsummer'] }, notTaxa: kindsWithTheirOwn },
    windows: [
      {
        season: 'summer',
        earliest: {
          latestOf: [
            { at: 'longest day', days: -21 },
            { at: 'bloom ends', days: 21, or: { at: 'longest day', days: -21 } },
          ],
        },
        bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'longest day', days: 7 }] },
        bestTo: { at: 'best from', days: 35 },
        latest: {
          earliestOf: [
            { at: 'best from', days: 56 },
            { at: 'warmth left', degreeDays: 250 },
          ],
        },
        because: {
          earliest: 'cut in winter or spring it bleeds, or lets in silver leaf and canker',
          bestFrom: 'it is in full leaf and cuts dry quickly',
          bestTo: 'wounds close before leaf fall',
          latest: 'too little of the season is left for wounds to close',
        },
      },
    ],
    everySeasons: 2,
    cautions: [NESTING],
    why: 'Its wounds are safest in dry summer weather.',
    missed: 'Dead and dangerous wood any time; the rest next summer.',
  },
  {
    ...base,
    id: 'rejuvenate-in-winter',
    does: 'Take a third of the oldest stems, or all, to the base',
    applies: {
      traits: {
        bearsHardCut: [true],
        lifeForm: ['deciduous shrub', 'climber'],
        flowersOn: ['new wood', null],
      },
    },
    windows: [
      beforeGrowth(-50, 14, {
        from: 'earlier cuts are exposed to the worst of winter',
        to: 'the plant has spent its reserves on shoots that would be lost',
      }),
    ],
    labour: { setUp: 15, perPlant: 30, perMetre: 10 },
    why: 'It breaks from the base, and the whole season is ahead for regrowth.',
    missed: 'Wait until next winter: cut late, it would not ripen new wood.',
    yearly: false,
  },
  {
    ...base,
    id: 'rejuvenate-after-bloom',
    does: 'Take a third of the oldest stems to the base each year for three years',
    applies: {
      traits: {
        bearsHardCut: [true],
        lifeForm: ['deciduous shrub', 'climber'],
        flowersOn: ['old wood', 'both'],
      },
      flowers: true,
    },
    windows: [
      {
        ...afterBloom(21, 42),
        latest: {
          earliestOf: [
            { at: 'bloom ends', days: 42 },
            { at: 'warmth left', degreeDays: 600 },
          ],
        },
      },
    ],
    labour: { setUp: 15, perPlant: 30, perMetre: 10 },
    why: 'Straight after bloom the most season is left to regrow without losing this year’s flowers.',
    missed: 'Wait until after the next bloom.',
    yearly: false,
  },
  {
    ...base,
    id: 'rejuvenate-evergreen',
    does: 'Cut back hard into old wood, all at once or half this year and half next',
    applies: { traits: { bearsHardCut: [true], lifeForm: ['evergreen shrub'] } },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'last frost', share: 50, days: -14, or: { at: 'growth shows' } },
        bestFrom: { at: 'earliest', days: 10 },
        bestTo: { at: 'earliest', days: 42 },
        latest: {
          earliestOf: [
            { at: 'earliest', days: 70 },
            { at: 'warmth left', degreeDays: 700 },
          ],
        },
        because: {
          earliest: 'soft regrowth would be frosted',
          bestFrom: 'growth is about to break',
          bestTo: 'regrowth has the whole season to ripen',
          latest: 'too little warmth is left for regrowth to ripen before cold',
        },
      },
    ],
    forbids: ['heat', 'nesting birds'],
    cautions: [NESTING],
    labour: { setUp: 15, perPlant: 30, perMetre: 10 },
    why: 'Evergreens break best in late spring, with the season before them.',
    missed: 'Wait until next spring: cut late, the regrowth would be killed by cold.',
    yearly: false,
  },
  {
    ...base,
    id: 'remove-suckers',
    verb: 'take suckers off',
    does: 'Pull or cut suckers off where they join the root',
    applies: { signs: ['suckers'], traits: { lifeForm: woodyForms } },
    windows: [anyTime('growing on')],
    labour: { setUp: 5, perPlant: 10 },
    why: 'Suckers from below the graft outgrow what was grafted.',
    missed: 'The sooner the better; they only grow.',
    yearly: false,
  },
  {
    ...base,
    id: 'remove-reverted',
    verb: 'cut reverted shoots out of',
    does: 'Cut reverted shoots out to where they start',
    applies: { signs: ['reverted'], traits: { lifeForm: woodyForms } },
    windows: [anyTime('stronger than the rest')],
    labour: { setUp: 5, perPlant: 8 },
    why: 'Green shoots of a coloured plant are stronger and take over.',
    missed: 'The sooner the better.',
    yearly: false,
  },
  {
    ...base,
    id: 'remove-dead-wood',
    verb: 'cut dead wood out of',
    does: 'Cut dead, broken and diseased wood back to sound wood',
    applies: { signs: ['dieback', 'dead-below', 'broken', 'winter-loss'], traits: { lifeForm: woodyForms } },
    windows: [anyTime('a way in for disease')],
    labour: { setUp: 5, perPlant: 12 },
    cautions: ['Clean the blades between plants.'],
    why: 'Dead, broken and diseased wood goes at any time of year.',
    missed: 'The sooner the better.',
    yearly: false,
  },
  {
    ...base,
    id: 'limb-up',
    verb: 'limb up',
    does: 'Limb up: take the lowest branches off at the collar, never more than a quarter of the crown at once',
    applies: { traits: { lifeForm: ['small tree', 'deciduous shrub', 'evergreen shrub'] }, place: 'bed' },
    windows: [
      {
        season: 'dormant season',
        earliest: { at: 'midwinter', days: -35 },
        bestFrom: { at: 'midwinter', days: 21 },
        bestTo: { at: 'growth shows', days: -21 },
        latest: { at: 'growth shows', days: -7 },
        because: {
          earliest: 'it is at rest and its frame can be seen',
          bestFrom: 'the worst cold is past and cuts soon close',
          bestTo: 'before sap rises',
          latest: 'cuts would bleed',
        },
      },
    ],
    labour: { setUp: 15, perMetre: 10 },
    cautions: [
      'Work above head height is for a qualified arborist; ask first whether the tree is protected.',
      'Look for nesting birds first.',
    ],
    why: 'Light and room beneath, without losing the tree.',
    missed: 'Late summer, lightly; else next winter.',
    yearly: false,
  },
  {
    ...base,
    id: 'heads-before-snow',
    verb: 'take the heads off',
    operation: 'deadhead',
    does: 'Take the heavy heads off before snow and ice break the stems',
    applies: {
      taxa: ['Hydrangea paniculata', 'Hydrangea arborescens'],
      winterColderThanC: -12,
    },
    windows: [
      {
        season: 'autumn',
        earliest: { at: 'first frost', share: 50 },
        bestFrom: { at: 'first frost', share: 90 },
        bestTo: { at: 'best from', days: 28 },
        latest: { at: 'next midwinter' },
        because: {
          earliest: 'the heads are still in colour',
          bestFrom: 'frost has browned them',
          bestTo: 'before the first heavy snow',
          latest: 'snow lies by then',
        },
      },
    ],
    why: 'Wet snow on a big head breaks the stem below it.',
    missed: 'Shake the snow off; cut what broke in late winter.',
    yearly: true,
  },
]
