import { moneyTerms, type PlantPrices } from './money.ts'
import {
  capitalised,
  counted,
  dayMonthYear,
  listed,
  monthYear,
  quarterHours,
  tenths,
} from '../words/index.ts'
import { summerOf, type Climate } from '../climate/index.ts'
import { daysBetween, type IsoDate, yearOf } from '../dates/index.ts'
import { signWords, type SignId } from '../diagnosis/index.ts'
import { lightWords, type LightCause, type SunHours } from '../light/index.ts'
import type { Decline } from '../performance/index.ts'
import { moveMinutes } from '../care/index.ts'
import { isWoody, moistureSteps, seasonInPlace, USUAL_YEAR, type Taxon, type Year } from '../plants/index.ts'
import {
  actions,
  alwaysWeighed,
  isAlwaysWeighed,
  isColdOn,
  isLeftAlone,
  isRemedyWork,
  remediesFor,
  stageOn,
  type Action,
  type Elsewhere,
  type Likely,
  type NoRemedy,
  type Opening,
  type OfferedRemedy,
  type Situation,
  type Stage,
} from '../remedies/index.ts'
import type { Crowding } from './crowding.ts'
import {
  FIT_TOLERANCE_HOURS,
  fitOf,
  hoursBorne,
  lightFit,
  scorchedWords,
  stepsAt,
  type LightFit,
  type SuspectedMoisture,
} from './fit.ts'
import type { WindExposure } from '../garden/index.ts'
import type { SpotOption } from './spots.ts'

/** One reason: what it says and how many points it gives an action. */
export interface Term {
  action: Action
  points: number
  says: string
}

/** What is proposed for a planting and why: every score is the sum of its terms. */
export interface Verdict {
  /** One that can be taken, and that answers what is the matter. */
  action: Action
  /** Of what was weighed. */
  scores: Partial<Record<Action, number>>
  terms: Term[]
  /** What the signs ask for and can be done, that of the proposed action first. */
  remedies: OfferedRemedy[]
  /** Of those that can be taken. */
  runnerUp: Action
  /** What cannot be taken, or has nothing that asks for it, with why: it is neither proposed nor second. */
  ruledOut: RuledOut[]
  /** What was seen of it and does not count, with why. */
  notes: string[]
  /** What would change the answer, in a sentence. */
  wouldChange: string
  spots: SpotOption[]
}

/** An action that is not proposed, and why. */
export interface RuledOut {
  action: Action
  why: string
  /** A person may choose it all the same: only nothing asks for it. */
  isOpen: boolean
}

/** All that a verdict rests on. */
export interface VerdictInput {
  taxon: Taxon
  /** Living plants. */
  count?: number | undefined
  inPlaceSince: IsoDate
  on: IsoDate
  hoursNow: SunHours
  hoursBefore: SunHours
  /** The share of its sun that comes through leaves. */
  dappled?: number | undefined
  moisture?: number | null
  /** What the signs of all that stands in its place say of the ground there. */
  suspected?: SuspectedMoisture | undefined
  wind?: WindExposure | undefined
  /** The tree among whose roots it stands. */
  rootsOf?: string | undefined
  /** The building under whose eaves it stands. */
  eavesOf?: string | undefined
  /** What would let its light in: undefined where nothing would, or nobody has looked. */
  opening?: Opening | undefined
  /** What was seen in other places when its own signs were. */
  elsewhere?: readonly Elsewhere[] | undefined
  /** Where it stands. */
  placeKind?: 'bed' | 'container' | undefined
  /** How many were planted. */
  planted?: number | undefined
  /** How the year runs there; absent: as the library means it. */
  year?: Year | undefined
  /** Null where the garden has none; absent: not asked when a remedy is done. */
  climate?: Climate | null | undefined
  causes: readonly LightCause[]
  /** Where it could go, best first; undefined where nobody has looked, for nothing asks for a move. */
  spots: readonly SpotOption[] | undefined
  condition?: Condition | undefined
  /** Stronger neighbours grown over its ground, most first. */
  crowding?: readonly Crowding[] | undefined
  /** Weeks of the year in which nothing else in its place flowers. */
  weeksAlone?: number | undefined
  /** What plants cost; undefined where nobody has said. */
  prices?: PlantPrices | undefined
}

