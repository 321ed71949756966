import type { FeatureRecord } from '@border/contract'
import { gridOver, ringOf } from '@border/core'
import { rgb } from 'd3-color'
import type { FieldImage } from '../plan/PlanDrawing.tsx'

/**
 * Values over a bed's cells as a picture, one pixel a cell. Cells outside the outline take the colour of a neighbour, so
 * that the clipped edge shows no gaps.
 */
export function fieldImage(
  bed: FeatureRecord,
  cellM: number,
  values: Float32Array,
  colourOf: (v: number) => string,
): FieldImage {
  const grid = gridOver(ringOf(bed.geometry), cellM)
  const { columns, rows } = grid
  const canvas = document.createElement('canvas')
  canvas.width = columns
  canvas.height = rows
  const context = canvas.getContext('2d')!
  const picture = context.createImageData(columns, rows)
  const known = new Map(grid.cells.map((cell, i) => [cell, values[i]!]))
  for (let cell = 0; cell < columns * rows; cell++) {
    const value = known.get(cell) ?? nearValue(known, cell, columns)
    if (value === undefined) continue
    const { r, g, b } = rgb(colourOf(value))
    // Rows of the grid run up the plan, those of a picture down.
    const at = 4 * ((rows - 1 - Math.floor(cell / columns)) * columns + (cell % columns))
    picture.data.set([r, g, b, 255], at)
  }
  context.putImageData(picture, 0, 0)
  return {
    href: canvas.toDataURL(),
    minX: grid.x0,
    minY: grid.y0,
    maxX: grid.x0 + columns * grid.cellM,
    maxY: grid.y0 + rows * grid.cellM,
  }
}

function nearValue(known: ReadonlyMap<number, number>, cell: number, columns: number): number | undefined {
  const column = cell % columns
  for (const dx of [0, -1, 1])
    for (const dy of [0, -1, 1]) {
      if (column + dx < 0 || column + dx >= columns) continue
      const value = known.get(cell + dx + dy * columns)
      if (value !== undefined) return value
    }
  return undefined
}
