import type { Knex } from 'knex'

/**
 * Foundation: versions of a garden by aspect, raised here and nowhere else; every table of a garden carries the garden; a job's
 * days in a table of their own; runs of long work of any kind; and what must never be in the record is refused by it.
 */

/** What a garden's derived views are worked out from, and the tables that say it. Each table has a `garden_id`. */
const saidBy: Record<string, readonly string[]> = {
  plan: ['features', 'feature_events'],
  plantings: ['plantings', 'planting_sites', 'planting_events'],
  climate: ['soil_readings'],
  rules: ['garden_rules'],
  record: ['place_looks', 'photos', 'standpoints', 'treatments', 'trial_outcomes'],
  decisions: ['decisions', 'successions'],
  readings: ['light_readings', 'light_logs'],
  jobs: ['job_records', 'job_order', 'job_plantings'],
}
const aspects = [
  'plan',
  'plantings',
  'climate',
  'rules',
  'record',
  'library',
  'decisions',
  'readings',
  'jobs',
  'crew',
]

/** Triggers after each kind of change, with what changed as `changed`. */
const after = (table: string, call: string, kinds = ['insert', 'update', 'delete']) =>
  kinds
    .map(
      (kind) => `
    create trigger ${table}_raise_${kind} after ${kind} on ${table}
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement execute function ${call};`,
    )
    .join('')