/** What the record, the walk and the planting itself say beside its light. */
export interface Condition {
  /** Signs seen this season. */
  signs: readonly SignId[]
  /** When each was last seen; absent: on the day of the question. */
  signsOn?: Readonly<Partial<Record<SignId, IsoDate>>> | undefined
  /** The last telling rating of this season, 1 to 5. */
  rating: number | null
  /** A later rating that does not count, with why. */
  passedOver?: { rating: number; on: IsoDate; why: 'at rest' | 'old' } | null | undefined
  decline: Pick<Decline, 'perSeason' | 'from' | 'to'> | null
  /** Share of what was planted that still lives. */
  living: number
  /** When it was last divided; its planting where it never was. */
  dividedOn: IsoDate
  role: string | null
  /** What the garden's record says of the kind as a whole. */
  again: 'yes' | 'no' | null
  /** The kind has done well elsewhere in the garden and poorly in this place. */
  poorHere?: boolean | undefined
  /** What its signs are most likely of. */
  likely?: Likely | undefined
}

const NOTHING_KNOWN: Omit<Condition, 'dividedOn'> = {
  signs: [],
  rating: null,
  decline: null,
  living: 1,
  role: null,
  again: null,
}

/**
 * Points. Chosen by this product so that half an hour outside the range is noise, an hour or so is watched for a season
 * and two hours or a scorching afternoon outweigh the work and the lost season of a move. They are shown with every
 * verdict.
 */
const points = {
  keepBase: 40,
  keepInRange: 20,
  keepPerMisfitHour: -22,
  watchBase: 25,
  watchPerMisfitHour: 12,
  watchPerHourBeyond: -22,
  watchYoung: 12,
  moveBase: -10,
  movePerMisfitHour: 22,
  moveGain: 30,
  moveEase: { easy: 5, fair: -5, poor: -25 },
  moveYoung: -10,
  moveSign: 5,
  sameVisit: 4,
  keepThriving: 8,
  keepPerSign: -6,
  keepPoor: -14,
  keepLoss: -20,
  keepSpreads: -25,
  watchedEnough: -15,
  keepDeclinePerSeason: -16,
  watchPerSign: 4,
  watchDecline: 10,
  cutBase: -18,
  cutYoung: -15,
  divideBase: -14,
  divideDue: 12,
  divideOverdue: 26,
  divideSoon: -16,
  dividePoor: -8,
  replaceBase: -30,
  replaceDeclinePerSeason: 24,
  replacePoor: 18,
  replaceLoss: 36,
  replaceAgainNo: 20,
  replaceStuckPerHour: 14,
  replaceStuckQuietPerHour: 4,
  replaceYoung: -25,
  removeBase: -40,
  removeSpreads: 75,
  removeLoss: 30,
  removeStuckPerHour: 8,
  removeYoung: -20,
  roleLost: -12,
  keepCrowded: -22,
  moveCrowded: 26,
  divideCrowded: 14,
  watchCrowded: 16,
  lostAlone: -3,
  perHourOfLabour: -3,
  lostSize: -4,
} as const

/** Signs that a remedy answers, and what they give it. Signs that are only noticed make a planting worth watching. */
const cutSigns: Partial<Record<SignId, number>> = {
  stretched: 22,
  'woody-base': 28,
  flopping: 12,
  dieback: 14,
  'dead-below': 16,
  crowding: 12,
  leaning: 6,
}
const divideSigns: Partial<Record<SignId, number>> = {
  'bare-centre': 32,
  'fewer-flowers': 16,
  crowded: 12,
  crowding: 12,
  flopping: 8,
  'small-leaves': 6,
}
const tooMuchSun: readonly SignId[] = ['scorched', 'wilting', 'small-leaves']
const tooLittleSun: readonly SignId[] = ['stretched', 'leaning', 'flopping', 'fewer-flowers']
/** Signs of no weight for what is to be done. */
const idleSigns: readonly SignId[] = ['volunteers', 'seedlings', 'chewed', 'aphids', 'insects']

/** Beyond this misfit, in hours, watching another season only loses it. */
const WATCH_UNTIL_HOURS = 1.5
/** Perennials are judged from their third season on. */
const YOUNG_DAYS = 2 * 365

/** Signs that the end of a season puts on a sound plant. */
const seasonSigns: readonly SignId[] = [
  'yellowing',
  'pale',
  'wilting',
  'flopping',
  'scorched',
  'fewer-flowers',
]
const resting: Partial<Record<Stage, string>> = {
  dormant: 'dormant',
  'at rest': 'in its summer rest',
  'going over': 'going over for the year',
}

