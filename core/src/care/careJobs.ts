import { group, median, sum } from 'd3-array'
import type { Climate } from '../climate/index.ts'
import {
  addDays,
  dayNumber,
  daysBetween,
  maxDay,
  minDay,
  seasonStart,
  seasonYearOf,
  type IsoDate,
} from '../dates/index.ts'
import { groundOf, type Container, type Place, type Planting } from '../garden/index.ts'
import { footprintAreaM2, type Point } from '../geometry/index.ts'
import type { Taxon } from '../plants/index.ts'
import { walkingOrder } from '../walk/index.ts'
import { capitalised, dayMonth, listed, tenths } from '../words/index.ts'
import type { SignId } from '../diagnosis/signs.ts'
import { isFollowed, isFor, type Subject } from './applies.ts'
import { bySchool } from './bySchool.ts'
import { yearsAbout } from './taxonCare.ts'
import { unsureWords } from './frost.ts'
import { gardenYear, type GardenYear } from './gardenYear.ts'
import { toFiveMinutes } from './labour.ts'
import { plantCautions, type Material } from './moveJobs.ts'
import type { CareRule, ForbiddenState, GroundState, Operation, RuleMaterial, Skill } from './rule.ts'
import type { Schools } from './schools.ts'
import { soilDose } from '../quantities/index.ts'
import { verbOf } from './verbs.ts'
import { turnsOf, type Turn } from './turns.ts'
import { windowsOf, type Window } from './windows.ts'

/** A living planting with what the rules ask of it. */
export interface CaredPlanting extends Planting {
  /** When it was last divided; its planting where it never was. */
  dividedOn?: IsoDate | undefined
  /** Seen of late. */
  signs: readonly SignId[]
  /** So near a wall or fence that it is trained on it. */
  onWall?: boolean | undefined
  /** Work decided for it that is not yet done: what a person decided is not asked for again by a rule. */
  decided?: readonly { operation: Operation; earliest: IsoDate; latest: IsoDate }[] | undefined
}

/** A piece of care with its window, before it has a day. */
export interface CareJob {
  /** The same for the same work however often it is worked out: rule, season, turn, and its first planting or place. */
  key: string
  /** Null where no rule asks for it. */
  ruleId: string | null
  operation: Operation
  title: string
  /** Where it begins. */
  placeId: string | null
  /** All places that it is done in, in walking order: of containers that stand near each other one job is one round. */
  placeIds: string[]
  plantingIds: string[]
  window: Window
  minutes: number
  /** By the rule alone, before what was measured in this garden. */
  tableMinutes: number
  materials: Material[]
  tools: readonly string[]
  cautions: string[]
  steps: readonly string[]
  forbids: readonly ForbiddenState[]
  skill: Skill | null
  why: string
  missed: string
  /** The school it follows and what the other would do. */
  school: string | null
  /** When its next window opens, where it is missed. */
  nextChance: IsoDate | null
  /** Why its dates cannot be relied on; null where they can. */
  unsure: string | null
}

/** The days on which mix of a container was last new: some of it, and all. */
export interface MixNew {
  some?: IsoDate | undefined
  all?: IsoDate | undefined
}

/** What the work of a garden is made from: what grows in which places, in which climate, under which rules. */
export interface CareGarden {
  plantings: readonly CaredPlanting[]
  places: readonly Place[]
  climate: Climate
  /** How late the present season runs. */
  lateDays: number
  schools: Schools
  rules: readonly CareRule[]
  /** Minutes really taken against the rule's, by operation; 1 where nothing was measured. */
  measured: Readonly<Partial<Record<Operation, number>>>
  /** What is done of keys to come: a job's key without its last part, and the planting or place. */
  done: ReadonlySet<string>
  /** When some of the mix of a container was last new, and when all of it, by place; what is not in it nobody has said. */
  mixNewOn?: ReadonlyMap<string, MixNew> | undefined
  /** When work was last done, by rule, season and the planting or place: `rule/2026/id`. */
  doneOn?: ReadonlyMap<string, IsoDate> | undefined
}

