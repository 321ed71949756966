import type { Climate } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { groundM2, isWoody, type Taxon } from '../plants/index.ts'
import { bySchool } from './bySchool.ts'
import { materialsOf } from './careJobs.ts'
import { yearsAbout } from './taxonCare.ts'
import { unsureWords } from './frost.ts'
import { toFiveMinutes } from './labour.ts'
import { plantCautions, type JobDraft } from './moveJobs.ts'
import type { CareRule, Operation } from './rule.ts'
import type { Schools } from './schools.ts'
import { ruleWindows } from './ruleWindows.ts'
import { openFrom, windowAtOnce } from './windows.ts'

/** What may be decided for a planting that makes work where it stands. */
export type DecidedWork = 'cut back' | 'divide' | 'replace' | 'remove'

/** Work that a decision asks for: on how many plants of which taxon, where, by which rules. */
export interface DecidedRequest {
  taxon: Taxon
  count: number
  place: string
  placeKind: 'bed' | 'container'
  lateDays: number
  schools: Schools
  rules: readonly CareRule[]
}

/**
 * Decided work as jobs: in the next window of the rule of care that knows how.
 *
 * @param on today; windows already closed are passed over
 */
export function decidedJobs(
  work: DecidedWork,
  request: DecidedRequest,
  climate: Climate,
  on: IsoDate,
): { ok: true; jobs: JobDraft[] } | { ok: false; why: string } {
  if (work === 'replace' || work === 'remove') return { ok: true, jobs: [removal(work, request, on)] }
  const years = yearsAbout(climate, on, request.lateDays)
  const subject = { taxon: request.taxon, climate, place: request.placeKind, signs: [] }
  const rules = request.rules.filter((r) => knows(r, work, request.taxon))
  const found = ruleWindows(rules, subject, years, on).sort((a, b) =>
    a.window.latest < b.window.latest ? -1 : 1,
  )
  const [first, next] = found
  if (!first) return { ok: false, why: `No rule of care has a window here in which to ${work} it.` }
  const { rule, window } = first
  const ways = bySchool(rule, request.schools)
  const covered = { count: request.count, areaM2: groundM2(request.count, request.taxon.spacingM) }
  const { setUp, perPlant = 0, perM2 = 0, perMetre = 0 } = rule.labour
  const each = perPlant + perMetre * request.taxon.heightM + perM2 * groundM2(1, request.taxon.spacingM)
  return {
    ok: true,
    jobs: [
      {
        key: work,
        kind: rule.operation,
        title: `${work === 'divide' ? 'Divide' : 'Cut back'} ${request.taxon.botanical} in ${request.place}`,
        window: openFrom(window, on),
        minutes: toFiveMinutes(setUp + each * request.count),
        materials: materialsOf([...(rule.materials ?? []), ...ways.materials], covered, [covered]),
        tools: [...rule.tools],
        cautions: [...plantCautions(request.taxon), ...(rule.cautions ?? [])],
        steps: [rule.does, ...(rule.steps ?? []), ...ways.steps],
        after: [],
        nextChance: next?.window.earliest ?? null,
        unsure: unsureWords(rule, climate),
        forbids: rule.forbids,
        why: rule.why,
        missed: rule.missed,
      },
    ],
  }
}

/** Whether a rule says how decided work is done: hard renewal of woody plants, a cut in growth of others, division. */
function knows(rule: CareRule, work: DecidedWork, taxon: Taxon): boolean {
  if (work === 'divide') return rule.operation === 'divide'
  return isWoody(taxon)
    ? rule.id.startsWith('rejuvenate')
    : rule.id === 'cut-after-first-flush' || rule.id === 'cut-by-half'
}

/** Taking out has no season of its own: best within a month of the decision, and done within a season. A judgement. */
const LIFT_SOON_DAYS = 30
const LIFT_BY_DAYS = 120

function removal(work: DecidedWork, r: DecidedRequest, on: IsoDate): JobDraft {
  const kind: Operation = 'remove'
  return {
    key: work,
    kind,
    title: `Take ${r.taxon.botanical} out of ${r.place}${work === 'replace' ? ', for a successor' : ''}`,
    window: windowAtOnce(
      on,
      { best: LIFT_SOON_DAYS, open: LIFT_BY_DAYS },
      {
        earliest: 'it was decided then',
        bestFrom: 'at once, while the ground is open',
        bestTo: 'the place can be made ready for what follows',
        latest: 'what was decided should not wait longer',
      },
    ),
    minutes: toFiveMinutes(10 + r.count * (isWoody(r.taxon) ? 25 + 20 * r.taxon.heightM : 8)),
    materials: [],
    tools: ['spade', 'fork', ...(isWoody(r.taxon) ? ['loppers', 'saw', 'mattock'] : []), 'barrow'],
    cautions: [
      ...plantCautions(r.taxon),
      'Before digging deep, call the utility-locating service.',
      ...(r.taxon.heightM > 4
        ? ['A tree of this size is for a qualified arborist; ask first whether it is protected.']
        : []),
      ...(isWoody(r.taxon) ? ['Look for nesting birds first.'] : []),
    ],
    steps: [
      'Save what is worth saving: cuttings, seed, a healthy piece.',
      'Lift with all its roots; those of a spreading plant come back from any piece.',
      'Fill the hole, firm, mulch; keep its tag with a word on why it went.',
    ],
    after: [],
    nextChance: null,
  }
}
