import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { addDays, isIsoDate } from '../dates/index.ts'
import { signs } from '../diagnosis/index.ts'
import { plantingSources } from '../garden/index.ts'
import { metresPerDegree } from '../geometry/index.ts'
import { bloomStages } from '../performance/index.ts'
import { library, type Taxon } from '../plants/index.ts'
import { brightnesses } from '../readings/index.ts'
import {
  readLightLog,
  readObservations,
  readPlan,
  readPlantings,
  readPoints,
  readReadings,
  readSoil,
  readTaxa,
  readWeather,
  writeObservations,
  writeTable,
  writeTaxa,
  type FileProblem,
  type FileResult,
  type ObservationLine,
} from './index.ts'
import { readCells } from './table.ts'

/**
 * Every file format: what is written comes back as it went, how a file happens to be laid out says nothing, one fault is named
 * where it is and nowhere else, and whatever is thrown at a reader it answers with words.
 */

const runs = { numRuns: 60 }
const TODAY = '2026-09-14'
const NOW = Date.parse(`${TODAY}T18:00:00Z`)
const ZONE = 'Europe/London'

const day = fc.integer({ min: 1, max: 4000 }).map((n) => addDays(TODAY, -n))
const round = (n: number) => Math.round(n * 100) / 100
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true }).map(round)
/** Words with everything in them that a spreadsheet trips over. */
const words = (most: number) =>
  fc
    .array(
      fc.oneof(
        fc.constantFrom(',', '"', ';', '=', '\n', "'", '|', '–', 'ß', '🌱', ' ', '#', '\\', '0', 'x'),
        fc.string({ maxLength: 4 }).map((s) => s.replace(/[\r\t\uFEFF]/g, '')),
      ),
      { minLength: 1, maxLength: 12 },
    )
    .map((parts) => parts.join('').trim().slice(0, most).trim())
    .filter((s) => s !== '')
const name = words(30).map((s) => s.replaceAll('\n', ' '))

type Cells = Record<string, string | number | undefined>

interface Format {
  name: string
  columns: string[]
  /** Rows as a person would have them, in the order they must stand in. */
  rows: fc.Arbitrary<Cells[]>
  read: (csv: string) => FileResult<unknown[]>
  /** For each column a cell that it can never hold. */
  wrong: Record<string, string>
}

const ascending = (rows: Cells[], column: string) =>
  [...new Map(rows.map((r) => [String(r[column]), r])).values()].sort((a, b) =>
    String(a[column]) < String(b[column]) ? -1 : 1,
  )
const some = <T>(row: fc.Arbitrary<T>) => fc.array(row, { minLength: 1, maxLength: 8 })
const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined })

const places = new Map<string, 'bed' | 'container'>([
  ['long border', 'bed'],
  ['door pot', 'container'],
])
const kinds = new Map(library.slice(0, 20).map((t) => [t.botanical.toLowerCase(), t.botanical]))
const tags = ['N-001', 'N-002', 'N-003, left', 'a "tag"']
const planted = new Map(tags.map((t) => [t, { plantedOn: '1950-01-01', plantedCount: 10_000 }]))

const minutesAgo = fc.integer({ min: 1, max: 500_000 })
/** `2026-09-14 18:00` */
const wallClock = new Intl.DateTimeFormat('sv-SE', { timeZone: ZONE, dateStyle: 'short', timeStyle: 'short' })
/** A time on the wall clock of the zone, or with its offset. */
const time = fc.tuple(minutesAgo, fc.boolean()).map(([ago, zoned]) => {
  const ms = NOW - ago * 60_000
  return zoned ? new Date(ms).toISOString() : wallClock.format(ms)
})