/** Containers no further apart than this are seen to in one round, metres: a judgement. */
const ROUND_M = 12

/** Plantings of a place are done together where their windows share at least so many days. */
const LEAST_SHARED_DAYS = 7

/**
 * The yearly care of a garden: every job whose window opens by a day and has not closed. What the same rule touches in the same weeks
 * in one place, or in containers that stand near each other, is one job.
 *
 * @param on today; windows that closed before it are left out
 * @param until windows that open after it are left out
 */
export function careJobs(garden: CareGarden, on: IsoDate, until: IsoDate): CareJob[] {
  const years = yearsAbout(garden.climate, on, garden.lateDays)
  const staying = garden.plantings.filter((p) => p.livingCount > 0 && !isLeaving(p))
  const plantingsOf = group(staying, (p) => p.placeId)
  const firstDivisions = divisionsFirstDue({ ...garden, plantings: staying }, years, on)
  const jobs: CareJob[] = []
  const rounds = roundsOf(garden.places)
  const alone = garden.places.map((place) => [place])
  for (const rule of garden.rules) {
    // What a sign asks for is made once the sign is seen.
    if (!(rule.yearly || rule.applies.signs) || !isFollowed(rule, garden.schools)) continue
    // Soil is dosed by the test of each place.
    for (const round of rule.doseTo === undefined ? rounds : alone) {
      const subjects = round.flatMap((place) => subjectsIn(rule, place, plantingsOf, garden))
      if (subjects.length === 0) continue
      for (const year of years)
        jobs.push(...jobsOf(rule, round, subjects, year, garden, firstDivisions, on, until))
    }
  }
  return jobs.sort((a, b) =>
    a.window.latest < b.window.latest ? -1 : a.window.latest > b.window.latest ? 1 : 0,
  )
}

const subjectsIn = (
  rule: CareRule,
  place: Place,
  plantingsOf: ReadonlyMap<string, readonly CaredPlanting[]>,
  garden: CareGarden,
): CareSubject[] => {
  const here = plantingsOf.get(place.id) ?? []
  return rule.applies.wholePlace
    ? wholePlace(rule, place, here, garden)
    : here.filter((p) => isFor(rule.applies, plantingSubject(p, place, garden.climate)))
}

/** Places that are seen to together, each in walking order: a bed by itself; containers that stand near each other and stay. */
function roundsOf(places: readonly Place[]): Place[][] {
  const isOfRound = (p: Place): p is Container => p.kind === 'container' && p.to === null
  const left = new Set(places.filter(isOfRound))
  const rounds: Place[][] = []
  for (const first of left) {
    left.delete(first)
    const together = [first]
    // Whoever is reached from one of them is looked from in turn.
    for (const from of together)
      for (const next of left)
        if (Math.hypot(next.x - from.x, next.y - from.y) <= ROUND_M) {
          left.delete(next)
          together.push(next)
        }
    const byId = new Map(together.map((p) => [p.id, p]))
    const order = walkingOrder(together.map((p): { id: string; at: Point } => ({ id: p.id, at: [p.x, p.y] })))
    rounds.push(order.map((id) => byId.get(id)!))
  }
  return [...places.filter((p) => !isOfRound(p)).map((place) => [place]), ...rounds]
}

/** Nearly two years: a job that is asked for finds its window within them or has none. */
const LOOKED_AHEAD_DAYS = 700

/**
 * A rule's work on one planting or place because a person asks for it: in its next window, due or not.
 *
 * @returns undefined where the rule is not for it, or has no window here
 */
