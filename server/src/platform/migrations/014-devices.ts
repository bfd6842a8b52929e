import type { Knex } from 'knex';

/** What brings water slowly, how fast each was measured to run, and valves with their programmes. */
export const waterDevices = {
  name: '014-devices',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create table water_device (
        id text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 40),
        body jsonb not null,
        retired boolean not null default false,
        version integer not null default 1 check (version > 0)
      );
      create table device_run (
        id uuid primary key,
        device_id text not null references water_device (id),
        measured_on date not null,
        runs jsonb not null,
        l_per_h double precision not null check (l_per_h > 0),
        spread_pct double precision,
        note text not null default '' check (length(note) <= 200),
        made_by text not null,
        made_at timestamptz not null default now()
      );
      create index device_run_device on device_run (device_id, made_at);

      create table drip_zone (
        id uuid primary key,
        name text not null check (length(name) between 1 and 60),
        body jsonb not null,
        retired boolean not null default false,
        -- What the controller was told last, and what it answered.
        told jsonb,
        told_at timestamptz,
        problem text,
        heard_until timestamptz,
        version integer not null default 1 check (version > 0)
      );
      create table drip_run (
        zone_id uuid not null references drip_zone (id),
        at timestamptz not null,
        minutes double precision not null check (minutes >= 0),
        litres double precision not null check (litres >= 0),
        primary key (zone_id, at)
      );
    `);
    for (const table of ['water_device', 'device_run', 'drip_zone']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(`
      grant select, insert, update on water_device, drip_zone to sombra_app;
      grant select, insert on device_run, drip_run to sombra_app;
    `);
  },
};
