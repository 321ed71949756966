import type { Cause, Explanation } from '@border/core'
import { compass } from './compass.ts'
import { metres } from './suppositionWords.ts'

/** A cause in words: `Lime stands lower than drawn, about 2.1 m`. */
export function causeWords(cause: Cause, nameOf: (id: string) => string): string {
  if (cause.what === 'as drawn') return 'Nothing has changed: the plan accounts for it'
  if (cause.what === 'new') {
    const { bearingDeg, distanceM, heightM, widthM } = cause.block
    return `Something new ${compass(bearingDeg)}, about ${metres(heightM)} high and ${metres(widthM)} wide if it stands ${metres(distanceM)} off`
  }
  const name = nameOf(cause.obstructionId)
  const { supposition } = cause
  switch (cause.what) {
    case 'gone':
      return `${name} is gone`
    case 'lowered':
      return `${name} stands lower than drawn, about ${metres(supposition.heightM ?? 0)}`
    case 'raised':
    case 'grown':
      return `${name} stands higher than drawn, about ${metres(supposition.heightM ?? 0)}`
    case 'thinned':
      return `${name} lets more light through, about ${Math.round((supposition.thinnedBy ?? 0) * 100)} % of its leaf gone`
    case 'limbed':
      return `${name} is limbed up to about ${metres(supposition.clearStemM ?? 0)}`
  }
}

/** How sure, in words, by the grades of Kass and Raftery 1995 for odds of 3, 20 and 150 to 1. */
export function beliefWords({ posterior }: Pick<Explanation, 'posterior'>): string {
  const odds = posterior / Math.max(1e-9, 1 - posterior)
  if (odds > 150) return 'almost certainly'
  if (odds > 20) return 'very likely'
  if (odds > 3) return 'likely'
  if (odds > 1) return 'a little more likely than not'
  return odds > 1 / 3 ? 'possible' : odds > 1 / 20 ? 'unlikely' : 'very unlikely'
}
