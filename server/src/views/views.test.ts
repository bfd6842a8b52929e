import type { FindHit, SavedView } from '@sombra/contract';
import { v7 as uuidv7 } from 'uuid';
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

const view = (name: string) => ({ id: uuidv7(), name, path: '/inspect', query: { level: 'urgent' } });

describe('saved views', () => {
  it('are kept for one person, once, under a name of their own', async () => {
    const sent = view('Urgent ones');
    await cora.send('POST', '/api/views', sent);
    const { body } = await cora.send<SavedView[]>('POST', '/api/views', sent);
    expect(body).toEqual([{ ...sent, version: 1 }]);
    expect((await otto.send<SavedView[]>('GET', '/api/views')).body).toEqual([]);
    const second = await cora.send('POST', '/api/views', view('Urgent ones'));
    expect([second.status, second.body.issues?.[0]?.path]).toEqual([400, 'name']);
  });

  it('are changed from the version that was read, and dropped', async () => {
    const { id, ...body } = view('Mine');
    await cora.send('POST', '/api/views', { id, ...body });
    const change = (version: number) => cora.send('PUT', `/api/views/${id}`, { ...body, name: 'Ours', version });
    expect((await change(1)).status).toBe(200);
    expect((await change(1)).status).toBe(409);
    expect((await otto.send('PUT', `/api/views/${id}`, { ...body, version: 2 })).status).toBe(404);
    await otto.send('DELETE', `/api/views/${id}`);
    const names = async () => (await cora.send<SavedView[]>('GET', '/api/views')).body.map(({ name }) => name);
    expect(await names()).toContain('Ours');
    await cora.send('DELETE', `/api/views/${id}`);
    expect(await names()).not.toContain('Ours');
  });

  it.each([{ path: 'javascript:x' }, { path: '//elsewhere' }, { name: '' }])('refuse %j', async (change) => {
    expect((await cora.send('POST', '/api/views', { ...view('Bad'), ...change })).status).toBe(400);
  });
});

describe('finding', () => {
  const find = async (words: string) =>
    (await cora.send<FindHit[]>('GET', `/api/find?words=${encodeURIComponent(words)}`)).body;

  it('finds trees, places, species, people and days, each with an address', async () => {
    const { spotId } = await town.addSpot('F-0007');
    await town.db('planting_day').insert({ id: uuidv7(), on_day: '2026-11-28', title: 'Celtis day' });
    expect(await find('f-0007')).toMatchObject([{ kind: 'tree', name: 'F-0007', path: `/town/${spotId}` }]);
    expect(await find('mole')).toMatchObject([{ kind: 'place', query: { place: 'Mole Street' } }]);
    expect((await find('celtis')).map(({ kind }) => kind)).toEqual(['species', 'day']);
    expect(await find('otto')).toMatchObject([{ kind: 'person', query: { recordedBy: 'otto' } }]);
    expect(await find('2026-11')).toMatchObject([{ kind: 'day', query: { on: '2026-11-28' } }]);
    expect(await find('100%')).toEqual([]);
    // As people say numbers: without the hyphen, and without the noughts before it.
    for (const said of ['f0007', 'F 7', 'f7']) expect((await find(said)).map(({ name }) => name)).toContain('F-0007');
    expect(await find('nobody-at-all')).toEqual([]);
  });
});
