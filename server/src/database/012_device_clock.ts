import type { Knex } from 'knex'

const noted = ['observations', 'place_looks', 'photos', 'job_records']

/** What the clock of the device said that something was noted with, where that was not the true time. */
export const up = (db: Knex): Promise<void> =>
  db.raw(noted.map((table) => `alter table ${table} add column device_at timestamptz;`).join('\n'))

export const down = (db: Knex): Promise<void> =>
  db.raw(noted.map((table) => `alter table ${table} drop column device_at;`).join('\n'))
