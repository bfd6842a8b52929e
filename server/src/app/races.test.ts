import type { ImportProgress, SavedView, KeptSpecies } from '@sombra/contract';
import { shippedSpecies } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { rebuildAll } from '../record/derive';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';

let town: TestTown;
let cora: Visitor;
let otto: Visitor;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  otto = await Visitor.signedIn(town.url, 'otto');
});
afterAll(() => town.stop());

const statuses = (answers: readonly { status: number }[]) => answers.map(({ status }) => status).sort();
const times = <T>(count: number, act: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => act(i));

describe('two at once: one wins, the others are told', () => {
  it('a number given on the map and by a file', async () => {
    for (let round = 0; round < 6; round++) {
      const ref = `R-${String(round).padStart(4, '0')}`;
      const spot = {
        id: uuidv7(),
        treeId: uuidv7(),
        ref,
        place: 'Kelp Road',
        position: [-25.41, 36.91],
        species: null,
      };
      const rows = times(40, (i) => `${i === 20 ? ref : `F${round}-${i}`},Mole Street,-25.4,36.9`);
      const file = `ref,place,lng,lat\n${rows.join('\n')}\n`;
      const url = `/api/imports?fileName=spots.csv&id=${uuidv7()}`;
      const [added, read] = await Promise.all([
        cora.send('POST', '/api/spots', spot),
        otto.send<string>('POST', url, file, { 'content-type': 'text/csv' }),
      ]);
      expect([201, 409]).toContain(added.status);
      const last = JSON.parse(read.body.trim().split('\n').at(-1) ?? '') as ImportProgress;
      expect(last).toMatchObject({ kind: 'done', written: 40, bad: 0 });
      const kept = await town.db('spot').where({ ref }).pluck('id');
      expect(kept).toHaveLength(1);
      if (added.status === 409) expect(kept[0]).not.toBe(spot.id);
      else expect(kept[0]).toBe(spot.id);
    }
    expect((await rebuildAll(town.db)).differing).toEqual([]);
  });

  it('one name for four views of a person', async () => {
    const keep = (i: number) =>
      cora.send('POST', '/api/views', { id: uuidv7(), name: 'Urgent', path: '/inspect', query: { i: String(i) } });
    expect(statuses(await Promise.all(times(4, keep)))).toEqual([200, 400, 400, 400]);
    expect((await cora.send<SavedView[]>('GET', '/api/views')).body).toHaveLength(1);
  });

  it('a species described by four people', async () => {
    const like = shippedSpecies[0];
    const species = { ...like, botanical: 'Quercus nova' };
    const describe = (i: number) =>
      (i % 2 ? cora : otto).send('PUT', '/api/species', { species: { ...species, notes: `as ${i}` }, version: 0 });
    const first = await Promise.all(times(4, describe));
    expect(statuses(first)).toEqual([200, 409, 409, 409]);
    const change = (i: number) =>
      cora.send('PUT', '/api/species', { species: { ...species, notes: `new ${i}` }, version: 1 });
    expect(statuses(await Promise.all(times(4, change)))).toEqual([200, 409, 409, 409]);
    const { body } = await cora.send<KeptSpecies[]>('GET', '/api/species');
    expect(JSON.stringify(body)).toContain('Quercus nova');
    expect(await town.db('species').where({ botanical: 'Quercus nova' }).pluck('version')).toEqual([2]);
  });

  it('one spot withdrawn, moved and measured', async () => {
    const { spotId } = await town.addSpot('W-0007');
    const act = (i: number) =>
      i % 2
        ? cora.send('POST', '/api/spots/withdraw', { spotIds: [spotId], withdrawn: i % 4 === 1 })
        : otto.send('POST', '/api/spots/withdraw', { spotIds: [spotId], withdrawn: true });
    expect(statuses(await Promise.all(times(6, act)))).toEqual(times(6, () => 200));
    expect((await rebuildAll(town.db)).differing).toEqual([]);
  });
});
