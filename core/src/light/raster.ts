import { centroid, extentOf, isInside, type Extent, type Ring } from '../geometry/index.ts'

/** Side of a cell of a field, metres, where nobody asks for another. */
export const CELL_M = 0.25

/** Most cells a raster keeps; wider cells are used beyond it. */
const MOST_CELLS = 40_000
/** Most cells of the rectangle round all of them. */
const MOST_SPANNED = 4_000_000

/**
 * Square cells over any number of outlines, only those whose centre lies in one kept, and at least one each. Kept cells are numbered row by
 * row from the south, so that any stretch of a row is a run of numbers: a shadow is drawn as such runs. The lines between cells run
 * through the origin: an outline's cells are the same whichever others are with it.
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
  const x0 = Math.floor(all.minX / size) * size
  const y0 = Math.floor(all.minY / size) * size
  const columns = Math.ceil((all.maxX - x0) / size)
  const rows = Math.ceil((all.maxY - y0) / size)
  const kept = new Uint8Array(columns * rows)
  rings.forEach((ring, i) => keepWithin(ring, extents[i]!))
  return numbered()

  function keepWithin(ring: Ring, e: Extent): void {
    const lastColumn = Math.min(columns - 1, Math.floor((e.maxX - x0) / size))
    let any = 0
    const lastRow = Math.min(rows - 1, Math.floor((e.maxY - y0) / size))
    for (let row = Math.floor((e.minY - y0) / size); row <= lastRow; row++)
      for (let column = Math.floor((e.minX - x0) / size); column <= lastColumn; column++)
        if (isInside(ring, x0 + (column + 0.5) * size, y0 + (row + 0.5) * size))
          any = kept[row * columns + column] = 1
    // A bed smaller than a cell still has one.
    if (any) return
    const [x, y] = centroid(ring)
    const at = (v: number, from: number, most: number) =>
      Math.max(0, Math.min(most - 1, Math.floor((v - from) / size)))
    kept[at(y, y0, rows) * columns + at(x, x0, columns)] = 1
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
        x[n] = x0 + (column + 0.5) * size
        y[n] = y0 + (row + 0.5) * size
        n++
      }
      firstAt[row * (columns + 1) + columns] = n
    }
    return { cellM: size, x0, y0, columns, rows, count, firstAt, x, y }
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
