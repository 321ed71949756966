import type { CareRule, WindowSpec } from '../rule.ts'
import {
  afterBloom,
  asBudsShow,
  base,
  BLIGHT,
  BUDS_DIE_BELOW_C,
  beforeGrowth,
  beforeShoots,
  LADDER,
  mopheads,
  NESTING,
  pastHardFrost,
  THORNS,
} from './pruningWindows.ts'

/** A rule of pruning that is of some kinds alone: what these want, in one sentence of their own. */
type OwnRule = Partial<CareRule> &
  Pick<CareRule, 'id' | 'does' | 'windows' | 'why' | 'missed'> & {
    /** Beginnings of their names; else by what `applies` says. */
    taxa?: readonly string[]
  }

const own = ({ taxa, applies, ...rule }: OwnRule): CareRule => ({
  ...base,
  ...rule,
  applies: { ...applies, ...(taxa && { taxa }) },
})

/** While it is bare and wholly at rest. */
const atRest = (lastDays: number, last: string): WindowSpec => ({
  season: 'winter',
  earliest: { at: 'midwinter', days: -40 },
  bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'midwinter', days: -7 }] },
  bestTo: { at: 'growth shows', days: lastDays - 14 },
  latest: { at: 'growth shows', days: lastDays },
  because: {
    earliest: 'the leaves have fallen and the sap is down',
    bestFrom: 'it is wholly at rest',
    bestTo: 'sap is still down',
    latest: last,
  },
})

/** After the first growth of summer has hardened, with time for the cut face to green before cold. */
const lateSummer: WindowSpec = {
  season: 'summer',
  earliest: { at: 'longest day', days: 28 },
  bestFrom: { at: 'longest day', days: 42 },
  bestTo: { at: 'longest day', days: 80 },
  latest: {
    earliestOf: [
      { at: 'longest day', days: 100 },
      { at: 'warmth left', degreeDays: 150 },
    ],
  },
  because: {
    earliest: 'birds have mostly flown, and the growth of the year is made',
    bestFrom: 'one clip then stays sharp until spring',
    bestTo: 'the cut face still greens this year',
    latest: 'new growth would not harden before cold',
  },
}

const clipping = {
  verb: 'clip',
  forbids: ['heat', 'rain', 'nesting birds'],
  labour: { setUp: 15, perPlant: 10, perMetre: 8 },
  tools: ['shears or trimmer', 'line', 'sheet for clippings'],
} satisfies Partial<CareRule>
const DULL_DAY = 'Clip on a dull day: leaves newly bared scorch in sun.'

