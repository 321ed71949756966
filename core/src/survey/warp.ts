import type { Extent } from '../geometry/index.ts'
import type { Homography } from './picture.ts'

/** Points of a picture, row by row from the upper left: red, green, blue and how opaque, 0 to 255 each. */
export interface Pixels {
  data: Uint8ClampedArray
  width: number
  height: number
}

const CHANNELS = 4

/** From plan metres to picture points: the other way round. */
export function inverseOf(h: Homography): Homography {
  const [a, b, c, d, e, f, g, k, i] = h
  const [A, B, C] = [e * i - f * k, f * g - d * i, d * k - e * g]
  const det = a * A + b * B + c * C
  return [
    A / det,
    (c * k - b * i) / det,
    (b * f - c * e) / det,
    B / det,
    (a * i - c * g) / det,
    (c * d - a * f) / det,
    C / det,
    (b * g - a * k) / det,
    (a * e - b * d) / det,
  ]
}

/**
 * A slanting picture as it would be from straight above: of each point of the new one, what the old one has there, between its four
 * neighbours in proportion; clear where it has nothing.
 *
 * @param ground plan metres that the new one shows, up the plan at its top
 * @param width of the new one, points; its height follows
 */
export function warped(source: Pixels, h: Homography, ground: Extent, width: number): Pixels {
  const perM = width / (ground.maxX - ground.minX)
  const height = Math.max(1, Math.round((ground.maxY - ground.minY) * perM))
  const data = new Uint8ClampedArray(width * height * CHANNELS)
  const [a, b, c, d, e, f, g, k, i] = inverseOf(h)
  for (let row = 0, to = 0; row < height; row++) {
    const y = ground.maxY - (row + 0.5) / perM
    for (let column = 0; column < width; column++, to += CHANNELS) {
      const x = ground.minX + (column + 0.5) / perM
      const w = g * x + k * y + i
      // The middle of a picture's first point lies half a point in.
      sample(source, (a * x + b * y + c) / w - 0.5, (d * x + e * y + f) / w - 0.5, data, to)
    }
  }
  return { data, width, height }
}

/** What a picture has between its points. */
function sample({ data, width, height }: Pixels, x: number, y: number, into: Uint8ClampedArray, to: number) {
  if (!(x >= -0.5 && y >= -0.5 && x <= width - 0.5 && y <= height - 0.5)) return
  const [x0, y0] = [Math.max(0, Math.floor(x)), Math.max(0, Math.floor(y))]
  const [x1, y1] = [Math.min(width - 1, x0 + 1), Math.min(height - 1, y0 + 1)]
  const [u, v] = [Math.max(0, x - x0), Math.max(0, y - y0)]
  const [p, q] = [y0 * width, y1 * width]
  for (let n = 0; n < CHANNELS; n++) {
    const upper = data[(p + x0) * CHANNELS + n]! * (1 - u) + data[(p + x1) * CHANNELS + n]! * u
    const lower = data[(q + x0) * CHANNELS + n]! * (1 - u) + data[(q + x1) * CHANNELS + n]! * u
    into[to + n] = upper * (1 - v) + lower * v
  }
}
