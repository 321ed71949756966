import type { photoRequest } from '@border/contract'
import exifReader from 'exif-reader'
import sharp from 'sharp'
import { limits } from '@border/core'
import type { z } from 'zod'
import type { TrulyNoted } from '../deviceClock.ts'
import type { SentFile } from '../body.ts'
import { Refusal } from '../errors.ts'
import type { NewPhoto } from '../store/photos.ts'
import { Turns } from '../turns.ts'

/** Longest side kept, in pixels, and of the small version for lists. */
const LONGEST = 2000
const SMALL = 360
type TakenPhoto = TrulyNoted<z.output<typeof photoRequest>>

/** Drawings that run code, and documents, are no photos. */
const formats: readonly string[] = ['jpeg', 'png', 'webp', 'heif', 'tiff']
/** A picture takes some hundred megabytes while it is made anew. */
const turns = new Turns({
  slots: 2,
  slotsOfOne: 1,
  mostWaiting: 6,
  tooMany: 'Your photos come faster than they can be read. Send the next one in a moment; nothing is lost.',
})

/**
 * Takes a picture file apart and makes it anew: turned the right way up, no larger than needed, without anything the
 * camera wrote beside the picture. Where it was taken is read out only when it is wanted.
 *
 * @throws {Refusal} when it is no picture, or one of more points than cameras make, or too many wait already
 */
export const makePhoto = (request: TakenPhoto, file: SentFile): Promise<NewPhoto> =>
  turns.take(() => madeAnew(request, file))

async function madeAnew(request: TakenPhoto, { bytes, digest }: SentFile): Promise<NewPhoto> {
  try {
    const source = sharp(bytes, { limitInputPixels: limits.pixels, failOn: 'error' })
    // Told by its first bytes: nothing of the picture is read.
    const { exif, format, width, height } = await sharp(bytes, { limitInputPixels: false }).metadata()
    if (!formats.includes(format ?? '')) throw new Error(`Not a photo: ${format}`)
    if (width * height > limits.pixels) throw tooLarge(width, height)
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
      deviceAt: request.deviceAt,
      standpointId: request.standpointId,
      plantingId: request.plantingId,
      placeId: request.placeId,
      width: info.width,
      height: info.height,
      picture,
      small,
      contentHash: digest,
      position: request.keepPosition && exif ? positionIn(exif) : null,
    }
  } catch (error) {
    if (error instanceof Refusal) throw error
    throw new Refusal(422, 'This file is not a picture that can be read. Nothing was saved.')
  }
}

const tooLarge = (width: number, height: number): Refusal =>
  new Refusal(
    422,
    `This picture is ${width} by ${height} points, more than the ${limits.pixels / 1e6} million that are taken. Nothing was saved.`,
  )

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
