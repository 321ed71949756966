import type { Climate } from '../climate/index.ts'
import {
  careRules,
  moveWindows,
  openFrom,
  windowAtOnce,
  windowsOf,
  yearsAbout,
  isFor,
  type CareRule,
  type Window,
} from '../care/index.ts'
import { addDays, type IsoDate } from '../dates/index.ts'
import { causeWords, isSiteCause, type SignId } from '../diagnosis/index.ts'
import type { Taxon } from '../plants/index.ts'
import { dayMonth } from '../words/index.ts'
import type { Action } from './actions.ts'
import type { Remedy, RemedyTime, Wording } from './remedy.ts'
import { daysOfGrowthLeft, holds, type Opening, type Situation } from './situation.ts'
import { remedies } from './table/index.ts'

/** A remedy as it is for one planting: what is done, when, and what it costs to wait. */
export interface OfferedRemedy {
  id: string
  action: Action
  points: number
  /** The signs that ask for it. */
  signs: SignId[]
  says: string
  does: string
  steps: string[]
  waiting: string
  /** When it is done; null where nothing is done, or no climate is known to tell by. */
  window: Window | null
  /** What is worked on where that is not the planting: the name of a tree. */
  subject: string | null
}

/** Remedies that could be done were it not for the year here, with why not. */
export interface NoRemedy {
  id: string
  action: Action
  why: string
}

/** Under so many days of growth, what has been eaten does not come again this season. */
const REGROWS_IN_DAYS = 42

/** What the signs of a planting ask for, strongest first, and what they ask for that has no window here. */
export function remediesFor(situation: Situation): { offered: OfferedRemedy[]; none: NoRemedy[] } {
  const offered: OfferedRemedy[] = []
  const none: NoRemedy[] = []
  for (const remedy of remedies.filter((r) => holds(r.when, situation))) {
    const time = remedy.work?.time ?? remedy.time
    const found =
      time && situation.climate !== undefined ? windowFor(time, situation, situation.climate) : null
    if (found && !found.ok) none.push({ id: remedy.id, action: remedy.action, why: found.why })
    else
      offered.push({
        id: remedy.id,
        action: remedy.action,
        points: pointsOf(remedy, situation),
        signs: situation.signs.filter((sign) => remedy.when.signs?.includes(sign)),
        says: saysOf(remedy, situation),
        does: worded(remedy.does, situation),
        steps: [...remedy.steps],
        waiting: remedy.waiting,
        window: found ? found.window : null,
        subject: remedy.when.opens ? situation.opening!.tree : null,
      })
  }
  return { offered: offered.sort((a, b) => b.points - a.points), none }
}

const worded = (wording: Wording, { opening }: Situation): string =>
  typeof wording === 'string' ? wording : wording.ofOpening(opening!)

/** So many points more for the answer to what is believed for certain, and fewer for that to what is not the matter: judgements. */
const FOR_LIKELY = 14
const FOR_UNLIKELY = -14
/** A cause believed by less decides nothing between remedies. */
const TELLING_SHARE = 0.3

/** What a cut to a tree is worth by what it does: for each hour that is lacking, each planting set right, and each spoilt. Judgements. */
const OPENED = { perHour: 18, mostHours: 2.5, perRight: 8, perSpoilt: -6, mostOthers: 3 }

function openedPoints({ hours, gainHours, alsoRight, spoilt }: Opening, { lightMinHours }: Taxon): number {
  const lacking = Math.max(0, lightMinHours - (hours - gainHours))
  return Math.round(
    OPENED.perHour * Math.min(OPENED.mostHours, lacking) +
      OPENED.perRight * Math.min(OPENED.mostOthers, alsoRight) +
      OPENED.perSpoilt * Math.min(OPENED.mostOthers, spoilt),
  )
}

/** A remedy's points by what it would do, and by how likely it is that what it answers is the matter. */
function pointsOf({ points, answers, when }: Remedy, { likely, opening, taxon }: Situation): number {
  if (when.opens && opening) return points + openedPoints(opening, taxon)
  if (!answers || !likely || likely.share < TELLING_SHARE) return points
  return points + Math.round((answers.includes(likely.cause) ? FOR_LIKELY : FOR_UNLIKELY) * likely.share)
}

const REGROWING = 'regrows-caterpillars'

/** How much season is left is worked out, not assumed; and what is only suspected of the ground is said to be. */
function saysOf({ id, says, when, answers }: Remedy, situation: Situation): string {
  const words = [worded(says, situation)]
  if (when.ground && situation.isGroundSuspected)
    words.push('So the signs of what grows there say; nobody has measured it.')
  if (situation.likely && answers?.includes(situation.likely.cause))
    words.push(
      `${isSiteCause(situation.likely.cause) ? 'Its signs and its neighbours’' : 'Its signs'} point to ${causeWords[situation.likely.cause]}.`,
    )
  if (id === REGROWING) {
    const days = daysOfGrowthLeft(situation)
    words.push(
      days >= REGROWS_IN_DAYS
        ? `Some ${Math.round(days / 7)} weeks of growth are left this season.`
        : 'This season is nearly over: it comes again next spring.',
    )
  }
  return words.join(' ')
}

const NO_CLIMATE = 'This garden has no climate record yet, so no window can be worked out. Add one in Set-up.'

type Found = { ok: true; window: Window } | { ok: false; why: string }

/** The next time at which a remedy can be done. */
export function windowFor(
  time: RemedyTime,
  { taxon, on, year }: Pick<Situation, 'taxon' | 'on' | 'year'>,
  climate: Climate | null,
): Found {
  if ('withinDays' in time) return { ok: true, window: soon(on, time) }
  if (!climate) return { ok: false, why: NO_CLIMATE }
  if ('as' in time && time.as === 'a move') {
    const found = moveWindows(taxon, climate, on, year.lateDays)
    if (found.ok) return { ok: true, window: openFrom(found.windows[0]!, on) }
    return { ok: false, why: found.reason === 'no-window' ? found.why : 'It resents being lifted.' }
  }
  const years = yearsAbout(climate, on, year.lateDays)
  const from = rulesOf(time).filter((r) => isFor(r.applies, { taxon, climate, place: 'bed', signs: [] }))
  const found = from.map((r) => windowsOf(r, years, taxon, on))
  const [first] = found.flatMap((f) => f.windows).sort((a, b) => (a.earliest < b.earliest ? -1 : 1))
  if (first && 'openDays' in time && first.earliest > addDays(on, time.openDays))
    return {
      ok: false,
      why: `Its time this season is over; it comes again about ${dayMonth(first.earliest)}.`,
    }
  if (first) return { ok: true, window: openFrom(first, on) }
  const [why] = found.flatMap((f) => f.none)
  return { ok: false, why: `The usual year here has no time for it${why ? `: ${why}` : ''}.` }
}

/** Times of the year as rules that windows are worked out of. */
function rulesOf(
  time: Exclude<RemedyTime, { withinDays: number }>,
): readonly Pick<CareRule, 'windows' | 'applies'>[] {
  if ('windows' in time) return [{ windows: time.windows, applies: {} }]
  if ('rules' in time) return careRules.filter((r) => time.rules.includes(r.id))
  return careRules.filter((r) => r.operation === 'divide')
}

const soon = (on: IsoDate, { withinDays, because }: { withinDays: number; because: string }): Window =>
  windowAtOnce(
    on,
    { best: Math.ceil(withinDays / 2), open: withinDays },
    { earliest: 'it is decided now', bestFrom: because, bestTo: because, latest: because },
  )
