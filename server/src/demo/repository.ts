import type { DemoDay, DemoDelivery, DemoKeeper, DemoNursery, DemoRound, DemoTicket } from '@sombra/demo';
import { addDaysTo, type ToolCounts } from '@sombra/core';
import type { Db } from '../platform/db';
import { holdPlaces } from '../orders/repository';

export async function insertDay(db: Db, day: DemoDay): Promise<void> {
  const { pace } = day;
  const ruledH = day.spotIds.length * 2.6;
  await db('planting_day').insert({
    id: day.id,
    on_day: day.onDay,
    title: day.title,
    capacity: day.capacity,
    arrangements: JSON.stringify(day.arrangements),
    gathering: day.gathering && db.raw('st_setsrid(st_makepoint(?, ?), 4326)', [...day.gathering]),
    state: pace === null ? 'planned' : 'closed',
    worked:
      pace === null
        ? null
        : JSON.stringify({ ruledH, workedH: ruledH * pace, heavySoilShare: 0.2, heavyStockShare: 0 }),
    made_by: 'Inês Tavoro',
  });
  await insertHelpers(db, day);
  const rows = day.spotIds.map((spotId) => ({ day_id: day.id, spot_id: spotId }));
  if (rows.length > 0) await db.batchInsert('planting_day_spot', rows, 1000);
}

async function insertHelpers(db: Db, { id: dayId, helpers }: DemoDay): Promise<void> {
  for (const { signIn, guardianId, noLifting, waiver, ...person } of helpers) {
    const user =
      signIn === null
        ? undefined
        : await db('app_user').where({ sign_in: signIn }).first<{ id: string } | undefined>('id');
    await db('day_person').insert({
      ...person,
      day_id: dayId,
      guardian_id: guardianId,
      no_lifting: noLifting,
      waiver_version: waiver ? 1 : null,
      waiver_signed_by: waiver ? person.name : null,
      user_id: user?.id ?? null,
      source: 'link',
    });
  }
}

/** What stands in the shed of the demo town. */
export async function insertTools(db: Db): Promise<void> {
  const counts: ToolCounts = {
    spade: 24,
    narrow_spade: 3,
    shovel: 12,
    pick: 2,
    bar: 2,
    bolt_cutter: 2,
    knife: 12,
    root_saw: 8,
    pruners: 10,
    rake: 10,
    sheet: 10,
    straight_edge: 9,
    tape: 12,
    probe: 12,
    driver: 4,
    barrow: 8,
    trolley: 2,
    bucket: 24,
    hose: 3,
    cones: 48,
    gloves: 40,
    glasses: 40,
    vest: 36,
    first_aid: 10,
  };
  await db('tool_store').insert(Object.entries(counts).map(([tool, count]) => ({ tool, count })));
}

export async function insertTicket(db: Db, ticket: DemoTicket): Promise<void> {
  const area = JSON.stringify({ type: 'MultiPolygon', coordinates: [[ticket.ring]] });
  await db('locate_ticket').insert({
    id: ticket.id,
    number: ticket.number,
    area: db.raw('st_setsrid(st_geomfromgeojson(?), 4326)', [area]),
    purpose: ticket.purpose,
    raised_by: 'Inês Tavoro',
    raised_at: `${addDaysTo(ticket.validFrom, -5)}T09:00:00Z`,
    valid_from: ticket.validFrom,
    valid_until: ticket.validUntil,
  });
  await db('ticket_reply').insert(
    ticket.replies.map((reply) => ({
      ticket_id: ticket.id,
      utility: reply.utility,
      state: reply.state,
      replied_on: reply.repliedOn,
      tolerance_mm: reply.toleranceMm,
      note: reply.note,
    })),
  );
}

export async function insertRound(db: Db, round: DemoRound): Promise<void> {
  await db('field_round').insert({
    id: round.id,
    title: round.title,
    from_day: round.fromDay,
    until_day: round.untilDay,
  });
}

