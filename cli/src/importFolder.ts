import type { ImportRequest } from '@border/contract'
import { gardenDay, problemText } from '@border/core'
import {
  climateFor,
  climateWords,
  connect,
  migrate,
  previewOf,
  readGardenFiles,
  saveGarden,
  type Db,
} from '@border/server'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { DEMO_DATABASE, ensureDatabase, PRACTICE_DATABASE } from './databases.ts'
import { optionsOf, readText } from './files.ts'
import { BadInput, Misuse, say } from './say.ts'

/** `border import FOLDER [--into practice|demo] [--as EMAIL] [--dry-run] [--json]` */
export async function importCommand(args: string[]): Promise<string> {
  const { values, positionals } = optionsOf(args, {
    into: { type: 'string', default: 'practice' },
    as: { type: 'string' },
    'dry-run': { type: 'boolean' },
    json: { type: 'boolean' },
  })
  const [folder, ...more] = positionals
  if (!folder || more.length > 0) throw new Misuse('import takes one folder with plan.geojson in it')
  if (values.into !== 'practice' && values.into !== 'demo') throw new Misuse('--into takes practice or demo')
  const db = connect(await ensureDatabase(values.into === 'demo' ? DEMO_DATABASE : PRACTICE_DATABASE), 2)
  try {
    await migrate(db)
    const imported = await importFolder(db, folder, { as: values.as, dryRun: values['dry-run'] ?? false })
    if (!imported.saved) say('Checked; nothing was saved.')
    return values.json ? JSON.stringify(imported) : `${describe(imported)}${imported.saved ? '\nSaved.' : ''}`
  } finally {
    await db.destroy()
  }
}

interface Imported {
  saved: boolean
  gardenId?: string
  gardenName: string
  counts: Record<string, number>
  plantings: number
  weatherDays: number
  /** Where its climate is from; null in a dry run. */
  climate: string | null
}

/**
 * A folder's garden into a database, whole or not at all.
 *
 * @param on the day that the practice stands at; the real one unless given
 * @throws {BadInput} with every fault of every file
 */
export async function importFolder(
  db: Db,
  folder: string,
  { as, dryRun, on }: { as?: string | undefined; dryRun: boolean; on?: string | undefined },
): Promise<Imported> {
  const files = filesIn(folder)
  const owner = await ownerOf(db, as)
  const read = await readGardenFiles(db, owner.practiceId, files, (zone) =>
    gardenDay(on ?? null, zone, Date.now()),
  )
  if (!read.ok) throw new BadInput([...read.problems.map(problemText), 'Nothing was saved.'])
  const { gardenName, counts, plantings, weatherDays } = previewOf(read.value)
  const summary = { gardenName, counts, plantings: plantings.length, weatherDays }
  if (dryRun) return { saved: false, climate: null, ...summary }
  const { plan, today, weather } = read.value
  const climate = await climateFor(plan.garden, today, weather)
  const { gardenId } = await db.transaction((trx) => saveGarden(trx, owner, read.value, climate))
  return { saved: true, gardenId, climate: climateWords(climate), ...summary }
}

function filesIn(folder: string): ImportRequest {
  const optional = (name: string) =>
    existsSync(join(folder, name)) ? readText(join(folder, name)) : undefined
  return {
    plan: readText(join(folder, 'plan.geojson')),
    plantings: optional('plantings.csv'),
    weather: optional('weather.csv'),
  }
}

async function ownerOf(db: Db, email: string | undefined): Promise<{ practiceId: string; personId: string }> {
  const leaders = db('people').where({ leads: true }).orderBy('created_at')
  const found: { id: string; practice_id: string }[] = await (
    email ? leaders.whereRaw('lower(email) = lower(?)', [email]) : leaders
  ).select('id', 'practice_id')
  const [first, ...others] = found
  if (!first)
    throw new BadInput([
      email
        ? `--as: nobody who leads a practice has the address ${email}`
        : 'Nobody has an account yet: run ./border start and make the first one.',
    ])
  if (others.length > 0)
    throw new Misuse('Several people lead the practice: say whose garden it is with --as EMAIL')
  return { practiceId: first.practice_id, personId: first.id }
}

function describe(s: Imported): string {
  const counts = Object.entries(s.counts).map(([kind, n]) => `${n} ${kind}`)
  const weather = s.weatherDays > 0 ? `${s.weatherDays} days of weather` : 'no weather record'
  return `${s.gardenName}: ${counts.join(', ')}; ${s.plantings} plantings; ${weather}.${s.climate ? ` ${s.climate}` : ''}`
}
