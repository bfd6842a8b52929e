import type { Knex } from 'knex';

/**
 * Where something changed, so that what was counted place by place is counted anew there alone; and the number of its spot
 * on each period, so that a list in its usual orders is read off an index.
 */
export const keptByPlace = {
  name: '017-kept-by-place',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create table place_change (
        xid xid8 not null default pg_current_xact_id(),
        at timestamptz not null default now(),
        place_id uuid not null
      );
      create index place_change_xid on place_change (xid);
      grant select, insert, delete on place_change to sombra_app;

      create function note_decisions() returns trigger language plpgsql as $$
      begin
        insert into place_change (place_id) select distinct place_id from changed where until_day is null;
        return null;
      end $$;
      create trigger decision_added after insert on decision referencing new table as changed
        for each statement execute function note_decisions();
      create trigger decision_gone after delete on decision referencing old table as changed
        for each statement execute function note_decisions();
      create trigger decision_was after update on decision referencing old table as changed
        for each statement execute function note_decisions();
      create trigger decision_is after update on decision referencing new table as changed
        for each statement execute function note_decisions();

      create function note_periods() returns trigger language plpgsql as $$
      begin
        insert into place_change (place_id)
          select distinct spot.place_id from changed join spot on spot.id = changed.spot_id where changed.until_day is null;
        return null;
      end $$;
      create trigger spot_period_noted after insert on spot_period referencing new table as changed
        for each statement execute function note_periods();
      create trigger spot_period_gone_noted after delete on spot_period referencing old table as changed
        for each statement execute function note_periods();
      create trigger spot_period_was_noted after update on spot_period referencing old table as changed
        for each statement execute function note_periods();
      create trigger spot_period_is_noted after update on spot_period referencing new table as changed
        for each statement execute function note_periods();

      create function note_place() returns trigger language plpgsql as $$
      begin
        insert into place_change (place_id) values (old.place_id), (new.place_id);
        return null;
      end $$;
      create trigger spot_placed after update of place_id on spot
        for each row when (old.place_id is distinct from new.place_id) execute function note_place();
      create function note_species() returns trigger language plpgsql as $$
      begin
        insert into place_change (place_id) select place_id from spot where id = new.spot_id;
        return null;
      end $$;
      create trigger tree_named after update of species, standing on tree
        for each row when (old.species is distinct from new.species or old.standing <> new.standing)
        execute function note_species();

      create index decision_place on decision (place_id) where until_day is null;

      alter table spot_period add column ref text;
      update spot_period set ref = spot.ref from spot where spot.id = spot_period.spot_id;
      alter table spot_period alter column ref set not null;
      create index spot_period_ref on spot_period (ref) include (spot_id, from_day) where until_day is null;
      create index spot_period_stage_ref on spot_period (stage, ref) include (spot_id, from_day) where until_day is null;
      drop index spot_period_stage;
      drop index spot_period_due;
      create index spot_period_due on spot_period (due_on, ref) include (spot_id, from_day) where until_day is null;
    `);
  },
};
