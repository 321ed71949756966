import type { Knex } from 'knex'

/**
 * Season: work that the rules of care ask for beside work that was decided, a garden's schools and changes to the rules,
 * and plans of a season that are worked out in the background and looked at before they are taken.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table jobs alter column planting_id drop not null;
    alter table jobs alter column decision_id drop not null;
    alter table jobs drop constraint jobs_kind_check;
    alter table jobs add constraint jobs_kind_check check (kind in (
      'divide', 'move', 'plant', 'prune', 'cut back', 'deadhead', 'swap', 'lift', 'protect', 'bring in', 'stake',
      'tie in', 'feed', 'mulch', 'soil', 'weed', 'refresh mix', 'pot on', 'upkeep', 'prepare', 'remove', 'aftercare'));
    alter table jobs add column place_id uuid;
    alter table jobs add foreign key (place_id, garden_id) references features (id, garden_id);
    alter table jobs add column rule_id text;
    -- The same work, however often it is worked out, has the same key.
    alter table jobs add column rule_key text;
    alter table jobs add constraint jobs_by_decision_or_rule check ((decision_id is null) <> (rule_key is null));
    create unique index jobs_rule_key on jobs (garden_id, rule_key);
    -- Sittings of a job in the plan: [{"day", "minutes"}]; planned_on is the first.
    alter table jobs add column parts jsonb;
    alter table jobs add column next_chance date;

    alter table decisions drop constraint decisions_action_check;
    alter table decisions add constraint decisions_action_check
      check (action in ('keep', 'watch', 'cut back', 'divide', 'move', 'replace', 'remove'));

    create table job_plantings (
      job_id uuid not null references jobs on delete cascade,
      planting_id uuid not null,
      garden_id uuid not null,
      primary key (job_id, planting_id),
      foreign key (planting_id, garden_id) references plantings (id, garden_id) on delete cascade
    );
    create index job_plantings_planting on job_plantings (planting_id);
    insert into job_plantings (job_id, planting_id, garden_id)
      select id, planting_id, garden_id from jobs;

    alter table gardens add column schools jsonb not null default '{}';
    update gardens set schools = '{"planting-hole": "native"}' where not amends_planting_ground;
    alter table gardens drop column amends_planting_ground;

    create table garden_rules (
      garden_id uuid not null references gardens on delete cascade,
      rule_id text not null,
      is_on boolean,
      adjusted jsonb,
      -- A rule of the garden's own, whole; null for a shipped one.
      own jsonb,
      person_id uuid not null references people,
      changed_at timestamptz not null default clock_timestamp(),
      primary key (garden_id, rule_id)
    );

    -- Links by which a calendar program reads a garden's jobs; only the hash of the secret in them is kept.
    create table calendar_links (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      token_hash text not null unique,
      person_id uuid not null references people,
      created_at timestamptz not null default clock_timestamp(),
      withdrawn_at timestamptz
    );
    create unique index calendar_links_one on calendar_links (garden_id) where withdrawn_at is null;

    create table plan_runs (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      state text not null default 'queued' check (state in ('queued', 'running', 'ready', 'taken', 'dropped', 'failed')),
      today date not null,
      progress real not null default 0 check (progress between 0 and 1),
      -- What it was worked out from; a plan of a season that has changed since is not taken.
      basis text,
      result jsonb,
      failure text,
      person_id uuid references people,
      created_at timestamptz not null default clock_timestamp(),
      changed_at timestamptz not null default clock_timestamp()
    );
    create unique index plan_runs_one_at_a_time on plan_runs (garden_id) where state in ('queued', 'running');
    create index plan_runs_garden on plan_runs (garden_id, created_at);
  `)
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table if exists plan_runs;
    drop table if exists calendar_links;
    drop table if exists garden_rules;
    alter table gardens add column amends_planting_ground boolean not null default true;
    update gardens set amends_planting_ground = schools ->> 'planting-hole' is distinct from 'native';
    alter table gardens drop column schools;
    drop table if exists job_plantings;
    delete from jobs where decision_id is null;
    alter table jobs drop column next_chance, drop column parts, drop column rule_key, drop column rule_id, drop column place_id;
    alter table jobs drop constraint if exists jobs_kind_check;
    alter table jobs add constraint jobs_kind_check check (kind in ('prepare', 'move', 'aftercare'));
    alter table jobs alter column planting_id set not null;
    alter table jobs alter column decision_id set not null;
    alter table decisions drop constraint decisions_action_check;
    alter table decisions add constraint decisions_action_check check (action in ('keep', 'watch', 'move'));
  `)
}
