import { limits } from '@border/core'
import { smallerPicture } from '../frame/smallerPicture.ts'

/** What the server takes at once, with room for what travels beside it, bytes. */
const MOST_BYTES = 9_500_000
/** Longest side of what is made smaller here, and of a page, points. */
const LONGEST = 4000

export const isPdf = (file: File): boolean => file.type === 'application/pdf' || /\.pdf$/i.test(file.name)

/** A file that cannot be brought in; its words are for whoever chose it. */
export class NotBroughtIn extends Error {}

/** How many points a picture has, told without unpacking it. @throws {NotBroughtIn} where it is none */
async function sizeOf(file: Blob): Promise<{ width: number; height: number }> {
  const address = URL.createObjectURL(file)
  try {
    const image = new Image()
    await new Promise<void>((resolve, reject) => {
      image.onload = () => resolve()
      image.onerror = () => reject(new NotBroughtIn('This file is not a picture that can be read.'))
      image.src = address
    })
    return { width: image.naturalWidth, height: image.naturalHeight }
  } finally {
    URL.revokeObjectURL(address)
  }
}

/**
 * A picture as it is sent: as it is, or made smaller where it is more than is taken at once.
 *
 * @throws {NotBroughtIn} where it has more points than are taken
 */
export async function readyToSend(file: File): Promise<Blob> {
  if (file.size <= MOST_BYTES) return file
  const { width, height } = await sizeOf(file)
  if (width * height > limits.pixels)
    throw new NotBroughtIn(
      `This picture is ${width} by ${height} points, more than the ${limits.pixels / 1e6} million that are taken. Scan it with fewer.`,
    )
  return smallerPicture(file, LONGEST)
}

/** A document whose pages can be laid under the plan. */
export interface Pages {
  count: number
  /** @param n from 1 */
  page: (n: number) => Promise<Blob>
  close: () => void
}

/** @throws {NotBroughtIn} where it is no document, or a locked one */
export async function openPdf(file: File): Promise<Pages> {
  // It is large, and few need it.
  const { getDocument, GlobalWorkerOptions } = await import('pdfjs-dist')
  const { default: workerAddress } = await import('pdfjs-dist/build/pdf.worker.min.mjs?url')
  GlobalWorkerOptions.workerSrc = workerAddress
  const loading = getDocument({
    data: new Uint8Array(await file.arrayBuffer()),
    isEvalSupported: false,
    // Letters are drawn as shapes: the page needs no fonts of the document's.
    disableFontFace: true,
  })
  try {
    const document_ = await loading.promise
    return {
      count: document_.numPages,
      page: async (n) => {
        const page = await document_.getPage(n)
        const { width, height } = page.getViewport({ scale: 1 })
        const viewport = page.getViewport({ scale: LONGEST / Math.max(width, height) })
        const canvas = document.createElement('canvas')
        canvas.width = Math.round(viewport.width)
        canvas.height = Math.round(viewport.height)
        await page.render({ canvas, viewport, background: '#ffffff' }).promise
        return new Promise((resolve, reject) =>
          canvas.toBlob(
            (blob) => (blob ? resolve(blob) : reject(new NotBroughtIn('This page cannot be drawn.'))),
            'image/jpeg',
            0.88,
          ),
        )
      },
      close: () => void loading.destroy(),
    }
  } catch (error) {
    void loading.destroy()
    throw new NotBroughtIn(
      (error as Error).name === 'PasswordException'
        ? 'This document is locked with a password. Unlock it first.'
        : 'This document cannot be read as a PDF.',
    )
  }
}
