import { frostIsGuessed, type Climate } from '../climate/index.ts'
import { addDays, maxDay, type IsoDate } from '../dates/index.ts'
import { groundM2, poisonousTo, rootKind, type RootKind, type Taxon } from '../plants/index.ts'
import type { ForbiddenState, Operation } from './rule.ts'
import { FROST_UNSURE } from './frost.ts'
import { moveWindows, type MoveWindows } from './moveWindows.ts'
import { toFiveMinutes } from './labour.ts'
import { followed, type Schools } from './schools.ts'
import { openFrom, type Window } from './windows.ts'
import { dayMonth, listed } from '../words/index.ts'

/** Something a job takes along or has used. */
export interface Material {
  name: string
  amount: number
  unit: 'l' | 'kg' | 'pieces' | 'm'
}

/** One piece of work with its window, before it has a day. */
export interface JobDraft {
  /** Stable within the move: prepare, move, check-1 ... */
  key: string
  kind: Operation
  title: string
  window: Window
  minutes: number
  materials: Material[]
  tools: string[]
  cautions: string[]
  steps: string[]
  /** Keys of jobs that come first, with the days that must lie between. */
  after: { key: string; leastDays: number; mostDays?: number }[]
  /** When its next window opens, where it is missed. */
  nextChance: IsoDate | null
  /** Why its dates cannot be relied on; absent where they can. */
  unsure?: string | null
  /** In what state of plant, soil or weather it is not done. */
  forbids?: readonly ForbiddenState[]
  /** What it is done for. */
  why?: string
  /** What happens when it is missed. */
  missed?: string
}

/** A move from one place to another, of how many, past what. */
export interface MoveRequest {
  taxon: Taxon
  /** Living plants to lift. */
  count: number
  fromPlace: string
  toPlace: string
  /** Hazards near either end, by name. */
  hazards: readonly string[]
  /** Whether the destination is a bed to dig or a container to fill. */
  toContainer: boolean
  /** What goes into the hole, and when the mulch is laid. */
  schools: Schools
}

/** The jobs of a move in order, or why there are none. */
export type MoveJobs = { ok: true; jobs: JobDraft[] } | Extract<MoveWindows, { ok: false }>

/**
 * A move as jobs in order: prepare the destination, lift and replant, three looks afterwards.
 *
 * @param on today; windows already closed are passed over for the next
 * @returns the jobs for the first window still open
 */
export function moveJobs(request: MoveRequest, climate: Climate, on: IsoDate): MoveJobs {
  const found = moveWindows(request.taxon, climate, on)
  if (!found.ok) return found
  const lift = openFrom(found.windows[0]!, on)
  const nextChance = found.windows[1]?.earliest ?? null
  // What is set out only once frost is over hangs on when that is.
  const unsure = request.taxon.moveWhen === 'after frost' && frostIsGuessed(climate) ? FROST_UNSURE : null
  return {
    ok: true,
    jobs: [
      { ...prepareJob(request, lift, on), nextChance, unsure },
      { ...liftJob(request, lift), nextChance, unsure },
      ...aftercareJobs(
        {
          of: `${request.taxon.botanical} in ${request.toPlace}`,
          count: request.count,
          minutesEach: MOVED_WATER_EACH,
          after: 'move',
        },
        lift.bestFrom,
      ),
    ],
  }
}

/** Width of a root ball as a share of the plant's spread: the usual guide for lifting established plants. */
const ROOT_BALL_SHARE = 0.6

/** Root ball of one plant, metres across. */
export const rootBallM = (taxon: Taxon): number =>
  Math.min(0.9, Math.max(0.12, ROOT_BALL_SHARE * Math.min(taxon.spreadM, taxon.spacingM)))

/**
 * Labour, minutes. Estimates of this product until measured times replace them: a quarter hour to set up, then by
 * the volume of ground turned (a spade shifts about 0.6 m3 of garden soil an hour).
 */
const SETUP_MIN = 15
const MIN_PER_M3 = 100

/** Holes are two and a half balls wide and no deeper than the ball. */
function holeM3(taxon: Taxon): number {
  const ball = rootBallM(taxon)
  const radius = (2.5 * ball) / 2
  return Math.PI * radius * radius * ball * 0.6
}

const prepareMinutes = (taxon: Taxon, count: number) =>
  toFiveMinutes(SETUP_MIN + count * holeM3(taxon) * MIN_PER_M3 * 0.8)
const liftMinutes = (taxon: Taxon, count: number) =>
  toFiveMinutes(SETUP_MIN + count * (6 + holeM3(taxon) * MIN_PER_M3))

/** Labour of a move, making its place ready included, minutes. */
export const moveMinutes = (taxon: Taxon, count: number): number =>
  prepareMinutes(taxon, count) + liftMinutes(taxon, count)

