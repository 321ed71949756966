import { daysBetween, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { counted } from '../words/index.ts'
import type { BloomSeen } from './bloom.ts'
import type { RecordedPlanting } from './seen.ts'

/** What is done to a planting for the sake of its bloom. */
export const treatments = ['cut by half', 'some stems cut', 'cut back after bloom', 'deadheaded'] as const
export type TreatmentKind = (typeof treatments)[number]

/** Something done to a planting that a season’s bloom or growth is not to be judged without. */
export interface Treatment {
  plantingId: string
  on: IsoDate
  what: TreatmentKind
}

/** A treatment against the like left alone. */
export interface TreatmentEffect {
  taxon: string
  what: TreatmentKind
  season: number
  treated: string[]
  /** Plantings of the kind left alone that season; empty when the same plants in other seasons stand in. */
  fellows: string[]
  /** Days the bloom began later than of those left alone, against what each season led one to expect. */
  laterDays: number | undefined
  /** Days it was seen longer. */
  longerDays: number
  moreFlushes: number
  says: string
}

/**
 * What cuts and deadheading did to bloom: each kind and season in which some were treated, compared with plantings of the
 * kind left alone in the same season, or where there was none, with the same plantings' seasons left alone. Both are read
 * against the bloom expected of the season, so that an early year is not taken for a cut's doing.
 *
 * @returns latest season first; kinds without anything to compare with are left out
 */
export function treatmentEffects(
  plantings: readonly RecordedPlanting[],
  blooms: readonly BloomSeen[],
  done: readonly Treatment[],
  south: boolean,
): TreatmentEffect[] {
  const taxonOf = new Map(plantings.map((p) => [p.id, p.taxon.botanical]))
  const treatedIn = new Map<string, TreatmentKind>()
  for (const t of done) treatedIn.set(`${t.plantingId} ${seasonYearOf(t.on, south)}`, t.what)
  const whatOf = (b: BloomSeen) => treatedIn.get(`${b.plantingId} ${b.season}`)
  const groups = new Map<string, BloomSeen[]>()
  for (const b of blooms) {
    const what = whatOf(b)
    const taxon = taxonOf.get(b.plantingId)
    if (!what || !taxon) continue
    const key = `${taxon}|${what}|${b.season}`
    groups.set(key, [...(groups.get(key) ?? []), b])
  }
  return [...groups]
    .flatMap(([key, treated]): TreatmentEffect[] => {
      const [taxon, what, year] = key.split('|') as [string, TreatmentKind, string]
      const season = Number(year)
      const alone = blooms.filter((b) => taxonOf.get(b.plantingId) === taxon && !whatOf(b))
      const beside = alone.filter((b) => b.season === season)
      const ids = new Set(treated.map((b) => b.plantingId))
      const compared = beside.length > 0 ? beside : alone.filter((b) => ids.has(b.plantingId))
      if (compared.length === 0) return []
      return [effectOf(taxon, what, season, treated, compared, beside.length > 0)]
    })
    .sort((a, b) => b.season - a.season || (a.taxon < b.taxon ? -1 : 1))
}

function effectOf(
  taxon: string,
  what: TreatmentKind,
  season: number,
  treated: readonly BloomSeen[],
  compared: readonly BloomSeen[],
  beside: boolean,
): TreatmentEffect {
  const began = (of: readonly BloomSeen[]) => mean(of.flatMap((b) => b.lateDays ?? []))
  const length = (of: readonly BloomSeen[]) => mean(of.map((b) => daysBetween(b.first, b.last)))!
  const flushes = (of: readonly BloomSeen[]) => mean(of.map((b) => b.flushes))!
  const [late, other] = [began(treated), began(compared)]
  const laterDays = late === undefined || other === undefined ? undefined : Math.round(late - other)
  const longerDays = Math.round(length(treated) - length(compared))
  const moreFlushes = Math.round(10 * (flushes(treated) - flushes(compared))) / 10
  const against = beside
    ? `${counted(compared.length, 'planting')} of it left alone`
    : `its own ${counted(compared.length, 'season')} left alone`
  const parts = [
    ...(laterDays === undefined
      ? []
      : [dayWords(laterDays, 'later', 'sooner', 'began at the same time', 'began')]),
    dayWords(longerDays, 'longer', 'less long', 'was seen as long', 'was seen'),
    ...(moreFlushes > 0.4 ? ['flowered again more often'] : []),
  ]
  return {
    taxon,
    what,
    season,
    treated: treated.map((b) => b.plantingId),
    fellows: beside ? compared.map((b) => b.plantingId) : [],
    laterDays,
    longerDays,
    moreFlushes,
    says: `${parts.join(', ')}, against ${against}.${compared.length + treated.length < 4 ? ' Few to go by.' : ''}`,
  }
}

function dayWords(days: number, more: string, less: string, same: string, verb: string): string {
  if (Math.abs(days) < 3) return same
  return `${verb} ${counted(Math.abs(days), 'day')} ${days > 0 ? more : less}`
}

const mean = (values: readonly number[]): number | undefined =>
  values.length === 0 ? undefined : values.reduce((a, b) => a + b, 0) / values.length
