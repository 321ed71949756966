/** What can be seen of a planting, by where one looks for it. */
export const signParts = [
  'leaves',
  'stems and shape',
  'flowers',
  'crown and roots',
  'pests and damage',
] as const
export type SignPart = (typeof signParts)[number]

/**
 * The signs of a walk. `usual`: share of sound plantings on which a walk in the growing season notes it, a working figure
 * of this product that the garden's own walks correct.
 */
export const signs = [
  { id: 'scorched', says: 'scorched or bleached leaves', part: 'leaves', usual: 0.03 },
  { id: 'wilting', says: 'afternoon wilting', part: 'leaves', usual: 0.04 },
  { id: 'small-leaves', says: 'small leaves', part: 'leaves', usual: 0.02 },
  { id: 'pale', says: 'pale or dull leaves', part: 'leaves', usual: 0.03 },
  { id: 'yellowing', says: 'yellowing leaves', part: 'leaves', usual: 0.04 },
  { id: 'spotted', says: 'spotted leaves', part: 'leaves', usual: 0.05 },
  { id: 'mildew', says: 'mildew', part: 'leaves', usual: 0.04 },
  { id: 'rust', says: 'rust', part: 'leaves', usual: 0.02 },
  { id: 'stretched', says: 'stretched and leggy', part: 'stems and shape', usual: 0.03 },
  { id: 'leaning', says: 'leaning to one side', part: 'stems and shape', usual: 0.03 },
  { id: 'flopping', says: 'flopping open', part: 'stems and shape', usual: 0.04 },
  { id: 'dieback', says: 'dieback of branches', part: 'stems and shape', usual: 0.02 },
  { id: 'dead-below', says: 'dead branches at the base', part: 'stems and shape', usual: 0.02 },
  { id: 'suckers', says: 'suckers from the rootstock', part: 'stems and shape', usual: 0.01 },
  { id: 'reverted', says: 'reverted growth', part: 'stems and shape', usual: 0.01 },
  { id: 'woody-base', says: 'woody base', part: 'stems and shape', usual: 0.02 },
  { id: 'broken', says: 'wind or storm damage', part: 'stems and shape', usual: 0.02 },
  { id: 'fewer-flowers', says: 'fewer flowers than before', part: 'flowers', usual: 0.05 },
  { id: 'bare-centre', says: 'bare centre', part: 'crown and roots', usual: 0.02 },
  { id: 'crowded', says: 'crowded by a neighbour', part: 'crown and roots', usual: 0.04 },
  { id: 'crowding', says: 'crowding a neighbour', part: 'crown and roots', usual: 0.03 },
  { id: 'crown-rot', says: 'rot at the crown', part: 'crown and roots', usual: 0.01 },
  { id: 'heaved', says: 'heaved by frost', part: 'crown and roots', usual: 0.01 },
  { id: 'winter-loss', says: 'winter loss', part: 'crown and roots', usual: 0.02 },
  { id: 'frosted', says: 'shoots blackened by frost', part: 'crown and roots', usual: 0.02 },
  { id: 'buried', says: 'buried crown or graft', part: 'crown and roots', usual: 0.01 },
  { id: 'pot-bound', says: 'pot-bound', part: 'crown and roots', usual: 0.01 },
  { id: 'runs-off', says: 'water runs off the surface', part: 'crown and roots', usual: 0.01 },
  { id: 'stays-wet', says: 'ground stays wet', part: 'crown and roots', usual: 0.01 },
  { id: 'chewed', says: 'chewed', part: 'pests and damage', usual: 0.06 },
  { id: 'aphids', says: 'aphids', part: 'pests and damage', usual: 0.04 },
  { id: 'insects', says: 'other insects', part: 'pests and damage', usual: 0.02 },
  { id: 'animals', says: 'animal damage', part: 'pests and damage', usual: 0.02 },
  { id: 'volunteers', says: 'self-sown, welcome', part: 'pests and damage', usual: 0.04 },
  { id: 'seedlings', says: 'self-sown, a weed', part: 'pests and damage', usual: 0.03 },
] as const satisfies readonly { id: string; says: string; part: SignPart; usual: number }[]

export type SignId = (typeof signs)[number]['id']

const byId = new Map<string, (typeof signs)[number]>(signs.map((s) => [s.id, s]))
/** Whether an id is that of a sign there is. */
export const isSign = (id: string): id is SignId => byId.has(id)
/** A sign as it is said. */
export const signWords = (id: SignId): string => byId.get(id)!.says
