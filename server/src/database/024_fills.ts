import type { Knex } from 'knex'

/** Fills of containers: what mix was filled in when, how much of it was new, and how the fill ended. One at a time in each container. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create table if not exists fills (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      container_id uuid not null,
      name text not null check (length(trim(name)) between 1 and 120),
      season text not null check (season in ('summer', 'winter')),
      filled_on date not null,
      emptied_on date,
      -- Parts by volume.
      mix jsonb not null check (jsonb_typeof(mix) = 'array' and jsonb_array_length(mix) > 0),
      -- Of the mix so much was new, 0 to 1.
      renewed double precision not null check (renewed between 0 and 1),
      -- Why it ended; null while it stands, and where nobody has said.
      ended_by text check (ended_by in ('went over', 'heat', 'frost', 'dried out', 'drowned', 'eaten', 'disease', 'not liked')),
      -- How it went, told as it ended.
      ended_note text,
      note text,
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      check (emptied_on > filled_on),
      foreign key (container_id, garden_id) references features (id, garden_id) on delete cascade,
      constraint fills_one_at_a_time
        exclude using gist (container_id with =, daterange(filled_on, emptied_on, '[)') with &&) where (withdrawn_at is null)
    );
    create index if not exists fills_garden on fills (garden_id);
    create index if not exists fills_container on fills (container_id, garden_id);
    create index if not exists fills_person on fills (person_id);
    alter table garden_versions add column fills bigint not null default 0;
    ${(['insert', 'update', 'delete'] as const)
      .map(
        (kind) => `
    create trigger fills_told_${kind} after ${kind} on fills
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement execute function raise_of_garden('fills');`,
      )
      .join('')}
  `)

/** What was filled is kept: on the way up it is there again. */
export const down = (db: Knex): Promise<void> =>
  db.raw(`
    set constraints all immediate;
    ${['insert', 'update', 'delete'].map((k) => `drop trigger fills_told_${k} on fills;`).join('\n')}
    alter table garden_versions drop column fills;
  `)
