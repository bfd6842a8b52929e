import type { Assignment, SeekLooksProgress, WorthList } from '@sombra/contract';
import { addDaysTo, type RemedySeen } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { plantedTree } from '../../testing/planted-tree';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { fieldPeople } from '../assignments/service';
import { keepHours, keepStation } from '../weather/repository';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let today: string;
const spots = new Map<string, string>();
beforeAll(async () => {
  town = await openTestTown();
  cora = await Visitor.signedIn(town.url, 'cora');
  today = await programmeToday(town.db);
  await tree('Q-0700', { flareDepthMm: 0, stake: 'none' }, 400);
  await tree('Q-0701', { stake: 'biting' }, 60);
  await tree('Q-0702', { mulchContact: 'heaped' }, 200);
  await tree('Q-0703', null, 200);
  // Looked at of late and found good: nothing is due. Hours of weather reach back into yesterday, whenever this runs.
  await tree('Q-0704', { flareDepthMm: 0 }, 3);
});
afterAll(() => town.stop());

async function tree(ref: string, seen: RemedySeen | null, lookedDaysAgo: number): Promise<void> {
  const look = seen ? { on: addDaysTo(today, -lookedDaysAgo), seen } : undefined;
  spots.set(ref, (await plantedTree(town, cora, { ref, plantedOn: addDaysTo(today, -420), look })).spotId);
}
const worth = async (query = '') => (await cora.send<WorthList>('GET', `/api/looks${query}`)).body;
const plan = async (body: object): Promise<SeekLooksProgress[]> => {
  const { body: text } = await cora.send<string>('POST', '/api/looks/rounds', body);
  return text
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line) as SeekLooksProgress);
};
const ask = (change: object = {}) => ({
  place: null,
  aheadDays: 7,
  inspectors: [{ userId: '', minutes: 240 }],
  seed: 1,
  ...change,
});

it('lists looks by the loss they avoid, each with why; what is not due is left out', async () => {
  const { lines, total, value } = await worth();
  const refs = lines.map(({ ref }) => ref);
  expect(refs[0]).toBe('Q-0701');
  expect(refs).not.toContain('Q-0704');
  expect([...refs].sort()).toEqual(['Q-0700', 'Q-0701', 'Q-0702', 'Q-0703']);
  expect(total).toBe(4);
  expect(value).toBeCloseTo(
    lines.reduce((sum, line) => sum + line.value, 0),
    9,
  );
  expect(lines.find(({ ref }) => ref === 'Q-0703')).toMatchObject({ found: 'unseen' });
  expect(lines[0]?.because.map(({ code }) => code).at(-1)).toBe('look_worth');
  expect(lines.map((line) => line.value)).toEqual([...lines.map((line) => line.value)].sort((a, b) => b - a));
});

it('asks for young trees again after a storm, by what was measured and what the programme calls one', async () => {
  const hour = (gustMs: number, source: 'recorded' | 'forecast') => ({
    at: new Date(Date.now() - 6 * 3600_000).toISOString(),
    ...{ source, rainMm: 0, temperatureC: 12, humidityPct: 80, gustMs, thunderKm: null, soilC: 10 },
  });
  await keepStation(town.db, { id: 'roof', name: 'Roof', position: [-25.4, 36.9] });
  const asked = async () => (await worth()).lines.find(({ ref }) => ref === 'Q-0704');
  await keepHours(town.db, 'roof', [hour(19, 'recorded'), hour(30, 'forecast')]);
  expect(await asked()).toBeUndefined();
  await keepHours(town.db, 'roof', [hour(24, 'recorded')]);
  // Planted 420 days ago, so young; looked at before.
  expect((await asked())?.because.map(({ code }) => code)).toEqual(['look_found', 'look_storm', 'look_worth']);
  await town.db('weather_hour').delete();
});

