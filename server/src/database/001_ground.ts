import type { Knex } from 'knex'

/**
 * The ground: practices, people, gardens, what stands in them, what grows in them, what was decided and done.
 * Lifelines are `[from_date, to_date)`. Observations, decisions, events and records are only ever added.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table practices (
      id uuid primary key,
      name text not null check (length(trim(name)) between 1 and 120),
      demo_date date,
      use_real_today boolean not null default false,
      created_at timestamptz not null default clock_timestamp()
    );

    create table people (
      id uuid primary key,
      practice_id uuid not null references practices,
      name text not null check (length(trim(name)) between 1 and 120),
      email text not null,
      password_hash text,
      is_demo boolean not null default false,
      -- May add gardens to the practice.
      leads boolean not null default false,
      created_at timestamptz not null default clock_timestamp(),
      check (password_hash is not null or is_demo)
    );
    create unique index people_email on people (lower(email));

    create table "session" (
      sid text primary key,
      sess json not null,
      expire timestamptz(6) not null
    );
    create index session_expire on "session" (expire);

    create table rate_counts (
      key text primary key,
      hits integer not null,
      resets_at timestamptz not null
    );

    create table stations (
      id uuid primary key,
      name text not null,
      source text not null check (source in ('file', 'simulated'))
    );
    create table weather_days (
      station_id uuid not null references stations on delete cascade,
      day date not null,
      min_c real not null,
      max_c real not null check (max_c >= min_c),
      rain_mm real not null check (rain_mm >= 0),
      primary key (station_id, day)
    );

    create table gardens (
      id uuid primary key,
      practice_id uuid not null references practices,
      station_id uuid references stations,
      name text not null check (length(trim(name)) between 1 and 120),
      latitude double precision not null check (latitude between -90 and 90),
      longitude double precision not null check (longitude between -180 and 180),
      time_zone text not null,
      north_deg double precision not null default 0,
      extra jsonb not null default '{}',
      amends_planting_ground boolean not null default true,
      created_at timestamptz not null default clock_timestamp(),
      unique (practice_id, name)
    );

    create table memberships (
      person_id uuid not null references people on delete cascade,
      garden_id uuid not null references gardens on delete cascade,
      role text not null check (role in ('head', 'crew', 'keeper')),
      primary key (person_id, garden_id)
    );

    create table features (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      kind text not null check (kind in ('bed', 'container', 'building', 'wall', 'fence', 'hedge', 'tree',
                                         'hazard', 'path', 'water', 'viewpoint')),
      name text not null check (length(trim(name)) between 1 and 120),
      geometry jsonb not null,
      properties jsonb not null default '{}',
      from_date date,
      to_date date,
      position integer not null default 0,
      -- Set when the entry was a mistake: kept, and no longer on the plan.
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      check (to_date > from_date),
      unique (id, garden_id)
    );
    create index features_garden on features (garden_id);
    create unique index features_place_name on features (garden_id, lower(name))
      where kind in ('bed', 'container') and withdrawn_at is null;

    create table feature_events (
      id uuid primary key,
      feature_id uuid not null references features on delete cascade,
      on_date date not null,
      action text not null check (action in ('limbed', 'thinned', 'lowered')),
      value double precision not null check (value >= 0),
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create index feature_events_feature on feature_events (feature_id);

    create table taxa (
      id uuid primary key,
      practice_id uuid references practices,
      botanical text not null,
      traits jsonb not null
    );
    create unique index taxa_name on taxa (coalesce(practice_id, '00000000-0000-0000-0000-000000000000'), lower(botanical));

    create table plantings (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      taxon_id uuid not null references taxa,
      tag text not null check (length(trim(tag)) between 1 and 40),
      planted_on date not null,
      planted_count integer not null check (planted_count > 0),
      source text not null check (source in ('bought', 'division', 'cutting', 'seed', 'self-sown', 'moved')),
      parent_id uuid,
      role text,
      created_at timestamptz not null default clock_timestamp(),
      unique (garden_id, tag),
      unique (id, garden_id),
      foreign key (parent_id, garden_id) references plantings (id, garden_id)
    );

    -- Where a planting stands, as a lifeline; a move closes one row and opens the next.
    create table planting_sites (
      id uuid primary key,
      planting_id uuid not null,
      garden_id uuid not null,
      place_id uuid not null,
      x double precision not null,
      y double precision not null,
      radius_m double precision check (radius_m > 0),
      from_date date not null,
      to_date date,
      -- The move that brought it here; withdrawn when that record is taken back.
      job_id uuid,
      withdrawn_at timestamptz,
      check (to_date >= from_date),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade,
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    create unique index planting_sites_open on planting_sites (planting_id) where to_date is null and withdrawn_at is null;
    create index planting_sites_planting on planting_sites (planting_id);

    -- What was seen of and happened to a planting; living counts are taken from here.
    create table planting_events (
      id uuid primary key,
      planting_id uuid not null references plantings on delete cascade,
      on_date date not null,
      kind text not null check (kind in ('planted', 'observed', 'counted', 'moved', 'note')),
      living integer check (living >= 0),
      says text not null,
      person_id uuid references people,
      job_id uuid,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create index planting_events_planting on planting_events (planting_id, on_date);
    create unique index planting_events_once_per_job on planting_events (job_id, kind)
      where job_id is not null and withdrawn_at is null;

    create table decisions (
      id uuid primary key,
      garden_id uuid not null,
      planting_id uuid not null,
      as_of date not null,
      verdict jsonb not null,
      choice text not null check (choice in ('accept', 'otherwise', 'wait')),
      action text not null check (action in ('keep', 'watch', 'move')),
      reason text,
      wait_until date,
      target jsonb,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      check (choice <> 'otherwise' or length(trim(reason)) >= 3),
      check ((choice = 'wait') = (wait_until is not null)),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index decisions_planting on decisions (planting_id, created_at);

    create table jobs (
      id uuid primary key,
      garden_id uuid not null,
      planting_id uuid not null,
      decision_id uuid not null references decisions,
      key text not null,
      kind text not null check (kind in ('prepare', 'move', 'aftercare')),
      title text not null,
      plan jsonb not null,
      target jsonb,
      earliest date not null,
      best_from date not null,
      best_to date not null,
      latest date not null,
      minutes integer not null check (minutes > 0),
      state text not null default 'open' check (state in ('open', 'done', 'dropped')),
      planned_on date,
      unplaced text,
      pinned boolean not null default false,
      revision integer not null default 0,
      created_at timestamptz not null default clock_timestamp(),
      check (earliest <= best_from and best_from <= best_to and best_to <= latest),
      unique (decision_id, key),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index jobs_garden on jobs (garden_id, state);

    create table job_order (
      before_id uuid not null references jobs on delete cascade,
      after_id uuid not null references jobs on delete cascade,
      least_days integer not null,
      most_days integer,
      primary key (before_id, after_id),
      check (before_id <> after_id)
    );

    create table job_records (
      id uuid primary key,
      job_id uuid not null references jobs,
      done_on date not null,
      minutes integer not null check (minutes > 0),
      lived integer check (lived >= 0),
      note text,
      person_id uuid not null references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create unique index job_records_once on job_records (job_id) where withdrawn_at is null;

    create table working_weeks (
      garden_id uuid not null references gardens on delete cascade,
      weekday integer not null check (weekday between 0 and 6),
      minutes integer not null check (minutes between 0 and 1440),
      primary key (garden_id, weekday)
    );
    create table working_exceptions (
      garden_id uuid not null references gardens on delete cascade,
      day date not null,
      minutes integer not null check (minutes between 0 and 1440),
      primary key (garden_id, day)
    );

    -- Every write of a person by the key its device made: sent twice, done once.
    create table writes (
      idempotency_key uuid primary key,
      person_id uuid not null references people,
      request_hash text not null,
      answer jsonb,
      created_at timestamptz not null default clock_timestamp()
    );

    -- Heavy results by a hash of all they were computed from.
    create table computed (
      hash text primary key,
      result jsonb not null,
      created_at timestamptz not null default clock_timestamp()
    );
  `)
}

export async function down(db: Knex): Promise<void> {
  const tables = [
    'computed',
    'writes',
    'working_exceptions',
    'working_weeks',
    'job_records',
    'job_order',
    'jobs',
    'decisions',
    'planting_events',
    'planting_sites',
    'plantings',
    'taxa',
    'feature_events',
    'features',
    'memberships',
    'gardens',
    'weather_days',
    'stations',
    'rate_counts',
    '"session"',
    'people',
    'practices',
  ]
  for (const table of tables) await db.raw(`drop table if exists ${table} cascade`)
}
