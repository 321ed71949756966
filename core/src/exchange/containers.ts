import { z } from 'zod'
import { featureProperties, type PlanFeature } from '../garden/index.ts'
import { words } from '../written/index.ts'
import { checkFeature } from './plan.ts'
import type { FileProblem, FileResult } from './problems.ts'
import {
  inFileOrder,
  number,
  optional,
  readCells,
  readTable,
  whole,
  writeTable,
  yesNo,
  type Located,
} from './table.ts'

/** Coordinates of a plan reach no further, metres. */
const FARTHEST_M = 10_000

const text = (most: number) => optional(z.string().trim().max(most))
const size = optional(number(0, 100))

/** One row of `containers.csv`: a container of the plan. What it may be is checked as the plan checks it. */
const containerRow = z.object({
  name: words(120),
  x_m: optional(number(-FARTHEST_M, FARTHEST_M)),
  y_m: optional(number(-FARTHEST_M, FARTHEST_M)),
  shape: text(40),
  diameter_m: size,
  length_m: size,
  width_m: size,
  rim_height_m: size,
  depth_m: size,
  foot_m: size,
  wall_m: size,
  material: text(60),
  holes: optional(whole(0, 100)),
  feet: yesNo,
  saucer: yesNo,
  reservoir_l: optional(number(0, 500)),
  stands_on: text(40),
  stands_m: size,
  facing_deg: optional(number(0, 360)),
  moved_by: text(40),
  cover: text(40),
})
type Row = z.infer<typeof containerRow>
type Column = Exclude<keyof Row, 'name' | 'x_m' | 'y_m'>

/** What the plan calls what a column holds. */
const propertyOf: Readonly<Record<Column, keyof z.infer<(typeof featureProperties)['container']>>> = {
  shape: 'shape',
  diameter_m: 'diameterM',
  length_m: 'lengthM',
  width_m: 'widthM',
  rim_height_m: 'rimHeightM',
  depth_m: 'depthM',
  foot_m: 'footM',
  wall_m: 'wallM',
  material: 'material',
  holes: 'holes',
  feet: 'feet',
  saucer: 'saucer',
  reservoir_l: 'reservoirL',
  stands_on: 'standsOn',
  stands_m: 'standsM',
  facing_deg: 'facingDeg',
  moved_by: 'movedBy',
  cover: 'cover',
}
const columnOf = new Map<string, string>([
  ...Object.entries(propertyOf).map(([column, property]) => [property, column] as const),
  ['name', 'name'],
])

/** A container as a file tells of it. */
export type ContainerRow = Located<{
  name: string
  /** Undefined where the row does not say: then one of that name stays where it stands. */
  at?: [x: number, y: number] | undefined
  /** What the file has columns for; undefined: unsaid. */
  properties: Record<string, unknown>
}>

/** Reads containers, each by its name. Columns that a file has not say nothing; a blank cell says that it is not known. */
export function readContainers(csv: string, file = 'containers.csv'): FileResult<ContainerRow[]> {
  const { rows, problems } = readTable(csv, containerRow, file)
  const columns = readCells(csv, file).columns.filter((c): c is Column => c in propertyOf)
  const lines = new Map<string, number>()
  const found = rows.map(({ line, name, x_m, y_m, ...said }): ContainerRow => {
    const wrong = (column: string, message: string) => problems.push({ file, line, column, message })
    const before = lines.get(name)
    if (before === undefined) lines.set(name, line)
    else wrong('name', `already told of on line ${before}`)
    if ((x_m === undefined) !== (y_m === undefined))
      wrong(x_m === undefined ? 'x_m' : 'y_m', 'a place needs both x_m and y_m')
    const at = x_m === undefined || y_m === undefined ? undefined : ([x_m, y_m] as [number, number])
    const properties = Object.fromEntries(columns.map((c) => [propertyOf[c], said[c]]))
    problems.push(...faultsOf({ name, properties }, line, file))
    return { line, name, at, properties }
  })
  return problems.length > 0 ? { ok: false, problems: inFileOrder(problems) } : { ok: true, value: found }
}

/** What is wrong with a row as a container of the plan, by its columns. */
function faultsOf(
  { name, properties }: Pick<ContainerRow, 'name' | 'properties'>,
  line: number,
  file: string,
): FileProblem[] {
  const read = checkFeature({
    type: 'Feature',
    properties: { ...said(properties), kind: 'container', name },
    geometry: { type: 'Point', coordinates: [0, 0] },
  })
  return read.ok
    ? []
    : read.problems.map(({ property, message }) => ({
        file,
        line,
        column: columnOf.get(property ?? '') ?? 'name',
        message,
      }))
}

const said = (properties: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(properties).filter(([, v]) => v !== undefined))

/** A container of the plan put as a row has it: what the file has no column for stays. @param was undefined where it is new */
export function containerAs(row: ContainerRow, was: PlanFeature | undefined): PlanFeature | undefined {
  const at = row.at ?? (was?.geometry.type === 'Point' ? was.geometry.coordinates : undefined)
  if (!at) return undefined
  return {
    kind: 'container',
    name: row.name,
    from: was?.from ?? null,
    to: was?.to ?? null,
    geometry: { type: 'Point', coordinates: [at[0], at[1]] },
    properties: said({ ...was?.properties, ...row.properties }),
  }
}

/** Writes `containers.csv`: the containers among the features of a plan. */
export function writeContainers(features: readonly PlanFeature[]): string {
  const columns = Object.keys(containerRow.shape) as (keyof Row)[]
  const rows = features.flatMap(({ kind, name, geometry, properties }) => {
    if (kind !== 'container' || geometry.type !== 'Point') return []
    const [x, y] = geometry.coordinates
    const cell = (column: keyof Row) => {
      if (column === 'name') return name
      if (column === 'x_m') return x
      if (column === 'y_m') return y
      const value = properties[propertyOf[column]]
      return typeof value === 'boolean' ? (value ? 'yes' : 'no') : (value as string | number | undefined)
    }
    return [columns.map(cell)]
  })
  return writeTable(columns, rows)
}
