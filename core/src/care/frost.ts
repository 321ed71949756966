import { frostIsGuessed, type Climate } from '../climate/index.ts'
import type { Anchor, CareRule } from './rule.ts'

/** Whether an anchor falls where frost, or the nearness of it, puts it. */
function hangsOnFrost(anchor: Anchor | undefined): boolean {
  if (!anchor) return false
  if (anchor.or && hangsOnFrost(anchor.or)) return true
  if ('latestOf' in anchor) return anchor.latestOf.some(hangsOnFrost)
  if ('earliestOf' in anchor) return anchor.earliestOf.some(hangsOnFrost)
  return (
    anchor.at === 'last frost' ||
    anchor.at === 'first frost' ||
    anchor.at === 'nights above' ||
    anchor.at === 'nights below' ||
    anchor.at === 'warmth left'
  )
}

/** Work that frost can ruin: its dates hang on frost, or it is done because of winters that some kinds do not stand. */
export const isAtFrostsMercy = (rule: Pick<CareRule, 'windows' | 'applies'>): boolean =>
  rule.applies.winter !== undefined ||
  rule.windows.some((w) =>
    [w.earliest, w.bestFrom, w.bestTo, w.latest, w.needs].some((anchor) => hangsOnFrost(anchor)),
  )

/** Said of work that frost can ruin wherever the frosts are nobody’s measurement. */
export const FROST_UNSURE =
  'Unsure: frost could ruin this, and the frosts here are made up from the usual years of the towns about it. Give your frost dates, your zone or a weather record in Set-up.'

/** Why the dates of such work are unsure where the frosts of the place are a guess; null where they are known. */
export const unsureWords = (rule: Pick<CareRule, 'windows' | 'applies'>, climate: Climate): string | null =>
  frostIsGuessed(climate) && isAtFrostsMercy(rule) ? FROST_UNSURE : null
