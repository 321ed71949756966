import type { SignId } from './signs.ts'

/** Causes in the site, which plantings near one another share. */
export const siteCauses = [
  'more sun',
  'less sun',
  'drier',
  'wetter',
  'hungrier',
  'windier',
  'frost pocket',
  'root competition',
] as const
export type SiteCause = (typeof siteCauses)[number]

/** Causes in the planting alone; the last two are no trouble at all. */
export const ownCauses = ['pest or disease', 'age or crowding', 'its season', 'settling in'] as const
export type OwnCause = (typeof ownCauses)[number]

export type SignCause = SiteCause | OwnCause
/** Everything that signs can speak for: of the site, shared by neighbours, and of the plant itself. */
export const signCauses = [...siteCauses, ...ownCauses] as const
/** Whether a cause is one that neighbours share. */
export const isSiteCause = (cause: SignCause): cause is SiteCause =>
  (siteCauses as readonly string[]).includes(cause)

/** A cause as something that signs point to. */
export const causeWords: Record<SignCause, string> = {
  'more sun': 'too much sun',
  'less sun': 'too little sun',
  drier: 'dry ground',
  wetter: 'wet ground',
  hungrier: 'hunger',
  windier: 'wind',
  'frost pocket': 'cold that gathers there',
  'root competition': 'the roots of a tree',
  'pest or disease': 'a pest or disease',
  'age or crowding': 'age or crowding',
  'its season': 'nothing but the time of year',
  'settling in': 'settling in',
}

/** How often a cause that is at work puts a sign on a planting that minds it: 0 never to 1 always. */
export interface Likelihood {
  sign: SignId
  cause: SignCause
  share: number
  why: string
}

const row = (cause: SignCause, ...of: [SignId, number, string][]): Likelihood[] =>
  of.map(([sign, share, why]) => ({ sign, cause, share, why }))

/**
 * The likelihood table: practitioners' reading of signs put into shares. The shares are this product's working figures;
 * a practice edits them. A sign that is not in a cause's rows is no likelier under it than in a sound planting.
 */
export const likelihoods: readonly Likelihood[] = [
  ...row(
    'more sun',
    ['scorched', 0.65, 'Leaves made in shade burn in sun they were not built for.'],
    ['wilting', 0.4, 'Leaves lose more in hot sun than roots deliver, though the soil is moist.'],
    ['pale', 0.25, 'Strong light bleaches leaf green.'],
    ['small-leaves', 0.25, 'New leaves are made smaller in strong light.'],
    ['fewer-flowers', 0.15, 'A plant of shade dwindles in sun.'],
  ),
  ...row(
    'less sun',
    ['stretched', 0.55, 'Stems lengthen towards light.'],
    ['leaning', 0.45, 'Growth turns to the side that light comes from.'],
    ['flopping', 0.4, 'Soft, long stems do not hold themselves.'],
    ['fewer-flowers', 0.5, 'Flowers are the first thing a plant short of light gives up.'],
    ['mildew', 0.2, 'Shade keeps air still and leaves damp.'],
    ['pale', 0.15, 'Coloured foliage dulls without sun.'],
    ['dead-below', 0.15, 'Shaded lower branches are given up.'],
  ),
  ...row(
    'drier',
    ['wilting', 0.6, 'Less water comes up than goes out.'],
    ['scorched', 0.25, 'Leaf edges dry out first.'],
    ['small-leaves', 0.35, 'Cells that lack water stay small.'],
    ['yellowing', 0.3, 'Older leaves are shed to save water.'],
    ['mildew', 0.3, 'Dry roots and damp nights are what powdery mildew likes.'],
    ['runs-off', 0.3, 'Soil that has dried through sheds water.'],
    ['fewer-flowers', 0.25, 'Buds abort in drought.'],
  ),
  ...row(
    'wetter',
    ['stays-wet', 0.55, 'The ground itself shows it.'],
    ['yellowing', 0.45, 'Roots without air feed nothing.'],
    ['crown-rot', 0.35, 'Crowns rot where water stands.'],
    ['wilting', 0.25, 'Drowned roots take up no water.'],
    ['winter-loss', 0.3, 'Wet cold kills what dry cold does not.'],
    ['heaved', 0.2, 'Wet soil lifts as it freezes.'],
    ['spotted', 0.15, 'Wet leaves carry leaf spot.'],
  ),
  ...row(
    'hungrier',
    ['pale', 0.5, 'Leaf green needs nitrogen and iron.'],
    ['yellowing', 0.4, 'Food is moved from old leaves to new.'],
    ['small-leaves', 0.4, 'Growth stays small.'],
    ['fewer-flowers', 0.35, 'Less is left for flowers.'],
  ),
  ...row(
    'windier',
    ['broken', 0.5, 'Stems snap or tear.'],
    ['leaning', 0.35, 'All lean from the same side.'],
    ['scorched', 0.3, 'Wind dries leaf edges.'],
    ['flopping', 0.3, 'Tall growth is blown open.'],
  ),
  ...row(
    'frost pocket',
    ['frosted', 0.6, 'Cold air gathers on the spot.'],
    ['winter-loss', 0.35, 'It is colder there than the record says.'],
    ['heaved', 0.3, 'Ground there freezes and thaws more often.'],
    ['dieback', 0.2, 'Young wood is killed back.'],
    ['fewer-flowers', 0.2, 'Flower buds are frosted.'],
  ),
  ...row(
    'root competition',
    ['small-leaves', 0.4, 'Roots of trees take water and food.'],
    ['wilting', 0.35, 'The ground dries first near trees.'],
    ['fewer-flowers', 0.35, 'Growth is held down.'],
    ['yellowing', 0.25, 'Food runs short.'],
    ['leaning', 0.25, 'Plants grow away from the tree.'],
    ['runs-off', 0.15, 'Ground full of roots takes water badly.'],
  ),
  ...row(
    'pest or disease',
    ['chewed', 0.45, 'Something feeds on it.'],
    ['spotted', 0.4, 'Leaf spot marks leaves.'],
    ['mildew', 0.3, 'Mildew is the disease itself.'],
    ['rust', 0.3, 'Rust is the disease itself.'],
    ['aphids', 0.35, 'Aphids are the pest itself.'],
    ['insects', 0.3, 'Insects are the pest itself.'],
    ['animals', 0.2, 'Something larger feeds on it.'],
    ['dieback', 0.2, 'Cankers kill branches.'],
    ['crown-rot', 0.15, 'Fungi take the crown.'],
    ['yellowing', 0.15, 'Sucked leaves yellow.'],
  ),
  ...row(
    'age or crowding',
    ['bare-centre', 0.55, 'An old clump dies out from the middle.'],
    ['fewer-flowers', 0.5, 'Crowded shoots flower less.'],
    ['crowded', 0.4, 'Neighbours have closed in.'],
    ['crowding', 0.35, 'It has outgrown its place.'],
    ['woody-base', 0.35, 'Old stems turn to wood and shoot less.'],
    ['flopping', 0.35, 'A clump past its best falls open.'],
    ['small-leaves', 0.15, 'Crowded shoots stay small.'],
    ['dead-below', 0.25, 'Old growth is shaded out from within.'],
  ),
  ...row(
    'its season',
    ['yellowing', 0.65, 'Leaves yellow as a plant withdraws into itself.'],
    ['flopping', 0.35, 'Growth that is done lies down.'],
    ['scorched', 0.2, 'Old leaves brown at the edges.'],
    ['wilting', 0.2, 'Leaves that are done hang.'],
    ['pale', 0.35, 'Colour goes before leaf.'],
    ['fewer-flowers', 0.25, 'Its flowers are over.'],
    ['spotted', 0.2, 'Old leaves spot.'],
    ['mildew', 0.12, 'Old leaves mildew.'],
  ),
  ...row(
    'settling in',
    ['fewer-flowers', 0.35, 'Roots come before flowers.'],
    ['wilting', 0.3, 'A young root ball dries fast.'],
    ['small-leaves', 0.25, 'It has little to grow from yet.'],
    ['flopping', 0.12, 'Shoots are soft in the first season.'],
  ),
]

