import type { OfferView } from '@border/contract'
import type { Db } from '../database/connect.ts'

/** What suppliers ask, by what it is for. */
export const listOffers = (db: Db, practiceId: string): Promise<OfferView[]> =>
  db('offers')
    .where({ practice_id: practiceId, withdrawn_at: null })
    .orderBy(['item', 'supplier', 'id'])
    .select<OfferView[]>('id', 'supplier', 'item', 'packs', 'priced_on as pricedOn')

/** Keeps what a supplier asks for something; what was asked before is told no more, and kept. */
export async function sayOffer(
  trx: Db,
  { practiceId, personId }: { practiceId: string; personId: string },
  { packs, pricedOn, ...offer }: OfferView,
): Promise<void> {
  await trx('offers')
    .where({ practice_id: practiceId, withdrawn_at: null })
    .whereRaw('lower(supplier) = lower(?) and lower(item) = lower(?)', [offer.supplier, offer.item])
    .update({ withdrawn_at: trx.fn.now() })
  await trx('offers').insert({
    ...offer,
    packs: JSON.stringify(packs),
    priced_on: pricedOn,
    practice_id: practiceId,
    person_id: personId,
  })
}

/** @returns false where there is none */
export const withdrawOffer = async (trx: Db, practiceId: string, id: string): Promise<boolean> =>
  (await trx('offers')
    .where({ id, practice_id: practiceId, withdrawn_at: null })
    .update({ withdrawn_at: trx.fn.now() })) > 0
