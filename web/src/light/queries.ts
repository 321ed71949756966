import { lightEndpoints } from '@border/contract'
import type { IsoDate } from '@border/core'
import { useAnswer } from '../api/answers.ts'

const READ_AGAIN_MS = 20 * 60_000
const UNCHECKED_MS = 5_000

/** The light of the years to come. @param on the day they are counted from; today unless given */
export const useAhead = (gardenId: string, on?: IsoDate) =>
  useAnswer(lightEndpoints.ahead, { params: { gardenId }, query: { on } })

export const useWhatIfs = (gardenId: string, on?: IsoDate) =>
  useAnswer(lightEndpoints.whatIfs, { params: { gardenId }, query: { on } })

/** Readings of the light and what explains them: the looks worth taking today change as the day goes on. */
export const useLightEvidence = (gardenId: string, enabled = true) =>
  useAnswer(lightEndpoints.evidence, { params: { gardenId } }, { enabled, refetchInterval: READ_AGAIN_MS })

/** What seems to have changed; a garden that was never gone through is about to be. */
export const useSuspicions = (gardenId: string) =>
  useAnswer(
    lightEndpoints.suspicions,
    { params: { gardenId } },
    { refetchInterval: ({ state }) => (state.data?.checkedOn ? false : UNCHECKED_MS) },
  )
