import { sum } from 'd3-array'
import { aftercareJobs, openFrom, plantCautions, plantingWindows, toFiveMinutes } from '../care/index.ts'
import { addDays, type IsoDate } from '../dates/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { centimetres, counted, dayMonth, monthYear } from '../words/index.ts'
import { mulchesFirst, mulchLitres, mulchMinutes, readyBy } from './makingReady.ts'
import { comesUpBetween } from './palette.ts'
import type { PlantingTurn } from './plantingTurns.ts'
import { afterEach, asMaterial, stepOf, type Comes, type SchemeToCarryOut, type Step } from './step.ts'
import { materialNames, minutesOf } from './totals.ts'

/** Minutes. Working figures: to set a plant on its spot; to water each, for many stand under one hose. */
const SET_OUT = { setUp: 15, each: 0.5 }
const WATER_EACH = 0.5
/** Dug and fed ground settles so many days before it is planted, at the least. */
const SETTLES_DAYS = 3
/** What is set out is planted within so many days; what is planted is watered in and mulched within so many. */
const PLANTED_WITHIN_DAYS = 28
const FINISHED_WITHIN_DAYS = 28

/** A time of planting, the nth, with what is planted then. */
interface Turn {
  nth: number
  turn: PlantingTurn
  comes: readonly Comes[]
  plants: number
}

/**
 * What comes in set out, looked at and planted, watered in, mulched, labelled and looked after: by turns.
 *
 * @param gives by kind, keys of the steps that give plants of it
 * @param clears by planting, the step that takes it out of the ground, of those that the making ready does not wait for
 */
export function plantingSteps(
  scheme: SchemeToCarryOut,
  turns: readonly PlantingTurn[],
  gives: ReadonlyMap<string, readonly string[]>,
  clears: ReadonlyMap<string, string>,
  on: IsoDate,
): Step[] {
  return turns.flatMap((turn, i): Step[] => {
    const comes = turn.planted.map((p) => scheme.comes.find((c) => c.id === p.id)!)
    const t: Turn = { nth: i + 1, turn, comes, plants: sum(comes, (c) => c.count) }
    const planted = turn.planted.map((p, k) => plantStep(scheme, t, comes[k]!, p.window, on))
    const of =
      turns.length === 1 ? 'what was planted' : `what was planted about ${monthYear(turn.window.bestFrom)}`
    const looks = aftercareJobs(
      {
        of: `${of} in ${scheme.place.name}`,
        count: t.plants,
        minutesEach: WATER_EACH,
        after: `finish/${t.nth}`,
        prefix: `turn ${t.nth}/`,
      },
      turn.window.bestFrom,
    )
    return [
      setOut(scheme, t, gives, clears),
      ...planted,
      finish(scheme, t, planted),
      ...looks.map((look) => stepOf(scheme, { ...look, stage: 'look after' })),
    ]
  })
}

function setOut(
  scheme: SchemeToCarryOut,
  { nth, turn, comes, plants }: Turn,
  gives: ReadonlyMap<string, readonly string[]>,
  clears: ReadonlyMap<string, string>,
): Step {
  const given = comes.filter((c) => c.have > 0).flatMap((c) => gives.get(c.taxon.botanical) ?? [])
  const cleared = comes.flatMap((c) => c.over.flatMap((id) => clears.get(id) ?? []))
  return stepOf(scheme, {
    stage: 'plant',
    key: `set out/${nth}`,
    kind: 'prepare',
    title: `Set out ${counted(plants, 'plant')} in ${scheme.place.name}, and look`,
    window: turn.window,
    minutes: toFiveMinutes(SET_OUT.setUp + SET_OUT.each * plants),
    tools: ['tape and line', 'planting sheet', 'canes'],
    steps: [
      'Soak every pot. Measure from the base line of the planting sheet; the largest first.',
      'Set everything on its spot before anything is planted; a cane where a bulb goes.',
      'Look at it from the path and from each side it is seen from. Shift what looks wrong now, and note it.',
    ],
    after: [
      { key: readyBy(scheme), leastDays: nth === 1 ? SETTLES_DAYS : 0 },
      ...afterEach([...new Set([...given, ...cleared])]),
    ],
    why: 'On the ground a change costs nothing; planted it costs a season.',
  })
}

