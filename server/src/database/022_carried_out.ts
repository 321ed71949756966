import type { Knex } from 'knex'

/**
 * Schemes carried out: an accepted scheme makes jobs as a decision and a rule do, a job says what it plants, and a planting by which
 * job it was planted.
 */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    set constraints all immediate;
    alter table schemes add column if not exists accepted_at timestamptz;
    alter table schemes add column if not exists accepted_by uuid references people;
    create index if not exists schemes_accepted_by on schemes (accepted_by);
    create unique index if not exists schemes_one_accepted on schemes (rework_id)
      where accepted_at is not null and withdrawn_at is null;
    alter table schemes drop constraint if exists schemes_of_garden;
    alter table schemes add constraint schemes_of_garden unique (id, garden_id);

    alter table jobs add column scheme_id uuid;
    alter table jobs add constraint jobs_scheme foreign key (scheme_id, garden_id) references schemes (id, garden_id);
    create index jobs_scheme_id on jobs (scheme_id, garden_id);
    alter table jobs add column sets jsonb check (jsonb_typeof(sets) = 'object');
    alter table jobs drop constraint jobs_by_decision_or_rule;
    update jobs set scheme_id = (details -> 'carriesOut' ->> 'scheme')::uuid, sets = nullif(details -> 'carriesOut' -> 'sets', 'null'),
      rule_key = null, details = details - 'carriesOut' where jsonb_exists(details, 'carriesOut');
    set constraints all immediate;
    alter table jobs add constraint jobs_asked_for_once check (num_nonnulls(decision_id, rule_key, scheme_id) = 1);

    alter table plantings add column planted_by uuid;
    alter table plantings add constraint plantings_planted_by foreign key (planted_by, garden_id) references jobs (id, garden_id);
    create index plantings_planted_by on plantings (planted_by, garden_id);
    update plantings p set planted_by = j.id from job_plantings jp join jobs j on j.id = jp.job_id
      where jp.planting_id = p.id and j.sets is not null;
    set constraints all immediate;
  `)

/** What was accepted, and what its jobs plant, is kept: on the way up it is there again. */
export const down = (db: Knex): Promise<void> =>
  db.raw(`
    set constraints all immediate;
    alter table plantings drop column planted_by;
    alter table jobs drop constraint jobs_asked_for_once;
    update jobs set rule_key = 'past/' || id,
      details = details || jsonb_build_object('carriesOut', jsonb_build_object('scheme', scheme_id, 'sets', sets))
      where scheme_id is not null;
    set constraints all immediate;
    alter table jobs drop column scheme_id, drop column sets;
    alter table jobs add constraint jobs_by_decision_or_rule check ((decision_id is null) <> (rule_key is null));
  `)
