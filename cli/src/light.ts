import {
  CLOCK_OUT_HOURS,
  clockOffsetHours,
  comingChanges,
  explainReadings,
  gardenField,
  instantsOf,
  isInside,
  isIsoDate,
  assessGarden,
  lightClass,
  logReadings,
  planMetres,
  plotsOf,
  problemText,
  readLightLog,
  readPlan,
  readPoints,
  readReadings,
  seededRandom,
  sunHours,
  type Cause,
  type FieldHours,
  type GardenHead,
  type LightPeriod,
  type Reading,
  writeTable,
} from '@border/core'
import { accepted, dayOption, numberOption, optionsOf, readText } from './files.ts'
import { gardenIn, placeNames, plantingsIn, type PlannedGarden } from './plannedGarden.ts'
import { BadInput, Misuse } from './say.ts'
import { simulateLog } from '@border/core/simulated'

const options = {
  points: { type: 'string' },
  dates: { type: 'string' },
  field: { type: 'string' },
  season: { type: 'boolean' },
  standing: { type: 'string' },
  less: { type: 'string' },
  cell: { type: 'string' },
  plantings: { type: 'string' },
  affected: { type: 'string' },
  ahead: { type: 'string' },
  explain: { type: 'boolean' },
  readings: { type: 'string' },
  log: { type: 'string' },
  'simulate-log': { type: 'boolean' },
  at: { type: 'string' },
  from: { type: 'string' },
  days: { type: 'string' },
  seed: { type: 'string' },
  zone: { type: 'string' },
  json: { type: 'boolean' },
  geojson: { type: 'boolean' },
} as const
type Options = ReturnType<typeof optionsOf<typeof options>>['values']

const HOW = 'light takes one plan file and what to do with it; ./border lists the ways'

/** `border light PLAN ...`: hours at points, fields, differences, affected plantings, explanations, simulated logs. */
export function lightCommand(args: string[]): string {
  const { values, positionals } = optionsOf(args, options)
  const [planFile, ...more] = positionals
  if (!planFile || more.length > 0) throw new Misuse(HOW)
  if (values.points !== undefined) return hoursAtPoints(planFile, values)
  const ways: [given: unknown, run: (garden: PlannedGarden, values: Options) => string][] = [
    [values.field, field],
    [values.affected, affected],
    [values.ahead, ahead],
    [values.explain, explain],
    [values['simulate-log'], simulatedLog],
  ]
  const asked = ways.filter(([given]) => given !== undefined)
  if (asked.length !== 1) throw new Misuse(HOW)
  return asked[0]![1](gardenIn(planFile), values)
}

/** `name,x,y[,z]` points on days. Every fault of both files is named. */
function hoursAtPoints(planFile: string, values: Options): string {
  if (!values.points || !values.dates) throw new Misuse('--points FILE goes with --dates DAY[,DAY...]')
  const dates = values.dates.split(',').map((d) => d.trim())
  const problems = dates
    .filter((d) => !isIsoDate(d))
    .map((d) => `--dates: ${d || 'an empty entry'} is not a date like 2026-09-14`)
  const plan = readPlan(readText(planFile), planFile)
  const points = readPoints(readText(values.points), values.points)
  for (const read of [plan, points]) if (!read.ok) problems.push(...read.problems.map(problemText))
  if (problems.length > 0) throw new BadInput(problems)
  const { head, scene } = gardenIn(planFile)
  const named = accepted(points).map((p) => {
    const [x, y] = planMetres(head, [p.x, p.y])
    return { ...p, x, y }
  })
  const hours = dates.flatMap((date) =>
    sunHours(scene, named, { kind: 'day', on: date }).map((h, i) => ({
      point: named[i]!.name,
      date,
      sunHours: h.total,
      morningHours: h.morning,
      middayHours: h.midday,
      afternoonHours: h.afternoon,
    })),
  )
  if (values.json) return JSON.stringify({ hours })
  return table(
    ['point', 'date', 'sun_hours', 'morning_hours', 'midday_hours', 'afternoon_hours'],
    hours.map((h) => [
      h.point,
      h.date,
      ...[h.sunHours, h.morningHours, h.middayHours, h.afternoonHours].map(twoPlaces),
    ]),
  )
}

const twoPlaces = (v: number) => v.toFixed(2)
const table = (columns: string[], rows: (string | number)[][]) => writeTable(columns, rows, '\n').trimEnd()

interface Cell {
  bed: string
  x: number
  y: number
  cellM: number
  hours: Record<keyof FieldHours, number>
  /** Hours less those of the other day's garden. */
  change?: number
}

