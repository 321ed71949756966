import { gardenEndpoints } from '@border/contract'
import {
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type FetchQueryOptions,
  type QueryClient,
} from '@tanstack/react-query'
import { LAST_GARDEN } from '../frame/lastGarden.ts'
import { forgetKept } from '../offline/store.ts'
import { answerOf, asKept, heard, persister, useAnswer } from './answers.ts'
import { changeSession, isRefusal, openSession, type Session, type SessionChange } from './client.ts'

const SESSION = ['session']

const session = queryOptions<Session>({
  queryKey: SESSION,
  queryFn: () => heard(openSession()),
  persister: asKept,
  staleTime: 5 * 60_000,
})

export const useSession = () => useQuery(session)

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
    onSuccess: async (session, { name }) => {
      // What this device keeps is one person's, at one day: what is still on its way to them is not kept either.
      client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== SESSION[0] })
      await forgetHere()
      // The next person starts from the start, not from where this one stood.
      if (name === 'signOut') return location.assign('/')
      keepSession(client, session)
    },
  })
}

/** What is known of who is signed in, here and on the device. */
export function keepSession(client: QueryClient, session: Session): void {
  client.setQueryData(SESSION, session)
  // Where there is no connection it is this person's session that is known.
  void persister.persistQueryByKey(SESSION, client).catch(() => {})
}

/** What one person's device keeps for where there is no connection; what waits to be sent stays theirs. */
async function forgetHere(): Promise<void> {
  await forgetKept().catch(() => {})
  navigator.serviceWorker?.controller?.postMessage('forget')
}

export const useGardens = () => useAnswer(gardenEndpoints.list, {})

/**
 * What nothing can be shown without: who it is, their gardens, and the garden of the address.
 *
 * @returns when it is there, or cannot be had
 */
export async function askFirst(
  client: QueryClient,
  { pathname, search }: Pick<Location, 'pathname' | 'search'>,
): Promise<void> {
  await fromServerFirst(client, session)
  if (!client.getQueryData<Session>(SESSION)?.person) return
  const gardenId =
    /^\/g\/([^/]+)/.exec(pathname)?.[1] ?? (pathname === '/' ? localStorage.getItem(LAST_GARDEN) : null)
  const on = new URLSearchParams(search).get('on') ?? undefined
  await Promise.all([
    fromServerFirst(client, answerOf(gardenEndpoints.list, {})),
    gardenId &&
      fromServerFirst(client, answerOf(gardenEndpoints.read, { params: { gardenId }, query: { on } })),
  ])
}

/** The page has asked already: its answer is nearer than what the device keeps, which is taken where nobody answers. */
async function fromServerFirst<T>(client: QueryClient, options: FetchQueryOptions<T>): Promise<void> {
  try {
    await client.fetchQuery({ ...options, persister: undefined, retry: false })
    if (options.persister) void persister.persistQueryByKey(options.queryKey, client).catch(() => {})
  } catch (error) {
    if (!isRefusal(error)) await client.prefetchQuery(options)
  }
}
