import { pictureEndpoints, type PictureView } from '@border/contract'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { followGarden, useAnswer } from '../api/answers.ts'
import { hrefOf, write } from '../api/client.ts'
import { errorText } from '../api/writes.ts'
import { announce } from '../frame/Announced.tsx'

export const usePictures = (gardenId: string) => useAnswer(pictureEndpoints.list, { params: { gardenId } })

export const pictureAddress = (gardenId: string, { id }: Pick<PictureView, 'id'>): string =>
  hrefOf(pictureEndpoints.picture, { params: { gardenId, pictureId: id } })

/** Brings a picture in; answers the one it is known by. */
export function useAddPicture(gardenId: string) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: async ({ name, file }: { name: string; file: Blob }) => {
      const id = crypto.randomUUID()
      const { pictureId } = await write(
        pictureEndpoints.add,
        { params: { gardenId }, body: { id, name }, file },
        id,
      )
      await followGarden(client, gardenId)
      return pictureId
    },
    onError: (error) => announce.failed(errorText(error)),
  })
}
