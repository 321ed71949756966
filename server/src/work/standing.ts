import {
  plantingSeen,
  type climateEndpoints,
  type crewEndpoints,
  type KnownTaxon,
  type recordEndpoints,
  type ruleEndpoints,
  type CrewPersonView,
  type DecisionView,
  type FeatureView,
  type GardenSummary,
  type JobView,
  type PictureView,
  type PlantingSeen,
  type PlantingView,
  type SaidScheme,
  type SeenOf,
  type verdictEndpoints,
} from '@border/contract'
import {
  counted,
  dayMonth,
  dayMonthYear,
  listed,
  monthDaysWords,
  plantedWords,
  schoolOf,
  signWords,
  type SchoolId,
  type SignCause,
  type SignId,
} from '@border/core'
import { isDeepStrictEqual } from 'node:util'
import { asSent } from '../asSent.ts'
import type { Standing } from '../meanwhile.ts'
import { outcomeWords } from '../store/plantings.ts'
import { happenedWords } from './obstructionWords.ts'

/** How each thing that several people change is told to one who has seen it otherwise. */

/** One thing by itself. @param tell how it stands otherwise than it was seen; not asked where it is gone */
const one = <Seen>(
  name: string,
  as: Seen | undefined,
  tell: (now: Seen, seen: Seen) => string[],
): Standing<Seen> => ({
  names: [name],
  as: as ?? null,
  differs: (seen) => ({ names: [name], says: as ? tell(as, seen) : [] }),
})

/**
 * Several things that are put right together, each as it was seen.
 *
 * @param idOf tells of what was seen which of the things it is
 */
export function severalStanding<Seen>(
  each: readonly Standing<Seen>[],
  idOf: (seen: Seen) => string,
  ids: readonly string[],
): Standing<Seen[]> {
  return {
    names: each.flatMap((s) => s.names),
    as: each.flatMap((s) => (s.as === null ? [] : [s.as])),
    differs: (seen) => {
      const before = new Map(seen.map((s) => [idOf(s), s]))
      const otherwise = each.flatMap((s, i) => {
        const saw = before.get(ids[i]!)
        if (saw === undefined || isDeepStrictEqual(asSent(saw), asSent(s.as))) return []
        return [s.as === null ? { names: [...s.names], says: ['It is no longer there.'] } : s.differs(saw)]
      })
      return { names: otherwise.flatMap((o) => o.names), says: otherwise.flatMap((o) => o.says) }
    },
  }
}

const told = (...said: (string | false | 0 | null | undefined)[]): string[] =>
  said.filter((s): s is string => !!s)

type Entry = { date: string; action: string } & Record<string, unknown>
const entriesOf = (f: FeatureView) => (f.properties.events ?? []) as unknown as Entry[]

/** What a part's own entry says, in words. */
const entryWords = ({ action, clearStemM, fraction, heightM }: Entry): string =>
  happenedWords(action, action === 'limbed' ? clearStemM : action === 'thinned' ? fraction : heightM)

/** Entries of a list that another has not, each as often as it is there more. */
function without(list: readonly Entry[], other: readonly Entry[]): Entry[] {
  const left = [...other]
  return list.filter((e) => {
    const at = left.findIndex((x) => isDeepStrictEqual(x, e))
    if (at >= 0) left.splice(at, 1)
    return at < 0
  })
}

/** Sizes that are told by their names; of all else it is told that it was put right. */
const sizeNames: Record<string, string> = {
  heightM: 'height',
  crownRadiusM: 'crown’s radius',
  clearStemM: 'clear stem',
  widthM: 'width',
}

function changedKeys(a: Readonly<Record<string, unknown>>, b: Readonly<Record<string, unknown>>): string[] {
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].filter(
    (key) => !isDeepStrictEqual(a[key], b[key]),
  )
}

