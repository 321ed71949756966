import { materialsOf, plantCautions, toFiveMinutes, unsureWords, type JobDraft } from '../care/index.ts'
import type { Climate } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { groundM2, type Taxon, type Year } from '../plants/index.ts'
import { capitalised } from '../words/index.ts'
import { windowFor, type OfferedRemedy } from './offered.ts'
import { remedies } from './table/index.ts'

/** What a remedy is done to. */
export interface RemedyRequest {
  taxon: Taxon
  count: number
  /** The name of its place. */
  place: string
  year: Year
}

/** Whether a remedy is work that can be planned. */
export const isRemedyWork = (id: string): boolean => remedies.some((r) => r.id === id && r.work)

/**
 * A remedy as a job, in its next window.
 *
 * @param offered one that is work, as it was offered
 * @param on today
 */
export function remedyJobs(
  offered: Pick<OfferedRemedy, 'id' | 'says' | 'does' | 'steps' | 'waiting' | 'subject'>,
  { taxon, count, place, year }: RemedyRequest,
  climate: Climate | null,
  on: IsoDate,
): { ok: true; jobs: JobDraft[] } | { ok: false; why: string } {
  const remedy = remedies.find((r) => r.id === offered.id)
  if (!remedy?.work) return { ok: false, why: 'It is no work to be planned.' }
  const { work } = remedy
  const found = windowFor(work.time, { taxon, on, year }, climate)
  if (!found.ok) return found
  const { setUp, perPlant, perMetre = 0 } = work.labour
  const covered = { count, areaM2: groundM2(count, taxon.spacingM) }
  const windows = 'windows' in work.time ? work.time.windows : []
  return {
    ok: true,
    jobs: [
      {
        key: remedy.id,
        kind: work.operation,
        title: `${capitalised(remedy.action)}: ${offered.subject ?? `${taxon.botanical} in ${place}`}`,
        window: found.window,
        minutes: toFiveMinutes(setUp + count * (perPlant + perMetre * taxon.heightM)),
        materials: materialsOf([...(work.materials ?? [])], covered, [covered]),
        tools: [...work.tools],
        cautions: [...(offered.subject ? [] : plantCautions(taxon)), ...(work.cautions ?? [])],
        steps: [offered.does, ...offered.steps],
        after: [],
        nextChance: null,
        unsure: climate && unsureWords({ windows, applies: {} }, climate),
        forbids: work.forbids ?? [],
        why: offered.says,
        missed: offered.waiting,
      },
    ],
  }
}
