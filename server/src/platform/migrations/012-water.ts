import type { Knex } from 'knex';

/** The water of trees: where each stands, from where it can be followed on, and which are to be followed anew. */
export const water = {
  name: '012-water',
  async up(db: Knex): Promise<void> {
    await db.raw(kept);
    await db.raw(rounds);
    for (const table of ['water_truck', 'fill_point', 'water_round']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(grants);
  },
};

/**
 * All of it follows from records and weather and can be thrown away. One row a tree, with room left in the page and no
 * index on what changes every night, so that a night rewrites rows in place.
 */
const kept = `
  create table tree_water (
    spot_id uuid primary key references spot (id),
    subject jsonb not null,
    given jsonb not null,
    followed_until date not null,
    day date not null,
    ball_l double precision not null check (ball_l >= 0),
    soil_l double precision not null check (soil_l >= 0),
    variance double precision not null check (variance >= 0),
    degree_days double precision not null check (degree_days >= 0),
    stress_days integer not null check (stress_days >= 0),
    waterlogged_days integer not null check (waterlogged_days >= 0),
    drowned_since date,
    share double precision not null,
    error_share double precision not null,
    supply double precision not null,
    next jsonb not null
  ) with (fillfactor = 70);

  create table water_checkpoint (
    spot_id uuid not null references spot (id),
    day date not null,
    ball_l double precision not null,
    soil_l double precision not null,
    variance double precision not null,
    degree_days double precision not null,
    stress_days integer not null,
    waterlogged_days integer not null,
    drowned_since date,
    primary key (spot_id, day)
  );

  create table water_due (spot_id uuid primary key references spot (id));
  insert into water_due select distinct spot_id from spot_period where planted_on is not null;

  create table water_night (
    only_one boolean primary key default true check (only_one),
    past jsonb not null,
    ahead jsonb not null,
    day date not null,
    forecast_until date not null,
    ended_at timestamptz not null default now()
  );
`;

const rounds = `
  create table water_truck (
    id uuid primary key,
    name text not null check (length(name) between 1 and 60),
    on_foot boolean not null,
    tank_l double precision not null check (tank_l between 1 and 40000),
    pour_l_per_min double precision not null check (pour_l_per_min between 0.1 and 2000),
    km_per_h double precision not null check (km_per_h between 0.5 and 120),
    depot geometry(Point, 4326) not null,
    retired boolean not null default false,
    version integer not null default 1 check (version > 0)
  );
  create table fill_point (
    id uuid primary key,
    name text not null check (length(name) between 1 and 60),
    position geometry(Point, 4326) not null,
    flow_l_per_min double precision not null check (flow_l_per_min between 0.1 and 5000),
    connect_minutes double precision not null check (connect_minutes between 0 and 120),
    permit text not null default '' check (length(permit) <= 200),
    retired boolean not null default false,
    version integer not null default 1 check (version > 0)
  );
  create table water_round (
    id uuid primary key,
    title text not null check (length(title) between 1 and 80),
    on_day date not null,
    state text not null default 'draft' check (state in ('draft','given','over')),
    plan jsonb not null,
    made_by text not null,
    made_at timestamptz not null default now(),
    given_at timestamptz,
    version integer not null default 1 check (version > 0)
  );
  create index water_round_day on water_round (on_day desc);
  alter table assignment add column water jsonb;
`;

const grants = `
  grant select, insert, update on water_truck, fill_point, water_round to sombra_app;
  grant select, insert, update, delete on tree_water, water_checkpoint, water_due, water_night to sombra_app;
`;
