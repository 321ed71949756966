import { followed, moveWindows, plantCautions, type CareJob, type Schools } from '../care/index.ts'
import type { Climate } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import type { SunHours } from '../light/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { fitOf, type Spot } from './fit.ts'

/** What ails, as far as its successor goes. */
export interface Ailing {
  /** A kind of the library; undefined for a tree or hedge that is only on the plan. */
  taxon?: Taxon | undefined
  heightM: number
  /** Why it is thought to go. */
  says: string
  /** Light where the successor would stand: as things are, and once the old one is gone. */
  now: SunHours
  then: SunHours
  /** What else the ground there offers. */
  spot?: Omit<Spot, 'hours'> | undefined
}

/** What a garden knows of kinds beside the library. */
export interface KnownKinds {
  /** Why one would not stand there, whatever its light; undefined where it would. */
  whyNot: (taxon: Taxon) => string | undefined
  /** What the record of the garden says of one, by botanical name. */
  again?: ReadonlyMap<string, 'again' | 'not again' | 'open'> | undefined
  /** Kinds that did well below their own usual in that very place. */
  poorThere?: ReadonlySet<string> | undefined
}

/** A tree or shrub that could follow one that fails. */
export interface SuccessorChoice {
  botanical: string
  common: string
  heightM: number
  yearsToSize: number
  /** The worse of its fit now and then, 0 to 1. */
  fit: number
  reason: string
}

/** What could be planted now to stand when an ailing tree is gone. */
export interface Succession {
  says: string
  choices: SuccessorChoice[]
}

/** Woody plants that take so many years to size leave a hole that is long to fill. */
const CONSEQUENCE_YEARS = 4
const LEAST_FIT = 0.6
const MOST_CHOICES = 6
/** What has done well in the garden goes before what fits a little better and was never tried. A judgement, of 0 to 1. */
const PROVEN = 0.15
/** The rose family sickens in ground where one of it has long stood. */
const replantSick = [
  'Rosa',
  'Malus',
  'Prunus',
  'Pyrus',
  'Crataegus',
  'Amelanchier',
  'Sorbus',
  'Cydonia',
  'Pyracantha',
  'Cotoneaster',
]
const FOLLOWS_ITS_OWN = -0.35
const genusOf = (botanical: string): string => botanical.split(' ')[0]!

/** Whether the going of a planting leaves a hole of consequence. */
export const isOfConsequence = (taxon: Taxon): boolean =>
  isWoody(taxon) && taxon.yearsToSize >= CONSEQUENCE_YEARS

/**
 * What could be planted now beside a failing tree or shrub, to stand when it goes: woody kinds of about its size that
 * bear the light both as it is and as it will be, those first that have done well in the garden. What its record is against, or did
 * poorly in that very place, is left out.
 */
export function succession(
  ailing: Ailing,
  library: readonly Taxon[],
  { whyNot, again = new Map(), poorThere = new Set() }: KnownKinds,
): Succession | undefined {
  const isProven = (botanical: string) => again.get(botanical) === 'again'
  const isSick = (botanical: string) =>
    ailing.taxon !== undefined &&
    replantSick.includes(genusOf(botanical)) &&
    replantSick.includes(genusOf(ailing.taxon.botanical))
  const rank = (c: SuccessorChoice) =>
    c.fit + (isProven(c.botanical) ? PROVEN : 0) + (isSick(c.botanical) ? FOLLOWS_ITS_OWN : 0)
  const choices = library
    .filter((t) => isWoody(t) && t.lifeForm !== 'climber' && t.heightM >= 0.4 * ailing.heightM)
    .filter((t) => t.heightM <= 1.6 * ailing.heightM || t.botanical === ailing.taxon?.botanical)
    .filter((t) => whyNot(t) === undefined)
    .filter((t) => again.get(t.botanical) !== 'not again' && !poorThere.has(t.botanical))
    .map((t): SuccessorChoice => {
      const [now, then] = [ailing.now, ailing.then].map((hours) => fitOf(t, { ...ailing.spot, hours })) as [
        ReturnType<typeof fitOf>,
        ReturnType<typeof fitOf>,
      ]
      const worse = now.score < then.score ? now : then
      return {
        botanical: t.botanical,
        common: t.common,
        heightM: t.heightM,
        yearsToSize: t.yearsToSize,
        fit: worse.score,
        reason: [
          now.score === then.score
            ? worse.reason
            : `${worse.reason} ${worse === now ? 'as long as the old one stands' : 'once the old one is gone'}`,
          ...(isProven(t.botanical) ? ['it has done well in this garden'] : []),
          ...(isSick(t.botanical)
            ? ['it sickens in ground where its family has stood, unless that is changed']
            : []),
        ].join('; '),
      }
    })
    .filter((c) => c.fit >= LEAST_FIT)
    .sort(
      (a, b) =>
        // What fits and is proven, then what is nearest the old one's size.
        Math.round(10 * (rank(b) - rank(a))) ||
        Math.abs(a.heightM - ailing.heightM) - Math.abs(b.heightM - ailing.heightM) ||
        (a.botanical < b.botanical ? -1 : 1),
    )
    .slice(0, MOST_CHOICES)
  const [first] = choices
  if (!first) return undefined
  return {
    says: `${ailing.says} A successor takes about ${first.yearsToSize} years to its size: planted beside it within the next planting season there is no hole on the day it goes.`,
    choices,
  }
}

