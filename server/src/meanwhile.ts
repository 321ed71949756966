import type { Meanwhile } from '@border/contract'
import { isDeepStrictEqual } from 'node:util'
import type { Db } from './database/connect.ts'
import { Refusal } from './errors.ts'

/** Something that people change from what they have seen of it; several such things, where one change is of all. */
export interface Standing<Seen> {
  /** What it is of, by names that no two things share. */
  names: readonly string[]
  /** As it stands; null where it is gone. */
  as: Seen | null
  /** What is otherwise than it was seen: of which of the things, and in sentences. */
  differs: (seen: Seen) => { names: readonly string[]; says: string[] }
}

/** Says of a write what it has changed. */
export const nameChanged = async (trx: Db, key: string, names: readonly string[]): Promise<void> => {
  await trx('writes').where({ idempotency_key: key }).update({ changed: names })
}

interface LastChange {
  personId: string
  by: string
  at: Date
}

const lastChange = (trx: Db, name: string) =>
  trx('writes')
    .join('people', 'people.id', 'writes.person_id')
    .whereRaw('changed @> array[?]', [name])
    .orderBy('writes.created_at', 'desc')
    .first<LastChange | undefined>('people.id as personId', 'people.name as by', 'writes.created_at as at')

/** As it travels: what is not said is left out. */
const asSent = (value: unknown): unknown => JSON.parse(JSON.stringify(value))

/**
 * Holds what somebody has seen of a thing against how it stands. What one has changed last oneself is one's own to change again.
 *
 * @throws {Refusal} where somebody else has changed it since, with what is otherwise
 */
export async function requireAsSeen<Seen>(
  trx: Db,
  personId: string,
  { names, as, differs }: Standing<Seen>,
  seen: Seen,
): Promise<void> {
  const stands = asSent(as)
  if (isDeepStrictEqual(asSent(seen), stands)) return
  const otherwise = as === null ? { names, says: ['It is no longer there.'] } : differs(seen)
  const last: (LastChange | undefined)[] = []
  for (const name of otherwise.names) last.push(await lastChange(trx, name))
  const others = last.filter((l) => l?.personId !== personId)
  if (others.length === 0) return
  const [theirs] = others.sort((a, b) => (b?.at.getTime() ?? 0) - (a?.at.getTime() ?? 0))
  const meanwhile: Meanwhile = {
    by: theirs?.by ?? null,
    at: theirs?.at.toISOString() ?? null,
    says: otherwise.says,
    stands,
  }
  const says = `${theirs ? `${theirs.by} has changed this` : 'This has changed'} since you looked at it. Nothing of yours was saved.`
  throw new Refusal(409, says, undefined, undefined, meanwhile)
}
