import type { Assign, Assignment, FieldPeople, HandOver } from '@sombra/contract';
import { addDaysTo } from '@sombra/core';
import { randomUUID } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import { openTestTown, Visitor, type TestTown } from '../../testing/test-town';
import { programmeToday } from '../programme/today';

let town: TestTown;
let cora: Visitor;
let iva: Visitor;
let wes: Visitor;
let today: string;
let people: FieldPeople;
let viewer: string;
beforeAll(async () => {
  town = await openTestTown();
  [cora, iva, wes] = await Promise.all([
    Visitor.signedIn(town.url, 'cora'),
    Visitor.signedIn(town.url, 'iva'),
    Visitor.signedIn(town.url, 'wes'),
  ]);
  today = await programmeToday(town.db);
  viewer = (await (await Visitor.signedIn(town.url, 'vic')).arrive()).user?.id ?? '';
  people = (await cora.send<FieldPeople>('GET', '/api/assignments/people')).body;
});
afterAll(() => town.stop());

const idOf = (name: string): string => people.find((one) => one.name === name)?.id ?? '';
let made = 0;
async function asked(change: Partial<Assign> = {}): Promise<Assign> {
  const spots = [await town.addSpot(`Z-${++made}`), await town.addSpot(`Z-${++made}`)];
  const spotIds = spots.map(({ spotId }) => spotId);
  const plain = { id: uuidv7(), kind: 'looks', title: 'Round', userId: idOf('iva'), until: today, deliveryId: null };
  return { ...plain, spotIds, ...change } as Assign;
}
const give = (assign: Assign) => cora.send<Assignment[]>('POST', '/api/assignments', assign);
const open = async (visitor: Visitor) => (await visitor.send<Assignment[]>('GET', '/api/assignments')).body;
const found = async (visitor: Visitor, id: string) => (await open(visitor)).find((one) => one.id === id);

describe('an assignment', () => {
  it('is made once, keeps the order of its spots, and shows to its person and to who sends people out', async () => {
    const assign = await asked();
    const backwards = { ...assign, spotIds: [...assign.spotIds].reverse() };
    for (let i = 0; i < 2; i++) expect((await give(backwards)).status).toBe(201);
    expect(await found(iva, assign.id)).toMatchObject({ userName: 'iva', madeBy: 'cora', spotIds: backwards.spotIds });
    expect(await found(cora, assign.id)).toBeDefined();
    expect(await found(wes, assign.id)).toBeUndefined();
  });

  it.each<[string, (a: Assign) => object, string]>([
    ['yesterday', (a) => ({ ...a, until: addDaysTo(today, -1) }), 'until'],
    ['half a year ahead', (a) => ({ ...a, until: addDaysTo(today, 180) }), 'until'],
    ['to nobody', (a) => ({ ...a, userId: randomUUID() }), 'userId'],
    ['to somebody who only looks', (a) => ({ ...a, userId: viewer }), 'userId'],
    ['of no spot', (a) => ({ ...a, spotIds: [] }), 'spotIds'],
    ['of a spot twice', (a) => ({ ...a, spotIds: [a.spotIds[0], a.spotIds[0]] }), 'spotIds'],
    ['of a delivery that is not named', (a) => ({ ...a, kind: 'delivery' }), 'deliveryId'],
    ['without words', (a) => ({ ...a, title: ' ' }), 'title'],
  ])('is refused %s', async (_case, change, path) => {
    const assign = await asked();
    const { status, body } = await cora.send('POST', '/api/assignments', change(assign));
    expect([status, body.issues?.map((issue) => issue.path)]).toEqual([400, [path]]);
    expect(await found(cora, assign.id)).toBeUndefined();
  });

  it('is for whoever may record', () => {
    expect(people.map(({ name }) => name)).toEqual(['ada', 'cora', 'iva', 'leo', 'otto', 'wes']);
  });

  it('names a spot that is there, or nothing is stored', async () => {
    const assign = await asked({ spotIds: [randomUUID()] });
    expect((await give(assign)).status).toBe(400);
    expect(await found(cora, assign.id)).toBeUndefined();
  });

  it('ends by its person, from the version that was read', async () => {
    const assign = await asked();
    await give(assign);
    const end = (visitor: Visitor, version: number) =>
      visitor.send('POST', `/api/assignments/${assign.id}/end`, { version });
    expect((await end(wes, 1)).status).toBe(403);
    expect((await end(iva, 2)).status).toBe(409);
    expect((await end(iva, 1)).status).toBe(200);
    expect((await end(iva, 2)).status).toBe(404);
    expect(await found(cora, assign.id)).toBeUndefined();
  });

  it('is handed over by one code, once, and only by whose it is', async () => {
    const assign = await asked();
    await give(assign);
    const path = `/api/assignments/${assign.id}/hand-over`;
    expect((await wes.send('POST', path)).status).toBe(403);
    const first = (await iva.send<HandOver>('POST', path)).body;
    const second = (await iva.send<HandOver>('POST', path)).body;
    expect(second.code).toMatch(/^\d{3} \d{3}$/);
    const take = (code: string) => wes.send<Assignment[]>('POST', '/api/assignments/take-over', { code });
    if (first.code !== second.code) expect((await take(first.code)).status).toBe(400);
    expect((await take(second.code.replace(' ', ''))).body.map(({ id }) => id)).toContain(assign.id);
    expect((await take(second.code)).status).toBe(400);
    expect(await found(iva, assign.id)).toBeUndefined();
    expect(await found(cora, assign.id)).toMatchObject({ userName: 'wes', version: 2 });
  });

  it('gives nothing by a code that has run out, and few codes can be tried', async () => {
    const assign = await asked();
    await give(assign);
    const { code } = (await iva.send<HandOver>('POST', `/api/assignments/${assign.id}/hand-over`)).body;
    await town
      .db('hand_over')
      .where({ assignment_id: assign.id })
      .update({ expires_at: new Date(0) });
    const leo = await Visitor.signedIn(town.url, 'leo');
    const tries: number[] = [];
    for (let i = 0; i < 11; i++) {
      tries.push((await leo.send('POST', '/api/assignments/take-over', { code })).status);
    }
    expect(tries).toEqual([...Array.from({ length: 10 }, () => 400), 429]);
  });
});
