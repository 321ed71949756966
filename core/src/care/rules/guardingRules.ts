import type { Applies, CareRule, WindowSpec } from '../rule.ts'
import { BUDS_DIE_BELOW_C, mopheads, THORNS } from './pruningWindows.ts'

const roses = ['Rosa Bush group', 'Rosa Shrub group', 'Rosa Climbing group']

const coverOn: WindowSpec = {
  season: 'autumn',
  earliest: { at: 'first frost', share: 50, or: { at: 'is gone' } },
  bestFrom: { at: 'first frost', share: 90, or: { at: 'is gone' } },
  bestTo: { at: 'best from', days: 21 },
  latest: {
    latestOf: [
      { at: 'next midwinter', days: -14 },
      { at: 'best from', days: 28 },
    ],
  },
  because: {
    earliest: 'covered while warm it goes on growing',
    bestFrom: 'frost has hardened it and the leaves are off',
    bestTo: 'before the ground freezes',
    latest: 'the hardest cold is near',
  },
}
const coverOff: WindowSpec = {
  season: 'spring',
  earliest: { at: 'last frost', share: 50, days: -28, or: { at: 'growth shows' } },
  // What shows in autumn is not waited for.
  bestFrom: {
    earliestOf: [
      { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: -7 }] },
      { at: 'earliest', days: 35 },
    ],
  },
  bestTo: { at: 'best from', days: 14 },
  latest: { at: 'best from', days: 28 },
  because: {
    earliest: 'the hardest frosts are usually over',
    bestFrom: 'growth is about to show',
    bestTo: 'new shoots are still hard',
    latest: 'shoots grow pale and soft under cover',
  },
}

const guard: Pick<CareRule, 'operation' | 'forbids' | 'tools' | 'labour' | 'yearly'> = {
  operation: 'protect',
  forbids: [],
  tools: ['as found'],
  labour: { setUp: 5, perPlant: 3 },
  yearly: true,
}

/** A cover with both its ends. */
const cover = (
  kind: {
    id: string
    applies: Applies
    verb: string
    does: string
    why: string
    missed: string
  } & Partial<CareRule>,
  off: Pick<CareRule, 'does' | 'why' | 'missed'>,
): CareRule[] => [
  { ...guard, windows: [coverOn], labour: { setUp: 10, perPlant: 8 }, ...kind, id: `${kind.id}-on` },
  {
    ...guard,
    id: `${kind.id}-off`,
    verb: 'uncover',
    applies: kind.applies,
    windows: [coverOff],
    forbids: ['hard frost'],
    tools: ['barrow'],
    ...off,
  },
]

