import type { GardenSummary, JobView } from '@border/contract'
import { addDays, dayMonth, listed } from '@border/core'
import ical, { ICalAlarmType, ICalEventStatus } from 'ical-generator'

const ALARM_BEFORE_S = 6 * 3600

/** iCalendar of the jobs that have a day: all-day events whose identity outlives re-planning. */
export function seasonCalendar(
  garden: Pick<GardenSummary, 'name'>,
  jobs: readonly (JobView & { revision: number })[],
  { alarms = false } = {},
): string {
  const calendar = ical({
    name: `${garden.name}: garden work`,
    prodId: { company: 'Seasoned Border', product: 'Season' },
  })
  for (const job of jobs) {
    const day = job.done?.on ?? job.plannedOn
    if (!day) continue
    const event = calendar.createEvent({
      id: `${job.id}@seasoned-border`,
      sequence: job.revision,
      // Floating all-day dates: a day in the garden, whatever zone the reader is in.
      start: new Date(`${day}T00:00:00Z`),
      end: new Date(`${addDays(day, 1)}T00:00:00Z`),
      allDay: true,
      stamp: new Date(`${day}T00:00:00Z`),
      timezone: 'UTC',
      summary: job.done ? `Done: ${job.title}` : job.title,
      location: garden.name,
      status: ICalEventStatus.CONFIRMED,
      description: describe(job),
    })
    // The evening before: six hours ahead of the day.
    if (alarms && !job.done)
      event.createAlarm({
        type: ICalAlarmType.display,
        triggerBefore: ALARM_BEFORE_S,
        description: job.title,
      })
  }
  return calendar.toString()
}

function describe(job: JobView): string {
  const { window: w } = job
  const parts = [
    ...job.cautions.map((c) => `Caution: ${c}`),
    `Window ${dayMonth(w.earliest)} to ${dayMonth(w.latest)}, best ${dayMonth(w.bestFrom)} to ${dayMonth(w.bestTo)}.`,
    w.why.bestFrom,
    w.why.latest,
    `About ${job.minutes} minutes.${job.tags.length > 0 ? ` ${job.tags.length === 1 ? 'Tag' : 'Tags'} ${listed(job.tags)}.` : ''}`,
    ...job.materials.map((m) => `${m.amount} ${m.unit} ${m.name}`),
    ...job.steps,
  ]
  return parts.join('\n')
}