export function askedJob(
  rule: CareRule,
  subjectId: string,
  garden: CareGarden,
  on: IsoDate,
): CareJob | undefined {
  const { due: _due, signs: _signs, ...applies } = rule.applies
  const asked: CareRule = {
    ...rule,
    applies,
    yearly: true,
    everySeasons: undefined,
    everyDays: undefined,
    monthDays: undefined,
    school: undefined,
  }
  const only: CareGarden = {
    ...garden,
    rules: [asked],
    // Settled long ago, as far as being due goes.
    plantings: garden.plantings
      .filter((p) => applies.wholePlace || p.id === subjectId)
      .map((p) => ({ ...p, plantedOn: '1900-01-01', decided: [] })),
    places: garden.places.filter((p) => !applies.wholePlace || p.id === subjectId),
    done: new Set(),
    mixNewOn: undefined,
  }
  return careJobs(only, on, addDays(on, LOOKED_AHEAD_DAYS))[0]
}

/** What a job is done to: a planting, or the place itself. */
type CareSubject = CaredPlanting | { place: Place }

/** Decided to go: nothing is done to it any more but what takes it out. */
const isLeaving = (p: CaredPlanting): boolean => p.decided?.some((d) => d.operation === 'remove') ?? false

/** Whether a person has decided the same work: a division at any time, other work in the same weeks. */
const isDecided = (rule: CareRule, subject: CareSubject, window: Window): boolean =>
  'taxon' in subject &&
  (subject.decided ?? []).some(
    (d) =>
      d.operation === rule.operation &&
      (d.operation === 'divide' || (d.earliest <= window.latest && window.earliest <= d.latest)),
  )

const turnKey = (rule: CareRule, year: GardenYear, window: Window) =>
  `${rule.id}/${year.season}/${window.season}`

/** What is due to be divided is divided once, when it first can be: by planting, which window that is. */
function divisionsFirstDue(
  garden: CareGarden,
  years: readonly GardenYear[],
  on: IsoDate,
): Map<string, string> {
  const south = garden.climate.latitudeDeg < 0
  const places = new Map(garden.places.map((p) => [p.id, p]))
  const rules = garden.rules.filter((r) => r.operation === 'divide' && isFollowed(r, garden.schools))
  const first = new Map<string, { key: string; earliest: IsoDate }>()
  for (const p of garden.plantings) {
    const place = places.get(p.placeId)
    if (!place) continue
    for (const rule of rules) {
      if (!isFor(rule.applies, plantingSubject(p, place, garden.climate))) continue
      for (const year of years) {
        if (!isDue(rule, p, year.season, south)) continue
        for (const window of windowsOf(rule, [year], p.taxon, on).windows) {
          const known = first.get(p.id)
          if (!known || window.earliest < known.earliest)
            first.set(p.id, { key: turnKey(rule, year, window), earliest: window.earliest })
        }
      }
    }
  }
  return new Map([...first].map(([id, { key }]) => [id, key]))
}

/** Whether a place as a whole asks for work: an empty pot does not until something is planted in it. */
export const isTended = (place: Pick<Place, 'kind'>, plantings: readonly unknown[]): boolean =>
  place.kind === 'bed' || plantings.length > 0

const wholePlace = (
  rule: CareRule,
  place: Place,
  plantings: readonly CaredPlanting[],
  { climate }: CareGarden,
): CareSubject[] =>
  !isTended(place, plantings) || !isFor(rule.applies, placeSubject(place, plantings, climate))
    ? []
    : [{ place }]

/** A planting, as a rule sees it. */
export const plantingSubject = (
  { taxon, signs, colourWish, onWall }: Pick<CaredPlanting, 'taxon' | 'signs' | 'colourWish' | 'onWall'>,
  { kind, ph }: Pick<Place, 'kind' | 'ph'>,
  climate: Climate,
): Subject => ({ taxon, place: kind, climate, signs, wish: colourWish, ph, onWall })

/** A place as a whole, as a rule sees it. */
export const placeSubject = (
  place: Place,
  plantings: readonly Pick<CaredPlanting, 'taxon'>[],
  climate: Climate,
): Subject => ({
  place: place.kind,
  climate,
  ground: groundState(place.ph, plantings),
  piped: place.piped,
  byWater: place.byWater,
  byWall: place.byWall,
})

