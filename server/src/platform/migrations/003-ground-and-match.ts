import { defaultGroundRules, defaultMatchRules, shippedSpecies } from '@sombra/core';
import type { Knex } from 'knex';

/**
 * Places judged before they are planted, locate tickets with their replies, leaves to dig and to plant, species,
 * nurseries and the season's lists. Tickets recorded before replies were kept count as cleared, and say so.
 */
export const groundAndMatch = {
  name: '003-ground-and-match',
  async up(db: Knex): Promise<void> {
    for (const part of [records, rules, tickets, leave, match]) await db.raw(part);
    await db('rules').insert({
      version: 1,
      body: JSON.stringify({ ground: defaultGroundRules, match: defaultMatchRules }),
      made_by: 'Sombra',
    });
    const rows = shippedSpecies.map((species) => ({
      botanical: species.botanical,
      family: species.family,
      body: JSON.stringify(species),
      changed_by: 'Sombra',
    }));
    await db.batchInsert('species', rows, 50);
    for (const table of audited) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
    await db.raw(grants);
  },
};

const audited = [
  'rules',
  'ticket_reply',
  'lawful_clearance',
  'spot_photo',
  'road_permit',
  'owner_consent',
  'species',
  'nursery',
  'season_list',
  'nursery_order',
];

const records = `
  alter table field_record drop constraint field_record_kind_check;
  alter table field_record add constraint field_record_kind_check check (kind in
    ('ground','assessment','percolation','verdict','choice','stock','planting','inspection','remedy','move','retraction'));
  alter table field_record drop constraint field_record_tree_check;
  alter table field_record add constraint field_record_tree_check check (
    kind in ('ground','assessment','percolation','verdict','choice','move','retraction') or tree_id is not null);
  alter table field_record add constraint field_record_verdict_check check (kind <> 'verdict' or (
    facts->>'verdict' in ('plant','plant_if','move','not_here') and length(facts->>'reason') >= 3));
  alter table field_record add constraint field_record_choice_check check (kind <> 'choice' or
    length(facts->>'species') between 3 and 80);
  alter table field_record add constraint field_record_assessment_check check (kind <> 'assessment' or (
    (facts->>'assessedOn')::text ~ '^\\d{4}-\\d{2}-\\d{2}$' and jsonb_typeof(facts->'clearances') = 'array'));
  alter table field_record add constraint field_record_percolation_check check (kind <> 'percolation' or
    jsonb_typeof(facts->'readings') = 'array');
`;

const rules = `
  create table rules (
    version integer primary key check (version > 0),
    body jsonb not null,
    made_by text not null,
    made_at timestamptz not null default now()
  );
  alter table programme add column tickets_since date not null default current_date;
  alter table base_layer drop constraint base_layer_layer_check;
  alter table base_layer add constraint base_layer_layer_check check (layer in ('water','park','contour','street',
    'kerb','driveway','building','tram','wire','hydrant','lamp','sign'));
`;

const tickets = `
  alter table locate_ticket
    alter column number drop not null,
    alter column valid_from drop not null,
    alter column valid_until drop not null,
    add column purpose text not null default 'Planting' check (length(purpose) between 1 and 120),
    add column state text not null default 'open' check (state in ('unsent','open','withdrawn')),
    add column raised_by text not null default 'recorded earlier',
    add column raised_at timestamptz not null default now(),
    add column renews uuid references locate_ticket (id),
    add column tries integer not null default 0,
    add column problem text,
    add column next_try_at timestamptz,
    add constraint locate_ticket_taken check (state <> 'open' or
      (number is not null and valid_from is not null and valid_until is not null));
  create index locate_ticket_area on locate_ticket using gist (area);
  create index locate_ticket_due on locate_ticket (next_try_at) where next_try_at is not null;

  create table ticket_reply (
    ticket_id uuid not null references locate_ticket (id),
    utility text not null check (length(utility) between 1 and 80),
    state text not null check (state in ('waiting','clear','marked','conflict')),
    replied_on date,
    tolerance_mm double precision check (tolerance_mm between 0 and 5000),
    note text not null default '',
    marks geometry(MultiLineString, 4326),
    primary key (ticket_id, utility),
    check ((state = 'waiting') = (replied_on is null))
  );
  insert into ticket_reply (ticket_id, utility, state, replied_on, note)
    select id, 'All utilities', 'clear', valid_from, 'Recorded before replies were kept one by one' from locate_ticket;
`;

