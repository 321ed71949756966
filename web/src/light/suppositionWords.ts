import type { Supposition } from '@border/core'

/** `Alders limbed up to 3 m and thinned by 30 %` */
export function suppositionClause(t: Supposition, name: string): string {
  if (t.gone) return `${name} gone`
  const parts: string[] = []
  if (t.grownYears) parts.push(`${t.grownYears} ${t.grownYears === 1 ? 'year' : 'years'} older`)
  if (t.heightM !== undefined) parts.push(`${metres(t.heightM)} high`)
  if (t.crownRadiusM !== undefined) parts.push(`crown ${metres(2 * t.crownRadiusM)} across`)
  if (t.clearStemM !== undefined) parts.push(`limbed up to ${metres(t.clearStemM)}`)
  if (t.thinnedBy) parts.push(`thinned by ${Math.round(t.thinnedBy * 100)} %`)
  if (t.movedM) parts.push(`moved ${metres(Math.hypot(...t.movedM))}`)
  return parts.length === 0 ? `${name} as it stands` : `${name} ${parts.join(', ')}`
}

export const metres = (m: number): string => `${m.toFixed(1)} m`
