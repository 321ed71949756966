import { byName } from './byName.ts'
import type { Taxon } from './taxon.ts'

/** A bulb, corm or tuber as it is bought; some are set at the surface, whatever their size. */
export interface BulbSize {
  heightM: number
  widthM: number
  /** Its neck or crown is level with the ground, or hardly covered. */
  isAtSurface: boolean
}

const bulb = (heightCm: number, widthCm: number): BulbSize => ({
  heightM: heightCm / 100,
  widthM: widthCm / 100,
  isAtSurface: false,
})
const atSurface = (heightCm: number, widthCm: number): BulbSize => ({
  ...bulb(heightCm, widthCm),
  isAtSurface: true,
})

/** Bulbs of a size that flowers, as they are sold: rounded, general knowledge, by the beginnings of names. */
const sizes: Readonly<Record<string, BulbSize>> = {
  Agapanthus: atSurface(6, 4),
  'Allium giganteum': bulb(6, 8),
  'Allium hollandicum': bulb(4, 4),
  'Allium sphaerocephalon': bulb(2.5, 2),
  'Anemone blanda': bulb(2, 2),
  'Anemone coronaria': bulb(2, 2),
  Arum: bulb(4, 3),
  Camassia: bulb(5, 4),
  Colchicum: bulb(5, 5),
  Crocosmia: bulb(3, 3),
  Crocus: bulb(2.5, 2),
  Cyclamen: atSurface(3, 5),
  Eranthis: bulb(2, 2),
  Eucomis: bulb(5, 6),
  'Fritillaria imperialis': bulb(7, 8),
  'Fritillaria meleagris': bulb(3, 2),
  Galanthus: bulb(3, 2),
  Gladiolus: bulb(4, 4),
  Hyacinthoides: bulb(3.5, 2.5),
  Hyacinthus: bulb(5, 4.5),
  'Iris reticulata': bulb(3, 2),
  Leucojum: bulb(4, 3.5),
  Lilium: bulb(6, 7),
  'Lilium candidum': atSurface(6, 7),
  Muscari: bulb(2.5, 2),
  Narcissus: bulb(5, 4.5),
  'Narcissus cyclamineus': bulb(3.5, 2.5),
  'Narcissus pseudonarcissus': bulb(4, 3.5),
  Nerine: atSurface(6, 4),
  Ranunculus: bulb(1.7, 2),
  Scilla: bulb(2.5, 2),
  Tulipa: bulb(5, 4),
  'Tulipa tarda': bulb(3.5, 2.5),
}

/** The bulb, corm or tuber of a kind; undefined of what has none, or of which nobody has said. */
export const bulbSize = ({
  botanical,
  lifeForm,
}: Pick<Taxon, 'botanical' | 'lifeForm'>): BulbSize | undefined =>
  lifeForm === 'bulb' ? byName(sizes, botanical) : undefined
