import type { Knex } from 'knex'

/**
 * Crews: the people who work together in one garden or in several, with what each can do, when each works and who is away.
 * A season's plan is a crew's, over all its gardens.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table crews (
      id uuid primary key,
      practice_id uuid not null references practices,
      name text not null check (btrim(name) <> ''),
      created_at timestamptz not null default clock_timestamp(),
      unique (id, practice_id)
    );
    create table crew_people (
      id uuid primary key,
      crew_id uuid not null references crews,
      name text not null check (btrim(name) <> ''),
      skills text[] not null default '{}' check (skills <@ array['pruning', 'machine', 'spraying', 'arborist']),
      minutes_by_weekday integer[] not null check (
        cardinality(minutes_by_weekday) = 7 and 0 <= all (minutes_by_weekday) and 1440 >= all (minutes_by_weekday)),
      created_at timestamptz not null default clock_timestamp(),
      left_at timestamptz,
      unique (id, crew_id)
    );
    create index crew_people_crew on crew_people (crew_id);
    create table crew_absences (
      id uuid primary key,
      crew_id uuid not null references crews,
      -- Null: the whole crew.
      person_id uuid,
      from_day date not null,
      to_day date not null check (to_day >= from_day),
      reason text,
      created_at timestamptz not null default clock_timestamp(),
      withdrawn_at timestamptz,
      foreign key (person_id, crew_id) references crew_people (id, crew_id)
    );
    create index crew_absences_crew on crew_absences (crew_id);
    create table crew_days (
      crew_id uuid not null references crews,
      day date not null,
      minutes integer not null check (minutes between 0 and 1440),
      primary key (crew_id, day)
    );

    alter table gardens add column crew_id uuid;
    alter table gardens add column travel_minutes integer not null default 0 check (travel_minutes between 0 and 600);
    update gardens set crew_id = gen_random_uuid();
    insert into crews (id, practice_id, name) select crew_id, practice_id, name from gardens;
    insert into crew_people (id, crew_id, name, skills, minutes_by_weekday)
      select gen_random_uuid(), crew_id, 'Gardener', array['pruning', 'machine', 'spraying', 'arborist'],
             (select array_agg(coalesce(w.minutes, 0) order by d)
              from generate_series(0, 6) d left join working_weeks w on w.weekday = d and w.garden_id = gardens.id)
      from gardens;
    insert into crew_days (crew_id, day, minutes)
      select crew_id, day, minutes from working_exceptions join gardens on gardens.id = garden_id;
    alter table gardens alter column crew_id set not null;
    alter table gardens add foreign key (crew_id, practice_id) references crews (id, practice_id);
    create index gardens_crew on gardens (crew_id);
    drop table working_weeks;
    drop table working_exceptions;

    -- Secrets of calendar links do not stay in kept answers.
    update writes set answer = null where answer ->> 'path' like '/api/calendar/%';

    -- Plans looked at but not taken are of single gardens: they are made again.
    update plan_runs set state = 'dropped' where state in ('queued', 'running', 'ready');
    alter table plan_runs add column crew_id uuid references crews;
    update plan_runs set crew_id = (select crew_id from gardens where gardens.id = garden_id);
    alter table plan_runs alter column crew_id set not null;
    drop index plan_runs_one_at_a_time;
    drop index plan_runs_garden;
    create unique index plan_runs_one_at_a_time on plan_runs (crew_id) where state in ('queued', 'running');
    create index plan_runs_crew on plan_runs (crew_id, created_at);
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop index plan_runs_one_at_a_time;
    drop index plan_runs_crew;
    update plan_runs set state = 'dropped' where state in ('queued', 'running', 'ready');
    alter table plan_runs drop column crew_id;
    create unique index plan_runs_one_at_a_time on plan_runs (garden_id) where state in ('queued', 'running');
    create index plan_runs_garden on plan_runs (garden_id, created_at);
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
    insert into working_weeks (garden_id, weekday, minutes)
      select g.id, d, least(1440, coalesce(sum(p.minutes_by_weekday[d + 1]), 0))
      from gardens g cross join generate_series(0, 6) d
      left join crew_people p on p.crew_id = g.crew_id and p.left_at is null
      group by g.id, d;
    insert into working_exceptions (garden_id, day, minutes)
      select g.id, day, minutes from crew_days join gardens g using (crew_id);
    alter table gardens drop column crew_id, drop column travel_minutes;
    drop table crew_days;
    drop table crew_absences;
    drop table crew_people;
    drop table crews;
  `)
}
