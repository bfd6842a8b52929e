import type { Knex } from 'knex';

/** Which way a change of practice goes, so that whoever takes it up knows; and how far a rebuild after an update is. */
export const walks = {
  name: '019-walks',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      alter table adoption add column back boolean not null default false;
      alter table derived_by add column at_spot uuid;
    `);
  },
};