const roses: readonly CareRule[] = [
  own({
    id: 'prune-bush-roses',
    taxa: ['Rosa Bush group'],
    does: 'Cut to 30 to 45 cm, each stem just above a bud that looks outward',
    windows: [pastHardFrost(beforeShoots)],
    steps: [
      'Dead, sick and thin stems first, right out.',
      'Keep five to seven strong stems; cut these to 30 to 45 cm, weak ones shorter.',
      'Slope the cut away from the bud, a finger’s breadth above it.',
      'Clear old leaves off the ground: black spot winters on them.',
    ],
    cautions: [THORNS],
    why: 'Bush roses flower on this year’s wood: few strong stems give the best flowers, and an open middle dries.',
    missed: 'Take out dead and crossing stems only, and deadhead deeply through summer.',
  }),
  own({
    id: 'prune-shrub-roses',
    taxa: ['Rosa Shrub group'],
    does: 'Shorten by a third, and take one or two of the oldest stems to the base',
    windows: [pastHardFrost(beforeShoots)],
    steps: [
      'Dead and crossing wood first.',
      'One or two of the oldest stems to the ground.',
      'The rest by about a third, to its natural outline.',
    ],
    cautions: [THORNS],
    why: 'A shrub rose is kept at its natural shape: cut as low as a bush rose it makes leaves first and flowers late.',
    missed: 'Deadhead by cutting deeper; the rest next winter.',
  }),
  own({
    id: 'prune-old-roses',
    taxa: ['Rosa Old garden group'],
    does: 'Shorten flowered stems by a third, and take a few of the oldest to the base',
    windows: [afterBloom(28, 56)],
    cautions: [THORNS, NESTING],
    why: 'It flowers once, on last year’s wood: a cut in winter would take the flowers.',
    missed: 'Only dead wood in winter; the rest after the next bloom.',
  }),
  own({
    id: 'thin-species-roses',
    taxa: ['Rosa rugosa', 'Rosa glauca'],
    verb: 'thin',
    does: 'Take one old stem in four out at the base, and leave the rest long',
    windows: [beforeGrowth(-45, 7, { from: 'the hips feed birds until then', to: 'leaves are out by then' })],
    everySeasons: 2,
    cautions: [THORNS],
    why: 'Species roses carry flowers and hips along the whole of their stems; only age is taken out.',
    missed: 'It can wait a year.',
  }),
  ...(
    [
      ['mild', { winterMilderThanC: BUDS_DIE_BELOW_C }, atRest(0, 'shoots are long enough to be broken off')],
      ['cold', { winterColderThanC: BUDS_DIE_BELOW_C }, pastHardFrost(beforeShoots)],
    ] as const
  ).map(([winters, applies, window]) =>
    own({
      id: `prune-climbing-roses-${winters}`,
      taxa: ['Rosa Climbing group'],
      applies,
      does: 'Cut side shoots back to two or three buds, tie the frame in level, and replace one old stem by a young one',
      windows: [window],
      labour: { setUp: 10, perPlant: 35 },
      steps: [
        'Untie what is in the way. Dead and sick wood right out.',
        'Side shoots that flowered to two or three buds.',
        'Where a strong young stem comes from low down, take the oldest out for it.',
        'Tie in fanned out, as level as the stems will go: level stems flower along their length.',
      ],
      cautions: [THORNS, LADDER],
      why: 'The frame stays for years and flowers on side shoots of this year.',
      missed: 'Shorten side shoots as they flower; the frame next winter.',
    }),
  ),
  own({
    id: 'prune-rambling-roses',
    taxa: ['Rosa Rambler group'],
    does: 'Take stems that flowered out at the base, as many as there are new ones to replace them, and tie the new ones in',
    windows: [afterBloom(42, 70)],
    labour: { setUp: 10, perPlant: 50 },
    steps: [
      'Count the long new stems from the base: that many old ones may go.',
      'Cut the old ones to the ground in pieces; they do not pull out.',
      'Where there are no new ones, cut side shoots to two or three buds instead.',
      'Tie the new stems in while they bend.',
    ],
    cautions: [THORNS, LADDER, NESTING],
    why: 'It flowers once, on stems of the year before.',
    missed: 'Tie the new stems in now; take the old ones out in winter, at the price of no flowers.',
  }),
]

const clematis: readonly CareRule[] = [
  own({
    id: 'tidy-early-clematis',
    taxa: ['Clematis montana', 'Clematis armandii'],
    verb: 'tidy',
    does: 'Only where it has outgrown its place: take back what has flowered, and thin the tangle',
    windows: [afterBloom(21, 42)],
    everySeasons: 2,
    cautions: [NESTING],
    why: 'It flowers in spring on last year’s stems: right after bloom is the one time that costs no flowers.',
    missed: 'Leave it until after the next bloom.',
  }),
  own({
    id: 'cut-late-clematis',
    taxa: ['Clematis viticella'],
    does: 'Cut every stem down to the lowest pair of strong buds, 30 to 60 cm from the ground',
    windows: [
      beforeGrowth(-40, 14, {
        from: 'the buds are too small to find earlier',
        to: 'new shoots break off when handled',
      }),
    ],
    labour: { setUp: 5, perPlant: 15 },
    steps: [
      'Cut all stems low, then pull the old tangle away whole.',
      'Tie the first new shoots in: they break.',
    ],
    why: 'It flowers in summer at the ends of new shoots: uncut, these are out of sight at the top.',
    missed: 'Cut half of the stems low even in leaf; the rest next year.',
  }),
]

