import type { Desk } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { plantedTree } from '../../testing/planted-tree';
import { openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let wes: Visitor;
let today: string;
beforeAll(async () => {
  town = await openTestTown();
  [cora, wes] = await Promise.all([Visitor.signedIn(town.url, 'cora'), Visitor.signedIn(town.url, 'wes')]);
  today = await programmeToday(town.db);
});
afterAll(() => town.stop());

const tree = async (ref: string): Promise<string> =>
  (await plantedTree(town, cora, { ref, plantedOn: addDaysTo(today, -300) })).spotId;
const hazard = (spotId: string) =>
  sending(spotId, {
    kind: 'hazard',
    facts: { seenOn: today, hazard: 'branch_hanging', called: '', cordoned: false, note: '' },
  });
const closing = (spotId: string, hazardId: string) =>
  sending(spotId, { kind: 'hazard_closed', facts: { closedOn: today, hazardId, reason: 'branch taken down' } });
const first = async () => (await cora.send<Desk>('GET', '/api/desk')).body.lines[0];

it('whoever waters may tell of a hazard; it stands at the top of the desk until a lead closes it, once', async () => {
  const spotId = await tree('Q-0950');
  const told = hazard(spotId);
  expect((await wes.record(told)).status).toBe(201);
  expect(await first()).toMatchObject({ kind: 'hazard', level: 'urgent' });
  expect((await wes.record(closing(spotId, told.record.id))).status).toBe(403);
  expect((await cora.record(closing(spotId, told.record.id))).status).toBe(201);
  expect((await first())?.kind).not.toBe('hazard');
  const again = await cora.record(closing(spotId, told.record.id));
  expect([again.status, again.body]).toMatchObject([
    400,
    { title: expect.stringContaining('closed already') as string },
  ]);
});

it('of another tree is not closed here, and none is told of a place without a tree', async () => {
  const [one, other] = [await tree('Q-0951'), await tree('Q-0952')];
  const told = hazard(one);
  await wes.record(told);
  expect((await cora.record(closing(other, told.record.id))).status).toBe(400);
  const { spotId } = await town.addSpot('Q-0953');
  expect((await wes.record(hazard(spotId))).status).toBe(400);
  await cora.record(closing(one, told.record.id));
});

it('told twice by two at once is two hazards, each closed by itself', async () => {
  const spotId = await tree('Q-0954');
  const [a, b] = [hazard(spotId), hazard(spotId)];
  const answers = await Promise.all([wes.record(a), cora.record(b)]);
  expect(answers.map(({ status }) => status)).toEqual([201, 201]);
  await cora.record(closing(spotId, a.record.id));
  expect((await first())?.kind).toBe('hazard');
  const closed = await Promise.all([
    cora.record(closing(spotId, b.record.id)),
    cora.record(closing(spotId, b.record.id)),
  ]);
  expect(closed.map(({ status }) => status).sort()).toEqual([201, 400]);
});
