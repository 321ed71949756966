import { useSignedIn } from '../api/session.ts'
import { announce } from '../frame/Announced.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { syncNow } from '../offline/sync.ts'
import { takePhoto } from '../walk/takePhoto.ts'

/** Takes a photo of a planting today: kept on the device, and sent when there is a connection. */
export function usePlantingPhoto() {
  const { view, today } = useGardenContext()
  const { person, clockAheadMs } = useSignedIn()
  const owner = { gardenId: view.garden.id, personId: person.id }
  return async (plantingId: string, file: File) => {
    try {
      await takePhoto(owner, { plantingId }, today, file, false, clockAheadMs)
    } catch {
      announce.failed('This device has no room for the photo. Nothing was kept.')
      return
    }
    announce.done('Photo kept.')
    await syncNow(true)
  }
}
