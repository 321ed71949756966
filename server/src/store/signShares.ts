import type { LikelihoodEdit, SignCause, SignId } from '@border/core'
import type { Db } from '../database/connect.ts'

/** A garden’s own view of what a sign speaks for, and whose it is. */
export interface SignShareRow extends LikelihoodEdit {
  changedBy: string | null
}

/** A practice's own shares, in the order they were changed. */
export async function listSignShares(db: Db, practiceId: string): Promise<SignShareRow[]> {
  const rows = await db('sign_shares')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ 'sign_shares.practice_id': practiceId })
    .orderBy('changed_at')
    .select<{ sign: SignId; cause: SignCause; share: number; why: string | null; by: string | null }[]>(
      'sign',
      'cause',
      'share',
      'why',
      'people.name as by',
    )
  return rows.map(({ why, by, ...row }) => ({ ...row, ...(why ? { why } : {}), changedBy: by }))
}

/** @param share null goes back to the shipped one */
export async function setSignShare(
  db: Db,
  practiceId: string,
  personId: string,
  {
    sign,
    cause,
    share,
    why,
  }: { sign: SignId; cause: SignCause; share: number | null; why?: string | undefined },
): Promise<void> {
  if (share === null) {
    await db('sign_shares').where({ practice_id: practiceId, sign, cause }).delete()
    return
  }
  await db('sign_shares')
    .insert({
      practice_id: practiceId,
      sign,
      cause,
      share,
      why: why ?? null,
      person_id: personId,
      changed_at: db.fn.now(),
    })
    .onConflict(['practice_id', 'sign', 'cause'])
    .merge()
}
