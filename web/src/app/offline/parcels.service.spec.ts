import { PageRig } from '../../../testing/page-rig';
import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { HttpTestingController, TestRequest } from '@angular/common/http/testing';
import { ParcelsService } from './parcels.service';
import { AlongStore } from './along-store';
import { OutboxStore } from './outbox-store';
import { until } from '../../../testing/until';

@Component({ selector: 's-nothing', template: '' })
class Nothing {}

let parcels: ParcelsService;
let http: HttpTestingController;
let store: OutboxStore;
let answers: unknown[];
const tree = { id: 't1', method: 'POST' as const, url: '/api/lots/l1/trees', body: { id: 't1' }, name: 'Tree 1' };
const photo = { id: 'p1', method: 'PUT' as const, url: '/api/lot-trees/t1/photo', body: 'picture', name: 'Photo' };

const call = (url: string): Promise<TestRequest> => until(() => http.match(url)[0], url);
const away = { status: 0, statusText: 'away' };

beforeEach(async () => {
  store = new OutboxStore();
  await store.parcels.clear();
  const rig = new PageRig<Nothing>();
  await rig.show(Nothing);
  http = rig.http;
  parcels = TestBed.inject(ParcelsService);
  answers = [];
  parcels.answered$.subscribe((answer) => answers.push(answer));
});
afterEach(() => store.close());

describe('what is sent besides records', () => {
  it('waits on the device without a connection, and goes in the order it was made', async () => {
    const first = parcels.send(tree);
    (await call(tree.url)).error(new ProgressEvent('error'), away);
    expect((await first).kind).toBe('waiting');
    // The tree goes before its picture.
    const second = parcels.send(photo);
    (await call(tree.url)).error(new ProgressEvent('error'), away);
    expect((await second).kind).toBe('waiting');
    await until(() => parcels.waiting().length === 2);
    expect(parcels.waiting().map(({ name }) => name)).toEqual(['Tree 1', 'Photo']);

    parcels.flush();
    (await call(tree.url)).flush({ id: 'delivery' });
    const picture = await call(photo.url);
    expect(picture.request.body).toBe('picture');
    picture.flush({ id: 'delivery' });
    await until(() => parcels.waiting().length === 0);
    expect(answers).toEqual([{ id: 'delivery' }, { id: 'delivery' }]);
    expect(await store.parcels.count()).toBe(0);
  });

  it('does not send the photo before its tree', async () => {
    for (const [i, one] of [tree, photo].entries()) {
      await store.parcels.put({ ...one, userId: 'u1', madeAt: i, refused: null });
    }
    parcels.flush();
    (await call(tree.url)).error(new ProgressEvent('error'), away);
    await new Promise((resolve) => setTimeout(resolve, 30));
    http.expectNone(photo.url);
  });

  it('keeps what the server refuses with its reason until it is dropped', async () => {
    const sending = parcels.send(tree);
    const problem = { type: 'x', title: 'No such lot', code: 'not_found', status: 404 };
    (await call(tree.url)).flush(problem, { status: 404, statusText: 'gone' });
    expect(await sending).toMatchObject({ kind: 'refused', problem: { title: 'No such lot' } });
    await until(() => parcels.refused().length === 1);
    expect(parcels.refused().map(({ name }) => name)).toEqual(['Tree 1']);
    await parcels.drop('t1');
    await until(() => parcels.refused().length === 0);
    expect([parcels.refused(), await store.parcels.count()]).toEqual([[], 0]);
  });

  it('keeps in the bin what its maker puts there, and sends it when it is taken out', async () => {
    const sending = parcels.send(tree);
    (await call(tree.url)).error(new ProgressEvent('error'), away);
    await sending;
    await parcels.bin('t1');
    await until(() => parcels.binned().length === 1);
    parcels.flush();
    await new Promise((resolve) => setTimeout(resolve, 20));
    http.expectNone(tree.url);
    await parcels.bin('t1', false);
    await until(() => parcels.waiting().length === 1);
    parcels.flush();
    (await call(tree.url)).flush({});
    await until(() => parcels.waiting().length === 0);
  });

  it('lets pictures wait for a better line by the wish of their maker, and holds up nothing with them', async () => {
    parcels.setPhotosLeave('never');
    const picture = new Blob(['x'], { type: 'image/jpeg' });
    const held = await parcels.send({ ...photo, url: '/api/spots/s1/photos/p1', body: picture });
    expect(held).toMatchObject({ kind: 'waiting', problem: { code: 'held' } });
    const other = parcels.send(tree);
    (await call(tree.url)).flush({});
    expect((await other).kind).toBe('stored');
    await until(() => parcels.waiting().length === 1);
    localStorage.removeItem('sombra.photos');
  });

  it('says that the device is full, keeps what was kept before, and gives up the map for it first', async () => {
    const full = new DOMException('no room', 'QuotaExceededError');
    const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw full;
    });
    const made = jest.spyOn(AlongStore, 'makeRoom').mockResolvedValueOnce(true).mockResolvedValueOnce(false);
    const sent = await parcels.send(tree);
    expect(sent).toMatchObject({ kind: 'refused', problem: { code: 'device_full' } });
    expect(made).toHaveBeenCalledTimes(2);
    put.mockRestore();
    made.mockRestore();
    expect(await store.parcels.count()).toBe(0);
  });

  it('leaves alone what somebody else made on this device', async () => {
    await store.parcels.put({ ...tree, userId: 'somebody else', madeAt: 1, refused: null });
    parcels.flush();
    await new Promise((resolve) => setTimeout(resolve, 30));
    http.expectNone(tree.url);
    expect(parcels.waiting()).toEqual([]);
  });
});
