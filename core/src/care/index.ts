export {
  moveWindows,
  gardenCalendar,
  type GardenCalendar,
  type MoveWindows,
  type Window,
} from './moveWindow.ts'
export {
  aftercareDays,
  aftercareWindow,
  moveJobs,
  rootBallM,
  type JobKind,
  type JobPlan,
  type Material,
  type MoveJobs,
  type MoveRequest,
} from './moveJobs.ts'
