import { assignmentKinds } from '@sombra/core';
import type { Knex } from 'knex';

/** Who is sent where; devices with their keys; what came sealed and was refused. */
export const field = {
  name: '009-field',
  async up(db: Knex): Promise<void> {
    for (const part of [assignments(), devices, sealed, photos, audit]) await db.raw(part);
    for (const table of ['assignment', 'assignment_spot', 'device', 'set_aside']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(grants);
  },
};

const assignments = (): string => `
  create table assignment (
    id uuid primary key,
    kind text not null check (kind in (${assignmentKinds.map((kind) => `'${kind}'`).join(',')})),
    title text not null check (length(title) between 1 and 80),
    user_id uuid not null references app_user (id),
    until_day date not null,
    delivery_id uuid references delivery (id),
    made_by text not null,
    made_at timestamptz not null default now(),
    ended_at timestamptz,
    ended_by text,
    version integer not null default 1 check (version > 0),
    check ((kind = 'delivery') = (delivery_id is not null))
  );
  create index assignment_open on assignment (user_id, until_day) where ended_at is null;
  create table assignment_spot (
    assignment_id uuid not null references assignment (id),
    place integer not null check (place >= 0),
    spot_id uuid not null references spot (id),
    primary key (assignment_id, spot_id)
  );
  -- The hash of a code is kept, never the code.
  create table hand_over (
    assignment_id uuid primary key references assignment (id),
    code_hash text not null unique,
    expires_at timestamptz not null
  );
`;

const devices = `
  create table device (
    id uuid primary key,
    name text not null check (length(name) <= 80),
    public_key jsonb not null,
    first_seen_at timestamptz not null default now(),
    last_seen_at timestamptz not null default now(),
    wipe_asked_at timestamptz,
    wipe_asked_by text,
    wiped_at timestamptz
  );
  create table device_person (
    device_id uuid not null references device (id),
    user_id uuid not null references app_user (id),
    first_at timestamptz not null default now(),
    primary key (device_id, user_id)
  );
`;

// Both halves of the key to which devices seal: a backup that is restored must still open what comes later.
const sealed = `
  create table sealing_key (
    id uuid primary key,
    public_key jsonb not null,
    private_key jsonb not null,
    made_at timestamptz not null default now()
  );
  create table set_aside (
    id uuid primary key,
    author_id uuid not null references app_user (id),
    device_id uuid not null references device (id),
    spot_id uuid references spot (id),
    name text not null,
    content jsonb not null,
    problem jsonb not null,
    made_at timestamptz not null,
    arrived_at timestamptz not null default now(),
    settled_at timestamptz,
    settled_by text,
    decision text check (decision in ('again','bin'))
  );
  create index set_aside_open on set_aside (arrived_at) where settled_at is null;
`;

// A photo knows which step of which work it was taken at.
const photos = `
  alter table spot_photo add column step text check (length(step) between 1 and 60);
  create index spot_photo_newest on spot_photo (spot_id, added_at desc);
`;

// The trail says who settled what, not what was in it: a picture may be.
const audit = `
  create or replace function write_audit() returns trigger language plpgsql security definer set search_path = public as $$
  begin
    insert into audit (actor, table_name, act, before, after) values (
      coalesce(nullif(current_setting('sombra.actor', true), ''), session_user),
      tg_table_name, lower(tg_op),
      case when tg_op = 'INSERT' then null else to_jsonb(old) - 'password_hash' - 'token_hash' - 'content' end,
      case when tg_op = 'DELETE' then null else to_jsonb(new) - 'password_hash' - 'token_hash' - 'content' end);
    return null;
  end $$;
`;

const grants = `
  grant select, insert, update on assignment, assignment_spot, device, set_aside to sombra_app;
  grant select, insert, update, delete on hand_over to sombra_app;
  grant select, insert on device_person, sealing_key to sombra_app;
`;
