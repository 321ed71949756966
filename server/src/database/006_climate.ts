import type { Knex } from 'knex'

/**
 * Climate and care measured: wind and cloud of a day, records that the weather service goes on with, soil thermometers,
 * water given to plants that are not rooted in, successors, the bench, work asked for, and what a job really used.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table weather_days add column wind_ms real check (wind_ms >= 0);
    alter table weather_days add column cloud real check (cloud between 0 and 1);
    alter table stations drop constraint stations_source_check;
    alter table stations add constraint stations_source_check check (source in ('file', 'simulated', 'service'));
    -- Where the service is asked for the days since.
    alter table stations add column latitude double precision;
    alter table stations add column longitude double precision;
    alter table stations add constraint stations_service_has_place
      check (source <> 'service' or (latitude is not null and longitude is not null));

    create table soil_readings (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      day date not null,
      celsius real not null check (celsius between -40 and 60),
      place_id uuid,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      withdrawn_at timestamptz,
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    -- The same reading brought twice is one.
    create unique index soil_readings_once on soil_readings (
      garden_id, day, celsius, coalesce(place_id, '00000000-0000-0000-0000-000000000000')) where withdrawn_at is null;

    create table waterings (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      planting_id uuid not null,
      day date not null,
      litres real not null check (litres > 0),
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      withdrawn_at timestamptz,
      foreign key (planting_id, garden_id) references plantings (id, garden_id)
    );
    create index waterings_planting on waterings (planting_id, day);

    -- The person's word on a successor for a failing planting or a tree of the plan.
    create table successions (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      subject_id uuid not null,
      state text not null check (state in ('planned', 'dismissed')),
      botanical text check ((state = 'planned') = (botanical is not null)),
      job_id uuid references jobs on delete set null,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      withdrawn_at timestamptz
    );
    create unique index successions_one on successions (garden_id, subject_id) where withdrawn_at is null;

    -- Plants that wait for a place: pieces left over at a division, and what stands in pots.
    create table bench (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      taxon_id uuid not null references taxa,
      count integer not null check (count > 0),
      since date not null,
      from_planting_id uuid,
      -- The record of work it is left over from; taken back with it.
      job_id uuid references jobs on delete set null,
      note text,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      gone text check (gone in ('planted', 'given away', 'thrown away', 'withdrawn')),
      gone_on date check ((gone is null) = (gone_on is null)),
      planting_id uuid,
      foreign key (from_planting_id, garden_id) references plantings (id, garden_id),
      foreign key (planting_id, garden_id) references plantings (id, garden_id)
    );
    create index bench_garden on bench (garden_id) where gone is null;

    -- Work of a rule that a person asked for, due or not.
    alter table jobs add column asked boolean not null default false;
    -- Left out for once by a person; dropped for other reasons it is not listed.
    alter table jobs add column left_out boolean not null default false;
    -- What a job took in the end: [{"name", "amount", "unit"}].
    alter table job_records add column used jsonb;
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table job_records drop column used;
    alter table jobs drop column asked, drop column left_out;
    drop table bench;
    drop table successions;
    drop table waterings;
    drop table soil_readings;
    alter table stations drop constraint stations_service_has_place;
    update stations set source = 'simulated' where source = 'service';
    alter table stations drop column latitude, drop column longitude;
    alter table stations drop constraint stations_source_check;
    alter table stations add constraint stations_source_check check (source in ('file', 'simulated'));
    alter table weather_days drop column wind_ms, drop column cloud;
  `)
}