/** Too acid, or too limy, for at least half of what grows there. */
function groundState(
  ph: number | undefined,
  plantings: readonly Pick<CaredPlanting, 'taxon'>[],
): GroundState | undefined {
  if (ph === undefined || plantings.length === 0) return undefined
  const half = plantings.length / 2
  if (plantings.filter((p) => ph < p.taxon.phMin).length >= half) return 'too acid'
  if (plantings.filter((p) => ph > p.taxon.phMax).length >= half) return 'too limy'
  return undefined
}

function jobsOf(
  rule: CareRule,
  round: readonly Place[],
  subjects: readonly CareSubject[],
  year: GardenYear,
  garden: CareGarden,
  firstDivisions: ReadonlyMap<string, string>,
  on: IsoDate,
  until: IsoDate,
): CareJob[] {
  const south = garden.climate.latitudeDeg < 0
  const place = round[0]!
  const due = subjects.filter((s) => isDue(rule, s, year.season, south, garden.mixNewOn))
  const withWindows = due.flatMap((subject) => {
    const taxon = 'taxon' in subject ? subject.taxon : undefined
    return windowsOf(rule, [year], taxon, '0000-01-01')
      .windows.filter(
        (window) =>
          !isDecided(rule, subject, window) &&
          (rule.operation !== 'divide' ||
            !('taxon' in subject) ||
            firstDivisions.get(subject.id) === turnKey(rule, year, window)),
      )
      .flatMap((window) => dueAgain(rule, window, garden.doneOn?.get(lastKey(rule, year, subject))))
      .map((window) => ({ subjects: [subject], window }))
  })
  return shared(withWindows).flatMap(({ subjects: together, window }) =>
    turnsOf(rule, window)
      .filter(
        (turn) =>
          turn.window.latest >= on &&
          turn.window.earliest <= until &&
          (rule.notBelowC === undefined ||
            year.usual('maxC', dayNumber(turn.window.bestFrom)) >= rule.notBelowC) &&
          (place.to === null || (turn.window.earliest < place.to && on < place.to)),
      )
      .map((turn) => ({ ...turn, window: whileThere(turn.window, place) }))
      .flatMap((turn) => {
        const stem = `${rule.id}/${year.season}/${window.season}/${turn.turn}`
        const open = together.filter((s) => !garden.done.has(`${stem}/${idOf(s)}`))
        return open.length === 0 ? [] : [toJob(rule, round, open, turn, stem, year, garden)]
      }),
  )
}

const lastKey = ({ dueAfter }: CareRule, { season }: GardenYear, subject: CareSubject): string =>
  `${dueAfter?.rule}/${season}/${idOf(subject)}`

/** Days after it is due that it is best done within. */
const DUE_WITHIN_DAYS = 14

/** What is due so many days after other work begins with the day on which that was done; too late for it, it is left out. */
function dueAgain({ dueAfter }: CareRule, window: Window, doneOn: IsoDate | undefined): Window[] {
  if (!dueAfter || !doneOn) return [window]
  const due = addDays(doneOn, dueAfter.days)
  if (due > window.latest) return []
  const bestTo = minDay(window.latest, addDays(due, DUE_WITHIN_DAYS))
  const since = `what was given on ${dayMonth(doneOn)} lasts ${dueAfter.days} days`
  return [
    {
      ...window,
      earliest: due,
      bestFrom: due,
      bestTo,
      why: {
        ...window.why,
        earliest: `Not before ${dayMonth(due)}: ${since}.`,
        bestFrom: `Best from ${dayMonth(due)}: ${since}.`,
        bestTo: `Best until ${dayMonth(bestTo)}: it goes hungry meanwhile.`,
      },
    },
  ]
}

/** A window with an end where its place has one. */
function whileThere(window: Window, { to, name }: Place): Window {
  if (to === null || window.latest < to) return window
  const latest = addDays(to, -1)
  const why = `Not after ${dayMonth(latest)}: ${name} is gone from the next day on.`
  return {
    ...window,
    bestFrom: minDay(window.bestFrom, latest),
    bestTo: minDay(window.bestTo, latest),
    latest,
    why: { ...window.why, ...(window.bestTo > latest && { bestTo: why }), latest: why },
  }
}

