import type { Knex } from 'knex';

/** The water of trees: where each stands, from where it can be followed on, and which are to be followed anew. */
export const water = {
  name: '012-water',
  async up(db: Knex): Promise<void> {
    await db.raw(kept);
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

const grants = `
  grant select, insert, update, delete on tree_water, water_checkpoint, water_due, water_night to sombra_app;
`;
