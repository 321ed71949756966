import {
  absenceOf,
  careJobs,
  comingChanges,
  diagnose as diagnosePlantings,
  explainReadings,
  freeSpots,
  judgeGarden,
  judgePots,
  lightAtPots,
  lieOf,
  openings as openingsOf,
  placesLight,
  scheduleJobs,
  scheduleSteps,
  plantingsLight,
  whatIfEffects,
  tellingOfDays,
  lightEffects,
  whyHere,
  type IsoDate,
  type PlacesLight,
  type Schedule,
  type StandingGarden,
} from '@border/core'
import { constants, setPriority } from 'node:os'
import { workerData } from 'node:worker_threads'
import type { ComputeTasks, ExplainedTask, ThreadOptions } from './computeTasks.ts'
import { bloomResult, recordResult } from './recordTasks.ts'
import { failingOnes } from './successionTasks.ts'

// What runs on the compute threads, by name.

// Linux ranks each thread by itself; elsewhere this would be the whole process.
if ((workerData as ThreadOptions | null)?.inBackground && process.platform === 'linux')
  setPriority(constants.priority.PRIORITY_BELOW_NORMAL)

export const light = ({ garden, then, on }: ComputeTasks['light']) =>
  plantingsLight(garden, placesLightOf(garden, then, on))

/** Places whose light this thread has worked out last: what is planted or moved in them changes nothing of it. */
const litPlaces = new Map<string, PlacesLight>()
const MOST_HELD = 4

function placesLightOf(garden: StandingGarden, then: IsoDate, on: IsoDate): PlacesLight {
  const key = JSON.stringify([garden.scene, garden.places, then, on])
  const found = litPlaces.get(key) ?? placesLight(garden, then, on)
  litPlaces.delete(key)
  litPlaces.set(key, found)
  // The one asked for longest ago goes first: a map remembers the order its keys came in.
  if (litPlaces.size > MOST_HELD) litPlaces.delete(litPlaces.keys().next().value!)
  return found
}
export const spots = ({ garden, light, on }: ComputeTasks['spots']) => freeSpots(garden, light, on)
export const openings = ({ garden, light, on }: ComputeTasks['openings']) => openingsOf(garden, light, on)
export const judge = (task: ComputeTasks['judge']) =>
  judgeGarden(task.garden, task.light, task.spots, task.openings, task.on)
export const potLight = ({ scene, pots, on }: ComputeTasks['potLight']) => lightAtPots(scene, pots, on)
export const containers = ({ pots, light, about }: ComputeTasks['containers']) =>
  judgePots(pots, light, about)
export const absence = ({ pots, light, about, away }: ComputeTasks['absence']) =>
  absenceOf(pots, light, about, away)
export const lie = ({ laying }: ComputeTasks['lie']) => lieOf(laying)
export const whatIfs = (task: ComputeTasks['whatIfs']) =>
  whatIfEffects(task.garden, task.suppositions, task.on)
export const ahead = ({ garden, on, years, ailing }: ComputeTasks['ahead']) => ({
  coming: comingChanges(garden, on, years),
  waiting: ailing.map((obstructionId) => ({
    obstructionId,
    effects: lightEffects(garden, [{ obstructionId, gone: true }], on),
  })),
})
export function explain(task: ComputeTasks['explain']): ExplainedTask {
  const explained = explainReadings(task.scene, task.readings)
  return {
    explanations: explained.explanations.slice(0, task.shown),
    used: explained.used,
    unusable: explained.unusable,
    telling: tellingOfDays(task.scene, explained, task.days, task.most),
  }
}
export const schedule = ({ problem, rounds }: ComputeTasks['schedule']) =>
  scheduleJobs(problem, { seed: 1, iterations: rounds })
export const why = ({ problem, placed, jobId }: ComputeTasks['why']) => whyHere(problem, { placed }, jobId)
/** A season's plan with its progress told on the way. */
export function scheduleTelling({ problem, port }: ComputeTasks['scheduleTelling']): Schedule {
  const steps = scheduleSteps(problem)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (step.value.done % TELL_EVERY === 0) port.postMessage(step.value)
  }
}
const TELL_EVERY = 2000
export const care = ({ garden, on, until }: ComputeTasks['care']) => careJobs(garden, on, until)
export const successions = (task: ComputeTasks['successions']) => failingOnes(task)
export const record = (task: ComputeTasks['record']) => recordResult(task)
export const bloom = (task: ComputeTasks['bloom']) => bloomResult(task)
export const diagnose = ({ plantings, table, year }: ComputeTasks['diagnose']) =>
  diagnosePlantings(plantings, table, year)
export {
  containersFile,
  logFile,
  observationsFile,
  planFile,
  plantingsFile,
  soilFile,
  taxaFile,
  weatherFile,
} from './fileTasks.ts'
export { schemePdf, schemePlanSvg, schemePlants, schemeViewSvg } from './paperTasks.ts'
export { line, potSpots } from './potTasks.ts'
export { palette, relocation, sites, tray, ways } from './reworkTasks.ts'
export { townsNamed } from './towns.ts'
