import type { Knex } from 'knex'

/**
 * Light: what-ifs under a name, readings by eye and by logger, suspicions of changes nobody recorded, and what the plan
 * said before it was put right. Readings and logs are only ever added or withdrawn.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table feature_events drop constraint feature_events_action_check;
    alter table feature_events add constraint feature_events_action_check
      check (action in ('limbed', 'thinned', 'lowered', 'measured'));
    alter table feature_events add column crown_radius_m double precision check (crown_radius_m >= 0);

    -- A feature as it was before somebody put it right.
    create table feature_amendments (
      id uuid primary key,
      feature_id uuid not null references features on delete cascade,
      geometry jsonb not null,
      properties jsonb not null,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp()
    );
    create index feature_amendments_feature on feature_amendments (feature_id);

    create table scenarios (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      name text not null check (length(trim(name)) between 1 and 80),
      trials jsonb not null,
      person_id uuid not null references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create unique index scenarios_name on scenarios (garden_id, lower(name)) where withdrawn_at is null;

    create table light_readings (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      at timestamptz not null,
      x double precision not null,
      y double precision not null,
      place_id uuid,
      seen text not null check (seen in ('sun', 'dappled', 'shade')),
      person_id uuid not null references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    create index light_readings_garden on light_readings (garden_id, at);

    create table light_logs (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      name text not null check (length(trim(name)) between 1 and 120),
      x double precision not null,
      y double precision not null,
      place_id uuid,
      -- [[milliseconds since 1970, lux], ...] in order of time.
      samples jsonb not null,
      first_at timestamptz not null,
      last_at timestamptz not null check (last_at >= first_at),
      content_hash text not null,
      person_id uuid not null references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    create unique index light_logs_once on light_logs (garden_id, content_hash) where withdrawn_at is null;

    -- One row for each thing ever suspected, by a key that names it: dismissed once, it is not raised again.
    create table suspicions (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      key text not null,
      kind text not null check (kind in ('unrecorded', 'ahead', 'changed')),
      detail jsonb not null,
      state text not null check (state in ('open', 'dismissed', 'confirmed', 'passed')),
      first_seen date not null,
      last_seen date not null,
      decided_by uuid references people,
      decided_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      unique (garden_id, key)
    );

    create table rechecks (
      garden_id uuid primary key references gardens on delete cascade,
      on_date date not null,
      ran_at timestamptz not null default clock_timestamp()
    );
  `)
}

export async function down(db: Knex): Promise<void> {
  for (const table of [
    'rechecks',
    'suspicions',
    'light_logs',
    'light_readings',
    'scenarios',
    'feature_amendments',
  ])
    await db.raw(`drop table if exists ${table}`)
  await db.raw(`
    delete from feature_events where action = 'measured';
    alter table feature_events drop column crown_radius_m;
    alter table feature_events drop constraint feature_events_action_check;
    alter table feature_events add constraint feature_events_action_check
      check (action in ('limbed', 'thinned', 'lowered'));
  `)
}
