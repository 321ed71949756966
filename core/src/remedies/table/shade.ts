import { counted, metres, quarterHours } from '../../words/index.ts'
import type { Remedy } from '../remedy.ts'
import type { Opening } from '../situation.ts'
import { opening } from './work.ts'

const gains = ({ gainHours, hours, alsoRight, spoilt }: Opening): string =>
  [
    `lets ${quarterHours(gainHours)} more sun a day to it, ${quarterHours(hours)} in all, which is what it likes.`,
    ...(alsoRight > 0 ? [`${counted(alsoRight, 'other planting')} would come right with it.`] : []),
    ...(spoilt > 0 ? [`${counted(spoilt, 'planting')} beneath would get more than they like.`] : []),
  ].join(' ')

const steps = [
  'Ask first whether the tree is yours to cut, and whether it is protected; look for nests.',
  'Cuts at the collar, no stubs, no paint; spread over two winters where many branches come off.',
  'Add it to the tree on the plan on the day it is done: the light of all beneath follows.',
]

/** What is done to a tree for what it shades; how much that gives was worked out for the planting. */
export const shadeRemedies: readonly Remedy[] = [
  {
    id: 'limb-up-shade',
    action: 'limb up',
    when: { opens: 'raised', light: ['too little'] },
    points: 20,
    says: {
      ofOpening: (o) =>
        `${o.tree} shades it, and its stem cleared to ${metres(o.clearStemM!)}${o.thinnedBy === null ? '' : `, its crown thinned by ${Math.round(100 * o.thinnedBy)} %,`} ${gains(o)}`,
    },
    does: {
      ofOpening: (o) =>
        `Take the branches of ${o.tree} below ${metres(o.clearStemM!)} off at the collar${o.thinnedBy === null ? '' : `, and thin its crown by ${Math.round(100 * o.thinnedBy)} %`}`,
    },
    steps: ['Two thirds of its height stay in crown.', ...steps],
    waiting: 'What stands beneath grows longer and flowers less each year; the branches get thicker.',
    work: opening,
  },
  {
    id: 'thin-shade',
    action: 'thin',
    when: { opens: 'thinned', light: ['too little'] },
    points: 14,
    says: { ofOpening: (o) => `${o.tree} shades it, and its crown thinned by a quarter ${gains(o)}` },
    does: {
      ofOpening: (o) =>
        `Have the crown of ${o.tree} thinned by a quarter, evenly, whole small branches from the outside in`,
    },
    steps: ['Never more than a quarter of its leaves in a year.', ...steps],
    waiting: 'What stands beneath grows longer and flowers less each year.',
    work: opening,
  },
]