function isDue(
  rule: CareRule,
  subject: CareSubject,
  season: number,
  south: boolean,
  mixNewOn: CareGarden['mixNewOn'] = new Map(),
): boolean {
  if (!('taxon' in subject)) {
    const every = rule.everySeasons ?? 1
    const mix = rule.operation === 'refresh mix' ? mixNewOn.get(subject.place.id) : undefined
    const newOn = every > 1 ? mix?.all : mix?.some
    return newOn === undefined ? season % every === 0 : season - seasonYearOf(newOn, south) >= every
  }
  const planted = seasonYearOf(subject.plantedOn, south)
  const { untilSeason } = rule.applies
  if (untilSeason !== undefined && season - planted >= untilSeason) return false
  // What was planted this season is left to settle.
  if (season <= planted && rule.operation !== 'stake' && rule.operation !== 'protect')
    return season === planted && isBrief(subject.taxon)
  // Roots that were cut in autumn are not fed in the spring after.
  if (
    rule.operation === 'feed' &&
    subject.inPlaceSince >= addDays(seasonStart(season, south), -MOVED_OF_LATE_DAYS)
  )
    return isBrief(subject.taxon)
  if (rule.applies.due === 'division') {
    const last = seasonYearOf(subject.dividedOn ?? subject.plantedOn, south)
    return subject.taxon.divideYears !== null && season - last >= subject.taxon.divideYears[1]
  }
  return rule.everySeasons === undefined || (season - planted) % rule.everySeasons === 0
}

/** From midsummer of the year before: moved since then, a plant feeds on what its new ground holds. */
const MOVED_OF_LATE_DAYS = 180

const isBrief = (taxon: Taxon) => taxon.annualSeason !== null

interface Shared {
  subjects: CareSubject[]
  window: Window
}

/** Windows of a place that overlap enough become one, as narrow as the narrowest asks. */
function shared(found: readonly Shared[]): Shared[] {
  const sorted = [...found].sort((a, b) =>
    a.window.bestFrom === b.window.bestFrom
      ? nameOf(a.subjects[0]!) < nameOf(b.subjects[0]!)
        ? -1
        : 1
      : a.window.bestFrom < b.window.bestFrom
        ? -1
        : 1,
  )
  const together: Shared[] = []
  for (const next of sorted) {
    const fits = together.find((t) => t.window.season === next.window.season && common(t.window, next.window))
    if (fits) {
      fits.window = common(fits.window, next.window)!
      fits.subjects.push(...next.subjects)
    } else together.push({ subjects: [...next.subjects], window: next.window })
  }
  return together
}

function common(a: Window, b: Window): Window | undefined {
  const earliest = maxDay(a.earliest, b.earliest)
  const latest = minDay(a.latest, b.latest)
  const bestFrom = maxDay(a.bestFrom, b.bestFrom)
  const bestTo = minDay(a.bestTo, b.bestTo)
  if (daysBetween(earliest, latest) < LEAST_SHARED_DAYS || bestFrom > bestTo) return undefined
  if (bestFrom < earliest || bestTo > latest) return undefined
  return {
    season: a.season,
    earliest,
    bestFrom,
    bestTo,
    latest,
    why: {
      earliest: (earliest === a.earliest ? a : b).why.earliest,
      bestFrom: (bestFrom === a.bestFrom ? a : b).why.bestFrom,
      bestTo: (bestTo === a.bestTo ? a : b).why.bestTo,
      latest: (latest === a.latest ? a : b).why.latest,
    },
  }
}

const idOf = (s: CareSubject) => ('taxon' in s ? s.id : s.place.id)
const nameOf = (s: CareSubject) => ('taxon' in s ? s.tag : s.place.name)

