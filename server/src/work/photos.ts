import type { photoRequest } from '@border/contract'
import exifReader from 'exif-reader'
import sharp, { type Sharp } from 'sharp'
import { limits } from '@border/core'
import type { z } from 'zod'
import type { TrulyNoted } from '../deviceClock.ts'
import type { SentFile } from '../body.ts'
import { Refusal } from '../errors.ts'
import type { NewPhoto } from '../store/photos.ts'
import type { NewPlanPicture } from '../store/pictures.ts'
import { Turns } from '../turns.ts'

/** Longest side kept, in pixels, and of the small version for lists. */
const LONGEST = 2000
const SMALL = 360
/** Of a scan under the plan: its small print should be read. */
const LONGEST_SCAN = 4000
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
  turns.take(() =>
    opened(file.bytes, async (upright, exif) => ({
      id: request.id,
      takenOn: request.on,
      takenAt: request.at,
      deviceAt: request.deviceAt,
      standpointId: request.standpointId,
      plantingId: request.plantingId,
      placeId: request.placeId,
      ...(await jpegOf(upright, LONGEST, 82)),
      small: (await jpegOf(upright, SMALL, 74)).picture,
      contentHash: file.digest,
      position: request.keepPosition && exif ? positionIn(exif) : null,
    })),
  )

/**
 * A scan or photo to lie under the plan, made anew likewise.
 *
 * @throws {Refusal} as of a photo
 */
export const makePlanPicture = (
  request: { id: string; name: string },
  file: SentFile,
): Promise<NewPlanPicture> =>
  turns.take(() =>
    opened(file.bytes, async (upright) => ({
      ...request,
      // What is clear in it is paper.
      ...(await jpegOf(upright.flatten({ background: '#ffffff' }), LONGEST_SCAN, 82)),
      contentHash: file.digest,
    })),
  )

async function jpegOf(upright: Sharp, longest: number, quality: number) {
  const { data, info } = await upright
    .clone()
    .resize(longest, longest, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality, mozjpeg: true })
    .toBuffer({ resolveWithObject: true })
  return { picture: data, width: info.width, height: info.height }
}

async function opened<T>(bytes: Buffer, make: (upright: Sharp, exif: Buffer | undefined) => Promise<T>) {
  try {
    const source = sharp(bytes, { limitInputPixels: limits.pixels, failOn: 'error' })
    // Told by its first bytes: nothing of the picture is read.
    const { exif, format, width, height } = await sharp(bytes, { limitInputPixels: false }).metadata()
    if (!formats.includes(format ?? '')) throw new Error(`Not a photo: ${format}`)
    if (width * height > limits.pixels) throw tooLarge(width, height)
    return await make(source.rotate(), exif)
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
