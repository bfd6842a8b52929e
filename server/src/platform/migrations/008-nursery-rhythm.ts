import type { Knex } from 'knex';

/** How often a nursery watered what it sent: the first weeks of a tree go on from there. */
export const nurseryRhythm = {
  name: '008-nursery-rhythm',
  async up(db: Knex): Promise<void> {
    await db.raw(
      'alter table delivery add column watered_every_days double precision check (watered_every_days between 0.25 and 60)',
    );
  },
};
