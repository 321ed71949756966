import type { Knex } from 'knex'

/** One word for one thing: a what-if is kept as one, with what it supposes; the plan is the garden's, the schedule its work's. */

export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table scenarios rename to what_ifs;
    alter table what_ifs rename column trials to suppositions;
    alter index scenarios_name rename to what_ifs_name;
    alter table worked_out rename column plan_basis to schedule_basis;
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    alter table worked_out rename column schedule_basis to plan_basis;
    alter index what_ifs_name rename to scenarios_name;
    alter table what_ifs rename column suppositions to trials;
    alter table what_ifs rename to scenarios;
  `)
