import {
  addDays,
  askedJob,
  careRules,
  explained,
  isSign,
  isTended,
  isFor,
  measuredLabour,
  isOnWall,
  placeSubject,
  plantingSubject,
  wallLines,
  rulesWith,
  unsureWords,
  windowsOf,
  yearsAbout,
  type CaredPlanting,
  type CareGarden,
  type CareJob,
  type CareRule,
  type MixNew,
  type Place,
  type OwnRule,
} from '@border/core'
import type { OwnRuleRequest, RuleView } from '@border/contract'
import { group } from 'd3-array'
import type { Db } from '../database/connect.ts'
import { keyOf } from '../derived.ts'
import { notFound, Refusal } from '../errors.ts'
import { openGarden, type GardenReader } from '../reader.ts'
import { lockGarden, type GardenAccess } from '../store/gardens.ts'
import { listFills, type Fill } from '../store/fills.ts'
import {
  careDoneOf,
  careDoneOn,
  dividedOf,
  labourOf,
  placesOfJob,
  saveCareJobs,
  type Job,
} from '../store/jobs.ts'
import { findRuleEdits, listOwnRules } from '../store/rules.ts'
import { versionsOf } from '../store/versions.ts'
import { findWorkedOut, setWorkedOut } from '../store/workedOut.ts'
import { yearOfGarden } from './diagnosis.ts'
import type { ComputePool } from './compute.ts'

/** A sign of the last look asks for work for so long. */
const SIGN_DAYS = 365
/** Work of the rules is made for windows that open within so many days. */
const CARE_DAYS = 370

/** A garden as the rules of care see it; undefined where it has no climate to hang windows on. */
export async function caredGarden(reader: GardenReader): Promise<CareGarden | undefined> {
  const { db, garden, today } = reader
  const { climate } = await reader.climate()
  if (!climate) return undefined
  const { year } = await yearOfGarden(reader)
  const { scene, places, plantings } = await reader.standing()
  const walls = wallLines(scene, today)
  const kindOf = new Map(places.map((p) => [p.id, p.kind]))
  const jobs = await reader.jobs()
  const divided = dividedOf(jobs)
  const decided = group(
    jobs.filter((j) => j.ruleKey === null && j.state === 'open'),
    (j) => j.plantingId,
  )
  const looks = await reader.lastSeen()
  const signsOf = (id: string) => {
    const look = looks.get(id)
    return look && look.on >= addDays(today, -SIGN_DAYS) ? look.signs.filter(isSign) : []
  }
  return {
    plantings: plantings.map((p) => ({
      ...p,
      dividedOn: divided.get(p.id),
      signs: signsOf(p.id),
      onWall: isOnWall(p, kindOf.get(p.placeId), walls),
      decided: (decided.get(p.id) ?? []).map((j) => ({
        operation: j.kind,
        earliest: j.window.earliest,
        latest: j.window.latest,
      })),
    })),
    places,
    climate,
    lateDays: year.lateDays,
    schools: garden.schools,
    rules: rulesWith(await findRuleEdits(db, garden.id)),
    measured: measuredLabour(labourOf(jobs)),
    done: careDoneOf(jobs),
    doneOn: careDoneOn(jobs),
    mixNewOn: mixNewOf(await listFills(db, garden.id)),
  }
}

/** When mix of each container was last new, by its fills, latest first. */
function mixNewOf(fills: readonly Fill[]): Map<string, MixNew> {
  const found = new Map<string, MixNew>()
  for (const { containerId, filledOn, renewed } of fills) {
    const known = found.get(containerId) ?? {}
    found.set(containerId, {
      some: known.some ?? (renewed > 0 ? filledOn : undefined),
      all: known.all ?? (renewed === 1 ? filledOn : undefined),
    })
  }
  return found
}

const careKey = (garden: GardenAccess, versions: Awaited<ReturnType<typeof versionsOf>>, today: string) =>
  keyOf('care', garden.id, versions, [today])

/**
 * Brings the work that the rules ask for up to date, where what it is made from has changed: read as it stands, worked out on a
 * thread without holding anything, and written down in a moment if nothing has moved meanwhile.
 *
 * @returns false where something has: it is to be tried again
 */
export async function bringCareUpToDate(
  db: Db,
  pool: ComputePool,
  garden: GardenAccess,
  today: string,
): Promise<boolean> {
  const reader = openGarden(db, garden, today)
  const basis = careKey(garden, await reader.versions(), today)
  if ((await findWorkedOut(db, garden.id)).careBasis === basis) return true
  const cared = await caredGarden(reader)
  const wanted: CareJob[] = cared
    ? await pool.run('care', { garden: cared, on: today, until: addDays(today, CARE_DAYS) })
    : []
  const known = await reader.jobs()
  const isGone = goneBy(
    new Set((await reader.plantings()).map((p) => p.id)),
    new Set((await reader.standing()).places.map((p) => p.id)),
  )
  return db.transaction(async (trx) => {
    await lockGarden(trx, garden.id)
    if (careKey(garden, await versionsOf(trx, garden.id), today) !== basis) return false
    // Without a climate nothing can be asked for, and nothing that was is taken away.
    if (cared) await saveCareJobs(trx, garden.id, known, wanted, isGone)
    await setWorkedOut(trx, garden.id, {
      careBasis: careKey(garden, await versionsOf(trx, garden.id), today),
    })
    return true
  })
}