/** Weighs every action by what speaks for and against it; the heaviest is proposed. */
export function verdictFor(all: VerdictInput): Verdict {
  const { input, notes } = withoutSeason(all)
  const { offered, none } = remediesFor(situationOf(input))
  const asked = offered.filter((r) => isRemedyWork(r.id) || !whyImpossible(input, r.action))
  const isAskedAsWork = (action: Action) => asked.some((r) => r.action === action && isRemedyWork(r.id))
  const terms = [
    ...keepTerms(input),
    ...watchTerms(input),
    ...moveTerms(input),
    ...cutBackTerms(input),
    ...divideTerms(input),
    ...replaceTerms(input),
    ...removeTerms(input),
    ...remedyTerms(asked),
    ...moneyTerms(input.taxon.botanical, input.count, input.prices),
  ]
  const scores: Partial<Record<Action, number>> = Object.fromEntries(alwaysWeighed.map((a) => [a, 0]))
  for (const t of terms) scores[t.action] = (scores[t.action] ?? 0) + t.points
  const weighed = actions.filter((a) => scores[a] !== undefined)
  for (const a of weighed) scores[a] = Math.round(scores[a]!)
  const ruledOut = weighed.flatMap((action) => {
    const cannot = isAskedAsWork(action) ? undefined : whyImpossible(input, action)
    if (cannot) return [{ action, why: cannot, isOpen: false }]
    const idle = whyIdle(input, action, terms)
    return idle ? [{ action, why: idle, isOpen: true }] : []
  })
  const ranked = weighed
    .filter((a) => !ruledOut.some((r) => r.action === a))
    .sort((a, b) => scores[b]! - scores[a]!)
  const [action, runnerUp] = [ranked[0]!, ranked[1]!]
  return {
    action,
    scores,
    terms: terms.filter((t) => Math.round(t.points) !== 0),
    remedies: asked.toSorted((a, b) => Number(b.action === action) - Number(a.action === action)),
    runnerUp,
    ruledOut: [...ruledOut, ...withoutTime(none, weighed)],
    notes: [...notesOf(input), ...notes],
    wouldChange: wouldChange(input, action),
    spots: [...(input.spots ?? [])],
  }
}

/**
 * Of several remedies that are one action the strongest counts, the others a little: they are one visit. What every planting is
 * weighed by adds to what else speaks for it.
 */
const remedyTerms = (asked: readonly OfferedRemedy[]): Term[] =>
  asked.map(({ action, points: own, says }, i) => {
    const isFirst = asked.findIndex((r) => r.action === action) === i
    const isFull = isFirst || isAlwaysWeighed(action)
    return { action, points: isFull ? own : points.sameVisit, says }
  })

/** What the signs ask for and this place has no time for is said, not left out. */
const withoutTime = (none: readonly NoRemedy[], weighed: readonly Action[]): RuledOut[] =>
  [...new Map(none.map((r) => [r.action, r])).values()]
    .filter((r) => !weighed.includes(r.action))
    .map(({ action, why }) => ({ action, why, isOpen: false }))

/** A planting without the signs that its time of year puts on it, and what is said of those. */
function withoutSeason(input: VerdictInput): { input: VerdictInput; notes: string[] } {
  const { condition, taxon, on, year = USUAL_YEAR } = input
  if (!condition) return { input, notes: [] }
  const signsOn = condition.signsOn ?? {}
  const restedAt = (sign: SignId): { state: string; seenOn: IsoDate } | undefined => {
    const seenOn = signsOn[sign] ?? on
    const stage = stageOn(taxon, seenOn, year)
    const state = resting[stage]
    // Winter browns an evergreen, and that is no rest.
    const isRest = state && !(stage === 'dormant' && taxon.lifeForm === 'evergreen shrub')
    return isRest && seasonSigns.includes(sign) ? { state, seenOn } : undefined
  }
  const explained = condition.signs.filter((sign) => restedAt(sign))
  if (explained.length === 0) return { input, notes: [] }
  const { state, seenOn } = restedAt(explained[0]!)!
  return {
    input: {
      ...input,
      condition: { ...condition, signs: condition.signs.filter((s) => !explained.includes(s)) },
    },
    notes: [
      `${capitalised(listed(explained.map(signWords)))}, seen on ${dayMonthYear(seenOn)}: it was ${state}, and that is how it looks then. It does not count, and it wants no water for its looks.`,
    ],
  }
}

/** A planting as remedies look at it. */
function situationOf(input: VerdictInput): Situation {
  const { taxon, on, year = USUAL_YEAR, climate, moisture, count = 1 } = input
  const { signs, rating, living, again, poorHere } = conditionOf(input)
  const { hoursOutside } = fitNow(input)
  const steps = stepsAt(taxon, input)
  const isBeyond = misfitOf(input) > FIT_TOLERANCE_HOURS
  return {
    taxon,
    on,
    year,
    climate,
    signs,
    signsOn: conditionOf(input).signsOn ?? {},
    stage: stageOn(taxon, on, year),
    season: seasonInPlace(input.inPlaceSince, on, year.south),
    place: input.placeKind ?? 'bed',
    light: !isBeyond ? 'right' : hoursOutside < 0 ? 'too little' : 'too much',
    ground: steps < 0 ? 'too dry' : steps > 0 ? 'too wet' : moisture == null ? 'unknown' : 'right',
    isGroundSuspected: steps !== moistureSteps(taxon, moisture),
    opening: input.opening,
    elsewhere: input.elsewhere,
    likely: conditionOf(input).likely,
    living,
    planted: input.planted ?? count,
    rating,
    overgrown: (input.crowding ?? []).length > 0,
    isDivisionDue: Boolean(taxon.divideYears && yearsSinceDivided(input) >= taxon.divideYears[1]),
    isCold: isColdOn(on, year, climate),
    again: poorHere ? 'not here' : again,
  }
}