const recordTriggers: readonly [table: string, kinds: readonly string[]][] = [
  ['observations', ['added', 'changed']],
  ['place_looks', ['added', 'changed']],
  ['photos', ['added', 'changed']],
  ['treatments', ['added', 'changed']],
  ['standpoints', ['added', 'changed']],
  ['plantings', ['added']],
  ['planting_sites', ['added', 'changed']],
  ['planting_events', ['added', 'changed']],
]

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create extension if not exists btree_gist;
    ${recordTriggers.flatMap(([table, kinds]) => kinds.map((k) => `drop trigger ${table}_${k} on ${table};`)).join('\n')}
    drop function touch_record;
    drop function touch_record_by_planting;
    alter table gardens drop column record_version;
  `)
  await carryTheGarden(db)
  await keepJobs(db)
  await keepPlantings(db)
  await keepRuns(db)
  await db.raw(`
    -- A record that was made up says so wherever it is used.
    alter table stations add column is_simulated boolean not null default false;
    update stations set is_simulated = (source = 'simulated' or (source = 'service' and name like 'Record of the weather service%'));
    -- What the gardener knows of the climate: {"lastFrost": "MM-DD", "firstFrost": "MM-DD", "coldestC"}.
    alter table gardens add column known_climate jsonb;

    -- Out of the practice's list; kept, and brought back at a word.
    alter table gardens add column withdrawn_at timestamptz;
    alter table gardens drop constraint gardens_practice_id_name_key;
    create unique index gardens_name on gardens (practice_id, lower(name)) where withdrawn_at is null;
    -- A garden as it was before somebody put it right.
    create table garden_amendments (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      was jsonb not null,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp()
    );
    create index garden_amendments_garden on garden_amendments (garden_id);

    -- A succession is of a planting or of something on the plan.
    alter table successions add column planting_id uuid;
    alter table successions add column feature_id uuid;
    update successions s set planting_id = s.subject_id from plantings p where p.id = s.subject_id;
    update successions s set feature_id = s.subject_id from features f where f.id = s.subject_id;
    delete from successions where num_nonnulls(planting_id, feature_id) <> 1;
    drop index successions_one;
    alter table successions drop column subject_id;
    alter table successions add constraint successions_of_something check (num_nonnulls(planting_id, feature_id) = 1);
    alter table successions add foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade;
    alter table successions add foreign key (feature_id, garden_id) references features (id, garden_id) on delete cascade;
    create unique index successions_one on successions (garden_id, coalesce(planting_id, feature_id)) where withdrawn_at is null;
  `)
  await raiseVersions(db)
  await indexForeignKeys(db)
}

async function carryTheGarden(db: Knex): Promise<void> {
  await db.raw(`
    alter table feature_events add column garden_id uuid;
    update feature_events e set garden_id = f.garden_id from features f where f.id = e.feature_id;
    alter table feature_events alter column garden_id set not null;
    alter table feature_events add foreign key (feature_id, garden_id) references features (id, garden_id) on delete cascade;
    alter table feature_amendments add column garden_id uuid;
    update feature_amendments e set garden_id = f.garden_id from features f where f.id = e.feature_id;
    alter table feature_amendments alter column garden_id set not null;
    alter table feature_amendments add foreign key (feature_id, garden_id) references features (id, garden_id) on delete cascade;

    alter table planting_events add column garden_id uuid;
    update planting_events e set garden_id = p.garden_id from plantings p where p.id = e.planting_id;
    alter table planting_events alter column garden_id set not null;
    alter table planting_events add foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade;

    alter table jobs add constraint jobs_of_garden unique (id, garden_id);
    alter table job_records add column garden_id uuid;
    update job_records r set garden_id = j.garden_id from jobs j where j.id = r.job_id;
    alter table job_records alter column garden_id set not null;
    alter table job_records add foreign key (job_id, garden_id) references jobs (id, garden_id);
    alter table job_order add column garden_id uuid;
    update job_order o set garden_id = j.garden_id from jobs j where j.id = o.after_id;
    alter table job_order alter column garden_id set not null;
    alter table job_order add foreign key (before_id, garden_id) references jobs (id, garden_id) on delete cascade;
    alter table job_order add foreign key (after_id, garden_id) references jobs (id, garden_id) on delete cascade;
    alter table job_plantings add foreign key (job_id, garden_id) references jobs (id, garden_id) on delete cascade;
  `)
}

async function keepJobs(db: Knex): Promise<void> {
  await db.raw(`
    -- Dates in columns only; what explains them beside.
    alter table jobs add column season text;
    alter table jobs add column why jsonb;
    update jobs set season = plan -> 'window' ->> 'season', why = plan -> 'window' -> 'why';
    update jobs set plan = plan - 'window' - 'key' - 'kind' - 'title' - 'minutes' - 'after' - 'nextChance';
    alter table jobs alter column season set not null;
    alter table jobs alter column why set not null;
    alter table jobs rename column plan to details;

    -- A day set by a person is a fact; the days of the plan are worked out.
    alter table jobs add column pinned_on date;
    update jobs set pinned_on = planned_on where pinned and state = 'open';

    alter table jobs add constraint jobs_in_state unique (id, garden_id, state);
    create table job_sittings (
      job_id uuid not null,
      garden_id uuid not null,
      -- Only what is open has a day: a job leaves its days before it leaves this state.
      job_state text not null default 'open' check (job_state = 'open'),
      nth integer not null check (nth >= 0),
      day date not null,
      minutes integer not null check (minutes > 0),
      primary key (job_id, nth),
      foreign key (job_id, garden_id, job_state) references jobs (id, garden_id, state) on delete cascade
    );
    create index job_sittings_garden on job_sittings (garden_id, day);
    insert into job_sittings (job_id, garden_id, nth, day, minutes)
      select j.id, j.garden_id, p.nth - 1, (p.part ->> 'day')::date, (p.part ->> 'minutes')::int
      from jobs j cross join lateral jsonb_array_elements(
        coalesce(j.parts, jsonb_build_array(jsonb_build_object('day', j.planned_on, 'minutes', j.minutes)))
      ) with ordinality as p(part, nth)
      where j.state = 'open' and j.planned_on is not null;

    -- Why a job has no day, as the planner found it.
    alter table jobs add column unplaced_reason text;
    alter table jobs add column short_minutes integer;
    alter table jobs drop column unplaced, drop column planned_on, drop column parts, drop column pinned;
    alter table jobs add constraint jobs_closed_have_no_day
      check (state = 'open' or (pinned_on is null and unplaced_reason is null));
    update jobs set left_out = false where state <> 'dropped';
    alter table jobs add constraint jobs_left_out_are_dropped check (not left_out or state = 'dropped');

    -- Work of a rule is named after the first of its plantings by tag, the same in every copy of a garden.
    update jobs j set rule_key = regexp_replace(rule_key, '[^/]*$', first.planting_id::text)
      from (select distinct on (job_id) job_id, planting_id from job_plantings jp join plantings p on p.id = jp.planting_id
            order by job_id, p.tag) first
      where first.job_id = j.id and j.rule_key is not null and j.rule_id is not null
        and not exists (select 1 from jobs k where k.garden_id = j.garden_id and k.id <> j.id
          and k.rule_key = regexp_replace(j.rule_key, '[^/]*$', first.planting_id::text));

    create function job_done_has_record() returns trigger language plpgsql as $$
      declare
        row jsonb := case tg_op when 'DELETE' then to_jsonb(old) else to_jsonb(new) end;
        wanted uuid := (row ->> tg_argv[0])::uuid;
      begin
        if exists (select 1 from jobs j where j.id = wanted and (j.state = 'done') <>
            exists (select 1 from job_records r where r.job_id = j.id and r.withdrawn_at is null)) then
          raise exception 'a job is done exactly where it is recorded' using errcode = '23514', constraint = 'jobs_done_are_recorded';
        end if;
        return null;
      end $$;
    create constraint trigger jobs_done_are_recorded after insert or update on jobs
      deferrable initially deferred for each row execute function job_done_has_record('id');
    create constraint trigger jobs_done_are_recorded after insert or update or delete on job_records
      deferrable initially deferred for each row execute function job_done_has_record('job_id');

    create function job_order_goes_on() returns trigger language plpgsql as $$
      begin
        if exists (
          with recursive later(id) as (
            select new.after_id
            union
            select o.after_id from job_order o join later on o.before_id = later.id
          )
          select 1 from later where id = new.before_id) then
          raise exception 'jobs would wait for each other in a circle' using errcode = '23514', constraint = 'job_order_goes_on';
        end if;
        return null;
      end $$;
    create constraint trigger job_order_goes_on after insert or update on job_order
      for each row execute function job_order_goes_on();
  `)
}

async function keepPlantings(db: Knex): Promise<void> {
  await db.raw(`
    alter table planting_sites add constraint planting_sites_one_at_a_time
      exclude using gist (planting_id with =, daterange(from_date, to_date, '[)') with &&) where (withdrawn_at is null);
    update planting_sites set job_id = null where job_id not in (select id from jobs);
    alter table planting_sites add foreign key (job_id, garden_id) references jobs (id, garden_id);
    update planting_events set job_id = null where job_id not in (select id from jobs);
    alter table planting_events add foreign key (job_id, garden_id) references jobs (id, garden_id);
    -- The drift as somebody drew it: [[x, y], ...] in plan metres.
    alter table planting_sites add column outline jsonb;

    -- Events as facts; their sentences are made when they are read. Old sentences are kept as they were said.
    alter table planting_events add column note text;
    alter table planting_events add column facts jsonb;
    update planting_events set note = says where kind <> 'planted';
    -- How many were planted is said once, of the planting.
    update planting_events set living = null where kind = 'planted';
    alter table planting_events drop column says;

    create function living_within_planted() returns trigger language plpgsql as $$
      begin
        if new.living > (select planted_count from plantings where id = new.planting_id) then
          raise exception 'more living than were planted' using errcode = '23514', constraint = 'living_within_planted';
        end if;
        return new;
      end $$;
    create trigger living_within_planted before insert or update of living on planting_events
      for each row when (new.living is not null) execute function living_within_planted();
    create trigger living_within_planted before insert or update of living on observations
      for each row when (new.living is not null) execute function living_within_planted();
    create function planted_covers_living() returns trigger language plpgsql as $$
      begin
        if exists (select 1 from living_counts where planting_id = new.id and living > new.planted_count) then
          raise exception 'more living than were planted' using errcode = '23514', constraint = 'living_within_planted';
        end if;
        return new;
      end $$;
    create trigger planted_covers_living before update of planted_count on plantings
      for each row execute function planted_covers_living();

    -- A planting as it was before somebody put it right, and one that was never there.
    alter table plantings add column withdrawn_at timestamptz;
    alter table plantings drop constraint plantings_garden_id_tag_key;
    create unique index plantings_tag on plantings (garden_id, tag) where withdrawn_at is null;
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
  `)
}

async function keepRuns(db: Knex): Promise<void> {
  await db.raw(`
    -- Long work of any kind: asked for, worked out by whichever process takes it, kept with what came of it.
    create table runs (
      id uuid primary key,
      kind text not null check (kind in ('follow', 'season', 'night')),
      crew_id uuid not null references crews on delete cascade,
      garden_id uuid references gardens on delete cascade,
      state text not null default 'queued' check (state in ('queued', 'running', 'ready', 'taken', 'dropped', 'failed')),
      progress real not null default 0 check (progress between 0 and 1),
      basis text,
      result jsonb,
      failure text,
      person_id uuid references people,
      created_at timestamptz not null default clock_timestamp(),
      changed_at timestamptz not null default clock_timestamp()
    );
    insert into runs (id, kind, crew_id, garden_id, state, progress, basis, result, failure, person_id, created_at, changed_at)
      select id, 'season', crew_id, garden_id, case when state in ('queued', 'running', 'ready') then 'dropped' else state end,
             progress, basis, result, failure, person_id, created_at, changed_at from plan_runs;
    drop table plan_runs;
    create unique index runs_one_waits on runs (crew_id, kind) where state = 'queued';
    create index runs_crew on runs (crew_id, kind, created_at);

    -- What the work of a garden, and the plan of a crew, was last worked out from.
    create table worked_out (
      garden_id uuid primary key references gardens on delete cascade,
      care_basis text,
      plan_basis text
    );
    insert into worked_out (garden_id) select id from gardens;
  `)
}

/** The triggers that raise a garden's versions: the one place where that is done. */
async function raiseVersions(db: Knex): Promise<void> {
  await db.raw(`
    create table garden_versions (
      garden_id uuid primary key references gardens on delete cascade,
      ${aspects.map((a) => `${a} bigint not null default 0`).join(',\n')}
    );
    insert into garden_versions (garden_id) select id from gardens;

    create function raise_aspects(raised text[], of_gardens uuid[]) returns void language plpgsql as $$
      begin
        -- In one order, so that changes of several gardens never wait for each other crosswise.
        perform 1 from garden_versions where garden_id = any (of_gardens) order by garden_id for no key update;
        execute 'update garden_versions set '
          || (select string_agg(format('%I = %I + 1', a, a), ', ') from unnest(raised) a)
          || ' where garden_id = any ($1)' using of_gardens;
      end $$;
    create function raise_of_garden() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(tg_argv::text[], array(select distinct garden_id from changed));
        return null;
      end $$;
    create function raise_of_looks() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['record'], array(select distinct garden_id from changed));
        -- A count changes how many stand.
        if exists (select 1 from changed where living is not null) then
          perform raise_aspects(array['plantings'], array(select distinct garden_id from changed where living is not null));
        end if;
        return null;
      end $$;
    create function raise_of_stations() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['climate'], array(
          select id from gardens where station_id in (select distinct station_id from changed)));
        return null;
      end $$;
    create function raise_of_practice() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['library'], array(
          select id from gardens where practice_id in (select practice_id from changed)
            or exists (select 1 from changed where practice_id is null)));
        return null;
      end $$;
    create function raise_of_crew() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['crew'], array(
          select id from gardens where crew_id in (select distinct crew_id from changed)));
        return null;
      end $$;
    -- Of a job only what is a fact counts: what the planner makes of it is no reason to plan again.
    create function raise_of_jobs() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['jobs'], array(
          select distinct n.garden_id from changed n join before b using (id)
          where (n.state, n.minutes, n.earliest, n.best_from, n.best_to, n.latest, n.pinned_on, n.title, n.details, n.target)
            is distinct from
                (b.state, b.minutes, b.earliest, b.best_from, b.best_to, b.latest, b.pinned_on, b.title, b.details, b.target)));
        return null;
      end $$;
    create function garden_has_versions() returns trigger language plpgsql as $$
      begin
        insert into garden_versions (garden_id) values (new.id);
        insert into worked_out (garden_id) values (new.id);
        return null;
      end $$;
    create function raise_of_gardens() returns trigger language plpgsql as $$
      begin
        if (new.latitude, new.longitude, new.time_zone) is distinct from (old.latitude, old.longitude, old.time_zone) then
          perform raise_aspects(array['plan', 'climate'], array[new.id]);
        elsif new.north_deg is distinct from old.north_deg then
          perform raise_aspects(array['plan'], array[new.id]);
        end if;
        if (new.station_id, new.known_climate) is distinct from (old.station_id, old.known_climate) then
          perform raise_aspects(array['climate'], array[new.id]);
        end if;
        if new.schools is distinct from old.schools then
          perform raise_aspects(array['rules'], array[new.id]);
        end if;
        if (new.crew_id, new.travel_minutes, new.withdrawn_at) is distinct from (old.crew_id, old.travel_minutes, old.withdrawn_at) then
          perform raise_aspects(array['crew'], array(
            select id from gardens where id = new.id or crew_id in (old.crew_id, new.crew_id)));
        end if;
        return null;
      end $$;

    create trigger garden_has_versions after insert on gardens for each row execute function garden_has_versions();
    create trigger gardens_raise after update on gardens for each row execute function raise_of_gardens();
    ${Object.entries(saidBy)
      .flatMap(([aspect, tables]) => tables.map((t) => after(t, `raise_of_garden('${aspect}')`)))
      .join('')}
    ${after('observations', 'raise_of_looks()')}
    ${after('weather_days', 'raise_of_stations()')}
    ${after('taxa', 'raise_of_practice()')}
    ${after('sign_shares', 'raise_of_practice()')}
    ${['crew_people', 'crew_absences', 'crew_days'].map((t) => after(t, 'raise_of_crew()')).join('')}
    ${after('jobs', `raise_of_garden('jobs')`, ['insert', 'delete'])}
    create trigger jobs_raise_update after update on jobs
      referencing old table as before new table as changed for each statement execute function raise_of_jobs();
  `)
}

/** An index for every foreign key that has none, so that nothing a garden owns is looked for by reading whole tables. */
async function indexForeignKeys(db: Knex): Promise<void> {
  const { rows } = await db.raw<{ rows: { table: string; columns: string[] }[] }>(UNINDEXED_FOREIGN_KEYS)
  for (const { table, columns } of rows)
    await db.raw(`create index "${table}_${columns.join('_')}_fk" on ${table} (${columns.join(', ')})`)
}

/** Foreign keys whose first column no index begins with. */
export const UNINDEXED_FOREIGN_KEYS = `
  select c.conrelid::regclass::text as table, array_agg(a.attname::text order by k.nth) as columns
  from pg_constraint c
  cross join lateral unnest(c.conkey) with ordinality as k(attnum, nth)
  join pg_attribute a on a.attrelid = c.conrelid and a.attnum = k.attnum
  where c.contype = 'f' and c.connamespace = 'public'::regnamespace
    and not exists (
      select 1 from pg_index i
      where i.indrelid = c.conrelid and i.indpred is null and i.indkey[0] = c.conkey[1]
    )
  group by c.oid, c.conrelid`

export async function down(db: Knex): Promise<void> {
  const { rows } = await db.raw<{ rows: { name: string }[] }>(
    `select indexname as name from pg_indexes where schemaname = 'public' and indexname like '%\\_fk'`,
  )
  for (const { name } of rows) await db.raw(`drop index "${name}"`)
  await db.raw(`
    ${[
      ...Object.values(saidBy).flat(),
      'observations',
      'weather_days',
      'taxa',
      'sign_shares',
      'crew_people',
      'crew_absences',
      'crew_days',
      'jobs',
    ]
      .flatMap((t) => ['insert', 'update', 'delete'].map((k) => `drop trigger ${t}_raise_${k} on ${t};`))
      .join('\n')}
    drop trigger gardens_raise on gardens;
    drop trigger garden_has_versions on gardens;
    drop function raise_of_garden;
    drop function raise_of_looks;
    drop function raise_of_stations;
    drop function raise_of_practice;
    drop function raise_of_crew;
    drop function raise_of_jobs;
    drop function raise_of_gardens;
    drop function garden_has_versions;
    drop function raise_aspects;
    drop table garden_versions;
    drop table worked_out;

    create table plan_runs (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      state text not null default 'queued' check (state in ('queued', 'running', 'ready', 'taken', 'dropped', 'failed')),
      today date not null,
      progress real not null default 0 check (progress between 0 and 1),
      basis text,
      result jsonb,
      failure text,
      person_id uuid references people,
      created_at timestamptz not null default clock_timestamp(),
      changed_at timestamptz not null default clock_timestamp(),
      crew_id uuid not null references crews
    );
    insert into plan_runs (id, garden_id, state, today, progress, basis, result, failure, person_id, created_at, changed_at, crew_id)
      select id, garden_id, case when state in ('queued', 'running', 'ready') then 'dropped' else state end, created_at::date,
             progress, basis, result, failure, person_id, created_at, changed_at, crew_id
      from runs where kind = 'season' and garden_id is not null;
    drop table runs;
    create unique index plan_runs_one_at_a_time on plan_runs (crew_id) where state in ('queued', 'running');
    create index plan_runs_crew on plan_runs (crew_id, created_at);

    alter table successions add column subject_id uuid;
    update successions set subject_id = coalesce(planting_id, feature_id);
    alter table successions alter column subject_id set not null;
    drop index successions_one;
    alter table successions drop column planting_id, drop column feature_id;
    create unique index successions_one on successions (garden_id, subject_id) where withdrawn_at is null;

    drop table garden_amendments;
    drop index gardens_name;
    -- A garden that was taken out comes back under a name of its own.
    update gardens set name = left(name, 80) || ' ' || left(id::text, 8) where withdrawn_at is not null;
    alter table gardens add constraint gardens_practice_id_name_key unique (practice_id, name);
    alter table gardens drop column known_climate, drop column withdrawn_at;
    alter table stations drop column is_simulated;

    drop table planting_amendments;
    drop trigger planted_covers_living on plantings;
    drop function planted_covers_living;
    drop trigger living_within_planted on planting_events;
    drop trigger living_within_planted on observations;
    drop function living_within_planted;
    drop index plantings_tag;
    update plantings set tag = left(tag, 30) || ' ' || left(id::text, 8) where withdrawn_at is not null;
    alter table plantings add constraint plantings_garden_id_tag_key unique (garden_id, tag);
    alter table plantings drop column withdrawn_at;
    alter table planting_events add column says text;
    update planting_events e set says = coalesce(e.note, case e.kind
      when 'planted' then p.planted_count || ' planted.'
      when 'moved' then 'Moved.'
      when 'lost' then 'Struck off: none living.'
      else coalesce(e.living || ' living.', e.kind) end)
      from plantings p where p.id = e.planting_id;
    update planting_events e set living = p.planted_count from plantings p where p.id = e.planting_id and e.kind = 'planted';
    alter table planting_events alter column says set not null;
    alter table planting_events drop column note, drop column facts;
    alter table planting_sites drop constraint planting_sites_one_at_a_time;
    alter table planting_sites drop constraint planting_sites_job_id_garden_id_fkey;
    alter table planting_events drop constraint planting_events_job_id_garden_id_fkey;
    alter table planting_sites drop column outline;

    drop trigger job_order_goes_on on job_order;
    drop function job_order_goes_on;
    drop trigger jobs_done_are_recorded on jobs;
    drop trigger jobs_done_are_recorded on job_records;
    drop function job_done_has_record;
    alter table jobs drop constraint jobs_closed_have_no_day, drop constraint jobs_left_out_are_dropped;
    alter table jobs add column planned_on date, add column parts jsonb, add column pinned boolean not null default false;
    alter table jobs add column unplaced text;
    update jobs j set parts = s.parts, planned_on = s.first
      from (select job_id, min(day) as first, jsonb_agg(jsonb_build_object('day', day, 'minutes', minutes) order by nth) as parts
            from job_sittings group by job_id) s where s.job_id = j.id;
    update jobs set pinned = (pinned_on is not null), unplaced = unplaced_reason;
    drop table job_sittings;
    alter table jobs drop constraint jobs_in_state;
    alter table jobs drop column unplaced_reason, drop column short_minutes, drop column pinned_on;
    alter table jobs rename column details to plan;
    update jobs set plan = plan || jsonb_build_object('window', jsonb_build_object(
      'season', season, 'why', why, 'earliest', earliest, 'bestFrom', best_from, 'bestTo', best_to, 'latest', latest));
    alter table jobs drop column season, drop column why;

    alter table job_plantings drop constraint job_plantings_job_id_garden_id_fkey;
    alter table job_order drop constraint job_order_before_id_garden_id_fkey;
    alter table job_order drop constraint job_order_after_id_garden_id_fkey;
    alter table job_order drop column garden_id;
    alter table job_records drop constraint job_records_job_id_garden_id_fkey;
    alter table job_records drop column garden_id;
    alter table jobs drop constraint jobs_of_garden;
    alter table planting_events drop constraint planting_events_planting_id_garden_id_fkey;
    alter table planting_events drop column garden_id;
    alter table feature_events drop constraint feature_events_feature_id_garden_id_fkey;
    alter table feature_events drop column garden_id;
    alter table feature_amendments drop constraint feature_amendments_feature_id_garden_id_fkey;
    alter table feature_amendments drop column garden_id;

    -- The version that the record was kept by before.
    alter table gardens add column record_version bigint not null default 0;
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
    ${recordTriggers
      .flatMap(([table, kinds]) =>
        kinds.map(
          (k) => `create trigger ${table}_${k} after ${k === 'added' ? 'insert' : 'update'} on ${table}
            referencing new table as changed for each statement
            execute function ${table === 'planting_events' ? 'touch_record_by_planting' : 'touch_record'}();`,
        ),
      )
      .join('\n')}
  `)
}
