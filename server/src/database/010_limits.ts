import type { Knex } from 'knex'

/**
 * What no garden holds, whoever writes it: things far away or of no time, texts that say nothing, tags that look the same, and what
 * happened to a planting before it was planted. Rows that were there before stay as they are until somebody changes them.
 *
 * The figures are those of `limits` in core/src/written as they were when this was written.
 */

const since = (column: string) => `${column} between '1950-01-01' and '2199-12-31'`
const inTime = (column: string) => `${column} between '1500-01-01' and '2199-12-31'`

/** What takes no place on a page, and spaces: a text of nothing else says nothing. */
const UNSEEN = String.raw`\u00ad\u034f\u061c\u115f\u1160\u17b4\u17b5\u180b-\u180f\u200b-\u200f\u202a-\u202e\u2060-\u206f\u2800\u3164\ufe00-\ufe0f\ufeff\uffa0`
const VISIBLE = `'[^[:space:][:cntrl:]${UNSEEN}]'`
/** In a tag the plain space is the only one. */
const HIDDEN = String.raw`'[[:cntrl:]${UNSEEN}\u00a0\u1680\u2000-\u200a\u2028\u2029\u202f\u205f\u3000]'`

type Rule = readonly [table: string, name: string, rule: string]

/** The same rule of a column in each of these tables. */
const each = (
  name: string,
  rule: (column: string) => string,
  columns: Readonly<Record<string, string>>,
): Rule[] => Object.entries(columns).map(([table, column]) => [table, `${table}_${name}`, rule(column)])

const rules: readonly Rule[] = [
  [
    'features',
    'features_on_the_plan',
    `not jsonb_path_exists(geometry, '$.coordinates.** \\? (@.type() == "number" && (@ > 10000 || @ < -10000))')`,
  ],
  ['features', 'features_corners', 'corners_of(geometry) <= 1001'],
  ['features', 'beds_across', `kind <> 'bed' or across_m(geometry) <= 1000`],
  ['features', 'features_in_time', `${inTime('from_date')} and ${inTime('to_date')}`],
  ['feature_events', 'feature_events_in_time', since('on_date')],
  ['plantings', 'plantings_in_time', inTime('planted_on')],
  ['plantings', 'tags_are_seen', `tag !~ ${HIDDEN}`],
  ['planting_sites', 'sites_on_the_plan', 'x between -10000 and 10000 and y between -10000 and 10000'],
  ['crew_absences', 'absences_end', `${since('from_day')} and to_day - from_day <= 1100`],
  ['crew_days', 'crew_days_in_time', since('day')],
  ['planting_events', 'planting_events_in_time', `kind = 'planted' or ${since('on_date')}`],
  ...each('in_time', since, {
    observations: 'on_date',
    place_looks: 'on_date',
    trial_outcomes: 'on_date',
    treatments: 'on_date',
    job_records: 'done_on',
    photos: 'taken_on',
    soil_readings: 'day',
    waterings: 'day',
    bench: 'since',
  }),
  ...each('say_something', (text) => `${text} is null or ${text} = '' or ${text} ~ ${VISIBLE}`, {
    observations: 'note',
    place_looks: 'note',
    planting_events: 'note',
    job_records: 'note',
    decisions: 'reason',
    trial_outcomes: 'reason',
    bench: 'note',
  }),
]

const follows: readonly (readonly [table: string, column: string, when?: string])[] = [
  ['observations', 'on_date'],
  ['trial_outcomes', 'on_date'],
  ['treatments', 'on_date'],
  ['planting_events', 'on_date', `when (new.kind <> 'planted')`],
  ['waterings', 'day'],
]

export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create function corners_of(geometry jsonb) returns integer language sql immutable as $$
      select case geometry ->> 'type'
        when 'LineString' then jsonb_array_length(geometry -> 'coordinates')
        when 'Polygon' then jsonb_array_length(geometry #> '{coordinates,0}')
        else 1 end $$;
    create function across_m(geometry jsonb) returns double precision language sql immutable as $$
      select greatest(max((c ->> 0)::float8) - min((c ->> 0)::float8), max((c ->> 1)::float8) - min((c ->> 1)::float8))
      from jsonb_array_elements(case geometry ->> 'type' when 'Polygon' then geometry #> '{coordinates,0}' else '[]' end) c $$;
    ${rules.map(([table, name, rule]) => `alter table ${table} add constraint ${name} check (${rule}) not valid;`).join('\n')}

    -- Two tags that look the same are one; tags of before stay until somebody changes them.
    create function tag_key(tag text) returns text language sql immutable as $$ select lower(normalize(tag, NFKC)) $$;
    create index plantings_tag_key on plantings (garden_id, tag_key(tag)) where withdrawn_at is null;
    create function tag_is_its_own() returns trigger language plpgsql as $$
      begin
        if exists (select 1 from plantings p where p.garden_id = new.garden_id and tag_key(p.tag) = tag_key(new.tag)
                     and p.withdrawn_at is null and p.id <> new.id) then
          raise exception 'another planting has this tag' using errcode = '23505', constraint = 'plantings_tag';
        end if;
        return new;
      end $$;
    create trigger tag_is_its_own before insert or update of tag, withdrawn_at on plantings
      for each row when (new.withdrawn_at is null) execute function tag_is_its_own();

    create function nothing_before_planting() returns trigger language plpgsql as $$
      begin
        if (to_jsonb(new) ->> tg_argv[0])::date < (select planted_on from plantings where id = new.planting_id) then
          raise exception 'before it was planted' using errcode = '23514', constraint = 'nothing_before_planting';
        end if;
        return new;
      end $$;
    ${follows
      .map(
        ([table, column, when = '']) => `
    create trigger nothing_before_planting before insert or update of ${column} on ${table}
      for each row ${when} execute function nothing_before_planting('${column}');`,
      )
      .join('')}`)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    ${follows.map(([table]) => `drop trigger nothing_before_planting on ${table};`).join('\n')}
    drop function nothing_before_planting;
    drop trigger tag_is_its_own on plantings;
    drop function tag_is_its_own;
    drop index plantings_tag_key;
    drop function tag_key;
    ${rules.map(([table, name]) => `alter table ${table} drop constraint ${name};`).join('\n')}
    drop function across_m;
    drop function corners_of;`)
