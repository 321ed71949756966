import {
  DEFAULT_SEARCH,
  isIsoDate,
  operations,
  scheduleCosts,
  scheduleJobs,
  skills,
  weatherNeeds,
  whyHere,
  type IsoDate,
  type ScheduleProblem,
  type Schedule,
} from '@border/core'
import { z } from 'zod'
import { numberOption, optionsOf, readJson } from './files.ts'
import { BadInput, Misuse } from './say.ts'

const day = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
const name = z.string().min(1).max(200)
const minutes = z.number().int().min(0).max(100_000)

const unsuitable = z.partialRecord(z.enum(weatherNeeds), z.record(day, z.number().min(0).max(1)))

/** The file that `border schedule` reads: docs/formats.md. */
const seasonFile = z.strictObject({
  version: z.literal(1),
  gardens: z
    .array(z.strictObject({ id: name, travelMinutes: minutes.default(0), unsuitable: unsuitable.optional() }))
    .min(1),
  shifts: z.array(
    z.strictObject({
      id: name.optional(),
      day,
      gardenIds: z.array(name).optional(),
      people: z
        .array(z.strictObject({ id: name, minutes, skills: z.array(z.enum(skills)).default([]) }))
        .min(1),
    }),
  ),
  jobs: z.array(
    z.strictObject({
      id: name,
      gardenId: name,
      operation: z.enum(operations),
      earliest: day,
      bestFrom: day,
      bestTo: day,
      latest: day,
      minutes: minutes.min(1),
      weather: z.enum(weatherNeeds).default('none'),
      skill: z.enum(skills).nullish(),
      hands: z.number().int().min(1).max(50).default(1),
      after: z
        .array(
          z.strictObject({
            id: name,
            leastDays: z.number().int().min(0),
            mostDays: z.number().int().min(0).nullish(),
          }),
        )
        .default([]),
      pinnedTo: day.nullish(),
      keptOn: z.array(day).optional(),
      doneOn: day.nullish(),
      worth: z.number().min(0).max(100).optional(),
      nextChance: day.nullish(),
    }),
  ),
  unsuitable: unsuitable.default({}),
})

/** `border schedule FILE [--seed N] [--rounds N] [--json]` */
export function scheduleCommand(args: string[]): string {
  const { values, positionals } = optionsOf(args, {
    seed: { type: 'string' },
    rounds: { type: 'string' },
    json: { type: 'boolean' },
  })
  const [path, ...more] = positionals
  if (!path || more.length > 0) throw new Misuse('schedule takes one file')
  const problem = readSeason(path)
  const options = {
    seed: values.seed === undefined ? DEFAULT_SEARCH.seed : numberOption('seed', values.seed),
    iterations: values.rounds === undefined ? undefined : numberOption('rounds', values.rounds),
  }
  const plan = planned(path, problem, options)
  if (!values.json) return inWords(problem, plan)
  const why = Object.fromEntries(
    plan.placed.map(({ id }) => {
      const { chosen, runnerUp } = whyHere(problem, plan, id)
      return [id, { chosen, runnerUp }]
    }),
  )
  return JSON.stringify({ ...plan, why, costTable: scheduleCosts })
}

function planned(path: string, problem: ScheduleProblem, options: typeof DEFAULT_SEARCH): Schedule {
  try {
    return scheduleJobs(problem, options)
  } catch (error) {
    if (error instanceof RangeError) throw new BadInput([`${path}: ${error.message}`])
    throw error
  }
}

function readSeason(path: string): ScheduleProblem {
  const read = seasonFile.safeParse(readJson(path))
  if (!read.success)
    throw new BadInput(read.error.issues.map((i) => `${path}: ${i.path.join('.') || 'file'}: ${i.message}`))
  const { gardens, shifts, jobs, unsuitable } = read.data
  const problems: string[] = []
  const once = (what: string, ids: readonly string[]) => {
    const seen = new Set<string>()
    for (const id of ids) {
      if (seen.has(id)) problems.push(`${path}: ${what}: ${id} is there twice`)
      seen.add(id)
    }
    return seen
  }
  const gardenIds = once(
    'gardens',
    gardens.map((g) => g.id),
  )
  const named = shifts.map((s, i) => ({ ...s, id: s.id ?? `${s.day} ${i + 1}` }))
  once(
    'shifts',
    named.map((s) => s.id),
  )
  const jobIds = once(
    'jobs',
    jobs.map((j) => j.id),
  )
  for (const [i, j] of jobs.entries()) {
    const at = `${path}: jobs.${i} (${j.id})`
    if (!gardenIds.has(j.gardenId)) problems.push(`${at}: there is no garden ${j.gardenId}`)
    const dates: IsoDate[] = [j.earliest, j.bestFrom, j.bestTo, j.latest]
    if ([...dates].sort().join() !== dates.join())
      problems.push(`${at}: earliest, bestFrom, bestTo and latest are not in order`)
    for (const a of j.after) if (!jobIds.has(a.id)) problems.push(`${at}: after: there is no job ${a.id}`)
  }
  if (problems.length > 0) throw new BadInput(problems)
  return {
    gardens,
    shifts: named,
    jobs: jobs.map(({ earliest, bestFrom, bestTo, latest, ...j }) => ({
      ...j,
      window: { earliest, bestFrom, bestTo, latest },
    })),
    unsuitable,
  }
}

function inWords(problem: ScheduleProblem, plan: Schedule): string {
  const lines: string[] = []
  for (const { shiftId, day: on, used, capacity } of plan.load) {
    if (used === 0) continue
    lines.push(`${on}  ${used} of ${capacity} minutes`)
    for (const { id, parts } of plan.placed)
      for (const p of parts.filter((x) => x.shiftId === shiftId)) lines.push(`  ${id}, ${p.minutes} min`)
  }
  for (const u of plan.unplaced)
    lines.push(
      `not placed: ${u.id}: ${u.reason}${u.shortMinutes > 0 ? `, ${u.shortMinutes} minutes short` : ''}, cost ${u.cost}${u.nextChance ? `, next chance ${u.nextChance}` : ''}`,
    )
  for (const m of plan.moved) lines.push(`moved: ${m.id} from ${m.from} to ${m.to ?? 'no day'}: ${m.says}`)
  lines.push(`cost ${plan.cost.total} of ${problem.jobs.length} jobs`)
  return lines.join('\n')
}
