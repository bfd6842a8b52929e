import type { Knex } from 'knex';

/**
 * Links of places (their fingerprints alone) and what residents told by them. The trail of what keepers and residents say
 * holds who acted on which row, and none of their words or names.
 */
export const toldByResidents = {
  name: '021-told-by-residents',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create table place_link (
        id uuid primary key,
        place_id uuid not null references place (id),
        token_hash text not null unique,
        made_by text not null,
        made_at timestamptz not null default now(),
        revoked_at timestamptz
      );
      create table resident_report (
        id uuid primary key,
        link_id uuid not null references place_link (id),
        ref text check (length(ref) between 1 and 24),
        words text not null check (length(words) between 1 and 400),
        told_at timestamptz not null default now(),
        photo_stored_as text,
        photo_type text,
        photo_bytes integer,
        settled_at timestamptz,
        settled_by text,
        spot_id uuid references spot (id),
        dropped_why text check (length(dropped_why) between 1 and 300),
        check ((settled_at is null) = (settled_by is null)),
        check (settled_at is null = (spot_id is null and dropped_why is null))
      );
      create index resident_report_open on resident_report (told_at) where settled_at is null;
      create index resident_report_link on resident_report (link_id);
    `);
    for (const table of ['place_link', 'resident_report']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit_bare()`);
    }
    await db.raw(`
      drop trigger audit_built_report on built_report;
      create trigger audit_built_report after insert or update or delete on built_report
        for each row execute function write_audit_bare();
      grant select, insert, update on place_link, resident_report to sombra_app;
    `);
  },
};
