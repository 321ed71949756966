import type { JobView } from '@border/contract'
import { listed } from '@border/core'

/** One sitting of a job on a day: the whole of it, or a part. */
export interface Sitting {
  job: JobView
  minutes: number
}

/** What is done on a day, in order: what comes first, first; otherwise place by place as a walk goes. */
export function workOf(
  jobs: readonly JobView[],
  day: string,
  placeOrder: ReadonlyMap<string, number>,
): Sitting[] {
  const here = jobs.flatMap((job): Sitting[] => {
    if (job.state !== 'open') return []
    const part = job.parts.find((p) => p.day === day)
    return part ? [{ job, minutes: part.minutes }] : []
  })
  const place = (s: Sitting) => placeOrder.get(s.job.placeId ?? '') ?? placeOrder.size
  const waiting = [...here].sort((a, b) => place(a) - place(b) || (a.job.title < b.job.title ? -1 : 1))
  const ordered: Sitting[] = []
  while (waiting.length > 0) {
    const open = new Set(waiting.map((s) => s.job.id))
    const free = waiting.findIndex((s) => !s.job.after.some((id) => open.has(id)))
    ordered.push(...waiting.splice(Math.max(0, free), 1))
  }
  return ordered
}

/** The places of a job, in walking order: `Door pot 1, Door pot 2, Trough`. */
export const placesText = (
  placeIds: readonly string[],
  nameOf: (id: string, otherwise: string) => string,
): string => listed(placeIds.map((id) => nameOf(id, 'a place')))

/** Materials of a day, the same ones together; of a job in parts the share that falls on the day. */
export function materialsOf(sittings: readonly Sitting[]): { name: string; amount: number; unit: string }[] {
  const sums = new Map<string, { name: string; amount: number; unit: string }>()
  for (const { job, minutes } of sittings)
    for (const m of job.materials) {
      const key = `${m.name} ${m.unit}`
      const known = sums.get(key) ?? { ...m, amount: 0 }
      sums.set(key, { ...known, amount: known.amount + (m.amount * minutes) / job.minutes })
    }
  return [...sums.values()]
    .map((m) => ({ ...m, amount: m.unit === 'kg' ? Math.ceil(m.amount * 10) / 10 : Math.ceil(m.amount) }))
    .sort((a, b) => (a.name < b.name ? -1 : 1))
}