const formats: Format[] = [
  {
    name: 'weather.csv',
    columns: ['day', 'min_c', 'max_c', 'rain_mm', 'wind_ms', 'cloud'],
    rows: some(
      fc
        .record({
          day,
          min_c: real(-40, 20),
          above: real(0, 20),
          rain_mm: maybe(real(0, 60)),
          wind_ms: maybe(real(0, 30)),
          cloud: maybe(real(0, 1)),
        })
        .map(({ above, ...r }) => ({ ...r, max_c: round(r.min_c + above) })),
    ).map((rows) => ascending(rows, 'day')),
    read: readWeather,
    wrong: { day: '14 Sept', min_c: 'cold', max_c: '61', rain_mm: '-1', wind_ms: 'calm', cloud: '2' },
  },
  {
    name: 'soil.csv',
    columns: ['day', 'celsius', 'place'],
    rows: some(fc.record({ day, celsius: real(-10, 35), place: maybe(fc.constantFrom(...places.keys())) })),
    read: (csv) => readSoil(csv, new Set(places.keys()), TODAY),
    wrong: { day: '2026-02-30', celsius: 'warm', place: 'the moon' },
  },
  {
    name: 'points.csv',
    columns: ['name', 'x', 'y', 'z'],
    rows: some(fc.record({ name, x: real(-500, 500), y: real(-500, 500), z: maybe(real(0, 50)) })),
    read: readPoints,
    wrong: { name: '', x: 'east', y: '1e9', z: '-3' },
  },
  {
    name: 'readings.csv',
    columns: ['time', 'x', 'y', 'z', 'seen'],
    rows: some(
      fc.record({
        time,
        x: real(-500, 500),
        y: real(-500, 500),
        z: maybe(real(0, 50)),
        seen: fc.constantFrom(...brightnesses),
      }),
    ),
    read: (csv) => readReadings(csv, ZONE, NOW),
    wrong: { time: 'noon', x: 'east', y: '', z: '-3', seen: 'bright' },
  },
  {
    name: 'light.csv',
    columns: ['time', 'lux'],
    rows: fc
      .uniqueArray(minutesAgo, { minLength: 1, maxLength: 8 })
      .map((list) =>
        list
          .sort((a, b) => b - a)
          .map((ago) => ({ time: new Date(NOW - ago * 60_000).toISOString(), lux: ago % 90_000 })),
      ),
    read: (csv) => readLightLog(csv, ZONE, NOW),
    wrong: { time: 'noon', lux: 'dark' },
  },
  {
    name: 'plantings.csv',
    columns: ['tag', 'place', 'taxon', 'count', 'planted_on', 'source', 'role', 'x', 'y', 'radius_m', 'note'],
    rows: fc
      .uniqueArray(name, { minLength: 1, maxLength: 6 })
      .chain((list) =>
        fc.tuple(
          ...list.map((tag) =>
            fc.record({
              tag: fc.constant(tag),
              place: fc.constantFrom('Long border', 'door pot'),
              taxon: fc.constantFrom(...kinds.values()),
              count: fc.integer({ min: 1, max: 60 }),
              planted_on: day,
              source: maybe(fc.constantFrom(...plantingSources)),
              role: maybe(name),
              x: real(-90, 90),
              y: real(-90, 90),
              radius_m: maybe(real(0.1, 4)),
              note: maybe(words(200)),
            }),
          ),
        ),
      )
      .map((rows) => [...rows]),
    read: (csv) => readPlantings(csv, { places, taxa: new Set(kinds.keys()) }, TODAY),
    wrong: {
      tag: '',
      place: 'the moon',
      taxon: 'Fictitia imaginaria',
      count: '1.5',
      planted_on: addDays(TODAY, 1),
      source: 'stolen',
      x: 'east',
      y: 'north',
      radius_m: '0',
    },
  },
  {
    name: 'observations.csv',
    columns: [
      'id',
      'tag',
      'date',
      'rating',
      'living',
      'stage',
      'flush',
      'height_m',
      'spread_m',
      'signs',
      'note',
    ],
    rows: some(
      fc.record({
        tag: fc.constantFrom(...tags),
        date: day,
        rating: fc.integer({ min: 1, max: 5 }),
        living: maybe(fc.integer({ min: 1, max: 40 })),
        stage: maybe(fc.constantFrom(...bloomStages)),
        flush: maybe(fc.integer({ min: 1, max: 9 })),
        height_m: maybe(real(0.02, 20)),
        spread_m: maybe(real(0.02, 20)),
        signs: maybe(fc.subarray(signs.map((s) => s.id)).map((s) => s.join('; '))),
        note: maybe(words(200)),
      }),
    ),
    read: (csv) => readObservations(csv, planted, TODAY),
    wrong: {
      id: 'one',
      tag: 'N-999',
      date: '2026-13-01',
      rating: '6',
      living: '0',
      stage: 'blooming',
      flush: '10',
      height_m: 'tall',
      spread_m: '-1',
      signs: 'sulking',
    },
  },
]

