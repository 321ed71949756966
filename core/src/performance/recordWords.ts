import { capitalised, listed } from '../words/index.ts'
import type { RecordModel, SourceOrChance, SourceShare, Untold } from './recordModel.ts'

/** Something that a record cannot tell yet, and what would tell it: two sentences. */
export interface CannotTell {
  says: string
  wouldTell: string
}

/** How places and taxa are called. */
export interface RecordNames {
  place: (id: string) => string
  taxon: (botanical: string) => string
}

/** What is said of a model rests on these of its parts. */
export type ToldModel = Pick<RecordModel, 'shares' | 'untold' | 'untied' | 'taxa'>

const words: Record<SourceOrChance, string> = {
  place: 'the place',
  year: 'the year',
  taxon: 'the kind',
  light: 'the kind in its light',
  planting: 'the single planting',
  chance: 'chance and the eye',
}
const wordsOf = (sources: readonly SourceOrChance[]) => listed(sources.map((s) => words[s]))

const percent = (share: number) => Math.round(100 * share)
const range = ({ low, high }: SourceShare) => `${percent(low)} to ${percent(high)} %`

/** What of all that differs between season scores comes from where, in one sentence; empty where none can be told. */
export function sharesSaid({ shares }: Pick<ToldModel, 'shares'>): string {
  const told = shares.filter((s) => s.share !== undefined)
  if (told.length === 0) return ''
  const said = told.map(
    (s, i) =>
      `${percent(s.share!)} % ${i === 0 ? 'is ' : ''}${wordsOf(s.sources)}${s.sources.length > 1 ? ' together' : ''} (${range(s)})`,
  )
  return `Of what differs between seasons’ scores, ${listed(said)}.`
}

/** What the record cannot tell, with the planting or the look that would tell it, the plainest first. */
export function cannotTell(model: ToldModel, names: RecordNames): CannotTell[] {
  return [...model.untold.map((u) => untoldSaid(u, model, names)), ...untiedSaid(model, names)]
}

function untoldSaid(untold: Untold, model: ToldModel, names: RecordNames): CannotTell {
  const { sources, why } = untold
  if (why === 'single')
    return sources.includes('year')
      ? { says: 'One season alone cannot show what years do.', wouldTell: 'Another season would tell.' }
      : {
          says: 'One place alone cannot show what places do.',
          wouldTell: `${secondClump(model, names)} in another place would tell.`,
        }
  if (why === 'confounded') return confoundedSaid(sources, model, names)
  const share = model.shares.find((s) => s.sources[0] === sources[0])!
  return {
    says: `How much is ${wordsOf(sources)} cannot be told yet: anything from ${range(share)}.`,
    wouldTell: moreOf(sources[0]!),
  }
}

/** The taxon that has been followed most is the one of which a second planting tells soonest. */
function secondClump(model: ToldModel, names: RecordNames): string {
  const [most] = [...model.taxa].sort((a, b) => b.records - a.records || (a.key < b.key ? -1 : 1))
  return `A second clump of ${names.taxon(most!.key)}`
}

function confoundedSaid(
  sources: readonly SourceOrChance[],
  model: ToldModel,
  names: RecordNames,
): CannotTell {
  const has = (s: SourceOrChance) => sources.includes(s)
  const apart = `${wordsOf(sources)} cannot be told apart.`
  if (has('place') && has('taxon'))
    return {
      says: `Each place has a kind of its own: ${apart}`,
      wouldTell: `${secondClump(model, names)} in another place would tell.`,
    }
  if (has('place') && has('year'))
    return {
      says: `Each place was scored in a season of its own: ${apart}`,
      wouldTell: 'A walk through all of them in one season would tell.',
    }
  if (has('chance'))
    return {
      says: `Each planting has one season on record: ${apart}`,
      wouldTell: has('taxon')
        ? `Another season, and ${secondClump(model, names).replace(/^A/, 'a')} elsewhere, would tell.`
        : 'Another season would tell.',
    }
  if (has('taxon') && has('planting'))
    return {
      says: `Each kind stands here once: ${apart}`,
      wouldTell: `${secondClump(model, names)} elsewhere would tell.`,
    }
  if (has('light') && has('planting'))
    return {
      says: `No kind has two plantings in the same light: ${apart}`,
      wouldTell: 'A second clump of one beside the first would tell.',
    }
  return { says: capitalised(apart), wouldTell: 'More plantings and more seasons would tell.' }
}

const moreOf = (source: SourceOrChance): string =>
  ({
    place: 'More places with the same kinds in them would tell.',
    year: 'More seasons would tell.',
    taxon: 'More kinds, and second clumps of those there are, would tell.',
    light: 'The same kinds in other light would tell.',
    planting: 'More seasons, and second clumps of one kind, would tell.',
    chance: 'More walks a season would tell.',
  })[source]

/** Most groups of places that are named one by one. */
const MOST_NAMED = 3

function untiedSaid({ untied, taxa }: ToldModel, names: RecordNames): CannotTell[] {
  if (untied.length === 0 || taxa.length === 0) return []
  const [first, ...rest] = untied
  const apart = rest.slice(0, MOST_NAMED).map((places) => listed(places.map(names.place)))
  const more = rest.length - apart.length
  const others = first!.length === 1 ? names.place(first![0]!) : 'the other places'
  const far = listed([...apart, ...(more > 0 ? [`${more} more`] : [])])
  return [
    {
      says: `Nothing ties ${far} to ${others}: no kind stands in both, and what is plant and what is place there rests on averages.`,
      wouldTell: 'One kind planted in both would tie them.',
    },
  ]
}