function partDiffers(now: FeatureView, seen: FeatureView): string[] {
  const [is, was] = [entriesOf(now), entriesOf(seen)]
  const rest = ({ properties: { events: _, ...p } }: FeatureView) => p as Record<string, unknown>
  const [here, before] = [rest(now), rest(seen)]
  const changed = changedKeys(here, before)
  return told(
    now.name !== seen.name && `It is called ${now.name} now.`,
    !isDeepStrictEqual(now.geometry, seen.geometry) && 'It is drawn otherwise.',
    now.from !== seen.from &&
      (now.from ? `It stands since ${dayMonthYear(now.from)}.` : 'It has no first day any more.'),
    now.to !== seen.to && (now.to ? `It is gone from ${dayMonthYear(now.to)}.` : 'It is still there.'),
    ...without(is, was).map((e) => `It was ${entryWords(e)} on ${dayMonthYear(e.date)}.`),
    ...without(was, is).map((e) => `That it was ${entryWords(e)} on ${dayMonthYear(e.date)} was taken back.`),
    ...changed
      .filter((key) => sizeNames[key])
      .map(
        (key) =>
          `Its ${sizeNames[key]} is ${String(here[key] ?? 'unsaid')} m; you saw ${String(before[key] ?? 'none')}.`,
      ),
    changed.some((key) => !sizeNames[key]) && 'More that the plan says of it was put right.',
  )
}

export const partStanding = (id: string, now: FeatureView | undefined): Standing<FeatureView> =>
  one(`feature ${id}`, now, partDiffers)

export const pictureStanding = (id: string, now: PictureView | undefined): Standing<PictureView> =>
  one(`picture ${id}`, now, (is, was) =>
    told(
      is.name !== was.name && `The picture is called ${is.name} now.`,
      !isDeepStrictEqual(is.laying, was.laying) &&
        (is.laying ? 'The picture is laid otherwise.' : 'The picture is not laid any more.'),
      is.isShown !== was.isShown && (is.isShown ? 'The picture is shown.' : 'The picture is hidden.'),
      is.strength !== was.strength && `It shows at ${Math.round(is.strength * 100)}\u00a0%.`,
    ),
  )

type JobSaid = Pick<JobView, 'state' | 'pinnedOn'>

const stateWords: Record<JobView['state'], string> = {
  open: 'It is open again.',
  done: 'It is done.',
  dropped: 'It was left out.',
}

export const jobStanding = (id: string, job: JobSaid | undefined): Standing<JobSaid> =>
  one(`job ${id}`, job && { state: job.state, pinnedOn: job.pinnedOn }, (now, seen) =>
    told(
      now.state !== seen.state && stateWords[now.state],
      now.state === 'open' &&
        now.pinnedOn !== seen.pinnedOn &&
        (now.pinnedOn ? `It is pinned to ${dayMonthYear(now.pinnedOn)}.` : 'It is pinned to no day.'),
    ),
  )

const WEEK = [1, 2, 3, 4, 5, 6, 0]
const DAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']

const weekWords = (minutes: readonly number[]): string =>
  listed(WEEK.filter((d) => minutes[d]! > 0).map((d) => `${DAYS[d]} ${counted(minutes[d]!, 'minute')}`)) ||
  'no day'

export const memberStanding = (id: string, person: CrewPersonView | undefined): Standing<CrewPersonView> =>
  one(`crew person ${id}`, person, (now, seen) =>
    told(
      now.name !== seen.name && `${seen.name} is called ${now.name} now.`,
      !isDeepStrictEqual(now.skills, seen.skills) && `Can do: ${listed(now.skills) || 'ordinary work'}.`,
      !isDeepStrictEqual(now.minutesByWeekday, seen.minutesByWeekday) &&
        `Works ${weekWords(now.minutesByWeekday)}.`,
    ),
  )

type CrewSaid = SeenOf<typeof crewEndpoints.name>

export const crewStanding = (gardenId: string, crew: CrewSaid): Standing<CrewSaid> =>
  one(`crew of ${gardenId}`, crew, (now, seen) =>
    told(
      now.name !== seen.name && `The crew is called ${now.name} now.`,
      now.travelMinutes !== seen.travelMinutes &&
        `The way here and back takes ${counted(now.travelMinutes, 'minute')}.`,
    ),
  )

/** Whose crew works a garden. @param name of that crew */
export const sharingStanding = (
  gardenId: string,
  crewId: string,
  name: string,
): Standing<{ crewId: string }> =>
  one(`sharing of ${gardenId}`, { crewId }, () => [`The garden is worked by the crew “${name}” now.`])

type DaySaid = SeenOf<typeof crewEndpoints.setDay>

export const dayStanding = (crewId: string, on: string, said: DaySaid): Standing<DaySaid> =>
  one(`day ${on} of ${crewId}`, said, ({ minutes }) => [
    minutes === null
      ? `${dayMonthYear(on)} is a day like any other again.`
      : minutes === 0
        ? `${dayMonthYear(on)} is a day without work.`
        : `On ${dayMonthYear(on)} each works ${counted(minutes, 'minute')}.`,
  ])

type WordsSaid = SeenOf<typeof verdictEndpoints.decide>

