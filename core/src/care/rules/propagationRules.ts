import { woodyForms, type LifeForm } from '../../plants/index.ts'
import type { CareRule, WindowSpec } from '../rule.ts'
import { THORNS } from './pruningWindows.ts'
import { afterIrisBloom } from './movingRules.ts'

// What a gardener raises or sets out. Nothing of it comes round by itself, but for cuttings of what may not live the winter.

type Sowing = Pick<CareRule, 'id' | 'does' | 'applies' | 'windows' | 'why' | 'missed' | 'steps'> &
  Partial<CareRule>

const propagate = (rule: Sowing): CareRule => ({
  operation: 'propagate',
  forbids: [],
  labour: { setUp: 20, perPlant: 10 },
  tools: ['clean knife', 'pots', 'gritty mix', 'labels'],
  yearly: false,
  ...rule,
})

const perennials: readonly LifeForm[] = ['perennial', 'groundcover', 'cool grass', 'warm grass', 'fern']

const softTips: WindowSpec = {
  season: 'spring',
  earliest: { at: 'growth has shown', days: 7 },
  bestFrom: { at: 'growth has shown', days: 14 },
  bestTo: { at: 'longest day', days: 7 },
  latest: { at: 'longest day', days: 30 },
  because: {
    earliest: 'shoots are long enough to take',
    bestFrom: 'tips snap when they are bent',
    bestTo: 'what roots now is strong before winter',
    latest: 'shoots harden and root slowly',
  },
}

const halfRipe: WindowSpec = {
  season: 'summer',
  earliest: { at: 'longest day', days: 14 },
  bestFrom: { at: 'longest day', days: 30 },
  bestTo: { at: 'longest day', days: 75 },
  latest: { at: 'longest day', days: 100 },
  because: {
    earliest: 'the bases of the shoots begin to turn firm',
    bestFrom: 'the base is firm and the tip still soft',
    bestTo: 'there is time to root before the dark months',
    latest: 'too little warmth and light is left',
  },
}

const bareWood: WindowSpec = {
  season: 'winter',
  earliest: { at: 'midwinter', days: -70 },
  bestFrom: { at: 'midwinter', days: -50 },
  bestTo: { at: 'midwinter' },
  latest: { at: 'growth shows', days: -21 },
  because: {
    earliest: 'the wood is ripe and the leaves are off',
    bestFrom: 'cuttings callus through the winter',
    bestTo: 'they stand in the ground before spring',
    latest: 'buds swell before roots are there',
  },
}

const rootsAtRest: WindowSpec = {
  season: 'winter',
  earliest: { at: 'midwinter', days: -45 },
  bestFrom: { at: 'midwinter', days: -20 },
  bestTo: { at: 'midwinter', days: 21 },
  latest: { at: 'growth shows', days: -28 },
  because: {
    earliest: 'the plant has died down and its roots are full',
    bestFrom: 'it is wholly at rest',
    bestTo: 'shoots come with the spring',
    latest: 'its reserves go into its own shoots',
  },
}

/** Perennials and shrubs that often do not live the winter and root easily. */
const reserves = [
  'Argyranthemum',
  'Bidens',
  'Coleus',
  'Fuchsia',
  'Heliotropium',
  'Lantana',
  'Osteospermum',
  'Pelargonium',
  'Penstemon',
  'Plectranthus',
  'Salvia',
  'Verbena',
]

