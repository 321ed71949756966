import type { WindowSpec } from '../../care/index.ts'
import type { RemedyTime, RemedyWork } from '../remedy.ts'

/** Within so many days of the word. */
export const within = (withinDays: number, because: string): RemedyTime => ({ withinDays, because })

/** Supports stand before growth needs them: pushed in later they bundle it. */
const beforeItFalls: WindowSpec = {
  season: 'spring',
  earliest: { at: 'growth shows', days: 10 },
  bestFrom: { at: 'growth shows', days: 20 },
  bestTo: { at: 'growth shows', days: 45 },
  latest: { at: 'bloom starts', days: -10, or: { at: 'growth shows', days: 75 } },
  because: {
    earliest: 'the shoots show where the supports belong',
    bestFrom: 'shoots a hand high grow up through them and hide them',
    bestTo: 'later the stems are long and are bundled rather than held',
    latest: 'what has bent by then stays bent',
  },
}

/** Old wood is taken while the frame can be seen and before growth. */
const whileBare: WindowSpec = {
  season: 'dormant season',
  earliest: { at: 'midwinter', days: -35 },
  bestFrom: { latestOf: [{ at: 'earliest' }, { at: 'growth shows', days: -40 }] },
  bestTo: { at: 'growth shows', days: -10 },
  latest: { at: 'growth shows', days: 7 },
  because: {
    earliest: 'the frame is bare and what is oldest can be told',
    bestFrom: 'the hardest frosts are mostly over and the cuts close as growth begins',
    bestTo: 'the buds that are to break have all the sap',
    latest: 'new shoots would be cut with the old',
  },
}

/** A tree of any kind is opened at rest, once the hardest frosts are over. */
const whileTreesRest: WindowSpec = {
  season: 'dormant season',
  earliest: { at: 'midwinter', days: -35 },
  bestFrom: { at: 'midwinter', days: 21 },
  bestTo: {
    earliestOf: [
      { at: 'soil above', c: 6, or: { at: 'midwinter', days: 60 } },
      { at: 'midwinter', days: 75 },
    ],
  },
  latest: { at: 'best from', days: 40 },
  because: {
    earliest: 'it is at rest and its frame can be seen',
    bestFrom: 'the worst cold is past and cuts soon close',
    bestTo: 'sap has not risen yet; what bleeds waits for full leaf instead',
    latest: 'buds open and birds nest',
  },
}

/** Pots are changed as growth begins: roots take the new mix at once. */
const asGrowthBegins: WindowSpec = {
  season: 'spring',
  earliest: { at: 'growth shows', days: -14 },
  bestFrom: { at: 'growth shows' },
  bestTo: { at: 'growth shows', days: 35 },
  latest: {
    earliestOf: [
      { at: 'growth shows', days: 110 },
      { at: 'warmth left', degreeDays: 500 },
    ],
  },
  because: {
    earliest: 'roots are about to move',
    bestFrom: 'new roots fill the new mix as fast as the top grows',
    bestTo: 'it has the season before it',
    latest: 'too little growth is left to root through before winter',
  },
}

export const supports: RemedyWork = {
  operation: 'stake',
  time: { windows: [beforeItFalls] },
  labour: { setUp: 10, perPlant: 8 },
  tools: ['supports or hazel', 'soft twine'],
  cautions: ['Cap the tops of canes: eyes are at their height.'],
}

export const renewal: RemedyWork = {
  operation: 'prune',
  time: { windows: [whileBare] },
  labour: { setUp: 15, perPlant: 15, perMetre: 12 },
  tools: ['loppers', 'pruning saw', 'secateurs'],
  forbids: ['hard frost', 'nesting birds'],
}

/** Work on a tree, whatever grows beneath it. */
export const opening: RemedyWork = {
  operation: 'prune',
  time: { windows: [whileTreesRest] },
  labour: { setUp: 120, perPlant: 0 },
  tools: ['pole saw', 'pruning saw', 'rope'],
  forbids: ['hard frost', 'nesting birds', 'wind'],
  cautions: ['Nothing above shoulder height from a ladder: that is a qualified arborist’s work.'],
}

export const potting: RemedyWork = {
  operation: 'pot on',
  time: { windows: [asGrowthBegins] },
  labour: { setUp: 10, perPlant: 20 },
  tools: ['pot one size up', 'old knife', 'hand fork'],
  materials: [{ name: 'potting mix', unit: 'l', perPlant: 15 }],
  cautions: ['A full pot is heavy: two people, or a barrow.'],
}

/** A cut that only takes out what is dead, sick or wrong. */
export const tidyCut: RemedyWork = {
  operation: 'prune',
  time: within(45, 'what is dead or sick is best out, and there is no season in which it is not'),
  labour: { setUp: 10, perPlant: 6, perMetre: 4 },
  tools: ['secateurs', 'pruning saw', 'spirit for the blades'],
  forbids: ['hard frost'],
}

export const clearance: RemedyWork = {
  operation: 'upkeep',
  time: within(21, 'spores and eggs go on from what is left lying'),
  labour: { setUp: 5, perPlant: 5 },
  tools: ['secateurs', 'rake', 'sack'],
}

export const watering: RemedyWork = {
  operation: 'upkeep',
  time: within(7, 'thirst does its harm in days'),
  labour: { setUp: 5, perPlant: 3 },
  tools: ['trowel', 'can or hose'],
}

export const uncovering: RemedyWork = {
  operation: 'upkeep',
  time: within(30, 'bark and crowns rot as long as they are covered'),
  labour: { setUp: 5, perPlant: 10 },
  tools: ['hand fork', 'trowel', 'soft brush'],
  forbids: ['frozen soil'],
}

export const lifting: RemedyWork = {
  operation: 'upkeep',
  time: { as: 'a move' },
  labour: { setUp: 15, perPlant: 15, perMetre: 15 },
  tools: ['spade', 'fork', 'can'],
  forbids: ['frozen soil', 'sodden soil', 'heat'],
}

export const restricting: RemedyWork = {
  operation: 'upkeep',
  time: within(60, 'every week of growth is more to dig out'),
  labour: { setUp: 10, perPlant: 15 },
  tools: ['spade', 'fork', 'sack'],
  forbids: ['frozen soil'],
}

export const guarding: RemedyWork = {
  operation: 'protect',
  time: within(14, 'what has been found to eat comes back'),
  labour: { setUp: 10, perPlant: 8 },
  tools: ['guards or netting', 'canes', 'soft ties'],
}

export const carrying: RemedyWork = {
  operation: 'upkeep',
  time: within(21, 'a pot can be carried on any day, and it grows by what it gets'),
  labour: { setUp: 5, perPlant: 10 },
  tools: ['barrow or pot straps'],
  cautions: ['A full pot is heavy: two people, or a barrow.'],
}
