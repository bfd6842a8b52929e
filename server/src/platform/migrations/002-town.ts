import type { Knex } from 'knex';

/**
 * Time and space: where each spot stood on every day, the base map, weather, what is booked, and the views
 * people keep. What is derived is dropped and worked out afresh from the records after the migrations.
 */
export const town = {
  name: '002-town',
  async up(db: Knex): Promise<void> {
    await db.raw(spots);
    await db.raw(derived);
    await db.raw(counted);
    await db.raw(programme);
    await db.raw(map);
    await db.raw(booked);
    for (const table of ['saved_view', 'planting_day', 'locate_ticket', 'field_round', 'base_layer']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(grants);
  },
};

const spots = `
  create extension if not exists pg_trgm;

  alter table spot add column added_on date, add column withdrawn_on date;
  update spot set added_on = coalesce(
    (select least(min(recorded_at)::date, spot.changed_at::date) from field_record where spot_id = spot.id),
    changed_at::date);
  alter table spot alter column added_on set not null;
  create index spot_ref_words on spot using gin (ref gin_trgm_ops);
  create index tree_species_words on tree using gin (species gin_trgm_ops);
  create index tree_species on tree (species) where standing;
  create index field_record_by on field_record (recorded_by);

  alter table field_record drop constraint field_record_kind_check;
  alter table field_record add constraint field_record_kind_check check
    (kind in ('ground','stock','planting','inspection','remedy','move','retraction'));
  do $$
  declare name text;
  begin
    for name in select conname from pg_constraint where conrelid = 'field_record'::regclass
      and contype = 'c' and pg_get_constraintdef(oid) like '%tree_id IS NOT NULL%'
    loop execute format('alter table field_record drop constraint %I', name); end loop;
  end $$;
  alter table field_record add constraint field_record_tree_check
    check (kind in ('ground','move','retraction') or tree_id is not null);
  alter table field_record add constraint field_record_move_check check (kind <> 'move' or (
    (facts->>'movedOn')::text ~ '^\\d{4}-\\d{2}-\\d{2}$'
    and (facts->'to'->>0)::numeric between -180 and 180
    and (facts->'to'->>1)::numeric between -85 and 85
    and length(facts->>'reason') >= 3));
  alter table field_record add constraint field_record_retraction_check
    check (kind <> 'retraction' or supersedes is not null);
`;

// Cells are those of the common web map grid at zoom 17, about 245 m wide at 37° north.
const derived = `
  drop table decision;
  drop table spot_state;
  create table derived_by (only_one boolean primary key default true check (only_one), version integer not null);

  create table spot_period (
    spot_id uuid not null references spot (id),
    from_day date not null,
    until_day date,
    stage text not null,
    level text not null check (level in ('good','watch','act','urgent')),
    planted_on date,
    probe text,
    next_look_on date,
    decisions integer not null check (decisions >= 0),
    due_on date,
    crown_m double precision,
    lng double precision not null,
    lat double precision not null,
    at geometry(Point, 3857) not null generated always as
      (st_transform(st_setsrid(st_makepoint(lng, lat), 4326), 3857)) stored,
    cell_x integer not null generated always as (floor((lng + 180) / 360 * 131072)::integer) stored,
    cell_y integer not null generated always as
      (floor((1 - ln(tan(radians(lat)) + 1 / cos(radians(lat))) / pi()) / 2 * 131072)::integer) stored,
    primary key (spot_id, from_day),
    check (until_day is null or until_day >= from_day)
  );
  create unique index spot_period_now on spot_period (spot_id) where until_day is null;
  create index spot_period_stage on spot_period (stage) where until_day is null;
  create index spot_period_at on spot_period using gist (at) where until_day is null;
  create index spot_period_cell on spot_period (cell_x, cell_y) where until_day is null;
  create index spot_period_days on spot_period (from_day, until_day);

  create table decision (
    spot_id uuid not null references spot (id),
    place_id uuid not null references place (id),
    from_day date not null,
    until_day date,
    position integer not null,
    tree_id uuid references tree (id),
    kind text not null,
    stage text not null,
    level text not null,
    due_on date,
    remedy text,
    because jsonb not null,
    primary key (spot_id, from_day, position)
  );
  create index decision_now on decision (level, due_on) where until_day is null;
  create index decision_days on decision (from_day, until_day);
`;

// Counts by cell as changes that are only ever added, so that two acts in one cell never wait for each other;
// reading sums them, and now and then they are folded into one row a cell.
const counted = `
  create table cell_change (
    cell_x integer not null, cell_y integer not null,
    spots integer not null, urgent integer not null, act integer not null, preparing integer not null,
    lng double precision not null, lat double precision not null
  );
  create index cell_change_cell on cell_change (cell_x, cell_y);

  create function count_cells_added() returns trigger language plpgsql as $$
  begin
    insert into cell_change
      select cell_x, cell_y, count(*), count(*) filter (where level = 'urgent'), count(*) filter (where level = 'act'),
        count(*) filter (where stage <> 'inspect'), sum(lng), sum(lat)
      from added where until_day is null group by cell_x, cell_y;
    return null;
  end $$;
  create function count_cells_gone() returns trigger language plpgsql as $$
  begin
    insert into cell_change
      select cell_x, cell_y, -count(*), -count(*) filter (where level = 'urgent'), -count(*) filter (where level = 'act'),
        -count(*) filter (where stage <> 'inspect'), -sum(lng), -sum(lat)
      from gone where until_day is null group by cell_x, cell_y;
    return null;
  end $$;
  create trigger spot_period_added after insert on spot_period referencing new table as added
    for each statement execute function count_cells_added();
  create trigger spot_period_gone after delete on spot_period referencing old table as gone
    for each statement execute function count_cells_gone();
  create trigger spot_period_was after update on spot_period referencing old table as gone
    for each statement execute function count_cells_gone();
  create trigger spot_period_is after update on spot_period referencing new table as added
    for each statement execute function count_cells_added();
`;

const programme = `
  alter table programme
    add column station_lat double precision not null default 36.9 check (station_lat between -66 and 66),
    add column station_elevation_m double precision not null default 40,
    add column planting_windows jsonb not null default '[]';

  create table weather_day (
    day date primary key,
    source text not null check (source in ('recorded','forecast')),
    rain_mm double precision not null check (rain_mm between 0 and 1500),
    t_min_c double precision not null check (t_min_c between -60 and 60),
    t_max_c double precision not null check (t_max_c between -60 and 60),
    humidity_min_pct double precision check (humidity_min_pct between 0 and 100),
    humidity_max_pct double precision check (humidity_max_pct between 0 and 100),
    wind_ms double precision check (wind_ms between 0 and 100),
    radiation_mj double precision check (radiation_mj between 0 and 50),
    check (t_min_c <= t_max_c)
  );

  create table saved_view (
    id uuid primary key,
    user_id uuid not null references app_user (id),
    name text not null check (length(name) between 1 and 60),
    path text not null check (path ~ '^/[a-z]+$'),
    query jsonb not null,
    version integer not null default 1 check (version > 0),
    unique (user_id, name)
  );
`;

const map = `
  create table base_layer (
    layer text primary key check (layer in ('water','park','contour','street','building','tram','wire')),
    features integer not null,
    changed_at timestamptz not null default now(),
    changed_by text not null
  );
  create table base_feature (
    id bigint generated always as identity primary key,
    layer text not null references base_layer (layer) on delete cascade,
    name text,
    height_m double precision,
    geom geometry(Geometry, 3857) not null
  );
  create index base_feature_geom on base_feature using gist (geom);
  create index base_feature_layer on base_feature (layer);
  create table base_pmtiles (
    only_one boolean primary key default true check (only_one),
    file_name text not null,
    bytes bigint not null,
    stored_as text not null,
    changed_at timestamptz not null default now(),
    changed_by text not null
  );
`;

const booked = `
  create table planting_day (
    id uuid primary key,
    on_day date not null,
    title text not null check (length(title) between 1 and 80)
  );
  create table planting_day_spot (
    day_id uuid not null references planting_day (id),
    spot_id uuid not null references spot (id),
    primary key (day_id, spot_id)
  );
  create index planting_day_spot_spot on planting_day_spot (spot_id);
  create table locate_ticket (
    id uuid primary key,
    number text not null unique,
    area geometry(MultiPolygon, 4326) not null,
    valid_from date not null,
    valid_until date not null check (valid_until >= valid_from)
  );
  create table field_round (
    id uuid primary key,
    title text not null,
    from_day date not null,
    until_day date not null check (until_day >= from_day)
  );
`;

const grants = `
  grant select, insert, update, delete on spot_period, decision, cell_change, derived_by, saved_view,
    base_feature, base_layer, base_pmtiles to sombra_app;
  grant select, insert, update on weather_day, planting_day, locate_ticket, field_round to sombra_app;
  grant select, insert, delete on planting_day_spot to sombra_app;
`;