/** Why an action cannot be taken; undefined where it can. */
function whyImpossible({ taxon, spots }: VerdictInput, action: Action): string | undefined {
  if (action === 'move') {
    if (taxon.moveWhen === 'never') return 'It resents moving; a young plant started elsewhere does better.'
    if (!spots) return 'Its light and its neighbours ask for no move, so no spot was looked for.'
    return spots.length === 0 ? 'No free spot in this garden would suit it better.' : undefined
  }
  if (action === 'cut back' && !bearsCut(taxon))
    return isWoody(taxon)
      ? 'It does not break again from old wood.'
      : 'A cut in growth brings it nothing; it is cut back once a year as it is.'
  if (action === 'divide' && !taxon.divideYears) return 'It is not a plant to divide.'
  return undefined
}

/**
 * Why there is no reason for an action that could be taken; undefined where there is one. Keeping and watching need none. A
 * division that only the years ask for is no answer where the light is the matter.
 */
function whyIdle(input: VerdictInput, action: Action, terms: readonly Term[]): string | undefined {
  if (isLeftAlone(action)) return undefined
  const asking = terms.filter((t) => t.action === action && t.points > 0)
  if (asking.length === 0) return 'Nothing asks for it.'
  if (
    action === 'divide' &&
    misfitOf(input) > WATCH_UNTIL_HOURS &&
    asking.every((t) => t.says === sinceDivided(input))
  )
    return 'Only the years ask for it, and it would not mend its light.'
  return undefined
}

const bearsCut = (taxon: Taxon): boolean =>
  isWoody(taxon) ? taxon.bearsHardCut : taxon.repeats === 'when cut back' || taxon.halves

/** A rating that does not count is not passed over without a word. */
function notesOf(input: VerdictInput): string[] {
  const { passedOver } = conditionOf(input)
  if (!passedOver) return []
  const rated = `Rated ${passedOver.rating} of 5 on ${dayMonthYear(passedOver.on)}`
  return [
    passedOver.why === 'at rest'
      ? `${rated}, when it was at rest or going over: that says little of it, and does not count.`
      : `${rated}, more than four months ago: too long to count. Look at it again.`,
  ]
}

/** In its first season a plant is not judged by so many hours over its light: it has still to grow into it. A judgement. */
const FIRST_SEASON_HOURS = 1

/** Its light against its range, in the summers of the place. */
const fitNow = ({ taxon, hoursNow, climate }: VerdictInput): LightFit =>
  lightFit(taxon, hoursNow, summerOf(climate))

function misfitOf(input: VerdictInput): number {
  const { misfitHours, scorched } = fitNow(input)
  return isNotCounted(input, misfitHours, scorched) ? Math.min(misfitHours, FIT_TOLERANCE_HOURS) : misfitHours
}

const isNotCounted = (input: VerdictInput, misfitHours: number, scorched: boolean): boolean =>
  !scorched &&
  misfitHours > FIT_TOLERANCE_HOURS &&
  misfitHours <= FIRST_SEASON_HOURS &&
  seasonInPlace(input.inPlaceSince, input.on, (input.year ?? USUAL_YEAR).south) <= 1

/** `2½ h to 5 h`, or `6 h or more` where no sun is too much. */
export const lightRange = (taxon: Taxon): string =>
  taxon.lightMaxHours >= 24
    ? `${quarterHours(taxon.lightMinHours)} or more`
    : `${quarterHours(taxon.lightMinHours)} to ${quarterHours(taxon.lightMaxHours)}`

/** Less than half a quarter of an hour is said as none. */
const LEAST_SAID_HOURS = 0.125

