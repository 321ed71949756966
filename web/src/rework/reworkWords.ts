import type {
  InHandView,
  SaidDestination,
  SaidDrift,
  SaidScheme,
  SchemeView,
  TrayView,
} from '@border/contract'
import { counted, type Layer, type WayOut, type WishName, type WorkOf } from '@border/core'

/** What becomes of something that leaves, as it is read after its name. */
export const wayWords: Record<WayOut, string> = {
  stay: 'stays for now',
  bench: 'waits on the bench',
  'give away': 'is given away',
  gone: 'goes for good',
}

export const destinationWords = (
  to: SaidDestination,
  placeName: (id: string) => string,
  ownPlaceId: string,
): string => {
  if (to.to !== 'spot') return wayWords[to.to]
  return to.placeId === ownPlaceId ? 'goes elsewhere in this place' : `goes to ${placeName(to.placeId)}`
}

/** Points of a relocation as they are read: whole ones, less than one as nothing to speak of. */
export const pointsWords = (points: number): string =>
  points < 0.5 ? 'as good' : `+ ${Math.round(points)} ${Math.round(points) === 1 ? 'point' : 'points'}`

export const sourceWords: Record<SaidDrift['from'], string> = {
  bench: 'off the bench',
  division: 'from divisions',
  place: 'from another place',
  library: 'to be bought',
}

/** Where so many of a kind come from, as far as one has them. */
export function sourcesWords(count: number, inHand: InHandView | undefined): string {
  const had = Math.min(count, inHand?.count ?? 0)
  if (!inHand || had === 0) return sourceWords.library
  const from = sourceWords[inHand.from]
  return had < count ? `${had} ${from}, ${count - had} ${sourceWords.library}` : from
}

const layerWords: Record<Layer, string> = { front: 'low', middle: 'middling', back: 'tall' }
export const bringsWords: Record<TrayView['candidates'][number]['brings'][number], string> = {
  evergreen: 'green in winter',
  front: 'something low',
  middle: 'something of middle height',
  back: 'something tall',
  fine: 'fine leaves',
  bold: 'bold leaves',
  'leaf colour': 'leaves that are not green',
}

/** A wish as it is named where it contradicts others. */
export function wishWords(wish: WishName): string {
  if (wish.startsWith('locked ')) return `${wish.slice('locked '.length)}, which you want in`
  if (wish.startsWith('layer '))
    return `the share of ${layerWords[wish.slice('layer '.length) as Layer]} plants`
  const words: Partial<Record<WishName, string>> = {
    budget: 'the money',
    evergreen: 'the share that is green in winter',
    'no bare week': 'no week without a flower',
    scented: 'the scented kinds',
    wildlife: 'the kinds for wildlife',
    colours: 'the colours',
    harmless: 'nothing poisonous',
    'left alone': 'left alone by deer and rabbits',
    'fewest kinds': 'so many kinds at least',
    'most kinds': 'so many kinds at most',
    'ground filled': 'the ground filled',
  }
  return words[wish] ?? wish
}

export const operationWords: Record<WorkOf['operation'], string> = {
  lift: 'Lifting',
  divide: 'Dividing',
  clear: 'Clearing',
  prepare: 'Preparing the ground',
  plant: 'Planting',
  mulch: 'Spreading compost and mulch',
}

/** What the verdicts of a place would have done: `3 plantings would leave and 1 be divided`. */
export function leavingWords(proposed: readonly Pick<SaidScheme['leaving'][number], 'how'>[]): string {
  const divides = proposed.filter((l) => l.how === 'divides').length
  const leaves = proposed.length - divides
  if (leaves === 0) return `${counted(divides, 'planting')} would be divided`
  return `${counted(leaves, 'planting')} would leave${divides > 0 ? ` and ${divides} be divided` : ''}`
}

/** `7 of 22 steps are done`: how far a scheme that is carried out has come. */
export function progressWords({ steps: { done, open } }: Pick<SchemeView, 'steps'>): string {
  if (open === 0) return `carried out, in ${counted(done, 'step')}`
  return done === 0
    ? `to be carried out, ${counted(open, 'step')}`
    : `${done} of ${counted(done + open, 'step')} ${done === 1 ? 'is' : 'are'} done`
}