/** A practice's own share for a row of the table, or for one the table does not have. */
export type LikelihoodEdit = Pick<Likelihood, 'sign' | 'cause' | 'share'> & { why?: string }

/** The table with a practice's edits laid over it. */
export function editedLikelihoods(edits: readonly LikelihoodEdit[]): Likelihood[] {
  const key = (r: Pick<Likelihood, 'sign' | 'cause'>) => `${r.sign} ${r.cause}`
  const mine = new Map(edits.map((e) => [key(e), e]))
  const known = new Set(likelihoods.map(key))
  return [
    ...likelihoods.map((r) => {
      const edit = mine.get(key(r))
      return edit ? { ...r, share: edit.share, why: edit.why ?? r.why } : r
    }),
    ...edits.filter((e) => !known.has(key(e))).map((e) => ({ ...e, why: e.why ?? 'Added by the practice.' })),
  ]
}

/** What settles whether a cause is at work: something to do and look for. */
export const checks: Record<SignCause, string> = {
  'more sun':
    'Stand there at two and at four on a clear day and note sun or shade; look for scorch on the side that faces south-west.',
  'less sun':
    'Stand there morning, noon and afternoon on a clear day and note sun or shade; see which way the stems lean.',
  drier: 'Push a finger in to the second joint a day after watering; see whether drip or hose reaches it.',
  wetter: 'Dig a spit deep after rain: see how fast the hole drains and whether it smells sour.',
  hungrier: 'Look whether old leaves pale before young ones; have the soil tested before feeding.',
  windier:
    'Look on a windy day, and at whether every stem leans the same way; find what sheltered it before.',
  'frost pocket': 'Lay a minimum thermometer there and one higher up on the next cold night.',
  'root competition':
    'Cut a slot a spade deep towards the nearest tree and see whether it fills with its roots.',
  'pest or disease': 'Turn the leaves over, look at dusk, and cut into a failing stem.',
  'age or crowding': 'Part the crown: is the middle dead, and do neighbours’ shoots come up through it?',
  'its season': 'Nothing: look again when it should be growing.',
  'settling in': 'Nothing but water in dry weeks: look again next season.',
}
