import { fieldDefault } from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { derivedBy } from '../../record/repository';
import { rebuildAll, renew } from '../../record/derive';
import { loam } from '../../../testing/test-town';
import { openDatabase } from '../db';
import { migrate } from '.';

const ownerUrl = (database: string) => (process.env['TEST_OWNER_URL'] ?? '').replace('DATABASE', database);

async function emptyDatabase(): Promise<Knex> {
  const name = `old_${randomUUID().replaceAll('-', '')}`;
  const client = new pg.Client({ connectionString: ownerUrl('postgres') });
  await client.connect();
  await client.query(`create database ${name}`);
  await client.end();
  return openDatabase(ownerUrl(name), { maxConnections: 2 });
}

describe('migration 002', () => {
  it('brings data of the version before along and works out what that version had derived', async () => {
    const db = await emptyDatabase();
    await migrate(db, 1);
    const [placeId, spotId] = [randomUUID(), randomUUID()];
    await db('place').insert({ id: placeId, name: 'Mole Street' });
    await db('spot').insert({
      id: spotId,
      ref: 'C-0101',
      place_id: placeId,
      position: db.raw('st_setsrid(st_makepoint(-25.4, 36.9), 4326)'),
      changed_by: 'old',
    });
    await db('field_record').insert({
      id: uuidv7(),
      kind: 'ground',
      spot_id: spotId,
      facts: JSON.stringify(loam),
      recorded_at: '2025-03-01T10:00:00Z',
      recorded_by: 'old',
      device: 'old',
    });
    await db('spot_state').insert({ spot_id: spotId, stage: 'stock', level: 'good' });

    await migrate(db);
    expect((await derivedBy(db)).version).toBe(0);
    await renew(db, 'renewal');

    expect(await db('spot').first('added_on')).toEqual({ added_on: '2025-03-01' });
    expect(await db('spot_period').select('from_day', 'until_day', 'stage', 'lng', 'lat')).toEqual([
      { from_day: '2025-03-01', until_day: null, stage: 'ground', lng: -25.4, lat: 36.9 },
    ]);
    expect(await db('decision').select('kind')).toEqual([{ kind: 'measure_ground' }]);
    expect(await rebuildAll(db)).toEqual({ spots: 1, differing: [] });
    await db.destroy();
  });

  it('keeps the practice the programme works by', async () => {
    const db = await emptyDatabase();
    await migrate(db, 1);
    const { id, version } = fieldDefault;
    await db('practice').insert({ id, version, body: JSON.stringify(fieldDefault) });
    await db('programme').insert({ name: 'Old', time_zone: 'UTC', practice_id: id, practice_version: version });
    await migrate(db);
    expect(await db('programme').first('name', 'practice_id', 'planting_windows')).toEqual({
      name: 'Old',
      practice_id: id,
      planting_windows: [],
    });
    await db.destroy();
  });
});

describe('migration 003', () => {
  it('takes tickets of before as cleared, and ships rules and species', async () => {
    const db = await emptyDatabase();
    await migrate(db, 2);
    const area = JSON.stringify({
      type: 'MultiPolygon',
      coordinates: [
        [
          [
            [-25.4, 36.9],
            [-25.39, 36.9],
            [-25.39, 36.91],
            [-25.4, 36.9],
          ],
        ],
      ],
    });
    const id = randomUUID();
    await db('locate_ticket').insert({
      id,
      number: 'LC-1',
      area: db.raw('st_setsrid(st_geomfromgeojson(?), 4326)', [area]),
      valid_from: '2026-11-01',
      valid_until: '2026-11-30',
    });
    await migrate(db);
    expect(await db('locate_ticket').first('number', 'state', 'purpose')).toEqual({
      number: 'LC-1',
      state: 'open',
      purpose: 'Planting',
    });
    expect(await db('ticket_reply').select('ticket_id', 'state', 'replied_on')).toEqual([
      { ticket_id: id, state: 'clear', replied_on: '2026-11-01' },
    ]);
    expect(await db('rules').first('version')).toEqual({ version: 1 });
    expect(await db('species').where({ botanical: 'Quercus suber' }).first('family')).toEqual({ family: 'Fagaceae' });
    await db.destroy();
  });
});

describe('migration 005', () => {
  it('makes the tree a lot was judged by its first, and keeps how many were opened', async () => {
    const db = await emptyDatabase();
    await migrate(db, 4);
    const [listId, orderId, deliveryId] = [randomUUID(), randomUUID(), randomUUID()];
    await db('season_list').insert({ id: listId, title: 'Old list', state: 'accepted', asked: '{}', made_by: 'old' });
    await db('nursery_order').insert({
      id: orderId,
      list_id: listId,
      nursery: 'Old',
      number: 'O-1',
      body: '{}',
      made_by: 'old',
    });
    await db('delivery').insert({ id: deliveryId, order_id: orderId, arrived_on: '2026-11-01', made_by: 'Bia' });
    const lot = (position: number, change: object) => ({
      id: randomUUID(),
      delivery_id: deliveryId,
      position,
      species: 'Quercus ilex',
      stock_kind: 'container',
      caliper_mm: 50,
      price: 90,
      expected: 24,
      ...change,
    });
    const tree = { caliperMm: 50, topRootsDepthMm: [30, 160], circlingPct: 75, bestFaceDeg: 90, kinked: null };
    await db('delivery_lot').insert([
      lot(0, { arrived: 24, opened: 13, bad: 5, tree: JSON.stringify(tree), verdict: 'return', reason: 'pot-bound' }),
      lot(1, {}),
    ]);
    await migrate(db);
    expect(await db('lot_tree').select('seen_by', 'tree')).toEqual([
      {
        seen_by: 'Bia',
        tree: {
          caliperMm: 50,
          probes: [
            { depthMm: 30, nature: 'structural' },
            { depthMm: 160, nature: 'structural' },
          ],
          circlingPct: 75,
          kinked: null,
          surplusLeftMm: null,
          soilShows: null,
          ties: null,
          face: 'marked',
        },
      },
    ]);
    expect(await db('delivery_lot').orderBy('position').pluck('reason')).toEqual(['pot-bound (13 opened, 5 bad)', '']);
    await db.destroy();
  });
});

