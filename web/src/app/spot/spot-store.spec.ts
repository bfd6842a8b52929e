import { spotLeave } from '../../../testing/spot-leave';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { RecordReceipt } from '@sombra/contract';
import { fieldDefault } from '@sombra/core';
import { Subject } from 'rxjs';
import { keptBy } from '../../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { until } from '../../../testing/until';
import { AlongService } from '../offline/along.service';
import type { OutboxEntry } from '../offline/outbox-store';
import { OutboxService } from '../offline/outbox.service';
import { SpotStore } from './spot-store';

const spotId = '0190a5c2-0000-7000-8000-000000000001';
const treeId = '0190a5c2-0000-7000-8000-000000000002';
const stock = {
  id: '0190a5c2-0000-7000-8000-00000000000a',
  kind: 'stock' as const,
  recordedAt: '2026-06-01T10:00:00Z',
  supersedes: null,
  facts: {
    kind: 'container' as const,
    caliperMm: 50,
    heightM: 3,
    ballDiameterMm: 450,
    ballHeightMm: 400,
    topRootsDepthMm: 60,
  },
};
const detail = (records: object[] = [], id = spotId) => ({
  spot: { id, ref: 'A-1', place: 'Mole Street', position: [-25.4, 36.9], version: 1, withdrawnOn: null },
  tree: { id: treeId, species: null },
  practice: fieldDefault,
  plantedUnder: null,
  ...spotLeave,
  records,
});

const delivered$ = new Subject<RecordReceipt>();
const waiting = signal<readonly OutboxEntry[]>([]);
let store: SpotStore;
let http: HttpTestingController;

beforeEach(() => {
  waiting.set([]);
  TestBed.configureTestingModule({
    providers: [
      SpotStore,
      provideHttpClient(),
      provideHttpClientTesting(),
      provideFakeSession(new FakeSession()),
      { provide: OutboxService, useValue: { delivered$, waiting } },
    ],
  });
  store = TestBed.inject(SpotStore);
  http = TestBed.inject(HttpTestingController);
});

const open = () => {
  store.open({ kind: 'spot', id: spotId });
  return http.expectOne(`/api/spots/${spotId}`);
};

describe('spot store', () => {
  it('works out where the spot stands from its records', () => {
    open().flush(detail());
    expect(store.life()?.stage).toBe('ground');
    expect(store.life()?.stock).toBeNull();
  });

  it('shows what waits on this device as part of the spot', () => {
    open().flush(detail());
    const sent = { spotId, device: 'test', spotVersion: 1, record: stock };
    waiting.set([{ id: stock.id, userId: 'u1', sent, madeAt: 1, refused: null }]);
    expect(store.records()).toMatchObject([{ id: stock.id, waiting: true }]);
    expect(store.life()?.stock).toEqual(stock.facts);
  });

  it('leaves out what waits for another spot and what is stored already', () => {
    open().flush(detail([keptBy('x', stock)]));
    const entry = (change: Partial<OutboxEntry>): OutboxEntry => ({
      id: stock.id,
      userId: 'u1',
      sent: { spotId, device: 'test', spotVersion: 1, record: stock },
      madeAt: 1,
      refused: null,
      ...change,
    });
    waiting.set([entry({}), entry({ sent: { ...entry({}).sent, spotId: 'other' } })]);
    expect(store.records()).toHaveLength(1);
  });

  it('reads the spot again once a record has arrived', () => {
    open().flush(detail());
    delivered$.next({ id: stock.id, stored: true, spotVersion: 2 });
    http.expectOne(`/api/spots/${spotId}`).flush(detail([keptBy('x', stock)]));
    expect(store.life()?.stock).toEqual(stock.facts);
  });

  it('never shows one spot while another is opening', () => {
    open().flush(detail());
    store.open({ kind: 'tree', id: treeId });
    expect(store.detail()).toBeNull();
    http.expectOne(`/api/trees/${treeId}`).flush(detail());
    expect(store.detail()?.spot.id).toBe(spotId);
  });

  it('keeps a problem to show', () => {
    open().flush(
      { type: 'x', title: 'There is no such thing here', status: 404, code: 'not_found' },
      { status: 404, statusText: 'x' },
    );
    expect(store.problem()?.code).toBe('not_found');
  });

  it.each([
    ['what another version kept', () => Promise.resolve({ body: { spot: 'of old' }, keptAt: 1 })],
    ['a device that keeps nothing', () => Promise.reject(new Error('storage refused'))],
  ])('says what is wrong of %s, and goes on reading', async (_what, find) => {
    Object.assign(TestBed.inject(AlongService), { find });
    store.open({ kind: 'spot', id: spotId });
    http.expectOne(`/api/spots/${spotId}`).error(new ProgressEvent('error'));
    await until(() => store.problem(), 'the problem');
    expect([store.problem()?.code, store.detail()]).toEqual(['offline', null]);
    store.reload();
    http.expectOne(`/api/spots/${spotId}`).flush(detail());
    expect([store.problem(), store.detail()?.spot.ref]).toEqual([null, 'A-1']);
  });
});
