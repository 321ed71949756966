import type { AnswerOf, BodyOf, Endpoint, ParamsOf, SeenOf } from '@border/contract'
import { useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query'
import { announce } from '../frame/Announced.tsx'
import { askMeanwhile } from '../frame/Meanwhile.tsx'
import { followGarden, PRACTICE } from './answers.ts'
import { ApiError, write, type Sent } from './client.ts'

/** What all gardens share, and what has changed by it in those that are open. */
async function followPractice(client: QueryClient): Promise<void> {
  const gardens = client
    .getQueryCache()
    .findAll({ predicate: ({ queryKey }) => queryKey[1] === 'versions' })
    .map(({ queryKey }) => String(queryKey[0]))
  await client.invalidateQueries({ queryKey: PRACTICE })
  await Promise.all(gardens.map((id) => followGarden(client, id)))
}

/** What a write is called with: its body, or nothing that matters where it has none. */
type Written<E extends Endpoint> = BodyOf<E> extends undefined ? object : BodyOf<E>

/** Somebody else's change was left standing. */
export class LeftStanding extends Error {}

/**
 * Writes, with what was seen of that which it changes; where somebody else has changed it since, the person is shown what and
 * chooses.
 *
 * @throws {LeftStanding} where the other change is to stand
 */
export async function writeAsSeen<E extends Endpoint>(endpoint: E, sent: Sent<E>): Promise<AnswerOf<E>> {
  for (let { seen } = sent; ;)
    try {
      return await write(endpoint, { ...sent, seen })
    } catch (error) {
      if (!(error instanceof ApiError) || !error.meanwhile) throw error
      if (!(await askMeanwhile(error.meanwhile))) throw new LeftStanding()
      seen = error.meanwhile.stands as SeenOf<E>
    }
}

/** Of a change of something: that thing as whoever changes it saw it when they began. */
type Seen<E extends Endpoint, W> =
  SeenOf<E> extends undefined ? [] : [seen: (written: W) => SeenOf<E> | undefined]

/** A write after which what it has changed is read again; a refusal is shown in its words. */
function useWrite<E extends Endpoint, W>(
  endpoint: E,
  sentOf: (written: W) => Sent<E>,
  follow: (client: QueryClient, written: W) => Promise<void>,
  done: string | ((written: W, answer: AnswerOf<E>) => React.ReactNode),
) {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (written: W) => writeAsSeen(endpoint, sentOf(written)),
    onSuccess: async (answer, written) => {
      await follow(client, written)
      announce.done(typeof done === 'string' ? done : done(written, answer))
    },
    onError: async (error, written) => {
      if (!(error instanceof LeftStanding)) return announce.failed(errorText(error))
      await follow(client, written)
      announce.done('Left as it stands.')
    },
  })
}

/** A write to what the whole practice shares. */
export const usePracticeWrite = <E extends Endpoint>(
  endpoint: E & (unknown extends ParamsOf<E['path']> ? unknown : never),
  done: string | ((answer: AnswerOf<E>) => string),
  ...[seen]: Seen<E, BodyOf<E>>
) =>
  useWrite<E, BodyOf<E>>(
    endpoint,
    (body) => ({ body, seen: seen?.(body) }) as unknown as Sent<E>,
    followPractice,
    typeof done === 'string' ? done : (_, answer) => done(answer),
  )

/**
 * A write to a garden.
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
  ...[seen]: Seen<E, W>
) {
  const paramsOf = (written: W) => (typeof params === 'function' ? params(written) : params)
  return useWrite<E, W>(
    endpoint,
    (written) =>
      ({
        params: paramsOf(written),
        body: endpoint.body && written,
        seen: seen?.(written),
      }) as unknown as Sent<E>,
    (client, written) => followGarden(client, paramsOf(written).gardenId),
    done,
  )
}

export function errorText(error: unknown): string {
  if (!(error instanceof ApiError)) return 'Something went wrong. Nothing was saved.'
  return [error.message, ...error.problems.map((p) => p.message)].join(' ')
}
