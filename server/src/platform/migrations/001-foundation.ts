import type { Knex } from 'knex';

/**
 * People, places, spots, trees and their records. The application role may add field records but neither
 * change nor delete them, and may not touch the audit trail at all: triggers write it.
 */
export const foundation = {
  name: '001-foundation',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create extension if not exists postgis;

      create table app_user (
        id uuid primary key,
        sign_in text not null unique check (sign_in = lower(sign_in) and length(sign_in) between 1 and 120),
        name text not null check (length(name) between 1 and 120),
        role text not null check (role in ('administrator','coordinator','crew_lead','inspector','waterer','viewer')),
        units text not null default 'metric' check (units in ('metric','us')),
        password_hash text not null check (password_hash like '$argon2id$%')
      );

      create table session (sid varchar primary key, sess json not null, expire timestamptz not null);
      create index session_expire on session (expire);
      create table sign_in_limit (key varchar(255) primary key, points integer not null default 0, expire bigint);

      create table practice (
        id text not null,
        version integer not null check (version > 0),
        body jsonb not null,
        primary key (id, version)
      );

      create table programme (
        only_one boolean primary key default true check (only_one),
        name text not null,
        time_zone text not null,
        practice_id text not null,
        practice_version integer not null,
        foreign key (practice_id, practice_version) references practice (id, version)
      );

      create table place (id uuid primary key, name text not null unique check (length(name) between 1 and 80));

      create table spot (
        id uuid primary key,
        ref text not null unique check (length(ref) between 1 and 24),
        place_id uuid not null references place (id),
        position geometry(Point, 4326) not null
          check (st_x(position) between -180 and 180 and st_y(position) between -85 and 85),
        version integer not null default 1 check (version > 0),
        changed_at timestamptz not null default now(),
        changed_by text not null
      );
      create index spot_position on spot using gist (position);
      create index spot_place on spot (place_id);

      create table tree (
        id uuid primary key,
        spot_id uuid not null references spot (id),
        species text check (length(species) between 1 and 80),
        standing boolean not null default true
      );
      create unique index tree_standing_on_spot on tree (spot_id) where standing;

      create table field_record (
        id uuid primary key,
        kind text not null check (kind in ('ground','stock','planting','inspection','remedy')),
        spot_id uuid not null references spot (id),
        tree_id uuid references tree (id),
        facts jsonb not null check (jsonb_typeof(facts) = 'object'),
        recorded_at timestamptz not null,
        received_at timestamptz not null default now(),
        recorded_by text not null check (length(recorded_by) between 1 and 120),
        device text not null check (length(device) <= 80),
        supersedes uuid unique references field_record (id) deferrable initially deferred,
        check (kind = 'ground' or tree_id is not null),
        check (id <> supersedes),
        check (kind <> 'stock' or (
          (facts->>'kind') in ('container','balled','bare_root')
          and (facts->>'caliperMm')::numeric between 8 and 400
          and (facts->>'heightM')::numeric between 0.2 and 25
          and ((facts->>'kind') = 'bare_root' or (facts->>'topRootsDepthMm')::numeric < (facts->>'ballHeightMm')::numeric))),
        check (kind <> 'planting' or (
          (facts->>'plantedOn')::text ~ '^\\d{4}-\\d{2}-\\d{2}$'
          and (facts->>'holeWidthMm')::numeric between 150 and 9000
          and (facts->>'firstWaterL')::numeric between 0 and 2000)),
        check (kind <> 'inspection' or (
          (facts->>'inspectedOn')::text ~ '^\\d{4}-\\d{2}-\\d{2}$'
          and coalesce((facts->>'flareDepthMm')::numeric, 0) between -200 and 600
          and coalesce((facts->>'mulchDepthMm')::numeric, 0) between 0 and 600))
      );
      create index field_record_spot on field_record (spot_id, recorded_at);

      create table spot_state (
        spot_id uuid primary key references spot (id),
        stage text not null,
        level text not null check (level in ('good','watch','act','urgent')),
        next_look_on date
      );
      create index spot_state_stage on spot_state (stage);

      create table decision (
        spot_id uuid not null references spot (id),
        position integer not null,
        tree_id uuid references tree (id),
        kind text not null,
        stage text not null,
        level text not null,
        due_on date,
        remedy text,
        because jsonb not null,
        primary key (spot_id, position)
      );
      create index decision_due on decision (due_on);

      create table import_act (
        id uuid primary key,
        file_name text not null,
        at timestamptz not null default now(),
        by text not null,
        written integer not null,
        same integer not null,
        bad integer not null
      );

      create table audit (
        id bigint generated always as identity primary key,
        at timestamptz not null default now(),
        actor text not null,
        table_name text not null,
        act text not null,
        before jsonb,
        after jsonb
      );

      create function write_audit() returns trigger language plpgsql security definer set search_path = public as $$
      begin
        insert into audit (actor, table_name, act, before, after) values (
          coalesce(nullif(current_setting('sombra.actor', true), ''), session_user),
          tg_table_name, lower(tg_op),
          case when tg_op = 'INSERT' then null else to_jsonb(old) - 'password_hash' end,
          case when tg_op = 'DELETE' then null else to_jsonb(new) - 'password_hash' end);
        return null;
      end $$;
    `);
    for (const table of ['app_user', 'practice', 'programme', 'place', 'spot', 'tree', 'field_record', 'import_act']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(`
      grant usage on schema public to sombra_app;
      grant select, insert, update, delete on session, sign_in_limit, spot_state, decision to sombra_app;
      grant select, insert, update on app_user, programme, place, spot, tree to sombra_app;
      grant select, insert on practice, field_record, import_act to sombra_app;
      grant select on audit to sombra_app;
    `);
  },
};
