import { signs, susceptibility, type Likelihood, type SignCause, type SignId } from '../diagnosis/index.ts'
import { isWoody, type Taxon, type UsualState } from '../plants/index.ts'

/** What is known of a planting before it is looked at. */
export interface Prospect {
  taxon: Taxon
  usual: UsualState
  settling: boolean
  /** Seasons it has been in its place. */
  seasons: number
  inPot: boolean
  /** Signs noted on the last walks. */
  lastSigns: readonly string[]
  /** Hours of sun above the range it likes, or below, negative. */
  lightOutsideHours: number
  lightChangeHours: number
}

/** Signs that only some plants can have. */
const only: Partial<Record<SignId, (p: Prospect) => boolean>> = {
  suckers: (p) => isWoody(p.taxon),
  'dead-below': (p) => isWoody(p.taxon),
  dieback: (p) => isWoody(p.taxon),
  'woody-base': (p) => /shrub|groundcover|succulent/.test(p.taxon.lifeForm),
  'bare-centre': (p) => !isWoody(p.taxon) && p.taxon.lifeForm !== 'bulb',
  'pot-bound': (p) => p.inPot,
  'fewer-flowers': (p) => p.taxon.bloomFrom != null,
}

/** Signs by how likely a look finds them on a planting now, likeliest first; those it cannot have are left out. */
export function likelySigns(prospect: Prospect, table: readonly Likelihood[]): SignId[] {
  const chance = new Map<SignId, number>(
    signs.filter((s) => only[s.id]?.(prospect) ?? true).map((s) => [s.id, s.usual]),
  )
  for (const r of table) {
    const known = chance.get(r.sign)
    if (known === undefined) continue
    const minds = susceptibility(prospect.taxon, r.cause)
    chance.set(r.sign, known + beliefs(r.cause, prospect) * Math.min(0.95, r.share * minds))
  }
  for (const s of prospect.lastSigns) {
    const known = chance.get(s as SignId)
    // What was there last time is what one looks for first.
    if (known !== undefined) chance.set(s as SignId, known + 0.6)
  }
  return [...chance].sort((a, b) => b[1] - a[1]).map(([id]) => id)
}

/** Rough belief in a cause before looking, 0 to 1. Working figures. */
function beliefs(cause: SignCause, p: Prospect): number {
  const sunnier = p.lightOutsideHours + p.lightChangeHours
  switch (cause) {
    case 'its season':
      return p.usual.resting ? 0.7 : p.usual.phase === 'finished flowering' ? 0.2 : 0.02
    case 'settling in':
      return p.settling ? 0.5 : 0
    case 'age or crowding':
      return p.seasons >= 4 ? 0.25 : 0.05
    case 'more sun':
      return sunnier > 0.5 ? Math.min(0.8, 0.25 * sunnier) : 0.05
    case 'less sun':
      return sunnier < -0.5 ? Math.min(0.8, -0.25 * sunnier) : 0.05
    case 'pest or disease':
      return 0.1
    default:
      return 0.05
  }
}
