import {
  addDays,
  careRules,
  driftRadiusM,
  explained,
  isAlive,
  isFor,
  isPlace,
  measuredLabour,
  placeAreaM2,
  rulesWith,
  seasonYearOf,
  type CaredPlace,
  type CareGarden,
  type CareJob,
  type CareRule,
} from '@border/core'
import type { FeatureRecord, RuleView } from '@border/contract'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import { listCareDone, listDivided, listLabour, saveCareJobs } from '../store/jobs.ts'
import { listPlantings } from '../store/plantings.ts'
import { findRuleEdits } from '../store/rules.ts'
import { findClimate, findEarliness } from '../store/weather.ts'
import type { ComputeTasks } from './assess.ts'

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
  return {
    plantings: (await listPlantings(db, garden.id, today)).map((p) => ({
      id: p.id,
      taxon: p.taxon,
      placeId: p.placeId,
      count: p.livingCount,
      areaM2: Math.PI * (p.radiusM ?? driftRadiusM(p.livingCount, p.taxon.spacingM)) ** 2,
      plantedOn: p.plantedOn,
      dividedOn: divided.get(p.id),
      signs: [],
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

/** The rules as a garden has them, each with what it now touches. */
export async function rulesOfGarden(db: Db, garden: GardenAccess, today: string): Promise<RuleView[]> {
  const edits = await findRuleEdits(db, garden.id)
  const cared = await caredGarden(db, garden, today)
  const tags = new Map((await listPlantings(db, garden.id, today)).map((p) => [p.id, p.tag]))
  const kinds = new Map((cared?.places ?? []).map((p) => [p.id, p.kind]))
  return [...careRules, ...edits.own].map((rule) => ({
    ...ruleWords(rule, garden),
    isOn: edits.switched[rule.id] ?? !rule.off,
    isOwn: edits.own.includes(rule),
    adjusted: edits.adjusted[rule.id] ?? null,
    touches: !cared
      ? []
      : rule.applies.wholePlace
        ? cared.places
            .filter((p) => isFor(rule.applies, { place: p.kind, climate: cared.climate }))
            .map((p) => ({ id: p.id, label: p.name }))
        : cared.plantings
            .filter((p) =>
              isFor(rule.applies, {
                taxon: p.taxon,
                place: kinds.get(p.placeId) ?? 'bed',
                climate: cared.climate,
                signs: p.signs,
              }),
            )
            .map((p) => ({ id: p.id, label: `${tags.get(p.id)} ${p.taxon.botanical}` })),
  }))
}

function ruleWords(rule: CareRule, garden: GardenAccess) {
  const { id, operation, does, sentence, why, missed, yearly, school } = explained(rule, garden, {
    windows: [],
    none: [],
  })
  return { id, operation, does, sentence, why, missed, yearly, school: school ?? null }
}
