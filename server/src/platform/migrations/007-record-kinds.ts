import type { Knex } from 'knex';

/**
 * Kinds of record are rows that the start of the server fills from the core's table, so that a new kind asks for no
 * migration; and whether a tree is planted is read from the day it was, not from the stage it stands in.
 */
export const recordKindRows = {
  name: '007-record-kinds',
  async up(db: Knex): Promise<void> {
    for (const part of [kinds, planted, grants]) await db.raw(part);
  },
};

const kinds = `
  create table record_kind (kind text primary key, asks_for_tree boolean not null);
  insert into record_kind (kind, asks_for_tree) select distinct kind, false from field_record;
  alter table field_record drop constraint field_record_kind_check;
  alter table field_record drop constraint field_record_tree_check;
  alter table field_record add constraint field_record_kind foreign key (kind) references record_kind (kind);

  create function require_tree_of_record() returns trigger language plpgsql as $$
  begin
    if new.tree_id is null and (select asks_for_tree from record_kind where kind = new.kind) then
      raise exception 'a record of kind % names no tree', new.kind using errcode = 'check_violation';
    end if;
    return new;
  end $$;
  create trigger field_record_tree before insert or update on field_record
    for each row execute function require_tree_of_record();
`;

const planted = `
  create or replace function count_cells_added() returns trigger language plpgsql as $$
  begin
    insert into cell_change
      select cell_x, cell_y, count(*), count(*) filter (where level = 'urgent'), count(*) filter (where level = 'act'),
        count(*) filter (where planted_on is null), sum(lng), sum(lat)
      from added where until_day is null group by cell_x, cell_y;
    return null;
  end $$;
  create or replace function count_cells_gone() returns trigger language plpgsql as $$
  begin
    insert into cell_change
      select cell_x, cell_y, -count(*), -count(*) filter (where level = 'urgent'), -count(*) filter (where level = 'act'),
        -count(*) filter (where planted_on is null), -sum(lng), -sum(lat)
      from gone where until_day is null group by cell_x, cell_y;
    return null;
  end $$;
`;

const grants = `
  grant select on record_kind to sombra_app;
`;
