import type { photoRequest } from '@border/contract'
import exifReader from 'exif-reader'
import { createHash } from 'node:crypto'
import sharp from 'sharp'
import type { z } from 'zod'
import { Refusal } from '../errors.ts'
import type { NewPhoto } from '../store/photos.ts'

/** Longest side kept, in pixels, and of the small version for lists. */
const LONGEST = 2000
const SMALL = 360
/** Drawings that run code, and documents, are no photos. */
const formats: readonly string[] = ['jpeg', 'png', 'webp', 'heif', 'tiff']
/** A picture of more pixels is not a photo of a border but an attack on memory. */
const MOST_PIXELS = 120_000_000

/**
 * Takes a picture file apart and makes it anew: turned the right way up, no larger than needed, without anything the
 * camera wrote beside the picture. Where it was taken is read out only when it is wanted.
 *
 * @throws {Refusal} when it is no picture
 */
export async function makePhoto(request: z.output<typeof photoRequest>): Promise<NewPhoto> {
  const file = Buffer.from(request.data, 'base64')
  try {
    const source = sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    const { exif, format } = await source.metadata()
    if (!formats.includes(format ?? '')) throw new Error(`Not a photo: ${format}`)
    const upright = source.rotate()
    const { data: picture, info } = await upright
      .clone()
      .resize(LONGEST, LONGEST, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82, mozjpeg: true })
      .toBuffer({ resolveWithObject: true })
    const small = await upright
      .clone()
      .resize(SMALL, SMALL, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 74 })
      .toBuffer()
    return {
      id: request.id,
      takenOn: request.on,
      takenAt: request.at,
      standpointId: request.standpointId,
      plantingId: request.plantingId,
      placeId: request.placeId,
      width: info.width,
      height: info.height,
      picture,
      small,
      contentHash: createHash('sha256').update(file).digest('hex'),
      position: request.keepPosition && exif ? positionIn(exif) : null,
    }
  } catch {
    throw new Refusal(422, 'This file is not a picture that can be read. Nothing was saved.')
  }
}

function positionIn(exif: Buffer): { latitude: number; longitude: number } | null {
  const gps = exifReader(exif).GPSInfo
  const degrees = (parts: number[] | undefined, ref: string | undefined, negative: string) =>
    parts && parts.length === 3
      ? (parts[0]! + parts[1]! / 60 + parts[2]! / 3600) * (ref === negative ? -1 : 1)
      : undefined
  const latitude = degrees(gps?.GPSLatitude, gps?.GPSLatitudeRef, 'S')
  const longitude = degrees(gps?.GPSLongitude, gps?.GPSLongitudeRef, 'W')
  return latitude === undefined || longitude === undefined ? null : { latitude, longitude }
}
