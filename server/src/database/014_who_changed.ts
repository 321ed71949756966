import type { Knex } from 'knex'

/** What each write has changed and how it left it, so that whoever changes it next from an older state can be told who did. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table writes add column changed text[], add column left_as text;
    create index writes_changed on writes using gin (changed) where changed is not null;
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw('alter table writes drop column changed, drop column left_as')
