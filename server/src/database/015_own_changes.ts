import type { Knex } from 'knex'

/**
 * What one transaction has raised is told apart from what others raise meanwhile, and of what is worked out only the latest is kept: a
 * garden that has changed since never asks for the earlier one again.
 */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create or replace function raise_aspects(raised text[], of_gardens uuid[]) returns void language plpgsql as $$
      declare
        noted text := coalesce(current_setting('border.raised', true), '');
      begin
        -- In one order, so that changes of several gardens never wait for each other crosswise.
        perform 1 from garden_versions where garden_id = any (of_gardens) order by garden_id for no key update;
        ${raise}
        select noted || coalesce(string_agg(entry, ''), '') into noted
          from (select format(E'%s %s\\n', g, a) as entry from unnest(of_gardens) g, unnest(raised) a) entries
          where position(entry in noted) = 0;
        -- Until the transaction ends; taken back with what is taken back of it.
        perform set_config('border.raised', noted, true);
      end $$;
    delete from computed;
    alter table computed add column view_of text unique;
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    create or replace function raise_aspects(raised text[], of_gardens uuid[]) returns void language plpgsql as $$
      begin
        perform 1 from garden_versions where garden_id = any (of_gardens) order by garden_id for no key update;
        ${raise}
      end $$;
    alter table computed drop column view_of;
  `)

const raise = `execute 'update garden_versions set '
          || (select string_agg(format('%I = %I + 1', a, a), ', ') from unnest(raised) a)
          || ' where garden_id = any ($1)' using of_gardens;`
