import { extentOf, isInside, type Ring } from '../geometry/index.ts'
import { hoursAt, lightDays, type LightPeriod, type LightPoint, type Scene, type SunHours } from './hours.ts'

/** Square cells over one bed; only cells whose centre lies in the bed are kept. */
export interface Grid {
  cellM: number
  /** Lower left corner of column 0, row 0. */
  x0: number
  y0: number
  columns: number
  rows: number
  /** Column + row x columns of each kept cell, ascending. */
  cells: number[]
}

export const CELL_M = 0.25

/** Largest number of cells a bed is divided into; wider cells are used beyond it. */
const MOST_CELLS = 40_000

/** @throws {RangeError} when the ring has no area */
export function gridOver(ring: Ring, cellM = CELL_M): Grid {
  const e = extentOf(ring)
  if (e.maxX <= e.minX || e.maxY <= e.minY) throw new RangeError('A bed without area has no cells')
  const needed = ((e.maxX - e.minX) * (e.maxY - e.minY)) / (cellM * cellM)
  const size = needed > MOST_CELLS ? cellM * Math.sqrt(needed / MOST_CELLS) : cellM
  const columns = Math.ceil((e.maxX - e.minX) / size)
  const rows = Math.ceil((e.maxY - e.minY) / size)
  const cells: number[] = []
  const grid = { cellM: size, x0: e.minX, y0: e.minY, columns, rows, cells }
  for (let i = 0; i < columns * rows; i++) {
    const p = cellCentre(grid, i)
    if (isInside(ring, p.x, p.y)) cells.push(i)
  }
  return grid
}

export function cellCentre(grid: Omit<Grid, 'cells'>, cell: number): LightPoint {
  return {
    x: grid.x0 + ((cell % grid.columns) + 0.5) * grid.cellM,
    y: grid.y0 + (Math.floor(cell / grid.columns) + 0.5) * grid.cellM,
    z: 0,
  }
}

/** A bed's hours, one entry a kept cell in the order of `grid.cells`. */
export interface LightField {
  grid: Grid
  hours: SunHours[]
}

export function lightField(scene: Scene, ring: Ring, period: LightPeriod, cellM?: number): LightField {
  const grid = gridOver(ring, cellM)
  const days = lightDays(scene, period)
  return { grid, hours: grid.cells.map((c) => hoursAt(days, cellCentre(grid, c))) }
}
