import { spotLeave } from '../../../testing/spot-leave';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { keptRecordSchema, recordFormat, type KeptRecord, type SendRecord } from '@sombra/contract';
import { fieldDefault } from '@sombra/core';
import { v7 as uuidv7 } from 'uuid';
import { keptBy } from '../../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { AlongStore } from './along-store';
import { OutboxService } from './outbox.service';
import { OutboxStore } from './outbox-store';
import { until } from '../../../testing/until';

let http: HttpTestingController;
let outbox: OutboxService;
let session: FakeSession;
let store: OutboxStore;

const spotId = '0190a5c2-0000-7000-8000-000000000001';
function sending(forSpot = spotId): SendRecord {
  const record = {
    id: uuidv7(),
    kind: 'remedy' as const,
    recordedAt: '2026-06-15T10:00:00Z',
    supersedes: null,
    facts: { remedy: 'water_now' as const, doneOn: '2026-06-15' },
  };
  return { spotId: forSpot, device: 'test', spotVersion: null, record };
}

/** The request for one record, once the outbox has come to it: the device's own storage is asynchronous. */
const request = (id: string) =>
  until(
    () => http.match((r) => r.url === '/api/records' && (r.body as SendRecord).record.id === id)[0],
    `record ${id}`,
  );

const receipt = (id: string) => ({ id, stored: true, spotVersion: 2 });
const away = { status: 503, statusText: 'away' };
const problem = (code: string, status: number) => ({
  type: 'x',
  title: 'The database cannot be reached',
  code,
  status,
});

beforeEach(async () => {
  store = new OutboxStore();
  await store.entries.clear();
  session = new FakeSession();
  TestBed.configureTestingModule({
    providers: [provideHttpClient(), provideHttpClientTesting(), provideFakeSession(session)],
  });
  http = TestBed.inject(HttpTestingController);
  outbox = TestBed.inject(OutboxService);
});
afterEach(() => store.close());

