import type { Knex } from 'knex'

/** What may be decided of a planting grows by what its signs ask for, in the trade's words. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table decisions drop constraint decisions_action_check;
    alter table decisions add constraint decisions_action_check check (action in (
      'keep', 'give it time', 'watch', 'check water', 'check drainage', 'test the soil', 'feed', 'support', 'firm in', 'uncover',
      'clean up', 'protect', 'cut out', 'thin', 'restrict', 'cut back', 'renew', 'divide', 'lift and replant', 'pot on',
      'move the pot', 'move', 'replace', 'remove'));
    -- Verdicts that were kept have no remedies.
    delete from computed;
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    delete from jobs where decision_id in (select id from decisions where action not in (
      'keep', 'watch', 'cut back', 'divide', 'move', 'replace', 'remove'));
    delete from decisions where action not in ('keep', 'watch', 'cut back', 'divide', 'move', 'replace', 'remove');
    alter table decisions drop constraint decisions_action_check;
    alter table decisions add constraint decisions_action_check
      check (action in ('keep', 'watch', 'cut back', 'divide', 'move', 'replace', 'remove'));
    delete from computed;
  `)
