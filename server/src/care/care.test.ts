import { spotDetailSchema, type CareWaiting, type Keeper, type OpenCare, type WaterList } from '@sombra/contract';
import { addDaysTo, type IsoDate } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import type { TestTown, Visitor } from '../../testing/test-town';
import { openWaterTown } from '../../testing/water-town';
import { hashOf } from '../platform/secrets';
import { followTrees } from '../water/follow-service';
import { remindKeepers } from './reminding-service';

let town: TestTown;
let cora: Visitor;
let today: IsoDate;
let spots: readonly string[];
const doorway = { publicUrl: 'http://sombra.test' };

beforeAll(async () => {
  ({ town, cora, today, spots } = await openWaterTown(6));
  await followTrees(town.db);
});
afterAll(() => town.stop());

interface Given {
  readonly id: string;
  readonly token: string;
}

async function give(spotId: string, email = ''): Promise<Given> {
  const id = uuidv7();
  const asked = { id, name: 'Rosa Lindqvist-Amaro', email, bucketL: 10 };
  const { status, body } = await cora.send<{ path: string }>('POST', `/api/spots/${spotId}/care`, asked);
  expect(status).toBe(201);
  expect(body.path).toMatch(/^\/care\/[\w-]{32}$/);
  return { id, token: body.path.slice('/care/'.length) };
}

