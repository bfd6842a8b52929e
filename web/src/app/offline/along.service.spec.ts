import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { detailOf, kept, loam } from '../../../testing/bench-rig';
import { FakeSession } from '../../../testing/fake-session';
import { until } from '../../../testing/until';
import { measureClock } from '../session/device-clock';
import { SessionService } from '../session/session.service';
import { alongByItself } from './along-by-itself';
import { AlongStore } from './along-store';
import { AlongService } from './along.service';
import { TakeAlongService } from './take-along.service';

let http: HttpTestingController;
let session: FakeSession;
let store: AlongStore;
let along: AlongService;
let taking: TakeAlongService;

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
  taking = TestBed.inject(TakeAlongService);
  TestBed.runInInjectionContext(alongByItself);
  void taking.takeIfStale();
};
const answerAssignments = (some: readonly object[] = []) =>
  until(() => http.match('/api/assignments')[0], 'the assignments').then((request) => request.flush(some));
const info = { layers: [], pmtiles: null, centre: [-25.4, 36.9], bounds: null, stamp: 's1' };
/** All that is asked for once the spots are here: the map is empty ground, and no delivery is open. */
function answerTheRest(): void {
  http.match('/api/map').forEach((one) => one.flush(info));
  http.match('/api/planting-days').forEach((one) => one.flush([]));
  http.match('/api/water/basis').forEach((one) => one.flush({ recorded: [], forecast: [], species: [] }));
  http.match('/api/deliveries').forEach((one) => one.flush({ deliveries: [], awaited: [], claims: [] }));
  http.match(({ url }) => url.startsWith('/api/map/base/')).forEach((one) => one.flush(new ArrayBuffer(8)));
}
const ended = () =>
  until(() => {
    answerTheRest();
    return taking.progress() === null ? true : undefined;
  }, 'the end');
const answerList = (some: readonly string[]) =>
  until(() => http.match(({ url }) => url === '/api/spots')[0], 'the list').then((request) => {
    expect(request.request.params.get('stage')).toBe('day');
    request.flush({ lines: some.map((spotId) => ({ spotId })) });
  });
const answerSpot = (id: string, fails = false) =>
  until(() => http.match(`/api/spots/${id}`)[0], id).then((request) =>
    fails ? request.error(new ProgressEvent('error')) : request.flush(detail(id)),
  );
const taken = async () => (await store.spots.filter((one) => one.taken === 1).toArray()).map(({ ref }) => ref).sort();

beforeEach(async () => {
  store = new AlongStore();
  await store.empty();
  localStorage.clear();
  session = new FakeSession();
});
afterEach(() => store.close());