const minutesEach = (taxon: Taxon): number =>
  comesUpBetween(taxon) ? minutesOf.bulbEach : isWoody(taxon) ? minutesOf.plantWoodyEach : minutesOf.plantEach

function plantStep(
  scheme: SchemeToCarryOut,
  { nth }: Turn,
  comes: Comes,
  window: Step['window'],
  on: IsoDate,
): Step {
  const { taxon, count, have } = comes
  const found = plantingWindows(taxon, scheme.climate, on, scheme.lateDays)
  const all = found.ok ? found.windows : []
  const rule = (all.find((w) => w.window.latest === window.latest) ?? all[0])?.rule
  const buy = count - have
  return stepOf(scheme, {
    stage: 'plant',
    key: `plant/${comes.id}`,
    kind: 'plant',
    title: `Plant ${count} ${taxon.botanical} in ${scheme.place.name}`,
    window: openFrom(window, on),
    minutes: toFiveMinutes(count * minutesEach(taxon)),
    materials: buy > 0 ? [{ name: taxon.botanical, amount: buy, unit: 'pieces' }] : [],
    tools: [...(rule?.tools ?? ['spade', 'watering can'])],
    cautions: [...plantCautions(taxon), ...(rule?.cautions ?? [])],
    steps: [
      ...(have > 0
        ? [
            `${have} come off the bench or from a division; ${buy > 0 ? `${buy} are bought` : 'none is bought'}.`,
          ]
        : []),
      ...(rule ? [`${rule.does}.`, ...(rule.steps ?? [])] : []),
    ],
    after: [{ key: `set out/${nth}`, leastDays: 0, mostDays: PLANTED_WITHIN_DAYS }],
    nextChance: all.find((w) => w.window.earliest > window.latest)?.window.earliest ?? null,
    forbids: rule?.forbids ?? ['heat', 'frozen soil', 'sodden soil'],
    ...(rule && { why: rule.why, missed: rule.missed }),
    sets: comes,
  })
}

function finish(
  scheme: SchemeToCarryOut,
  { nth, turn: { window }, plants }: Turn,
  planted: readonly Step[],
): Step {
  const mulches = nth === 1 && !mulchesFirst(scheme) && mulchLitres(scheme) > 0
  const closes = addDays(window.latest, 7)
  return stepOf(scheme, {
    stage: 'plant',
    key: `finish/${nth}`,
    kind: 'mulch',
    title: `Water in${mulches ? ', mulch' : ''} and label ${scheme.place.name}`,
    window: {
      ...window,
      latest: closes,
      why: {
        ...window.why,
        earliest: 'As soon as all is planted.',
        latest: `Not after ${dayMonth(closes)}: what was planted last must not stand dry.`,
      },
    },
    minutes: toFiveMinutes(10 + WATER_EACH * plants + (mulches ? mulchMinutes(scheme) : 0)),
    materials: [
      { name: 'water', amount: 3 * plants, unit: 'l' },
      ...(mulches ? [asMaterial({ item: materialNames.mulch, count: mulchLitres(scheme) })] : []),
    ],
    tools: ['hose or cans', 'labels', ...(mulches ? ['barrow', 'rake'] : [])],
    cautions: mulches ? ['Dust from dry mulch: mask and gloves.'] : [],
    steps: [
      'Water each plant in, slowly, until it puddles.',
      ...(mulches
        ? [`Spread ${centimetres(scheme.mulchM)} of mulch between them, off every crown and stem.`]
        : []),
      'A label with kind and date at each drift; write down what was set otherwise than planned.',
    ],
    after: planted.map(({ key }) => ({ key, leastDays: 0, mostDays: FINISHED_WITHIN_DAYS })),
    why: 'Air round the roots kills more new plants than cold does.',
  })
}
