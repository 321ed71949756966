import { containerEndpoints } from '@border/contract'
import { useAnswer } from '../api/answers.ts'

/** The containers of a garden: what each holds, weighs and drinks, and its fills. */
export const useContainers = (gardenId: string) =>
  useAnswer(containerEndpoints.read, { params: { gardenId } })
