import type { Knex } from 'knex';

/** Choices made otherwise for a spot, what lies in store, and what nurseries delivered. */
export const practiceAndStore = {
  name: '004-practice-and-store',
  async up(db: Knex): Promise<void> {
    await db.raw(statements);
    for (const table of ['material_store', 'delivery', 'delivery_lot', 'delivery_water']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit()`);
    }
  },
};

const statements = `
  alter table field_record drop constraint field_record_kind_check;
  alter table field_record add constraint field_record_kind_check check (kind in
    ('ground','assessment','percolation','verdict','choice','override','stock','planting','inspection','remedy','move','retraction'));
  alter table field_record drop constraint field_record_tree_check;
  alter table field_record add constraint field_record_tree_check check (
    kind in ('ground','assessment','percolation','verdict','choice','override','move','retraction') or tree_id is not null);
  alter table field_record add constraint field_record_override_check check (kind <> 'override' or (
    length(facts->>'path') between 3 and 60 and facts->'value' is not null and length(facts->>'reason') >= 3));

  -- The database counts days in its own time zone; a programme may live up to a day behind it.
  alter table programme alter column tickets_since set default current_date - 1;

  alter table practice add column made_by text not null default 'Sombra';
  alter table practice add column made_at timestamptz not null default now();

  create table material_store (
    material text primary key check (length(material) between 2 and 40),
    amount double precision not null check (amount between 0 and 1000000),
    version integer not null default 1 check (version > 0)
  );

  create table delivery (
    id uuid primary key,
    order_id uuid not null references nursery_order (id),
    arrived_on date not null,
    covered boolean,
    moist boolean,
    holding text not null default '' check (length(holding) <= 120),
    note text not null default '' check (length(note) <= 400),
    version integer not null default 1 check (version > 0),
    made_by text not null,
    made_at timestamptz not null default now()
  );
  create table delivery_lot (
    id uuid primary key,
    delivery_id uuid not null references delivery (id),
    position integer not null,
    species text not null,
    stock_kind text not null check (stock_kind in ('container','balled','bare_root')),
    caliper_mm double precision not null,
    price double precision not null check (price >= 0),
    spots jsonb not null default '[]',
    expected integer not null check (expected > 0),
    arrived integer check (arrived >= 0),
    opened integer not null default 0 check (opened >= 0),
    bad integer not null default 0 check (bad between 0 and opened),
    tree jsonb,
    verdict text check (verdict in ('accept','correct','hold','return')),
    reason text not null default '' check (length(reason) <= 400),
    photo_stored_as text,
    photo_content_type text,
    version integer not null default 1 check (version > 0),
    unique (delivery_id, position),
    check (opened <= coalesce(arrived, opened)),
    check (verdict is null or verdict not in ('return','hold') or length(reason) >= 3)
  );
  create table delivery_water (
    delivery_id uuid not null references delivery (id),
    on_day date not null,
    by_name text not null,
    primary key (delivery_id, on_day)
  );
  create index delivery_order on delivery (order_id);
  grant select, insert, update on material_store, delivery, delivery_lot to sombra_app;
  grant select, insert on delivery_water to sombra_app;
`;
