import { followed, toFiveMinutes, type Window } from '../care/index.ts'
import { addDays, maxDay, minDay, type IsoDate } from '../dates/index.ts'
import { barrowLoads, layerLitres } from '../quantities/index.ts'
import { centimetres, counted, dayMonth } from '../words/index.ts'
import type { PlantingTurn } from './plantingTurns.ts'
import { afterEach, asMaterial, digsHere, stepOf, type SchemeToCarryOut, type Step } from './step.ts'
import { materialNames, minutesOf } from './totals.ts'

/** Of the minutes by which a bed is made ready, so much goes into clearing it; the rest into its soil. */
const CLEAR_SHARE = 0.3
/** Minutes. Working figures: to mend what is seen once a bed is empty, to bed a stone, to lay a metre of drip line. */
const MEND = { setUp: 20, perStone: 8, perMetre: 2 }
/** The bed is made ready no sooner than so many days before its planting opens. */
const READY_BEFORE_DAYS = 56
/** At its best it is done so long before planting is at its best that it has settled. */
const SETTLES_DAYS = 28
/** And that lasts for so many days at the least. */
const BEST_LASTS_DAYS = 14

/**
 * A window for work that makes room for the first planting: in the weeks before it, done so many days before that closes.
 *
 * @param emptied when it is best to lift what has to be out before
 */
export function beforePlanting(
  { window: w }: PlantingTurn,
  on: IsoDate,
  daysLeft: number,
  emptied: IsoDate = on,
): Window {
  const latest = maxDay(on, addDays(w.latest, -daysLeft))
  const earliest = minDay(latest, maxDay(on, addDays(w.earliest, -READY_BEFORE_DAYS)))
  const bestFrom = minDay(latest, maxDay(earliest, emptied, addDays(w.bestFrom, -SETTLES_DAYS)))
  const bestTo = minDay(latest, maxDay(addDays(bestFrom, BEST_LASTS_DAYS), addDays(w.bestFrom, -3)))
  return {
    season: 'any time',
    earliest,
    bestFrom,
    bestTo,
    latest,
    why: {
      earliest: `Not before ${dayMonth(earliest)}: ground that lies open for long weeds over and dries out.`,
      bestFrom: `Best from ${dayMonth(bestFrom)}: the ground has time to settle before it is planted.`,
      bestTo: `Best until ${dayMonth(bestTo)}: planting is best from ${dayMonth(w.bestFrom)}.`,
      latest: `Not after ${dayMonth(latest)}: planting closes on ${dayMonth(w.latest)}.`,
    },
  }
}

/** Mulch of a scheme, litres; 0 where none is wanted. */
export const mulchLitres = ({ plantedM2, mulchM }: SchemeToCarryOut): number =>
  Math.ceil(layerLitres(plantedM2, mulchM))

export const mulchesFirst = (scheme: SchemeToCarryOut): boolean =>
  mulchLitres(scheme) > 0 && followed(scheme.schools, 'mulch-order') === 'before'

/** Minutes of spreading mulch. */
export const mulchMinutes = (scheme: SchemeToCarryOut): number =>
  minutesOf.barrowSpread * barrowLoads(mulchLitres(scheme))

/** The key of the step after which the bed can be planted. */
export const readyBy = (scheme: SchemeToCarryOut): string => (mulchesFirst(scheme) ? 'mulch' : 'soil')

/** The ground of a scheme between what leaves it and what is planted first. */
interface Emptied {
  turn: PlantingTurn
  /** Steps that empty it, in time for that. */
  by: readonly Step[]
  on: IsoDate
}

/** So many days before planting closes it is cleared and mended; then fed. */
const CLEARED_BEFORE_DAYS = 10
const FED_BEFORE_DAYS = 7

const windowOf = ({ turn, by, on }: Emptied, daysLeft: number): Window =>
  beforePlanting(turn, on, daysLeft, maxDay(on, ...by.map((s) => s.window.bestFrom)))

/** A bed made ready while it is empty: cleared, mended, fed and levelled, and mulched where that comes first. */
export function groundSteps(scheme: SchemeToCarryOut, emptied: Emptied): Step[] {
  return [
    cleared(scheme, emptied),
    mended(scheme, emptied),
    fed(scheme, emptied),
    ...(mulchesFirst(scheme) ? [mulched(scheme, emptied)] : []),
  ]
}

const keysOf = ({ by }: Emptied): string[] => by.map((s) => s.key)

const cleared = (scheme: SchemeToCarryOut, emptied: Emptied): Step =>
  stepOf(scheme, {
    stage: 'make ready',
    key: 'clear',
    kind: 'weed',
    title: `Clear ${scheme.place.name} of weeds and old roots`,
    window: windowOf(emptied, CLEARED_BEFORE_DAYS),
    minutes: toFiveMinutes(10 + CLEAR_SHARE * minutesOf.preparePerM2 * scheme.plantedM2),
    tools: ['fork', 'barrow', 'kneeler'],
    cautions: digsHere(scheme),
    steps: [
      'Fork over what is open; take out every piece of bindweed, ground elder and couch.',
      'Leave the roots of what stays alone: a hand’s breadth round perennials, to the reach of the branches of shrubs and trees.',
      'What comes up again within two weeks is taken out before anything is planted.',
    ],
    after: afterEach(keysOf(emptied)),
    forbids: ['frozen soil', 'sodden soil'],
    why: 'Roots of old weeds never come out again once there are plants between them.',
  })

