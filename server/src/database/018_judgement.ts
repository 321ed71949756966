import type { Knex } from 'knex'

/** Trees are limbed up for what they shade, and a colour may be wished of flowers that follow the soil. */
export const up = (db: Knex): Promise<void> =>
  db.raw(`
    alter table decisions drop constraint decisions_action_check;
    alter table decisions add constraint decisions_action_check check (action in (
      'keep', 'give it time', 'watch', 'check water', 'check drainage', 'test the soil', 'feed', 'support', 'firm in', 'uncover',
      'clean up', 'protect', 'cut out', 'limb up', 'thin', 'restrict', 'cut back', 'renew', 'divide', 'lift and replant',
      'pot on', 'move the pot', 'move', 'replace', 'remove'));
    alter table plantings add column colour_wish text check (colour_wish in ('blue', 'pink'));
    -- What was kept on the way down comes back.
    create table if not exists kept_judgement (id uuid primary key, said text not null);
    update decisions d set action = k.said from kept_judgement k where k.id = d.id;
    update plantings p set colour_wish = k.said from kept_judgement k where k.id = p.id;
    drop table kept_judgement;
    delete from computed;
  `)

export const down = (db: Knex): Promise<void> =>
  db.raw(`
    create table kept_judgement (id uuid primary key, said text not null);
    insert into kept_judgement select id, action from decisions where action = 'limb up';
    insert into kept_judgement select id, colour_wish from plantings where colour_wish is not null;
    -- Work on a tree for what it shades is thinning by the words there were.
    update decisions set action = 'thin' where action = 'limb up';
    set constraints all immediate;
    alter table decisions drop constraint decisions_action_check;
    alter table decisions add constraint decisions_action_check check (action in (
      'keep', 'give it time', 'watch', 'check water', 'check drainage', 'test the soil', 'feed', 'support', 'firm in', 'uncover',
      'clean up', 'protect', 'cut out', 'thin', 'restrict', 'cut back', 'renew', 'divide', 'lift and replant', 'pot on',
      'move the pot', 'move', 'replace', 'remove'));
    alter table plantings drop column colour_wish;
    delete from computed;
  `)