const hydrangeas: readonly CareRule[] = [
  own({
    id: 'prune-panicle-hydrangea',
    taxa: ['Hydrangea paniculata'],
    does: 'Cut last year’s stems to two pairs of buds on a frame of 60 to 90 cm',
    windows: [pastHardFrost(beforeShoots)],
    steps: [
      'Thin and dead twigs right out.',
      'Strong stems of last year to two pairs of buds.',
      'Leave a plant in the wind with more and longer stems.',
    ],
    why: 'It flowers at the tips of this year’s shoots: two pairs of buds give large heads on stems that carry them.',
    missed: 'Take only the old heads off; it flowers smaller and later.',
  }),
  own({
    id: 'cut-mophead-to-live-buds',
    taxa: mopheads,
    applies: { winterColderThanC: BUDS_DIE_BELOW_C },
    does: 'Wait until leaves show how far the stems lived, then cut to the topmost live buds',
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth has shown', days: -7 },
        bestFrom: { at: 'growth has shown' },
        bestTo: { at: 'growth has shown', days: 21 },
        latest: { at: 'growth has shown', days: 40 },
        because: {
          earliest: 'live buds can be told from dead ones only in leaf',
          bestFrom: 'every stem has shown how far it lived',
          bestTo: 'nothing is hidden by leaves yet',
          latest: 'what flowers there are come then',
        },
      },
    ],
    why: 'Usual winters here kill its flower buds, which are made the year before: expect leaves, and few flowers or none. Cover it over winter, or plant a kind that flowers on new wood.',
    missed: 'Dead stems can be snapped off at any time.',
  }),
  own({
    id: 'climbing-hydrangea',
    taxa: ['Hydrangea petiolaris'],
    does: 'Shorten shoots that stand off the wall to a strong bud close to it',
    windows: [afterBloom(28, 49)],
    labour: { setUp: 10, perPlant: 20 },
    cautions: [LADDER, NESTING],
    why: 'It holds itself; only what stands off is taken, after bloom, and at most a third in one year.',
    missed: 'It can wait a year.',
  }),
]

const twoCuts: readonly CareRule[] = [
  own({
    id: 'spur-in-summer',
    applies: { traits: { pruning: ['spur'] }, notTaxa: ['Vitis'] },
    does: 'Shorten the whippy new shoots to five or six leaves, but for those that are to lengthen the frame',
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends', days: 35 },
        bestFrom: { at: 'bloom ends', days: 49 },
        bestTo: { at: 'bloom ends', days: 84 },
        latest: {
          earliestOf: [
            { at: 'bloom ends', days: 105 },
            { at: 'goes over', days: -21 },
          ],
        },
        because: {
          earliest: 'the long shoots are still being made',
          bestFrom: 'the flush of whippy growth is done',
          bestTo: 'flower buds form at the base of what is left',
          latest: 'buds for next year are set',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 60 },
    steps: [
      'Tie in the shoots that are to fill a gap.',
      'Every other long shoot to five or six leaves.',
      'Keep it out of gutters and roof.',
    ],
    cautions: [LADDER],
    why: 'Light on the base of the shoots turns buds there into flowers.',
    missed: 'The winter cut takes both.',
  }),
  own({
    id: 'spur-in-winter',
    applies: { traits: { pruning: ['spur'] }, notTaxa: ['Vitis'] },
    does: 'Cut the shoots that were shortened in summer back to two or three buds',
    windows: [atRest(-14, 'the fat flower buds are knocked off once they swell')],
    labour: { setUp: 10, perPlant: 60 },
    steps: [
      'Shoots that were shortened in summer to two or three buds: fat buds flower, thin ones make leaves.',
      'Take dead and crossing wood out of the frame.',
    ],
    cautions: [LADDER],
    why: 'Two cuts a year turn long shoots into flowering spurs.',
    missed: 'Next summer’s cut, a little harder.',
  }),
  own({
    id: 'vine-in-summer',
    taxa: ['Vitis'],
    does: 'Stop each fruiting shoot two leaves beyond its last bunch, and rub side shoots to one leaf',
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends', days: 3 },
        bestFrom: { at: 'bloom ends', days: 10 },
        bestTo: { at: 'bloom ends', days: 45 },
        latest: { at: 'bloom ends', days: 70 },
        because: {
          earliest: 'it can be seen how many berries have set',
          bestFrom: 'shoots run past their bunches',
          bestTo: 'light still ripens what is left',
          latest: 'leaves are needed to ripen the wood',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 40 },
    cautions: [LADDER],
    why: 'Light and air between the leaves ripen bunches and keep mildew off.',
    missed: 'Thin leaves around the bunches as they colour.',
  }),
  own({
    id: 'vine-in-winter',
    taxa: ['Vitis'],
    does: 'Cut last year’s shoots back to two buds on the old frame',
    windows: [atRest(-45, 'the sap is rising, and a vine cut then bleeds for weeks')],
    labour: { setUp: 10, perPlant: 40 },
    cautions: [LADDER],
    why: 'Grapes come on shoots of this year from buds of last year; cut late it bleeds.',
    missed: 'Rub out surplus shoots when they are a finger long; no cut in spring.',
  }),
]