describe('what is taken along', () => {
  it('is what the role goes out to, by itself, and says when it is ready', async () => {
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids);
    for (const id of ids) await answerSpot(id);
    await ended();
    await until(() => along.ready()?.count === 3, 'three');
    expect(along.ready()?.bytes).toBeGreaterThan(3000);
    expect(await along.find({ kind: 'spot', id: ids[0] ?? '' })).toMatchObject({ ref: 'A-1', taken: 1 });
  });
  it('lets go what is not due any more, and keeps what was opened', async () => {
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids);
    for (const id of ids) await answerSpot(id);
    await ended();
    await until(() => along.ready()?.count === 3, 'three');
    const again = taking.take();
    await answerAssignments();
    await answerList(ids.slice(0, 1));
    await answerSpot(ids[0] ?? '');
    await ended();
    await again;
    expect(await taken()).toEqual(['A-1']);
    expect(await along.find({ kind: 'spot', id: ids[1] ?? '' })).toMatchObject({ taken: 0 });
  });
  it('keeps what came where the network ends in the middle, and says so', async () => {
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids);
    await answerSpot(ids[0] ?? '');
    await answerSpot(ids[1] ?? '', true);
    await answerSpot(ids[2] ?? '', true);
    await until(() => {
      answerTheRest();
      return taking.fault() ?? undefined;
    }, 'the fault');
    expect(await taken()).toEqual(['A-1']);
    expect(taking.fault()).toContain('Not everything could be taken along');
  });
  it('is not ready where it was cut short, and goes on with the next opening', async () => {
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids);
    await answerSpot(ids[0] ?? '');
    await answerSpot(ids[1] ?? '', true);
    await answerSpot(ids[2] ?? '');
    await ended();
    await until(() => along.ready()?.count === 2, 'two');
    expect(along.ready()).toMatchObject({ isWhole: false });
    TestBed.resetTestingModule();
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids);
    for (const id of ids) await answerSpot(id);
    await ended();
    expect([taking.isThrough(), taking.fault()]).toEqual([true, null]);
    await until(() => along.ready()?.count === 3 && along.ready()?.isWhole, 'all three');
    // What is here stays whole where it could not be fetched anew.
    const again = taking.take();
    await answerAssignments();
    await answerList(ids);
    for (const id of ids) await answerSpot(id, true);
    await ended();
    await again;
    expect(taking.fault()).toContain('Not everything');
    expect(await store.summary(session.user()?.id ?? '')).toMatchObject({ isWhole: true });
  });
  it('does not wait for what the server does not give, and keeps the map where nothing else is due', async () => {
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids);
    await answerSpot(ids[0] ?? '');
    await answerSpot(ids[1] ?? '');
    await until(() => http.match(`/api/spots/${ids[2]}`)[0], 'the third').then((request) =>
      request.flush({ code: 'not_found', title: 'gone' }, { status: 404, statusText: 'Not Found' }),
    );
    await ended();
    await until(() => along.ready()?.count === 2, 'two');
    await until(() => along.ready()?.isWhole, 'all that there is');
    expect(taking.fault()).toBeNull();
    const again = taking.take();
    await answerAssignments();
    await answerList([]);
    await again;
    expect(await taken()).toEqual([]);
  });
  it('stays taken along when it is opened by hand, and sixty others that were opened make room for more', async () => {
    begin('coordinator');
    await answerAssignments();
    await ended();
    const userId = session.user()?.id ?? '';
    const spot = (n: number, taken: 0 | 1) => {
      const id = `0190a5c2-0000-7000-8000-000000001${String(n).padStart(3, '0')}`;
      return { id, treeId: '', userId, ref: `O-${n}`, body: {}, bytes: 2, keptAt: Date.now() - 10_000 + n, taken };
    };
    await store.spots.bulkPut(Array.from({ length: 61 }, (_, n) => spot(n, n === 0 ? 1 : 0)));
    await along.keep(detail(ids[0] ?? '') as never);
    const left = await store.spots.toArray();
    expect(left.map(({ ref }) => ref).filter((ref) => ['O-0', 'O-1', 'O-2', 'A-1'].includes(ref))).toEqual(
      expect.arrayContaining(['O-0', 'O-2', 'A-1']),
    );
    expect(left).toHaveLength(61);
    await store.keepOpened({ ...spot(0, 0), ref: 'opened again' });
    expect(await taken()).toEqual(['opened again']);
  });
  it('asks who goes out to nothing only what they are assigned, and nothing without a network', async () => {
    begin('coordinator');
    await answerAssignments();
    await ended();
    http.verify();
    expect(along.ready()?.count).toBe(0);
    // Found nothing a moment ago: not asked again at each look, but at once where somebody asks.
    await taking.lookAgain();
    http.verify();
    for (const asks of [() => taking.takeIfStale(), () => taking.take()]) {
      const asked = asks();
      await answerAssignments();
      await asked;
    }
    session.away.set(true);
    await taking.take();
    http.verify();
  });
  it('is what one is assigned first, with the delivery and the map around it', async () => {
    session.user.update((user) => user && { ...user, id: '0190a5c2-0000-7000-8000-0000000000e1' });
    begin('coordinator');
    const given = (change: object) => ({
      id: '0190a5c2-0000-7000-8000-0000000000a1',
      kind: 'looks',
      title: 'Round',
      userId: session.user()?.id,
      userName: 'Inês',
      until: '2026-06-20',
      spotIds: [ids[0]],
      deliveryId: null,
      madeBy: 'Ann',
      madeAt: '2026-06-15T07:00:00Z',
      version: 1,
      ...change,
    });
    const deliveryId = '0190a5c2-0000-7000-8000-0000000000d1';
    await answerAssignments([
      given({}),
      given({ id: '0190a5c2-0000-7000-8000-0000000000a2', kind: 'delivery', spotIds: [], deliveryId }),
      given({
        id: '0190a5c2-0000-7000-8000-0000000000a3',
        userId: '0190a5c2-0000-7000-8000-0000000000ff',
        spotIds: [ids[1]],
      }),
    ]);
    await answerSpot(ids[0] ?? '');
    await until(() => {
      answerTheRest();
      http.match(`/api/deliveries/${deliveryId}`).forEach((one) => one.flush({ id: deliveryId }));
      return taking.progress() === null ? true : undefined;
    }, 'the end');
    await until(() => along.assignments().length === 2, 'both of one’s own');
    expect(await taken()).toEqual(['A-1']);
    expect(await along.answer(`/api/deliveries/${deliveryId}`)).toEqual({ id: deliveryId });
    await until(() => along.kinds().tiles > 20, 'the map');
    const [at = ''] = await store.tiles.toCollection().primaryKeys();
    // What the store of this test gives back of a buffer has no length of its own.
    expect([(await store.tiles.get(at))?.bytes, await along.tile(at)]).toEqual([8, expect.anything()]);
    // The map of before is not asked for again.
    const again = taking.take();
    await answerAssignments([given({})]);
    await answerSpot(ids[0] ?? '');
    await ended();
    await again;
    expect(http.match(({ url }) => url.startsWith('/api/map/base/'))).toEqual([]);
  });
  it('gives up the map first where the device is full, and never more than can be had again', async () => {
    const tile = (n: number) => ({ at: `17/${n}/1`, stamp: 's', body: new ArrayBuffer(4), bytes: 4, keptAt: n });
    await store.tiles.bulkPut(Array.from({ length: 100 }, (_, n) => tile(n)));
    await store.photos.put({ id: 'p', body: new ArrayBuffer(4), bytes: 4, keptAt: 1 });
    expect(await AlongStore.makeRoom()).toBe(true);
    expect(await store.tiles.orderBy('keptAt').keys()).toEqual(Array.from({ length: 40 }, (_, n) => n + 60));
    expect(await AlongStore.makeRoom()).toBe(true);
    expect([await store.tiles.count(), await store.photos.count()]).toEqual([0, 1]);
    expect(await AlongStore.makeRoom()).toBe(true);
    expect(await AlongStore.makeRoom()).toBe(false);
  });
  it('is nobody else’s: another person finds nothing, and signing out empties the device', async () => {
    begin('crew_lead');
    await answerAssignments();
    await answerList(ids.slice(0, 1));
    await answerSpot(ids[0] ?? '');
    await ended();
    await until(() => along.ready()?.count === 1, 'one');
    const owner = session.user();
    session.user.update((user) => user && { ...user, id: 'somebody else' });
    expect(await along.find({ kind: 'spot', id: ids[0] ?? '' })).toBeNull();
    session.user.set(owner);
    // Hidden after too many wrong codes; gone after signing out.
    await session.leave('keep');
    expect(await store.spots.count()).toBe(1);
    await session.leave();
    expect([await store.spots.count(), await store.tiles.count(), await store.answers.count()]).toEqual([0, 0, 0]);
  });
  it('opens for a week without a word from the server, by the server’s time, and is let go after that', async () => {
    const day = 86_400_000;
    const userId = session.user()?.id ?? '';
    const keep = async (n: number, ageDays: number) => {
      const keptAt = Date.now() - ageDays * day;
      const id = ids[n] ?? '';
      await store.spots.put({ id, treeId: '', userId, ref: '', body: {}, bytes: 2, keptAt, taken: 1 });
      await store.answers.put({ url: `/api/${n}`, userId, body: { n }, bytes: 2, keptAt });
    };
    await keep(0, 6.9);
    await keep(1, 7.1);
    session.away.set(true);
    begin('crew_lead');
    const opens = async (n: number) => [
      (await along.find({ kind: 'spot', id: ids[n] ?? '' })) !== null,
      (await along.answer(`/api/${n}`)) !== null,
    ];
    expect([await opens(0), await opens(1)]).toEqual([
      [true, true],
      [false, false],
    ]);
    let left = 2;
    await until(() => {
      void store.spots.count().then((count) => (left = count));
      return left === 1;
    }, 'the end of the old one');
    // A clock a day ahead makes nothing older than it is.
    localStorage.clear();
    await keep(2, 7.1);
    measureClock(new Date(Date.now() - day).toISOString(), Date.now());
    expect(await opens(2)).toEqual([true, true]);
    measureClock(new Date().toISOString(), Date.now());
  });
});
