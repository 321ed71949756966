import { z } from 'zod'
import { instantsOf, type IsoDate } from '../dates/index.ts'
import type { DailyWeather, SoilReading } from '../climate/index.ts'
import { plantingSources, readPlanted, reckoned, type Planted } from '../garden/index.ts'
import type { LightPoint } from '../light/index.ts'
import { brightnesses, type LuxSample, type Reading } from '../readings/index.ts'
import { day, limits, recordedDay, tag, tagKey, words } from '../written/index.ts'
import type { FileProblem, FileResult } from './problems.ts'
import { inFileOrder, number, optional, readTable, whole, type Located } from './table.ts'

/** One row of `plantings.csv`. */
export const plantingRow = z.object({
  tag,
  place: words(120),
  taxon: words(160),
  count: whole(1, 10_000),
  living: optional(whole(0, 10_000)),
  planted_on: words(20),
  source: optional(z.enum(plantingSources, `must be one of: ${plantingSources.join(', ')}`)),
  from_tag: optional(tag),
  role: optional(words(60)),
  x: optional(number(-100_000, 100_000)),
  y: optional(number(-100_000, 100_000)),
  radius_m: optional(number(0.02, 50)),
  note: optional(words(2000)),
})
export type PlantingRow = z.infer<typeof plantingRow>

/**
 * Reads plantings. Places and taxa are matched by name; tags are unique; a planting in a bed has a position.
 *
 * @param knows names the file may refer to, lower case
 */
export function readPlantings(
  csv: string,
  knows: { places: ReadonlyMap<string, 'bed' | 'container'>; taxa: ReadonlySet<string> },
  today: IsoDate,
  file = 'plantings.csv',
): FileResult<Located<PlantingRow & Planted>[]> {
  const read = readTable(csv, plantingRow, file)
  const problems: FileProblem[] = read.problems
  const tags = new Map<string, number>()
  const planted: Located<PlantingRow & Planted>[] = []
  for (const row of read.rows) {
    const wrong = (column: string, message: string) =>
      problems.push({ file, line: row.line, column, message })
    const first = tags.get(tagKey(row.tag))
    if (first !== undefined) wrong('tag', `${row.tag} is already used on line ${first}`)
    else tags.set(tagKey(row.tag), row.line)
    const kind = knows.places.get(row.place.toLowerCase())
    if (!kind) wrong('place', `no place is called ${row.place}`)
    if (!knows.taxa.has(row.taxon.toLowerCase())) wrong('taxon', `${row.taxon} is not in the plant library`)
    const when = readPlanted(row.planted_on, today)
    if (!when) wrong('planted_on', 'must be a day like 2024-03-31, a year, “before 2015” or “unknown”')
    else if (row.planted_on > today && when.plantedKnown === 'day')
      wrong('planted_on', `${row.planted_on} is after today (${today})`)
    planted.push({ ...row, ...(when ?? reckoned('unknown', undefined, today)) })
    if (row.living !== undefined && row.living > row.count)
      wrong('living', `more living than planted (${row.count})`)
    for (const axis of ['x', 'y'] as const)
      if (kind === 'bed' && row[axis] === undefined) wrong(axis, 'a planting in a bed needs x and y')
  }
  for (const row of read.rows)
    if (row.from_tag && !tags.has(tagKey(row.from_tag)))
      problems.push({
        file,
        line: row.line,
        column: 'from_tag',
        message: `no planting has the tag ${row.from_tag}`,
      })
  return problems.length > 0 ? { ok: false, problems: inFileOrder(problems) } : { ok: true, value: planted }
}

const weatherRow = z.object({
  day,
  min_c: number(...limits.celsius),
  max_c: number(...limits.celsius),
  rain_mm: optional(number(...limits.rainMm)),
  wind_ms: optional(number(...limits.windMs)),
  cloud: optional(number(...limits.cloud)),
})

/** A logger’s file longer than this, in lines, is refused. */
const MOST_SAMPLES = 200_000
const LOCAL_TIME = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(:\d{2})?$/
const ZONED_TIME = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:?\d{2})$/

const timeText = words(40).refine(
  (t) => (LOCAL_TIME.test(t) || ZONED_TIME.test(t)) && !Number.isNaN(Date.parse(t.replace(' ', 'T'))),
  'must be a time like 2026-06-14T09:30 or 2026-06-14T08:30Z',
)

/** What a written time may mean: one instant, two in the hour that autumn repeats, none in the one that spring skips. */
function instantsWritten(time: string, timeZone: string): number[] {
  const written = time.replace(' ', 'T')
  return ZONED_TIME.test(time) ? [Date.parse(written)] : instantsOf(written, timeZone)
}

const lightRow = z.object({
  time: timeText,
  lux: number(0, 250_000),
})

/**
 * Reads a light logger’s file: `time,lux`, times ascending. A time without an offset is the clock of a zone: where autumn
 * repeats an hour the file’s order tells which is meant, and a time that spring skips is refused.
 *
 * @param timeZone IANA zone of times without an offset
 * @param nowMs nothing may lie after it
 */