/**
 * The words on plantings.
 *
 * @param decisions of the garden, newest first
 */
export function wordsStanding(
  plantingIds: readonly string[],
  decisions: readonly DecisionView[],
  tagOf: (plantingId: string) => string,
): Standing<WordsSaid> {
  const latest = new Map([...decisions].reverse().map((d) => [d.plantingId, d]))
  const nameOf = (id: string) => `word on ${id}`
  const wordOn = (id: string) => {
    const d = latest.get(id)
    if (!d) return `Nothing is decided of ${tagOf(id)}.`
    const word = d.choice === 'wait' ? `is left until ${dayMonthYear(d.waitUntil!)}` : `decided: ${d.action}`
    return `${tagOf(id)} ${word}, by ${d.decidedBy}.`
  }
  return {
    names: plantingIds.map(nameOf),
    as: plantingIds.map((plantingId) => ({ plantingId, decisionId: latest.get(plantingId)?.id ?? null })),
    differs: (seen) => {
      const before = new Map(seen.map((s) => [s.plantingId, s.decisionId]))
      const otherwise = plantingIds.filter((id) => (before.get(id) ?? null) !== (latest.get(id)?.id ?? null))
      return { names: otherwise.map(nameOf), says: otherwise.map(wordOn) }
    },
  }
}

type SuccessorSaid = SeenOf<typeof verdictEndpoints.saySuccessor>

export const successorStanding = (subjectId: string, word: SuccessorSaid['word']): Standing<SuccessorSaid> =>
  one(`successor of ${subjectId}`, { word }, (now) => [
    now.word === null
      ? 'What was said of a successor was taken back.'
      : now.word.state === 'planned'
        ? `${now.word.botanical} is to be planted.`
        : 'No successor is wanted.',
  ])

type TrialSaid = SeenOf<typeof recordEndpoints.judgeTrial>

export const trialStanding = (plantingId: string, outcome: TrialSaid['outcome']): Standing<TrialSaid> =>
  one(`trial of ${plantingId}`, { outcome }, (now) => [
    now.outcome
      ? `${outcomeWords(now.outcome)} Said by ${now.outcome.by} on ${dayMonthYear(now.outcome.on)}.`
      : 'What was said of the trial was taken back.',
  ])

export function plantingStanding(
  id: string,
  planting: PlantingView | undefined,
  placeName: (placeId: string) => string,
): Standing<PlantingSeen> {
  const said = planting && plantingSeen(planting)
  return one(`planting ${id}`, said, (now, seen) =>
    told(
      now.tag !== seen.tag && `Its tag is ${now.tag} now.`,
      now.botanical !== seen.botanical && `It is ${now.botanical}.`,
      (now.placeId !== seen.placeId || now.x !== seen.x || now.y !== seen.y) &&
        `It stands ${now.placeId === seen.placeId ? 'elsewhere in' : 'in'} ${placeName(now.placeId)}.`,
      now.plantedCount !== seen.plantedCount && `${now.plantedCount} were planted.`,
      (now.plantedOn !== seen.plantedOn || now.plantedKnown !== seen.plantedKnown) &&
        `It was planted ${plantedWords(now)}.`,
      (now.source !== seen.source || now.role !== seen.role) &&
        `It is ${now.source}${now.role ? `, as ${now.role}` : ''}.`,
      now.colourWish !== seen.colourWish &&
        (now.colourWish
          ? `Its flowers are wished ${now.colourWish}.`
          : 'No colour is wished of its flowers.'),
    ),
  )
}

type GardenSaid = Pick<GardenSummary, 'name' | 'latitude' | 'longitude' | 'timeZone' | 'northDeg'>

export const gardenStanding = (
  id: string,
  { name, latitude, longitude, timeZone, northDeg }: GardenSaid,
): Standing<GardenSaid> =>
  one(`garden ${id}`, { name, latitude, longitude, timeZone, northDeg }, (now, seen) =>
    told(
      now.name !== seen.name && `The garden is called ${now.name} now.`,
      (now.latitude !== seen.latitude || now.longitude !== seen.longitude) &&
        `It lies at ${now.latitude}, ${now.longitude}.`,
      now.timeZone !== seen.timeZone && `Its time zone is ${now.timeZone}.`,
      now.northDeg !== seen.northDeg && `North lies at ${now.northDeg}° on its plan.`,
    ),
  )

type RuleSaid = SeenOf<typeof ruleEndpoints.change>