describe('outbox', () => {
  it('keeps a record on the device before it is sent, and lets go once it is stored', async () => {
    const sent = sending();
    const delivery = outbox.deliver(sent);
    const call = await request(sent.record.id);
    expect(await store.entries.count()).toBe(1);
    call.flush(receipt(sent.record.id));
    expect(await delivery).toEqual({ kind: 'stored', receipt: receipt(sent.record.id) });
    expect(await store.entries.count()).toBe(0);
    await until(() => outbox.waiting().length === 0);
  });

  it('lets the spot that lies here know of a record before it lets go of it, with the version it has at the server', async () => {
    const along = new AlongStore();
    const body = { spot: { id: spotId, version: 1 }, records: [] as unknown[] };
    const kept = { id: spotId, treeId: '', userId: 'u1', ref: 'A-1', body, bytes: 10, keptAt: 5, taken: 1 as const };
    await along.spots.put(kept);
    const sent = sending();
    const delivery = outbox.deliver(sent);
    (await request(sent.record.id)).flush(receipt(sent.record.id));
    await delivery;
    const now = await along.spots.get(spotId);
    expect(now).toMatchObject({
      keptAt: 5,
      body: { spot: { version: 2 }, records: [{ ...sent.record, recordedBy: 'Inês', device: 'test', clock: 'kept' }] },
    });
    // It is read as what the server would say of it.
    const [known] = (now?.body as { records: KeptRecord[] }).records;
    expect(keptRecordSchema.safeParse({ ...known, recordedById: null }).error).toBeUndefined();
    // Sent twice, as where an answer was lost, it is known once.
    const again = outbox.deliver(sent);
    (await request(sent.record.id)).flush({ ...receipt(sent.record.id), stored: false });
    await again;
    expect((await along.spots.get(spotId))?.body).toEqual(now?.body);
    await along.spots.clear();
    along.close();
  });

  it('keeps a record that could not be sent, and sends the same one later', async () => {
    const sent = sending();
    const delivery = outbox.deliver(sent);
    (await request(sent.record.id)).flush(problem('database_unavailable', 503), away);
    expect(await delivery).toMatchObject({ kind: 'waiting', problem: { code: 'database_unavailable' } });
    await until(() => outbox.waiting().length === 1);
    expect(outbox.waiting().map(({ id }) => id)).toEqual([sent.record.id]);

    const stored: string[] = [];
    outbox.delivered$.subscribe(({ id }) => stored.push(id));
    outbox.flush();
    const again = await request(sent.record.id);
    expect(again.request.body).toEqual({ ...sent, format: recordFormat, aheadMs: null });
    again.flush(receipt(sent.record.id));
    await until(() => outbox.waiting().length === 0);
    expect(stored).toEqual([sent.record.id]);
  });

  it.each([
    [0, 'waiting'],
    [401, 'waiting'],
    [429, 'waiting'],
    [500, 'waiting'],
    [400, 'refused'],
    [403, 'refused'],
    [409, 'refused'],
  ])('takes an answer of %d as %s', async (status, kind) => {
    const sent = sending();
    const delivery = outbox.deliver(sent);
    const call = await request(sent.record.id);
    if (status === 0) call.error(new ProgressEvent('error'));
    else call.flush(problem('x', status), { status, statusText: 'x' });
    expect((await delivery).kind).toBe(kind);
    expect(await store.entries.count()).toBe(1);
  });

  it('shows what another tab keeps on this device', async () => {
    const sent = sending();
    const other = new OutboxStore();
    await other.entries.put({ id: sent.record.id, userId: session.user()?.id ?? '', sent, madeAt: 1, refused: null });
    other.close();
    await until(() => outbox.waiting().length === 1);
  });

  it('says that nothing waits only once it has looked', async () => {
    const sent = sending();
    await store.entries.put({ id: sent.record.id, userId: session.user()?.id ?? '', sent, madeAt: 1, refused: null });
    const opened = TestBed.runInInjectionContext(() => new OutboxService());
    expect([opened.isRead(), opened.waiting()]).toEqual([false, []]);
    await until(() => opened.isRead());
    expect(opened.waiting().map(({ id }) => id)).toEqual([sent.record.id]);
  });

  it('keeps the reason of a refusal, and the record in the bin where its maker puts it', async () => {
    const sent = sending();
    const delivery = outbox.deliver(sent);
    (await request(sent.record.id)).flush(problem('conflict', 409), { status: 409, statusText: 'conflict' });
    await delivery;
    expect((await store.entries.get(sent.record.id))?.refused?.code).toBe('conflict');
    await outbox.bin(sent.record.id);
    await until(() => outbox.binned().length === 1 && outbox.refused().length === 0);
    await outbox.bin(sent.record.id, false);
    await until(() => outbox.refused().length === 1);
    expect(await store.entries.count()).toBe(1);
  });

  it('does not send a refused record again by itself, but over what is there when its maker says so', async () => {
    const sent = sending();
    const refused = problem('conflict', 409);
    await store.entries.put({ id: sent.record.id, userId: 'u1', sent, madeAt: 1, refused });
    outbox.flush();
    await until(() => outbox.refused().length === 1);
    expect(outbox.waiting()).toEqual([]);
    http.expectNone('/api/records');

    const [entry] = outbox.refused();
    if (!entry) throw new Error('no entry');
    const delivery = outbox.sendOver(entry);
    const theirs = '0190a5c2-0000-7000-8000-00000000000b';
    const kept = keptBy('Ann', { ...sent.record, id: theirs });
    http.expectOne(`/api/spots/${spotId}`).flush({
      spot: { id: spotId, ref: 'A-1', place: 'Mole Street', position: [-25.4, 36.9], version: 7, withdrawnOn: null },
      tree: null,
      practice: fieldDefault,
      plantedUnder: null,
      ...spotLeave,
      records: [kept],
    });
    const call = await request(sent.record.id);
    expect((call.request.body as SendRecord).record.supersedes).toBe(theirs);
    call.flush(receipt(sent.record.id));
    expect((await delivery).kind).toBe('stored');
    await until(() => outbox.refused().length === 0);
    expect(outbox.refused()).toEqual([]);
  });

  it('gives a refused record back to the form that holds it, and keeps nothing of it', async () => {
    const sent = sending();
    const delivery = outbox.deliver(sent, 'back');
    (await request(sent.record.id)).flush(problem('conflict', 409), { status: 409, statusText: 'conflict' });
    expect((await delivery).kind).toBe('refused');
    expect(await store.entries.count()).toBe(0);
    await until(() => outbox.refused().length === 0 && outbox.waiting().length === 0);
  });

  it('says of what is leaving for the first time neither that it waits nor anything else', async () => {
    const sent = sending();
    const delivery = outbox.deliver(sent);
    const call = await request(sent.record.id);
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(outbox.waiting()).toEqual([]);
    call.flush(problem('database_unavailable', 503), away);
    await delivery;
    await until(() => outbox.waiting().length === 1);
  });

  it('sends what was made behind one’s own record from the state after it, and only behind one’s own', async () => {
    const made = (spotVersion: number, madeAt: number) => {
      const sent = { ...sending(), spotVersion };
      return store.entries.put({ id: sent.record.id, userId: 'u1', sent, madeAt, refused: null }).then(() => sent);
    };
    const [first, second, third] = [await made(4, 1), await made(4, 2), await made(3, 3)];
    outbox.flush();
    (await request(first.record.id)).flush({ ...receipt(first.record.id), spotVersion: 5 });
    const behind = await request(second.record.id);
    expect((behind.request.body as SendRecord).spotVersion).toBe(5);
    behind.flush({ ...receipt(second.record.id), spotVersion: 6 });
    const last = await request(third.record.id);
    expect((last.request.body as SendRecord).spotVersion).toBe(3);
    last.flush(receipt(third.record.id));
    await until(() => outbox.waiting().length === 0);
  });

  it('sends in the order made, and stops at the first that cannot go', async () => {
    const [first, second] = [sending(), sending()];
    for (const [i, sent] of [first, second].entries()) {
      await store.entries.put({ id: sent.record.id, userId: 'u1', sent, madeAt: i, refused: null });
    }
    outbox.flush();
    (await request(first.record.id)).flush(problem('x', 503), away);
    await until(() => outbox.waiting().length === 2);
    await new Promise((resolve) => setTimeout(resolve, 30));
    http.expectNone('/api/records');
  });

  it('lets records of other spots pass one the server falls over, and keeps those of its own spot in order', async () => {
    const other = '0190a5c2-0000-7000-8000-000000000002';
    const [bad, behind, elsewhere] = [sending(), sending(), sending(other)];
    for (const [i, sent] of [bad, behind, elsewhere].entries()) {
      await store.entries.put({ id: sent.record.id, userId: 'u1', sent, madeAt: i, refused: null });
    }
    outbox.flush();
    (await request(bad.record.id)).flush(problem('unexpected', 500), { status: 500, statusText: 'fell over' });
    (await request(elsewhere.record.id)).flush(receipt(elsewhere.record.id));
    await until(() => outbox.waiting().length === 2);
    http.expectNone('/api/records');
    // Nothing is lost, and both go once the server can take them.
    expect(outbox.waiting().map(({ id }) => id)).toEqual([bad.record.id, behind.record.id]);
    outbox.flush();
    (await request(bad.record.id)).flush(receipt(bad.record.id));
    (await request(behind.record.id)).flush(receipt(behind.record.id));
    await until(() => outbox.waiting().length === 0);
  });

  it('sets aside a record the server keeps falling over, lets those behind it go, and sends it again when told', async () => {
    const [bad, behind] = [sending(), sending()];
    const entry = { id: bad.record.id, userId: 'u1', sent: bad, madeAt: 0, refused: null, stumbles: 4 };
    await store.entries.put(entry);
    await store.entries.put({ id: behind.record.id, userId: 'u1', sent: behind, madeAt: 1, refused: null });
    outbox.flush();
    (await request(bad.record.id)).flush(problem('unexpected', 500), { status: 500, statusText: 'fell over' });
    (await request(behind.record.id)).flush(receipt(behind.record.id));
    await until(() => outbox.waiting().length === 0 && outbox.refused().length === 1);
    const [aside] = outbox.refused();
    if (!aside) throw new Error('nothing was set aside');
    const again = outbox.again(aside);
    (await request(bad.record.id)).flush(receipt(bad.record.id));
    await again;
    expect(await store.entries.count()).toBe(0);
  });

  it('never sends a new record of a spot before an older one that waits', async () => {
    const [older, newer] = [sending(), sending()];
    await store.entries.put({ id: older.record.id, userId: 'u1', sent: older, madeAt: 1, refused: null });
    const delivery = outbox.deliver(newer);
    (await request(older.record.id)).flush(problem('x', 503), away);
    expect((await delivery).kind).toBe('waiting');
    http.expectNone('/api/records');
    await until(() => outbox.waiting().length === 2);
    expect(outbox.waiting().map(({ id }) => id)).toEqual([older.record.id, newer.record.id]);
  });

  it('shows and sends only what the signed-in person made', async () => {
    const sent = sending();
    await store.entries.put({ id: sent.record.id, userId: 'somebody else', sent, madeAt: 1, refused: null });
    outbox.flush();
    await new Promise((resolve) => setTimeout(resolve, 30));
    http.expectNone('/api/records');
    await until(() => outbox.waiting().length === 0);
    expect(outbox.waiting()).toEqual([]);
    expect(await store.entries.count()).toBe(1);
  });

  it('sends what waits as soon as somebody signs in again', async () => {
    const sent = sending();
    await store.entries.put({ id: sent.record.id, userId: 'u1', sent, madeAt: 1, refused: null });
    const user = session.user();
    if (user) session.signedIn$.next(user);
    (await request(sent.record.id)).flush(receipt(sent.record.id));
    await until(() => outbox.waiting().length === 0);
  });
});