/** Cuttings, layers, sowing and seed. */
export const propagation: readonly CareRule[] = [
  propagate({
    id: 'cuttings-as-reserve',
    verb: 'take cuttings of',
    does: 'Take tip cuttings as a reserve for the winter; of ten, about eight root',
    applies: {
      taxa: reserves,
      traits: { lifeForm: ['perennial', 'tender perennial', 'deciduous shrub', 'evergreen shrub'] },
      winter: ['at risk', 'tender'],
    },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'longest day', days: 35 },
        bestFrom: { at: 'longest day', days: 45 },
        bestTo: { at: 'first frost', share: 10, days: -35, or: { at: 'longest day', days: 85 } },
        latest: { at: 'first frost', share: 10, days: -10, or: { at: 'longest day', days: 110 } },
        because: {
          earliest: 'shoots without flowers are to be had',
          bestFrom: 'they root in two to four weeks while it is warm',
          bestTo: 'rooted before the light goes, they stand the winter small',
          latest: 'frost may take the mother plant',
        },
      },
    ],
    steps: [
      'Take shoots without buds, a finger long, just below a leaf; strip the lower half.',
      'Set round the edge of a pot of gritty mix, firm, water, cover, out of the sun.',
      'Pot singly when they pull back; keep frost-free and rather dry over winter.',
    ],
    labour: { setUp: 15, perPlant: 5 },
    why: 'It may not live the winter here; a few rooted tips take little room and cost nothing.',
    missed: 'Lift and pot the plant itself before frost, or buy anew in spring.',
    yearly: true,
  }),
  propagate({
    id: 'basal-cuttings',
    verb: 'take cuttings of',
    does: 'Take young shoots with a heel of the crown; of ten, about seven root',
    applies: {
      taxa: [
        'Dahlia',
        'Delphinium',
        'Lupinus',
        'Phlox',
        'Campanula',
        'Chrysanthemum',
        'Aster',
        'Symphyotrichum',
        'Helenium',
        'Sedum',
        'Hylotelephium',
      ],
    },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows' },
        bestFrom: { at: 'growth shows', days: 7 },
        bestTo: { at: 'growth has shown', days: 7 },
        latest: { at: 'growth has shown', days: 21 },
        because: {
          earliest: 'the first shoots are there',
          bestFrom: 'shoots are a finger long and not yet hollow',
          bestTo: 'the plant makes others in their place',
          latest: 'stems turn hollow and rot',
        },
      },
    ],
    steps: [
      'Cut where the shoot joins the crown, with a sliver of it.',
      'Set in gritty mix, cover, keep light and cool.',
    ],
    why: 'Young shoots from the crown root fast and flower the same year.',
    missed: 'Divide it, or try next spring.',
  }),
  propagate({
    id: 'softwood-cuttings',
    verb: 'take cuttings of',
    does: 'Take soft tips; of ten, about six root',
    applies: { traits: { lifeForm: ['deciduous shrub', 'climber'], flowersOn: ['new wood', 'both'] } },
    windows: [softTips],
    steps: ['Early in the day, a finger long, straight into a bag.', 'Cover at once: they wilt in minutes.'],
    why: 'Soft tips of deciduous shrubs root in weeks, but must never wilt.',
    missed: 'Half-ripe cuttings in late summer.',
  }),
  propagate({
    id: 'half-ripe-cuttings',
    verb: 'take cuttings of',
    does: 'Take half-ripe side shoots with a heel; of ten, about six root',
    applies: { traits: { lifeForm: ['evergreen shrub', 'succulent'] } },
    windows: [halfRipe],
    steps: [
      'Pull side shoots off with a heel, trim the tail of bark.',
      'Rooting powder, gritty mix, cold frame; they root by spring.',
    ],
    why: 'Evergreens root best when the base of the year’s shoots has turned firm.',
    missed: 'Next summer; hardwood cuttings of some in early winter.',
  }),
  propagate({
    id: 'hardwood-cuttings',
    verb: 'take cuttings of',
    does: 'Take pencil-thick lengths of ripe wood; of ten, about seven root',
    applies: {
      taxa: [
        'Buddleja',
        'Cornus alba',
        'Cornus sericea',
        'Deutzia',
        'Forsythia',
        'Hydrangea paniculata',
        'Ligustrum',
        'Philadelphus',
        'Ribes',
        'Rosa',
        'Salix',
        'Sambucus',
        'Spiraea',
        'Viburnum opulus',
        'Vitis',
        'Weigela',
        'Physocarpus',
        'Kerria',
      ],
    },
    windows: [bareWood],
    steps: [
      'Lengths of a foot, cut straight below a bud and slanting above one.',
      'Two thirds deep in a slit with grit in its foot; firm; leave for a whole year.',
    ],
    labour: { setUp: 20, perPlant: 3 },
    why: 'It asks for nothing but a strip of ground and a year.',
    missed: 'Soft tips in early summer.',
  }),
  propagate({
    id: 'root-cuttings',
    verb: 'take root cuttings of',
    does: 'Cut thick roots to finger lengths; of ten, about eight shoot',
    applies: {
      taxa: [
        'Acanthus',
        'Anemone',
        'Echinacea',
        'Eryngium',
        'Papaver orientale',
        'Phlox paniculata',
        'Primula denticulata',
        'Verbascum',
      ],
    },
    windows: [rootsAtRest],
    steps: [
      'Lift or uncover one side; take pencil-thick roots, no more than a third.',
      'Cut straight at the top, slanting at the foot, so that each stands the right way up.',
      'Level with the mix, grit on top, cold frame.',
    ],
    why: 'What resents being lifted is raised from its roots; phlox raised so is free of eelworm.',
    missed: 'Next winter.',
  }),
  propagate({
    id: 'layer',
    verb: 'layer',
    does: 'Peg a low shoot down into the ground; of ten, nine root, in one to two years',
    applies: {
      taxa: [
        'Amelanchier',
        'Clematis',
        'Cotinus',
        'Hamamelis',
        'Hydrangea',
        'Jasminum',
        'Kalmia',
        'Lonicera',
        'Magnolia',
        'Pieris',
        'Rhododendron',
        'Syringa',
        'Trachelospermum',
        'Vitis',
        'Wisteria',
      ],
    },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'growth shows', days: -28 },
        bestFrom: { at: 'growth shows', days: -7 },
        bestTo: { at: 'growth shows', days: 28 },
        latest: { at: 'longest day' },
        because: {
          earliest: 'the ground can be worked',
          bestFrom: 'sap rises and wounds callus',
          bestTo: 'the whole season is left to root',
          latest: 'too little of the season is left',
        },
      },
    ],
    steps: [
      'Wound the underside where it will be buried.',
      'Peg it a hand deep, tip up along a cane; a stone on top.',
      'Cut it off when it stands firm.',
    ],
    labour: { setUp: 10, perPlant: 15 },
    why: 'It roots while the mother plant feeds it: the surest way with what roots badly from cuttings.',
    missed: 'In autumn, at the price of a longer wait.',
  }),
  propagate({
    id: 'keep-seed',
    verb: 'keep seed of',
    does: 'Gather ripe seed on a dry day; named forms seldom come true',
    applies: { traits: { selfSeeds: ['some', 'freely'] }, flowers: true },
    windows: [
      {
        season: 'summer',
        earliest: { at: 'bloom ends', days: -14 },
        bestFrom: { at: 'bloom ends' },
        bestTo: { at: 'bloom ends', days: 28 },
        latest: { at: 'bloom ends', days: 49 },
        because: {
          earliest: 'the first heads ripen',
          bestFrom: 'heads turn brown and rattle',
          bestTo: 'not all has been shed',
          latest: 'it has been shed or eaten',
        },
      },
    ],
    labour: { setUp: 10, perPlant: 3 },
    tools: ['paper bags', 'labels'],
    steps: ['Whole heads into paper bags, named and dated.', 'Dry for two weeks, clean, store cold and dry.'],
    why: 'A bag of seed is a bed for nothing.',
    missed: 'Look for seedlings in spring.',
  }),
  propagate({
    id: 'sow-tender-inside',
    verb: 'sow',
    does: 'Sow under cover in warmth',
    applies: { traits: { annualSeason: ['warm'] } },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'nights above', c: 8, days: -84, or: { at: 'midwinter', days: 7 } },
        bestFrom: { at: 'nights above', c: 8, days: -70, or: { at: 'midwinter', days: 14 } },
        bestTo: { at: 'nights above', c: 8, days: -42, or: { at: 'midwinter', days: 49 } },
        latest: { at: 'nights above', c: 8, days: -14, or: { at: 'midwinter', days: 77 } },
        because: {
          earliest: 'sooner they wait for warmth and grow leggy',
          bestFrom: 'they are in bud when frost is past',
          bestTo: 'fast kinds still make it',
          latest: 'they would flower late',
        },
      },
    ],
    tools: ['trays', 'seed mix', 'labels', 'cover'],
    steps: [
      'Thin and even; cover with their own depth; fine seed not at all.',
      'Prick out at the first true leaves; harden off for ten days.',
    ],
    why: 'Raised from seed a bed of them costs a tenth.',
    missed: 'Buy plants after frost.',
  }),
  propagate({
    id: 'sow-hardy-in-place',
    verb: 'sow',
    does: 'Sow in place, thinly, in drills, so that seedlings can be told from weeds',
    applies: { traits: { annualSeason: ['cool'], lifeForm: ['annual'] } },
    windows: [
      {
        season: 'spring',
        earliest: { at: 'soil above', c: 6 },
        bestFrom: { at: 'soil above', c: 8 },
        bestTo: { at: 'earliest', days: 42 },
        latest: { at: 'days above', c: 22, or: { at: 'earliest', days: 70 } },
        because: {
          earliest: 'in colder soil seed rots',
          bestFrom: 'seed germinates within two weeks',
          bestTo: 'they flower before heat',
          latest: 'heat soon ends them',
        },
      },
      {
        season: 'autumn',
        needs: { at: 'soil below', c: 14 },
        earliest: { at: 'soil below', c: 18, or: { at: 'midsummer', days: 30 } },
        bestFrom: { at: 'soil below', c: 16, or: { at: 'earliest', days: 7 } },
        bestTo: { at: 'earliest', days: 28 },
        latest: { at: 'rooting time left', weeks: 5, c: 6 },
        because: {
          earliest: 'in warmer soil it does not germinate',
          bestFrom: 'the soil is moist and still warm',
          bestTo: 'they stand the winter as small rosettes',
          latest: '',
        },
      },
    ],
    forbids: ['sodden soil', 'frozen soil', 'heat'],
    tools: ['rake', 'line', 'seed'],
    steps: [
      'Rake fine, firm, water the drill, sow, draw dry soil over.',
      'Thin to their distance when they touch.',
    ],
    why: 'Sown where they flower they root deep and need no planting.',
    missed: 'Sow at the other end of the year, or set plants out.',
  }),
]

