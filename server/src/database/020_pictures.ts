import type { Knex } from 'knex'

const kinds = ['insert', 'update', 'delete']

/**
 * Scans and photos that lie under the plan, each with how it lies; past work of which nobody knows how long it took; and what came
 * off the bench, which goes back on it where planting it is taken back.
 */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create table if not exists plan_pictures (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      name text not null check (length(trim(name)) between 1 and 120),
      width integer not null check (width > 0),
      height integer not null check (height > 0),
      picture bytea not null,
      content_hash text not null,
      -- The points and lengths it is laid by, as they were said; null while it is not laid.
      laying jsonb check (jsonb_typeof(laying) = 'object'),
      -- How strongly it shows under the plan.
      strength real not null default 0.5 check (strength between 0.05 and 1),
      is_shown boolean not null default true,
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create unique index if not exists plan_pictures_once on plan_pictures (garden_id, content_hash) where withdrawn_at is null;
    create index if not exists plan_pictures_garden on plan_pictures (garden_id);
    create index if not exists plan_pictures_person on plan_pictures (person_id);

    alter table garden_versions add column pictures bigint not null default 0;
    ${kinds
      .map(
        (kind) => `
    create trigger plan_pictures_told_${kind} after ${kind} on plan_pictures
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement
      execute function raise_of_garden('pictures');`,
      )
      .join('')}

    -- What was planted off the bench, and that taken back, is part of an edit.
    alter table bench add column withdrawn_at timestamptz;
    do $$ begin
      if to_regclass('kept_bench') is not null then
        update bench b set gone = null, gone_on = null, withdrawn_at = k.at from kept_bench k where k.id = b.id;
        drop table kept_bench;
      end if;
    end $$;

    alter table job_records alter column minutes drop not null;
    do $$ begin
      if to_regclass('kept_minutes') is not null then
        update job_records set minutes = null where id in (select id from kept_minutes);
        drop table kept_minutes;
      end if;
    end $$;
  `)

/** The pictures are kept: on the way up they are there again. */
export const down = (db: Knex): Promise<void> =>
  db.raw(`
    set constraints all immediate;
    ${kinds.map((kind) => `drop trigger plan_pictures_told_${kind} on plan_pictures;`).join('\n')}
    alter table garden_versions drop column pictures;
    create table kept_bench (id uuid primary key, at timestamptz not null);
    insert into kept_bench select id, withdrawn_at from bench where withdrawn_at is not null;
    update bench set gone = 'withdrawn', gone_on = since where withdrawn_at is not null and gone is null;
    set constraints all immediate;
    alter table bench drop column withdrawn_at;
    create table kept_minutes (id uuid primary key);
    insert into kept_minutes select id from job_records where minutes is null;
    update job_records set minutes = 1 where minutes is null;
    set constraints all immediate;
    alter table job_records alter column minutes set not null;
  `)