function prepareJob(r: MoveRequest, lift: Window, on: IsoDate): JobDraft {
  const holes = r.count * holeM3(r.taxon)
  const area = groundM2(r.count, r.taxon.spacingM)
  const earliest = maxDay(on, addDays(lift.earliest, -14))
  const amend = followed(r.schools, 'planting-hole') === 'amend'
  const mulchFirst = !r.toContainer && followed(r.schools, 'mulch-order') === 'before'
  return {
    key: 'prepare',
    kind: 'prepare',
    title: `Prepare ${r.toPlace} for ${r.taxon.botanical}`,
    window: {
      ...lift,
      earliest,
      bestFrom: maxDay(earliest, addDays(lift.bestFrom, -7)),
      why: {
        earliest: `From ${dayMonth(earliest)}: ground opened more than two weeks ahead dries or weeds over.`,
        bestFrom: `Best in the week before lifting: the hole must be ready before the plant is out of the ground.`,
        bestTo: `Best until ${dayMonth(lift.bestTo)}, with the lifting it serves.`,
        latest: `Not after ${dayMonth(lift.latest)}: the lifting it serves is too late from then.`,
      },
    },
    minutes: prepareMinutes(r.taxon, r.count),
    materials: r.toContainer
      ? [{ name: 'potting mix', amount: Math.ceil(holes * 1000), unit: 'l' }]
      : [
          ...(amend ? [{ name: 'garden compost', amount: Math.ceil(area * 50), unit: 'l' } as const] : []),
          ...(mulchFirst ? [mulchFor(r)] : []),
        ],
    tools: ['spade', 'fork', 'line and tape'],
    cautions: [
      ...(r.toContainer ? [] : diggingCautions(r.hazards)),
      ...(amend || r.toContainer ? ['Dust from dry mix: mask and gloves.'] : []),
    ],
    steps: [
      `Mark ${r.count} ${r.count === 1 ? 'station' : 'stations'} at ${Math.round(r.taxon.spacingM * 100)} cm.`,
      `Open holes ${cm(2.5 * rootBallM(r.taxon))} wide and no deeper than ${cm(rootBallM(r.taxon) * 0.6)}.`,
      'Fill each with water once and let it drain.',
      ...(mulchFirst ? [`Mulch the ground ${cm(MULCH_M)} deep round the holes, before planting.`] : []),
    ],
    after: [],
    nextChance: null,
  }
}

const MULCH_M = 0.05
const mulchFor = (r: MoveRequest): Material => ({
  name: 'mulch',
  amount: Math.ceil(groundM2(r.count, r.taxon.spacingM) * MULCH_M * 1000),
  unit: 'l',
})

const cm = (metres: number) => `${Math.round(metres * 20) * 5} cm`

function liftJob(r: MoveRequest, lift: Window): JobDraft {
  const litresEach = Math.max(3, Math.round(rootBallM(r.taxon) * 25))
  const mulchFirst = !r.toContainer && followed(r.schools, 'mulch-order') === 'before'
  const starter = !r.toContainer && followed(r.schools, 'planting-hole') === 'starter-feed'
  return {
    key: 'move',
    kind: 'move',
    title: `Lift ${r.taxon.botanical} from ${r.fromPlace} and replant in ${r.toPlace}`,
    window: lift,
    minutes: liftMinutes(r.taxon, r.count),
    materials: [
      { name: 'water', amount: litresEach * r.count, unit: 'l' },
      ...(mulchFirst ? [] : [mulchFor(r)]),
      ...(starter
        ? [
            {
              name: 'starter feed',
              amount: Math.max(0.1, Math.ceil(r.count * 0.3) / 10),
              unit: 'kg',
            } as const,
          ]
        : []),
    ],
    tools: ['spade', 'two forks', 'tarpaulin or damp sacking', 'watering can'],
    cautions: [
      ...plantCautions(r.taxon),
      ...(r.toContainer ? [] : diggingCautions(r.hazards)),
      'Lift with bent knees; two people for a heavy clump.',
    ],
    steps: [
      'Choose a cool, overcast day, best after rain. Water the evening before if the soil is dry.',
      ...stepsByRoot[rootKind(r.taxon)],
      `Lift the whole clump with a ball about ${cm(rootBallM(r.taxon))} across; keep roots covered and damp.`,
      ...(starter
        ? ['A starter feed goes into each hole, by its label, with soil between it and the roots.']
        : []),
      mulchFirst
        ? 'Draw the mulch aside and replant through it at the same depth, crown at or just above the surface; firm, soak, keep the mulch off the crown.'
        : 'Replant at the same depth, crown at or just above the surface; firm, soak, mulch off the crown.',
      'Move its tag with it.',
    ],
    after: [{ key: 'prepare', leastDays: 0, mostDays: 14 }],
    nextChance: null,
  }
}

