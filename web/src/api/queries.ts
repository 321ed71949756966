import type {
  AheadView,
  AssessmentView,
  EvidenceView,
  GardenSummary,
  GardenView,
  MemberRecord,
  PlantingStory,
  ScenarioRecord,
  SeasonView,
  SessionInfo,
  SuspicionsView,
} from '@border/contract'
import type { Taxon } from '@border/core'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { App } from 'antd'
import { ApiError, changeSession, get, openSession, write } from './client.ts'

export const useSession = () =>
  useQuery({ queryKey: ['session'], queryFn: openSession, staleTime: 5 * 60_000 })

/** The session of someone signed in; screens inside the frame have one. */
export function useSignedIn(): SessionInfo & { person: NonNullable<SessionInfo['person']> } {
  const { data } = useSession()
  if (!data?.person) throw new Error('This screen is only shown to someone signed in')
  return { ...data, person: data.person }
}

export const SIGN_OUT = '/session/sign-out'

export function useChangeSession() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: ({ path, body }: { path: string; body?: unknown }) => changeSession(path, body),
    onSuccess: (session, { path }) => {
      // The next person starts from the start, not from where this one stood.
      if (path === SIGN_OUT) return location.assign('/')
      client.removeQueries({ predicate: (q) => q.queryKey[0] !== 'session' })
      client.setQueryData(['session'], session)
    },
  })
}

export const useGardens = (enabled = true) =>
  useQuery({ queryKey: ['gardens'], queryFn: () => get<GardenSummary[]>('/gardens'), enabled })

export const useGarden = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'view', on],
    queryFn: ({ signal }) => get<GardenView>(`/gardens/${gardenId}?on=${on}`, signal),
    placeholderData: keepPreviousData,
  })

export const useAssessment = (gardenId: string, on: string, then?: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'assessment', on, then ?? ''],
    queryFn: ({ signal }) =>
      get<AssessmentView>(`/gardens/${gardenId}/assessment?on=${on}${then ? `&then=${then}` : ''}`, signal),
    placeholderData: keepPreviousData,
  })

export const useAhead = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'ahead', on],
    queryFn: ({ signal }) => get<AheadView>(`/gardens/${gardenId}/ahead?on=${on}`, signal),
  })

export const useScenarios = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'scenarios', on],
    queryFn: ({ signal }) => get<ScenarioRecord[]>(`/gardens/${gardenId}/scenarios?on=${on}`, signal),
  })

export const useEvidence = (gardenId: string, enabled = true) =>
  useQuery({
    queryKey: ['garden', gardenId, 'evidence'],
    queryFn: ({ signal }) => get<EvidenceView>(`/gardens/${gardenId}/light-evidence`, signal),
    enabled,
    // The looks worth taking today change as the day goes on.
    refetchInterval: 20 * 60_000,
  })

export const useSuspicions = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'suspicions'],
    queryFn: () => get<SuspicionsView>(`/gardens/${gardenId}/suspicions`),
    // A garden that was never gone through is about to be.
    refetchInterval: ({ state }) => (state.data?.checkedOn ? 10 * 60_000 : 5_000),
  })

export const useSeason = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'season'],
    queryFn: () => get<SeasonView>(`/gardens/${gardenId}/season`),
  })

export const useStory = (gardenId: string, plantingId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'story', plantingId],
    queryFn: () => get<PlantingStory>(`/gardens/${gardenId}/plantings/${plantingId}`),
  })

export const useMembers = (gardenId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['garden', gardenId, 'people'],
    queryFn: () => get<MemberRecord[]>(`/gardens/${gardenId}/people`),
    enabled,
  })

export const useTaxa = () =>
  useQuery({ queryKey: ['taxa'], queryFn: () => get<Taxon[]>('/taxa'), staleTime: Infinity })

/**
 * A write to a garden: everything read of that garden is read again after it, and a refusal is shown in its words.
 *
 * @param done said when it worked
 */
export function useGardenWrite<B>(
  gardenId: string,
  path: (body: B) => string,
  done: string | ((body: B) => React.ReactNode),
) {
  const client = useQueryClient()
  const { message } = App.useApp()
  return useMutation({
    mutationFn: (body: B) => write(`/gardens/${gardenId}${path(body)}`, body),
    onSuccess: async (_answer, body) => {
      // A first answer still under way was asked before the change: without this it would be taken for the new one.
      await client.cancelQueries({ queryKey: ['garden', gardenId] })
      await client.invalidateQueries({ queryKey: ['garden', gardenId] })
      void message.success(typeof done === 'string' ? done : done(body))
    },
    onError: (error) => void message.error(errorText(error), 6),
  })
}

export function errorText(error: unknown): string {
  if (!(error instanceof ApiError)) return 'Something went wrong. Nothing was saved.'
  return [error.message, ...error.problems.map((p) => p.message)].join(' ')
}