const csvOf = (columns: string[], rows: Cells[], newline = '\n'): string =>
  Papa.unparse({ fields: columns, data: rows.map((r) => columns.map((c) => r[c] ?? '')) }, { newline })
/** What was read, without the lines that it stood on. */
const valueOf = (read: FileResult<unknown[]>): unknown => {
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value.map((row) => ({ ...(row as object), line: undefined, id: undefined }))
}

describe.each(formats)('$name', ({ name: file, columns, rows, read, wrong }) => {
  it('is the same file however it is laid out', () => {
    fc.assert(
      fc.property(rows, fc.gen(), (data, gen) => {
        const plain = valueOf(read(csvOf(columns, data)))
        const shuffled = gen(() => fc.shuffledSubarray(columns, { minLength: columns.length }))
        const more = [...shuffled.slice(0, 1), 'colour of the cat', ...shuffled.slice(1)]
        const withMore = data.map((r) => ({ ...r, 'colour of the cat': 'tabby, "mostly"' }))
        for (const other of [
          `\uFEFF${csvOf(columns, data)}`,
          csvOf(columns, data, '\r\n'),
          `${csvOf(columns, data)}\n\n  \n`,
          csvOf(shuffled, data),
          csvOf(more, withMore),
          csvOf(columns, data).replace(/^[^\n]*/, (head) => head.split(',').join(' , ')),
        ])
          expect(valueOf(read(other))).toEqual(plain)
      }),
      runs,
    )
  })

  it('holds what was put into it', () => {
    fc.assert(
      fc.property(rows, (data) => {
        const value = read(csvOf(columns, data))
        expect(value.ok && value.value.length).toBe(data.length)
        const told = JSON.stringify(value.ok && value.value)
        for (const row of data)
          for (const cell of Object.values(row))
            // Times and lists are read into something else.
            if (typeof cell === 'number') expect(told).toContain(String(Math.abs(cell)))
      }),
      runs,
    )
  })

  it('names a fault by its line and column, and nothing else', () => {
    fc.assert(
      fc.property(rows, fc.constantFrom(...Object.entries(wrong)), fc.nat(), (data, [column, cell], n) => {
        const at = n % data.length
        // Notes run over several lines: the line is the one the row begins on.
        const line = 2 + data.slice(0, at).reduce((sum, r) => sum + 1 + breaks(r), 0)
        const spoilt = data.map((r, i) => (i === at ? { ...r, [column]: cell } : r))
        const found = read(csvOf(columns, spoilt))
        if (found.ok) throw new Error(`${column} took ${cell}`)
        expect(found.problems.map((p) => [p.file, p.line])).toEqual(found.problems.map(() => [file, line]))
        expect(found.problems.map((p) => p.column)).toContain(column)
      }),
      runs,
    )
  })

  it('that lacks a column it cannot do without says so of the column', () => {
    fc.assert(
      fc.property(rows, fc.constantFrom(...columns), (data, missing) => {
        const rest = columns.filter((c) => c !== missing)
        const found = read(csvOf(rest, data))
        if (found.ok) return
        for (const p of found.problems) expect([p.file, p.column]).toEqual([file, missing])
      }),
      runs,
    )
  })

  it('is never more than a reader can bear: what it cannot read it refuses in words', () => {
    fc.assert(
      fc.property(
        rows.map((data) => csvOf(columns, data)),
        hurt,
        (csv, spoil) => {
          const text = spoil(csv)
          expectWords(read(text), file, text)
        },
      ),
      { ...runs, numRuns: 200 },
    )
  })
})