const settingOut: Pick<CareRule, 'operation' | 'forbids' | 'tools' | 'labour' | 'yearly' | 'cautions'> = {
  operation: 'plant',
  forbids: ['heat', 'frozen soil', 'sodden soil', 'hard frost'],
  tools: ['spade', 'fork', 'watering can', 'cane to see levels by'],
  labour: { setUp: 15, perPlant: 15, perMetre: 6 },
  yearly: false,
}
const plant = (
  rule: Pick<CareRule, 'id' | 'does' | 'applies' | 'windows' | 'why' | 'missed' | 'steps'> &
    Partial<CareRule>,
): CareRule => ({
  ...settingOut,
  ...rule,
})

const autumnPlanting: WindowSpec = {
  season: 'autumn',
  earliest: { at: 'soil below', c: 18, or: { at: 'midsummer', days: 30 } },
  bestFrom: { at: 'soil below', c: 16, or: { at: 'earliest', days: 7 } },
  bestTo: { at: 'latest', days: -10 },
  latest: { at: 'rooting time left', weeks: 5, c: 6 },
  because: {
    earliest: 'in warmer soil they want water every other day',
    bestFrom: 'warm soil and cool air: roots grow, leaves rest',
    bestTo: 'they root before cold',
    latest: '',
  },
}
const springPlanting: WindowSpec = {
  season: 'spring',
  earliest: { at: 'soil above', c: 6 },
  bestFrom: { at: 'soil above', c: 8 },
  bestTo: { at: 'earliest', days: 45 },
  latest: { at: 'days above', c: 22, or: { at: 'earliest', days: 75 } },
  because: {
    earliest: 'roots grow from then',
    bestFrom: 'they take at once',
    bestTo: 'they root before heat',
    latest: 'from then on they want watering all summer',
  },
}
const bareRoots: WindowSpec = {
  season: 'dormant season',
  needs: { at: 'soil below', c: 13 },
  earliest: { at: 'is gone', days: 7 },
  bestFrom: { at: 'is gone', days: 14 },
  bestTo: { at: 'next midwinter', days: -14 },
  latest: { at: 'growth shows', days: 358 },
  because: {
    earliest: 'nurseries lift when the leaves are off',
    bestFrom: 'the soil is still warm enough for some root growth',
    bestTo: 'later is possible in open weather, never in frozen or sodden ground',
    latest: 'buds break before roots are there',
  },
}
const withTheirOwnDepth = ['Clematis', 'Paeonia', 'Iris germanica', 'Rosa']
const AFTERWARDS =
  'Water in with a whole can, mulch off the stem, and water each week without rain through the first summer.'

