import type { SpotLine } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { plantedTree } from '../../testing/planted-tree';
import { container, openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
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

const tree = async (ref: string): Promise<string> =>
  (await plantedTree(town, cora, { ref, plantedOn: addDaysTo(today, -100) })).spotId;
const removal = (spotId: string) =>
  sending(spotId, {
    kind: 'removal',
    facts: { removedOn: today, why: 'dead', stump: 'out', pitReusable: true, note: '' },
  });
const line = async (ref: string): Promise<SpotLine | undefined> =>
  (await cora.send<{ lines: SpotLine[] }>('GET', `/api/spots?ref=${ref}`)).body.lines[0];
const takeBack = (spotId: string, supersedes: string) => {
  const sent = sending(spotId, { kind: 'retraction', facts: { reason: 'the wrong tree' } });
  return { ...sent, record: { ...sent.record, supersedes } };
};
const trees = (spotId: string) => town.db('tree').where({ spot_id: spotId }).select('id', 'standing');

it('leaves the place to the next tree, which is another one; all that was recorded stays', async () => {
  const spotId = await tree('Q-0500');
  const before = await line('Q-0500');
  expect((await cora.record(removal(spotId))).status).toBe(201);
  const after = await line('Q-0500');
  expect([after?.plantedOn, after?.stage]).toEqual([null, 'ground']);
  expect(after?.treeId).not.toBe(before?.treeId);
  // The page of the one that is gone is still found.
  const old = await cora.send<{ spot: { id: string } }>('GET', `/api/trees/${before?.treeId}`);
  expect(old.body.spot.id).toBe(spotId);
  expect((await cora.spot(spotId)).records.map(({ kind }) => kind)).toEqual(
    expect.arrayContaining(['stock', 'planting', 'removal']),
  );
  // Nothing more is recorded of a tree that is gone, and it is not taken out twice.
  expect((await cora.record(removal(spotId))).status).toBe(400);
  const look = { kind: 'remedy' as const, facts: { remedy: 'thin_mulch' as const, doneOn: today } };
  expect((await cora.record(sending(spotId, look))).status).toBe(400);
});

it('is taken back while nothing is on record of the next: the same tree stands again', async () => {
  const spotId = await tree('Q-0510');
  const before = await line('Q-0510');
  const gone = removal(spotId);
  await cora.record(gone);
  expect((await cora.record(takeBack(spotId, gone.record.id))).status).toBe(201);
  const after = await line('Q-0510');
  expect([after?.treeId, after?.plantedOn]).toEqual([before?.treeId, before?.plantedOn]);
  expect((await trees(spotId)).filter(({ standing }) => standing as boolean)).toHaveLength(1);
});

it('is not taken back once the next tree is measured', async () => {
  const spotId = await tree('Q-0520');
  const gone = removal(spotId);
  await cora.record(gone);
  const { version } = (await cora.spot(spotId)).spot;
  expect((await cora.record(sending(spotId, { kind: 'stock', facts: container }, version))).status).toBe(201);
  expect((await cora.record(takeBack(spotId, gone.record.id))).status).toBe(409);
  expect((await line('Q-0520'))?.plantedOn).toBeNull();
});

it('by two at once is one removal', async () => {
  const spotId = await tree('Q-0530');
  const answers = await Promise.all([cora.record(removal(spotId)), cora.record(removal(spotId))]);
  expect(answers.map(({ status }) => status).sort()).toEqual([201, 400]);
  expect(await trees(spotId)).toHaveLength(2);
});
