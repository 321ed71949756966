import { warped, type Extent, type Homography, type Pixels } from '@border/core'
import { expose } from 'comlink'

/** The picture last straightened: while its points are moved it is the same. */
let held: { address: string; pixels: Promise<Pixels> } | undefined

async function unpacked(address: string): Promise<Pixels> {
  const response = await fetch(address)
  if (!response.ok) throw new Error(`The picture is not there: ${response.status}`)
  const bitmap = await createImageBitmap(await response.blob())
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!
  context.drawImage(bitmap, 0, 0)
  return context.getImageData(0, 0, bitmap.width, bitmap.height)
}

const worker = {
  /** @param width of what is made, points @returns PNG: clear where the picture shows nothing */
  async straighten(address: string, homography: Homography, ground: Extent, width: number): Promise<Blob> {
    if (held?.address !== address) held = { address, pixels: unpacked(address) }
    let pixels: Pixels
    try {
      pixels = await held.pixels
    } catch (error) {
      held = undefined
      throw error
    }
    const made = warped(pixels, homography, ground, width)
    const canvas = new OffscreenCanvas(made.width, made.height)
    const image = new ImageData(made.data as Uint8ClampedArray<ArrayBuffer>, made.width, made.height)
    canvas.getContext('2d')!.putImageData(image, 0, 0)
    return canvas.convertToBlob({ type: 'image/png' })
  },
}
export type WarpWorker = typeof worker

expose(worker)
