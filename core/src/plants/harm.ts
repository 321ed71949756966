import { byName } from './byName.ts'
import type { Taxon } from './taxon.ts'

/** Whom a plant can poison. */
/** Whom a plant may poison when it is eaten. */
export const harmed = ['people', 'cats', 'dogs', 'horses'] as const
export type Harmed = (typeof harmed)[number]

const everyone = harmed
const pets: readonly Harmed[] = ['cats', 'dogs']
const beasts: readonly Harmed[] = ['cats', 'dogs', 'horses']

/**
 * Whom kinds poison when they are eaten, by the beginnings of their names; the longest that fits counts. General knowledge of
 * poisonous garden plants: what is not listed is not said to be harmless.
 */
const poisonous: Readonly<Record<string, readonly Harmed[]>> = {
  Aconitum: everyone,
  Actaea: everyone,
  Agapanthus: pets,
  Agave: pets,
  Allium: beasts,
  Anemone: everyone,
  Aquilegia: ['people'],
  Arum: everyone,
  Asclepias: everyone,
  Aucuba: everyone,
  Begonia: beasts,
  Brugmansia: everyone,
  Buxus: everyone,
  Caladium: everyone,
  Catharanthus: everyone,
  Chrysanthemum: beasts,
  Citrus: pets,
  Clematis: everyone,
  Colchicum: everyone,
  Colocasia: everyone,
  Convallaria: everyone,
  Cotoneaster: ['people', 'dogs'],
  Crocus: pets,
  Cyclamen: everyone,
  Dahlia: beasts,
  Daphne: everyone,
  Delphinium: everyone,
  Dianthus: beasts,
  Dicentra: everyone,
  Digitalis: everyone,
  Eranthis: everyone,
  Euonymus: everyone,
  Euphorbia: everyone,
  Fritillaria: everyone,
  Galanthus: everyone,
  Gardenia: beasts,
  Gladiolus: beasts,
  Hedera: everyone,
  Helenium: ['people', 'horses'],
  Helleborus: everyone,
  Hemerocallis: ['cats'],
  Hosta: beasts,
  Hyacinthoides: everyone,
  Hyacinthus: everyone,
  Hydrangea: everyone,
  Ilex: everyone,
  Ipomoea: everyone,
  Iris: everyone,
  Kalmia: everyone,
  Lamprocapnos: everyone,
  Lantana: everyone,
  'Lathyrus odoratus': ['people', 'horses'],
  Leucojum: everyone,
  Ligustrum: everyone,
  Lilium: ['cats'],
  Lobelia: everyone,
  Lonicera: ['people', 'dogs'],
  Lupinus: ['people', 'horses'],
  Nandina: everyone,
  Narcissus: everyone,
  Nerine: pets,
  Nerium: everyone,
  Nicotiana: everyone,
  Ornithogalum: everyone,
  Paeonia: beasts,
  Parthenocissus: ['people'],
  Pelargonium: beasts,
  Pieris: everyone,
  Polygonatum: everyone,
  'Prunus laurocerasus': everyone,
  Pulsatilla: everyone,
  Ranunculus: everyone,
  Rhododendron: everyone,
  Sambucus: everyone,
  Sanguinaria: everyone,
  Skimmia: everyone,
  Taxus: everyone,
  Thuja: ['people', 'horses'],
  Trollius: everyone,
  Tulipa: beasts,
  Vinca: everyone,
  Wisteria: everyone,
  Yucca: beasts,
  Zantedeschia: everyone,
}

/** Whom a kind poisons; of one that is marked poisonous and not known further, people and the rest alike. */
export const poisonousTo = ({
  botanical,
  cautions,
}: Pick<Taxon, 'botanical' | 'cautions'>): readonly Harmed[] =>
  byName(poisonous, botanical) ?? (cautions.includes('poison') ? everyone : [])

/** Parts of the world that plants run wild in, as lists of invasive plants part it. */
const regions = {
  'north-western Europe': [48, 72, -25, 32],
  'southern Europe': [35, 48, -11, 42],
  'eastern North America': [24.5, 50, -96, -52],
  'western North America': [31, 60, -137, -102],
  'eastern Australia': [-44, -10, 138, 154],
  'western Australia': [-36, -14, 112, 138],
  'New Zealand': [-48, -34, 166, 179],
  'southern Africa': [-35, -17, 11, 41],
  'temperate South America': [-56, -22, -76, -48],
  'the tropics': [-24, 24.5, -180, 180],
} as const satisfies Record<string, readonly [south: number, north: number, west: number, east: number]>
export type Region = keyof typeof regions

