import type { Knex } from 'knex'

/** Practices do not know of each other: who belongs to two has an account in each, under the same address. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    drop index people_email;
    create unique index people_email on people (practice_id, lower(email));
    create index people_sign_in on people (lower(email));
    -- What was written for whoever looked at the first page: nobody signed in there.
    delete from "session" where sess ->> 'personId' is null;`)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    drop index people_sign_in;
    drop index people_email;
    create unique index people_email on people (lower(email));`)