const adjustedWords = ({
  shiftDays,
  everyDays,
  monthDays,
  everySeasons,
  labour,
}: NonNullable<RuleSaid['adjusted']>) =>
  listed(
    told(
      shiftDays && `${counted(Math.abs(shiftDays), 'day')} ${shiftDays < 0 ? 'earlier' : 'later'}`,
      everyDays && `every ${counted(everyDays, 'day')}`,
      monthDays && `on ${monthDaysWords(monthDays)}`,
      everySeasons && `every ${counted(everySeasons, 'season')}`,
      labour !== undefined && labour !== 1 && `${labour} times the time`,
    ),
  )

export const ruleStanding = (gardenId: string, id: string, rule: RuleSaid): Standing<RuleSaid> =>
  one(`rule ${id} of ${gardenId}`, rule, (now, seen) =>
    told(
      now.isOn !== seen.isOn && (now.isOn ? 'It is in force again.' : 'It is out of force.'),
      !isDeepStrictEqual(now.adjusted, seen.adjusted) &&
        (now.adjusted && adjustedWords(now.adjusted)
          ? `It is adjusted: ${adjustedWords(now.adjusted)}.`
          : 'It is as it ships again.'),
    ),
  )

type OwnRuleSaid = SeenOf<typeof ruleEndpoints.saveOwn>

export const ownRuleStanding = (
  gardenId: string,
  id: string,
  rule: OwnRuleSaid | undefined,
): Standing<OwnRuleSaid> =>
  one(`own rule ${id} of ${gardenId}`, rule, (now, seen) =>
    told(
      now.does !== seen.does && `It says “${now.does}” now.`,
      now.does === seen.does && 'Its window, its time or its steps were put otherwise.',
    ),
  )

export const schoolStanding = (
  gardenId: string,
  school: SchoolId,
  choice: string,
): Standing<{ choice: string }> =>
  one(`school ${school} of ${gardenId}`, { choice }, (now) => [
    `Followed: ${schoolOf(school).choices.find((c) => c.id === now.choice)?.does ?? now.choice}.`,
  ])

/** `spreadM` is `spread`. */
const traitWords = (trait: string): string =>
  trait
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .replace(/ (m|cm|c|deg)$/, '')

export const taxonStanding = (
  practiceId: string,
  botanical: string,
  taxon: KnownTaxon | undefined,
): Standing<KnownTaxon> =>
  one(`taxon ${botanical.toLowerCase()} of ${practiceId}`, taxon, (now, seen) => {
    const changed = changedKeys({ ...now }, { ...seen }).filter((trait) => trait !== 'own')
    return told(
      now.own !== seen.own &&
        (now.own === null ? 'It is as the library has it again.' : 'It is one of your practice’s own now.'),
      changed.length > 0 && `Put otherwise: ${listed(changed.map(traitWords))}.`,
    )
  })

/** A scheme is seen by what was last said of it. */
export const schemeStanding = (
  schemeId: string,
  scheme: { revisionId: string; said: SaidScheme } | undefined,
): Standing<{ revisionId: string }> =>
  one(`scheme ${schemeId}`, scheme && { revisionId: scheme.revisionId }, () => [
    `${scheme!.said.name} was changed: it has ${counted(scheme!.said.drifts.length, 'drift')} now.`,
  ])

type KnownSaid = SeenOf<typeof climateEndpoints.sayKnown>

/** Of a day of every year: a leap year has all of them. */
const dayOfYear = (monthDay: string) => dayMonth(`2024-${monthDay}`)

export const knownStanding = (gardenId: string, known: KnownSaid['known']): Standing<KnownSaid> =>
  one(`climate of ${gardenId}`, { known }, (now) =>
    told(
      now.known?.lastFrost && `Last frost of spring: ${dayOfYear(now.known.lastFrost)}.`,
      now.known?.firstFrost && `First frost of autumn: ${dayOfYear(now.known.firstFrost)}.`,
      now.known?.coldestC !== undefined && `Coldest: ${now.known.coldestC} °C.`,
      !now.known && 'What was said of the climate was taken back.',
    ),
  )

export const shareStanding = (
  practiceId: string,
  sign: SignId,
  cause: SignCause,
  share: number,
): Standing<{ share: number }> =>
  one(`share of ${sign} under ${cause} in ${practiceId}`, { share }, (now, seen) => [
    `${signWords(sign)} speaks for it ${Math.round(100 * now.share)} times in 100; you saw ${Math.round(100 * seen.share)}.`,
  ])