/** How the light stands, in one clause: used by several terms. */
function lightClause(input: VerdictInput): string {
  const { taxon, hoursNow } = input
  const fit = fitNow(input)
  const range = lightRange(taxon)
  const has = `It has ${quarterHours(hoursNow.total)} (${lightWords(hoursNow, input.dappled)}${countedAs(input)})`
  if (Math.abs(fit.hoursOutside) < LEAST_SAID_HOURS && !fit.scorched)
    return `${has}, within the ${range} it likes.`
  const outside =
    Math.abs(fit.hoursOutside) < LEAST_SAID_HOURS
      ? `within the ${range} it likes`
      : `${quarterHours(Math.abs(fit.hoursOutside))} ${fit.hoursOutside > 0 ? 'over' : 'under'} the ${range} it likes`
  if (fit.scorched)
    return `${has}, ${outside}, ${quarterHours(hoursNow.heat)} of it in the heat from two to five, ${scorchedWords(taxon)}.`
  return isNotCounted(input, fit.misfitHours, false)
    ? `${has}, ${outside}: in its first season that does not count.`
    : `${has}, ${outside}.`
}

/** Where the hours count otherwise than by the clock against the most it bears, that is said. */
function countedAs({ taxon, hoursNow, climate }: VerdictInput): string {
  const borne = hoursBorne(taxon, hoursNow, summerOf(climate))
  const isTelling = Math.max(borne, hoursNow.total) > taxon.lightMaxHours
  const counts = quarterHours(borne)
  if (!isTelling || counts === quarterHours(hoursNow.total)) return ''
  return `; counts as ${counts}, for ${borne < hoursNow.total ? 'morning sun is mild' : 'summers here are hot'}`
}

const conditionOf = (input: VerdictInput): Condition =>
  input.condition ?? { ...NOTHING_KNOWN, dividedOn: input.inPlaceSince }

/** Signs that ask for something, in words. */
const troubling = (input: VerdictInput): SignId[] =>
  conditionOf(input).signs.filter((s) => !idleSigns.includes(s))

const seenWords = (found: readonly SignId[]): string => `Seen this season: ${listed(found.map(signWords))}.`

function keepTerms(input: VerdictInput): Term[] {
  const misfit = misfitOf(input)
  const { decline, rating, living } = conditionOf(input)
  const found = troubling(input)
  const terms: Term[] = [
    { action: 'keep', points: points.keepBase, says: 'Leaving a settled plant alone costs nothing.' },
  ]
  if (misfit <= FIT_TOLERANCE_HOURS)
    terms.push({ action: 'keep', points: points.keepInRange, says: lightClause(input) })
  else terms.push({ action: 'keep', points: points.keepPerMisfitHour * misfit, says: lightClause(input) })
  if (decline)
    terms.push({
      action: 'keep',
      points: points.keepDeclinePerSeason * decline.perSeason,
      says: declineWords(decline),
    })
  if (rating !== null && rating <= 2)
    terms.push({ action: 'keep', points: points.keepPoor, says: `Rated ${rating} of 5 when last it told.` })
  if (living < 0.7)
    terms.push({ action: 'keep', points: points.keepLoss * (1 - living), says: livingWords(living) })
  if (pushingSigns(input).length > 0)
    terms.push({ action: 'keep', points: points.keepSpreads, says: 'It spreads over its neighbours.' })
  const crowded = crowdedBy(input)
  if (crowded) terms.push({ action: 'keep', points: points.keepCrowded * crowded.share, says: crowded.says })
  if (!decline && rating !== null && rating >= 4)
    terms.push({
      action: 'keep',
      points: points.keepThriving,
      says: `Rated ${rating} of 5 when last it told.`,
    })
  if (found.length > 0)
    terms.push({
      action: 'keep',
      points: points.keepPerSign * Math.min(4, found.length),
      says: seenWords(found),
    })
  return terms
}

/** Ground that stronger neighbours have grown over, all together. */
function crowdedBy({ crowding = [] }: VerdictInput): { share: number; says: string } | undefined {
  if (crowding.length === 0) return undefined
  const share = Math.min(
    1,
    crowding.reduce((sum, c) => sum + c.share, 0),
  )
  return {
    share,
    says: `${listed(crowding.map((c) => c.botanical))} ${crowding.length === 1 ? 'has' : 'have'} grown over ${Math.round(100 * share)} % of its ground.`,
  }
}

/** More weeks alone than this count no further. */
const MOST_WEEKS_ALONE = 6

function aloneWords({ weeksAlone = 0 }: VerdictInput): { weeks: number; says: string } | undefined {
  if (weeksAlone === 0) return undefined
  return {
    weeks: Math.min(MOST_WEEKS_ALONE, weeksAlone),
    says: `Nothing else in its place flowers in ${counted(weeksAlone, 'week')} of its bloom.`,
  }
}

