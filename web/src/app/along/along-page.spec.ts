import { signal } from '@angular/core';
import { detailOf, kept, loam } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { until } from '../../../testing/until';
import { AlongStore } from '../offline/along-store';
import { AlongService } from '../offline/along.service';
import { LaidInService } from '../offline/laid-in.service';
import { AlongPage } from './along-page';

let rig: PageRig<AlongPage>;
let store: AlongStore;

const laid = { state: signal({ kind: 'ready' }), look: () => Promise.resolve({ kind: 'ready' }) };
const spots = 25;
const userId = '0190a5c2-0000-7000-8000-0000000000e1';
const idOf = (n: number): string => `0190a5c2-0000-7000-8000-0000000000${String(n).padStart(2, '0')}`;
async function keepSpots(): Promise<void> {
  const one = detailOf([kept('ground', loam)]);
  const spotOf = (n: number) => {
    const ref = `A-${String(n).padStart(2, '0')}`;
    const body = { ...one, spot: { ...one.spot, id: idOf(n), ref, place: n === 7 ? 'Quince Park' : 'Kelp Road' } };
    return { id: idOf(n), treeId: '', userId, ref, body, bytes: 1000, keptAt: Date.now(), taken: 1 as const };
  };
  await store.spots.bulkPut(Array.from({ length: spots }, (_, n) => spotOf(n)));
  const assigned = {
    ...{ id: idOf(90), kind: 'looks', title: 'Round', userId, userName: 'Inês', until: '2026-06-20' },
    ...{ spotIds: [idOf(0)], deliveryId: null, madeBy: 'Ann', madeAt: '2026-06-15T07:00:00Z', version: 1 },
  };
  await store.answers.put({ url: '/api/assignments', userId, body: [assigned], bytes: 2, keptAt: Date.now() });
}
const refs = () => [...rig.element.querySelectorAll('li b')].map(({ textContent }) => textContent);
beforeEach(async () => {
  store = new AlongStore();
  await store.empty();
  await keepSpots();
  rig = new PageRig();
  rig.session.user.update((user) => user && { ...user, id: userId });
  rig.session.away.set(true);
  await rig.show(AlongPage, { providers: [{ provide: LaidInService, useValue: laid }, AlongService] });
});
afterEach(() => store.close());

describe('what is taken along', () => {
  it('shows what one is sent out to above what comes later, and says nothing of what it did not look at yet', async () => {
    expect(rig.text).not.toMatch(/nothing is taken along|Nothing is assigned/);
    await until(() => /Ready for 25 trees/.test(rig.text), 'the word that it is ready');
    await until(() => rig.element.querySelector('s-assignment-card'), 'the assignment');
    const [card, acts] = ['s-assignment-card', '.acts'].map((one) => rig.element.querySelector(one));
    const before = card?.previousElementSibling;
    // Only what is there at once stands above it.
    expect(before?.textContent).toContain('No network');
    expect(acts && card && card.compareDocumentPosition(acts) & Node.DOCUMENT_POSITION_FOLLOWING).toBeTruthy();
  });
  it('draws the first twenty lines, the rest when asked, and of what is looked for only that', async () => {
    await until(() => refs().length === 20, 'twenty lines');
    await rig.press('Show all 25');
    await until(() => refs().length === spots, 'all lines');
    expect(rig.text).not.toContain('Show all');
    await rig.fill('Find among what is here', 'quince');
    await until(() => refs().length === 1, 'the one');
    expect(refs()).toEqual(['A-07']);
    await rig.fill('Find among what is here', 'nowhere');
    await until(
      () => rig.text.includes('Nothing is kept on this device by these words.'),
      'the word that there is none',
    );
  });
  it('does not let anybody leave with what was cut short', async () => {
    await store.beginTaking(userId, Date.now());
    await until(
      () => /Not ready: cut short at 25 trees, .+ It goes on where/.test(rig.text),
      'the word that it is not',
    );
    await store.endTaking();
    await until(() => /Ready for 25 trees/.test(rig.text), 'the word that it is');
    // What another person began says nothing of this one's.
    await store.beginTaking('somebody else', Date.now());
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(rig.text).toContain('Ready for 25 trees');
  });
  it('draws some lines at a time, each when the page is at rest', async () => {
    const resting: (() => void)[] = [];
    const before = globalThis.requestIdleCallback;
    globalThis.requestIdleCallback = (act) => resting.push(act as () => void);
    try {
      await rig.show(AlongPage, { providers: [{ provide: LaidInService, useValue: laid }, AlongService] });
      const counts: number[] = [];
      for (let turns = 0; turns < 400 && refs().length < 20; turns++) {
        resting.shift()?.();
        await new Promise((resolve) => setTimeout(resolve, 5));
        await rig.settle();
        if (counts.at(-1) !== refs().length) counts.push(refs().length);
      }
      expect(counts.filter((count) => count > 0)).toEqual([4, 8, 12, 16, 20]);
    } finally {
      globalThis.requestIdleCallback = before;
    }
  });
});
