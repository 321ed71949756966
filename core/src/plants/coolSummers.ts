import { isNamed } from './byName.ts'
import type { Taxon } from './taxon.ts'

/**
 * Kinds that take sun all day where summers are mild, and want shade from two to five where they are hot, by the beginnings of their names:
 * general knowledge of gardens in both.
 */
const kinds: readonly string[] = [
  'Acer griseum',
  'Alchemilla',
  'Antirrhinum',
  'Argyranthemum',
  'Bergenia',
  'Betula utilis',
  'Brassica oleracea',
  'Calendula',
  'Calluna',
  'Campanula lactiflora',
  'Clematis Large-flowered',
  'Clematis montana',
  'Cornus kousa',
  'Dasiphora',
  'Delphinium',
  'Deschampsia',
  'Diascia',
  'Erica carnea',
  'Erysimum cheiri',
  'Fagus sylvatica',
  'Geranium pratense',
  'Geranium × magnificum',
  'Hamamelis',
  'Hebe',
  'Hydrangea paniculata',
  'Iris ensata',
  'Lathyrus odoratus',
  'Lonicera periclymenum',
  'Lupinus',
  'Molinia',
  'Nemesia',
  'Persicaria',
  'Rhododendron luteum',
  'Ribes sanguineum',
  'Sorbus aucuparia',
  'Taxus baccata',
  'Tropaeolum',
  'Viburnum plicatum',
  'Vinca minor',
]

/** Whether a kind wants shade in the afternoon where summers are hot, though it takes sun all day elsewhere. */
export const likesCoolSummers = (taxon: Pick<Taxon, 'botanical'>): boolean => isNamed(kinds, taxon)
