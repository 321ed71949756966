import {
  careJobs,
  comingChanges,
  diagnose as diagnosePlantings,
  explainReadings,
  gardenLight,
  judgeGarden,
  planJobs,
  planSteps,
  scenarioEffects,
  tellingLooks,
  trialEffects,
  whyHere,
  type SeasonPlan,
} from '@border/core'
import type { ComputeTasks } from './assess.ts'
import type { ExplainedTask } from './light.ts'
import { bloomResult, recordResult } from './recordTasks.ts'

/** What runs on the compute threads, by name. */
export const light = (task: ComputeTasks['light']) => gardenLight(task.garden, task.then, task.on)
export const judge = (task: ComputeTasks['judge']) => judgeGarden(task.garden, task.light, task.on)
export const scenarios = (task: ComputeTasks['scenarios']) =>
  scenarioEffects(task.garden, task.trials, task.on)
export const ahead = ({ garden, on, years, ailing }: ComputeTasks['ahead']) => ({
  coming: comingChanges(garden, on, years),
  waiting: ailing.map((obstructionId) => ({
    obstructionId,
    effects: trialEffects(garden, [{ obstructionId, gone: true }], on),
  })),
})
export function explain(task: ComputeTasks['explain']): ExplainedTask {
  const explained = explainReadings(task.scene, task.readings)
  return {
    explanations: explained.explanations.slice(0, task.shown),
    used: explained.used,
    unusable: explained.unusable,
    telling: tellingLooks(task.scene, explained, task.looks, task.most),
  }
}
export const plan = ({ problem, rounds }: ComputeTasks['plan']) =>
  planJobs(problem, { seed: 1, iterations: rounds })
export const why = ({ problem, placed, jobId }: ComputeTasks['why']) => whyHere(problem, { placed }, jobId)
/** A season's plan with its progress told on the way. */
export function planTelling({ problem, port }: ComputeTasks['planTelling']): SeasonPlan {
  const steps = planSteps(problem)
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (step.value.done % TELL_EVERY === 0) port.postMessage(step.value)
  }
}
const TELL_EVERY = 2000
export const care = ({ garden, on, until }: ComputeTasks['care']) => careJobs(garden, on, until)
export const record = (task: ComputeTasks['record']) => recordResult(task)
export const bloom = (task: ComputeTasks['bloom']) => bloomResult(task)
export const diagnose = ({ plantings, table, year }: ComputeTasks['diagnose']) =>
  diagnosePlantings(plantings, table, year)
