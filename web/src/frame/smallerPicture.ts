/**
 * A picture made smaller and the right way up, and with that free of what a camera wrote into it: JPEG.
 *
 * @param longest of its sides at most, points
 * @throws where this browser cannot draw it
 */
export async function smallerPicture(file: Blob, longest: number): Promise<Blob> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const scale = Math.min(1, longest / Math.max(bitmap.width, bitmap.height))
  const canvas = new OffscreenCanvas(Math.round(bitmap.width * scale), Math.round(bitmap.height * scale))
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 })
}