export function readLightLog(
  csv: string,
  timeZone: string,
  nowMs: number,
  file = 'light.csv',
): FileResult<LuxSample[]> {
  const { rows, problems } = readTable(csv, lightRow, file)
  if (rows.length > MOST_SAMPLES)
    return { ok: false, problems: [{ file, message: `more than ${MOST_SAMPLES} lines` }] }
  if (rows.length === 0 && problems.length === 0)
    problems.push({ file, message: 'there are no samples in it' })
  const samples: LuxSample[] = []
  for (const r of rows) {
    const wrong = (message: string) => problems.push({ file, line: r.line, column: 'time', message })
    const before = samples.at(-1)?.instantMs ?? -Infinity
    const meant = instantsWritten(r.time, timeZone)
    const instantMs = meant.find((ms) => ms > before) ?? meant[0]
    if (instantMs === undefined)
      wrong(`${r.time} did not happen in ${timeZone}: the clocks went forward over it`)
    else if (instantMs > nowMs) wrong(`${r.time} lies in the future`)
    else if (instantMs <= before) wrong(`${r.time} is not after the line before it`)
    else samples.push({ instantMs, lux: r.lux })
  }
  return problems.length > 0 ? { ok: false, problems: inFileOrder(problems) } : { ok: true, value: samples }
}

const readingRow = z.object({
  time: timeText,
  x: number(-1e6, 1e6),
  y: number(-1e6, 1e6),
  z: optional(number(0, 200)),
  seen: z.enum(brightnesses, `must be one of: ${brightnesses.join(', ')}`),
})

/**
 * Reads light seen by eye: `time,x,y[,z],seen` in plan coordinates. A time without an offset is the clock of a zone; in the
 * hour that autumn repeats it is the first.
 *
 * @returns readings named by their line
 */
export function readReadings(
  csv: string,
  timeZone: string,
  nowMs: number,
  file = 'readings.csv',
): FileResult<Reading[]> {
  const { rows, problems } = readTable(csv, readingRow, file)
  const readings: Reading[] = []
  for (const r of rows) {
    const wrong = (message: string) => problems.push({ file, line: r.line, column: 'time', message })
    const [instantMs] = instantsWritten(r.time, timeZone)
    if (instantMs === undefined)
      wrong(`${r.time} did not happen in ${timeZone}: the clocks went forward over it`)
    else if (instantMs > nowMs) wrong(`${r.time} lies in the future`)
    else readings.push({ id: `line ${r.line}`, instantMs, x: r.x, y: r.y, z: r.z ?? 0, seen: r.seen })
  }
  return problems.length > 0 ? { ok: false, problems: inFileOrder(problems) } : { ok: true, value: readings }
}

/** Reads `weather.csv`: `day,min_c,max_c,rain_mm`, days ascending, each once. */
export function readWeather(csv: string, file = 'weather.csv'): FileResult<DailyWeather[]> {
  const { rows, problems } = readTable(csv, weatherRow, file)
  rows.forEach((r, i) => {
    const before = rows[i - 1]
    if (before && before.day >= r.day)
      problems.push({
        file,
        line: r.line,
        column: 'day',
        message: `not after the day before it (${before.day})`,
      })
    if (r.min_c > r.max_c)
      problems.push({ file, line: r.line, column: 'min_c', message: `above max_c (${r.max_c})` })
  })
  if (problems.length > 0) return { ok: false, problems: inFileOrder(problems) }
  return {
    ok: true,
    value: rows.map((r) => ({
      day: r.day,
      minC: r.min_c,
      maxC: r.max_c,
      rainMm: r.rain_mm ?? 0,
      windMs: r.wind_ms,
      cloud: r.cloud,
    })),
  }
}

const soilRow = z.object({ day: recordedDay, celsius: number(-40, 60), place: optional(words(120)) })

/**
 * Readings of a soil thermometer at about 10 cm: `day,celsius[,place]`.
 *
 * @param places names in lower case
 */
export function readSoil(
  csv: string,
  places: ReadonlySet<string>,
  today: IsoDate,
  file = 'soil.csv',
): FileResult<(SoilReading & { place?: string | undefined })[]> {
  const { rows, problems } = readTable(csv, soilRow, file)
  for (const r of rows) {
    if (r.day > today)
      problems.push({ file, line: r.line, column: 'day', message: `lies ahead of today (${today})` })
    if (r.place !== undefined && !places.has(r.place.toLowerCase()))
      problems.push({ file, line: r.line, column: 'place', message: `${r.place} is not on the plan` })
  }
  if (problems.length > 0) return { ok: false, problems: inFileOrder(problems) }
  return { ok: true, value: rows.map(({ day, celsius, place }) => ({ day, celsius, place })) }
}

const pointRow = z.object({
  name: words(120),
  x: number(-1e6, 1e6),
  y: number(-1e6, 1e6),
  z: optional(number(0, 200)),
})

/** Reads points: `name,x,y[,z]` in plan coordinates. */
export function readPoints(csv: string, file = 'points.csv'): FileResult<(LightPoint & { name: string })[]> {
  const { rows, problems } = readTable(csv, pointRow, file)
  if (problems.length > 0) return { ok: false, problems }
  return { ok: true, value: rows.map((r) => ({ name: r.name, x: r.x, y: r.y, z: r.z ?? 0 })) }
}
