import {
  careRules,
  civilDate,
  earlinessOf,
  taxonCare,
  isIsoDate,
  library,
  readPlan,
  ruleSentence,
  schoolIds,
  schools,
  taxonSearch,
  type SchoolId,
  type Schools,
  type Taxon,
  type TaxonCare,
} from '@border/core'
import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { accepted, optionsOf, readText } from './files.ts'
import { climateIn, weatherIn, type FileClimate } from './plannedGarden.ts'
import { BadInput, Misuse } from './say.ts'

const usage =
  'rules takes explain --taxon NAME --garden FOLDER|PLAN.geojson [--weather FILE] [--on DAY] [--place bed|container] [--school ID=CHOICE] [--json], or list [--json]'

/** `border rules explain --taxon NAME --garden FOLDER|PLAN [--json]`, `border rules list [--json]` */
export function rulesCommand(args: string[]): string {
  const [what, ...rest] = args
  if (what === 'explain') return explain(rest)
  if (what === 'list') return list(rest)
  throw new Misuse(usage)
}

function list(args: string[]): string {
  const { values } = optionsOf(args, { json: { type: 'boolean' } })
  if (values.json)
    return JSON.stringify({ rules: careRules.map((r) => ({ ...r, sentence: ruleSentence(r) })), schools })
  return careRules.map((r) => `${r.id}${r.off ? ' (off)' : ''}\n  ${ruleSentence(r)}\n  ${r.why}`).join('\n')
}

function explain(args: string[]): string {
  const { values } = optionsOf(args, {
    taxon: { type: 'string' },
    garden: { type: 'string' },
    weather: { type: 'string' },
    on: { type: 'string' },
    place: { type: 'string', default: 'bed' },
    school: { type: 'string', multiple: true, default: [] },
    json: { type: 'boolean' },
  })
  if (!values.taxon || !values.garden) throw new Misuse(usage)
  if (values.place !== 'bed' && values.place !== 'container')
    throw new Misuse('--place takes bed or container')
  const garden = gardenAt(values.garden, values.weather)
  const on = values.on ?? civilDate(new Date(), garden.timeZone)
  if (!isIsoDate(on)) throw new BadInput([`--on: ${on} is not a date like 2026-09-14`])
  const taxon = taxonCalled(values.taxon)
  const lateDays = earlinessOf(garden.days, garden.latitude, on)?.lateDays ?? 0
  const care = taxonCare(
    taxon,
    {
      climate: garden.climate,
      place: values.place,
      schools: schoolsFrom(values.school),
      lateDays,
      rules: careRules,
    },
    on,
  )
  if (!values.json) return inWords(taxon, garden, on, care)
  const { lastFrost, firstFrost, meanAnnualMinimumC, firstYear, lastYear } = garden.climate
  return JSON.stringify({
    taxon: { botanical: taxon.botanical, common: taxon.common, sureness: taxon.sureness },
    garden: { name: garden.name, latitude: garden.latitude, timeZone: garden.timeZone },
    climate: {
      source: garden.source,
      firstYear,
      lastYear,
      // Days of the year.
      lastFrost: lastFrost ?? null,
      firstFrost: firstFrost ?? null,
      meanAnnualMinimumC,
    },
    on,
    lateDays,
    place: values.place,
    ...care,
  })
}

interface CliGarden extends FileClimate {
  name: string
  latitude: number
  timeZone: string
}

/** A garden's place and climate from a folder or a plan; its weather file, or a simulated record for its latitude. */
function gardenAt(path: string, weatherPath: string | undefined): CliGarden {
  if (!existsSync(path)) throw new BadInput([`${path}: there is no such file or folder`])
  const isFolder = statSync(path).isDirectory()
  const planPath = isFolder ? join(path, 'plan.geojson') : path
  const { garden } = accepted(readPlan(readText(planPath), planPath))
  const file = weatherPath ?? (isFolder ? weatherIn(path) : undefined)
  const { name, latitude, timeZone } = garden
  return { name, latitude, timeZone, ...climateIn(garden, file) }
}

/** The taxon of a name, typos and synonyms allowed. */
function taxonCalled(name: string): Taxon {
  const [taxon] = taxonSearch(library).find(name)
  if (!taxon) throw new BadInput([`--taxon: nothing in the plant library is called ${name}`])
  return taxon
}

function schoolsFrom(given: readonly string[]): Schools {
  const chosen: Schools = {}
  for (const g of given) {
    const [id, choice] = g.split('=')
    const school = schools.find((s) => s.id === id)
    if (!school) throw new BadInput([`--school: ${id} is none of ${schoolIds.join(', ')}`])
    if (!school.choices.some((c) => c.id === choice))
      throw new BadInput([`--school ${id}: takes ${school.choices.map((c) => c.id).join(' or ')}`])
    chosen[id as SchoolId] = choice!
  }
  return chosen
}

function inWords(taxon: Taxon, garden: CliGarden, on: string, care: TaxonCare): string {
  const lines = [
    `${taxon.botanical} (${taxon.common}) in ${garden.name}, from ${on}; climate: ${garden.source}; ${care.winter} here`,
  ]
  for (const r of care.rules) {
    lines.push('', `${r.id}: ${r.does}`, `  ${r.sentence}`, `  ${r.why}`)
    if (r.school)
      lines.push(
        `  School: ${r.school.follows}${r.school.followed ? '' : ' (not this garden’s)'}; the other: ${r.school.other}`,
      )
    for (const w of r.windows)
      lines.push(
        `  ${w.earliest} | ${w.bestFrom} to ${w.bestTo} | ${w.latest}`,
        ...Object.values(w.why).map((s) => `    ${s}`),
      )
    if (r.windows.length === 0) lines.push(...r.none.map((n) => `  No window: ${n}`))
    lines.push(`  Missed: ${r.missed}`)
  }
  if (care.never.length > 0) lines.push('', ...care.never.map((n) => `Never ${n.operation}: ${n.why}`))
  return lines.join('\n')
}
