import { isSign, signWords } from '../diagnosis/index.ts'
import { ratingWords, type BloomStage } from '../performance/index.ts'
import { capitalised, listed } from '../words/index.ts'

/** A look at a planting, as far as words can be made of it. */
export interface SeenInWords {
  rating: number | null
  living: number | null
  absent: boolean
  stage: BloomStage | null
  flush: number | null
  heightM: number | null
  spreadM: number | null
  signs: readonly string[]
  note: string | null
}

/** A stage of bloom as it is said. */
export const stageWords: Record<BloomStage, string> = {
  none: 'no flowers',
  bud: 'in bud',
  opening: 'opening',
  full: 'in full bloom',
  fading: 'fading',
  over: 'flowers over',
}

/** `4 of 5, good; in full bloom; 6 of 7 living; mildew.` */
export function seenWords(o: SeenInWords, planted: number): string {
  const parts = [
    ...(o.absent ? ['nothing of it shows'] : []),
    ...(o.rating === null ? [] : [`${o.rating} of 5, ${ratingWords[o.rating - 1]}`]),
    ...(o.stage === null ? [] : [stageWords[o.stage] + (o.flush && o.flush > 1 ? `, flush ${o.flush}` : '')]),
    ...(o.living === null
      ? []
      : [planted > 1 || o.living > 1 ? `${o.living} of ${planted} living` : 'living']),
    ...(o.heightM === null ? [] : [`${o.heightM} m high`]),
    ...(o.spreadM === null ? [] : [`${o.spreadM} m across`]),
    ...(o.signs.length === 0 ? [] : [listed(o.signs.filter(isSign).map(signWords))]),
  ]
  const seen = parts.join('; ')
  const sentence = seen && `${capitalised(seen)}.`
  return [sentence, o.note].filter(Boolean).join(' ')
}