/** An order with the list it came of, and the delivery with the trees looked at so far. */
export async function insertDelivery(db: Db, made: DemoDelivery, nurseries: readonly DemoNursery[]): Promise<void> {
  const by = 'Inês Tavoro';
  const madeAt = `${made.orderedOn}T10:00:00Z`;
  const spots = await db('spot')
    .whereIn(
      'ref',
      made.lots.flatMap((lot) => lot.spots),
    )
    .select<{ id: string; ref: string }[]>('id', 'ref');
  const asked = {
    id: made.listId,
    title: `Winter list for ${made.nursery}`,
    spotIds: spots.map(({ id }) => id),
    budget: null,
    plantOn: addDaysTo(made.orderedOn, 45),
    stockKinds: [...new Set(made.lots.map(({ stockKind }) => stockKind))],
    locks: [],
  };
  await db('season_list').insert({
    id: made.listId,
    title: asked.title,
    state: 'accepted',
    asked: JSON.stringify(asked),
    made_by: by,
    made_at: madeAt,
  });
  const lines = made.lots.map(({ species, stockKind, caliperMm, price, spots: refs }) => ({
    species,
    stockKind,
    caliperMm,
    heightM: Math.round((1.4 + caliperMm / 22) * 10) / 10,
    price,
    spots: refs,
    count: refs.length,
  }));
  const terms = nurseries.find(({ name }) => name === made.nursery)?.terms ?? '';
  await db('nursery_order').insert({
    id: made.orderId,
    list_id: made.listId,
    number: made.number,
    nursery: made.nursery,
    body: JSON.stringify({ lines, terms, currency: 'EUR', plantOn: asked.plantOn }),
    made_by: by,
    made_at: madeAt,
  });
  const unplanted = await db('spot')
    .whereIn(
      'id',
      spots.map(({ id }) => id),
    )
    .whereNotExists(db('field_record').whereRaw(`spot_id = spot.id and kind = 'planting'`).select(db.raw('1')))
    .pluck('id');
  await holdPlaces(db, made.orderId, unplanted as string[]);
  if (made.arrivedOn) await insertArrival(db, made, made.arrivedOn);
}

async function insertArrival(db: Db, made: DemoDelivery, arrivedOn: string): Promise<void> {
  const by = 'Bento Quarel';
  await db('delivery').insert({
    id: made.deliveryId,
    order_id: made.orderId,
    arrived_on: arrivedOn,
    covered: true,
    moist: true,
    holding: made.holding,
    made_by: by,
  });
  await db('delivery_water').insert({ delivery_id: made.deliveryId, on_day: addDaysTo(arrivedOn, 1), by_name: by });
  await db('delivery_lot').insert(
    made.lots.map((lot, position) => ({
      id: lot.id,
      delivery_id: made.deliveryId,
      position,
      species: lot.species,
      stock_kind: lot.stockKind,
      caliper_mm: lot.caliperMm,
      price: lot.price,
      spots: JSON.stringify(lot.spots),
      expected: lot.spots.length,
      arrived: lot.arrived,
    })),
  );
  const trees = made.lots.flatMap((lot) =>
    lot.trees.map(({ id, tree }, i) => ({
      id,
      lot_id: lot.id,
      tree: JSON.stringify(tree),
      seen_by: by,
      seen_at: `${arrivedOn}T${String(9 + Math.floor(i / 6)).padStart(2, '0')}:${String((i % 6) * 9).padStart(2, '0')}:00Z`,
    })),
  );
  if (trees.length > 0) await db('lot_tree').insert(trees);
}

/** Keepers without a link: one is made for them when somebody asks for it. */
export async function insertCare(
  db: Db,
  { words, spotId, treeId, bucketL, heardOn, ...keeper }: DemoKeeper,
): Promise<void> {
  await db('care_keeper').insert({
    ...keeper,
    spot_id: spotId,
    tree_id: treeId,
    bucket_l: bucketL,
    heard_on: heardOn,
    made_by: 'Inês Tavoro',
  });
  for (const { id, kind, words: said, on } of words) {
    await db('care_word').insert({ id, keeper_id: keeper.id, kind, words: said, said_at: `${on}T10:00:00Z` });
  }
}
