import type { LifeForm } from '../plants/index.ts'
import type { Anchor, CareRule, MonthDays, Operation, RuleMaterial, Skill, ForbiddenState } from './rule.ts'

/** Points of the year that a garden's own rules hang on. */
export const ownAnchors = [
  'last frost',
  'first frost',
  'soil above',
  'soil below',
  'nights above',
  'nights below',
  'bloom starts',
  'first flush ends',
  'bloom ends',
  'growth shows',
  'goes over',
  'is gone',
  'midwinter',
  'midsummer',
  'next midwinter',
  'earliest',
  'latest',
] as const
export type OwnAnchorAt = (typeof ownAnchors)[number]

/** A point of the year that a person’s rule goes by: days after an anchor; `c`, °C, where the anchor is a temperature. */
export interface OwnPoint {
  at: OwnAnchorAt
  c?: number | undefined
  days: number
}

/** What a garden says of a rule of its own. */
export interface OwnRule {
  operation: Operation
  does: string
  on:
    | { what: 'places'; place: 'bed' | 'container' }
    | {
        what: 'plants'
        place?: 'bed' | 'container' | undefined
        taxa: readonly string[]
        lifeForms: readonly LifeForm[]
      }
  opens: OwnPoint
  bestFrom: OwnPoint
  bestTo: OwnPoint
  closes: OwnPoint
  everyDays?: number | undefined
  monthDays?: MonthDays | undefined
  /** What is given by turns. */
  byTurns?: readonly string[] | undefined
  everySeasons?: number | undefined
  labour: { setUp: number; perPlant: number; perM2: number }
  materials: readonly RuleMaterial[]
  tools: readonly string[]
  cautions: readonly string[]
  forbids: readonly ForbiddenState[]
  skill: Skill | null
  why: string
  missed: string
}

/** Waits for a temperature where none is given. */
const USUAL_C = 8

function anchorOf({ at, c = USUAL_C, days }: OwnPoint): Anchor {
  switch (at) {
    case 'last frost':
    case 'first frost':
      // Where it never freezes the coldest soil stands for it.
      return { at, share: 50, days, or: { at: at === 'last frost' ? 'midwinter' : 'next midwinter', days } }
    case 'soil above':
    case 'soil below':
    case 'nights above':
    case 'nights below':
      return { at, c, days }
    default:
      return { at, days }
  }
}

/** A garden's own rule, as the shipped ones are. */
export function ownRule(id: string, own: OwnRule): CareRule {
  const { on, skill, everyDays, monthDays, byTurns, everySeasons } = own
  return {
    id,
    operation: own.operation,
    does: own.does,
    applies:
      on.what === 'places'
        ? { wholePlace: true, place: on.place }
        : {
            ...(on.taxa.length > 0 && { taxa: on.taxa }),
            ...(on.lifeForms.length > 0 && { traits: { lifeForm: on.lifeForms } }),
            ...(on.place && { place: on.place }),
          },
    windows: [
      {
        season: 'any time',
        earliest: anchorOf(own.opens),
        bestFrom: anchorOf(own.bestFrom),
        bestTo: anchorOf(own.bestTo),
        latest: anchorOf(own.closes),
        because: {
          earliest: 'by this garden’s own rule',
          bestFrom: 'by this garden’s own rule',
          bestTo: 'by this garden’s own rule',
          latest: 'by this garden’s own rule',
        },
      },
    ],
    ...(everyDays !== undefined && { everyDays }),
    ...(monthDays && { monthDays }),
    ...(byTurns?.length && { byTurns }),
    ...(everySeasons !== undefined && { everySeasons }),
    labour: own.labour,
    ...(skill && { skill }),
    materials: own.materials,
    tools: own.tools,
    cautions: own.cautions,
    forbids: own.forbids,
    why: own.why,
    missed: own.missed,
    yearly: true,
  }
}
