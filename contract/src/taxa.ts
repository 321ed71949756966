import { taxonShape, type Taxon } from '@border/core'
import { z } from 'zod'
import { botanicalName, fileText } from './basics.ts'
import { reads, sendsFile, writes } from './endpoint.ts'

const knownTaxon: z.ZodType<Taxon & { own: 'new' | 'changed' | null }> = z.strictObject({
  ...taxonShape,
  own: z.enum(['new', 'changed']).nullable(),
})
/** A kind as a practice knows it: the library's, its own version of one, or one of its own. */
export type KnownTaxon = z.infer<typeof knownTaxon>

/** The plant library: what ships with it, and the kinds of a practice's own. */
export const taxonEndpoints = {
  list: reads('/taxa', 'signed in', { answer: z.array(knownTaxon), restsOn: ['library'] }),
  csv: sendsFile('/taxa.csv', 'signed in', 'text/csv', { query: z.object({ own: z.string().optional() }) }),
  save: writes('/taxa', 'leads practice', {
    /** The kind is checked whole where it is read; `was` is the name it had until now. */
    body: z.object({ taxon: z.unknown(), was: botanicalName.optional() }),
    sees: knownTaxon,
    answer: z.strictObject({ changed: z.boolean() }),
  }),
  bring: writes('/taxa-file', 'leads practice', {
    body: z.object({ csv: fileText }),
    answer: z.strictObject({ changed: z.number(), same: z.number() }),
  }),
  remove: writes('/taxa/remove', 'leads practice', {
    body: z.object({ botanical: botanicalName }),
    sees: knownTaxon,
  }),
}
