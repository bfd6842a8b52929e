import type { Knex } from 'knex';

/** Choices made otherwise for a spot, what lies in store, and when each practice was adopted. */
export const practiceAndStore = {
  name: '004-practice-and-store',
  async up(db: Knex): Promise<void> {
    await db.raw(statements);
    await db.raw(
      'create trigger audit_material_store after insert or update or delete on material_store for each row execute function write_audit()',
    );
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

  alter table practice add column made_by text not null default 'Sombra';
  alter table practice add column made_at timestamptz not null default now();

  create table material_store (
    material text primary key check (length(material) between 2 and 40),
    amount double precision not null check (amount between 0 and 1000000),
    version integer not null default 1 check (version > 0)
  );
  grant select, insert, update on material_store to sombra_app;
`;
