import type { Knex } from 'knex';

/**
 * People who are invited, disabled and named by their id; a programme set up by hand; records in the order in which
 * things happened, whatever a device's clock said; and what two may not both do.
 */
export const peopleAndTime = {
  name: '006-people-and-time',
  async up(db: Knex): Promise<void> {
    for (const part of [people, programme, time, onlyOnce, adoption]) await db.raw(part);
    for (const table of ['invitation', 'clock_answer', 'ordered_place', 'adoption']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(grants);
  },
};

// The hash of a link is kept, never the link: who reads the table, or the audit trail, gets in nowhere.
const people = `
  alter table app_user
    alter column password_hash drop not null,
    add column version integer not null default 1 check (version > 0),
    add column added_by text,
    add column added_at timestamptz not null default now(),
    add column disabled_at timestamptz,
    add column last_sign_in_at timestamptz;
  create table invitation (
    user_id uuid primary key references app_user (id),
    token_hash text not null unique,
    made_by text not null,
    expires_at timestamptz not null
  );
  create index session_person on session ((sess->>'userId'));

  create or replace function write_audit() returns trigger language plpgsql security definer set search_path = public as $$
  begin
    insert into audit (actor, table_name, act, before, after) values (
      coalesce(nullif(current_setting('sombra.actor', true), ''), session_user),
      tg_table_name, lower(tg_op),
      case when tg_op = 'INSERT' then null else to_jsonb(old) - 'password_hash' - 'token_hash' end,
      case when tg_op = 'DELETE' then null else to_jsonb(new) - 'password_hash' - 'token_hash' end);
    return null;
  end $$;
`;

// A database that was filled before anything could be set up by hand holds the demo.
const programme = `
  alter table programme
    add column demo boolean not null default true,
    add column lng double precision not null default -25.4 check (lng between -180 and 180),
    add column units text not null default 'metric' check (units in ('metric','us')),
    add column version integer not null default 1 check (version > 0),
    add constraint programme_name_length check (length(name) between 1 and 80);
  create table set_up_code (
    only_one boolean primary key default true check (only_one),
    code_hash text not null,
    made_at timestamptz not null default now()
  );
`;

// recorded_at stays what the device said. happened_at is what records are ordered by: corrected by how far ahead the
// device was of this server, never after the record arrived; where nobody measured that, the moment it arrived.
const time = `
  alter table field_record
    add column recorded_by_id uuid references app_user (id),
    add column device_ahead_ms bigint,
    add column happened_at timestamptz,
    add column clock text not null default 'kept' check (clock in ('kept','measured','asked'));
  update field_record set happened_at = recorded_at;
  alter table field_record alter column happened_at set not null;
  create index field_record_happened on field_record (spot_id, happened_at);
  drop index field_record_spot;
  create index field_record_asked on field_record (received_at) where clock = 'asked';
  create table clock_answer (
    record_id uuid primary key references field_record (id),
    happened_at timestamptz not null,
    answered_by text not null,
    answered_at timestamptz not null default now()
  );
  alter table lot_tree add column seen_by_id uuid references app_user (id);
`;

const onlyOnce = `
  -- An order that an older version opened twice keeps both deliveries; nothing new joins them.
  alter table delivery add column order_again boolean not null default false;
  update delivery set order_again = true where exists
    (select 1 from delivery first where first.order_id = delivery.order_id and first.id < delivery.id);
  create unique index delivery_of_order on delivery (order_id) where not order_again;

  -- No more trees of a lot are opened than arrived, or than were expected before anybody counted.
  create function keep_opened_within_arrived() returns trigger language plpgsql as $$
  declare most integer;
  begin
    select coalesce(arrived, expected) into most from delivery_lot where id = new.lot_id for update;
    if new.supersedes is null and
      (select count(*) from lot_tree where lot_id = new.lot_id and supersedes is null) >= most then
      raise exception 'more trees of lot % opened than arrived', new.lot_id using errcode = 'check_violation';
    end if;
    return new;
  end $$;
  create trigger lot_tree_within_arrived before insert on lot_tree
    for each row execute function keep_opened_within_arrived();

  create table ordered_place (
    order_id uuid not null references nursery_order (id),
    spot_id uuid not null references spot (id),
    released_at timestamptz,
    primary key (order_id, spot_id)
  );
  create unique index ordered_place_open on ordered_place (spot_id) where released_at is null;
  insert into ordered_place (order_id, spot_id)
  select distinct on (spot.id) placed.id, spot.id
  from nursery_order placed, jsonb_array_elements(placed.body -> 'lines') line,
    jsonb_array_elements_text(line -> 'spots') as named (ref)
  join spot on spot.ref = named.ref
  where not exists (select 1 from field_record where spot_id = spot.id and kind = 'planting')
  order by spot.id, placed.made_at desc;
`;

// While it runs, spots up to at_spot go by the practice that is being adopted, the others by the programme's.
const adoption = `
  create table adoption (
    only_one boolean primary key default true check (only_one),
    practice_id text not null,
    practice_version integer not null,
    at_spot uuid,
    running boolean not null,
    run_id uuid not null,
    beat_at timestamptz not null default now(),
    asked_by text not null,
    began_at timestamptz not null default now(),
    foreign key (practice_id, practice_version) references practice (id, version)
  );
`;

const grants = `
  grant select, insert, update, delete on invitation, adoption to sombra_app;
  grant select, insert on clock_answer to sombra_app;
  grant select, insert, update on ordered_place to sombra_app;
  grant select, insert, delete, update on set_up_code to sombra_app;
`;
