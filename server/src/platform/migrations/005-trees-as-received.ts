import type { Knex } from 'knex';

/**
 * A lot is judged by the trees that were opened, one record each. What an older version kept of a lot (the worst tree,
 * how many were opened and bad, a picture) becomes the lot's first tree and words in its reason.
 */
export const treesAsReceived = {
  name: '005-trees-as-received',
  async up(db: Knex): Promise<void> {
    await db.raw(statements);
    await db.raw(`create trigger audit_lot_tree after insert or update or delete on lot_tree
      for each row execute function write_audit()`);
  },
};

const statements = `
  create table lot_tree (
    id uuid primary key,
    lot_id uuid not null references delivery_lot (id),
    tree jsonb not null,
    seen_by text not null,
    seen_at timestamptz not null,
    received_at timestamptz not null default now(),
    supersedes uuid unique references lot_tree (id),
    photo_stored_as text,
    photo_content_type text,
    photo_lng double precision check (photo_lng between -180 and 180),
    photo_lat double precision check (photo_lat between -90 and 90),
    check ((photo_lng is null) = (photo_lat is null))
  );
  create index lot_tree_lot on lot_tree (lot_id, seen_at);
  -- What was seen is never changed; only its picture may follow later.
  grant select, insert, update (photo_stored_as, photo_content_type, photo_lng, photo_lat) on lot_tree to sombra_app;

  insert into lot_tree (id, lot_id, tree, seen_by, seen_at, photo_stored_as, photo_content_type)
  select gen_random_uuid(), lot.id,
    (lot.tree - 'topRootsDepthMm' - 'bestFaceDeg') || jsonb_build_object(
      'probes', (select coalesce(jsonb_agg(jsonb_build_object('depthMm', depth, 'nature', 'structural')), '[]'::jsonb)
                 from jsonb_array_elements(lot.tree -> 'topRootsDepthMm') depth),
      'surplusLeftMm', null, 'soilShows', null, 'ties', null,
      'face', case when jsonb_typeof(lot.tree -> 'bestFaceDeg') = 'number' then 'marked' end),
    delivery.made_by, delivery.made_at, lot.photo_stored_as, lot.photo_content_type
  from delivery_lot lot join delivery on delivery.id = lot.delivery_id
  where lot.tree is not null;
  update delivery_lot set reason = left(trim(reason || ' (' || opened || ' opened, ' || bad || ' bad)'), 400)
  where opened > 0;

  alter table delivery add column practice_id text not null default 'field-default';
  alter table delivery add column practice_version integer not null default 1 check (practice_version > 0);
  update delivery set practice_id = coalesce(programme.practice_id, 'field-default'),
    practice_version = coalesce(programme.practice_version, 1) from programme;
`;
