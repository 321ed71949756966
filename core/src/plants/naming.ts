import type { Taxon } from './taxon.ts'

/** How somebody calls plants: by which of their names first, and whether the other stands beside it. */
export const namings = ['common first', 'botanical first', 'common', 'botanical'] as const
export type Naming = (typeof namings)[number]

/** As it is where nobody has said. */
export const USUAL_NAMING: Naming = 'botanical first'

/** A kind by its two names. */
export type Names = Pick<Taxon, 'botanical' | 'common'>

/** A name as it is written: botanical ones in italics. */
export interface WrittenName {
  text: string
  isBotanical: boolean
}

/** The names of a kind in somebody's order; one where the other is not wanted, or is the same. */
export function namesOf({ botanical, common }: Names, naming: Naming): [WrittenName, WrittenName?] {
  const [byCommon, byBotanical] = [
    { text: common, isBotanical: false },
    { text: botanical, isBotanical: true },
  ]
  if (botanical === common || naming === 'botanical') return [byBotanical]
  if (naming === 'common') return [byCommon]
  return naming === 'common first' ? [byCommon, byBotanical] : [byBotanical, byCommon]
}

/** The one name that stands for a kind in a sentence. */
export const nameFor = (names: Names, naming: Naming): string => namesOf(names, naming)[0].text

/**
 * Kinds in a text, which calls them by their botanical names, called as somebody does: at the head of a sentence with a capital. Kinds
 * that share a common name keep the botanical one beside it.
 */
export function called(text: string, kinds: readonly Names[], naming: Naming): string {
  if (naming === 'botanical' || naming === 'botanical first') return text
  const of = new Map(kinds.map((k) => [k.botanical, k.common]))
  const shared = new Map<string, number>()
  for (const common of of.values()) shared.set(common, (shared.get(common) ?? 0) + 1)
  // The longest first: a species is the beginning of its hybrids' names.
  const names = [...of.keys()]
    .filter((b) => b !== of.get(b) && text.includes(b))
    .sort((a, b) => b.length - a.length)
  if (names.length === 0) return text
  const any = new RegExp(`(?<![\\p{L}-])(?:${names.map(literally).join('|')})(?![\\p{L}-])`, 'gu')
  return text.replace(any, (botanical: string, at: number) => {
    const common = of.get(botanical)!
    const begins = at === 0 || /[.!?:] $/.test(text.slice(0, at))
    const name = begins ? common[0]!.toUpperCase() + common.slice(1) : common
    return shared.get(common)! > 1 ? `${name} (${botanical})` : name
  })
}

const literally = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
