import type { Knex } from 'knex'

const kinds = (of: readonly string[]) => `
    alter table pot_checks drop constraint if exists pot_checks_kind_check;
    alter table pot_checks add constraint pot_checks_kind_check check (kind in (${of.map((k) => `'${k}'`).join(', ')}));`

const before = ['watered', 'felt', 'weighed', 'rained', 'rated']

/** A mix is tested: a sample of it filled with water and let drain, litres. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table pot_checks
      add column if not exists sample_l double precision check (sample_l between 0.1 and 1000),
      add column if not exists filled_l double precision check (filled_l < sample_l),
      add column if not exists drained_l double precision check (drained_l >= 0 and drained_l < filled_l);
    ${kinds([...before, 'drained'])}
    update pot_checks set kind = 'drained', withdrawn_at = nullif(withdrawn_at, '-infinity') where sample_l is not null;
    alter table pot_checks add constraint pot_checks_drained check (
      (kind = 'drained') = (sample_l is not null) and (kind = 'drained') = (filled_l is not null)
      and (kind = 'drained') = (drained_l is not null));
  `)

/** What was tested is kept as something taken back: what knows nothing of tests does not take it for a watering. */
export const down = (db: Knex): Promise<void> =>
  db.raw(`
    alter table pot_checks drop constraint pot_checks_drained;
    update pot_checks set kind = 'watered', withdrawn_at = coalesce(withdrawn_at, '-infinity') where kind = 'drained';
    ${kinds(before)}
  `)
