import { benchEndpoints, climateEndpoints } from '@border/contract'
import { useAnswer } from '../api/answers.ts'

/** Plants that wait for a place. */
export const useBench = (gardenId: string) => useAnswer(benchEndpoints.list, { params: { gardenId } })

/** How the next ten days suit each kind of work. */
export const useOutlook = (gardenId: string) => useAnswer(climateEndpoints.outlook, { params: { gardenId } })
