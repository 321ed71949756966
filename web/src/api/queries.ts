import type {
  AheadView,
  AssessmentView,
  BenchView,
  BloomView,
  CrewView,
  DiagnosisView,
  LightEvidenceView,
  GardenSummary,
  GardenView,
  KnownTaxon,
  LikelihoodView,
  MemberView,
  OutlookView,
  PhotoView,
  ScheduleRunView,
  PlantingStory,
  RecordView,
  RuleView,
  WhatIfView,
  SeasonView,
  SoilView,
  StandpointView,
  SuccessionView,
  SuspicionsView,
  WalkView,
  WateringView,
} from '@border/contract'
import type { WhyHere } from '@border/core'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { App } from 'antd'
import { forgetTaken, takeAlong } from '../offline/store.ts'
import { getOrTaken, orTaken } from '../offline/taken.ts'
import { ApiError, changeSession, get, openSession, write, type Session } from './client.ts'

export const useSession = () =>
  useQuery({
    queryKey: ['session'],
    queryFn: () => orTaken('/session', openSession),
    staleTime: 5 * 60_000,
  })

/** The session of someone signed in; screens inside the frame have one. */
export function useSignedIn(): Session & { person: NonNullable<Session['person']> } {
  const { data } = useSession()
  if (!data?.person) throw new Error('This screen is only shown to someone signed in')
  return { ...data, person: data.person }
}

/** The fixed day that a session's practice stands at; null where it stands at the real one. */
export const standsAt = ({ demoDate, usesRealToday }: Pick<Session, 'demoDate' | 'usesRealToday'>) =>
  usesRealToday ? null : demoDate

export const SIGN_OUT = '/session/sign-out'

export function useChangeSession() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: ({ path, body }: { path: string; body?: unknown }) => changeSession(path, body),
    onSuccess: (session, { path }) => {
      // The next person starts from the start, not from where this one stood.
      if (path === SIGN_OUT) return void forgetHere().then(() => location.assign('/'))
      client.removeQueries({ predicate: (q) => q.queryKey[0] !== 'session' })
      client.setQueryData(['session'], session)
      // Where there is no connection it is this person's session that is taken along.
      void takeAlong('/session', session).catch(() => {})
    },
  })
}

/** What one person's device keeps for where there is no connection; what waits to be sent stays theirs. */
async function forgetHere(): Promise<void> {
  await forgetTaken().catch(() => {})
  navigator.serviceWorker?.controller?.postMessage('forget')
}

export const useGardens = (enabled = true) =>
  useQuery({ queryKey: ['gardens'], queryFn: () => getOrTaken<GardenSummary[]>('/gardens'), enabled })

export const useGarden = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'view', on],
    queryFn: ({ signal }) =>
      getOrTaken<GardenView>(`/gardens/${gardenId}?on=${on}`, signal, `/gardens/${gardenId}`),
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

export const useWhatIfs = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'what-ifs', on],
    queryFn: ({ signal }) => get<WhatIfView[]>(`/gardens/${gardenId}/what-ifs?on=${on}`, signal),
  })

export const useLightEvidence = (gardenId: string, enabled = true) =>
  useQuery({
    queryKey: ['garden', gardenId, 'evidence'],
    queryFn: ({ signal }) => get<LightEvidenceView>(`/gardens/${gardenId}/light-evidence`, signal),
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

export const useWalk = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'walk'],
    queryFn: ({ signal }) => getOrTaken<WalkView>(`/gardens/${gardenId}/walk`, signal),
  })

export const useRecord = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'record'],
    queryFn: ({ signal }) => get<RecordView>(`/gardens/${gardenId}/record`, signal),
  })

export const useBloom = (gardenId: string, season: number) =>
  useQuery({
    queryKey: ['garden', gardenId, 'bloom', season],
    queryFn: ({ signal }) => get<BloomView>(`/gardens/${gardenId}/bloom?season=${season}`, signal),
    placeholderData: keepPreviousData,
  })

export const useDiagnosis = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'diagnosis'],
    queryFn: ({ signal }) => get<DiagnosisView>(`/gardens/${gardenId}/diagnosis`, signal),
  })

export const useLikelihoods = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'likelihoods'],
    queryFn: () => get<LikelihoodView>(`/gardens/${gardenId}/likelihoods`),
  })

export const usePhotos = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'photos'],
    queryFn: () => get<PhotoView[]>(`/gardens/${gardenId}/photos`),
  })

export const useStandpoints = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'standpoints'],
    queryFn: () => get<StandpointView[]>(`/gardens/${gardenId}/standpoints`),
  })

export const photoAddress = (gardenId: string, photoId: string, size?: 'small'): string =>
  `/api/gardens/${gardenId}/photos/${photoId}${size ? `?size=${size}` : ''}`

