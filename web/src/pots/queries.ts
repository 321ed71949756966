import { containerEndpoints } from '@border/contract'
import { keepPreviousData } from '@tanstack/react-query'
import { useAnswer } from '../api/answers.ts'

/** The containers of a garden: what each holds, weighs and drinks, and its fills. */
export const useContainers = (gardenId: string) =>
  useAnswer(containerEndpoints.read, { params: { gardenId } })

/** The best spots for a container, and the best containers for its spot: worked out once they are asked for. */
export const useSpots = (gardenId: string, containerId: string, isAsked: boolean) =>
  useAnswer(containerEndpoints.spots, { params: { gardenId, containerId } }, { enabled: isAsked })

/** What the rest of the garden has for a container. */
export const useSpare = (gardenId: string) => useAnswer(containerEndpoints.spare, { params: { gardenId } })

/** Woody plants along the line of containers. */
export const useLine = (gardenId: string) => useAnswer(containerEndpoints.line, { params: { gardenId } })

/** How they come through an absence. What is being read stays while it is asked for anew. */
export const useAbsence = (gardenId: string, from: string, to: string) =>
  useAnswer(
    containerEndpoints.absence,
    { params: { gardenId }, query: { from, to } },
    { placeholderData: keepPreviousData },
  )