/** Rules of keeping harm off: winter, wet, slugs, mites, deer; and of looking after what keeps it off. */
export const guarding: readonly CareRule[] = [
  ...cover(
    {
      id: 'earth-up-roses',
      verb: 'earth up',
      does: 'Heap loose soil or compost a foot over the base, and tie the stems together',
      applies: { taxa: roses, winter: ['at risk'], place: 'bed' },
      materials: [{ name: 'loose soil or compost', unit: 'l', perPlant: 20 }],
      tools: ['spade', 'barrow', 'twine'],
      cautions: [THORNS],
      steps: [
        'Bring soil from elsewhere: taken from between them it bares their roots.',
        'Shorten only what the wind would whip.',
      ],
      why: 'Stems die back to the cover in a hard winter; the buds below it live and flower.',
      missed: 'Snow heaped over them does nearly as well.',
    },
    {
      does: 'Draw the soil off the base by degrees, on dull days',
      why: 'Left on, shoots rot and roots form above the graft.',
      missed: 'At once; keep a sheet at hand for a late frost.',
    },
  ),
  ...cover(
    {
      id: 'wrap-mopheads',
      verb: 'wrap',
      does: 'Cage it and fill the cage with dry leaves to above the topmost buds',
      applies: { taxa: mopheads, winterColderThanC: BUDS_DIE_BELOW_C, place: 'bed' },
      materials: [
        { name: 'wire netting', unit: 'm', perPlant: 3 },
        { name: 'dry leaves', unit: 'l', perPlant: 200 },
      ],
      tools: ['stakes', 'mallet', 'twine'],
      steps: [
        'Cut nothing: the top buds are next year’s flowers.',
        'A cage a hand wider than the plant; leaves to the brim; a lid against snow.',
      ],
      why: 'Usual winters here kill its flower buds: covered to the tips, some live.',
      missed: 'Heap leaves over the base: it lives, without flowers.',
    },
    {
      does: 'Take the cage off in two steps, the leaves last, on dull days',
      why: 'Buds swell under the leaves and are soft when the sun finds them.',
      missed: 'At once, with a sheet at hand for the last frosts.',
    },
  ),
  ...cover(
    {
      id: 'rain-covers',
      verb: 'cover from rain',
      does: 'Set a pane over it, open at the sides',
      applies: {
        traits: { lifeForm: ['succulent'], moistureMax: [1, 2] },
        place: 'bed',
        winter: ['hardy', 'at risk'],
      },
      tools: ['panes or cloches', 'pegs'],
      why: 'It bears cold, but not cold and wet together.',
      missed: 'Grit round the neck; hope for a dry winter.',
    },
    {
      does: 'Take the pane off',
      why: 'From spring on it wants the rain.',
      missed: 'Nothing is lost but a few weeks’ growth.',
    },
  ),
  {
    ...guard,
    id: 'hunt-slugs',
    verb: 'look for slugs on',
    does: 'Look after dusk or after rain, and take slugs and snails off by hand',
    applies: { troubles: ['slugs'] },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows', days: -5 },
        bestFrom: { at: 'growth shows' },
        bestTo: { at: 'growth has shown', days: 4 },
        latest: { at: 'growth has shown', days: 14 },
        because: {
          earliest: 'they wait at the crown for the first shoot',
          bestFrom: 'a shoot eaten now is a stem missing all year',
          bestTo: 'shoots are still soft',
          latest: 'leaves have hardened',
        },
      },
    ],
    everyDays: 12,
    notBelowC: 6,
    labour: { setUp: 4, perPlant: 0.5 },
    tools: ['lamp', 'bucket'],
    steps: [
      'Under pots, boards and mulch by day; on the leaves by lamp.',
      'Clear old leaves off the crowns, where they hide.',
    ],
    cautions: ['Bait only by its label, and out of reach of children, pets, hedgehogs and birds.'],
    why: 'Two or three evenings as growth shows save the season’s leaves.',
    missed: 'At the next mild wet evening.',
  },
  {
    ...guard,
    id: 'hose-leaves',
    operation: 'upkeep',
    verb: 'hose',
    does: 'Hose the leaves down, their undersides above all, early in the day',
    applies: { troubles: ['mites'] },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'days above', c: 24 },
        bestFrom: { at: 'earliest', days: 7 },
        bestTo: { at: 'midsummer', days: 45 },
        latest: { at: 'midsummer', days: 65 },
        because: {
          earliest: 'mites breed from then on',
          bestFrom: 'the air is hot and dry',
          bestTo: 'nights are still warm',
          latest: 'dew keeps them down',
        },
      },
    ],
    everyDays: 14,
    labour: { setUp: 5, perPlant: 1 },
    tools: ['hose with a fine rose'],
    why: 'Mites thrive on dust and drought; water takes both off.',
    missed: 'At the next hot spell, before leaves look dusty and bronzed.',
  },
  {
    ...guard,
    id: 'tree-ties',
    operation: 'stake',
    verb: 'see to the ties of',
    does: 'Loosen ties that have grown tight; take the stake away once the tree stands without it',
    applies: { traits: { lifeForm: ['small tree'] }, place: 'bed', untilSeason: 4 },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows', days: -21 },
        bestFrom: { at: 'growth shows', days: -7 },
        bestTo: { at: 'growth has shown' },
        latest: { at: 'growth has shown', days: 45 },
        because: {
          earliest: 'winter’s gales have shown what holds',
          bestFrom: 'the stem is about to thicken',
          bestTo: 'no tie has cut in yet',
          latest: 'the stem has grown into its tie by then',
        },
      },
    ],
    tools: ['tree ties', 'knife', 'mallet'],
    why: 'A forgotten tie strangles the stem; a stake kept too long makes it weak.',
    missed: 'At once: it only grows tighter.',
  },
  {
    ...guard,
    id: 'guard-from-browsing',
    verb: 'guard',
    does: 'Put guards round the stems, and netting where deer come',
    applies: {
      traits: { lifeForm: ['deciduous shrub', 'evergreen shrub', 'small tree'] },
      place: 'bed',
      untilSeason: 4,
    },
    windows: [coverOn],
    tools: ['guards', 'netting', 'stakes'],
    materials: [{ name: 'stem guard', unit: 'pieces', perPlant: 1 }],
    cautions: ['Net tightly and look daily: birds and hedgehogs are caught in loose netting.'],
    why: 'In a hungry winter rabbits ring young bark, and a ringed stem is dead.',
    missed: 'Before snow lies: it lifts them to higher bark.',
    off: true,
  },
  {
    ...guard,
    id: 'look-at-stored-roots',
    operation: 'upkeep',
    verb: 'look over the stored roots of',
    does: 'Look the stored roots over: cut out what rots, moisten what shrivels',
    applies: {
      taxa: ['Dahlia', 'Canna', 'Gladiolus × hortulanus', 'Colocasia', 'Begonia × tuberhybrida'],
      winter: ['tender'],
      place: 'bed',
    },
    windows: [
      {
        season: 'winter',
        earliest: { at: 'midwinter', days: -70 },
        bestFrom: { at: 'midwinter', days: -60 },
        bestTo: { at: 'midwinter', days: 21 },
        latest: { at: 'midwinter', days: 35 },
        because: {
          earliest: 'they have been in store for some weeks',
          bestFrom: 'the first rot shows',
          bestTo: 'there is time to save the rest',
          latest: 'they are started into growth soon after',
        },
      },
    ],
    everyDays: 30,
    labour: { setUp: 5, perPlant: 2 },
    tools: ['knife', 'sulphur dust', 'spray bottle'],
    why: 'One that rots takes its neighbours with it; one that dries out never starts.',
    missed: 'At once: a crate is lost in a month.',
  },
  {
    ...guard,
    id: 'clear-fallen-leaves',
    operation: 'upkeep',
    verb: 'clear leaves from',
    does: 'Rake fallen leaves off low plants, evergreens and crowns; leave them between shrubs',
    applies: { wholePlace: true, place: 'bed' },
    windows: [
      {
        season: 'autumn',
        needs: { at: 'soil below', c: 10 },
        earliest: { at: 'soil below', c: 12 },
        bestFrom: { at: 'soil below', c: 9, or: { at: 'earliest', days: 14 } },
        bestTo: { at: 'best from', days: 28 },
        latest: { at: 'next midwinter' },
        because: {
          earliest: 'the first leaves are down',
          bestFrom: 'most have fallen',
          bestTo: 'a wet mat has not yet rotted what lies under it',
          latest: 'crowns under a mat are rotting by then',
        },
      },
    ],
    forbids: ['sodden soil', 'wind'],
    labour: { setUp: 10, perM2: 1 },
    tools: ['spring rake', 'barrow'],
    cautions: ['Look for hedgehogs before a heap is moved or burnt.'],
    steps: ['What is sound becomes leaf mould; leaves with black spot or scab go into the bin.'],
    why: 'A wet mat rots crowns and shades evergreens; between shrubs the same leaves are the best mulch.',
    missed: 'Before snow, or in late winter before bulbs show.',
  },
  {
    ...guard,
    id: 'cut-edges',
    operation: 'upkeep',
    verb: 'cut the edges of',
    does: 'Cut the edge to grass anew along a line',
    applies: { wholePlace: true, place: 'bed' },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'soil above', c: 6 },
        bestFrom: { at: 'earliest', days: 7 },
        bestTo: { at: 'earliest', days: 35 },
        latest: { at: 'earliest', days: 60 },
        because: {
          earliest: 'grass begins to grow into the bed',
          bestFrom: 'the ground is soft enough to cut clean',
          bestTo: 'growth does not hide the edge yet',
          latest: 'the ground turns hard',
        },
      },
    ],
    forbids: ['frozen soil', 'sodden soil'],
    labour: { setUp: 10, perM2: 1.5 },
    tools: ['half-moon edger', 'line', 'barrow'],
    why: 'A clean edge keeps grass out of the bed and makes all of it look cared for.',
    missed: 'After rain, later in the year.',
    off: true,
  },
  {
    ...guard,
    id: 'pinch-out',
    operation: 'cut back',
    verb: 'pinch',
    does: 'Pinch the tips out above the third pair of leaves',
    applies: {
      taxa: [
        'Antirrhinum',
        'Coleus',
        'Cosmos',
        'Dahlia',
        'Fuchsia',
        'Lathyrus odoratus',
        'Petunia',
        'Salvia splendens',
        'Zinnia',
      ],
    },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'nights above', c: 8, days: 14, or: { at: 'midsummer', days: -50 } },
        bestFrom: { at: 'nights above', c: 8, days: 21, or: { at: 'midsummer', days: -43 } },
        bestTo: { at: 'best from', days: 14 },
        latest: { at: 'best from', days: 28 },
        because: {
          earliest: 'it has taken and grows',
          bestFrom: 'there are three or four pairs of leaves',
          bestTo: 'flowering is put back by no more than two weeks',
          latest: 'flower buds are in the tips',
        },
      },
    ],
    labour: { setUp: 3, perPlant: 0.5 },
    tools: ['fingers'],
    why: 'It branches from below: twice the flowers on half the height.',
    missed: 'Let the first flower come, and cut it long for the vase.',
  },
  {
    ...guard,
    id: 'disbud',
    operation: 'deadhead',
    verb: 'disbud',
    does: 'Take the side buds off and leave the one at the tip',
    applies: { taxa: ['Chrysanthemum', 'Dahlia', 'Paeonia lactiflora', 'Rosa Bush group'] },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom starts', days: -28 },
        bestFrom: { at: 'bloom starts', days: -21 },
        bestTo: { at: 'bloom starts', days: -7 },
        latest: { at: 'bloom starts' },
        because: {
          earliest: 'side buds can be told and rubbed out',
          bestFrom: 'they are the size of a pea',
          bestTo: 'the strength goes into one flower',
          latest: 'it no longer makes a difference',
        },
      },
    ],
    labour: { setUp: 5, perPlant: 4 },
    tools: ['fingers'],
    why: 'One large flower for the vase or a show in place of several.',
    missed: 'Leave them: a spray has its own charm.',
    off: true,
  },
  {
    ...guard,
    id: 'cut-for-the-vase',
    operation: 'deadhead',
    verb: 'cut for the vase',
    does: 'Cut flowers early in the day, and stand them deep in water',
    applies: {
      taxa: [
        'Alchemilla',
        'Antirrhinum',
        'Astrantia',
        'Chrysanthemum',
        'Cosmos',
        'Dahlia',
        'Lathyrus odoratus',
        'Narcissus',
        'Paeonia lactiflora',
        'Rosa',
        'Tulipa',
        'Zinnia',
      ],
    },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom starts', days: 3 },
        bestFrom: { at: 'bloom starts', days: 7 },
        bestTo: { at: 'bloom ends', days: -7 },
        latest: { at: 'bloom ends' },
        because: {
          earliest: 'the first buds show colour',
          bestFrom: 'there are enough to cut',
          bestTo: 'buds still open in water',
          latest: 'the last are open',
        },
      },
    ],
    everyDays: 7,
    labour: { setUp: 5, perPlant: 1 },
    tools: ['snips', 'bucket of water'],
    steps: ['Of peonies and bulbs leave two thirds of the leaves.'],
    why: 'What repeats flowers the more for it.',
    missed: 'Deadhead instead.',
    off: true,
  },
  {
    ...guard,
    id: 'heads-for-drying',
    operation: 'deadhead',
    verb: 'take heads for drying from',
    does: 'Cut heads for drying on a dry day, and hang them head down in the dark',
    applies: {
      taxa: [
        'Achillea',
        'Allium',
        'Echinops',
        'Eryngium',
        'Hydrangea',
        'Lavandula',
        'Limonium',
        'Nigella',
        'Stipa',
      ],
    },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom starts', days: 10 },
        bestFrom: { at: 'bloom starts', days: 21 },
        bestTo: { at: 'bloom ends', days: 7 },
        latest: { at: 'bloom ends', days: 21 },
        because: {
          earliest: 'half of the flowers are open',
          bestFrom: 'heads have coloured through',
          bestTo: 'colour still holds',
          latest: 'they brown and shed',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 2 },
    tools: ['snips', 'twine'],
    why: 'Cut in time they keep their colour for a winter.',
    missed: 'Leave them standing for frost and birds.',
    off: true,
  },
]
