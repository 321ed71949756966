import {
  priceEndpoints,
  reworkEndpoints,
  whatIsKnown,
  type AnswerOf,
  type Aspect,
  type BodyOf,
  type Endpoint,
  type PaletteAnswerView,
  type PaletteView,
  type RelocatedView,
  type SaidScheme,
  type SchemeView,
  type StepsView,
} from '@border/contract'
import { leavingOf, MOST_LEAVING } from '@border/core'
import { keepPreviousData, useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { heard, useAnswer } from '../api/answers.ts'
import { ask, type Sent } from '../api/client.ts'
import { errorText } from '../api/writes.ts'

export const useReworks = (gardenId: string) => useAnswer(reworkEndpoints.list, { params: { gardenId } })

/** @param isThere whether the place still stands */
export const useGround = (gardenId: string, placeId: string, isThere: boolean) =>
  useAnswer(reworkEndpoints.ground, { params: { gardenId, featureId: placeId } }, { enabled: isThere })

/** Where a kind would do well. */
export const useFit = (gardenId: string, botanical: string | undefined) =>
  useAnswer(
    reworkEndpoints.fit,
    { params: { gardenId }, query: { botanical: botanical ?? '' } },
    { enabled: botanical !== undefined, placeholderData: keepPreviousData },
  )

export const usePrices = () => useAnswer(priceEndpoints.list, {})

/** What destinations and kinds are worked out from, beside what is sent. */
const WORKED_FROM: readonly Aspect[] = [...whatIsKnown, 'decisions', 'jobs', 'bench', 'prices', 'rules']

/** Something worked out of what is sent: asked again when that is another. Given up by the server where nobody waits any more. */
function asking<E extends Endpoint>(endpoint: E, sent: Sent<E> | undefined) {
  const { gardenId } = (sent?.params ?? {}) as { gardenId?: string }
  return {
    queryKey: [gardenId, endpoint.path, sent],
    queryFn: ({ signal }: { signal: AbortSignal }): Promise<AnswerOf<E>> =>
      heard(ask(endpoint, sent!, signal)),
    enabled: sent !== undefined,
    staleTime: 60_000,
    retry: false,
    meta: { restsOn: WORKED_FROM },
  }
}
const useAsked = <E extends Endpoint>(endpoint: E, sent: Sent<E> | undefined) =>
  useQuery<AnswerOf<E>>({ ...asking(endpoint, sent), placeholderData: keepPreviousData })

/** What carrying a scheme out comes to, of what was last kept of it. */
export const useSteps = (
  gardenId: string,
  reworkId: string,
  { id: schemeId, revisionId }: Pick<SchemeView, 'id' | 'revisionId'>,
) =>
  useQuery<StepsView>(
    asking(reworkEndpoints.steps, { params: { gardenId, reworkId, schemeId }, body: { revisionId } }),
  )

/** What leaves, as it is asked where it goes. */
export const leavesIn = ({ leaving }: Pick<SaidScheme, 'leaving'>) =>
  leaving.filter((l) => l.how === 'leaves').map(({ plantingId, to, worth }) => ({ plantingId, to, worth }))

const relocating = (gardenId: string, said: Pick<SaidScheme, 'leaving'>) => {
  const leaving = leavesIn(said)
  const canBeAsked = leaving.length > 0 && leaving.length <= MOST_LEAVING
  return canBeAsked ? { params: { gardenId }, body: { leaving } } : undefined
}

/** Where what leaves goes at the least cost in all. */
export const useRelocation = (gardenId: string, said: Pick<SaidScheme, 'leaving'>) =>
  useAsked(reworkEndpoints.relocate, relocating(gardenId, said))

/** Ends the working out of it, in the server too. */
export function useStopRelocation(gardenId: string, said: Pick<SaidScheme, 'leaving'>): () => void {
  const client = useQueryClient()
  return () => {
    const { queryKey } = asking(reworkEndpoints.relocate, relocating(gardenId, said))
    void client.cancelQueries({ queryKey })
  }
}

/** The same of several schemes, by their order. */
export const useRelocations = (gardenId: string, schemes: readonly Pick<SaidScheme, 'leaving'>[]) =>
  useQueries({
    queries: schemes.map((said) => asking(reworkEndpoints.relocate, relocating(gardenId, said))),
    combine: (found) => found.map((f) => f.data),
  })

/** What every other way would cost for one that leaves. */
export const useWays = (gardenId: string, said: Pick<SaidScheme, 'leaving'>, plantingId: string) =>
  useAsked(reworkEndpoints.ways, { params: { gardenId }, body: { leaving: leavesIn(said), plantingId } })

/** What is divided, with what was measured or counted of it. */
const dividingIn = ({ leaving }: Pick<SaidScheme, 'leaving'>) =>
  leaving
    .filter((l) => l.how === 'divides')
    .map(({ plantingId, shoots, acrossM }) => ({
      plantingId,
      ...(shoots !== undefined && { shoots }),
      ...(acrossM !== undefined && { acrossM }),
    }))

/** What a choice of kinds is asked with. */
const choiceOf = (said: Pick<SaidScheme, 'leaving' | 'wishes'>, relocated: RelocatedView | undefined) => ({
  leavingIds: leavingOf(said, relocated),
  dividing: dividingIn(said),
  wishes: said.wishes,
})

const having = (gardenId: string, placeId: string, said: Pick<SaidScheme, 'leaving'>) => ({
  params: { gardenId, featureId: placeId },
  body: { dividing: dividingIn(said) },
})

/** What one has of kinds that could come in to a place. */
export const useInHand = (gardenId: string, placeId: string, said: Pick<SaidScheme, 'leaving'>) =>
  useAsked(reworkEndpoints.inHand, having(gardenId, placeId, said))

/** The same of several schemes, by their order. */
export const useInHands = (
  gardenId: string,
  placeId: string,
  schemes: readonly Pick<SaidScheme, 'leaving'>[],
) =>
  useQueries({
    queries: schemes.map((said) => asking(reworkEndpoints.inHand, having(gardenId, placeId, said))),
    combine: (found) => found.map((f) => f.data),
  })

/** Kinds by what they would bring to what is chosen. */
export const useTray = (
  gardenId: string,
  placeId: string,
  said: SaidScheme,
  relocated: RelocatedView | undefined,
  chosen: readonly { botanical: string; count: number }[],
) =>
  useAsked(reworkEndpoints.tray, {
    params: { gardenId, featureId: placeId },
    body: {
      ...choiceOf(said, relocated),
      chosen: chosen.map(({ botanical, count }) => ({ botanical, count: Math.min(5000, count) })),
    },
  })

/** Palettes that are offered, and those that are still looked for. */
export interface Proposing {
  palettes: readonly PaletteView[]
  weeks: readonly string[]
  /** Being looked for. */
  isLooking: boolean
  answer: Exclude<PaletteAnswerView, { is: 'palette' }> | undefined
  failed: string | undefined
}

const PALETTES = 3
const NOTHING: Proposing = { palettes: [], weeks: [], isLooking: false, answer: undefined, failed: undefined }

/** Three palettes, each shown as soon as it is found; stopped at any time with those that there are. */
export function useProposing(gardenId: string, placeId: string) {
  const [state, setState] = useState<Proposing>(NOTHING)
  const under = useRef<AbortController>(undefined)
  const stop = useCallback(() => {
    under.current?.abort()
    under.current = undefined
    setState((s) => ({ ...s, isLooking: false }))
  }, [])
  useEffect(() => () => under.current?.abort(), [])
  const propose = async (said: SaidScheme, relocated: RelocatedView | undefined) => {
    under.current?.abort()
    const own = new AbortController()
    under.current = own
    const tell = (change: Partial<Proposing>) => {
      if (under.current === own) setState((s) => ({ ...s, ...change }))
    }
    setState({ ...NOTHING, isLooking: true })
    const palettes: PaletteView[] = []
    try {
      while (palettes.length < PALETTES) {
        const body: BodyOf<typeof reworkEndpoints.palette> = {
          ...choiceOf(said, relocated),
          apart: palettes.map((p) => p.items.map((i) => i.candidate.taxon.botanical)),
        }
        const answer = await heard(
          ask(reworkEndpoints.palette, { params: { gardenId, featureId: placeId }, body }, own.signal),
        )
        if (answer.is !== 'palette') {
          tell({ answer, ...(answer.is === 'conflict' && { weeks: answer.weeks }) })
          break
        }
        palettes.push(answer.palette)
        tell({ palettes: [...palettes], weeks: answer.weeks })
      }
    } catch (error) {
      tell({ failed: errorText(error) })
    }
    tell({ isLooking: false })
  }
  return { ...state, propose, stop, forget: () => setState(NOTHING) }
}
