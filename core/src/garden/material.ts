/** What containers are made of, as it bears on weight, frost and water. */
export interface PotMaterial {
  name: string
  /** What it is called in what people write of a container, in lower case; the first that occurs counts. */
  words: readonly string[]
  /** Kilograms a cubic metre: rounded from engineering tables of materials. */
  density: number
  /** How thick a wall of it usually is, metres, and how much thicker with each metre across: working figures. */
  wallM: number
  wallPerM: number
  /** Whether frost breaks it: soaked and frozen, it does not, it may, it does. */
  frost: 'bears it' | 'may crack' | 'bursts'
  /** Share of what open mix would lose that its wet wall loses on as much surface: working figures; glazed, sealed and solid walls lose none. */
  breathes: number
}

const kind = (
  name: string,
  words: readonly string[],
  density: number,
  [wallM, wallPerM]: readonly [number, number],
  frost: PotMaterial['frost'],
  breathes = 0,
): PotMaterial => ({ name, words, density, wallM, wallPerM, frost, breathes })

/** Glazed before plain: `glazed terracotta` is glazed. */
export const materials: readonly PotMaterial[] = [
  kind('fibre clay', ['fibre clay', 'fiber clay', 'fibreclay'], 1700, [0.012, 0.01], 'bears it'),
  kind('fibreglass', ['fibreglass', 'fiberglass', 'resin', 'composite'], 1600, [0.004, 0.002], 'bears it'),
  kind('glazed clay', ['glazed', 'stoneware', 'ceramic'], 2200, [0.012, 0.016], 'may crack'),
  kind('terracotta', ['terracotta', 'terra cotta', 'earthenware', 'clay'], 1900, [0.01, 0.02], 'bursts', 0.3),
  kind('concrete', ['concrete', 'cement', 'cast stone', 'reconstituted'], 2200, [0.03, 0.03], 'bears it'),
  kind('stone', ['stone', 'granite', 'slate', 'marble'], 2500, [0.05, 0.03], 'bears it'),
  kind(
    'wood',
    ['wood', 'oak', 'larch', 'cedar', 'pine', 'timber', 'barrel'],
    650,
    [0.022, 0.01],
    'bears it',
    0.1,
  ),
  kind('lead', ['lead'], 11_300, [0.003, 0.002], 'bears it'),
  kind('metal', ['metal', 'zinc', 'steel', 'iron', 'tin', 'copper'], 7800, [0.0012, 0.0008], 'bears it'),
  kind('fabric', ['fabric', 'felt', 'sack', 'jute'], 400, [0.003, 0], 'bears it', 0.5),
  kind('basket', ['basket', 'wicker', 'wire', 'coir', 'moss'], 300, [0.02, 0], 'bears it', 0.5),
  kind('plastic', ['plastic', 'polypropylene', 'recycled'], 950, [0.002, 0.003], 'bears it'),
]

/** What a container of no material that is known is reckoned as: fired clay. */
export const reckonedAs = (material: PotMaterial | undefined): PotMaterial =>
  material ?? materialOf('terracotta')!

/** The material that somebody's words for it mean; undefined where they name none that is known here. */
export function materialOf(words: string | undefined): PotMaterial | undefined {
  const said = words?.toLowerCase() ?? ''
  return materials.find((m) => m.words.some((w) => new RegExp(`(^|[^a-z])${w}`).test(said)))
}