/** What a way of rooting asks of the spade beside. */
export const stepsByRoot: Readonly<Record<RootKind, readonly string[]>> = {
  fibrous: [],
  shallow: ['Its roots lie flat: cut a wide, shallow ball and slide the spade under it.'],
  fleshy: [
    'Its roots are thick and brittle: dig wide, and look for every piece that breaks off, for it may grow.',
  ],
  taproot: ['It has a taproot: dig as deep as the spade goes before lifting; broken off, it seldom takes.'],
  rhizome: ['Its rhizomes reach beyond the clump: follow them, or they come up where it stood.'],
  runners: ['Cut its runners round the clump first; rooted ones are plants of their own.'],
  tuber: ['Lift wide of its tubers, and set them at the depth they had.'],
  corm: ['Lift with what small corms hang on it, and set them at the depth they had.'],
  bulb: ['Lift below the bulbs, and set them at the depth they had.'],
  woody: ['Cut round the ball with a sharp spade, then under it; torn roots are cut clean.'],
}

const looks = [
  {
    key: 'check-1',
    days: 7,
    title: 'Water and look after',
    why: 'a week after it went in',
    minutes: 10,
    water: true,
  },
  {
    key: 'check-2',
    days: 21,
    title: 'Water and look after',
    why: 'three weeks after it went in',
    minutes: 10,
    water: true,
  },
  {
    key: 'check-3',
    days: 42,
    title: 'See whether it has taken',
    why: 'six weeks after it went in',
    minutes: 10,
    water: false,
  },
] as const

/** Minutes of watering for each plant that was moved. */
export const MOVED_WATER_EACH = 2

/** What is looked after once it is in the ground. */
export interface LookedAfter {
  /** `Hosta sieboldiana in Court border`. */
  of: string
  /** Plants. */
  count: number
  /** Minutes of watering for each plant. */
  minutesEach: number
  /** The key of the job after which they come. */
  after: string
  /** Before the keys of the looks, where others have the same. */
  prefix?: string
}

/** Looks after a move or a planting; their windows follow the day it is planned for or done. */
export function aftercareJobs(
  { of, count, minutesEach, after, prefix = '' }: LookedAfter,
  from: IsoDate,
): JobDraft[] {
  return looks.map((look) => ({
    key: `${prefix}${look.key}`,
    kind: 'aftercare' as const,
    title: `${look.title}: ${of}`,
    window: aftercareWindow(from, look.days, look.why),
    minutes: look.minutes + (look.water ? Math.ceil(minutesEach * count) : 0),
    materials: look.water ? [{ name: 'water', amount: 5 * count, unit: 'l' as const }] : [],
    tools: look.water ? ['watering can'] : [],
    cautions: [],
    steps: look.water
      ? ['Feel the soil at finger depth; soak if it is not moist.', 'Firm any plant that rocks.']
      : ['Count the living. Flagging is usual in the first season and is not failure.'],
    after: [{ key: after, leastDays: look.days - 2, mostDays: look.days + tailDays(look.days) }],
    nextChance: null,
  }))
}

/** Days after the move or planting that a look falls, by its job's key; undefined of what is no look. */
export const aftercareDays = (key: string): number | undefined => looks.find((l) => key.endsWith(l.key))?.days

/** A look may be late by so many days. */
export const tailDays = (days: number) => Math.max(5, Math.round(days / 3))

/** The window of a look so many days after a move or a planting. */
export function aftercareWindow(moved: IsoDate, days: number, why?: string): Window {
  const reason = why ?? looks.find((l) => l.days === days)?.why ?? `${days} days after it went in`
  const due = addDays(moved, days)
  const latest = addDays(due, tailDays(days))
  return {
    season: 'autumn',
    earliest: addDays(due, -2),
    bestFrom: addDays(due, -1),
    bestTo: addDays(due, 2),
    latest,
    why: {
      earliest: `From ${dayMonth(addDays(due, -2))}: sooner tells little.`,
      bestFrom: `Due about ${dayMonth(due)}, ${reason}.`,
      bestTo: `Best until ${dayMonth(addDays(due, 2))}.`,
      latest: `Not after ${dayMonth(latest)}: a dry root ball is past saving by then.`,
    },
  }
}

/** What a kind's handling asks for, in words. */
export function plantCautions(taxon: Taxon): string[] {
  const harms = poisonousTo(taxon)
  const words: Record<Taxon['cautions'][number], string> = {
    sap: 'Sap can irritate or blister skin: gloves, sleeves, eyes covered.',
    poison: `Poisonous if eaten, to ${listed(harms)}: gloves; keep pieces out of reach.`,
    thorns: 'Thorns: stout gloves and eye protection.',
    heavy: 'Heavy clump: two people or a sack truck.',
    invasive: 'Can spread: check local lists before planting elsewhere; leave no roots behind.',
  }
  // What harms pets alone is no caution of the row, and is said all the same.
  const told = new Set(taxon.cautions)
  if (harms.length > 0) told.add('poison')
  return [...told].map((c) => words[c])
}

/** What is said before anybody digs, with the lines and pipes that are near, by name. */
export function diggingCautions(hazards: readonly string[]): string[] {
  const general = 'Before digging deep, call the utility-locating service.'
  return hazards.length === 0
    ? [general]
    : [`${hazards.join(', ')} close by: find and mark the line first; dig by hand. ${general}`]
}
