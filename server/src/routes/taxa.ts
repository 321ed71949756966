import { taxonEndpoints, type KnownTaxon } from '@border/contract'
import { readAs, taxonSchema, writeTaxa } from '@border/core'
import type { Db } from '../database/connect.ts'
import { fileRefusal, zodRefusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { listTaxa, removeOwnTaxon, saveOwnTaxon } from '../store/taxa.ts'
import type { ComputePool } from '../work/compute.ts'
import { readOn } from '../work/fileTasks.ts'
import { taxonStanding } from '../work/standing.ts'

/** The plant library: what ships with it, and the kinds of a practice's own. */
export const taxaRoutes = (pool: ComputePool): Route[] => [
  route(taxonEndpoints.list, {
    handle: ({ db, person }) => knownTaxa(db, person.practiceId),
  }),
  route(taxonEndpoints.csv, {
    handle: async ({ db, person, query }, { res }) => {
      const taxa = await listTaxa(db, person.practiceId)
      const wanted = query.own !== undefined ? taxa.filter((t) => t.own !== null) : taxa
      res
        .type('text/csv; charset=utf-8')
        .set('content-disposition', 'attachment; filename="taxa.csv"')
        .send(writeTaxa(wanted.map((t) => t.taxon)))
    },
  }),
  route(taxonEndpoints.save, {
    stands: async ({ db, person, body: { was } }) =>
      was === undefined ? undefined : taxonNow(db, person.practiceId, was),
    handle: async ({ db, person, body }) => {
      const read = readAs(taxonSchema, body.taxon)
      if (!read.success) throw zodRefusal(read.error)
      return { changed: await saveOwnTaxon(db, person.practiceId, read.data, body.was) }
    },
  }),
  route(taxonEndpoints.bring, {
    prepare: async ({ body }) => {
      const read = await readOn(pool)('taxaFile', { text: body.csv })
      if (!read.ok) throw fileRefusal(read.problems)
      return read.value
    },
    handle: async ({ db, person, prepared }) => {
      let changed = 0
      for (const taxon of prepared) if (await saveOwnTaxon(db, person.practiceId, taxon)) changed++
      return { changed, same: prepared.length - changed }
    },
  }),
  route(taxonEndpoints.remove, {
    stands: ({ db, person, body }) => taxonNow(db, person.practiceId, body.botanical),
    handle: ({ db, person, body }) => removeOwnTaxon(db, person.practiceId, body.botanical),
  }),
]

const knownTaxa = async (db: Db, practiceId: string): Promise<KnownTaxon[]> =>
  (await listTaxa(db, practiceId)).map(({ taxon, own }) => ({ ...taxon, own }))

async function taxonNow(db: Db, practiceId: string, botanical: string) {
  const named = botanical.toLowerCase()
  const known = (await knownTaxa(db, practiceId)).find((t) => t.botanical.toLowerCase() === named)
  return taxonStanding(practiceId, botanical, known)
}
