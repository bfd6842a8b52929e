import type { Knex } from 'knex';

/** What whoever took a tree home says of its planting, by a link; only the link's fingerprint is kept. */
export const builtReport = {
  name: '011-built-report',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create table built_report (
        id uuid primary key,
        spot_id uuid not null references spot (id),
        owner text not null check (length(owner) between 1 and 80),
        token_hash text not null unique,
        asked_by text not null,
        asked_at timestamptz not null default now(),
        expires_on date not null,
        revoked_at timestamptz,
        reported_at timestamptz,
        facts jsonb,
        words text not null default '',
        signed_by text,
        photo_id uuid references spot_photo (id),
        check ((reported_at is null) = (facts is null))
      );
      create index built_report_spot on built_report (spot_id, asked_at);
      create trigger audit_built_report after insert or update or delete on built_report
        for each row execute function write_audit();
      grant select, insert, update on built_report to sombra_app;
    `);
  },
};
