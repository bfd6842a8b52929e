import { fieldDefault } from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { derivedVersion } from '../../record/repository';
import { rebuildAll, rebuildIfStale } from '../../record/derive';
import { loam } from '../../testing/test-town';
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
    expect(await derivedVersion(db)).toBe(0);
    await db.transaction(rebuildIfStale);

    expect(await db('spot').first('added_on')).toEqual({ added_on: '2025-03-01' });
    expect(await db('spot_period').select('from_day', 'until_day', 'stage', 'lng', 'lat')).toEqual([
      { from_day: '2025-03-01', until_day: null, stage: 'stock', lng: -25.4, lat: 36.9 },
    ]);
    expect(await db('decision').select('kind')).toEqual([{ kind: 'measure_stock' }]);
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
