import type { EstablishingSeason, SpotLine } from '@sombra/contract';
import { addDaysTo, type RemedySeen } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { plantedTree } from '../../testing/planted-tree';
import { openTestTown, sending, Visitor, type TestTown } from '../../testing/test-town';
import { tellEstablished } from '../care/reminding-service';
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

const clean: RemedySeen = {
  ...{ alive: 'green', signs: [], shootMm: 300, shootBeforeMm: 300, stake: 'none', rocks: 'firm' },
  ...{ mulchContact: 'clear', mulchDepthMm: 70, flareDepthMm: 0, probe: 'moist' },
};
const tree = async (ref: string, seen: RemedySeen | null, plantedDaysAgo = 800): Promise<string> => {
  const look = seen ? { on: addDaysTo(today, -10), seen } : undefined;
  return (await plantedTree(town, cora, { ref, plantedOn: addDaysTo(today, -plantedDaysAgo), look })).spotId;
};
const signing = (spotId: string, reason = '') =>
  sending(spotId, { kind: 'signed_off', facts: { signedOn: today, reason } });
const listed = async (comes: string): Promise<string[]> =>
  (await cora.send<{ lines: SpotLine[] }>('GET', `/api/spots?comes=${comes}`)).body.lines.map(({ spotId }) => spotId);

it('asks for the word of a person once all is shown, and counts each season as it comes along', async () => {
  const ready = await tree('Q-0801', clean);
  const hangs = await tree('Q-0802', { ...clean, mulchContact: 'heaped' });
  const unseen = await tree('Q-0803', null, 10);
  expect(await listed('ready')).toEqual([ready]);
  // Nobody is late with it.
  const late = (await cora.send<{ lines: SpotLine[] }>('GET', '/api/spots?due=late')).body.lines;
  expect(late.map(({ spotId }) => spotId)).not.toContain(ready);
  expect(await listed('hangs')).toEqual([hangs]);
  expect(await listed('on_the_way')).toContain(unseen);
  const seasons = async () => (await cora.send<EstablishingSeason[]>('GET', '/api/establishing')).body;
  const sum = async (part: 'planted' | 'ready' | 'established' | 'hangs') =>
    (await seasons()).reduce((all, season) => all + season[part], 0);
  expect([await sum('planted'), await sum('ready'), await sum('hangs'), await sum('established')]).toEqual([
    3, 1, 1, 0,
  ]);
  expect((await cora.record(signing(ready))).status).toBe(201);
  expect([await sum('ready'), await sum('established')]).toEqual([0, 1]);
  expect(await listed('established')).toEqual([ready]);
});

it('is signed off with a reason where something is not shown, and not without', async () => {
  const spotId = await tree('Q-0810', { ...clean, shootMm: undefined });
  const silent = await cora.record(signing(spotId));
  expect([silent.status, JSON.stringify(silent.body)]).toEqual([400, expect.stringContaining('record.facts.reason')]);
  expect((await cora.record(signing(spotId, 'two summers without a truck'))).status).toBe(201);
});

it('is signed off by a lead, not by whoever waters, nor before it was planted', async () => {
  const spotId = await tree('Q-0820', clean);
  const wes = await Visitor.signedIn(town.url, 'wes');
  expect((await wes.record(signing(spotId))).status).toBe(403);
  const { spotId: bare } = await town.addSpot('Q-0821');
  expect((await cora.record(signing(bare, 'it looks well'))).status).toBe(400);
});

it('tells its keeper once that it needs them no more', async () => {
  const spotId = await tree('Q-0830', clean);
  const email = 'last@green.example';
  const give = { id: uuidv7(), name: 'Ada Quill', email };
  expect((await cora.send('POST', `/api/spots/${spotId}/care`, give)).status).toBe(201);
  const doorway = { publicUrl: 'http://town.example' };
  expect(await tellEstablished(town.db, doorway)).toBe(0);
  await cora.record(signing(spotId));
  expect(await tellEstablished(town.db, doorway)).toBe(1);
  expect(await tellEstablished(town.db, doorway)).toBe(0);
  const letters = await town.db('mail').where({ to_address: email }).select<{ subject: string }[]>('subject');
  expect(letters.filter(({ subject }) => subject.includes('stands on its own'))).toHaveLength(1);
});

it('is not made late by a warranty that is over', async () => {
  await tree('Q-0840', { flareDepthMm: 200 });
  const [line] = (await cora.send<{ lines: SpotLine[] }>('GET', '/api/spots?ref=Q-0840')).body.lines;
  // Found ten days ago; an arborist has ninety.
  expect(line?.dueOn).toBe(addDaysTo(today, 80));
});