function mended(scheme: SchemeToCarryOut, emptied: Emptied): Step {
  const laid = scheme.extras.filter((e) => e.item === materialNames.stone || e.item === materialNames.drip)
  const countOf = (item: string) => laid.find((e) => e.item === item)?.count ?? 0
  const [stones, lineM] = [countOf(materialNames.stone), countOf(materialNames.drip)]
  return stepOf(scheme, {
    stage: 'make ready',
    key: 'mend',
    kind: 'upkeep',
    title: `Mend fence, edging and lines of ${scheme.place.name} while it is empty`,
    window: windowOf(emptied, CLEARED_BEFORE_DAYS),
    minutes: toFiveMinutes(MEND.setUp + MEND.perStone * stones + MEND.perMetre * lineM),
    materials: laid.map(asMaterial),
    tools: ['mallet', 'spirit level', 'what fence and edging want'],
    cautions: digsHere(scheme),
    steps: [
      'Look at fence, wall, edging, posts and ties: now they are reached without treading on anything.',
      'Run the water, and look at every line and joint.',
      ...(lineM > 0
        ? [`Lay ${lineM} m of drip line once the ground is level; it goes under the mulch.`]
        : []),
      ...(stones > 0
        ? [`Bed ${counted(stones, 'stepping stone')} as the planting sheet shows, level and firm.`]
        : []),
    ],
    after: afterEach(['clear']),
    why: 'Afterwards there are plants in front of it.',
  })
}

function fed(scheme: SchemeToCarryOut, emptied: Emptied): Step {
  const { plantedM2, compostM, extras } = scheme
  const compostL = Math.ceil(layerLitres(plantedM2, compostM))
  const dosing = extras.filter((e) => e.item in givenSo)
  return stepOf(scheme, {
    stage: 'make ready',
    key: 'soil',
    kind: 'soil',
    title: `Feed and level the soil of ${scheme.place.name}`,
    window: windowOf(emptied, FED_BEFORE_DAYS),
    minutes: toFiveMinutes(10 + (1 - CLEAR_SHARE) * minutesOf.preparePerM2 * plantedM2),
    materials: [
      ...(compostL > 0 ? [asMaterial({ item: materialNames.compost, count: compostL })] : []),
      ...dosing.map(asMaterial),
    ],
    tools: ['fork', 'rake', 'barrow', 'board to stand on'],
    cautions: compostL + dosing.length > 0 ? ['Dust from dry compost, lime or feed: mask and gloves.'] : [],
    steps: [
      compostL > 0
        ? `Spread compost ${centimetres(compostM)} deep, and fork it in a spade deep.`
        : 'Fork it over a spade deep where it is hard.',
      ...dosing.map((e) => givenSo[e.item]!),
      'Rake level, a little higher than the edge, for it sinks; water it down.',
      'Leave it a week or two, and hoe off what comes up.',
    ],
    after: afterEach(['mend']),
    forbids: ['frozen soil', 'sodden soil'],
    why: 'What goes in depends on the ground for years, and it is never as easy to reach again.',
  })
}

/** How each of what moves or feeds the soil is given. */
const givenSo: Readonly<Record<string, string>> = {
  [materialNames['ground limestone']]:
    'Rake the lime in, no more at once than Quantities says; test again before the next.',
  [materialNames.sulphur]:
    'Rake the sulphur in, no more at once than Quantities says; test again before the next.',
  [materialNames['aluminium sulphate']]:
    'Water the aluminium sulphate in by its label, no more at once than Quantities says.',
  [materialNames.feed]: 'Rake the slow feed in by its label.',
}

const mulched = (scheme: SchemeToCarryOut, emptied: Emptied): Step =>
  stepOf(scheme, {
    stage: 'make ready',
    key: 'mulch',
    kind: 'mulch',
    title: `Mulch ${scheme.place.name} before it is planted`,
    window: windowOf(emptied, FED_BEFORE_DAYS),
    minutes: toFiveMinutes(10 + mulchMinutes(scheme)),
    materials: [asMaterial({ item: materialNames.mulch, count: mulchLitres(scheme) })],
    tools: ['barrow', 'rake'],
    cautions: ['Dust from dry mulch: mask and gloves.'],
    steps: [
      `Water the ground well, and spread ${centimetres(scheme.mulchM)} of mulch; it is planted through.`,
    ],
    after: afterEach(['soil']),
    why: 'Weeds never see the light, and the ground keeps its water from the first day.',
  })
