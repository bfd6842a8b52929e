import type { Knex } from 'knex';

/** Trees that need no more help: since when, and that their keepers were told. */
export const established = {
  name: '015-established',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      alter table spot_period add column established_on date;
      alter table spot_period add column looked_on date;
      create index decision_sign_off on decision (spot_id, from_day) include (due_on) where kind = 'sign_off';
      create index spot_period_planted on spot_period (planted_on) where until_day is null;
      -- Somebody is sent out to carry out remedies as well.
      alter table assignment drop constraint assignment_kind_check;
      alter table assignment add constraint assignment_kind_check
        check (kind in ('test_holes','planting','watering','looks','remedies','delivery'));
      alter table care_keeper add column last_told_on date;
    `);
  },
};
