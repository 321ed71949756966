import {
  benchEndpoints,
  climateEndpoints,
  crewEndpoints,
  gardenEndpoints,
  lightEndpoints,
  photoEndpoints,
  plantingEndpoints,
  recordEndpoints,
  ruleEndpoints,
  seasonEndpoints,
  taxonEndpoints,
  verdictEndpoints,
  walkEndpoints,
  wateringEndpoints,
  type AnswerOf,
  type BodyOf,
  type Endpoint,
  type ParamsOf,
  type ScheduleRunView,
  type SeasonView,
} from '@border/contract'
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { App } from 'antd'
import { forgetTaken, takeAlong } from '../offline/store.ts'
import { askOrTaken, orTaken } from '../offline/taken.ts'
import {
  ApiError,
  ask,
  changeSession,
  hrefOf,
  openSession,
  write,
  type Sent,
  type Session,
  type SessionChange,
} from './client.ts'

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

export function useChangeSession() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (change: SessionChange) => changeSession(change),
    onSuccess: (session, { name }) => {
      // The next person starts from the start, not from where this one stood.
      if (name === 'signOut') return void forgetHere().then(() => location.assign('/'))
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
  useQuery({ queryKey: ['gardens'], queryFn: () => askOrTaken(gardenEndpoints.list, {}), enabled })

export const useGarden = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'view', on],
    queryFn: ({ signal }) =>
      askOrTaken(
        gardenEndpoints.read,
        { params: { gardenId }, query: { on } },
        { signal, as: hrefOf(gardenEndpoints.read, { params: { gardenId } }) },
      ),
    placeholderData: keepPreviousData,
  })

export const useAssessment = (gardenId: string, on: string, then?: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'assessment', on, then ?? ''],
    queryFn: ({ signal }) =>
      ask(verdictEndpoints.assessment, { params: { gardenId }, query: { on, then } }, signal),
    placeholderData: keepPreviousData,
  })

export const useAhead = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'ahead', on],
    queryFn: ({ signal }) => ask(lightEndpoints.ahead, { params: { gardenId }, query: { on } }, signal),
  })

export const useWhatIfs = (gardenId: string, on: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'what-ifs', on],
    queryFn: ({ signal }) => ask(lightEndpoints.whatIfs, { params: { gardenId }, query: { on } }, signal),
  })

export const useLightEvidence = (gardenId: string, enabled = true) =>
  useQuery({
    queryKey: ['garden', gardenId, 'evidence'],
    queryFn: ({ signal }) => ask(lightEndpoints.evidence, { params: { gardenId } }, signal),
    enabled,
    // The looks worth taking today change as the day goes on.
    refetchInterval: 20 * 60_000,
  })

export const useSuspicions = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'suspicions'],
    queryFn: () => ask(lightEndpoints.suspicions, { params: { gardenId } }),
    // A garden that was never gone through is about to be.
    refetchInterval: ({ state }) => (state.data?.checkedOn ? 10 * 60_000 : 5_000),
  })

export const useWalk = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'walk'],
    queryFn: ({ signal }) => askOrTaken(walkEndpoints.read, { params: { gardenId } }, { signal }),
  })

export const useRecord = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'record'],
    queryFn: ({ signal }) => ask(recordEndpoints.read, { params: { gardenId } }, signal),
  })

export const useBloom = (gardenId: string, season: number) =>
  useQuery({
    queryKey: ['garden', gardenId, 'bloom', season],
    queryFn: ({ signal }) => ask(recordEndpoints.bloom, { params: { gardenId }, query: { season } }, signal),
    placeholderData: keepPreviousData,
  })

export const useDiagnosis = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'diagnosis'],
    queryFn: ({ signal }) => ask(recordEndpoints.diagnosis, { params: { gardenId } }, signal),
  })

export const useLikelihoods = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'likelihoods'],
    queryFn: () => ask(recordEndpoints.likelihoods, { params: { gardenId } }),
  })

export const usePhotos = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'photos'],
    queryFn: () => ask(photoEndpoints.list, { params: { gardenId } }),
  })

export const useStandpoints = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'standpoints'],
    queryFn: () => ask(photoEndpoints.listStandpoints, { params: { gardenId } }),
  })

export const photoAddress = (gardenId: string, photoId: string, size?: 'small'): string =>
  hrefOf(photoEndpoints.picture, { params: { gardenId, photoId }, query: { size } })

const BEHIND_MS = 2500
export const useSeason = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'season'],
    queryFn: () => askOrTaken(seasonEndpoints.read, { params: { gardenId } }),
    // What is being brought up to date is asked for again until it is.
    refetchInterval: ({ state }) => (state.data?.isBehind ? BEHIND_MS : false),
  })

/** Why a job is where it is; asked again when the plan has changed. */
export const useWhyHere = (gardenId: string, jobId: string, season: SeasonView) =>
  useQuery({
    queryKey: ['garden', gardenId, 'why', jobId, season.jobs.find((j) => j.id === jobId)?.plannedOn],
    queryFn: () => ask(seasonEndpoints.why, { params: { gardenId, jobId } }),
    // What is being read does not go away while the answer is asked for anew.
    placeholderData: keepPreviousData,
  })

