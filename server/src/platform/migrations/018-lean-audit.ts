import type { Knex } from 'knex';

/**
 * The audit trail holds what is told nowhere else: of a row that comes, its id (the row itself says the rest, or the
 * `before` of its first change); of a change, the columns that differ, before and after; of a row that goes, all of it.
 */
export const leanAudit = {
  name: '018-lean-audit',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create or replace function write_audit() returns trigger language plpgsql security definer set search_path = public as $$
      declare
        unsaid constant text[] := array['password_hash', 'token_hash', 'content'];
        was jsonb := case when tg_op = 'INSERT' then null else to_jsonb(old) - unsaid end;
        is_now jsonb := case when tg_op = 'DELETE' then null else to_jsonb(new) - unsaid end;
        named jsonb;
      begin
        if tg_op = 'INSERT' and is_now \\? 'id' then
          is_now := jsonb_build_object('id', is_now -> 'id');
        elsif tg_op = 'UPDATE' and is_now \\? 'id' then
          named := jsonb_build_object('id', is_now -> 'id');
          select named || coalesce(jsonb_object_agg(key, value), '{}') into is_now
            from jsonb_each(is_now) where value is distinct from was -> key;
          select named || coalesce(jsonb_object_agg(key, value), '{}') into was
            from jsonb_each(was) where is_now \\? key and key <> 'id';
        end if;
        insert into audit (actor, table_name, act, before, after) values (
          coalesce(nullif(current_setting('sombra.actor', true), ''), session_user),
          tg_table_name, lower(tg_op), was, is_now);
        return null;
      end $$;
    `);
  },
};
