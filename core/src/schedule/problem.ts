import type { Operation, Skill } from '../care/index.ts'
import type { WeatherNeed } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'

/** Chance that a day does not suit a kind of work, 0 to 1, by need and day; a day that is absent counts as suiting. */
export type UnsuitableDays = Readonly<Partial<Record<WeatherNeed, Readonly<Record<IsoDate, number>>>>>

/** A garden as the plan sees it: how far, and under what weather. */
export interface ScheduledGarden {
  id: string
  /** Minutes that each visit takes out of the day of everyone who goes, there and back. */
  travelMinutes: number
  /** Weather of this garden, where it differs from the problem's. */
  unsuitable?: UnsuitableDays | undefined
}

/** People at work on a day, in one garden or in any. */
export interface Shift {
  id: string
  day: IsoDate
  /** Gardens that can be worked in; absent: any. */
  gardenIds?: readonly string[] | undefined
  people: readonly { id: string; minutes: number; skills: readonly Skill[] }[]
}

/** What must lie between a job and one that comes before it, in days from the day of the first. */
export interface Precedence {
  id: string
  leastDays: number
  mostDays?: number | null | undefined
}

/** A job to be given a day: its window, its minutes, what it waits for, and what leaving it out costs. */
export interface ScheduleJob {
  id: string
  /** What it is, by names and dates alone; ties are broken by it. Its id where that is a name already. */
  identity?: string | undefined
  gardenId: string
  operation: Operation
  window: { earliest: IsoDate; bestFrom: IsoDate; bestTo: IsoDate; latest: IsoDate }
  /** Person-minutes. */
  minutes: number
  weather: WeatherNeed
  skill?: Skill | null | undefined
  /** People who must be there together. */
  hands?: number | undefined
  after: readonly Precedence[]
  /** A day set by a person, in the window or not: that of the first part, else the job has none. */
  pinnedTo?: IsoDate | null | undefined
  /** Days its parts had in the plan before. */
  keptOn?: readonly IsoDate[] | undefined
  /** Already done on this day: takes no room, but others follow it. */
  doneOn?: IsoDate | null | undefined
  /** How much losing it matters, times the usual of its operation. */
  worth?: number | undefined
  /** When its next window opens, where it is missed. */
  nextChance?: IsoDate | null | undefined
}

/** A season to be planned. Costs are in minutes. */
export interface ScheduleProblem {
  gardens: readonly ScheduledGarden[]
  shifts: readonly Shift[]
  jobs: readonly ScheduleJob[]
  /** From the forecast as far as it reaches, from what is usual beyond. */
  unsuitable: UnsuitableDays
}

/** What things cost in a plan, in whole units. One table for the search, its oracle and "why here". */
export const scheduleCosts = {
  /** Each garden visited on a day. */
  visit: 60,
  /** A part on another day than in the plan before. */
  moved: 45,
  /** A day that surely does not suit. */
  badWeather: 260,
  /** A part of a job away from the best weeks costs its share of the operation's rate a day. */
  rate: {
    divide: 12,
    move: 16,
    plant: 14,
    prune: 9,
    'cut back': 8,
    deadhead: 8,
    swap: 14,
    lift: 24,
    protect: 22,
    'bring in': 40,
    stake: 12,
    'tie in': 5,
    feed: 6,
    mulch: 4,
    soil: 4,
    weed: 5,
    'refresh mix': 6,
    'pot on': 8,
    upkeep: 2,
    prepare: 5,
    remove: 4,
    aftercare: 24,
    propagate: 8,
  } satisfies Record<Operation, number> as Record<Operation, number>,
  /** Not done in its window at all. */
  unplaced: {
    divide: 2200,
    move: 4000,
    plant: 3200,
    prune: 2600,
    'cut back': 2000,
    deadhead: 700,
    swap: 3000,
    lift: 5000,
    protect: 4200,
    'bring in': 7000,
    stake: 1500,
    'tie in': 1000,
    feed: 900,
    mulch: 1200,
    soil: 900,
    weed: 900,
    'refresh mix': 1300,
    'pot on': 1600,
    upkeep: 600,
    prepare: 4000,
    remove: 1200,
    aftercare: 3000,
    propagate: 800,
  } satisfies Record<Operation, number> as Record<Operation, number>,
} as const

/** A job longer than this, in minutes, is done in parts of at most so much. */
export const MOST_PART_MINUTES = 180
/** Parts of a job lie at most so many days apart. */
export const MOST_DAYS_BETWEEN_PARTS = 10
