import type { WorkingPattern } from '@border/core'
import type { Db } from '../database/connect.ts'

export async function findWorkingPattern(db: Db, gardenId: string): Promise<WorkingPattern> {
  const week = await db('working_weeks')
    .where({ garden_id: gardenId })
    .select<{ weekday: number; minutes: number }[]>('weekday', 'minutes')
  const exceptions = await db('working_exceptions')
    .where({ garden_id: gardenId })
    .select<{ day: string; minutes: number }[]>('day', 'minutes')
  return {
    minutesByWeekday: Array.from({ length: 7 }, (_, d) => week.find((w) => w.weekday === d)?.minutes ?? 0),
    exceptions: Object.fromEntries(exceptions.map((e) => [e.day, e.minutes])),
  }
}

export async function setWorkingWeek(
  db: Db,
  gardenId: string,
  minutesByWeekday: readonly number[],
): Promise<void> {
  const rows = minutesByWeekday.map((minutes, weekday) => ({ garden_id: gardenId, weekday, minutes }))
  await db('working_weeks').insert(rows).onConflict(['garden_id', 'weekday']).merge(['minutes'])
}

export async function setWorkingException(
  db: Db,
  gardenId: string,
  day: string,
  minutes: number,
): Promise<void> {
  await db('working_exceptions')
    .insert({ garden_id: gardenId, day, minutes })
    .onConflict(['garden_id', 'day'])
    .merge(['minutes'])
}
