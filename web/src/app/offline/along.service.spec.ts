import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { detailOf, kept, loam } from '../../../testing/bench-rig';
import { FakeSession } from '../../../testing/fake-session';
import { until } from '../../../testing/until';
import { SessionService } from '../session/session.service';
import { AlongStore } from './along-store';
import { AlongService } from './along.service';

let http: HttpTestingController;
let session: FakeSession;
let store: AlongStore;
let along: AlongService;

const ids = [1, 2, 3].map((n) => `0190a5c2-0000-7000-8000-00000000000${n}`);
const detail = (id: string) => {
  const one = detailOf([kept('ground', loam)]);
  return { ...one, spot: { ...one.spot, id, ref: `A-${id.slice(-1)}` } };
};
const begin = (role: 'crew_lead' | 'coordinator') => {
  session.user.update((user) => user && { ...user, role });
  TestBed.configureTestingModule({
    providers: [provideHttpClient(), provideHttpClientTesting(), { provide: SessionService, useValue: session }],
  });
  http = TestBed.inject(HttpTestingController);
  along = TestBed.inject(AlongService);
  void along.takeIfStale();
};
const answerList = (some: readonly string[]) =>
  until(() => http.match(({ url }) => url === '/api/spots')[0], 'the list').then((request) => {
    expect(request.request.params.get('stage')).toBe('day');
    request.flush({ lines: some.map((spotId) => ({ spotId })) });
  });
const answerSpot = (id: string, fails = false) =>
  until(() => http.match(`/api/spots/${id}`)[0], id).then((request) =>
    fails ? request.error(new ProgressEvent('error')) : request.flush(detail(id)),
  );
const taken = async () => (await store.spots.filter((one) => one.taken).toArray()).map(({ ref }) => ref).sort();

beforeEach(async () => {
  store = new AlongStore();
  await store.spots.clear();
  session = new FakeSession();
});
afterEach(() => store.close());

describe('what is taken along', () => {
  it('is what the role goes out to, by itself, and says when it is ready', async () => {
    begin('crew_lead');
    await answerList(ids);
    for (const id of ids) await answerSpot(id);
    await until(() => along.ready().count === 3 && along.progress() === null, 'three');
    expect(along.ready().bytes).toBeGreaterThan(3000);
    expect(await along.find({ kind: 'spot', id: ids[0] ?? '' })).toMatchObject({ ref: 'A-1', taken: true });
  });
  it('lets go what is not due any more, and keeps what was opened', async () => {
    begin('crew_lead');
    await answerList(ids);
    for (const id of ids) await answerSpot(id);
    await until(() => along.ready().count === 3 && along.progress() === null, 'three');
    const again = along.take();
    await answerList(ids.slice(0, 1));
    await answerSpot(ids[0] ?? '');
    await again;
    expect(await taken()).toEqual(['A-1']);
    expect(await along.find({ kind: 'spot', id: ids[1] ?? '' })).toMatchObject({ taken: false });
  });
  it('keeps what came where the network ends in the middle, and says so', async () => {
    begin('crew_lead');
    await answerList(ids);
    await answerSpot(ids[0] ?? '');
    await answerSpot(ids[1] ?? '', true);
    await answerSpot(ids[2] ?? '', true);
    await until(() => along.fault() ?? undefined, 'the fault');
    expect(await taken()).toEqual(['A-1']);
    expect(along.fault()).toContain('Not everything could be taken along');
  });
  it('asks nothing for who goes out to nothing, nor without a network', () => {
    begin('coordinator');
    http.verify();
    expect(along.ready().count).toBe(0);
  });
  it('is nobody else’s: another person finds nothing, and signing out empties the device', async () => {
    begin('crew_lead');
    await answerList(ids.slice(0, 1));
    await answerSpot(ids[0] ?? '');
    await until(() => along.ready().count === 1 && along.progress() === null, 'one');
    const owner = session.user();
    session.user.update((user) => user && { ...user, id: 'somebody else' });
    expect(await along.find({ kind: 'spot', id: ids[0] ?? '' })).toBeNull();
    session.user.set(owner);
    session.signedOut$.next();
    await until(() => along.spots().length === 0, 'an empty device');
    expect(await store.spots.count()).toBe(0);
  });
});
