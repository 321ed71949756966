import type { Knex } from 'knex'

const kinds = `'divide', 'move', 'plant', 'prune', 'cut back', 'deadhead', 'swap', 'lift', 'protect', 'bring in', 'stake',
  'tie in', 'feed', 'mulch', 'soil', 'weed', 'refresh mix', 'pot on', 'upkeep', 'prepare', 'remove', 'aftercare'`

/** Work of raising plants: cuttings, layers, sowing, seed. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table jobs drop constraint jobs_kind_check;
    alter table jobs add constraint jobs_kind_check check (kind in (${kinds}, 'propagate'));
    update jobs set kind = 'propagate', details = details - 'propagates' where jsonb_exists(details, 'propagates');
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    -- Kept as work of another kind, and marked: on the way up it is what it was.
    update jobs set kind = 'upkeep', details = details || '{"propagates": true}' where kind = 'propagate';
    -- A table with checks still to come cannot be altered.
    set constraints all immediate;
    alter table jobs drop constraint jobs_kind_check;
    alter table jobs add constraint jobs_kind_check check (kind in (${kinds}));
  `)
