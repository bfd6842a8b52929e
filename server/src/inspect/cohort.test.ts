import type { Cohort } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { plantedTree } from '../../testing/planted-tree';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: string;
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

async function tree(ref: string, species: string, of: { shootMm: number; plantedOn?: string }): Promise<string> {
  const look = { on: addDaysTo(today, -3), seen: { shootMm: of.shootMm, stake: 'none' } } as const;
  const { treeId } = await plantedTree(town, cora, { ref, plantedOn: of.plantedOn ?? '2025-01-10', look });
  await town.db('tree').where({ id: treeId }).update({ species });
  return treeId;
}
const cohort = (treeId: string) => cora.send<Cohort>('GET', `/api/trees/${treeId}/cohort`);

it('holds a tree beside the others of its species, season and stock, without itself', async () => {
  const own = await tree('Q-0400', 'Celtis australis', { shootMm: 90 });
  await tree('Q-0401', 'Celtis australis', { shootMm: 200 });
  await tree('Q-0402', 'Celtis australis', { shootMm: 240 });
  await tree('Q-0403', 'Tilia tomentosa', { shootMm: 300 });
  await tree('Q-0404', 'Celtis australis', { shootMm: 310, plantedOn: '2024-01-10' });
  const { body } = await cohort(own);
  expect(body).toMatchObject({ species: 'Celtis australis', season: 2024, stockKind: 'container', others: 2 });
  expect(body.measures.find(({ measure }) => measure === 'shootMm')).toEqual({
    measure: 'shootMm',
    own: 90,
    values: expect.arrayContaining([200, 240]) as number[],
  });
  expect(body.measures.map(({ measure }) => measure)).not.toContain('flareDepthMm');
});

it('holds what an instrument gave beside what the same one gave at the others, and no other', async () => {
  const read = async (ref: string, device: string, value: number) => {
    const look = { on: addDaysTo(today, -3), seen: { instruments: [{ kind: 'electrical', device, value }] } } as const;
    const { treeId } = await plantedTree(town, cora, { ref, plantedOn: '2025-01-10', look });
    await town.db('tree').where({ id: treeId }).update({ species: 'Quercus ilex' });
    return treeId;
  };
  const own = await read('Q-0420', 'Meter 1', 9);
  await read('Q-0421', 'Meter 1', 14);
  await read('Q-0422', 'Meter 2', 50);
  await tree('Q-0423', 'Quercus ilex', { shootMm: 200 });
  const { body } = await cohort(own);
  expect(body.others).toBe(3);
  expect(body.instruments).toEqual([{ kind: 'electrical', device: 'Meter 1', own: 9, values: [14] }]);
});

it('is none of a tree that is not planted, or not there', async () => {
  const { treeId } = await town.addSpot('Q-0410');
  expect((await cohort(treeId)).status).toBe(400);
  expect((await cohort('0190a5c2-0000-7000-8000-00000000dead')).status).toBe(404);
});
