import { gardenLight, judgeGarden } from '@border/core'
import type { ComputeTasks } from './assess.ts'

/** What runs on the compute threads, by name. */
export const light = (task: ComputeTasks['light']) => gardenLight(task.garden, task.then, task.on)
export const judge = (task: ComputeTasks['judge']) => judgeGarden(task.garden, task.light, task.on)
