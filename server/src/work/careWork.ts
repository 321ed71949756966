import {
  addDays,
  askedJob,
  careRules,
  driftRadiusM,
  explained,
  isAlive,
  isFor,
  isPlace,
  measuredLabour,
  placeSubject,
  plantingSubject,
  placeAreaM2,
  rulesWith,
  seasonYearOf,
  windowsOf,
  yearsAbout,
  type CaredPlace,
  type CaredPlanting,
  type CareGarden,
  type CareJob,
  type CareRule,
} from '@border/core'
import type { FeatureRecord, OwnRuleRequest, RuleView } from '@border/contract'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import { listCareDone, listDivided, listLabour, saveCareJobs } from '../store/jobs.ts'
import { lastObservations } from '../store/observations.ts'
import { listPlantings } from '../store/plantings.ts'
import { findRuleEdits, listOwnRules } from '../store/rules.ts'
import { findClimate, findEarliness } from '../store/weather.ts'
import type { ComputeTasks } from './assess.ts'

/** A sign of the last look asks for work for so long. */
const SIGN_DAYS = 365
/** Work of the rules is made for windows that open within so many days. */
const CARE_DAYS = 370

/** A garden as the rules of care see it; undefined where it has no climate to hang windows on. */
export async function caredGarden(
  db: Db,
  garden: GardenAccess,
  today: string,
): Promise<CareGarden | undefined> {
  const { climate } = await findClimate(db, garden)
  if (!climate) return undefined
  const season = seasonYearOf(today, garden.latitude < 0)
  const lateDays = (await findEarliness(db, garden, [season], today)).get(season)?.lateDays ?? 0
  const features = await listFeatures(db, garden.id)
  const divided = await listDivided(db, garden.id)
  const plantings = await listPlantings(db, garden.id, today)
  const looks = await lastObservations(
    db,
    plantings.map((p) => p.id),
    today,
  )
  const signsOf = (id: string) => {
    const look = looks.get(id)
    return look && look.on >= addDays(today, -SIGN_DAYS) ? look.signs : []
  }
  return {
    plantings: plantings.map((p) => ({
      id: p.id,
      taxon: p.taxon,
      placeId: p.placeId,
      count: p.livingCount,
      areaM2: Math.PI * (p.radiusM ?? driftRadiusM(p.livingCount, p.taxon.spacingM)) ** 2,
      plantedOn: p.plantedOn,
      dividedOn: divided.get(p.id),
      signs: signsOf(p.id),
    })),
    places: features.filter((f) => isPlace(f) && isAlive(f, today)).map(caredPlace),
    climate,
    lateDays,
    schools: garden.schools,
    rules: rulesWith(await findRuleEdits(db, garden.id)),
    measured: measuredLabour(await listLabour(db, garden.id)),
    done: new Set(await listCareDone(db, garden.id)),
  }
}

const caredPlace = (f: FeatureRecord): CaredPlace => ({
  id: f.id,
  name: f.name,
  kind: f.kind === 'container' ? 'container' : 'bed',
  areaM2: placeAreaM2(f),
  ph: typeof f.properties.ph === 'number' ? f.properties.ph : undefined,
  piped: f.properties.irrigation === 'drip' || f.properties.irrigation === 'spray',
})

/** Brings the work that the rules ask for up to date. Run inside a transaction that holds the garden. */
export async function bringCareUpToDate(
  trx: Db,
  pool: Piscina,
  garden: GardenAccess,
  today: string,
): Promise<void> {
  const cared = await caredGarden(trx, garden, today)
  if (!cared) return
  const task: ComputeTasks['care'] = { garden: cared, on: today, until: addDays(today, CARE_DAYS) }
  const jobs: CareJob[] = await pool.run(task, { name: 'care' })
  await saveCareJobs(trx, garden.id, jobs)
}

/**
 * The work of a rule on one planting or place, because a person asks for it.
 *
 * @throws {Refusal} where the rule is not for it, or has no window here
 */
export async function findAskedJob(
  db: Db,
  garden: GardenAccess,
  today: string,
  ruleId: string,
  subjectId: string,
): Promise<CareJob> {
  const rule = [...careRules, ...(await findRuleEdits(db, garden.id)).own].find((r) => r.id === ruleId)
  if (!rule) throw notFound('This rule')
  const cared = await caredGarden(db, garden, today)
  const job = cared && askedJob(rule, subjectId, cared, today)
  if (!job) throw new Refusal(422, 'The rule is not for this, or has no window here in the coming year.')
  return job
}

/** The rules as a garden has them, each with what it now touches and when it is next right. */
export async function rulesOfGarden(db: Db, garden: GardenAccess, today: string): Promise<RuleView[]> {
  const edits = await findRuleEdits(db, garden.id)
  const own = await listOwnRules(db, garden.id)
  const cared = await caredGarden(db, garden, today)
  const tags = new Map((await listPlantings(db, garden.id, today)).map((p) => [p.id, p.tag]))
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
      own: said ? { id: rule.id, ...(said as Omit<OwnRuleRequest, 'id'>) } : null,
      adjusted: edits.adjusted[rule.id] ?? null,
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
          }
        : null,
      none: window ? null : (found?.none[0] ?? null),
    }
  })
}

const everySwitchedOn = (own: readonly CareRule[]): Record<string, boolean> =>
  Object.fromEntries([...careRules, ...own].map((r) => [r.id, true]))

function touchedBy(rule: CareRule, cared: CareGarden): (CaredPlanting | CaredPlace)[] {
  const kinds = new Map(cared.places.map((p) => [p.id, p.kind]))
  if (rule.applies.wholePlace)
    return cared.places.filter((p) =>
      isFor(
        rule.applies,
        placeSubject(
          p,
          cared.plantings.filter((x) => x.placeId === p.id),
          cared.climate,
        ),
      ),
    )
  return cared.plantings.filter((p) =>
    isFor(rule.applies, plantingSubject(p, kinds.get(p.placeId) ?? 'bed', cared.climate)),
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