describe('migration 006', () => {
  it('keeps the times of records, orders delivered twice, and knows which places wait for a tree', async () => {
    const db = await emptyDatabase();
    await migrate(db, 5);
    const { id, version } = fieldDefault;
    await db('practice').insert({ id, version, body: JSON.stringify(fieldDefault) });
    await db('programme').insert({ name: 'Old', time_zone: 'UTC', practice_id: id, practice_version: version });
    const placeId = randomUUID();
    await db('place').insert({ id: placeId, name: 'Mole Street' });
    const spots = ['C-0101', 'C-0102'].map((ref) => ({ id: randomUUID(), ref }));
    for (const spot of spots) {
      const position = db.raw('st_setsrid(st_makepoint(-25.4, 36.9), 4326)');
      await db('spot').insert({ ...spot, place_id: placeId, position, added_on: '2025-01-01', changed_by: 'old' });
    }
    const recordId = uuidv7();
    await db('field_record').insert({
      id: recordId,
      kind: 'ground',
      spot_id: spots[0]?.id,
      facts: JSON.stringify(loam),
      recorded_at: '2025-03-01T10:00:00Z',
      recorded_by: 'old',
      device: 'old',
    });
    const listId = randomUUID();
    await db('season_list').insert({ id: listId, title: 'Old list', state: 'accepted', asked: '{}', made_by: 'old' });
    const orders = ['2025-001', '2025-002'].map((number) => ({ id: randomUUID(), number }));
    for (const [i, order] of orders.entries()) {
      const body = JSON.stringify({ lines: [{ spots: i === 0 ? ['C-0101', 'C-0102'] : ['C-0101', 'gone'] }] });
      const madeAt = `2025-0${i + 1}-01T00:00:00Z`;
      await db('nursery_order').insert({
        ...order,
        list_id: listId,
        nursery: 'Old',
        body,
        made_by: 'old',
        made_at: madeAt,
      });
    }
    const delivered = { order_id: orders[0]?.id, arrived_on: '2025-02-01', made_by: 'old' };
    await db('delivery').insert([
      { ...delivered, id: randomUUID() },
      { ...delivered, id: randomUUID() },
    ]);

    await migrate(db);
    const kept = await db('field_record').first<{ happened_at: Date; clock: string }>('happened_at', 'clock');
    expect([kept.happened_at.toISOString(), kept.clock]).toEqual(['2025-03-01T10:00:00.000Z', 'kept']);
    expect(await db('programme').first('name', 'demo', 'units', 'version')).toEqual({
      name: 'Old',
      demo: true,
      units: 'metric',
      version: 1,
    });
    // The newer order holds the place both named; the other place stays with the older one.
    const held = await db('ordered_place as held')
      .join('spot', 'spot.id', 'held.spot_id')
      .join('nursery_order as placed', 'placed.id', 'held.order_id')
      .orderBy('spot.ref')
      .select('spot.ref', 'placed.number');
    expect(held).toEqual([
      { ref: 'C-0101', number: '2025-002' },
      { ref: 'C-0102', number: '2025-001' },
    ]);
    expect(await db('delivery').orderBy('order_again').pluck('order_again')).toEqual([false, true]);
    await expect(db('delivery').insert({ ...delivered, id: randomUUID() })).rejects.toThrow('delivery_of_order');
    await db.destroy();
  });
});

describe('migration 010', () => {
  it('keeps the days there were, with the usual hours, and takes people, mail and weather', async () => {
    const db = await emptyDatabase();
    await migrate(db, 9);
    const id = randomUUID();
    await db('planting_day').insert({ id, on_day: '2026-03-01', title: 'Mole Street' });
    await migrate(db);
    expect(await db('planting_day').first('title', 'kind', 'state', 'capacity', 'version')).toEqual({
      title: 'Mole Street',
      kind: 'volunteers',
      state: 'planned',
      capacity: 0,
      version: 1,
    });
    expect((await db('waiver').first<{ text: string }>('text')).text).toContain('sharp tools');
    const person = {
      day_id: id,
      name: 'Ana',
      skill: 'leads',
      minor: false,
      no_lifting: false,
      photos: true,
      source: 'desk',
    };
    // A held place has a time it is held until, any other has none.
    await expect(db('day_person').insert({ id: randomUUID(), ...person, state: 'held' })).rejects.toThrow(/check/);
    await db('day_person').insert({ id: randomUUID(), ...person, state: 'confirmed' });
    const trail = await db('audit').where({ table_name: 'day_person' }).first<{ after: object }>('after');
    expect(Object.keys(trail.after)).toEqual(['id']);
    await db.destroy();
  });
});
