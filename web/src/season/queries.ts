import { ruleEndpoints, seasonEndpoints, wateringEndpoints, type ScheduleRunView } from '@border/contract'
import { keepPreviousData } from '@tanstack/react-query'
import { useAnswer } from '../api/answers.ts'

const UNDER_WAY_MS = 600

export const useSeason = (gardenId: string) => useAnswer(seasonEndpoints.read, { params: { gardenId } })

/** Why a job is where it is. What is being read does not go away while the answer is asked for anew. */
export const useWhyHere = (gardenId: string, jobId: string) =>
  useAnswer(seasonEndpoints.why, { params: { gardenId, jobId } }, { placeholderData: keepPreviousData })

const isUnderWay = (run: ScheduleRunView | null | undefined) =>
  run?.state === 'queued' || run?.state === 'running'

/** The latest plan asked for; looked at again while it is being worked out. */
export const useScheduleRun = (gardenId: string) =>
  useAnswer(
    seasonEndpoints.latestSchedule,
    { params: { gardenId } },
    { refetchInterval: ({ state }) => (isUnderWay(state.data?.run) ? UNDER_WAY_MS : false) },
  )

/** What is not rooted in and when it needs water. */
export const useWatering = (gardenId: string) => useAnswer(wateringEndpoints.read, { params: { gardenId } })

export const useRules = (gardenId: string) => useAnswer(ruleEndpoints.list, { params: { gardenId } })