const breaks = (row: Cells) =>
  Object.values(row).reduce<number>((n, c) => n + String(c ?? '').split('\n').length - 1, 0)

/** What happens to files on their way. */
const hurt: fc.Arbitrary<(text: string) => string> = fc
  .array(
    fc.tuple(
      fc.constantFrom('cut', 'drop', 'twice', 'quote', 'noise', 'long', 'words'),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.string({ maxLength: 6 }),
    ),
    { minLength: 1, maxLength: 4 },
  )
  .map((harms) => (text: string) => {
    for (const [what, share, noise] of harms) {
      const at = Math.floor(share * text.length)
      const [before, after] = [text.slice(0, at), text.slice(at)]
      text = {
        cut: before,
        drop: before + after.slice(1),
        twice: before + after + after,
        quote: `${before}"${after}`,
        noise: before + noise + after,
        long: `${before}${',1'.repeat(40)}${after}`,
        words: noise,
      }[what]
    }
    return text
  })

/** Words that a library says where nobody has found better ones. */
const ofMachines = /\bundefined\b|\[object|Invalid |Too (big|small)|\breceived\b|\bexpected\b/

function expectWords(read: FileResult<unknown>, file: string, text: string): void {
  if (read.ok) return
  expect(read.problems.length).toBeGreaterThan(0)
  const lines = text.split(/\r\n|\n|\r/).length
  for (const p of read.problems) {
    expect([p.file, p.message.length > 3, ofMachines.test(p.message) ? p.message : '']).toEqual([
      file,
      true,
      '',
    ])
    if (p.line !== undefined) expect([p.line >= 1, p.line <= lines + 1, text]).toEqual([true, true, text])
  }
}

describe('looks', () => {
  const line: fc.Arbitrary<ObservationLine> = fc.record({
    id: fc.uuid(),
    tag: fc.constantFrom(...tags),
    on: day,
    by: maybe(name).map((n) => n ?? null),
    rating: fc.integer({ min: 1, max: 5 }),
    living: fc.option(fc.integer({ min: 1, max: 40 })),
    absent: fc.constant(false),
    stage: fc.option(fc.constantFrom(...bloomStages)),
    flush: fc.option(fc.integer({ min: 1, max: 9 })),
    heightM: fc.option(real(0.02, 20)),
    spreadM: fc.option(real(0.02, 20)),
    signs: fc.subarray(signs.map((s) => s.id)),
    note: fc.option(words(400)),
  })
  const lines = fc.uniqueArray(line, { minLength: 1, maxLength: 8, selector: (o) => o.id })

  it('come back as they were written down', () => {
    fc.assert(
      fc.property(lines, (written) => {
        const read = readObservations(writeObservations(written), planted, TODAY)
        if (!read.ok) throw new Error(JSON.stringify(read.problems))
        const back = read.value.map((r) => ({
          id: r.id,
          tag: r.tag,
          on: r.date,
          rating: r.rating ?? null,
          living: r.living ?? null,
          absent: r.absent ?? false,
          stage: r.stage ?? null,
          flush: r.flush ?? null,
          heightM: r.height_m ?? null,
          spreadM: r.spread_m ?? null,
          signs: r.signs ?? [],
          note: r.note ?? null,
        }))
        expect(back).toEqual(written.map(({ by: _, ...o }) => o))
      }),
      runs,
    )
  })
})

describe('a table that goes out', () => {
  /** What a spreadsheet would work out, with and without marks that are somebody's own. */
  const formula = fc
    .tuple(
      fc.constantFrom('', "'", "''"),
      fc.constantFrom('=', '+', '-', '@', '＝'),
      fc.string({ minLength: 1 }),
    )
    .map((parts) => parts.join('').trim())

  it('holds nothing that a spreadsheet takes for a formula, and is the same when it comes back', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(formula, fc.string()), { minLength: 1, maxLength: 5 }), (rows) => {
        const { columns, rows: back } = readCells(writeTable(['a', 'b'], rows), 'a.csv')
        expect(columns).toEqual(['a', 'b'])
        expect(back.map((r) => r.cells)).toEqual(rows)
        const raw = Papa.parse<string[]>(writeTable(['a', 'b'], rows)).data.flat()
        for (const cell of raw)
          if (!/^[+-]?[\d.]+$/.test(cell)) expect(cell).not.toMatch(/^[=+\-@\t\r＝＋－＠]/)
      }),
      { numRuns: 300 },
    )
    // Degrees of frost stay numbers.
    expect(writeTable(['c'], [[-12.5], ['-7'], ['-7 in March'], ['=1+1']])).toBe(
      "c\r\n-12.5\r\n-7\r\n'-7 in March\r\n'=1+1\r\n",
    )
  })
})

