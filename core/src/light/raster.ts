import { centroid, extentOf, isInside, type Extent, type Ring } from '../geometry/index.ts'

export const CELL_M = 0.25

/** Most cells a raster keeps; wider cells are used beyond it. */
const MOST_CELLS = 40_000
/** Most cells of the rectangle round all of them. */
const MOST_SPANNED = 4_000_000

/**
 * Square cells over any number of outlines, only those whose centre lies in one kept, and at least one each. Kept cells are numbered row by
 * row from the south, so that any stretch of a row is a run of numbers: a shadow is drawn as such runs.
 */
export interface Raster {
  cellM: number
  /** Lower left corner of column 0, row 0. */
  x0: number
  y0: number
  columns: number
  rows: number
  /** Number of kept cells. */
  count: number
  /** `firstAt[row * (columns + 1) + column]`: kept cells before that column of that row. */
  firstAt: Int32Array
  /** Centre of each kept cell. */
  x: Float64Array
  y: Float64Array
}

/**
 * @param rings outlines; they may overlap
 * @param cellM size of a cell; made larger when that would be too many
 * @throws {RangeError} when there are no outlines or one of them has no area
 */
export function rasterOver(rings: readonly Ring[], cellM = CELL_M): Raster {
  const extents = rings.map((ring) => extentOf(ring))
  if (extents.length === 0 || extents.some((e) => e.maxX <= e.minX || e.maxY <= e.minY))
    throw new RangeError('An outline without area has no cells')
  const all = extentOf(
    extents.flatMap((e) => [
      [e.minX, e.minY],
      [e.maxX, e.maxY],
    ]),
  )
  const boxed = extents.reduce((sum, e) => sum + area(e), 0)
  const size = Math.max(cellM, Math.sqrt(boxed / MOST_CELLS), Math.sqrt(area(all) / MOST_SPANNED))
  const columns = Math.ceil((all.maxX - all.minX) / size)
  const rows = Math.ceil((all.maxY - all.minY) / size)
  const kept = new Uint8Array(columns * rows)
  rings.forEach((ring, i) => keepWithin(ring, extents[i]!))
  return numbered()

  function keepWithin(ring: Ring, e: Extent): void {
    const lastColumn = Math.min(columns - 1, Math.floor((e.maxX - all.minX) / size))
    let any = 0
    const lastRow = Math.min(rows - 1, Math.floor((e.maxY - all.minY) / size))
    for (let row = Math.floor((e.minY - all.minY) / size); row <= lastRow; row++)
      for (let column = Math.floor((e.minX - all.minX) / size); column <= lastColumn; column++)
        if (isInside(ring, all.minX + (column + 0.5) * size, all.minY + (row + 0.5) * size))
          any = kept[row * columns + column] = 1
    // A bed smaller than a cell still has one.
    if (any) return
    const [x, y] = centroid(ring)
    const at = (v: number, from: number, most: number) =>
      Math.max(0, Math.min(most - 1, Math.floor((v - from) / size)))
    kept[at(y, all.minY, rows) * columns + at(x, all.minX, columns)] = 1
  }

  function numbered(): Raster {
    const firstAt = new Int32Array(rows * (columns + 1))
    const count = kept.reduce((sum, k) => sum + k, 0)
    const x = new Float64Array(count)
    const y = new Float64Array(count)
    let n = 0
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        firstAt[row * (columns + 1) + column] = n
        if (kept[row * columns + column] === 0) continue
        x[n] = all.minX + (column + 0.5) * size
        y[n] = all.minY + (row + 0.5) * size
        n++
      }
      firstAt[row * (columns + 1) + columns] = n
    }
    return { cellM: size, x0: all.minX, y0: all.minY, columns, rows, count, firstAt, x, y }
  }
}

const area = (e: Extent) => (e.maxX - e.minX) * (e.maxY - e.minY)

/** The kept cell that holds a point, undefined when none does. */
export function cellAt(raster: Raster, x: number, y: number): number | undefined {
  const column = Math.floor((x - raster.x0) / raster.cellM)
  const row = Math.floor((y - raster.y0) / raster.cellM)
  if (column < 0 || row < 0 || column >= raster.columns || row >= raster.rows) return undefined
  const at = row * (raster.columns + 1) + column
  return raster.firstAt[at + 1]! > raster.firstAt[at]! ? raster.firstAt[at] : undefined
}