interface Answer<T> {
  readonly status: number;
  readonly body: T;
}
/** A keeper's browser: no session, no token of the session. */
async function byLink<T = OpenCare>(token: string, door = '', body?: object): Promise<Answer<T>> {
  const answer = await fetch(`${town.url}/api/open/care/${token}${door}`, {
    method: body ? 'POST' : 'GET',
    headers: { 'content-type': 'application/json' },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return { status: answer.status, body: (await answer.json()) as T };
}
const letters = () =>
  town
    .db('mail')
    .where({ about: 'care' })
    .orderBy('made_at')
    .select<{ subject: string; body: string; to_address: string }[]>();
const keeper = async (id: string): Promise<Keeper | undefined> =>
  (await cora.send<Keeper[]>('GET', '/api/care')).body.find((one) => one.id === id);
const at = (i: number): string => spots[i] ?? '';

it('a link opens one tree, and is kept as a fingerprint alone', async () => {
  const { token } = await give(at(0));
  const { body } = await byLink(token);
  expect(body).toMatchObject({ ref: 'Q-0000', state: 'open', keeper: 'Rosa Lindqvist-Amaro', bucketL: 10 });
  expect(body.next).toMatchObject({ kind: 'water' });
  const kept = JSON.stringify(await town.db('care_link'));
  expect(kept).toContain(hashOf(token));
  expect(kept).not.toContain(token);
  expect(JSON.stringify(await town.db('audit'))).not.toContain(token);
  expect((await byLink('nothing-of-ours-at-all-0123')).status).toBe(404);
});

it('a watering told enters the balance, once, unconfirmed', async () => {
  const { id, token } = await give(at(1));
  const before = (await cora.send<WaterList>('GET', '/api/water/trees')).body.lines.find(({ ref }) => ref === 'Q-0001');
  const told = { id: uuidv7(), wateredOn: today, litres: 40, finger: 'finger_dry' };
  const first = await byLink(token, '/watered', told);
  expect(first.body).toMatchObject({ state: 'open' });
  expect((await byLink(token, '/watered', told)).body.said).toHaveLength(1);
  const records = await town.db('field_record').where({ kind: 'watering', spot_id: at(1) });
  expect(records).toHaveLength(1);
  expect(records[0]).toMatchObject({
    facts: { litres: 40, toldBy: 'keeper', fingerBefore: 'finger_dry' },
    recorded_by: 'Rosa Lindqvist-Amaro, by link',
  });
  await followTrees(town.db);
  const after = (await cora.send<WaterList>('GET', '/api/water/trees')).body.lines.find(({ ref }) => ref === 'Q-0001');
  expect(after?.share).toBeGreaterThan((before?.share ?? 1) + 0.3);
  expect((await keeper(id))?.heardOn).toBe(today);
});

it('an id no record may have is refused: whoever opens the tree would read nothing any more', async () => {
  const { token } = await give(at(1));
  const odd = { id: randomUUID(), wateredOn: today, litres: 20 };
  expect((await byLink(token, '/watered', odd)).status).toBe(400);
  const { body } = await cora.send('GET', `/api/spots/${at(1)}`);
  expect(spotDetailSchema.safeParse(body).error).toBeUndefined();
});

it.each([
  ['more than a keeper carries', () => ({ wateredOn: today, litres: 1999 }), 'litres'],
  ['a month ago', () => ({ wateredOn: addDaysTo(today, -30), litres: 20 }), 'wateredOn'],
  ['next week', () => ({ wateredOn: addDaysTo(today, 7), litres: 20 }), 'wateredOn'],
  ['nothing', () => ({ wateredOn: today, litres: 0 }), 'litres'],
])('refuses a watering of %s, and names the field', async (_words, facts, path) => {
  const { token } = await give(at(2));
  const { status, body } = await byLink<{ issues: { path: string }[] }>(token, '/watered', {
    id: uuidv7(),
    ...facts(),
  });
  expect(status).toBe(400);
  expect(body.issues[0]?.path).toBe(path);
  expect(await town.db('field_record').where({ kind: 'watering', spot_id: at(2) })).toHaveLength(0);
});

it('a complaint and a call for help wait until somebody answers, by letter where there is an address', async () => {
  const { token } = await give(at(3), 'rosa@green.example');
  await byLink(token, '/words', { id: uuidv7(), kind: 'complaint', words: 'The bag looks like litter.' });
  const help = { id: uuidv7(), kind: 'help', words: 'A car broke the stake.' };
  await byLink(token, '/words', help);
  await byLink(token, '/words', help);
  const waiting = await cora.send<CareWaiting>('GET', '/api/care/waiting');
  expect(waiting.body).toMatchObject({ help: 1, complaints: 1 });
  const before = (await letters()).length;
  expect(
    (await cora.send('POST', `/api/care/words/${help.id}/answer`, { answer: 'A crew comes on Tuesday.' })).status,
  ).toBe(204);
  expect((await cora.send('POST', `/api/care/words/${help.id}/answer`, { answer: 'Other words.' })).status).toBe(400);
  const written = (await letters()).slice(before);
  expect(written.map(({ body }) => body).join()).toContain('A crew comes on Tuesday.');
  expect((await byLink(token)).body.said.find(({ id }) => id === help.id)).toMatchObject({
    answer: 'A crew comes on Tuesday.',
    answeredBy: 'cora',
  });
  expect((await cora.send<CareWaiting>('GET', '/api/care/waiting')).body.help).toBe(0);
});

it('reminds by letter whose tree asks, once in three days, and stops by a click that posts', async () => {
  const { id, token } = await give(at(4), 'keeper@green.example');
  const before = (await letters()).length;
  expect(await remindKeepers(town.db, doorway)).toBeGreaterThanOrEqual(1);
  expect(await remindKeepers(town.db, doorway)).toBe(0);
  const reminders = (await letters()).slice(before).filter(({ to_address }) => to_address === 'keeper@green.example');
  expect(reminders).toHaveLength(1);
  expect(reminders[0]?.body).toMatch(/\d(\.5)? buckets of 10 L/);
  const [, link = ''] = /care\/([\w-]+)\?stop/.exec(reminders[0]?.body ?? '') ?? [];
  expect(link).not.toBe(token);
  // To open the link, as a mail scanner does, stops nothing.
  expect((await byLink(link)).body.wantsLetters).toBe(true);
  expect((await byLink(link, '/wishes', { letters: false })).body.wantsLetters).toBe(false);
  await town
    .db('care_keeper')
    .where({ id })
    .update({ reminded_on: addDaysTo(today, -9) });
  expect((await letters()).filter(({ to_address }) => to_address === 'keeper@green.example')).toHaveLength(2);
  await remindKeepers(town.db, doorway);
  expect((await letters()).filter(({ to_address }) => to_address === 'keeper@green.example')).toHaveLength(2);
});

it('a deputy has a link of their own and is reminded instead; whose tree it is keeps theirs', async () => {
  const { id, token } = await give(at(5), 'away@green.example');
  const named = {
    id: uuidv7(),
    name: 'Ivo Sandoval-Reis',
    email: 'ivo@green.example',
    fromDay: today,
    untilDay: addDaysTo(today, 10),
  };
  const { status, body } = await byLink<{ path: string; care: OpenCare }>(token, '/deputies', named);
  expect(status).toBe(200);
  expect(body.care.deputies).toMatchObject([{ name: 'Ivo Sandoval-Reis' }]);
  const deputy = body.path.slice('/care/'.length);
  expect((await byLink(deputy)).body).toMatchObject({ keeper: 'Ivo Sandoval-Reis', isDeputy: true });
  expect((await byLink(deputy, '/deputies', { ...named, id: uuidv7() })).status).toBe(400);
  await remindKeepers(town.db, doorway);
  const told = (await letters()).map(({ to_address, subject }) => `${to_address} ${subject}`);
  expect(told.filter((line) => line.startsWith('ivo@') && line.includes('wants water'))).toHaveLength(1);
  expect(told.filter((line) => line.startsWith('away@') && line.includes('wants water'))).toHaveLength(0);
  expect(await cora.send('POST', `/api/care/${id}/revoke`)).toMatchObject({ status: 204 });
  expect([(await byLink(token)).status, (await byLink(deputy)).status]).toEqual([404, 404]);
  expect(
    await town
      .db('care_keeper')
      .where({ spot_id: at(5) })
      .whereNotNull('email'),
  ).toHaveLength(0);
});

it.each([
  ['backwards', { fromDay: 2, untilDay: 1 }, 'untilDay'],
  ['for half a year', { fromDay: 1, untilDay: 180 }, 'untilDay'],
  ['from last month', { fromDay: -30, untilDay: 1 }, 'fromDay'],
])('a deputy %s is refused', async (_words, days, path) => {
  const { token } = await give(at(5));
  const named = {
    id: uuidv7(),
    name: 'Ivo',
    fromDay: addDaysTo(today, days.fromDay),
    untilDay: addDaysTo(today, days.untilDay),
  };
  const { status, body } = await byLink<{ issues: { path: string }[] }>(token, '/deputies', named);
  expect([status, body.issues[0]?.path]).toEqual([400, path]);
});

it('who was not heard of though their tree asks stands as silent, and is due again once they tell', async () => {
  const { id, token } = await give(at(4));
  expect((await keeper(id))?.state).toBe('due');
  await town
    .db('care_keeper')
    .where({ id })
    .update({ since: addDaysTo(today, -30) });
  expect((await keeper(id))?.state).toBe('silent');
  expect((await cora.send<CareWaiting>('GET', '/api/care/waiting')).body.silent).toBeGreaterThanOrEqual(1);
  await byLink(token, '/words', { id: uuidv7(), kind: 'help', words: 'The tap is shut off.' });
  expect((await keeper(id))?.state).toBe('due');
  const csv = (await cora.send<string>('GET', '/api/care/keepers.csv')).body;
  expect(csv).toContain('The tap is shut off.');
});

it('a lost link is renewed, and the one before opens nothing', async () => {
  const { id, token } = await give(at(0));
  const { body } = await cora.send<{ path: string }>('POST', `/api/care/${id}/link`);
  expect((await byLink(token)).status).toBe(404);
  expect((await byLink(body.path.slice('/care/'.length))).status).toBe(200);
});

it('two who tell at once of one tree are both kept', async () => {
  const [one, other] = [await give(at(2)), await give(at(2))];
  const tell = ({ token }: Given, litres: number) =>
    byLink(token, '/watered', { id: uuidv7(), wateredOn: today, litres });
  const answers = await Promise.all([tell(one, 11), tell(other, 12), tell(one, 13), tell(other, 14)]);
  expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200]);
  const kept = await town.db('field_record').where({ kind: 'watering', spot_id: at(2) });
  expect(kept.map(({ facts }: { facts: { litres: number } }) => facts.litres).sort()).toEqual([11, 12, 13, 14]);
});

it('a spot without a planted tree is given to nobody', async () => {
  const { spotId } = await town.addSpot('Q-0099');
  const asked = { id: uuidv7(), name: 'Rosa', email: '', bucketL: 10 };
  expect((await cora.send('POST', `/api/spots/${spotId}/care`, asked)).status).toBe(400);
});
