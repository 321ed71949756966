import {
  climateEndpoints,
  crewEndpoints,
  gardenEndpoints,
  seasonEndpoints,
  type Preferences,
} from '@border/contract'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useAnswer } from '../api/answers.ts'
import { changeSession } from '../api/client.ts'
import { keepSession } from '../api/session.ts'
import { errorText } from '../api/writes.ts'
import { announce } from '../frame/Announced.tsx'

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

/** How whoever is signed in wants things called and written from now on. */
export function usePrefer() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (preferences: Partial<Preferences>) => changeSession({ name: 'prefer', body: preferences }),
    onSuccess: (session) => keepSession(client, session),
    onError: (error) => announce.failed(errorText(error)),
  })
}