it('asks for them again after rain that froze on them, hour after hour until it thaws', async () => {
  const hour = (ago: number, rainMm: number, temperatureC: number) => ({
    at: new Date(Date.now() - ago * 3600_000).toISOString(),
    ...{ source: 'recorded' as const, rainMm, temperatureC, humidityPct: 96, gustMs: 0, thunderKm: null, soilC: 1 },
  });
  await keepStation(town.db, { id: 'roof', name: 'Roof', position: [-25.4, 36.9] });
  const asked = async () => (await worth()).lines.find(({ ref }) => ref === 'Q-0704');
  // 8 mm of rain make 2.8 mm of ice: 8 ÷ (0.9 π); thawed in between, nothing adds up to 6 mm.
  await keepHours(town.db, 'roof', [hour(9, 8, -1), hour(8, 8, -1), hour(7, 0, 3), hour(6, 8, -1)]);
  expect(await asked()).toBeUndefined();
  await keepHours(town.db, 'roof', [hour(5, 8, -1), hour(4, 8, -2)]);
  const ice = (await asked())?.because.find(({ code }) => code === 'look_ice');
  expect(ice?.facts).toMatchObject({ iceMm: expect.closeTo(24 / (0.9 * Math.PI), 6) });
  await town.db('weather_hour').delete();
});

it('divides them among inspectors within their time, the most valuable first where it is short', async () => {
  const people = await fieldPeople(town.db);
  const [one, two] = people;
  if (!one || !two) throw new Error('no people');
  const lines = await plan(ask({ inspectors: [one, two].map(({ id }) => ({ userId: id, minutes: 240 })) }));
  const found = lines.find((line) => line.kind === 'found');
  if (found?.kind !== 'found') throw new Error(JSON.stringify(lines));
  expect(found.plan.rounds.flatMap(({ stops }) => stops.map(({ ref }) => ref)).sort()).toHaveLength(4);
  expect(found.plan.left.count).toBe(0);
  const short = await plan(ask({ inspectors: [{ userId: one.id, minutes: 10 }] }));
  const kept = short.find((line) => line.kind === 'found');
  if (kept?.kind !== 'found') throw new Error('not found');
  expect(kept.plan.rounds[0]?.minutes).toBeLessThanOrEqual(10);
  expect(kept.plan.rounds[0]?.stops.map(({ ref }) => ref)).toContain('Q-0701');
  expect(kept.plan.left.count).toBeGreaterThan(0);
});

it('sends each out once, and nobody where one of them may not go', async () => {
  const [one] = (await fieldPeople(town.db)).filter(({ role }) => role !== 'waterer');
  const id = uuidv7();
  const give = {
    title: 'Looks of the week',
    until: addDaysTo(today, 3),
    rounds: [{ id, userId: one?.id, spotIds: [spots.get('Q-0701'), spots.get('Q-0700')] }],
  };
  expect((await cora.send('POST', '/api/looks/give', give)).status).toBe(204);
  expect((await cora.send('POST', '/api/looks/give', give)).status).toBe(204);
  const mine = async () => (await cora.send<Assignment[]>('GET', '/api/assignments')).body;
  expect((await mine()).filter((given) => given.id === id)).toMatchObject([
    { kind: 'looks', spotIds: [spots.get('Q-0701'), spots.get('Q-0700')] },
  ]);
  const wrong = {
    ...give,
    rounds: [
      { id: uuidv7(), userId: one?.id, spotIds: [spots.get('Q-0702')] },
      { id: uuidv7(), userId: uuidv7(), spotIds: [spots.get('Q-0703')] },
    ],
  };
  expect((await cora.send('POST', '/api/looks/give', wrong)).status).toBe(400);
  expect((await mine()).map((given) => given.id)).not.toContain(wrong.rounds[0]?.id);
});

it.each([
  ['nobody', { inspectors: [] }],
  ['one twice', { inspectors: [1, 2].map(() => ({ userId: '0190a5c2-0000-7000-8000-000000000001', minutes: 60 })) }],
  ['a stranger', { inspectors: [{ userId: '0190a5c2-0000-7000-8000-000000000001', minutes: 60 }] }],
  ['no time', { inspectors: [{ userId: '0190a5c2-0000-7000-8000-000000000001', minutes: 0 }] }],
])('is refused for %s', async (_what, change) => {
  expect((await cora.send('POST', '/api/looks/rounds', ask(change))).status).toBe(400);
});

it('is a file too, in the order of the list', async () => {
  const { body: text } = await cora.send<string>('GET', '/api/looks.csv');
  const rows = text.trim().split('\r\n');
  expect(rows[0]).toMatch(/^Number,Place,Species,Last found,Look due,"?Worth, /);
  expect(rows[1]).toMatch(/^Q-0701,/);
  expect(rows).toHaveLength(5);
});
