export {
  placeJobs,
  type DayPlan,
  type Placement,
  type SchedulableJob,
  type Unplaced,
  type WorkingDay,
} from './firstGoodDay.ts'
export { workingDays, type WorkingPattern } from './workingDays.ts'