const newWood: readonly CareRule[] = [
  own({
    id: 'cut-butterfly-bush',
    taxa: ['Buddleja davidii'],
    does: 'Cut last year’s stems to two or three pairs of buds on a knee-high frame',
    windows: [asBudsShow],
    why: 'It flowers at the ends of new stems; left alone it is bare below and flowers out of sight.',
    missed: 'Cut half of the stems low even in leaf; it flowers later.',
  }),
  own({
    id: 'cut-to-live-buds',
    taxa: ['Fuchsia magellanica', 'Ceratostigma willmottianum'],
    does: 'Cut all stems low, to the first live buds; after a hard winter to the ground',
    windows: [asBudsShow],
    why: 'It makes its flowering stems anew each year; the old ones have sheltered the crown until now.',
    missed: 'Take dead tips off as they show.',
  }),
  own({
    id: 'cut-blue-beard',
    taxa: ['Caryopteris'],
    does: 'Cut last year’s stems to two or three buds, never into the old bare base',
    windows: [asBudsShow],
    why: 'It flowers on new stems and does not break from old bare wood.',
    missed: 'Clip it over lightly as growth shows.',
  }),
  own({
    id: 'half-shrubs-in-spring',
    taxa: ['Santolina', 'Salvia officinalis'],
    verb: 'clip',
    does: 'Cut to just above the lowest new leaves, never into wood without any',
    windows: [asBudsShow],
    labour: { setUp: 5, perPlant: 5 },
    tools: ['shears', 'secateurs'],
    why: 'A half-shrub is kept young by a yearly cut in spring; bare wood does not break again.',
    missed: 'Take off the spent flowers with a hand of stem in summer.',
  }),
  own({
    id: 'thin-arching-shrubs',
    taxa: ['Abelia', 'Callicarpa'],
    verb: 'thin',
    does: 'Take a quarter of the oldest stems to the base, and leave the arching ones whole',
    windows: [asBudsShow],
    everySeasons: 2,
    why: 'It flowers along the shoots of this year; cut all over it loses its arching shape.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'clip-small-summer-shrubs',
    taxa: ['Dasiphora', 'Spiraea japonica'],
    does: 'Clip by a third, and take out the oldest twigs at the base',
    windows: [
      beforeGrowth(-35, 14, {
        from: 'snow and frost split what is cut sooner',
        to: 'flower buds are forming at the tips',
      }),
    ],
    labour: { setUp: 5, perPlant: 5 },
    tools: ['shears', 'secateurs'],
    why: 'It flowers for months on short new twigs, the more the denser these are.',
    missed: 'Clip lightly after the first flowers.',
  }),
  own({
    id: 'shear-ground-hypericum',
    taxa: ['Hypericum calycinum'],
    verb: 'shear',
    does: 'Shear all of it to a hand’s breadth',
    windows: [
      beforeGrowth(-28, 10, {
        from: 'old leaves keep frost off the runners',
        to: 'new shoots would be cut with the old',
      }),
    ],
    everySeasons: 2,
    labour: { setUp: 5, perM2: 4 },
    tools: ['shears or trimmer'],
    why: 'New growth is dense and clean; rust stays behind on the old leaves.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'cut-oleander',
    taxa: ['Nerium'],
    does: 'Shorten stems that flowered by half, and take one or two of the oldest to the base',
    windows: [asBudsShow],
    cautions: ['Every part is poisonous, the smoke too: gloves, and do not burn what is cut.'],
    why: 'It flowers at the tips of new shoots; the cut waits until frost can no longer take what follows it.',
    missed: 'Take only spent flower heads off, and leave the buds beside them.',
  }),
  own({
    id: 'trumpet-creeper-to-spurs',
    taxa: ['Campsis'],
    does: 'Cut last year’s shoots back to two or three buds on the old frame, and take suckers off at the root',
    windows: [pastHardFrost(beforeShoots)],
    labour: { setUp: 10, perPlant: 40 },
    cautions: [LADDER],
    why: 'It flowers at the tips of new shoots; spurred hard it flowers low and stays within bounds.',
    missed: 'Shorten what overhangs; cut hard next winter.',
  }),
  own({
    id: 'thin-twiners',
    taxa: ['Lonicera japonica', 'Lonicera periclymenum'],
    verb: 'thin',
    does: 'Thin the tangle: take a third of the oldest stems out at the base, and shorten what has run too far',
    windows: [
      beforeGrowth(-35, 14, { from: 'leaves that are left shelter the buds', to: 'flower buds are forming' }),
    ],
    everySeasons: 2,
    labour: { setUp: 5, perPlant: 25 },
    cautions: [NESTING],
    why: 'Thinned it flowers low down and does not smother itself; sheared it makes a nest of dead twigs.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'spur-tender-climbers',
    taxa: ['Passiflora', 'Bougainvillea'],
    does: 'Shorten side shoots to two or three buds on the frame, and take dead stems out',
    windows: [asBudsShow],
    labour: { setUp: 5, perPlant: 20 },
    why: 'It flowers on new side shoots; the frame is kept, and what winter killed shows by now.',
    missed: 'Shorten what has flowered.',
  }),
  own({
    id: 'clingers-off-the-house',
    taxa: ['Parthenocissus', 'Hedera'],
    verb: 'cut back',
    does: 'Cut it back from gutters, windows, roof and wires, a good arm’s length',
    windows: [atRest(7, 'birds begin to nest in it')],
    labour: { setUp: 15, perPlant: 30 },
    cautions: [LADDER, NESTING],
    why: 'It holds itself and needs no tying; under tiles and in gutters it does harm.',
    missed: 'Again in late summer, after birds have flown.',
  }),
]

