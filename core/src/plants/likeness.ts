import type { Taxon } from './taxon.ts'

/** Another kind that one is taken for, and what tells them apart. */
export interface Likeness {
  /** As people call it, with its botanical name where it has one. */
  with: string
  toldBy: string
}

/** Kinds that are taken for each other, by the beginnings of their names, with what tells each from the other. General knowledge. */
const pairs: readonly (readonly [a: string, b: string, toldBy: string])[] = [
  [
    'Aconitum',
    'Delphinium',
    'monkshood has a hood over each flower, larkspur a spur behind it; both poison, monkshood through the skin too',
  ],
  [
    'Anemone × hybrida',
    'Anemone hupehensis',
    'the hybrid is taller, with more petals, and sets no good seed',
  ],
  ['Aster amellus', 'Aster × frikartii', 'the hybrid is taller, floppier and begins weeks earlier'],
  ['Astilbe', 'Aruncus', 'goat’s beard is twice as tall, creamy, and leans on a woody crown'],
  ['Buxus', 'Ilex crenata', 'box has its leaves in pairs, holly one by one'],
  [
    'Camellia japonica',
    'Camellia sasanqua',
    'sasanqua flowers in autumn, on smaller leaves, and takes more sun',
  ],
  [
    'Campsis radicans',
    'Bignonia capreolata',
    'trumpet creeper has leaves of many leaflets and drops them all',
  ],
  ['Clematis montana', 'Clematis armandii', 'armandii keeps its long leathery leaves in winter'],
  [
    'Colchicum',
    'Crocus',
    'autumn crocus in the garden sense has six stamens and great leaves in spring, and is deadly; a crocus has three',
  ],
  [
    'Convallaria majalis',
    'Allium ursinum',
    'wild garlic smells of it when a leaf is rubbed; lily of the valley is poisonous and does not',
  ],
  ['Cornus alba', 'Cornus sericea', 'sericea runs by layers of its low branches'],
  [
    'Digitalis purpurea',
    'Symphytum officinale',
    'foxglove leaves are soft and toothed, comfrey bristly and smooth of edge: before anybody makes tea of them',
  ],
  ['Echinacea', 'Rudbeckia', 'coneflower has a bristly cone, the other a soft one'],
  [
    'Fargesia',
    'Phyllostachys',
    'running bamboo has a groove along each joint of its canes, and comes up 1 m off',
  ],
  ['Forsythia', 'Jasminum nudiflorum', 'winter jasmine has green twigs and flowers months earlier'],
  [
    'Galanthus',
    'Leucojum',
    'snowflakes have six petals alike, each tipped green; snowdrops three long and three short',
  ],
  [
    'Geranium',
    'Pelargonium',
    'cranesbills are hardy and have five petals alike; pelargoniums two above and three below',
  ],
  [
    'Hemerocallis',
    'Lilium',
    'daylilies have grassy leaves from the ground, lilies leaves up the stem; both are deadly to cats',
  ],
  [
    'Hyacinthoides non-scripta',
    'Hyacinthoides hispanica',
    'the native nods to one side, smells and has creamy pollen; the other stands up with blue pollen',
  ],
  [
    'Hydrangea arborescens',
    'Hydrangea macrophylla',
    'the smooth one has thin dull leaves and is cut down each spring; the big-leaved has thick shining ones and would lose its flowers by that',
  ],
  [
    'Hydrangea paniculata',
    'Hydrangea quercifolia',
    'the oak-leaved has lobed leaves, and flowers on old wood',
  ],
  ['Hylotelephium spectabile', 'Hylotelephium telephium', 'spectabile has pale flat heads with long stamens'],
  ['Iris sibirica', 'Iris ensata', 'ensata has a rib down each leaf and flat flowers, and wants acid ground'],
  [
    'Laurus nobilis',
    'Prunus laurocerasus',
    'bay smells of the kitchen when rubbed; cherry laurel of almonds, and is poisonous: never mix them up in a pot',
  ],
  [
    'Lavandula angustifolia',
    'Lavandula stoechas',
    'the southern one has ears on its heads, flowers sooner and dies in hard winters',
  ],
  ['Lavandula angustifolia', 'Nepeta', 'catmint is soft, dies down and is cut after its first flush'],
  ['Leucanthemum', 'Tanacetum parthenium', 'feverfew has divided leaves that smell'],
  ['Ligustrum', 'Buxus', 'privet has larger, thinner leaves, and loses them in a cold winter'],
  [
    'Lonicera japonica',
    'Lonicera periclymenum',
    'the Japanese one keeps its leaves, has black berries, and runs wild',
  ],
  ['Miscanthus', 'Cortaderia', 'pampas keeps its saw-edged leaves all winter and is never cut to the ground'],
  ['Narcissus', 'Allium', 'onions smell of it; daffodil bulbs do not, and are poisonous'],
  [
    'Paeonia lactiflora',
    'Paeonia × suffruticosa',
    'tree peonies have woody stems, which are never cut down; the others are cut to the ground each autumn',
  ],
  ['Parthenocissus quinquefolia', 'Parthenocissus tricuspidata', 'five leaflets against three lobes'],
  ['Philadelphus', 'Deutzia', 'mock orange has four petals and smells, deutzia five and hardly does'],
  ['Primula vulgaris', 'Primula Polyanthus group', 'primroses have one flower to a stalk'],
  [
    'Pulmonaria',
    'Brunnera',
    'lungwort has spotted bristly leaves that are longer than broad, brunnera hearts',
  ],
  [
    'Rosa Climbing group',
    'Rosa Rambler group',
    'ramblers flower once, from many stems from the base, and are cut after it; climbers again and again from a frame, and are cut in winter',
  ],
  ['Rudbeckia fulgida', 'Rudbeckia hirta', 'hirta is hairy all over and lives two or three years'],
  ['Salvia yangii', 'Lavandula', 'Russian sage has white stems and dies back to its base'],
  ['Skimmia', 'Sarcococca', 'sweet box has small narrow leaves, winter scent and black berries'],
  [
    'Spiraea japonica',
    'Spiraea × arguta',
    'the pink one flowers in summer and is cut in late winter; the white in spring, and is cut after it',
  ],
  [
    'Symphyotrichum novae-angliae',
    'Symphyotrichum novi-belgii',
    'the New England one is hairy and keeps off mildew',
  ],
  ['Syringa', 'Buddleja', 'lilac flowers in May on old wood, buddleja from July on new'],
  ['Taxus', 'Juniperus', 'yew has soft flat needles and red berries; juniper pricks'],
  [
    'Thuja',
    'Chamaecyparis',
    'thuja smells of fruit and is green beneath; the other is marked with white there',
  ],
  ['Tiarella', 'Heuchera', 'foam flower creeps by runners'],
  ['Trachelospermum', 'Jasminum officinale', 'star jasmine is evergreen with milky sap and turning petals'],
  ['Viburnum opulus', 'Hydrangea arborescens', 'guelder rose has lobed leaves and red berries'],
  ['Vinca minor', 'Pachysandra', 'periwinkle has leaves in pairs along trailing stems'],
  [
    'Wisteria sinensis',
    'Wisteria floribunda',
    'the Chinese one twines against the clock and flowers before its leaves; the Japanese with the clock, in longer tassels',
  ],
]

/** What a kind is taken for, with what tells them apart. */
export const takenFor = ({ botanical }: Pick<Taxon, 'botanical'>): Likeness[] =>
  pairs.flatMap(([a, b, toldBy]) =>
    botanical.startsWith(a) && !botanical.startsWith(b)
      ? [{ with: b, toldBy }]
      : botanical.startsWith(b) && !botanical.startsWith(a)
        ? [{ with: a, toldBy }]
        : [],
  )
