import type { Knex } from 'knex'

/**
 * What a garden is said to be is put right in edits: each with who and when, what it changed from and to, so that it can be taken
 * back, and that again. What was put right before is kept among them, though only as it was.
 */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create table if not exists kept_edits (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      person_id uuid not null references people,
      -- The day from which it is so in the garden; null where it always was.
      from_date date,
      -- The edit that this one took back.
      undoes uuid,
      -- Of each row: its table, its id, how it was (null where it was not there) and how it is (null where that is not known).
      entries jsonb not null check (jsonb_typeof(entries) = 'array'),
      created_at timestamptz not null default clock_timestamp(),
      unique (id, garden_id),
      foreign key (undoes, garden_id) references kept_edits (id, garden_id) on delete cascade
    );
    create index if not exists edits_garden on kept_edits (garden_id, created_at);
    create index if not exists edits_person on kept_edits (person_id);
    create unique index if not exists edits_undone on kept_edits (undoes, garden_id);
    alter table kept_edits rename to edits;
    insert into edits (id, garden_id, person_id, entries, created_at)
      select id, garden_id, person_id, jsonb_build_array(jsonb_build_object('table', 'features', 'id', feature_id,
               'was', jsonb_build_object('geometry', geometry, 'properties', properties), 'now', null)), created_at
      from feature_amendments where id not in (select id from edits);
    insert into edits (id, garden_id, person_id, entries, created_at)
      select id, garden_id, person_id,
             jsonb_build_array(jsonb_build_object('table', 'plantings', 'id', planting_id, 'was', was, 'now', null)), created_at
      from planting_amendments where id not in (select id from edits);
    drop table feature_amendments;
    drop table planting_amendments;

    -- How well the day is known on which something was planted: where not to the day, the date is one to reckon with.
    alter table plantings add column planted_known text not null default 'day'
      check (planted_known in ('day', 'year', 'before', 'unknown'));
    do $$ begin
      if to_regclass('kept_planted') is not null then
        update plantings p set planted_known = k.said from kept_planted k where k.id = p.id;
        drop table kept_planted;
      end if;
    end $$;
    delete from computed;
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    create table kept_planted (id uuid primary key, said text not null);
    insert into kept_planted select id, planted_known from plantings where planted_known <> 'day';
    set constraints all immediate;
    alter table plantings drop column planted_known;
    create table feature_amendments (
      id uuid primary key,
      feature_id uuid not null,
      garden_id uuid not null,
      geometry jsonb not null,
      properties jsonb not null,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (feature_id, garden_id) references features (id, garden_id) on delete cascade
    );
    create index feature_amendments_feature on feature_amendments (feature_id);
    create table planting_amendments (
      id uuid primary key,
      planting_id uuid not null,
      garden_id uuid not null,
      was jsonb not null,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index planting_amendments_planting on planting_amendments (planting_id);
    create index planting_amendments_person_id_fk on planting_amendments (person_id);
    create index feature_amendments_person_id_fk on feature_amendments (person_id);
    insert into feature_amendments (id, feature_id, garden_id, geometry, properties, person_id, created_at)
      select e.id, (x ->> 'id')::uuid, e.garden_id, x -> 'was' -> 'geometry', x -> 'was' -> 'properties', e.person_id, e.created_at
      from edits e, jsonb_array_elements(e.entries) x
      where jsonb_array_length(e.entries) = 1 and x ->> 'table' = 'features' and jsonb_typeof(x -> 'was' -> 'geometry') = 'object';
    insert into planting_amendments (id, planting_id, garden_id, was, person_id, created_at)
      select e.id, (x ->> 'id')::uuid, e.garden_id, x -> 'was', e.person_id, e.created_at
      from edits e, jsonb_array_elements(e.entries) x
      where jsonb_array_length(e.entries) = 1 and x ->> 'table' = 'plantings' and jsonb_typeof(x -> 'was') = 'object';
    -- What has changed several things at once, and how it is taken back, is kept as it is.
    alter table edits rename to kept_edits;
    delete from computed;
  `)
