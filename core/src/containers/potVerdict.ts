import type { IsoDate } from '../dates/index.ts'
import { dayMonth, listed } from '../words/index.ts'
import { likesWords, type FillEnd } from './fill.ts'
import type { PotRemark } from './fitting.ts'
import { SPENT_AIR } from './mix.ts'
import type { MixState } from './mixState.ts'
import type { FillAhead } from './swap.ts'
import type { PotFault } from './stability.ts'

/** What may be decided of a container. */
export const potVerdicts = [
  'keep as it is',
  'cut back',
  'refresh',
  'swap now',
  'pot on',
  'retire the pot',
] as const
export type PotVerdictName = (typeof potVerdicts)[number]

/** A verdict with what speaks for it. */
export interface PotVerdict {
  verdict: PotVerdictName
  because: string[]
  /** 0 to 1: how strongly. */
  weight: number
}

/** What a verdict on a container rests on. */
export interface PotEvidence {
  on: IsoDate
  isPlanted: boolean
  faults: readonly PotFault[]
  remarks: readonly PotRemark[]
  swap: FillAhead
  mix: MixState | null
  /** Air of its mix once drained, by its fills or by a test of it; null where neither tells. */
  air: number | null
  /** Woody plants whose roots have filled it, by their common names. */
  bound: readonly string[]
  /** Plants that a rule would have cut now, by their common names. */
  toCut: readonly string[]
  /** How the fills before ended, the latest first. */
  ended: readonly (FillEnd | null)[]
  /** The last ratings of what grows in it, 1 to 5, not older than a season. */
  ratings: readonly { common: string; score: number }[]
}

/** Of five, so few stars are poor. */
const POOR = 2
/** Ends that a pot has its share in. */
const BY_THE_POT: readonly (FillEnd | null)[] = ['drowned', 'frost', 'dried out']
/** Twice running is no accident. */
const RUNNING = 2

/** What speaks for each verdict on a container, the strongest first; keeping it as it is where nothing speaks for another. */
export function potVerdictsOf(e: PotEvidence): PotVerdict[] {
  const found = [retire(e), swap(e), potOn(e), cut(e), refresh(e)].filter((v) => v !== undefined)
  const strongest = Math.max(0, ...found.map((v) => v.weight))
  const grave = e.remarks.filter((r) => r.isGrave)
  const keep: PotVerdict = {
    verdict: 'keep as it is',
    because:
      found.length > 0
        ? []
        : !e.isPlanted
          ? ['Nothing grows in it, and nothing is due.']
          : grave.length > 0
            ? ['Nothing is due by the calendar; what is said of its plants is for you to weigh.']
            : [
                e.air !== null
                  ? 'What grows in it goes on, its mix has air, and nothing in it is cramped.'
                  : 'What grows in it goes on, and nothing in it is cramped; what its mix is like nobody has said.',
              ],
    weight: 0.5 * (1 - strongest),
  }
  return [...found, keep].sort((a, b) => b.weight - a.weight)
}

function retire({ faults, ended }: PotEvidence): PotVerdict | undefined {
  const same = ended.slice(0, RUNNING)
  const runs = same.length === RUNNING && same.every((end) => end === same[0] && BY_THE_POT.includes(end))
  const because = [
    ...(runs ? [`Its last two fills ended the same way: ${same[0]}.`] : []),
    ...(runs && same[0] === 'drowned' && faults.includes('no holes') ? ['It has no hole.'] : []),
    ...(runs && same[0] === 'frost' && faults.includes('frost bursts it')
      ? ['Such a pot bursts in the winters here, and keeps no root from them.']
      : []),
  ]
  return because.length > 0 ? { verdict: 'retire the pot', because, weight: 0.55 } : undefined
}

function swap({ on, swap: { over, next }, ratings }: PotEvidence): PotVerdict | undefined {
  if (!over) return undefined
  const mayGoIn = next !== null && next.from <= on && on <= next.to
  const poor = ratings.filter((r) => r.score <= POOR)
  const because = [
    ...(over.to < on
      ? [`What was for its season has been over since ${dayMonth(over.to)}.`]
      : over.from <= on
        ? [`What is in it is going over, until ${dayMonth(over.to)}.`]
        : []),
    ...(mayGoIn ? [`${likesWords[next.season]} may go in until ${dayMonth(next.to)}.`] : []),
    ...(poor.length > 0 ? [`Rated poor when last looked at: ${listed(poor.map((p) => p.common))}.`] : []),
  ]
  const isOver = over.from <= on
  if (!isOver && poor.length === 0) return undefined
  if (!isOver && !mayGoIn) return undefined
  return { verdict: 'swap now', because, weight: over.to < on ? 0.95 : mayGoIn ? 0.8 : 0.45 }
}

function refresh({ on, isPlanted, mix, air, swap: { over } }: PotEvidence): PotVerdict | undefined {
  // What is empty is filled anew, and its mix with it.
  if (!isPlanted) return undefined
  const percent = (share: number) => `${Math.round(100 * share)} %`
  if (air !== null && air < SPENT_AIR)
    return {
      verdict: 'refresh',
      because: [
        `Its mix has ${percent(air)} of air left once it has drained: roots drown in wet weather, and all of it must be new.`,
      ],
      weight: 0.7,
    }
  if (mix && mix.topUpOn !== null && mix.topUpOn <= on && !over)
    return {
      verdict: 'refresh',
      because: [`Its mix has sunk by ${percent(mix.sunk)}: the top third new brings it up again.`],
      weight: 0.6,
    }
  return undefined
}

const potOn = ({ bound }: PotEvidence): PotVerdict | undefined =>
  bound.length === 0
    ? undefined
    : {
        verdict: 'pot on',
        because: [`Roots of ${listed([...bound])} have filled it: a larger pot, or their roots pruned.`],
        // Above a mix that is spent: potted on it has a new one.
        weight: 0.72,
      }

const cut = ({ toCut }: PotEvidence): PotVerdict | undefined =>
  toCut.length === 0
    ? undefined
    : {
        verdict: 'cut back',
        because: [`${listed([...toCut])} would flower again for a cut now.`],
        weight: 0.5,
      }
