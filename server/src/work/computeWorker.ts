import {
  comingChanges,
  diagnose as diagnosePlantings,
  explainReadings,
  gardenLight,
  judgeGarden,
  scenarioEffects,
  tellingLooks,
  trialEffects,
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
export const record = (task: ComputeTasks['record']) => recordResult(task)
export const bloom = (task: ComputeTasks['bloom']) => bloomResult(task)
export const diagnose = ({ plantings, table, year }: ComputeTasks['diagnose']) =>
  diagnosePlantings(plantings, table, year)
