import type { PhotoRequest } from '@border/contract'
import { smallerPicture } from '../frame/smallerPicture.ts'
import { notePhoto } from '../offline/queue.ts'
import { countWaiting } from '../offline/sync.ts'

const LONGEST = 2000

/**
 * Keeps a photo on the device until it is sent: made smaller and the right way up, and with that free of what the camera
 * wrote into it, unless where it was taken is wanted.
 */
export async function takePhoto(
  owner: { gardenId: string; personId: string },
  about: Pick<PhotoRequest, 'standpointId' | 'plantingId' | 'placeId'>,
  day: string,
  file: File,
  keepPosition: boolean,
  serverAheadMs: number,
): Promise<void> {
  await notePhoto({
    ...owner,
    id: crypto.randomUUID(),
    state: 'noted',
    notedAt: Date.now(),
    picture: keepPosition
      ? file
      : // A kind of picture this browser cannot draw: the server reads more of them, and says so if it cannot.
        await smallerPicture(file, LONGEST).catch(() => file),
    about: { ...about, on: day, at: new Date().toISOString(), serverAheadMs, keepPosition },
  })
  await countWaiting()
}