/** The parts of the world that a place lies in, roughly: a box of degrees each. */
export const regionsAt = ({ latitude, longitude }: { latitude: number; longitude: number }): Region[] =>
  (Object.keys(regions) as Region[]).filter((region) => {
    const [south, north, west, east] = regions[region]
    return latitude >= south && latitude <= north && longitude >= west && longitude <= east
  })

/** Where kinds run wild and are listed, or widely warned of, as invasive: general knowledge, for a look at the local list. */
const wild: Readonly<Record<string, readonly Region[]>> = {
  'Agapanthus praecox': ['New Zealand', 'eastern Australia'],
  'Akebia quinata': ['eastern North America', 'New Zealand'],
  'Arum italicum': ['western North America', 'eastern North America', 'New Zealand', 'eastern Australia'],
  'Arundo donax': [
    'western North America',
    'eastern North America',
    'southern Europe',
    'southern Africa',
    'eastern Australia',
    'New Zealand',
    'the tropics',
  ],
  'Berberis thunbergii': ['eastern North America', 'New Zealand'],
  'Buddleja davidii': ['north-western Europe', 'western North America', 'New Zealand', 'eastern Australia'],
  'Campsis radicans': ['southern Europe'],
  'Centranthus ruber': ['western North America', 'western Australia', 'eastern Australia', 'New Zealand'],
  'Cortaderia selloana': [
    'southern Europe',
    'north-western Europe',
    'western North America',
    'eastern Australia',
    'New Zealand',
    'southern Africa',
  ],
  'Cotoneaster horizontalis': ['north-western Europe', 'eastern Australia', 'New Zealand'],
  Crocosmia: [
    'north-western Europe',
    'eastern Australia',
    'New Zealand',
    'western North America',
    'temperate South America',
  ],
  'Euonymus alatus': ['eastern North America'],
  'Euonymus fortunei': ['eastern North America'],
  Gunnera: ['north-western Europe', 'New Zealand'],
  'Hedera helix': [
    'western North America',
    'eastern North America',
    'eastern Australia',
    'western Australia',
    'New Zealand',
    'temperate South America',
  ],
  'Hedychium gardnerianum': ['New Zealand', 'eastern Australia', 'southern Africa', 'the tropics'],
  'Hypericum calycinum': ['New Zealand', 'western North America'],
  'Imperata cylindrica': ['eastern North America', 'the tropics'],
  'Lantana camara': [
    'the tropics',
    'eastern Australia',
    'southern Africa',
    'eastern North America',
    'southern Europe',
  ],
  Ligustrum: [
    'eastern North America',
    'western North America',
    'eastern Australia',
    'New Zealand',
    'southern Africa',
    'temperate South America',
  ],
  'Lonicera japonica': [
    'eastern North America',
    'southern Europe',
    'eastern Australia',
    'New Zealand',
    'temperate South America',
  ],
  'Lupinus polyphyllus': ['north-western Europe', 'New Zealand'],
  'Macleaya cordata': ['eastern North America'],
  'Miscanthus sinensis': ['eastern North America', 'New Zealand'],
  'Nandina domestica': ['eastern North America'],
  'Parthenocissus quinquefolia': ['north-western Europe', 'southern Europe'],
  'Prunus laurocerasus': ['north-western Europe', 'western North America'],
  'Rosa rugosa': ['north-western Europe', 'eastern North America'],
  'Stipa tenuissima': ['western North America', 'eastern Australia', 'New Zealand', 'southern Africa'],
  'Vinca minor': ['eastern North America', 'New Zealand'],
  Wisteria: ['eastern North America'],
  'Zantedeschia aethiopica': ['western Australia', 'eastern Australia', 'New Zealand'],
}

/** Where a kind runs wild; undefined where nobody has said. */
export const runsWildIn = ({ botanical }: Pick<Taxon, 'botanical'>): readonly Region[] | undefined =>
  byName(wild, botanical)

/**
 * Whether a kind may run wild at a place: by the lists where they name it; else as it is marked, as one that spreads in a bed may
 * beyond it.
 *
 * @param here the parts of the world that the place lies in; unknown, any counts
 */
export function mayRunWild(
  taxon: Pick<Taxon, 'botanical' | 'cautions'>,
  here: readonly Region[] | undefined,
): boolean {
  const listed = runsWildIn(taxon)
  if (!listed) return taxon.cautions.includes('invasive')
  return here === undefined || listed.some((region) => here.includes(region))
}
