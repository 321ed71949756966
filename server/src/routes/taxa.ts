import { ownTaxonRequest, removeTaxonRequest, taxaFileRequest, type KnownTaxon } from '@border/contract'
import { readTaxa, taxonSchema, writeTaxa } from '@border/core'
import { fileRefusal, zodRefusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { listTaxa, removeOwnTaxon, saveOwnTaxon } from '../store/taxa.ts'

/** The plant library: what ships with it, and the kinds of a practice's own. */
export const taxaRoutes = (): Route[] => [
  route({
    method: 'get',
    path: '/taxa',
    access: 'signed in',
    handle: async ({ db, person }): Promise<KnownTaxon[]> =>
      (await listTaxa(db, person.practiceId)).map((t) => ({ ...t.taxon, own: t.own })),
  }),
  route({
    method: 'get',
    path: '/taxa.csv',
    access: 'signed in',
    handle: async ({ db, person, query }, { res }) => {
      const taxa = await listTaxa(db, person.practiceId)
      const wanted = 'own' in query ? taxa.filter((t) => t.own !== null) : taxa
      res
        .type('text/csv; charset=utf-8')
        .set('content-disposition', 'attachment; filename="taxa.csv"')
        .send(writeTaxa(wanted.map((t) => t.taxon)))
    },
  }),
  route({
    method: 'post',
    path: '/taxa',
    access: 'leads practice',
    body: ownTaxonRequest,
    writes: true,
    handle: async ({ db, person, body }) => {
      const read = taxonSchema.safeParse(body.taxon)
      if (!read.success) throw zodRefusal(read.error)
      return { changed: await saveOwnTaxon(db, person.practiceId, read.data, body.was) }
    },
  }),
  route({
    method: 'post',
    path: '/taxa-file',
    access: 'leads practice',
    body: taxaFileRequest,
    writes: true,
    handle: async ({ db, person, body }) => {
      const read = readTaxa(body.csv)
      if (!read.ok) throw fileRefusal(read.problems)
      let changed = 0
      for (const taxon of read.value) if (await saveOwnTaxon(db, person.practiceId, taxon)) changed++
      return { changed, same: read.value.length - changed }
    },
  }),
  route({
    method: 'post',
    path: '/taxa/remove',
    access: 'leads practice',
    body: removeTaxonRequest,
    writes: true,
    handle: ({ db, person, body }) => removeOwnTaxon(db, person.practiceId, body.botanical),
  }),
]
