import MiniSearch from 'minisearch'
import { alsoCalled } from './names.ts'
import type { Taxon } from './taxon.ts'

/** Finds taxa by any of their names. */
export interface TaxonSearch {
  /** Best first; a letter in five may be wrong, and a word may be unfinished. */
  find: (query: string) => Taxon[]
}

/** Everything a kind is called beside its botanical and its common name. */
export const otherNames = ({ botanical, synonyms }: Pick<Taxon, 'botanical' | 'synonyms'>): string[] => [
  ...synonyms,
  ...Object.entries(alsoCalled).flatMap(([begins, names]) => (botanical.startsWith(begins) ? names : [])),
]

/** An index of botanical and common names, synonyms and genera. Build it once for a list. */
export function taxonSearch(taxa: readonly Taxon[]): TaxonSearch {
  const index = new MiniSearch<{ id: number; botanical: string; common: string; synonyms: string }>({
    fields: ['botanical', 'common', 'synonyms'],
    processTerm: (term) => plainLetters(term) || null,
    searchOptions: {
      boost: { botanical: 2, common: 1.5 },
      combineWith: 'AND',
      prefix: true,
      fuzzy: (term) => (term.length > 3 ? 0.2 : false),
    },
  })
  // Worked out once: they are looked through at every letter that is typed.
  const others = taxa.map(otherNames)
  index.addAll(
    taxa.map((t, id) => ({
      id,
      botanical: t.botanical,
      common: t.common,
      synonyms: others[id]!.join(' '),
    })),
  )
  return {
    find(query) {
      const exact = plainLetters(query)
      const isIt = (n: string) => plainLetters(n) === exact
      const own = taxa.filter((t) => [t.botanical, t.common, ...t.synonyms].some(isIt))
      // Who names a genus means it before all that is only called so.
      const genus = taxa.filter((t) => isIt(t.botanical.split(' ')[0]!))
      const named = [...own, ...genus, ...taxa.filter((_, i) => others[i]!.some(isIt))]
      const found = index.search(query).map((r) => taxa[r.id as number]!)
      return [...new Set([...named, ...found])]
    },
  }
}

/** Lower case, without accents, hyphens, the multiplication sign and quotes. */
const plainLetters = (text: string): string =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[’'‘"]/g, '')
    .replace(/×|\bx\b/g, ' ')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()
