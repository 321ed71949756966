import {
  changedAspects,
  gardenEndpoints,
  type AnswerOf,
  type Aspect,
  type Endpoint,
  type VersionsView,
} from '@border/contract'
import { experimental_createQueryPersister, type PersistedQuery } from '@tanstack/query-persist-client-core'
import {
  skipToken,
  useQuery,
  useQueryClient,
  type Query,
  type QueryClient,
  type QueryKey,
  type QueryMeta,
  type UseQueryOptions,
  type UseQueryResult,
} from '@tanstack/react-query'
import { keptAnswers } from '../offline/store.ts'
import { seemsOffline } from '../offline/sync.ts'
import { ask, hrefOf, nobodyAnswered, type Sent } from './client.ts'

/** The key that all answers share which are of no one garden. */
export const PRACTICE: QueryKey = ['practice']

/** What a query is of: the aspects of a garden that its answer rests on. */
interface AnswerMeta extends QueryMeta {
  restsOn: readonly Aspect[]
  /** Not to be read anew under the hands of whoever works on it: only when it is next opened. */
  staysPut?: boolean | undefined
}

const KEPT_MS = 60 * 86_400_000

/**
 * Answers as this device keeps them: shown at once when they are next asked for, while the server is asked anew, and all there
 * is where there is no connection. Another version of the application begins with none.
 */
export const persister = experimental_createQueryPersister<PersistedQuery>({
  storage: keptAnswers,
  serialize: (query) => query,
  deserialize: (query) => query,
  buster: import.meta.url,
  maxAge: KEPT_MS,
  prefix: 'answer',
  // `asKept` asks anew, and takes it in its stride where nobody answers.
  refetchOnRestore: false,
})

/** What the device keeps is shown at once; the server is asked anew all the same, as long as anybody waits for it. */
export const asKept: typeof persister.persisterFn = async (asked, context, query) => {
  // Taken before the device has looked: a query whose signal is taken is given up as soon as nobody waits for it.
  const { client, signal } = context
  let isAsked = false
  const ask: typeof asked = (c) => {
    isAsked = true
    signal.throwIfAborted()
    return asked(c)
  }
  const isKnown = () => client.getQueryCache().get(query.queryHash) === query
  const answer = await persister.persisterFn(ask, context, query)
  if (!isAsked) setTimeout(() => isKnown() && void query.fetch().catch(() => {}))
  return answer
}

/** Where nobody answers, the rest of the application is told at once, before it is tried again. */
export async function heard<T>(answer: Promise<T>): Promise<T> {
  try {
    return await answer
  } catch (error) {
    if (nobodyAnswered(error)) seemsOffline()
    throw error
  }
}

/** How an answer is asked for and what it rests on. What was asked for a day of its own is not kept on the device. */
export function answerOf<E extends Endpoint>(endpoint: E, sent: Omit<Sent<E>, 'body'>, staysPut?: boolean) {
  const { gardenId } = (sent.params ?? {}) as { gardenId?: string }
  const isOfItsDay = Object.values(sent.query ?? {}).some((v) => v !== undefined)
  return {
    queryKey: [gardenId ?? PRACTICE[0], hrefOf(endpoint, sent)] as QueryKey,
    queryFn: ({ signal }: { signal: AbortSignal }) => heard(ask(endpoint, sent as Sent<E>, signal)),
    meta: { restsOn: endpoint.restsOn ?? [], staysPut } satisfies AnswerMeta,
    ...(isOfItsDay ? {} : { persister: asKept }),
  }
}

type Options<T> = Partial<Pick<UseQueryOptions<T>, 'enabled' | 'placeholderData' | 'refetchInterval'>> &
  Pick<AnswerMeta, 'staysPut'>

/** What the server answers, asked again when what it rests on has changed (`followGarden`). */
export const useAnswer = <E extends Endpoint>(
  endpoint: E,
  sent: Omit<Sent<E>, 'body'>,
  { staysPut, ...options }: Options<AnswerOf<E>> = {},
): UseQueryResult<AnswerOf<E>> =>
  useQuery({ ...answerOf(endpoint, sent, staysPut), ...options } as UseQueryOptions<AnswerOf<E>>)

/** While a garden's work is being brought up to date; and else, for what others change. */
const BEHIND_MS = 2_500
const FOLLOW_MS = 30_000

const versionsKey = (gardenId: string): QueryKey => [gardenId, 'versions']

/** How a garden stands, asked now and then: what others have changed is seen by it, and asked again. */
const versionsOf = (client: QueryClient, gardenId: string) => ({
  queryKey: versionsKey(gardenId),
  queryFn: async ({ signal }: { signal: AbortSignal }): Promise<VersionsView> => {
    const now = await heard(ask(gardenEndpoints.versions, { params: { gardenId } }, signal))
    const before = client.getQueryData<VersionsView>(versionsKey(gardenId))
    if (before) await askAgain(client, gardenId, changedAspects(before.versions, now.versions))
    return now
  },
})

/** Follows a garden for as long as it is looked at. */
export function useGardenVersions(gardenId: string): void {
  useQuery({
    ...versionsOf(useQueryClient(), gardenId),
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.isBehind ? BEHIND_MS : FOLLOW_MS),
  })
}

/** Whether the work of a garden is not yet that of the garden as it stands. */
export const useIsBehind = (gardenId: string): boolean =>
  useQuery<VersionsView>({ queryKey: versionsKey(gardenId), queryFn: skipToken }).data?.isBehind ?? false

/** Asks again for what has changed of a garden since it was last followed, and waits for what is being looked at. */
export async function followGarden(client: QueryClient, gardenId: string): Promise<void> {
  // An answer under way was asked before the change.
  await client.cancelQueries({ queryKey: versionsKey(gardenId) })
  const before = client.getQueryData(versionsKey(gardenId))
  try {
    await client.fetchQuery({ ...versionsOf(client, gardenId), staleTime: 0 })
  } catch {
    // Nobody can say what has changed: all of it is asked again when somebody answers.
    void client.invalidateQueries({ queryKey: [gardenId] })
    return
  }
  if (!before) await client.invalidateQueries({ queryKey: [gardenId] })
}

/** Asks again for all that rests on aspects of a garden; what nobody looks at is asked for when somebody does. */
export async function askAgain(
  client: QueryClient,
  gardenId: string,
  changed: readonly Aspect[],
): Promise<void> {
  if (changed.length === 0) return
  const metaOf = (query: Query) => query.meta as AnswerMeta | undefined
  const isTouched = (query: Query) =>
    (query.queryKey[0] === gardenId || query.queryKey[0] === PRACTICE[0]) &&
    (metaOf(query)?.restsOn ?? []).some((a) => changed.includes(a))
  const isAtHand = (query: Query) => metaOf(query)?.staysPut === true
  void client.invalidateQueries({ predicate: (q) => isTouched(q) && isAtHand(q), refetchType: 'none' })
  const filter = { predicate: (q: Query) => isTouched(q) && !isAtHand(q) }
  // A first answer still under way was asked before the change: without this it would be taken for the new one.
  await client.cancelQueries(filter)
  await client.invalidateQueries(filter)
}
