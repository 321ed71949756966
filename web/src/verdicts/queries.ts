import { verdictEndpoints } from '@border/contract'
import type { IsoDate } from '@border/core'
import { keepPreviousData } from '@tanstack/react-query'
import { useAnswer } from '../api/answers.ts'

/**
 * How every planting is weighed.
 *
 * @param on today unless given
 * @param then the day compared with; unless given the one most worth it
 */
export const useAssessment = (gardenId: string, on?: IsoDate, then?: IsoDate) =>
  useAnswer(
    verdictEndpoints.assessment,
    { params: { gardenId }, query: { on, then } },
    { placeholderData: keepPreviousData },
  )

/** Failing trees and shrubs of consequence, and their successors. */
export const useSuccessions = (gardenId: string) =>
  useAnswer(verdictEndpoints.successions, { params: { gardenId } })