function toJob(
  rule: CareRule,
  round: readonly Place[],
  subjects: readonly CareSubject[],
  { window, nth }: Pick<Turn, 'window' | 'nth'>,
  stem: string,
  year: GardenYear,
  garden: CareGarden,
): CareJob {
  const plantings = subjects.filter((s): s is CaredPlanting => 'taxon' in s)
  const there = new Set(subjects.map((s) => ('taxon' in s ? s.placeId : s.place.id)))
  const places = round.filter((p) => there.has(p.id))
  const place = places[0]!
  const first = idOf([...subjects].sort((a, b) => (nameOf(a) < nameOf(b) ? -1 : 1))[0]!)
  const ways = bySchool(rule, garden.schools)
  const dosed = doseOf(rule, place, garden)
  const coming = [year, gardenYear(garden.climate, year.season + 1)]
  const next = windowsOf(rule, coming, plantings[0]?.taxon, window.latest).windows
  return {
    key: `${stem}/${first}`,
    ruleId: rule.id,
    operation: rule.operation,
    title: titleOf(rule, places, plantings),
    placeId: place.id,
    placeIds: places.map((p) => p.id),
    plantingIds: plantings.map((p) => p.id),
    window,
    minutes: minutesOf(rule, places, plantings, garden.measured[rule.operation] ?? 1),
    tableMinutes: minutesOf(rule, places, plantings, 1),
    materials: materialsOf(
      [...(rule.materials ?? []), ...dosed.materials, ...ways.materials],
      roomOf(places),
      plantings.map(covered),
    ),
    tools: rule.tools,
    cautions: [...new Set([...plantings.flatMap((p) => plantCautions(p.taxon)), ...(rule.cautions ?? [])])],
    steps: [
      rule.does,
      ...turnStep(rule, nth),
      ...litresStep(rule, places),
      ...dosed.steps,
      ...(rule.steps ?? []),
      ...ways.steps,
    ],
    forbids: rule.forbids,
    skill: rule.skill ?? null,
    why: rule.why,
    missed: rule.missed,
    nextChance:
      next.find((w) => w.earliest > window.latest && (place.to === null || w.earliest < place.to))
        ?.earliest ?? null,
    unsure: unsureWords(rule, garden.climate),
    school: ways.notes.length > 0 ? ways.notes.join(' ') : null,
  }
}

/** What a rule that moves the soil takes in a place, by its test. */
function doseOf(
  { doseTo }: CareRule,
  { id, ph, texture }: Place,
  { plantings }: CareGarden,
): { materials: RuleMaterial[]; steps: string[] } {
  const nothing = { materials: [], steps: [] }
  if (doseTo === undefined || ph === undefined) return nothing
  const toPh =
    doseTo === 'its plants'
      ? likedPh(
          ph,
          plantings.filter((p) => p.placeId === id),
        )
      : doseTo
  const dose = soilDose(ph, toPh, texture)
  if (!dose) return nothing
  const grams = (kg: number) => `${Math.round(100 * kg) * 10} g`
  const ground = texture ? `on ${texture}` : 'taking it for loam, for nobody has said what it is'
  const rest =
    dose.nowKgM2 < dose.inAllKgM2
      ? `; ${grams(dose.nowKgM2)} of it now, for more at once burns roots`
      : ', all of it now'
  return {
    materials: [{ name: dose.with, unit: 'kg', perM2: dose.nowKgM2 }],
    steps: [
      `By its test the soil has pH ${ph} and is to have ${tenths(toPh)}: ${grams(dose.inAllKgM2)} of ${dose.with} a square metre in all, ${ground}${rest}.`,
    ],
  }
}

/** The nearest reaction that at least half of what grows there likes. */
function likedPh(ph: number, plantings: readonly CaredPlanting[]): number {
  const least = median(plantings, (p) => p.taxon.phMin) ?? ph
  const most = median(plantings, (p) => p.taxon.phMax) ?? ph
  return ph < least ? least : Math.min(ph, most)
}

/** What of places together a rule reckons by. */
const roomOf = (places: readonly Place[]): Room => ({
  areaM2: sum(places, (p) => p.areaM2),
  mixLitres: sum(places, (p) => (p.kind === 'container' ? p.mixLitres : 0)),
})