/** What would be lost with it: its bloom where nothing else flowers, and years of growth. */
function lostWith(input: VerdictInput, action: 'replace' | 'remove'): Term[] {
  const { role } = conditionOf(input)
  const alone = aloneWords(input)
  const years = Math.min(5, input.taxon.yearsToSize - 3)
  return [
    ...(role ? [{ action, points: points.roleLost, says: `It has a part here: ${role}.` }] : []),
    // A successor can flower in those weeks; a gap does not.
    ...(alone && action === 'remove'
      ? [{ action, points: points.lostAlone * alone.weeks, says: alone.says }]
      : []),
    ...(isWoody(input.taxon) && years > 0
      ? [
          {
            action,
            points: points.lostSize * years,
            says: `It stands for ${input.taxon.yearsToSize} years of growth.`,
          },
        ]
      : []),
  ]
}

const declineWords = (d: NonNullable<Condition['decline']>): string =>
  `It has fallen by ${tenths(d.perSeason)} a season from ${d.from} to ${d.to}, more than age, stage and the year explain.`

/** The remedies that signs speak for, each with its points. */
const spokenFor = (input: VerdictInput, action: Action, weights: Partial<Record<SignId, number>>): Term[] =>
  troubling(input).flatMap((sign): Term[] => {
    const weight = weights[sign]
    return weight === undefined ? [] : [{ action, points: weight, says: `${capitalised(signWords(sign))}.` }]
  })

function cutBackTerms(input: VerdictInput): Term[] {
  const { taxon } = input
  const action = 'cut back'
  const terms: Term[] = [
    { action, points: points.cutBase, says: 'A cut costs labour and some weeks of looks.' },
  ]
  if (!bearsCut(taxon)) return terms
  if (isYoung(input))
    terms.push({ action, points: points.cutYoung, says: 'It has not settled from its last planting.' })
  return [...terms, ...spokenFor(input, action, cutSigns)]
}

const yearsSinceDivided = (input: VerdictInput): number =>
  Math.floor(daysBetween(conditionOf(input).dividedOn, input.on) / 365)

/** How long since it was last divided, against how often it wants it; null for what is not divided. */
function sinceDivided(input: VerdictInput): string | null {
  const { divideYears } = input.taxon
  return (
    divideYears &&
    `${counted(yearsSinceDivided(input), 'year')} since it was planted or divided; it usually wants it every ${divideYears[0]} to ${divideYears[1]}.`
  )
}

function divideTerms(input: VerdictInput): Term[] {
  const { taxon } = input
  const action = 'divide'
  const terms: Term[] = [
    { action, points: points.divideBase, says: 'Dividing costs labour and most of a season’s flowers.' },
  ]
  if (!taxon.divideYears) return terms
  const [least, most] = taxon.divideYears
  const years = yearsSinceDivided(input)
  const due = years >= most ? points.divideOverdue : years >= least ? points.divideDue : points.divideSoon
  terms.push({ action, points: due, says: sinceDivided(input)! })
  if (taxon.moveEase === 'poor')
    terms.push({ action, points: points.dividePoor, says: 'It is slow to settle after being lifted.' })
  const crowded = crowdedBy(input)
  if (crowded) terms.push({ action, points: points.divideCrowded * crowded.share, says: crowded.says })
  return [...terms, ...spokenFor(input, action, divideSigns)]
}

/** Signs that a spreading kind pushes others out. */
function pushingSigns(input: VerdictInput): SignId[] {
  const { vigour, cautions, selfSeeds } = input.taxon
  const spreads = vigour === 'thug' || cautions.includes('invasive') || selfSeeds === 'freely'
  return spreads ? conditionOf(input).signs.filter((s) => s === 'crowding' || s === 'seedlings') : []
}

const livingWords = (living: number) => `${Math.round(100 * living)} % of what was planted lives.`

/** Hours outside its light that no move can cure: nowhere to go, or it resents going. */
function stuckHours(input: VerdictInput): number {
  const misfit = misfitOf(input)
  const stuck = input.taxon.moveWhen === 'never' || input.spots?.length === 0
  return stuck && misfit > WATCH_UNTIL_HOURS ? misfit : 0
}

/** Whether the plant itself shows that something is amiss. */
function isSuffering(input: VerdictInput): boolean {
  const { decline, rating } = conditionOf(input)
  return decline !== null || (rating ?? 5) <= 3 || troubling(input).length > 0
}

