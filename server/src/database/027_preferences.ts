import type { Knex } from 'knex'

/** How each person wants things called and written; what is not said is as usual. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`alter table people add column if not exists preferences jsonb not null default '{}'`)

/** What was said is kept: on the way up it is there again. */
export const down = (db: Knex): Promise<void> => db.raw('select 1')
