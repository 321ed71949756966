import { taxonEndpoints } from '@border/contract'
import { readAs, readTaxa, taxonSchema, writeTaxa } from '@border/core'
import { fileRefusal, zodRefusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { listTaxa, removeOwnTaxon, saveOwnTaxon } from '../store/taxa.ts'

/** The plant library: what ships with it, and the kinds of a practice's own. */
export const taxaRoutes = (): Route[] => [
  route(taxonEndpoints.list, {
    handle: async ({ db, person }) =>
      (await listTaxa(db, person.practiceId)).map((t) => ({ ...t.taxon, own: t.own })),
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
    handle: async ({ db, person, body }) => {
      const read = readAs(taxonSchema, body.taxon)
      if (!read.success) throw zodRefusal(read.error)
      return { changed: await saveOwnTaxon(db, person.practiceId, read.data, body.was) }
    },
  }),
  route(taxonEndpoints.bring, {
    handle: async ({ db, person, body }) => {
      const read = readTaxa(body.csv)
      if (!read.ok) throw fileRefusal(read.problems)
      let changed = 0
      for (const taxon of read.value) if (await saveOwnTaxon(db, person.practiceId, taxon)) changed++
      return { changed, same: read.value.length - changed }
    },
  }),
  route(taxonEndpoints.remove, {
    handle: ({ db, person, body }) => removeOwnTaxon(db, person.practiceId, body.botanical),
  }),
]
