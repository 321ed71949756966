import type { Knex } from 'knex'

const kinds = ['insert', 'update', 'delete']
const ofGardens = ['reworks', 'schemes']

/**
 * Places decided anew. A scheme is kept as everything that was said of it, each time anew beside what was said before: taking a step
 * back goes to what it came after, and nothing is lost by it. And what suppliers ask, of a practice.
 */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create table if not exists reworks (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      place_id uuid not null references features on delete cascade,
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create index if not exists reworks_garden on reworks (garden_id);
    create index if not exists reworks_place on reworks (place_id);
    create index if not exists reworks_person on reworks (person_id);
    create table if not exists schemes (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      rework_id uuid not null references reworks on delete cascade,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create index if not exists schemes_garden on schemes (garden_id);
    create index if not exists schemes_rework on schemes (rework_id);
    create table if not exists scheme_revisions (
      id uuid primary key,
      scheme_id uuid not null references schemes on delete cascade,
      -- What was said before it; the first came after nothing.
      after_id uuid references scheme_revisions on delete cascade,
      said jsonb not null check (jsonb_typeof(said) = 'object'),
      person_id uuid references people,
      created_at timestamptz not null default clock_timestamp(),
      unique (scheme_id, id)
    );
    create index if not exists scheme_revisions_after on scheme_revisions (after_id);
    create index if not exists scheme_revisions_person on scheme_revisions (person_id);
    create unique index if not exists scheme_revisions_first on scheme_revisions (scheme_id) where after_id is null;
    alter table schemes add column if not exists revision_id uuid;
    alter table schemes drop constraint if exists schemes_revision;
    alter table schemes add constraint schemes_revision foreign key (id, revision_id)
      references scheme_revisions (scheme_id, id) deferrable initially deferred;
    create index if not exists schemes_revision on schemes (id, revision_id);

    create table if not exists offers (
      id uuid primary key,
      practice_id uuid not null references practices on delete cascade,
      supplier text not null check (length(trim(supplier)) between 1 and 120),
      item text not null check (length(trim(item)) between 1 and 120),
      packs jsonb not null check (jsonb_typeof(packs) = 'array' and jsonb_array_length(packs) > 0),
      priced_on date not null,
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create unique index if not exists offers_once on offers (practice_id, lower(supplier), lower(item)) where withdrawn_at is null;
    create index if not exists offers_practice on offers (practice_id);
    create index if not exists offers_person on offers (person_id);

    alter table garden_versions add column reworks bigint not null default 0;
    alter table garden_versions add column prices bigint not null default 0;
    ${ofGardens.map((table) => told(table, `raise_of_garden('reworks')`)).join('')}
    create function raise_of_offers() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['prices'], array(
          select id from gardens where practice_id in (select practice_id from changed)));
        return null;
      end $$;
    ${told('offers', 'raise_of_offers()')}
  `)

const told = (table: string, call: string): string =>
  kinds
    .map(
      (kind) => `
    create trigger ${table}_told_${kind} after ${kind} on ${table}
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement execute function ${call};`,
    )
    .join('')

/** What was said is kept: on the way up it is there again. */
export const down = (db: Knex): Promise<void> =>
  db.raw(`
    set constraints all immediate;
    ${[...ofGardens, 'offers'].flatMap((t) => kinds.map((k) => `drop trigger ${t}_told_${k} on ${t};`)).join('\n')}
    drop function raise_of_offers;
    alter table garden_versions drop column reworks;
    alter table garden_versions drop column prices;
  `)