describe('taxa', () => {
  /** A kind of the library with its names and figures changed. */
  const taxon: fc.Arbitrary<Taxon> = fc
    .record({ from: fc.constantFrom(...library), botanical: name, common: name, high: real(0.1, 20) })
    .map(({ from, botanical, common, high }) => ({
      ...from,
      botanical: `Flora ${botanical}`,
      common: `flower ${common}`,
      heightM: round(from.heightM + high),
    }))

  it('come back as they were written, whatever they are called', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(taxon, { minLength: 1, maxLength: 6, selector: (t) => t.botanical.toLowerCase() }),
        (taxa) => {
          const read = readTaxa(writeTaxa(taxa))
          if (!read.ok) throw new Error(JSON.stringify(read.problems))
          expect(read.value).toEqual(taxa)
          // Written again they are the same file.
          expect(writeTaxa(read.value)).toBe(writeTaxa(taxa))
        },
      ),
      runs,
    )
  })

  it('spoilt on the way are refused in words', () => {
    fc.assert(
      fc.property(fc.array(taxon, { minLength: 1, maxLength: 3 }), hurt, (taxa, spoil) => {
        const text = spoil(writeTaxa(taxa))
        expectWords(readTaxa(text), 'taxa.csv', text)
      }),
      { ...runs, numRuns: 120 },
    )
  })
})

