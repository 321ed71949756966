import type { TaxonSearch } from './search.ts'
import type { Taxon } from './taxon.ts'

/** A line of a list or a receipt as it was read: how many of what. */
export interface ArmfulLine {
  /** As it was written. */
  text: string
  count: number
  /** What of it was taken for the name. */
  name: string
  /** Taxa it may mean, likeliest first. */
  found: readonly Taxon[]
  /** One of them bears exactly this name, or there is only one. */
  isSure: boolean
}

/** Sizes of pots, prices and numbers of goods: what a receipt says beside a name. */
const NOT_NAMES: readonly RegExp[] = [
  /[£$€¥]\s*\d+([.,]\d+)?/gu,
  /\b\d+([.,]\d{2})\s*(eur|usd|gbp|kr)?\b/giu,
  /\b\d+([.,]\d+)?\s*(cm|mm|ml|l|lt|ltr|litres?|liters?|in|inch|gal|gallons?|pots?)\b/giu,
  /\b[pc]\s?\d{1,2}\b/giu,
  /\b(pack|tray|plug|plugs|bare\s?root|potted|each|ea|pcs?|stk)\b/giu,
  /[#*]\s*\w*\d\w*/gu,
]
const MOST = 10_000
/** Suggestions that are of use to somebody typing. */
const SUGGESTED = 8

/**
 * Reads “5 conef”, “hosta x3”, “2 Lavandula angustifolia 9 cm £3.50”: one if no number is said.
 *
 * @returns undefined for a line that names nothing
 */
export function readArmful(line: string, search: TaxonSearch): ArmfulLine | undefined {
  const text = line.trim()
  const plain = NOT_NAMES.reduce((t, not) => t.replace(not, ' '), text.replace(/[\t;|]+/g, ' '))
  const [, first, , rest] = /^(\d{1,5})\s*(x|×|\*)?\s+(.*)$/iu.exec(plain.trim()) ??
    /^(\d{1,5})(x|×|\*)()\s*(.*)$/iu.exec(plain.trim()) ?? [undefined, undefined, undefined, undefined]
  const [, before, last] = first
    ? []
    : (/^(.*?)[\s,]+(?:x|×|\*)?\s*(\d{1,5})$/iu.exec(plain.trim()) ?? [undefined, undefined, undefined])
  const named = (rest ?? before ?? plain).replace(/^[\s,.:–-]+|[\s,.:–-]+$/gu, '').replace(/\s+/g, ' ')
  if (!/\p{L}{2}/u.test(named)) return undefined
  const { found, isSure } = namedAs(named, search)
  return { text, count: Math.min(MOST, Math.max(1, Number(first ?? last ?? 1))), name: named, found, isSure }
}

/** Taxa that a name may mean; a cultivar’s name behind it is of no use to the library, and is left out where nothing bears it. */
function namedAs(name: string, search: TaxonSearch): Pick<ArmfulLine, 'found' | 'isSure'> {
  const whole = search.find(name)
  const plain = name.replace(/[‘'"“][^’'"”]*[’'"”]/gu, ' ').trim()
  const words = plain.split(/\s+/)
  const tries = [plain, words.slice(0, 3).join(' '), words.slice(0, 2).join(' '), words[0]!]
  const found = whole.length > 0 ? whole : (tries.map((t) => search.find(t)).find((f) => f.length > 0) ?? [])
  const bears = (t: Taxon) =>
    [t.botanical, t.common, ...t.synonyms].some((n) => n.toLowerCase() === plain.toLowerCase())
  return {
    found: found.slice(0, SUGGESTED),
    isSure: found.length === 1 || (found.length > 0 && bears(found[0]!)),
  }
}

/** A list as it was pasted, line by line; headings and lines that name nothing are left out. */
export const readArmfuls = (text: string, search: TaxonSearch): ArmfulLine[] =>
  text.split(/\r?\n/).flatMap((line) => readArmful(line, search) ?? [])
