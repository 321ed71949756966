import jsQR from 'jsqr'
import { describe, expect, it } from 'vitest'
import { QUIET, qrOf } from './qr.ts'

/** As a camera sees it: dark squares of some pixels on white, some of it soiled. */
function photographed({ size, path }: ReturnType<typeof qrOf>, soiled: (x: number, y: number) => boolean) {
  const k = 4
  const side = size * k
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255)
  const ink = (x: number, y: number, shade: number) => {
    for (let dy = 0; dy < k; dy++)
      for (let dx = 0; dx < k; dx++)
        pixels.fill(shade, 4 * ((y * k + dy) * side + x * k + dx), 4 * ((y * k + dy) * side + x * k + dx) + 3)
  }
  for (const [, x, y] of path.matchAll(/M(\d+),(\d+)h1v1h-1z/g)) ink(Number(x), Number(y), 0)
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) if (soiled(x, y)) ink(x, y, 0)
  return jsQR(pixels, side, side)?.data
}

const address =
  'http://192.168.20.41:5180/g/0b6f41c2-9d3e-4f5a-8c7b-1a2b3c4d5e6f/plants/9a8b7c6d-5e4f-4a3b-8c2d-1e0f9a8b7c6d'

describe('the code on a label', () => {
  it('is read by another program, as it is and soiled', () => {
    const code = qrOf(address)
    expect(photographed(code, () => false)).toBe(address)
    const [from, to] = [Math.floor(code.size * 0.45), Math.floor(code.size * 0.62)]
    expect(photographed(code, (x, y) => x > from && x < to && y > from && y < to)).toBe(address)
  })

  it('has room about it, by which it is found', () => {
    const { size, path } = qrOf(address)
    const at = [...path.matchAll(/M(\d+),(\d+)h/g)].flatMap(([, x, y]) => [Number(x), Number(y)])
    expect(Math.min(...at)).toBe(QUIET)
    expect(Math.max(...at)).toBe(size - QUIET - 1)
  })
})