const lightly: readonly CareRule[] = [
  own({
    id: 'thin-crape-myrtle',
    taxa: ['Lagerstroemia'],
    verb: 'thin',
    does: 'Take out crossing, rubbing and inward twigs and suckers; never cut the crown back to knuckles',
    windows: [pastHardFrost(beforeShoots)],
    everySeasons: 2,
    why: 'It flowers on new wood without any cut; topped, it makes weak whips that hang under their flowers, and the bark is spoilt.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'shape-late-flowering-shrubs',
    taxa: ['Clethra', 'Hibiscus syriacus'],
    does: 'Take out thin and crossing twigs; shorten only what is too long',
    windows: [pastHardFrost(beforeShoots)],
    everySeasons: 2,
    why: 'It flowers on new wood and keeps its shape alone; hard cut it flowers on fewer, longer stems.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'shape-evergreens-after-bloom',
    applies: {
      traits: { pruning: ['after bloom'], lifeForm: ['evergreen shrub'], flowersOn: ['old wood', 'both'] },
      notTaxa: ['Mahonia', 'Pyracantha', 'Euphorbia'],
    },
    does: 'Shorten wayward shoots to a leaf joint inside the outline, and take off what is dead',
    windows: [afterBloom(28, 49)],
    labour: { setUp: 5, perPlant: 8, perMetre: 3 },
    everySeasons: 2,
    cautions: [NESTING],
    why: 'Shaped straight after bloom it has the summer to set its buds again.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'cut-mahonia',
    taxa: ['Mahonia'],
    does: 'Cut flowered stems back to a whorl of leaves lower down, the longest first',
    windows: [afterBloom(28, 56)],
    everySeasons: 2,
    cautions: [THORNS],
    why: 'It branches where it is cut after bloom; left alone it stands on bare legs.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'shorten-firethorn',
    taxa: ['Pyracantha'],
    does: 'Shorten new side shoots to two or three leaves beyond the young berries',
    windows: [afterBloom(35, 63)],
    labour: { setUp: 5, perPlant: 15, perMetre: 5 },
    cautions: [THORNS, NESTING],
    why: 'The berries hang where the flowers were, and show once the shoots that hide them are short.',
    missed: 'Leave it: a cut now takes berries or next year’s flowers.',
  }),
  own({
    id: 'cut-flowered-spurge',
    taxa: ['Euphorbia characias'],
    does: 'Cut stems that flowered to the base, and leave the green ones that will flower next',
    windows: [afterBloom(21, 56)],
    labour: { setUp: 5, perPlant: 5 },
    cautions: ['Its sap burns skin and eyes: gloves, sleeves and eye protection.'],
    why: 'Each stem flowers once; the next year’s stand ready beside it.',
    missed: 'Dead stems can go at any time.',
  }),
  own({
    id: 'leave-its-shape',
    applies: { traits: { pruning: ['after bloom'], lifeForm: ['small tree'] } },
    does: 'Take out only dead and crossing branches',
    windows: [afterBloom(28, 56)],
    everySeasons: 3,
    cautions: [NESTING],
    why: 'A small tree keeps its own shape: each branch that is cut flowers no more.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'yucca-spikes',
    taxa: ['Yucca'],
    verb: 'take spikes off',
    does: 'Cut the spent flower spike to its base and pull dead leaves off',
    windows: [afterBloom(28, 90)],
    labour: { setUp: 5, perPlant: 5 },
    cautions: ['Leaf tips are sharp: eyes.'],
    why: 'The rosette dies after flowering and its offsets take over.',
    missed: 'At any time.',
  }),
  own({
    id: 'thin-bamboo',
    taxa: ['Fargesia', 'Phyllostachys'],
    verb: 'thin',
    does: 'Take the oldest, palest canes out at the ground, at most a third',
    windows: [
      beforeGrowth(-28, 10, { from: 'leaves shelter the new canes', to: 'new canes are up and snap' }),
    ],
    everySeasons: 2,
    labour: { setUp: 5, perPlant: 15 },
    cautions: ['Cut canes are sharp: cut low and level.'],
    why: 'Canes live some seven years; light between them makes the new ones strong.',
    missed: 'It can wait a year.',
  }),
  own({
    id: 'palm-dead-fronds',
    taxa: ['Trachycarpus'],
    verb: 'clean',
    does: 'Take off brown fronds that hang, a hand from the trunk; never a green one',
    windows: [
      {
        season: 'spring',
        earliest: { at: 'last frost', share: 50, or: { at: 'midwinter', days: 45 } },
        bestFrom: { at: 'last frost', share: 90, or: { at: 'earliest' } },
        bestTo: { at: 'longest day', days: 30 },
        latest: { at: 'longest day', days: 75 },
        because: {
          earliest: 'old fronds shelter the heart from frost',
          bestFrom: 'hard frost is past',
          bestTo: 'new fronds are opening',
          latest: 'what is left goes into winter with it',
        },
      },
    ],
    labour: { setUp: 5, perPlant: 10 },
    cautions: [LADDER, THORNS],
    why: 'A palm grows from one heart and feeds it from every green frond.',
    missed: 'Nothing is lost.',
  }),
]

