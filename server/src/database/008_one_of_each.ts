import type { Knex } from 'knex'

/**
 * One of each: a what-if is kept as one, with what it supposes; the plan is the garden's, the schedule its work's; and a reference
 * that carries the garden needs none beside it that does not.
 */

/** References that were kept twice, by their tables: the one without the garden. */
const kept: readonly [table: string, column: string, references: string][] = [
  ['feature_events', 'feature_id', 'features (id) on delete cascade'],
  ['feature_amendments', 'feature_id', 'features (id) on delete cascade'],
  ['planting_events', 'planting_id', 'plantings (id) on delete cascade'],
  ['job_plantings', 'job_id', 'jobs (id) on delete cascade'],
  ['job_order', 'before_id', 'jobs (id) on delete cascade'],
  ['job_order', 'after_id', 'jobs (id) on delete cascade'],
  ['job_records', 'job_id', 'jobs (id)'],
]

export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table scenarios rename to what_ifs;
    alter table what_ifs rename column trials to suppositions;
    alter index scenarios_name rename to what_ifs_name;
    alter table worked_out rename column plan_basis to schedule_basis;
    ${kept.map(([table, column]) => `alter table ${table} drop constraint ${table}_${column}_fkey;`).join('\n')}
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    ${kept
      .map(
        ([table, column, references]) =>
          `alter table ${table} add constraint ${table}_${column}_fkey foreign key (${column}) references ${references};`,
      )
      .join('\n')}
    alter table worked_out rename column schedule_basis to plan_basis;
    alter index what_ifs_name rename to scenarios_name;
    alter table what_ifs rename column suppositions to trials;
    alter table what_ifs rename to scenarios;
  `)