/** Whether nothing that a job is done to, or the place it is done in, is there any more. */
const goneBy =
  (plantings: ReadonlySet<string>, places: ReadonlySet<string>) =>
  (job: Job): boolean =>
    (job.placeId !== null && !placesOfJob(job).some((id) => places.has(id))) ||
    (job.plantings.length > 0 && job.plantings.every((p) => !plantings.has(p.id)))

/**
 * The work of a rule on one planting or place, because a person asks for it.
 *
 * @throws {Refusal} where the rule is not for it, or has no window here
 */
export async function findAskedJob(
  reader: GardenReader,
  ruleId: string,
  subjectId: string,
): Promise<CareJob> {
  const edits = await findRuleEdits(reader.db, reader.garden.id)
  const rule = [...careRules, ...edits.own].find((r) => r.id === ruleId)
  if (!rule) throw notFound('This rule')
  const cared = await caredGarden(reader)
  const job = cared && askedJob(rule, subjectId, cared, reader.today)
  if (!job) throw new Refusal(422, 'The rule is not for this, or has no window here in the coming year.')
  return job
}

/** The rules as a garden has them, each with what it now touches and when it is next right. */
export async function rulesOfGarden(reader: GardenReader): Promise<RuleView[]> {
  const { db, garden, today } = reader
  const edits = await findRuleEdits(db, garden.id)
  const own = await listOwnRules(db, garden.id)
  const cared = await caredGarden(reader)
  const tags = new Map((await reader.plantings()).map((p) => [p.id, p.tag]))
  const years = cared ? yearsAbout(cared.climate, today, cared.lateDays) : []
  // Windows as the garden has adjusted them, of rules that are off too.
  const asSet = new Map(rulesWith({ ...edits, switched: everySwitchedOn(edits.own) }).map((r) => [r.id, r]))
  return [...careRules, ...edits.own].map((rule) => {
    const touched = cared ? touchedBy(rule, cared) : []
    const [first] = touched
    const taxon = first && 'taxon' in first ? first.taxon : undefined
    const found =
      cared && (first || rule.applies.wholePlace)
        ? windowsOf(asSet.get(rule.id) ?? rule, years, taxon, today)
        : undefined
    const window = found?.windows[0]
    const said = own.get(rule.id)
    return {
      ...ruleWords(rule, garden),
      isOn: edits.switched[rule.id] ?? !rule.off,
      isOwn: said !== undefined,
      own: said ? asAsked(rule.id, said) : null,
      adjusted: edits.adjusted[rule.id] ?? null,
      everyDays: rule.everyDays ?? null,
      touches: touched.map((s) =>
        'taxon' in s
          ? { id: s.id, label: `${tags.get(s.id)} ${s.taxon.botanical}` }
          : { id: s.id, label: s.name },
      ),
      next: window
        ? {
            earliest: window.earliest,
            bestFrom: window.bestFrom,
            bestTo: window.bestTo,
            latest: window.latest,
            for: taxon?.botanical ?? null,
            unsure: unsureWords(rule, cared!.climate),
          }
        : null,
      none: window ? null : (found?.none[0] ?? null),
    }
  })
}

/** A rule of the garden's own as it is asked for: what is put right begins from it. */
export const asAsked = (id: string, own: OwnRule): OwnRuleRequest => ({
  id,
  ...(own as Omit<OwnRuleRequest, 'id'>),
})

const everySwitchedOn = (own: readonly CareRule[]): Record<string, boolean> =>
  Object.fromEntries([...careRules, ...own].map((r) => [r.id, true]))

function touchedBy(rule: CareRule, cared: CareGarden): (CaredPlanting | Place)[] {
  const placeOf = new Map(cared.places.map((p) => [p.id, p]))
  if (rule.applies.wholePlace)
    return cared.places.filter((p) => {
      const own = cared.plantings.filter((x) => x.placeId === p.id)
      return isTended(p, own) && isFor(rule.applies, placeSubject(p, own, cared.climate))
    })
  return cared.plantings.filter((p) =>
    isFor(rule.applies, plantingSubject(p, placeOf.get(p.placeId) ?? { kind: 'bed' }, cared.climate)),
  )
}

function ruleWords(rule: CareRule, garden: GardenAccess) {
  const { id, operation, does, sentence, why, missed, yearly, school, otherSchools } = explained(
    rule,
    garden,
    { windows: [], none: [] },
  )
  return {
    id,
    operation,
    does,
    sentence,
    why,
    missed,
    yearly,
    school: school ?? null,
    otherSchools: [...otherSchools],
  }
}
