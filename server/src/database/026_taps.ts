import type { Knex } from 'knex'

const kinds = (of: readonly string[]) => `
    alter table features drop constraint features_kind_check;
    alter table features add constraint features_kind_check check (kind in (${of.map((k) => `'${k}'`).join(', ')}));`

const before = [
  'bed',
  'container',
  'building',
  'wall',
  'fence',
  'hedge',
  'tree',
  'hazard',
  'path',
  'water',
  'viewpoint',
]

/** A tap or a butt is a thing of its own on the plan. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    ${kinds([...before, 'tap'])}
    update features set kind = 'tap', properties = properties - 'isTap' where properties ->> 'isTap' = 'true';
  `)

/** A tap is water by its point meanwhile, and remembered as one. */
export const down = (db: Knex): Promise<void> =>
  db.raw(`
    update features set kind = 'water', properties = properties || '{"isTap": true}' where kind = 'tap';
    ${kinds(before)}
  `)
