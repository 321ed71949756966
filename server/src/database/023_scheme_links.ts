import type { Knex } from 'knex'

/** Links by which a client looks at a scheme: one that works for each at most, until a day, of whose secret only a hash is kept. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create table scheme_links (
      id uuid primary key,
      scheme_id uuid not null,
      garden_id uuid not null,
      person_id uuid not null references people,
      token_hash text not null unique,
      until date not null,
      created_at timestamptz not null default now(),
      withdrawn_at timestamptz,
      foreign key (scheme_id, garden_id) references schemes (id, garden_id)
    );
    create unique index scheme_links_one on scheme_links (scheme_id) where withdrawn_at is null;
    create index scheme_links_scheme on scheme_links (scheme_id, garden_id);
    create index scheme_links_person on scheme_links (person_id);
    ${(['insert', 'update', 'delete'] as const)
      .map(
        (kind) => `
    create trigger scheme_links_told_${kind} after ${kind} on scheme_links
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement execute function raise_of_garden('links');`,
      )
      .join('')}
  `)

export const down = (db: Knex): Promise<void> => db.raw('drop table scheme_links')
