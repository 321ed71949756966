import { walkEndpoints } from '@border/contract'
import { useAnswer } from '../api/answers.ts'

/** The garden as it is walked: not read anew under one's hands. */
export const useWalk = (gardenId: string) =>
  useAnswer(walkEndpoints.read, { params: { gardenId } }, { staysPut: true })
