import { library, UNKNOWN } from '@border/core'
import knex, { type Knex } from 'knex'
import { randomUUID } from 'node:crypto'
import pg from 'pg'
import * as ground from './001_ground.ts'
import * as light from './002_light.ts'
import * as walk from './003_walk.ts'
import * as season from './004_season.ts'
import * as crews from './005_crews.ts'
import * as climate from './006_climate.ts'
import * as foundation from './007_foundation.ts'
import * as oneOfEach from './008_one_of_each.ts'
import * as whatIsTold from './009_what_is_told.ts'
import * as limits from './010_limits.ts'
import * as accounts from './011_accounts.ts'
import * as deviceClock from './012_device_clock.ts'
import * as keptAsText from './013_kept_as_text.ts'
import * as whoChanged from './014_who_changed.ts'
import * as ownChanges from './015_own_changes.ts'
import * as remedies from './016_remedies.ts'
import * as propagate from './017_propagate.ts'
import * as judgement from './018_judgement.ts'
import * as corrections from './019_corrections.ts'
import * as pictures from './020_pictures.ts'
import * as reworks from './021_reworks.ts'
import * as carriedOut from './022_carried_out.ts'
import * as schemeLinks from './023_scheme_links.ts'
import * as fills from './024_fills.ts'
import * as potChecks from './025_pot_checks.ts'
import * as taps from './026_taps.ts'
import * as preferences from './027_preferences.ts'
import * as drainTests from './028_drain_tests.ts'

/** Calendar days travel as text: a JavaScript Date would move them between time zones. */
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text)

export type Db = Knex

/** A lost connection is told by what fails for it. */
const warn = (said: unknown) => {
  if (!/^(Connection Error|Acquire connection error)/.test(String(said))) process.emitWarning(String(said))
}

export function connect(url: string, poolSize = 10): Db {
  return knex({
    client: 'pg',
    connection: url,
    pool: { min: 0, max: poolSize },
    log: { warn },
  })
}

const migrations: Record<string, Knex.Migration> = {
  '001_ground': ground,
  '002_light': light,
  '003_walk': walk,
  '004_season': season,
  '005_crews': crews,
  '006_climate': climate,
  '007_foundation': foundation,
  '008_one_of_each': oneOfEach,
  '009_what_is_told': whatIsTold,
  '010_limits': limits,
  '011_accounts': accounts,
  '012_device_clock': deviceClock,
  '013_kept_as_text': keptAsText,
  '014_who_changed': whoChanged,
  '015_own_changes': ownChanges,
  '016_remedies': remedies,
  '017_propagate': propagate,
  '018_judgement': judgement,
  '019_corrections': corrections,
  '020_pictures': pictures,
  '021_reworks': reworks,
  '022_carried_out': carriedOut,
  '023_scheme_links': schemeLinks,
  '024_fills': fills,
  '025_pot_checks': potChecks,
  '026_taps': taps,
  '027_preferences': preferences,
  '028_drain_tests': drainTests,
}

/** The migrations in their order, each with its way up and down. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(migrations)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(migrations[name]!),
}

/** Brings the schema and the shipped plant library up to date. Safe to run twice and at the same time. */
export async function migrate(db: Db): Promise<void> {
  await db.migrate.latest({ migrationSource })
  const rows = [...library, UNKNOWN].map((t) => ({
    id: randomUUID(),
    practice_id: null,
    botanical: t.botanical,
    traits: JSON.stringify(t),
  }))
  await db('taxa')
    .insert(rows)
    .onConflict(db.raw(`(coalesce(practice_id, '00000000-0000-0000-0000-000000000000'), lower(botanical))`))
    .merge(['traits'])
    // What is as it was is left alone: a renewed row makes what was worked out from it stale.
    .whereRaw('taxa.traits is distinct from excluded.traits')
}