function replaceTerms(input: VerdictInput): Term[] {
  const action = 'replace'
  const { decline, rating, living, again } = conditionOf(input)
  const terms: Term[] = [
    { action, points: points.replaceBase, says: 'A new plant costs money, a hole and years to size.' },
  ]
  const add = (points: number, says: string) => terms.push({ action, points, says })
  if (decline) add(points.replaceDeclinePerSeason * decline.perSeason, declineWords(decline))
  if (rating !== null && rating <= 2) add(points.replacePoor, `Rated ${rating} of 5 when last it told.`)
  if (living < 0.7) add(points.replaceLoss * (1 - living), livingWords(living))
  if (again === 'no') add(points.replaceAgainNo, 'The record of this garden is against the kind.')
  const stuck = stuckHours(input)
  if (stuck > 0)
    add(
      (isSuffering(input) ? points.replaceStuckPerHour : points.replaceStuckQuietPerHour) * stuck,
      `${lightClause(input)} It cannot be moved to better${isSuffering(input) ? '' : ', though it does not show it yet'}.`,
    )
  if (isYoung(input)) add(points.replaceYoung, 'Too young to be given up.')
  return [...terms, ...lostWith(input, action)]
}

function removeTerms(input: VerdictInput): Term[] {
  const action = 'remove'
  const { living } = conditionOf(input)
  const terms: Term[] = [
    { action, points: points.removeBase, says: 'A gap wants filling or it fills with weeds.' },
  ]
  const add = (points: number, says: string) => terms.push({ action, points, says })
  const pushing = pushingSigns(input)
  if (pushing.length > 0)
    add(points.removeSpreads, `It spreads, and it shows: ${listed(pushing.map(signWords))}.`)
  if (living < 0.4)
    add(points.removeLoss * (1 - living), `Only ${Math.round(100 * living)} % of what was planted lives.`)
  const stuck = stuckHours(input)
  if (stuck > 0 && isSuffering(input))
    add(points.removeStuckPerHour * stuck, 'Neither its light nor a move helps it.')
  if (isYoung(input)) add(points.removeYoung, 'Too young to be given up.')
  return [...terms, ...lostWith(input, action)]
}

function watchTerms(input: VerdictInput): Term[] {
  const misfit = misfitOf(input)
  const terms: Term[] = [{ action: 'watch', points: points.watchBase, says: 'A season’s watching is cheap.' }]
  const { decline, rating } = conditionOf(input)
  const found = troubling(input)
  if (decline) terms.push({ action: 'watch', points: points.watchDecline, says: declineWords(decline) })
  if (decline && (rating ?? 5) <= 2)
    terms.push({
      action: 'watch',
      points: points.watchedEnough,
      says: 'It has been watched going down for long enough.',
    })
  if (found.length > 0)
    terms.push({
      action: 'watch',
      points: points.watchPerSign * Math.min(4, found.length),
      says: seenWords(found),
    })
  const crowded = crowdedBy(input)
  if (crowded)
    terms.push({ action: 'watch', points: points.watchCrowded * crowded.share, says: crowded.says })
  if (misfit <= FIT_TOLERANCE_HOURS) {
    if (terms.length === 1)
      return [
        {
          action: 'watch',
          points: points.watchBase,
          says: 'Nothing in its light or its looks asks for watching.',
        },
      ]
    return terms
  }
  terms.push({
    action: 'watch',
    points: points.watchPerMisfitHour * Math.min(misfit, WATCH_UNTIL_HOURS),
    says: 'The light has left its range by enough to look for scorch, leaning or fewer flowers.',
  })
  if (misfit > WATCH_UNTIL_HOURS)
    terms.push({
      action: 'watch',
      points: points.watchPerHourBeyond * (misfit - WATCH_UNTIL_HOURS),
      says: `The misfit is beyond ${quarterHours(WATCH_UNTIL_HOURS)}: waiting loses another season.`,
    })
  if (isYoung(input))
    terms.push({
      action: 'watch',
      points: points.watchYoung,
      says: `In place since ${yearOf(input.inPlaceSince)}: not yet three seasons, too soon to judge.`,
    })
  return terms
}