/** How and when what was bought or raised goes into the ground. */
export const settingOutRules: readonly CareRule[] = [
  plant({
    id: 'plant-pot-grown-perennials',
    does: 'Set pot-grown plants level with the ground, their roots teased loose',
    applies: { traits: { lifeForm: perennials }, notTaxa: withTheirOwnDepth, place: 'bed' },
    windows: [autumnPlanting, springPlanting],
    labour: { setUp: 15, perPlant: 6 },
    steps: [
      'Soak the pots; lay all out, look, and only then plant.',
      'Tease circling roots loose, or cut them down two sides: left whole they go on circling.',
      'Top of the ball level with the ground; firm with the fist.',
      AFTERWARDS,
    ],
    why: 'From a pot it may be planted whenever the ground is open; roots take best in soil that is warm and moist.',
    missed: 'Pot it on, keep it watered, and plant at the next turn.',
  }),
  plant({
    id: 'plant-pot-grown-woody',
    does: 'Set pot-grown shrubs with the flare of their roots at the surface',
    applies: { traits: { lifeForm: woodyForms }, notTaxa: withTheirOwnDepth, place: 'bed' },
    windows: [autumnPlanting, springPlanting],
    steps: [
      'Find the flare: mix is often heaped over it. Take it off until the stem widens.',
      'Cut circling roots; of a tree wash some of the mix off.',
      'A hole as deep as the ball and three times as wide; sides broken, bottom firm.',
      'Stake a tree low, a third of its height, on the windward side.',
      AFTERWARDS,
    ],
    cautions: [
      'Before digging deep, call the utility-locating service.',
      'Lift with bent knees; two people for a big ball.',
    ],
    why: 'Planted too deep its bark rots; into loose wide ground its roots run out.',
    missed: 'Keep it in its pot, watered, until the next turn.',
  }),
  plant({
    id: 'plant-bare-root',
    does: 'Set bare-root plants at their old soil mark, roots spread',
    applies: {
      traits: { lifeForm: ['deciduous shrub', 'small tree'] },
      notTaxa: withTheirOwnDepth,
      place: 'bed',
    },
    windows: [bareRoots],
    steps: [
      'Soak the roots two hours; never let them see sun or wind.',
      'Cut broken roots back to sound wood.',
      'Spread them over a mound, at the mark on the stem; shake soil between; tread in.',
      AFTERWARDS,
    ],
    why: 'Bare-root plants cost half, carry no foreign mix and root at once into the ground that is there.',
    missed: 'Heel them in for a few weeks; after bud break only from pots.',
  }),
  plant({
    id: 'plant-roses',
    does: 'Set roses with the graft a finger below the ground; a hand below it where winters are hard',
    applies: { taxa: ['Rosa'], place: 'bed' },
    windows: [bareRoots, springPlanting],
    steps: [
      'Soak bare roots for two hours; shorten them to a foot.',
      'Not where roses stood before, unless the soil is changed two spades deep.',
      'Where it freezes below −15 °C earth the stems up a hand over the first winter.',
      AFTERWARDS,
    ],
    cautions: [THORNS],
    why: 'The graft is where it is weakest: below the ground it is out of wind and frost.',
    missed: 'Pot-grown roses go in at any time the ground is open.',
  }),
  plant({
    id: 'plant-clematis',
    does: 'Set clematis a hand deeper than they stood, feet in shade',
    applies: { taxa: ['Clematis'], place: 'bed' },
    windows: [autumnPlanting, springPlanting],
    steps: [
      'A foot and a half from the wall, leaning to it.',
      'The top of the ball a hand below the ground: large-flowered kinds shoot again from there if they wilt.',
      'Shade the foot with a low plant or a tile.',
      AFTERWARDS,
    ],
    why: 'Buried buds save it when the top wilts or is cut by mistake.',
    missed: 'Keep it in its pot, in shade, until the next turn.',
  }),
  plant({
    id: 'plant-peonies',
    does: 'Set peonies with their buds two fingers below the ground, no deeper',
    applies: { taxa: ['Paeonia lactiflora', 'Paeonia officinalis'], place: 'bed' },
    windows: [{ ...autumnPlanting, latest: { at: 'rooting time left', weeks: 6, c: 6 } }],
    steps: [
      'Buds up, three to five fingers’ breadth at most below ground once it has settled.',
      'A place for decades: dig it two spades deep.',
      AFTERWARDS,
    ],
    why: 'Set deeper it makes leaves and never flowers.',
    missed: 'Pot-grown in spring; it then sulks a year longer.',
  }),
  plant({
    id: 'plant-irises',
    does: 'Set bearded irises with the top of the rhizome in the sun',
    applies: { taxa: ['Iris germanica'], place: 'bed' },
    windows: [afterIrisBloom],
    labour: { setUp: 15, perPlant: 6 },
    steps: [
      'A ridge, roots down both sides, the back of the rhizome bare.',
      'Fans all facing one way; no mulch.',
      'Water once.',
    ],
    why: 'Shaded or buried, the rhizome rots and does not flower.',
    missed: 'In spring; it then flowers a year later.',
  }),
]