/** Labour of setting a young woody plant: its hole, staking where it is a tree, mulch and water; minutes, by this product. */
const PLANT_MINUTES = 45
const STAKE_MINUTES = 20

/**
 * Planting a successor, in the next window of its kind.
 *
 * @param beside what it stands beside until that goes
 */
export function successorJob(
  taxon: Taxon,
  { subjectId, beside, placeId }: { subjectId: string; beside: string; placeId: string | null },
  climate: Climate,
  schools: Schools,
  on: IsoDate,
): CareJob | undefined {
  const found = moveWindows({ ...taxon, moveWhen: plantedWhen(taxon) }, climate, on)
  const window = found.ok ? found.windows[0] : undefined
  if (!found.ok || !window) return undefined
  const isTree = taxon.lifeForm === 'small tree'
  const minutes = PLANT_MINUTES + (isTree ? STAKE_MINUTES : 0)
  return {
    key: `successor/${subjectId}/${on}`,
    ruleId: null,
    operation: 'plant',
    title: `Plant ${taxon.botanical} beside ${beside}, as its successor`,
    placeId,
    placeIds: placeId === null ? [] : [placeId],
    plantingIds: [],
    window,
    minutes,
    tableMinutes: minutes,
    materials: [
      { name: taxon.botanical, amount: 1, unit: 'pieces' },
      { name: 'water', amount: 20, unit: 'l' },
      { name: 'mulch', amount: 60, unit: 'l' },
      ...(followed(schools, 'planting-hole') === 'amend'
        ? [{ name: 'garden compost', amount: 40, unit: 'l' } as const]
        : []),
      ...(isTree ? [{ name: 'stake and tie', amount: 1, unit: 'pieces' } as const] : []),
    ],
    tools: ['spade', 'fork', 'watering can', ...(isTree ? ['mallet'] : [])],
    cautions: [...plantCautions(taxon), 'Before digging deep, call the utility-locating service.'],
    steps: [
      'Choose a young plant of good shape: it settles sooner than a big one.',
      `Set it far enough off that ${beside} can be taken out without touching its roots.`,
      'Hole two to three times the ball’s width, no deeper than the ball; top of the ball level with the soil.',
      'Tease out circling roots; firm, soak, mulch off the stem; give it a tag.',
      'Add it under Plants once it stands.',
    ],
    forbids: ['frozen soil', 'sodden soil', 'heat'],
    skill: null,
    why: `Planted now it stands when ${beside} goes.`,
    missed: 'The next planting season will do; the hole lasts a year longer.',
    nextChance: found.windows[1]?.earliest ?? null,
    unsure: null,
    school: null,
  }
}

/** A young plant from a pot or bare of soil is set when its kind is lifted, though an old one would resent it. */
const plantedWhen = (taxon: Taxon): Taxon['moveWhen'] =>
  taxon.moveWhen === 'never' ? (taxon.lifeForm === 'evergreen shrub' ? 'either' : 'dormant') : taxon.moveWhen