const leave = `
  create table lawful_clearance (
    id uuid primary key,
    spot_id uuid not null references spot (id),
    document text not null check (length(document) between 2 and 120),
    cleared_by text not null check (length(cleared_by) between 2 and 120),
    valid_from date not null,
    valid_until date not null check (valid_until >= valid_from),
    stored_as text not null,
    content_type text not null,
    added_by text not null,
    added_at timestamptz not null default now()
  );
  create index lawful_clearance_spot on lawful_clearance (spot_id);

  create table spot_photo (
    id uuid primary key,
    spot_id uuid not null references spot (id),
    stored_as text not null,
    content_type text not null,
    bytes integer not null,
    added_by text not null,
    added_at timestamptz not null default now()
  );

  create table road_permit (
    id uuid primary key,
    number text not null check (length(number) between 2 and 60),
    authority text not null,
    valid_from date not null,
    valid_until date not null check (valid_until >= valid_from),
    added_by text not null,
    added_at timestamptz not null default now()
  );
  create table road_permit_spot (
    permit_id uuid not null references road_permit (id),
    spot_id uuid not null references spot (id),
    primary key (permit_id, spot_id)
  );
  create index road_permit_spot_spot on road_permit_spot (spot_id);

  create table owner_consent (
    id uuid primary key,
    spot_id uuid not null references spot (id),
    owner text not null check (length(owner) between 2 and 120),
    asked_by text not null,
    asked_at timestamptz not null default now(),
    expires_on date not null,
    revoked_at timestamptz,
    answered_at timestamptz,
    agrees boolean,
    signed_by text,
    remark text not null default '',
    check ((answered_at is null) = (agrees is null)),
    check (agrees is null or length(signed_by) >= 2)
  );
  create index owner_consent_spot on owner_consent (spot_id);
`;

const match = `
  create table species (
    botanical text primary key check (length(botanical) between 3 and 80),
    family text not null,
    body jsonb not null,
    version integer not null default 1 check (version > 0),
    changed_by text not null,
    changed_at timestamptz not null default now()
  );
  create table nursery (
    id uuid primary key,
    name text not null unique check (length(name) between 2 and 80),
    terms text not null default '',
    list_day date
  );
  create table nursery_offer (
    id uuid primary key,
    nursery_id uuid not null references nursery (id),
    species text not null,
    stock_kind text not null check (stock_kind in ('container','balled','bare_root')),
    caliper_mm double precision not null check (caliper_mm between 8 and 400),
    height_m double precision check (height_m between 0.2 and 25),
    price double precision not null check (price >= 0),
    available integer not null check (available >= 0),
    unique (nursery_id, species, stock_kind, caliper_mm)
  );
  create table season_list (
    id uuid primary key,
    title text not null check (length(title) between 2 and 80),
    state text not null check (state in
      ('queued','solving','solved','infeasible','cancelled','failed','accepted')),
    asked jsonb not null,
    made_by text not null,
    made_at timestamptz not null default now(),
    progress jsonb,
    problem text,
    result jsonb,
    held_until timestamptz
  );
  create index season_list_open on season_list (made_at) where state in ('queued','solving');
  create table nursery_order (
    id uuid primary key,
    list_id uuid not null references season_list (id),
    number text not null unique,
    nursery text not null,
    body jsonb not null,
    made_by text not null,
    made_at timestamptz not null default now()
  );
`;

const grants = `
  grant select, insert on rules, lawful_clearance, spot_photo, road_permit, road_permit_spot, nursery_order to sombra_app;
  grant select, insert, update on owner_consent, species, nursery, season_list, ticket_reply to sombra_app;
  grant select, insert, delete on nursery_offer to sombra_app;
`;
