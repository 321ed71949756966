import { plantingEndpoints, taxonEndpoints } from '@border/contract'
import { useAnswer } from '../api/answers.ts'

export const useTaxa = () => useAnswer(taxonEndpoints.list, {})

export const useStory = (gardenId: string, plantingId: string) =>
  useAnswer(plantingEndpoints.story, { params: { gardenId, plantingId } })
