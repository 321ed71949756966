import type { Knex } from 'knex'

const kinds = `'divide', 'move', 'plant', 'prune', 'cut back', 'deadhead', 'swap', 'lift', 'protect', 'bring in', 'stake',
  'tie in', 'feed', 'mulch', 'soil', 'weed', 'refresh mix', 'pot on', 'upkeep', 'prepare', 'remove', 'aftercare'`

/** Work of raising plants: cuttings, layers, sowing, seed. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table jobs drop constraint jobs_kind_check;
    alter table jobs add constraint jobs_kind_check check (kind in (${kinds}, 'propagate'));
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    delete from jobs where kind = 'propagate';
    alter table jobs drop constraint jobs_kind_check;
    alter table jobs add constraint jobs_kind_check check (kind in (${kinds}));
  `)