const hedges: readonly CareRule[] = [
  own({
    id: 'clip-yew',
    ...clipping,
    taxa: ['Taxus'],
    does: 'Clip to shape, a little wider at the foot than at the top',
    windows: [lateSummer],
    cautions: [NESTING, 'Every part but the red flesh is poisonous: keep clippings from animals.'],
    why: 'One clip in late summer stays sharp until spring; alone among conifers it breaks from old wood.',
    missed: 'Next late summer; a hard cut in spring.',
  }),
  own({
    id: 'clip-conifer-hedges',
    ...clipping,
    taxa: ['Thuja', 'Chamaecyparis', 'Cupressus'],
    does: 'Clip the green shoots only, never back into brown',
    windows: [lateSummer],
    cautions: [NESTING, DULL_DAY],
    why: 'Brown wood of these conifers never greens again: it is kept narrow from the start.',
    missed: 'Next late spring; never make it up by a deeper cut.',
  }),
  own({
    id: 'clip-leafy-hedges',
    ...clipping,
    applies: { traits: { pruning: ['shear'], lifeForm: ['deciduous shrub'] }, flowers: false },
    does: 'Clip once, wider at the foot than at the top',
    windows: [lateSummer],
    cautions: [NESTING],
    why: 'Clipped in late summer it keeps its brown leaves, and its line, through winter.',
    missed: 'In winter while it is bare; the line is then looser next year.',
  }),
  own({
    id: 'clip-privet',
    ...clipping,
    taxa: ['Ligustrum'],
    does: 'Clip to shape, wider at the foot than at the top',
    windows: [
      {
        season: 'summer',
        earliest: { at: 'growth has shown', days: 14 },
        bestFrom: { at: 'growth has shown', days: 28 },
        bestTo: { at: 'longest day', days: 70 },
        latest: {
          earliestOf: [
            { at: 'longest day', days: 85 },
            { at: 'warmth left', degreeDays: 200 },
          ],
        },
        because: {
          earliest: 'the first shoots are long enough to clip',
          bestFrom: 'it is shaggy',
          bestTo: 'the last clip holds until spring',
          latest: 'soft growth would be frosted',
        },
      },
    ],
    everyDays: 56,
    cautions: [NESTING],
    why: 'It grows fast and wants two or three clips a year to stay dense to the ground.',
    missed: 'At the next turn; a hard cut in spring if it has got away.',
  }),
  own({
    id: 'clip-holly',
    ...clipping,
    taxa: ['Ilex aquifolium'],
    does: 'Shorten with secateurs to shape, leaving the berried shoots',
    windows: [lateSummer],
    tools: ['secateurs', 'stout gloves', 'sheet for clippings'],
    labour: { setUp: 10, perPlant: 10, perMetre: 8 },
    everySeasons: 2,
    cautions: [NESTING, THORNS],
    why: 'Cut in late summer it does not push soft growth into winter; shears would leave torn leaves.',
    missed: 'A few sprays may be taken at midwinter; the rest next summer.',
  }),
]

