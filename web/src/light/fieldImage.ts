import type { Plot } from '@border/core'
import { rgb } from 'd3-color'
import type { FieldImage } from '../plan/Ground.tsx'

/** Steps of an hour that colours are told apart by. */
const PER_HOUR = 12

/**
 * Values over a plot's cells as a picture, one pixel a cell. Cells outside the beds take the colour of a neighbour, so
 * that the clipped edge shows no gaps.
 */
export function fieldImage(
  { raster }: Plot,
  values: Float32Array,
  colourOf: (v: number) => string,
): Omit<FieldImage, 'bedIds'> {
  const { columns, rows, firstAt } = raster
  const canvas = document.createElement('canvas')
  canvas.width = columns
  canvas.height = rows
  const context = canvas.getContext('2d')!
  const picture = context.createImageData(columns, rows)
  const pixels = new Uint32Array(picture.data.buffer)
  const colours = new Map<number, number>()
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const cell = cellNear(column, row)
      if (cell === undefined) continue
      const step = Math.round(values[cell]! * PER_HOUR)
      let colour = colours.get(step)
      if (colour === undefined) colours.set(step, (colour = pixelOf(colourOf(step / PER_HOUR))))
      // Rows of the raster run up the plan, those of a picture down.
      pixels[(rows - 1 - row) * columns + column] = colour
    }
  context.putImageData(picture, 0, 0)
  return {
    href: canvas.toDataURL(),
    minX: raster.x0,
    minY: raster.y0,
    maxX: raster.x0 + columns * raster.cellM,
    maxY: raster.y0 + rows * raster.cellM,
  }

  function cellOf(column: number, row: number): number | undefined {
    if (column < 0 || row < 0 || column >= columns || row >= rows) return undefined
    const at = row * (columns + 1) + column
    return firstAt[at + 1]! > firstAt[at]! ? firstAt[at] : undefined
  }

  function cellNear(column: number, row: number): number | undefined {
    const own = cellOf(column, row)
    if (own !== undefined) return own
    for (const dx of [0, -1, 1])
      for (const dy of [0, -1, 1]) {
        const near = cellOf(column + dx, row + dy)
        if (near !== undefined) return near
      }
    return undefined
  }
}

/** Red, green, blue and full opacity as the bytes of one number. */
function pixelOf(colour: string): number {
  const { r, g, b } = rgb(colour)
  return new Uint32Array(new Uint8Array([r, g, b, 255]).buffer)[0]!
}
