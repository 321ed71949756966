import { capitalised } from '../words/index.ts'
import type { SeenShare } from './seen.ts'

/** Shares as people say them. */
const fractions: readonly [share: number, words: string][] = [
  [0.25, 'a quarter'],
  [1 / 3, 'a third'],
  [0.5, 'half'],
  [2 / 3, 'two thirds'],
  [0.75, 'three quarters'],
  [0.92, 'nearly all'],
  [1, 'all'],
]
/** What is hidden of a kind by less than this is not worth a word. */
const WORTH_SAYING = 0.18

/** The fraction that is nearest to a share. */
export const shareWords = (share: number): string =>
  fractions.reduce((a, b) => (Math.abs(b[0] - share) < Math.abs(a[0] - share) ? b : a))[1]

/** Of a kind the share that is hidden: of its flowers while it has some, else of its leaves; null where there is nothing to see. */
export const hiddenShare = ({ leaves, flowers }: SeenShare): number | null => {
  const seen = flowers ?? leaves
  return seen === null ? null : 1 - seen
}

/** `Half of this drift of phlox is hidden`: of the one in hand, whatever is to be said; undefined where there is nothing to see. */
export function ownHiddenWords(common: string, share: SeenShare): string | undefined {
  const hidden = hiddenShare(share)
  if (hidden === null) return undefined
  const [of, is] =
    share.flowers === null
      ? [`this drift of ${common}`, 'is']
      : [`the flowers of this drift of ${common}`, 'are']
  if (hidden >= WORTH_SAYING) return `${capitalised(shareWords(hidden))} of ${of} ${is} hidden`
  const inAHundred = Math.round(100 * hidden)
  return `${capitalised(of)} ${is} seen${inAHundred === 0 ? ' whole' : `, all but ${inAHundred} in a hundred`}`
}

/** `a third of the phlox`: undefined where hardly anything is hidden. */
export function hiddenWords(common: string, share: SeenShare): string | undefined {
  const hidden = hiddenShare(share)
  if (hidden === null || hidden < WORTH_SAYING) return undefined
  return `${shareWords(hidden)} of the ${common}${share.flowers === null ? '' : ' in flower'}`
}
