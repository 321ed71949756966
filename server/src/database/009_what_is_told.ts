import type { Knex } from 'knex'

/**
 * What is told: a version for everything that a device is told of a garden, so that after a change it asks again for what has
 * changed, and for nothing else.
 */

const told = ['days', 'runs', 'bench', 'waterings', 'suspicions', 'suppositions', 'members', 'links']

/** Tables of a garden, each by the aspect that its rows say. */
const saidBy: Readonly<Record<string, readonly string[]>> = {
  bench: ['bench'],
  waterings: ['waterings'],
  suspicions: ['suspicions', 'rechecks'],
  suppositions: ['what_ifs'],
  members: ['memberships'],
  links: ['calendar_links'],
}

const kinds = ['insert', 'update', 'delete']
const after = (table: string, call: string, name: string) =>
  kinds
    .map(
      (kind) => `
    create trigger ${table}_${name}_${kind} after ${kind} on ${table}
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement execute function ${call};`,
    )
    .join('')

/** Of a job, what the planner makes of it beside its sittings. */
const placed = '(next_chance, unplaced_reason, short_minutes)'
const placedOf = (row: string) => placed.replace(/(\w+)(?=[,)])/g, `${row}.$1`)

export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table garden_versions ${told.map((a) => `add column ${a} bigint not null default 0`).join(', ')};

    ${Object.entries(saidBy)
      .flatMap(([aspect, tables]) => tables.map((t) => after(t, `raise_of_garden('${aspect}')`, 'told')))
      .join('')}

    -- The days of one garden's work are seen in every garden of its crew.
    create function raise_of_days() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['days'], array(
          select id from gardens where crew_id in (
            select crew_id from gardens where id in (select garden_id from changed))));
        return null;
      end $$;
    create function raise_of_placed() returns trigger language plpgsql as $$
      begin
        perform raise_aspects(array['days'], array(
          select distinct n.garden_id from changed n join before b using (id)
          where ${placedOf('n')} is distinct from ${placedOf('b')}));
        return null;
      end $$;
    ${after('job_sittings', 'raise_of_days()', 'told')}
    create trigger jobs_told_update after update on jobs
      referencing old table as before new table as changed for each statement execute function raise_of_placed();

    -- How far a plan has come is asked for while it is under way; that there is one, or that it is ready, is told.
    create function raise_of_runs() returns trigger language plpgsql as $$
      begin
        if new.kind = 'season' and (tg_op = 'INSERT' or new.state is distinct from old.state) then
          perform raise_aspects(array['runs'], array(select id from gardens where crew_id = new.crew_id));
        end if;
        return null;
      end $$;
    create trigger runs_told after insert or update on runs for each row execute function raise_of_runs();

    create function raise_of_names() returns trigger language plpgsql as $$
      begin
        if (new.name, new.withdrawn_at) is distinct from (old.name, old.withdrawn_at) then
          perform raise_aspects(array['members'], array(select id from gardens where crew_id = new.crew_id));
        end if;
        return null;
      end $$;
    create trigger gardens_told after update on gardens for each row execute function raise_of_names();
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    drop trigger gardens_told on gardens;
    drop trigger runs_told on runs;
    drop trigger jobs_told_update on jobs;
    ${[...Object.values(saidBy).flat(), 'job_sittings']
      .flatMap((t) => kinds.map((k) => `drop trigger ${t}_told_${k} on ${t};`))
      .join('\n')}
    drop function raise_of_names;
    drop function raise_of_runs;
    drop function raise_of_placed;
    drop function raise_of_days;
    alter table garden_versions ${told.map((a) => `drop column ${a}`).join(', ')};
  `)