const BEHIND_MS = 2500
export const useSeason = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'season'],
    queryFn: () => getOrTaken<SeasonView>(`/gardens/${gardenId}/season`),
    // What is being brought up to date is asked for again until it is.
    refetchInterval: ({ state }) => (state.data?.isBehind ? BEHIND_MS : false),
  })

/** Why a job is where it is; asked again when the plan has changed. */
export const useWhyHere = (gardenId: string, jobId: string, season: SeasonView) =>
  useQuery({
    queryKey: ['garden', gardenId, 'why', jobId, season.jobs.find((j) => j.id === jobId)?.plannedOn],
    queryFn: () => get<WhyHere>(`/gardens/${gardenId}/jobs/${jobId}/why`),
    // What is being read does not go away while the answer is asked for anew.
    placeholderData: keepPreviousData,
  })

const isUnderWay = (run: ScheduleRunView | null | undefined) =>
  run?.state === 'queued' || run?.state === 'running'

/** The latest plan asked for; looked at again while it is being worked out. */
export const useScheduleRun = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'plan-run'],
    queryFn: () => get<{ run: ScheduleRunView | null }>(`/gardens/${gardenId}/schedule-runs/latest`),
    refetchInterval: (query) => (isUnderWay(query.state.data?.run) ? 600 : false),
  })

export const useSoil = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'soil'],
    queryFn: () => get<SoilView>(`/gardens/${gardenId}/soil`),
  })

/** Plants that wait for a place. */
export const useBench = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'bench'],
    queryFn: () => get<BenchView[]>(`/gardens/${gardenId}/bench`),
  })

/** What is not rooted in and when it needs water. */
export const useWatering = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'watering'],
    queryFn: () => getOrTaken<WateringView>(`/gardens/${gardenId}/watering`),
  })

/** Who works in a garden. */
export const useCrew = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'crew'],
    queryFn: () => get<CrewView>(`/gardens/${gardenId}/crew`),
  })

/** Since when a calendar program may read the jobs by a link; null where none may. */
export const useCalendarLink = (gardenId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['garden', gardenId, 'calendar-link'],
    queryFn: () => get<{ since: string | null }>(`/gardens/${gardenId}/calendar-link`),
    enabled,
  })

/** Failing trees and shrubs of consequence, and their successors. */
export const useSuccessions = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'successions'],
    queryFn: ({ signal }) => get<SuccessionView[]>(`/gardens/${gardenId}/successions`, signal),
  })

/** How the next ten days suit each kind of work. */
export const useOutlook = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'outlook'],
    queryFn: () => get<OutlookView>(`/gardens/${gardenId}/outlook`),
  })

export const useRules = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'rules'],
    queryFn: () => get<RuleView[]>(`/gardens/${gardenId}/rules`),
  })

export const useStory = (gardenId: string, plantingId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'story', plantingId],
    queryFn: () => get<PlantingStory>(`/gardens/${gardenId}/plantings/${plantingId}`),
  })

export const useMembers = (gardenId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['garden', gardenId, 'people'],
    queryFn: () => get<MemberView[]>(`/gardens/${gardenId}/people`),
    enabled,
  })

export const useTaxa = () =>
  useQuery({ queryKey: ['taxa'], queryFn: () => get<KnownTaxon[]>('/taxa'), staleTime: Infinity })

/** A write to what the whole practice shares: everything is read again after it. */
export function usePracticeWrite<B>(path: string, done: string | ((answer: unknown) => string)) {
  const client = useQueryClient()
  const { message } = App.useApp()
  return useMutation({
    mutationFn: (body: B) => write<unknown>(path, body),
    onSuccess: async (answer) => {
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' })
      void message.success(typeof done === 'string' ? done : done(answer))
    },
    onError: (error) => void message.error(errorText(error), 8),
  })
}

/**
 * A write to a garden: everything read of that garden is read again after it, and a refusal is shown in its words.
 *
 * @param done said when it worked
 */
export function useGardenWrite<B>(
  gardenId: string,
  path: (body: B) => string,
  done: string | ((body: B, answer: unknown) => React.ReactNode),
) {
  const client = useQueryClient()
  const { message } = App.useApp()
  return useMutation({
    mutationFn: (body: B) => write(`/gardens/${gardenId}${path(body)}`, body),
    onSuccess: async (answer, body) => {
      // A first answer still under way was asked before the change: without this it would be taken for the new one.
      await client.cancelQueries({ queryKey: ['garden', gardenId] })
      await client.invalidateQueries({ queryKey: ['garden', gardenId] })
      void message.success(typeof done === 'string' ? done : done(body, answer))
    },
    onError: (error) => void message.error(errorText(error), 6),
  })
}

export function errorText(error: unknown): string {
  if (!(error instanceof ApiError)) return 'Something went wrong. Nothing was saved.'
  return [error.message, ...error.problems.map((p) => p.message)].join(' ')
}
