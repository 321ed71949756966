import { z } from 'zod'
import type { Aspect } from './aspects.ts'
import type { Role } from './roles.ts'

/**
 * Who may use an endpoint: anyone, anyone signed in, who leads the practice, or a member of the garden in its path with at least
 * this role.
 */
export type Access = 'anyone' | 'signed in' | 'leads practice' | { garden: Role }

/** What can be asked of the server: one address, who may, what is sent and what comes back. */
export interface Endpoint {
  method: 'get' | 'post'
  /** Below `/api`; parts that begin with a colon are given. */
  path: string
  access: Access
  query?: z.ZodType
  body?: z.ZodType
  /** Of one that sends a file: what the file is. */
  sends?: string
  /** It takes a file as well: what is sent is a form of two parts, `said`, the body as JSON, and `file`. */
  takesFile?: true
  answer: z.ZodType
  /**
   * Of a change of something: what of it whoever changes it has seen, sent beside the body as `seen`. Where somebody else has changed
   * that since, nothing is changed, and the answer tells what. Unsaid, it is changed however it stands.
   */
  sees?: z.ZodType
  /** Of what is read: the aspects of a garden that its answer is made from. While none of them changes the answer stays, for a day. */
  restsOn?: readonly Aspect[]
  /** Runs once per idempotency key. The answer of a `secret` one is not kept: a repeat is answered without it. */
  writes?: boolean | 'secret'
}

/** The parts of a path that are given. */
export type ParamsOf<Path extends string> = Path extends `${infer Head}/:${infer Rest}`
  ? ParamsOf<Head> &
      (Rest extends `${infer Name}/${infer Tail}`
        ? Record<Name, string> & ParamsOf<`/${Tail}`>
        : Record<Rest, string>)
  : unknown

export type AnswerOf<E extends Endpoint> = z.infer<E['answer']>
/** What is sent, as it is before defaults are filled in. */
export type BodyOf<E extends Endpoint> = E extends { body: infer B extends z.ZodType }
  ? z.input<B>
  : undefined
/** What was seen of that which is changed. */
export type SeenOf<E extends Endpoint> = E extends { sees: infer S extends z.ZodType }
  ? z.infer<S>
  : undefined
export type QueryOf<E extends Endpoint> = E extends { query: infer Q extends z.ZodType }
  ? z.input<Q>
  : undefined

/** What a write answers that has nothing to tell. */
export const done = z.strictObject({ ok: z.literal(true) })

/** @typeParam Said what has to be said of every endpoint of the method */
const answering =
  <Method extends Endpoint['method'], Said>(method: Method) =>
  <const P extends string, const A extends Access, const More extends Partial<Endpoint> & Said>(
    path: P,
    access: A,
    more: More,
  ) => ({ method, path, access, ...more })

/** Something read: what it is made from is said with it. */
export const reads = answering<'get', { answer: z.ZodType; restsOn: readonly Aspect[] }>('get')

/** Something asked that changes nothing of what is recorded, though it travels as a POST. */
export const asks = answering<'post', { answer: z.ZodType }>('post')

/** A file: what it holds is for other programs. */
export const sendsFile = <
  const P extends string,
  const A extends Access,
  const More extends Partial<Endpoint>,
>(
  path: P,
  access: A,
  sends: string,
  more?: More,
) => ({ method: 'get' as const, path, access, sends, answer: z.undefined(), ...(more as More) })

/** Something recorded, once however often it is sent. */
export const writes = <
  const P extends string,
  const A extends Access,
  const More extends Partial<Endpoint> = object,
>(
  path: P,
  access: A,
  more?: More,
) =>
  ({ method: 'post' as const, path, access, writes: true as const, answer: done, ...more }) as {
    method: 'post'
    path: P
    access: A
  } & Omit<{ writes: true; answer: typeof done }, keyof More> &
    More