const trees: readonly CareRule[] = [
  own({
    id: 'prune-apples',
    taxa: ['Malus', 'Sorbus', 'Crataegus'],
    applies: { onWall: false },
    does: 'Take out dead, sick and crossing branches, and thin the crown to let light in',
    windows: [atRest(-14, 'buds are swelling, and blight and canker find open cuts')],
    labour: { setUp: 15, perPlant: 20, perMetre: 12 },
    everySeasons: 2,
    steps: [
      'Dead, sick and crossing branches first, to the collar.',
      'Then shoots that grow straight up or inward; never more than a fifth of the crown in one winter.',
      'Take mummied fruit off: scab and rot winter in it.',
    ],
    cautions: ['Work above head height is for a qualified arborist.', BLIGHT],
    why: 'Its frame is clear while it is bare, and wounds are safest while it is fully at rest.',
    missed: 'Water shoots can be pulled off in summer; the rest next winter.',
  }),
]

/** Rules of pruning that are of some kinds alone. */
export const pruningByKind: readonly CareRule[] = [
  ...roses,
  ...clematis,
  ...hydrangeas,
  ...twoCuts,
  ...newWood,
  ...lightly,
  ...hedges,
  ...trees,
]

/** Kinds with such a rule, by the beginnings of their names: what is said of most shrubs is not said of them. */
export const kindsWithTheirOwn: readonly string[] = pruningByKind.flatMap((r) => r.applies.taxa ?? [])