/** Every cell of every bed: hours of a day or the season, or their difference to the garden of another day. */
function field({ scene, places, features }: PlannedGarden, values: Options): string {
  const on = dayOption('field', values.field)
  const standing = values.standing === undefined ? on : dayOption('standing', values.standing)
  const less = values.less === undefined ? undefined : dayOption('less', values.less)
  const cellM = values.cell === undefined ? undefined : numberOption('cell', values.cell)
  if (cellM !== undefined && !(cellM >= 0.05 && cellM <= 10))
    throw new BadInput([`--cell: ${cellM} is not between 0.05 and 10 metres`])
  const beds = places.filter((p) => p.kind === 'bed')
  if (beds.length === 0) throw new BadInput(['the plan has no beds'])
  const plots = plotsOf(beds, cellM)
  const period = (standing: string): LightPeriod => ({ kind: values.season ? 'season' : 'day', on, standing })
  const found = gardenField(scene, beds, period(standing), plots)
  const other = less === undefined ? undefined : gardenField(scene, beds, period(less), plots)
  const name = (id: string) => features[Number(id)]!.name
  const cells = found.plots.flatMap(({ raster, hours, beds: own }, k) =>
    Array.from({ length: raster.count }, (_, i): Cell => {
      const at = { x: raster.x[i]!, y: raster.y[i]! }
      const before = other?.plots[k]!.hours.total[i]
      return {
        ...at,
        bed: own.length === 1 ? name(own[0]!.id) : bedAt(at),
        cellM: raster.cellM,
        hours: {
          total: hours.total[i]!,
          morning: hours.morning[i]!,
          midday: hours.midday[i]!,
          afternoon: hours.afternoon[i]!,
          heat: hours.heat[i]!,
        },
        ...(before === undefined ? {} : { change: hours.total[i]! - before }),
      }
    }),
  )
  if (values.geojson) return JSON.stringify({ type: 'FeatureCollection', features: cells.map(cellFeature) })
  if (values.json) return JSON.stringify({ on, standing, ...(less ? { less } : {}), cells })
  return table(
    [
      'bed',
      'x',
      'y',
      'sun_hours',
      'morning_hours',
      'midday_hours',
      'afternoon_hours',
      'hot_hours',
      'class',
    ].concat(less ? ['change_hours'] : []),
    cells.map(({ bed, x, y, hours: h, change }) => [
      bed,
      x.toFixed(3),
      y.toFixed(3),
      ...[h.total, h.morning, h.midday, h.afternoon, h.heat].map(twoPlaces),
      lightClass(h.total),
      ...(change === undefined ? [] : [twoPlaces(change)]),
    ]),
  )

  function bedAt({ x, y }: { x: number; y: number }): string {
    const bed = beds.find((b) => b.kind === 'bed' && isInside(b.ring, x, y)) ?? beds[0]!
    return name(bed.id)
  }
}

/** A cell as a square in plan metres. */
function cellFeature({ bed, x, y, cellM, hours, change }: Cell) {
  const h = cellM / 2
  const corner = (dx: number, dy: number) => [x + dx * h, y + dy * h]
  return {
    type: 'Feature',
    properties: {
      bed,
      sunHours: hours.total,
      morningHours: hours.morning,
      middayHours: hours.midday,
      afternoonHours: hours.afternoon,
      hotHours: hours.heat,
      class: lightClass(hours.total),
      ...(change === undefined ? {} : { changeHours: change }),
    },
    geometry: {
      type: 'Polygon',
      coordinates: [[corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1), corner(-1, -1)]],
    },
  }
}

function plantingsFile({ plantings }: Options): string {
  if (!plantings) throw new Misuse('--plantings FILE is needed')
  return plantings
}

const changeWords = (c: { name: string; what: string; date?: string }) =>
  `${c.name} ${c.what}${c.date ? ` ${c.date}` : ''}`

/** Plantings outside the light they like on a day, with what changed since another. */
function affected(garden: PlannedGarden, values: Options): string {
  const [then, now, ...more] = values.affected!.split(',').map((d) => dayOption('affected', d.trim()))
  if (!then || !now || more.length > 0) throw new Misuse('--affected takes THEN,NOW')
  const plantings = plantingsIn(garden, plantingsFile(values), now)
  const model = { scene: garden.scene, places: garden.places, plantings, reserved: [] }
  const tags = new Map(plantings.map((p) => [p.id, p]))
  const nameOf = placeNames(garden)
  const found = assessGarden(model, then, now)
    .filter((a) => a.outside)
    .map((a) => ({
      tag: a.plantingId,
      taxon: tags.get(a.plantingId)!.taxon.botanical,
      place: nameOf(tags.get(a.plantingId)!.placeId),
      likesHours: [tags.get(a.plantingId)!.taxon.lightMinHours, tags.get(a.plantingId)!.taxon.lightMaxHours],
      hoursThen: a.before.total,
      hoursNow: a.now.total,
      verdict: a.verdict.action,
      causes: a.causes,
    }))
  if (values.json) return JSON.stringify({ then, now, affected: found })
  return table(
    ['tag', 'taxon', 'place', 'likes_from', 'likes_to', 'hours_then', 'hours_now', 'verdict', 'cause'],
    found.map((a) => [
      a.tag,
      a.taxon,
      a.place,
      ...a.likesHours,
      twoPlaces(a.hoursThen),
      twoPlaces(a.hoursNow),
      a.verdict,
      a.causes[0] ? changeWords(a.causes[0]) : '',
    ]),
  )
}

