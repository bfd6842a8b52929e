import type { Knex } from 'knex';

/** Who keeps a planted tree, the links they got (their fingerprints alone), and what they told by them. */
export const care = {
  name: '013-care',
  async up(db: Knex): Promise<void> {
    await db.raw(`
      create table care_keeper (
        id uuid primary key,
        spot_id uuid not null references spot (id),
        tree_id uuid not null references tree (id),
        name text not null check (length(name) between 1 and 80),
        email text check (length(email) between 3 and 120),
        bucket_l double precision not null check (bucket_l between 1 and 50),
        deputy_of uuid references care_keeper (id),
        from_day date,
        until_day date,
        wants_letters boolean not null default true,
        since date not null,
        heard_on date,
        reminded_on date,
        made_by text not null,
        made_at timestamptz not null default now(),
        revoked_at timestamptz,
        check ((deputy_of is null) = (from_day is null) and (from_day is null) = (until_day is null)),
        check (until_day >= from_day)
      );
      create index care_keeper_spot on care_keeper (spot_id);
      create index care_keeper_deputy on care_keeper (deputy_of) where deputy_of is not null;

      create table care_link (
        token_hash text primary key,
        keeper_id uuid not null references care_keeper (id),
        made_at timestamptz not null default now()
      );
      create index care_link_keeper on care_link (keeper_id, made_at);

      create table care_word (
        id uuid primary key,
        keeper_id uuid not null references care_keeper (id),
        kind text not null check (kind in ('watered','complaint','help')),
        words text not null default '' check (length(words) <= 400),
        litres double precision,
        said_at timestamptz not null default now(),
        answered_at timestamptz,
        answered_by text,
        answer text not null default '' check (length(answer) <= 400),
        check ((kind = 'watered') = (litres is not null)),
        check ((answered_at is null) = (answered_by is null))
      );
      create index care_word_keeper on care_word (keeper_id, said_at);
      create index care_word_open on care_word (keeper_id) where answered_at is null and kind <> 'watered';
    `);
    // What is kept of a tree's water follows from its records: it is worked out anew, with when a tree began to ask.
    await db.raw(`
      alter table tree_water add column asking_since date, add column probe_every integer,
        add column probe_from date, add column probe_until date, add column read_on date;
      alter table water_checkpoint add column asking_since date;
      insert into water_due select spot_id from tree_water on conflict do nothing;
      delete from water_checkpoint;
      delete from tree_water;
    `);
    for (const table of ['care_keeper', 'care_word']) {
      await db.raw(`create trigger audit_${table} after insert or update or delete on ${table}
        for each row execute function write_audit_bare()`);
    }
    await db.raw(`
      grant select, insert, update on care_keeper, care_word to sombra_app;
      grant select, insert, delete on care_link to sombra_app;
    `);
  },
};