/** Litres of the mix of each container that a rule takes, in the order one walks past them. */
function litresStep({ materials = [] }: CareRule, places: readonly Place[]): string[] {
  return materials.flatMap(({ name, unit, perMixLitre = 0 }) => {
    if (unit !== 'l' || perMixLitre < LEAST_TOLD || places.length < 2) return []
    const each = places.map((p) => {
      const litres = p.kind === 'container' ? perMixLitre * p.mixLitres : 0
      return `${p.name} ${litres < 10 ? tenths(litres) : Math.round(litres)} l`
    })
    return [`${capitalised(name)}: ${listed(each)}.`]
  })
}

/** From so much of the mix on it is told pot by pot. */
const LEAST_TOLD = 0.05

const turnStep = ({ byTurns = [] }: CareRule, nth: number): string[] =>
  byTurns.length === 0 ? [] : [`This turn: ${byTurns[nth % byTurns.length]}.`]

/** Names in a title before the rest is a number. */
const NAMED = 2

/** What a job is called: its work, and the plants or the place it is done to. */
export function titleOf(
  rule: Pick<CareRule, 'verb' | 'operation'>,
  places: readonly Pick<Place, 'name'>[],
  plantings: readonly { taxon: Pick<Taxon, 'botanical'> }[],
): string {
  const verb = capitalised(verbOf(rule))
  const names = [...new Set(plantings.map((p) => p.taxon.botanical))].sort()
  if (names.length === 0) {
    const [first, ...more] = places.map((p) => p.name)
    return `${verb} ${more.length < NAMED ? listed([first!, ...more]) : `${first} and ${more.length} more`}`
  }
  const rest = names.length - NAMED
  return `${verb} ${rest <= 0 ? listed(names) : `${names.slice(0, NAMED).join(', ')} and ${rest} more`}`
}

/** Labour to five minutes: the rule's, by plants, ground and height, times what was measured in this garden. */
function minutesOf(
  { labour }: CareRule,
  places: readonly Place[],
  plantings: readonly CaredPlanting[],
  measured: number,
): number {
  const perPlanting = sum(
    plantings,
    (p) =>
      p.livingCount * ((labour.perPlant ?? 0) + (labour.perMetre ?? 0) * p.taxon.heightM) +
      footprintAreaM2(groundOf(p)) * (labour.perM2 ?? 0),
  )
  const { areaM2, mixLitres = 0 } = roomOf(places)
  const ofPlace =
    plantings.length === 0 ? areaM2 * (labour.perM2 ?? 0) + mixLitres * (labour.perMixLitre ?? 0) : 0
  const minutes = (labour.setUp + perPlanting + ofPlace) * measured
  return toFiveMinutes(minutes)
}

const covered = (p: Planting) => ({ count: p.livingCount, areaM2: footprintAreaM2(groundOf(p)) })

/** The next whole number, or this one where only the last bits lie above it. */
const upTo = (exact: number) => Math.ceil(exact - 1e-9)

/** Ground, and mix of containers, that a job is done to. */
interface Room {
  areaM2: number
  mixLitres?: number
}

/**
 * What a job takes along, by plant, by litre of mix and by square metre of the ground its plantings take, or of its place where it
 * is of no plantings.
 *
 * @returns amounts rounded up to what can be measured out; nothing of what comes to none
 */
export function materialsOf(
  needed: readonly RuleMaterial[],
  place: Room,
  plantings: readonly { count: number; areaM2: number }[],
): Material[] {
  const count = sum(plantings, (p) => p.count)
  const area = plantings.length > 0 ? sum(plantings, (p) => p.areaM2) : place.areaM2
  return needed.flatMap((m) => {
    const exact =
      (m.perPlant ?? 0) * count + (m.perM2 ?? 0) * area + (m.perMixLitre ?? 0) * (place.mixLitres ?? 0)
    const amount = m.unit === 'kg' ? upTo(exact * 10) / 10 : upTo(exact)
    return amount > 0 ? [{ name: m.name, amount, unit: m.unit }] : []
  })
}
