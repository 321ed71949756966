import { climateEndpoints, crewEndpoints, gardenEndpoints, seasonEndpoints } from '@border/contract'
import { useAnswer } from '../api/answers.ts'

export const useSoil = (gardenId: string) => useAnswer(climateEndpoints.soil, { params: { gardenId } })

/** What the record says without what the gardener knows. */
export const useUnfitted = (gardenId: string) =>
  useAnswer(climateEndpoints.unfitted, { params: { gardenId } })

/** Who works in a garden. */
export const useCrew = (gardenId: string) => useAnswer(crewEndpoints.read, { params: { gardenId } })

/** Since when a calendar program may read the jobs by a link; null where none may. */
export const useCalendarLink = (gardenId: string, enabled: boolean) =>
  useAnswer(seasonEndpoints.calendarLink, { params: { gardenId } }, { enabled })

export const useMembers = (gardenId: string, enabled: boolean) =>
  useAnswer(gardenEndpoints.listMembers, { params: { gardenId } }, { enabled })
