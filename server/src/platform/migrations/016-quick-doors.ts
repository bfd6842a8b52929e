import type { Knex } from 'knex';

/** What lists, counts and finding go by at a quarter of a million spots. */
export const quickDoors = {
  name: '016-quick-doors',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create index spot_period_due on spot_period (due_on, spot_id) where until_day is null;
      create index field_record_practice on field_record ((facts->>'practiceId')) where kind = 'planting';
      create index spot_said_ref on spot using gin (regexp_replace(ref, '[^[:alnum:]]', '', 'g') gin_trgm_ops);
    `);
  },
};
