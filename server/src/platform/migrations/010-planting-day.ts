import type { Knex } from 'knex';

/** The planting day whole: people, teams, what happened, mail, weather by the hour, streets one can walk along. */
export const plantingDay = {
  name: '010-planting-day',
  async up(db: Knex): Promise<void> {
    for (const part of [audit, days, people, happened, mail, weather, streets, store]) await db.raw(part);
    for (const table of ['tool_store', 'waiver']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    for (const table of ['day_person', 'day_person_private', 'mail']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit_bare()`);
    }
    await db.raw(grants);
  },
};

// Of people who come to plant the trail keeps the id and the act: what is destroyed with a season must not live on in it.
const audit = `
  create function write_audit_bare() returns trigger language plpgsql security definer set search_path = public as $$
  begin
    insert into audit (actor, table_name, act, before, after) values (
      coalesce(nullif(current_setting('sombra.actor', true), ''), session_user), tg_table_name, lower(tg_op),
      case when tg_op = 'INSERT' then null else jsonb_build_object('id', old.id) end,
      case when tg_op = 'DELETE' then null else jsonb_build_object('id', new.id) end);
    return null;
  end $$;
`;

const days = `
  alter table planting_day
    add column kind text not null default 'volunteers' check (kind in ('volunteers','contractor','hand_out')),
    add column state text not null default 'planned' check (state in ('planned','called_off','closed')),
    add column gathering geometry(Point, 4326),
    add column capacity integer not null default 0 check (capacity between 0 and 500),
    add column hours jsonb not null default
      '{"gatherMin":510,"beginMin":540,"endMin":780,"demonstrationMin":25,"breakMin":15,"cleanUpMin":30}',
    add column arrangements jsonb not null default '{}',
    add column teams jsonb not null default '[]',
    add column locks jsonb not null default '{"helperIds":[],"spotIds":[]}',
    add column link_hash text unique,
    add column worked jsonb,
    add column made_by text,
    add column made_at timestamptz not null default now(),
    add column version integer not null default 1 check (version > 0);
  create table spot_card (
    spot_id uuid primary key references spot (id),
    plan_hash text not null,
    printed_at timestamptz not null default now(),
    printed_by text not null
  );
`;

/** To begin with; what binds is a matter of local law. */
const firstWaiver =
  'Planting trees is work outside with sharp tools, on uneven ground and beside traffic. I come of my own will, follow ' +
  'what the leads say, wear closed boots, gloves and what else I am given, lift nothing that is too heavy for me, and ' +
  'stop when I am told to. I answer for the minors I bring and stay with them. I tell a lead at once of any injury.';

// Address, telephone, allergies and whom to call lie in \`sealed\`, under the key of the season, which is no row.
const people = `
  create table waiver (
    version integer primary key check (version > 0),
    text text not null check (length(text) between 20 and 8000),
    made_by text not null,
    made_at timestamptz not null default now()
  );
  insert into waiver (version, text, made_by) values (1, '${firstWaiver}', 'Sombra');
  create table day_person (
    id uuid primary key,
    day_id uuid not null references planting_day (id),
    name text not null check (length(name) between 1 and 80),
    state text not null check (state in ('held','confirmed','waiting','cancelled')),
    held_until timestamptz,
    skill text not null check (skill in ('leads','has_planted','first_time')),
    minor boolean not null,
    guardian_id uuid references day_person (id),
    together text check (length(together) between 1 and 40),
    no_lifting boolean not null,
    photos boolean not null,
    waiver_version integer references waiver (version),
    waiver_signed_by text,
    waiver_at timestamptz,
    user_id uuid references app_user (id),
    source text not null check (source in ('link','desk','walk_in')),
    email_hash text,
    token_hash text unique,
    came_at timestamptz,
    left_at timestamptz,
    made_at timestamptz not null default clock_timestamp(),
    check ((state = 'held') = (held_until is not null)),
    check ((waiver_version is null) = (waiver_signed_by is null))
  );
  create index day_person_day on day_person (day_id, made_at);
  create unique index day_person_once on day_person (day_id, email_hash, lower(name)) where state <> 'cancelled';
  create table day_person_private (
    id uuid primary key references day_person (id) on delete cascade,
    season text not null,
    sealed bytea not null
  );
`;

const happened = `
  create table day_event (
    id uuid primary key,
    day_id uuid not null references planting_day (id),
    kind text not null check (length(kind) between 1 and 40),
    facts jsonb not null,
    at timestamptz not null,
    by_id uuid not null references app_user (id),
    by_name text not null,
    device text not null,
    arrived_at timestamptz not null default now()
  );
  create index day_event_day on day_event (day_id, at, id);
`;

const mail = `
  create table mail (
    id uuid primary key,
    about text not null,
    day_id uuid references planting_day (id),
    person_id uuid references day_person (id),
    to_address text,
    to_shown text not null,
    subject text not null,
    body text,
    calendar text,
    state text not null default 'waiting' check (state in ('waiting','sent','refused')),
    tries integer not null default 0,
    next_try_at timestamptz not null default now(),
    problem text,
    made_at timestamptz not null default now(),
    sent_at timestamptz,
    check ((state = 'sent') = (sent_at is not null))
  );
  create index mail_due on mail (next_try_at) where state = 'waiting';
  create index mail_day on mail (day_id, made_at);
`;

const weather = `
  create table weather_station (
    id text primary key check (length(id) between 1 and 40),
    name text not null,
    position geometry(Point, 4326) not null,
    read_at timestamptz,
    problem text
  );
  create table weather_hour (
    station_id text not null references weather_station (id),
    at timestamptz not null,
    source text not null check (source in ('recorded','forecast')),
    rain_mm double precision not null check (rain_mm between 0 and 500),
    temperature_c double precision not null check (temperature_c between -60 and 60),
    humidity_pct double precision not null check (humidity_pct between 0 and 100),
    gust_ms double precision not null check (gust_ms between 0 and 120),
    thunder_km double precision check (thunder_km between 0 and 200),
    soil_c double precision check (soil_c between -40 and 60),
    primary key (station_id, at, source)
  );
`;

// Made of the base map's streets by \`knitStreets\`: lines cut where they meet, metres along the ground.
const streets = `
  create extension if not exists pgrouting;
  create table street_node (id bigint primary key, geom geometry(Point, 3857) not null);
  create table street_edge (
    id bigint generated always as identity primary key,
    source bigint not null references street_node (id),
    target bigint not null references street_node (id),
    length_m double precision not null check (length_m >= 0),
    geom geometry(LineString, 3857) not null
  );
  create index street_edge_geom on street_edge using gist (geom);
`;

const store = `
  create table tool_store (
    tool text primary key,
    count integer not null check (count between 0 and 10000),
    version integer not null default 1 check (version > 0)
  );
`;

const grants = `
  grant update on planting_day to sombra_app;
  grant select, insert, update on day_person, day_person_private, mail, weather_station, weather_hour, tool_store,
    spot_card to sombra_app;
  grant delete on planting_day_spot, weather_hour, day_person_private to sombra_app;
  grant select, insert on day_event, waiver to sombra_app;
  grant select, insert, delete on street_node, street_edge to sombra_app;
`;
