import { quarterHours, type LightCause } from '@border/core'

/** `−1½ h, ¼ h of morning, 1¼ h of afternoon` */
export function causeHours({ hours, byPart }: LightCause): string {
  const words = { morning: 'morning', midday: 'midday', afternoon: 'afternoon' } as const
  const parts = (Object.keys(words) as (keyof typeof words)[])
    .filter((p) => Math.abs(byPart[p]) >= 0.125)
    .map((p) => `${quarterHours(Math.abs(byPart[p]))} of ${words[p]}`)
  const lead = `${hours > 0 ? '+' : ''}${quarterHours(hours)}`
  return parts.length > 0 ? `${lead}, ${parts.join(', ')}` : lead
}