describe('plan.geojson', () => {
  const point = fc.tuple(real(-80, 80), real(-80, 80))
  const box = fc.tuple(point, real(1, 20), real(1, 20)).map(([[x, y], w, h]) => [
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
      [x, y],
    ],
  ])
  const feature = fc.oneof(
    fc.record({
      properties: fc.record({ kind: fc.constant('bed'), name, seenBy: words(20) }),
      geometry: box.map((coordinates) => ({ type: 'Polygon', coordinates })),
    }),
    fc.record({
      properties: fc.record({
        kind: fc.constant('tree'),
        name,
        heightM: real(2, 20),
        crownRadiusM: real(1, 5),
      }),
      geometry: point.map((coordinates) => ({ type: 'Point', coordinates })),
    }),
  )
  const head = fc.record({
    version: fc.constant(1),
    name,
    latitude: real(-60, 60),
    longitude: real(-170, 170),
    timeZone: fc.constant(ZONE),
    northDeg: real(-180, 180),
  })
  const plans = fc.record({
    garden: head,
    features: fc.uniqueArray(feature, { maxLength: 5, selector: (f) => f.properties.name.toLowerCase() }),
  })
  const textOf = (garden: object, features: readonly object[], space?: number) =>
    JSON.stringify(
      { type: 'FeatureCollection', garden, features: features.map((f) => ({ type: 'Feature', ...f })) },
      null,
      space,
    )
  type Nested = number | Nested[]
  const each = (c: Nested, of: (p: number[]) => number[]): Nested =>
    Array.isArray(c) && typeof c[0] === 'number' ? of(c as number[]) : (c as Nested[]).map((p) => each(p, of))

  it('in degrees is the plan that it is in metres', () => {
    fc.assert(
      fc.property(plans, ({ garden, features }) => {
        const local = readPlan(textOf({ ...garden, coordinates: 'local-metres' }, features))
        const scale = metresPerDegree(garden.latitude)
        const onEarth = features.map(({ properties, geometry }) => ({
          properties,
          geometry: {
            ...geometry,
            coordinates: each(geometry.coordinates as Nested, ([x, y]) => [
              garden.longitude + x! / scale.lon,
              garden.latitude + y! / scale.lat,
            ]),
          },
        }))
        const degrees = readPlan(textOf({ ...garden, coordinates: 'wgs84', northDeg: 0 }, onEarth))
        if (!local.ok || !degrees.ok) throw new Error(JSON.stringify([local, degrees]))
        const flat = (plan: typeof local) =>
          plan.value.features.map((f) => JSON.parse(JSON.stringify(f.geometry)).coordinates.flat(3))
        flat(local).forEach((coordinates: number[], i) =>
          coordinates.forEach((c, k) => expect(flat(degrees)[i][k]).toBeCloseTo(c, 4)),
        )
      }),
      runs,
    )
  })

  it('keeps what it does not know, and is the same however it is spaced', () => {
    fc.assert(
      fc.property(plans, fc.nat(8), ({ garden, features }, space) => {
        const at = { ...garden, coordinates: 'local-metres', gate: 'green' }
        const read = readPlan(textOf(at, features))
        if (!read.ok) throw new Error(JSON.stringify(read.problems))
        expect(readPlan(textOf(at, features, space))).toEqual(read)
        expect(read.value.garden).toMatchObject({ gate: 'green' })
        features.forEach(({ properties: p }, i) => {
          if ('seenBy' in p) expect(read.value.features[i]!.properties).toMatchObject({ seenBy: p.seenBy })
        })
      }),
      runs,
    )
  })

  it('spoilt on the way is refused in words', () => {
    fc.assert(
      fc.property(plans, hurt, ({ garden, features }, spoil) => {
        const text = spoil(textOf({ ...garden, coordinates: 'local-metres' }, features, 1))
        expectWords(readPlan(text), 'plan.geojson', text)
      }),
      { ...runs, numRuns: 200 },
    )
  })

  it('with other things in it than it may hold is refused in words', () => {
    fc.assert(
      fc.property(
        plans,
        fc.jsonValue(),
        fc.constantFrom('garden', 'features', 'properties', 'geometry'),
        (plan, odd, where) => {
          const [first] = plan.features
          const changed: Record<string, [object, object[]]> = {
            garden: [{ ...plan.garden, latitude: odd }, plan.features],
            features: [plan.garden, [odd as object]],
            properties: [plan.garden, [{ ...first, properties: odd }]],
            geometry: [plan.garden, [{ ...first, geometry: odd }]],
          }
          const [garden, features] = changed[where]!
          const text = textOf({ ...garden, coordinates: 'local-metres' }, features)
          expectWords(readPlan(text), 'plan.geojson', text)
        },
      ),
      { ...runs, numRuns: 200 },
    )
  })
})

describe('a problem', () => {
  it('of a date says what a date is like, for every text that is none', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 12 }), (text) => {
        fc.pre(!isIsoDate(text.trim()) && !/[",\r\n]/.test(text) && text.trim() !== '')
        const read = readSoil(`day,celsius\n${text},4\n`, new Set(), TODAY)
        const problems: FileProblem[] = read.ok ? [] : read.problems
        expect(problems.map((p) => [p.line, p.column, p.message])).toEqual([
          [2, 'day', 'must be a date like 2026-09-14'],
        ])
      }),
      runs,
    )
  })
})
