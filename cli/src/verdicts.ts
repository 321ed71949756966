import { actions, civilDate, isSign, problemText, readPlan, signWords, type Action } from '@border/core'
import {
  adviceOf,
  connect,
  insertPerson,
  insertPractice,
  keepSeenFiles,
  migrate,
  type Advice,
  type Db,
} from '@border/server'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt } from './build.ts'
import { scratchDatabase } from './databases.ts'
import { accepted, dayOption, optionsOf, readText } from './files.ts'
import { importFolder } from './importFolder.ts'
import { BadInput, Misuse } from './say.ts'
import { beginWeather } from './serve.ts'

const usage = 'verdicts takes one folder with plan.geojson in it, and --on DAY, --then DAY, --json'
const WEATHER_NEAR = 5600

/**
 * `border verdicts FOLDER [--on DAY] [--then DAY] [--json]`: what is advised of a garden's files. They are brought into a database
 * of their own as people would bring them, and judged by what judges every garden: the answers are those of the screens.
 */
export async function verdictsCommand(args: string[]): Promise<string> {
  const { values, positionals } = optionsOf(args, {
    on: { type: 'string' },
    then: { type: 'string' },
    json: { type: 'boolean' },
  })
  const [folder, ...more] = positionals
  if (!folder || more.length > 0) throw new Misuse(usage)
  const plan = join(folder, 'plan.geojson')
  const { garden } = accepted(readPlan(readText(plan), plan))
  const on = values.on === undefined ? civilDate(new Date(), garden.timeZone) : dayOption('on', values.on)
  const then = values.then === undefined ? undefined : dayOption('then', values.then)
  const found = await advised(folder, on, then)
  return values.json ? JSON.stringify(found) : inWords(found)
}

async function advised(folder: string, on: string, then: string | undefined): Promise<Told> {
  ensureBuilt()
  const { url, drop } = await scratchDatabase()
  // A garden without a weather file asks for its record, as it does on its screen.
  const standIn = process.env.WEATHER_URL ? undefined : await beginWeather(WEATHER_NEAR)
  if (standIn) process.env.WEATHER_URL = standIn.address
  const db = connect(url, 4)
  try {
    await migrate(db)
    return await adviceOn(db, folder, on, then)
  } finally {
    await db.destroy()
    if (standIn) delete process.env.WEATHER_URL
    standIn?.end('SIGTERM')
    await drop()
  }
}

async function adviceOn(db: Db, folder: string, on: string, then: string | undefined): Promise<Told> {
  const practiceId = await insertPractice(db, 'Files', on)
  const personId = await insertPerson(db, {
    practiceId,
    name: 'Files',
    email: 'files@example.invalid',
    passwordHash: null,
    isDemo: true,
    leads: true,
  })
  const { gardenId, gardenName, climate } = await importFolder(db, folder, { dryRun: false, on })
  const optional = (name: string) =>
    existsSync(join(folder, name)) ? readText(join(folder, name)) : undefined
  const seen = { observations: optional('observations.csv'), soil: optional('soil.csv') }
  const kept = await keepSeenFiles(db, { gardenId: gardenId!, personId }, seen, on)
  if (!kept.ok)
    throw new BadInput(kept.problems.map((p) => problemText({ ...p, file: join(folder, p.file) })))
  const advice = await adviceOf(db, gardenId!, on, then)
  return toldOf({ name: gardenName, climate }, on, advice)
}

/** What is printed: every planting by its tag, every place and job by name. */
type Told = ReturnType<typeof toldOf>

function toldOf(
  garden: { name: string; climate: string | null },
  on: string,
  { then, features, plantings, assessments, diagnosis, jobs }: Advice,
) {
  const placeName = new Map(features.map((f) => [f.id, f.name]))
  const plantingOf = new Map(plantings.map((p) => [p.id, p]))
  const diagnosed = new Map(diagnosis.diagnoses.map((d) => [d.plantingId, d]))
  return {
    garden,
    on,
    then,
    plantings: assessments.map(({ plantingId, verdict, before, now, fit, causes }) => {
      const p = plantingOf.get(plantingId)!
      const d = diagnosed.get(plantingId)
      const { action, scores, terms, ...said } = verdict
      return {
        tag: p.tag,
        taxon: p.taxon.botanical,
        common: p.taxon.common,
        place: placeName.get(p.placeId) ?? null,
        living: p.livingCount,
        planted: p.plantedCount,
        light: { before, now, fit, causes },
        signs: d?.signs ?? [],
        diagnosis: d ? { failing: d.failing, nothing: d.nothing, causes: d.causes } : null,
        verdict: { action, scores, reasons: terms.filter((t) => t.action === action), terms, ...said },
      }
    }),
    places: features
      .filter((f) => f.kind === 'bed' || f.kind === 'container')
      .map((f) => ({
        name: f.name,
        suspected: diagnosis.suspected.filter((s) => s.placeId === f.id),
      })),
    jobs: jobs
      .toSorted((a, b) => (a.window.earliest < b.window.earliest ? -1 : 1))
      .map((j) => ({
        title: j.title,
        operation: j.kind,
        rule: j.ruleId,
        place: j.placeId && (placeName.get(j.placeId) ?? null),
        tags: j.tags,
        window: j.window,
        minutes: j.minutes,
        steps: j.steps,
        materials: j.materials,
        tools: j.tools,
        cautions: j.cautions,
        why: j.why,
        missed: j.missed,
        nextChance: j.nextChance,
        unsure: j.unsure,
      })),
  }
}

function inWords({ garden, on, then, plantings, places, jobs }: Told): string {
  const lines = [`${garden.name} on ${on}, its light compared with ${then}. ${garden.climate ?? ''}`.trim()]
  const rank = (action: Action) => -actions.indexOf(action)
  for (const { tag, taxon, place, signs, verdict } of plantings.toSorted(
    (a, b) => rank(a.verdict.action) - rank(b.verdict.action),
  )) {
    lines.push('', `${tag} ${taxon}, ${place}: ${verdict.action}; ${verdict.runnerUp} comes second`)
    if (signs.length > 0) lines.push(`  seen: ${signs.filter(isSign).map(signWords).join(', ')}`)
    for (const { points, says } of verdict.reasons) lines.push(`  ${Math.round(points)}  ${says}`)
    for (const r of verdict.remedies) {
      const when = r.window ? ` ${r.window.earliest} to ${r.window.latest}.` : ''
      lines.push(`  ${r.action}: ${r.does}.${when} If it waits: ${r.waiting}`)
    }
    for (const note of verdict.notes) lines.push(`  ${note}`)
  }
  for (const { name, suspected } of places)
    for (const s of suspected) lines.push('', `${name}: ${s.cause} suspected`)
  for (const j of jobs)
    lines.push(
      '',
      `${j.window.earliest} | ${j.window.bestFrom} to ${j.window.bestTo} | ${j.window.latest}  ${j.title}`,
    )
  return lines.join('\n')
}
