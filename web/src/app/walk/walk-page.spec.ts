import { TestBed } from '@angular/core/testing';
import { container, detailOf, FakeOutbox, kept, loam, planted } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { until } from '../../../testing/until';
import { AlongStore } from '../offline/along-store';
import { AlongService } from '../offline/along.service';
import { OutboxService } from '../offline/outbox.service';
import { WalkPage } from './walk-page';

const userId = '0190a5c2-0000-7000-8000-0000000000e1';
const idOf = (n: number): string => `0190a5c2-0000-7000-8000-0000000000${String(n).padStart(2, '0')}`;
const assignmentId = idOf(90);
const records = [kept('ground', loam), kept('stock', container), kept('planting', planted)];

let store: AlongStore;
let rig: PageRig<WalkPage>;
let outbox: FakeOutbox;

const assigned = (change: object = {}) => ({
  ...{ id: assignmentId, kind: 'looks', title: 'Kelp Road', userId, userName: 'Marta', until: '2026-06-20' },
  ...{ spotIds: [idOf(1), idOf(2), idOf(3)], deliveryId: null, madeBy: 'Inês' },
  ...{ madeAt: '2026-06-15T07:00:00Z', version: 1, ...change },
});
const keepAssigned = (...some: readonly object[]) =>
  store.answers.put({ url: '/api/assignments', userId, body: some, bytes: 2, keptAt: Date.now() });
async function keepSpots(photoId?: string): Promise<void> {
  const one = detailOf(records);
  const photos = photoId ? [{ id: photoId, step: null, addedAt: '2026-06-01T08:00:00Z' }] : [];
  const spotOf = (n: number) => {
    const ref = `A-${n}`;
    const body = { ...one, photos, spot: { ...one.spot, id: idOf(n), ref, place: 'Kelp Road' } };
    return { id: idOf(n), treeId: '', userId, ref, body, bytes: 1000, keptAt: Date.now(), taken: 1 as const };
  };
  await store.spots.bulkPut([1, 2, 3].map(spotOf));
}
const show = (of = assignmentId) =>
  rig.show(WalkPage, {
    inputs: { assignmentId: of },
    providers: [AlongService, { provide: OutboxService, useValue: outbox }],
  });
const stop = (n: number) => until(() => rig.text.includes(`Stop ${n} of 3`), `stop ${n}`);
/** Without a server: what is asked of it fails as where there is no network. */
async function offline(): Promise<void> {
  for (const { url } of [idOf(1), idOf(2), idOf(3)].map((id) => ({ url: `/api/spots/${id}` }))) {
    rig.http.match(url).forEach((one) => one.error(new ProgressEvent('error')));
  }
  await new Promise((resolve) => setTimeout(resolve, 20));
  await rig.settle();
}
const sentFacts = () => outbox.sent.map(({ record }) => [record.kind, record.facts]);

beforeEach(async () => {
  localStorage.clear();
  store = new AlongStore();
  await store.empty();
  rig = new PageRig();
  outbox = new FakeOutbox();
  rig.session.user.update((user) => user && { ...user, id: userId, role: 'inspector' });
  rig.session.away.set(true);
});
afterEach(() => store.close());

describe('a walk of several trees', () => {
  it('says nothing of what it did not look at yet, then where one is and how many are left', async () => {
    await keepAssigned(assigned());
    await keepSpots();
    await show();
    const early = rig.text;
    expect(early).not.toMatch(/not assigned to you|Nothing is left|Not on this device/);
    await stop(1);
    expect(rig.text).toContain('3 of 3 left');
    expect(rig.text).toContain('A-1');
  });
  it('says so where it is none of one’s own, and where nothing of it lies here', async () => {
    await keepAssigned(assigned({ id: idOf(91) }));
    await show();
    await until(() => rig.text.includes('This is not assigned to you, is over, or was not taken along.'), 'the word');
    await show(idOf(91));
    await until(() => rig.text.includes('Nothing is left of it on this device.'), 'the other word');
  });
  it('goes on to the next where one comes later, and comes back to it last', async () => {
    await keepAssigned(assigned());
    await keepSpots();
    await show();
    await stop(1);
    await rig.press('Later');
    await stop(2);
    // Closed and opened again it is where it was.
    await show();
    await stop(2);
    await rig.press('Later');
    await stop(3);
    await rig.press('Later');
    await stop(1);
  });
  it('keeps why something cannot be done, in words of one’s own', async () => {
    await keepAssigned(assigned());
    await keepSpots();
    await show();
    await stop(1);
    await offline();
    await rig.press('Cannot be done');
    await rig.fill('Another reason', ' bees ');
    await rig.press('Keep this reason');
    expect(sentFacts()).toEqual([['not_done', { task: 'looks', triedOn: '2026-06-15', reason: 'bees' }]]);
    expect(outbox.sent[0]?.spotId).toBe(idOf(1));
  });
  it('does not say at the next tree what was wrong at the one before, nor keeps what was typed there', async () => {
    await keepAssigned(assigned());
    await keepSpots();
    await show();
    await stop(1);
    await offline();
    outbox.answer = {
      kind: 'refused',
      problem: { code: 'invalid', title: 'The reason is none', status: 422 } as never,
    };
    await rig.press('Cannot be done');
    await rig.press('gate locked');
    expect(rig.text).toContain('The reason is none');
    await rig.fill('Another reason', 'of the first tree');
    await rig.press('Later');
    await stop(2);
    expect(rig.text).not.toContain('The reason is none');
    await offline();
    await rig.press('Cannot be done');
    expect(rig.field('Another reason').value).toBe('');
    // What is recorded here is another record.
    outbox.answer = { kind: 'stored', receipt: { id: idOf(70), stored: true, spotVersion: 2 } };
    await rig.press('car in the way');
    const [first, second] = outbox.sent;
    expect([first?.spotId, second?.spotId]).toEqual([idOf(1), idOf(2)]);
    expect(first?.record.id).not.toBe(second?.record.id);
  });
  it('stores no look at which nothing was looked at, and keeps what was answered over a closing', async () => {
    await keepAssigned(assigned());
    await keepSpots();
    await show();
    await stop(1);
    await offline();
    await rig.press('It is this tree');
    expect(rig.text).toMatch(/question 1 of \d+/);
    const of = Number(/question 1 of (\d+)/.exec(rig.text)?.[1]);
    for (let n = 0; n < of; n++) await rig.press('Skip');
    expect(rig.text).toContain('A-1: is it so?');
    await rig.press('Store');
    expect(rig.text).toContain('Nothing was looked at yet');
    expect(outbox.sent).toEqual([]);
    await show();
    await until(() => rig.text.includes('A-1: is it so?'), 'where it was');
  });
  it('shows the tree where the storage of its photo fails', async () => {
    await keepAssigned(assigned());
    await keepSpots(idOf(60));
    await show();
    TestBed.inject(AlongService).photo = () => Promise.reject(new Error('storage'));
    await stop(1);
    await rig.settle();
    expect(rig.text).toContain('As planned');
    expect(rig.element.querySelector('img')?.getAttribute('src')).toBe(`/api/photos/${idOf(60)}?px=400`);
  });
});
