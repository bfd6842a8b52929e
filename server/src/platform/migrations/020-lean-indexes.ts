import type { Knex } from 'knex';

/** Which record corrects which is kept of corrections alone: one record in a hundred is one, and each wrote a line of the index. */
export const leanIndexes = {
  name: '020-lean-indexes',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      alter table field_record drop constraint field_record_supersedes_key;
      create unique index field_record_supersedes on field_record (supersedes) where supersedes is not null;
    `);
  },
};
