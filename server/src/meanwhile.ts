import type { Meanwhile } from '@border/contract'
import { isDeepStrictEqual } from 'node:util'
import { asSent } from './asSent.ts'
import type { Db } from './database/connect.ts'
import { Refusal } from './errors.ts'
import { hashOf } from './hashOf.ts'

/** Something that people change from what they have seen of it; several such things, where one change is of all. */
export interface Standing<Seen> {
  /** What it is of, by names that no two things share. */
  names: readonly string[]
  /** As it stands; null where it is gone. */
  as: Seen | null
  /** What is otherwise than it was seen: of which of the things, and in sentences. */
  differs: (seen: Seen) => { names: readonly string[]; says: string[] }
}

/** Tells how a thing stands from any other way, asked for alone or among several that were only one; null of several at once. */
const markOf = ({ names, as }: { names: readonly string[]; as: unknown }): string | null =>
  names.length === 1 ? hashOf(Array.isArray(as) && as.length === 1 ? as[0] : as) : null

/** Says of a write what it has changed, and how it left it. */
export const nameChanged = async (trx: Db, key: string, left: Standing<never>): Promise<void> => {
  await trx('writes')
    .where({ idempotency_key: key })
    .update({ changed: left.names, left_as: markOf(left) })
}

interface LastChange {
  personId: string
  leftAs: string | null
  by: string
  at: Date
}

const lastChange = (trx: Db, name: string) =>
  trx('writes')
    .join('people', 'people.id', 'writes.person_id')
    .whereRaw('changed @> array[?]', [name])
    .orderBy('writes.created_at', 'desc')
    .first<LastChange | undefined>(
      'people.id as personId',
      'left_as as leftAs',
      'people.name as by',
      'writes.created_at as at',
    )

/**
 * Holds what somebody has seen of a thing against how it stands. What one has changed last oneself, and stands as one left it, is
 * one's own to change again.
 *
 * @throws {Refusal} where it has been changed otherwise since, with what is otherwise, and who did where that is known
 */
export async function requireAsSeen<Seen>(
  trx: Db,
  personId: string,
  standing: Standing<Seen>,
  seen: Seen,
): Promise<void> {
  const { names, as, differs } = standing
  const stands = asSent(as)
  if (isDeepStrictEqual(asSent(seen), stands)) return
  const otherwise = as === null ? { names, says: ['It is no longer there.'] } : differs(seen)
  const mark = markOf(standing)
  const others: (LastChange | undefined)[] = []
  for (const name of otherwise.names) {
    const last = await lastChange(trx, name)
    // What follows from something else, a job that was done or a file, is nobody's own.
    const isTheirs = last !== undefined && (last.leftAs === null || last.leftAs === mark)
    if (!isTheirs || last.personId !== personId) others.push(isTheirs ? last : undefined)
  }
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
