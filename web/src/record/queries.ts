import { photoEndpoints, recordEndpoints } from '@border/contract'
import { keepPreviousData } from '@tanstack/react-query'
import { useAnswer } from '../api/answers.ts'
import { hrefOf } from '../api/client.ts'

export const useRecord = (gardenId: string) => useAnswer(recordEndpoints.read, { params: { gardenId } })

export const useBloom = (gardenId: string, season: number) =>
  useAnswer(
    recordEndpoints.bloom,
    { params: { gardenId }, query: { season } },
    { placeholderData: keepPreviousData },
  )

export const useDiagnosis = (gardenId: string) =>
  useAnswer(recordEndpoints.diagnosis, { params: { gardenId } })

export const useLikelihoods = (gardenId: string) =>
  useAnswer(recordEndpoints.likelihoods, { params: { gardenId } })

export const usePhotos = (gardenId: string) => useAnswer(photoEndpoints.list, { params: { gardenId } })

export const useStandpoints = (gardenId: string) =>
  useAnswer(photoEndpoints.listStandpoints, { params: { gardenId } })

export const photoAddress = (gardenId: string, photoId: string, size?: 'small'): string =>
  hrefOf(photoEndpoints.picture, { params: { gardenId, photoId }, query: { size } })
