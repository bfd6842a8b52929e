import type { Knex } from 'knex';

/**
 * Which way a change of practice goes, so that whoever takes it up knows; how far a rebuild after an update is; and tables
 * that are rewritten all day swept early, so that lists are read off their indexes alone.
 */
export const walks = {
  name: '019-walks',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      alter table adoption add column back boolean not null default false;
      alter table derived_by add column at_spot uuid;
      alter table spot_period set (autovacuum_vacuum_scale_factor = 0.01, autovacuum_vacuum_insert_scale_factor = 0.01,
        autovacuum_analyze_scale_factor = 0.02);
      alter table decision set (autovacuum_vacuum_scale_factor = 0.01, autovacuum_vacuum_insert_scale_factor = 0.01,
        autovacuum_analyze_scale_factor = 0.02);
      alter table spot set (autovacuum_vacuum_scale_factor = 0.02);
      alter table place_change set (autovacuum_vacuum_scale_factor = 0, autovacuum_vacuum_threshold = 2000);
      alter table cell_change set (autovacuum_vacuum_scale_factor = 0, autovacuum_vacuum_threshold = 2000);
      alter table water_due set (autovacuum_vacuum_scale_factor = 0, autovacuum_vacuum_threshold = 2000);
    `);
  },
};