const isUnderWay = (run: ScheduleRunView | null | undefined) =>
  run?.state === 'queued' || run?.state === 'running'

/** The latest plan asked for; looked at again while it is being worked out. */
export const useScheduleRun = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'plan-run'],
    queryFn: () => ask(seasonEndpoints.latestSchedule, { params: { gardenId } }),
    refetchInterval: (query) => (isUnderWay(query.state.data?.run) ? 600 : false),
  })

export const useSoil = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'soil'],
    queryFn: () => ask(climateEndpoints.soil, { params: { gardenId } }),
  })

/** Plants that wait for a place. */
export const useBench = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'bench'],
    queryFn: () => ask(benchEndpoints.list, { params: { gardenId } }),
  })

/** What is not rooted in and when it needs water. */
export const useWatering = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'watering'],
    queryFn: () => askOrTaken(wateringEndpoints.read, { params: { gardenId } }),
  })

/** Who works in a garden. */
export const useCrew = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'crew'],
    queryFn: () => ask(crewEndpoints.read, { params: { gardenId } }),
  })

/** Since when a calendar program may read the jobs by a link; null where none may. */
export const useCalendarLink = (gardenId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['garden', gardenId, 'calendar-link'],
    queryFn: () => ask(seasonEndpoints.calendarLink, { params: { gardenId } }),
    enabled,
  })

/** Failing trees and shrubs of consequence, and their successors. */
export const useSuccessions = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'successions'],
    queryFn: ({ signal }) => ask(verdictEndpoints.successions, { params: { gardenId } }, signal),
  })

/** How the next ten days suit each kind of work. */
export const useOutlook = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'outlook'],
    queryFn: () => ask(climateEndpoints.outlook, { params: { gardenId } }),
  })

export const useRules = (gardenId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'rules'],
    queryFn: () => ask(ruleEndpoints.list, { params: { gardenId } }),
  })

export const useStory = (gardenId: string, plantingId: string) =>
  useQuery({
    queryKey: ['garden', gardenId, 'story', plantingId],
    queryFn: () => ask(plantingEndpoints.story, { params: { gardenId, plantingId } }),
  })

export const useMembers = (gardenId: string, enabled: boolean) =>
  useQuery({
    queryKey: ['garden', gardenId, 'people'],
    queryFn: () => ask(gardenEndpoints.listMembers, { params: { gardenId } }),
    enabled,
  })

export const useTaxa = () =>
  useQuery({ queryKey: ['taxa'], queryFn: () => ask(taxonEndpoints.list, {}), staleTime: Infinity })

/** A write to what the whole practice shares: everything is read again after it. */
export function usePracticeWrite<E extends Endpoint>(
  endpoint: E & (unknown extends ParamsOf<E['path']> ? unknown : never),
  done: string | ((answer: AnswerOf<E>) => string),
) {
  const client = useQueryClient()
  const { message } = App.useApp()
  return useMutation({
    mutationFn: (body: BodyOf<E>) => write(endpoint, { body } as Sent<E>),
    onSuccess: async (answer) => {
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' })
      void message.success(typeof done === 'string' ? done : done(answer))
    },
    onError: (error) => void message.error(errorText(error), 8),
  })
}

/** What a write is called with: its body, or nothing that matters where it has none. */
type Written<E extends Endpoint> = BodyOf<E> extends undefined ? object : BodyOf<E>

/**
 * A write to a garden: everything read of that garden is read again after it, and a refusal is shown in its words.
 *
 * @param params the given parts of its path, or how they follow from what is written
 * @param done said when it worked
 */
export function useGardenWrite<E extends Endpoint, W extends Written<E> = Written<E>>(
  endpoint: E,
  params:
    | (ParamsOf<E['path']> & { gardenId: string })
    | ((written: W) => ParamsOf<E['path']> & { gardenId: string }),
  done: string | ((written: W, answer: AnswerOf<E>) => React.ReactNode),
) {
  const client = useQueryClient()
  const { message } = App.useApp()
  const paramsOf = (written: W) => (typeof params === 'function' ? params(written) : params)
  const sentOf = (written: W): Sent<E> => {
    const sent: unknown = { params: paramsOf(written), body: endpoint.body && written }
    return sent as Sent<E>
  }
  return useMutation({
    mutationFn: (written: W) => write(endpoint, sentOf(written)),
    onSuccess: async (answer, written) => {
      const queryKey = ['garden', paramsOf(written).gardenId]
      // A first answer still under way was asked before the change: without this it would be taken for the new one.
      await client.cancelQueries({ queryKey })
      await client.invalidateQueries({ queryKey })
      void message.success(typeof done === 'string' ? done : done(written, answer))
    },
    onError: (error) => void message.error(errorText(error), 6),
  })
}

export function errorText(error: unknown): string {
  if (!(error instanceof ApiError)) return 'Something went wrong. Nothing was saved.'
  return [error.message, ...error.problems.map((p) => p.message)].join(' ')
}