function moveTerms(input: VerdictInput): Term[] {
  const { taxon, spots } = input
  const misfit = misfitOf(input)
  // A pot is carried sooner than its plant is lifted out of it.
  const movable = input.placeKind === 'container' ? Math.min(misfit, WATCH_UNTIL_HOURS) : misfit
  const terms: Term[] = [
    { action: 'move', points: points.moveBase, says: 'A move costs labour and most of a season’s growth.' },
    { action: 'move', points: points.movePerMisfitHour * movable, says: lightClause(input) },
  ]
  if (misfit > FIT_TOLERANCE_HOURS) terms.push(...causeTerms(input), ...lightSigns(input))
  if (taxon.moveWhen !== 'never') {
    const ease = {
      easy: 'It moves easily.',
      fair: 'It takes a move fairly well.',
      poor: 'It is slow to settle after a move.',
    }
    terms.push({ action: 'move', points: points.moveEase[taxon.moveEase], says: ease[taxon.moveEase] })
  }
  const best = spots?.[0]
  if (best) {
    const gain =
      best.fit.score -
      fitOf(taxon, {
        hours: input.hoursNow,
        moisture: input.moisture ?? null,
        wind: input.wind,
        rootsOf: input.rootsOf,
        eavesOf: input.eavesOf,
        suspected: input.suspected,
        summer: summerOf(input.climate),
      }).score
    terms.push({
      action: 'move',
      points: points.moveGain * gain,
      says: `${best.placeName} has room for it: ${best.fit.reason}.`,
    })
  }
  const crowded = crowdedBy(input)
  if (crowded) terms.push({ action: 'move', points: points.moveCrowded * crowded.share, says: crowded.says })
  const labour = moveMinutes(taxon, input.count ?? 1)
  terms.push({
    action: 'move',
    points: (points.perHourOfLabour * labour) / 60,
    says: `Lifting and replanting takes about ${counted(Math.max(1, Math.round(labour / 60)), 'hour')}.`,
  })
  if (isYoung(input))
    terms.push({
      action: 'move',
      points: points.moveYoung,
      says: 'It has not settled from its last planting.',
    })
  return terms
}

/** Signs that bear the misfit out. */
function lightSigns(input: VerdictInput): Term[] {
  const outside = fitNow(input).hoursOutside
  const telling = outside < 0 ? tooLittleSun : tooMuchSun
  const found = conditionOf(input).signs.filter((s) => telling.includes(s))
  return found.length === 0
    ? []
    : [
        {
          action: 'move',
          points: points.moveSign * found.length,
          says: `It shows: ${listed(found.map(signWords))}.`,
        },
      ]
}

/** The recorded change behind the misfit: it carries the reason, the points are in the misfit itself. */
function causeTerms(input: VerdictInput): Term[] {
  const towards = Math.sign(input.hoursNow.total - input.hoursBefore.total)
  const cause = input.causes.find((c) => Math.sign(c.hours) === towards)
  if (!cause) return []
  return [{ action: 'move', points: 1, says: causeSentence(cause) }]
}

/** `Storehouse went in February 2025` */
export function causeClause(cause: LightCause): string {
  const when = cause.date ? ` in ${monthYear(cause.date)}` : ''
  const what: Record<LightCause['what'], string> = {
    appeared: `${cause.name} went up${when}`,
    gone: `${cause.name} went${when}`,
    limbed: `${cause.name} was limbed up${when}`,
    thinned: `${cause.name} was thinned${when}`,
    lowered: `${cause.name} was lowered${when}`,
    measured: `${cause.name} was measured anew${when}`,
    grown: `${cause.name} has grown`,
  }
  return what[cause.what]
}

/** `Storehouse went in February 2025: 2¾ h more sun a day.` */
export function causeSentence(cause: LightCause): string {
  return `${causeClause(cause)}: ${quarterHours(Math.abs(cause.hours))} ${cause.hours > 0 ? 'more' : 'less'} sun a day.`
}

const isYoung = (input: VerdictInput) => daysBetween(input.inPlaceSince, input.on) < YOUNG_DAYS

function wouldChange(input: VerdictInput, action: Action): string {
  const { taxon } = input
  if (!isAlwaysWeighed(action)) return 'Without what was seen of it, it would be left as it is.'
  if (action === 'cut back') return 'Without these signs it would be left as it is.'
  if (action === 'divide') return 'Flowering well to the middle again, it could wait another year.'
  if (action === 'replace') return 'A better season, or a spot that suits it, would let it stay.'
  if (action === 'remove') return 'Kept within bounds, or recovered, it could stay.'
  const fit = fitNow(input)
  const limit = fit.hoursOutside > 0 ? taxon.lightMaxHours : taxon.lightMinHours
  if (action === 'move' && fit.misfitHours <= FIT_TOLERANCE_HOURS)
    return 'Its neighbours cut back or divided, it could stay.'
  if (action === 'move')
    return fit.hoursOutside === 0
      ? 'Shade from two to five would make it fit where it is.'
      : `Back ${fit.hoursOutside > 0 ? 'under' : 'over'} ${quarterHours(limit)} it could stay${
          fit.hoursOutside > 0
            ? ': new shade would do that'
            : input.opening
              ? `: opening ${input.opening.tree} would do that`
              : ''
        }.`
  if (fit.misfitHours <= FIT_TOLERANCE_HOURS) return 'A change of an hour or more in its light.'
  if (taxon.moveWhen === 'never') return 'A young plant or cutting to start in a better spot.'
  if (!input.spots?.length) return 'A free spot with the light it likes would make it a move.'
  return 'Another half hour out of its range, or signs of distress, would make it a move.'
}
