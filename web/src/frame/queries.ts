import { gardenEndpoints } from '@border/contract'
import type { IsoDate } from '@border/core'
import { keepPreviousData } from '@tanstack/react-query'
import { useAnswer } from '../api/answers.ts'

/** A garden as it stands on a day; today unless given. */
export const useGarden = (gardenId: string, on?: IsoDate) =>
  useAnswer(
    gardenEndpoints.read,
    { params: { gardenId }, query: { on } },
    { placeholderData: keepPreviousData },
  )

/** What is told of a garden beside whichever screen is open, on a day; today unless given. */
export const useGardenNow = (gardenId: string, on?: IsoDate) =>
  useAnswer(
    gardenEndpoints.now,
    { params: { gardenId }, query: { on } },
    { placeholderData: keepPreviousData },
  )
