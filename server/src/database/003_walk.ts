import type { Knex } from 'knex'

/**
 * The walk: what was seen of plantings and places, photos from fixed standpoints, a practice's own readings of signs,
 * what came of trials. Observations are only ever added or withdrawn; their ids are made on the device that noted them, so
 * that one sent twice is kept once.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table gardens add column record_version bigint not null default 0;

    create table observations (
      id uuid primary key,
      garden_id uuid not null,
      planting_id uuid not null,
      on_date date not null,
      seen_at timestamptz not null,
      rating integer check (rating between 1 and 5),
      -- None living is not a count: it is an absence, and striking off is a decision.
      living integer check (living >= 1),
      absent boolean not null default false,
      stage text check (stage in ('none', 'bud', 'opening', 'full', 'fading', 'over')),
      flush integer check (flush between 1 and 9),
      height_m real check (height_m > 0 and height_m <= 60),
      spread_m real check (spread_m > 0 and spread_m <= 60),
      signs text[] not null default '{}',
      note text check (length(note) between 1 and 2000),
      person_id uuid references people,
      -- The observation of the same device that this one puts right.
      replaces_id uuid references observations,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      check (not (absent and (living is not null or stage is not null))),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index observations_planting on observations (planting_id, on_date desc, created_at desc) where withdrawn_at is null;
    create index observations_counted on observations (planting_id, on_date desc, created_at desc)
      where withdrawn_at is null and living is not null;
    create index observations_garden on observations (garden_id, on_date) where withdrawn_at is null;

    -- Walks noted before signs and stages were: their words become an observation's note.
    insert into observations (id, garden_id, planting_id, on_date, seen_at, living, note, person_id, withdrawn_at, created_at)
      select e.id, p.garden_id, e.planting_id, e.on_date, e.created_at, nullif(e.living, 0), left(e.says, 2000),
             e.person_id, e.withdrawn_at, e.created_at
      from planting_events e join plantings p on p.id = e.planting_id where e.kind = 'observed';
    delete from planting_events where kind = 'observed';
    alter table planting_events drop constraint planting_events_kind_check;
    alter table planting_events add constraint planting_events_kind_check
      check (kind in ('planted', 'counted', 'moved', 'note', 'lost'));

    create view living_counts as
      select planting_id, on_date, created_at, living from planting_events
        where withdrawn_at is null and living is not null
      union all
      select planting_id, on_date, created_at, living from observations
        where withdrawn_at is null and living is not null;

    create table place_looks (
      id uuid primary key,
      garden_id uuid not null,
      place_id uuid not null,
      on_date date not null,
      seen_at timestamptz not null,
      weeds text check (weeds in ('none', 'some', 'many')),
      mulch text check (mulch in ('good', 'thin', 'none')),
      soil text check (soil in ('dry', 'moist', 'wet')),
      edges_lost boolean,
      water_misses boolean,
      -- Widths of bare holes, metres.
      holes_m real[] not null default '{}',
      good_together text check (length(good_together) between 1 and 500),
      missing text check (length(missing) between 1 and 500),
      note text check (length(note) between 1 and 2000),
      person_id uuid references people,
      replaces_id uuid references place_looks,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    create index place_looks_place on place_looks (place_id, on_date desc) where withdrawn_at is null;
    create index place_looks_garden on place_looks (garden_id, on_date) where withdrawn_at is null;

    create table standpoints (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      place_id uuid,
      name text not null check (length(trim(name)) between 1 and 120),
      -- Where to stand and what to put in the middle, in words.
      framing text not null default '',
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      unique (id, garden_id),
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    create unique index standpoints_name on standpoints (garden_id, lower(name)) where withdrawn_at is null;

    create table photos (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      standpoint_id uuid,
      planting_id uuid,
      place_id uuid,
      taken_on date not null,
      taken_at timestamptz not null,
      width integer not null check (width > 0),
      height integer not null check (height > 0),
      picture bytea not null,
      small bytea not null,
      content_hash text not null,
      latitude double precision,
      longitude double precision,
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (standpoint_id, garden_id) references standpoints (id, garden_id),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade,
      foreign key (place_id, garden_id) references features (id, garden_id)
    );
    create unique index photos_once on photos (garden_id, content_hash,
      coalesce(standpoint_id, planting_id, place_id, '00000000-0000-0000-0000-000000000000')) where withdrawn_at is null;
    create index photos_garden on photos (garden_id, taken_on) where withdrawn_at is null;

    -- A practice's own share for a row of the likelihood table; the latest counts.
    create table sign_shares (
      practice_id uuid not null references practices on delete cascade,
      sign text not null,
      cause text not null,
      share real not null check (share between 0 and 1),
      why text check (length(why) between 1 and 500),
      person_id uuid references people,
      changed_at timestamptz not null default clock_timestamp(),
      primary key (practice_id, sign, cause)
    );

    create table trial_outcomes (
      id uuid primary key,
      garden_id uuid not null,
      planting_id uuid not null,
      on_date date not null,
      outcome text not null check (outcome in ('trial', 'expand', 'retry elsewhere', 'strike off', 'go on')),
      drift_count integer check (drift_count between 1 and 1000),
      reason text check (length(reason) between 1 and 2000),
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      check ((outcome = 'expand') = (drift_count is not null)),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index trial_outcomes_planting on trial_outcomes (planting_id, created_at);

    -- Cuts and deadheading, done for the sake of bloom.
    create table treatments (
      id uuid primary key,
      garden_id uuid not null,
      planting_id uuid not null,
      on_date date not null,
      what text not null check (what in ('cut by half', 'some stems cut', 'cut back after bloom', 'deadheaded')),
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index treatments_planting on treatments (planting_id, on_date) where withdrawn_at is null;
    create index treatments_garden on treatments (garden_id) where withdrawn_at is null;

    alter table suspicions drop constraint suspicions_kind_check;
    alter table suspicions add constraint suspicions_kind_check
      check (kind in ('unrecorded', 'ahead', 'changed', 'signs'));

    -- What a garden’s record and walk are worked out from changes with these; its version names the state.
    create function touch_record() returns trigger language plpgsql as $$
      begin
        update gardens set record_version = record_version + 1 where id in (select distinct garden_id from changed);
        return null;
      end $$;
    create function touch_record_by_planting() returns trigger language plpgsql as $$
      begin
        update gardens set record_version = record_version + 1
          where id in (select p.garden_id from changed c join plantings p on p.id = c.planting_id);
        return null;
      end $$;
    create trigger observations_added after insert on observations
      referencing new table as changed for each statement execute function touch_record();
    create trigger observations_changed after update on observations
      referencing new table as changed for each statement execute function touch_record();
    create trigger place_looks_added after insert on place_looks
      referencing new table as changed for each statement execute function touch_record();
    create trigger place_looks_changed after update on place_looks
      referencing new table as changed for each statement execute function touch_record();
    create trigger photos_added after insert on photos
      referencing new table as changed for each statement execute function touch_record();
    create trigger photos_changed after update on photos
      referencing new table as changed for each statement execute function touch_record();
    create trigger treatments_added after insert on treatments
      referencing new table as changed for each statement execute function touch_record();
    create trigger treatments_changed after update on treatments
      referencing new table as changed for each statement execute function touch_record();
    create trigger standpoints_added after insert on standpoints
      referencing new table as changed for each statement execute function touch_record();
    create trigger standpoints_changed after update on standpoints
      referencing new table as changed for each statement execute function touch_record();
    create trigger plantings_added after insert on plantings
      referencing new table as changed for each statement execute function touch_record();
    create trigger planting_sites_added after insert on planting_sites
      referencing new table as changed for each statement execute function touch_record();
    create trigger planting_sites_changed after update on planting_sites
      referencing new table as changed for each statement execute function touch_record();
    create trigger planting_events_added after insert on planting_events
      referencing new table as changed for each statement execute function touch_record_by_planting();
    create trigger planting_events_changed after update on planting_events
      referencing new table as changed for each statement execute function touch_record_by_planting();
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop trigger plantings_added on plantings;
    drop trigger planting_sites_added on planting_sites;
    drop trigger planting_sites_changed on planting_sites;
    drop trigger planting_events_added on planting_events;
    drop trigger planting_events_changed on planting_events;
    drop view living_counts;
    alter table planting_events drop constraint planting_events_kind_check;
    update planting_events set kind = 'counted' where kind = 'lost';
    alter table planting_events add constraint planting_events_kind_check
      check (kind in ('planted', 'observed', 'counted', 'moved', 'note'));
    insert into planting_events (id, planting_id, on_date, kind, living, says, person_id, withdrawn_at, created_at)
      select id, planting_id, on_date, 'observed', living, coalesce(note, 'Seen on a walk.'), person_id, withdrawn_at, created_at
      from observations;
    delete from suspicions where kind = 'signs';
    alter table suspicions drop constraint suspicions_kind_check;
    alter table suspicions add constraint suspicions_kind_check check (kind in ('unrecorded', 'ahead', 'changed'));
  `)
  for (const table of [
    'treatments',
    'trial_outcomes',
    'sign_shares',
    'photos',
    'standpoints',
    'place_looks',
    'observations',
  ])
    await db.raw(`drop table ${table}`)
  await db.raw(`
    drop function touch_record;
    drop function touch_record_by_planting;
    alter table gardens drop column record_version;
  `)
}
