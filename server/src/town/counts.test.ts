import type { SpotFilter } from '@sombra/contract';
import { container, loam, openTestTown, planting, sending, Visitor, type TestTown } from '../../testing/test-town';
import { addDaysTo } from '@sombra/core';
import { programmeToday } from '../programme/today';
import { openDatabase } from '../platform/db';
import { insertSpots, placeIds } from '../spots/repository';
import { deriveAndKeep } from '../record/derive';
import { v7 as uuidv7 } from 'uuid';
import { facets, listSpots } from './counts-service';
import { choicesOf, countLines, waitsOf } from './repository';

let town: TestTown;
let cora: Visitor;
let today: string;
const ids: Record<string, string> = {};

/** Places the spots of a list stand at, each with its species. */
const spotsThere: readonly (readonly [string, string, string | null])[] = [
  ['K-1', 'Kiln Square', 'Celtis australis'],
  ['K-2', 'Kiln Square', null],
  ['K-3', 'Kiln Square', 'Tilia tomentosa'],
  ['M-1', 'Mole Street', 'Celtis australis'],
  ['M-2', 'Mole Street', 'Celtis australis'],
];

beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
  await town.db.transaction(async (trx) => {
    const places = await placeIds(trx, ['Kiln Square', 'Mole Street'], uuidv7);
    const spots = spotsThere.map(([ref, place, species]) => ({
      id: (ids[ref] = uuidv7()),
      treeId: uuidv7(),
      ref,
      species,
      placeId: places.get(place) ?? '',
      addedOn: addDaysTo(today, -500),
      lng: -25.4,
      lat: 36.9,
    }));
    await insertSpots(trx, spots, 'test');
    await deriveAndKeep(
      trx,
      spots.map(({ id }) => id),
    );
  });
  for (const ref of ['K-1', 'M-1']) {
    await cora.record(sending(ids[ref] ?? '', { kind: 'ground', facts: loam }, 1));
    await cora.record(sending(ids[ref] ?? '', { kind: 'stock', facts: container }, 2));
  }
});
afterAll(() => town.stop());

const filters: readonly SpotFilter[] = [
  {},
  { stage: ['ground'] },
  { stage: ['ground', 'inspect'] },
  { level: ['good', 'watch'] },
  { place: ['Kiln Square'] },
  { place: ['Nowhere'] },
  { species: ['Celtis australis'], planted: 'no' },
  { planted: 'yes' },
  { stage: ['inspect'], place: ['Mole Street'] },
  { stage: ['ground'], species: ['Tilia tomentosa'] },
];

const inOrder = <T>(rows: readonly T[]) => [...rows].map((row) => JSON.stringify(row)).sort();

/** What is kept by place says what counting the spots themselves says. */
async function agree(): Promise<void> {
  for (const filter of filters) {
    const { waits, ...choices } = await facets(town.db, filter, today);
    expect({ filter, choices }).toEqual({ filter, choices: await choicesOf(town.db, filter, today) });
    expect(inOrder(waits)).toEqual(inOrder(await waitsOf(town.db, filter, today)));
    const page = await listSpots(town.db, { ...filter, sort: 'ref', down: false, offset: 0, limit: 2 }, today);
    expect(page.total).toBe(await countLines(town.db, filter, today));
  }
}

describe('counts kept by place', () => {
  it('say what counting says, before and after each kind of change', async () => {
    await agree();
    await cora.record(sending(ids['K-1'] ?? '', planting(addDaysTo(today, -30))));
    await agree();
    const species = { species: 'Acer campestre', reason: 'asked for by the school' };
    await town.db('tree').where({ spot_id: ids['M-2'], standing: true }).update({ species: species.species });
    await agree();
    expect((await facets(town.db, {}, today)).species).toContainEqual({ name: 'Acer campestre', count: 1 });
    await cora.send('POST', '/api/spots/withdraw', { spotIds: [ids['K-3']], withdrawn: true });
    await agree();
    expect((await facets(town.db, {}, today)).species.map(({ name }) => name)).not.toContain('Tilia tomentosa');
    const { spotId } = await town.addSpot('M-9');
    await agree();
    // To another place, as a file may set it.
    const [kiln] = await town.db('place').where({ name: 'Kiln Square' }).pluck('id');
    await town.db.transaction(async (trx) => {
      await trx('spot').where({ id: spotId }).update({ place_id: kiln });
      await deriveAndKeep(trx, [spotId]);
    });
    await agree();
    expect((await facets(town.db, {}, today)).places).toContainEqual({ name: 'Kiln Square', count: 3 });
  });

  it('count what another process stored, whenever its transaction ends', async () => {
    const other = openDatabase(town.appUrl);
    try {
      const before = await facets(town.db, {}, today);
      const act = await other.transaction();
      await act('tree').where({ spot_id: ids['K-2'], standing: true }).update({ species: 'Fagus sylvatica' });
      // Begun before somebody else's act, ended after it.
      await cora.record(sending(ids['M-1'] ?? '', { kind: 'ground', facts: { ...loam, compacted: true } }, 3));
      expect((await facets(town.db, {}, today)).species).toEqual(before.species);
      await act.commit();
      expect((await facets(town.db, {}, today)).species).toContainEqual({ name: 'Fagus sylvatica', count: 1 });
      await agree();
    } finally {
      await other.destroy();
    }
  });

  it('count nothing anew for changes that came with a backup of another cluster', async () => {
    const [place] = await town.db('place').limit(1).pluck('id');
    await town.db.raw(`insert into place_change (xid, place_id) values ('999999999'::xid8, ?)`, [place]);
    await facets(town.db, {}, today);
    const asked: string[] = [];
    const listen = ({ sql }: { sql: string }) => void asked.push(sql);
    town.db.on('query', listen);
    await facets(town.db, {}, today);
    town.db.off('query', listen);
    expect(asked).toHaveLength(1);
  });

  it('are shared by all who ask at once', async () => {
    const asked: string[] = [];
    const listen = ({ sql }: { sql: string }) => void asked.push(sql);
    await town.addSpot('M-10');
    town.db.on('query', listen);
    await Promise.all(Array.from({ length: 8 }, () => facets(town.db, {}, today)));
    town.db.off('query', listen);
    // What changed, and the place where it did: once each.
    expect(asked).toHaveLength(2);
    expect(asked[1]).toContain('place_id = any');
  });
});
