import type { Knex } from 'knex'

/** What somebody did or found at a container: watered it through, felt its mix, weighed it, gave all of it its stars. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    create table if not exists pot_checks (
      id uuid primary key,
      garden_id uuid not null references gardens on delete cascade,
      container_id uuid not null,
      on_date date not null check (on_date between '1950-01-01' and '2199-12-31'),
      kind text not null check (kind in ('watered', 'felt', 'weighed', 'rained', 'rated')),
      felt text check (felt in ('wet', 'moist', 'dry')),
      -- Kilograms less than watered through.
      lighter_kg double precision check (lighter_kg between 0 and 5000),
      -- Rain of that day in a gauge beside it, millimetres.
      rain_mm double precision check (rain_mm between 0 and 1000),
      stars smallint check (stars between 1 and 5),
      note text,
      person_id uuid references people,
      withdrawn_at timestamptz,
      created_at timestamptz not null default clock_timestamp(),
      -- Each says what its kind says, and nothing else.
      check ((kind = 'felt') = (felt is not null)),
      check ((kind = 'weighed') = (lighter_kg is not null)),
      check ((kind = 'rained') = (rain_mm is not null)),
      check ((kind = 'rated') = (stars is not null)),
      foreign key (container_id, garden_id) references features (id, garden_id) on delete cascade
    );
    create index if not exists pot_checks_garden on pot_checks (garden_id, on_date);
    create index if not exists pot_checks_container on pot_checks (container_id, garden_id);
    create index if not exists pot_checks_person on pot_checks (person_id);
    ${(['insert', 'update', 'delete'] as const)
      .map(
        (kind) => `
    create trigger pot_checks_told_${kind} after ${kind} on pot_checks
      referencing ${kind === 'delete' ? 'old' : 'new'} table as changed for each statement execute function raise_of_garden('fills');`,
      )
      .join('')}
  `)

/** What was found is kept: on the way up it is there again. */
export const down = (db: Knex): Promise<void> =>
  db.raw(
    ['insert', 'update', 'delete'].map((k) => `drop trigger pot_checks_told_${k} on pot_checks;`).join('\n'),
  )