const YEARS_AHEAD = 15

/** Plantings that will leave the light they like, or come back into it. */
function ahead(garden: PlannedGarden, values: Options): string {
  const [day, years] = values.ahead!.split(',')
  const on = dayOption('ahead', day?.trim())
  const span = years === undefined ? YEARS_AHEAD : numberOption('ahead', years)
  if (!(span >= 1 && span <= 60)) throw new BadInput([`--ahead: ${span} is not between 1 and 60 years`])
  const plantings = plantingsIn(garden, plantingsFile(values), on)
  const tags = new Map(plantings.map((p) => [p.id, p]))
  const nameOf = placeNames(garden)
  const coming = comingChanges({ scene: garden.scene, places: garden.places, plantings }, on, span).map(
    ({ plantingId, ...c }) => ({
      tag: plantingId,
      taxon: tags.get(plantingId)!.taxon.botanical,
      place: nameOf(tags.get(plantingId)!.placeId),
      ...c,
    }),
  )
  if (values.json) return JSON.stringify({ on, years: span, coming })
  return table(
    ['year', 'tag', 'taxon', 'place', 'leaves', 'hours_now', 'hours_then', 'cause'],
    coming.map((c) => [
      c.year,
      c.tag,
      c.taxon,
      c.place,
      c.leaves ? 'leaves' : 'comes back',
      twoPlaces(c.now.total),
      twoPlaces(c.then.total),
      c.causes[0] ? changeWords(c.causes[0]) : '',
    ]),
  )
}

function pointOption(text: string | undefined, head: GardenHead): { x: number; y: number; z: number } {
  const numbers = text?.split(',').map(Number) ?? []
  if ((numbers.length !== 2 && numbers.length !== 3) || !numbers.every(Number.isFinite))
    throw new Misuse('--at takes X,Y or X,Y,Z')
  const [x, y] = planMetres(head, numbers.slice(0, 2))
  return { x, y, z: numbers[2] ?? 0 }
}

const SHOWN = 8

/** Which unrecorded change best accounts for readings by eye and by logger. */
function explain({ head, scene, features }: PlannedGarden, values: Options): string {
  if (!values.readings && !values.log) throw new Misuse('--explain needs --readings FILE, --log FILE or both')
  const zone = values.zone ?? head.timeZone
  const now = Date.now()
  const readings: Reading[] = []
  if (values.readings)
    for (const r of accepted(readReadings(readText(values.readings), zone, now, values.readings))) {
      const [x, y] = planMetres(head, [r.x, r.y])
      readings.push({ ...r, x, y })
    }
  if (values.log) {
    const at = pointOption(values.at, head)
    const samples = accepted(readLightLog(readText(values.log), zone, now, values.log))
    const out = clockOffsetHours(scene, samples)
    if (out !== undefined && Math.abs(out) > CLOCK_OUT_HOURS)
      throw new BadInput([
        `${values.log}: its light comes ${Math.abs(out).toFixed(1)} h too ${out > 0 ? 'late' : 'early'} for clocks of ${zone}; say which zone its clock kept with --zone`,
      ])
    readings.push(...logReadings(scene, { id: values.log, ...at, samples }).readings)
  }
  const { explanations, used, unusable } = explainReadings(scene, readings)
  const name = (c: Cause) => ('obstructionId' in c ? features[Number(c.obstructionId)]!.name : '')
  const shown = explanations.slice(0, SHOWN).map((e) => ({
    what: e.cause.what,
    obstruction: name(e.cause),
    ...('supposition' in e.cause ? { sizes: { ...e.cause.supposition, obstructionId: undefined } } : {}),
    ...(e.cause.what === 'new' ? { block: e.cause.block } : {}),
    posterior: e.posterior,
    bic: e.bic,
    explains: e.explains.length,
  }))
  if (values.json) return JSON.stringify({ used, unusable, explanations: shown })
  return table(
    ['what', 'obstruction', 'posterior', 'bic', 'explains', 'of'],
    shown.map((e) => [e.what, e.obstruction, e.posterior.toFixed(4), e.bic.toFixed(2), e.explains, used]),
  )
}

/** The stand-in logger as a file: `time,lux` in Universal Time. */
function simulatedLog({ head, scene }: PlannedGarden, values: Options): string {
  const at = pointOption(values.at, head)
  const from = dayOption('from', values.from)
  const days = values.days === undefined ? 14 : numberOption('days', values.days)
  const seed = values.seed === undefined ? 1 : numberOption('seed', values.seed)
  if (!(days >= 1 && days <= 366)) throw new BadInput([`--days: ${days} is not between 1 and 366`])
  const [fromMs] = instantsOf(`${from}T00:00`, head.timeZone)
  const samples = simulateLog(scene, at, { fromMs: fromMs!, days, everyMin: 10 }, seededRandom(seed))
  return table(
    ['time', 'lux'],
    samples.map((s) => [`${new Date(s.instantMs).toISOString().slice(0, 16)}Z`, s.lux]),
  )
}
