export {
  DEFAULT_SEARCH,
  scheduleJobs,
  seasonRounds,
  scheduleSteps,
  RESCHEDULE_ROUNDS,
  type MovedJob,
  type PlacedJob,
  type PlacedPart,
  type ScheduleCost,
  type Schedule,
  type UnplacedJob,
} from './schedule.ts'
export { weatherNeedOf } from './needs.ts'
export * from './problem.ts'
export { whyHere, type DayChoice, type WhyHere } from './whyHere.ts'
export { workingDays, type Crew, type CrewAbsence, type CrewPerson, type WorkingDay } from './crew.ts'
