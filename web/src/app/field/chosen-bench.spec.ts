import { TestBed } from '@angular/core/testing';
import type { SendBatch, SpotLine } from '@sombra/contract';
import { container, detailOf, FakeOutbox, kept, loam, planted } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { OutboxService } from '../offline/outbox.service';
import { ChosenBench } from './chosen-bench';
import { ChosenService } from '../spot/chosen.service';
import { until } from '../../../testing/until';

const line = (i: number, change: Partial<SpotLine> = {}): SpotLine => ({
  spotId: `0190a5c2-0000-7000-8000-${String(i).padStart(12, '0')}`,
  treeId: null,
  ref: `C-${i}`,
  place: 'Mole Street',
  species: 'Celtis australis',
  stage: 'inspect',
  level: 'good',
  plantedOn: '2025-01-10',
  probe: null,
  nextLookOn: null,
  decisions: 1,
  dueOn: null,
  position: [-25.4, 36.9],
  ...change,
});
const unplanted = (i: number) => line(i, { plantedOn: null, stage: 'pit', species: null, place: 'Ropewalk' });

let rig: PageRig<ChosenBench>;
let chosen: ChosenService;
async function show(lines: readonly SpotLine[], remedies: object[] = [], address = '/town'): Promise<void> {
  await rig.show(ChosenBench, { address, providers: [{ provide: OutboxService, useValue: new FakeOutbox() }] });
  chosen = TestBed.inject(ChosenService);
  chosen.add(lines);
  await answer(remedies);
}
async function answer(remedies: object[]): Promise<void> {
  // The bench waits a moment for more to be chosen before it asks.
  const asked = await until(() => {
    const calls = rig.http.match('/api/desk/remedies').filter(({ cancelled }) => !cancelled);
    return calls.length > 0 && calls;
  });
  for (const call of asked) call.flush(remedies);
  const records = [kept('ground', loam), kept('stock', container), kept('planting', planted)];
  for (const call of rig.http.match(({ url }) => url.startsWith('/api/spots/'))) {
    const detail = detailOf(records);
    const spotId = call.request.url.split('/').at(-1);
    const ref = chosen.chosen().find((one) => one.spotId === spotId)?.ref;
    if (!call.cancelled) call.flush({ ...detail, spot: { ...detail.spot, id: spotId, ref } });
  }
  await rig.settle();
}

beforeEach(() => {
  rig = new PageRig();
});

describe('the chosen trees', () => {
  it('are summed by state and place, and put side by side while few', async () => {
    await show([line(1), line(2, { level: 'urgent' })]);
    expect(rig.text).toContain('2 chosen');
    expect(rig.text).toMatch(/1 good, 1 urgent · 2 on Mole Street/);
    expect(rig.element.querySelector('s-compare')?.textContent).toContain('C-2');
  });

  it('are a list once they are more than fit side by side; one is taken off by itself', async () => {
    await show([1, 2, 3, 4].map((i) => line(i)));
    expect(rig.element.querySelector('s-compare')).toBeNull();
    expect(rig.rows()[1]).toBe('C-1 Mole Street Celtis australis Inspect');
    await rig.press('Take C-1 off');
    await answer([]);
    expect(rig.text).toContain('3 chosen');
    await rig.press('Clear Esc');
    expect(chosen.count()).toBe(0);
  });

  it('are settled together for the remedy picked, where it is open on them', async () => {
    const lines = [1, 2, 3, 4].map((i) => line(i));
    const spots = lines.map(({ spotId }) => spotId);
    await show(lines, [
      { remedy: 'thin_mulch', spotIds: spots.slice(0, 3) },
      { remedy: 'remove_stake', spotIds: spots.slice(3) },
    ]);
    expect(rig.field('Remedy that was done').textContent.replace(/\s+/g, ' ')).toMatch(/\(3\).*\(1\)/);
    expect(rig.text).toContain('Done today on 3');
    await rig.fill('Remedy that was done', 'remove_stake');
    expect(rig.text).toContain('Done today on 1:');
    await rig.press('stake and ties are off, the tree stands firm');
    const { records } = rig.http.expectOne('/api/records/batch').request.body as SendBatch;
    expect(records.map(({ spotId, record }) => [spotId, record.facts])).toEqual([
      [spots[3], { remedy: 'remove_stake', doneOn: '2026-06-15', seen: { stake: 'none', rocks: 'firm' } }],
    ]);
  });

  it('are asked first for the remedy that the list was filtered by', async () => {
    const lines = [1, 2, 3].map((i) => line(i));
    const spots = lines.map(({ spotId }) => spotId);
    const open = [
      { remedy: 'thin_mulch', spotIds: spots },
      { remedy: 'remove_stake', spotIds: spots },
    ];
    await show(lines, open, '/inspect?remedy=remove_stake');
    expect(rig.field('Remedy that was done').value).toBe('remove_stake');
    expect(rig.button('stake and ties are off, the tree stands firm')).toBeTruthy();
    await rig.fill('Remedy that was done', 'thin_mulch');
    expect(rig.field('Remedy that was done').value).toBe('thin_mulch');
  });

  it('that wait to be planted are put on a ticket or on a season’s list', async () => {
    await show([unplanted(1), unplanted(2), line(3), line(4)]);
    expect(rig.button("Season's list for 2")).toBeTruthy();
    await rig.press('Raise a locate ticket for 2');
    const call = rig.http.expectOne('/api/tickets');
    expect(call.request.body).toMatchObject({
      purpose: 'Planting, Ropewalk',
      spotIds: [unplanted(1).spotId, unplanted(2).spotId],
      renews: null,
    });
  });

  it('that wait to be planted are withdrawn, and leave the choice', async () => {
    await show([unplanted(1), unplanted(2), line(3), line(4)]);
    await rig.press('Withdraw 2 spots');
    const call = rig.http.expectOne(({ url }) => url.includes('withdraw'));
    expect(call.request.body).toMatchObject({ spotIds: [unplanted(1).spotId, unplanted(2).spotId], withdrawn: true });
    call.flush(null, { status: 204, statusText: 'No Content' });
    await rig.settle();
    expect(chosen.chosen().map(({ ref }) => ref)).toEqual(['C-3', 'C-4']);
  });

  it.each([
    ['somebody who only reads', '/town', 'viewer'],
    ['a day gone by', '/town?on=2026-06-01', 'coordinator'],
  ] as const)('offer no act to %s', async (_who, address, role) => {
    rig.session.user.update((user) => user && { ...user, role });
    await show(
      [unplanted(1), unplanted(2), line(3), line(4)],
      [{ remedy: 'thin_mulch', spotIds: [line(3).spotId] }],
      address,
    );
    expect(rig.element.querySelector('.acts')).toBeNull();
  });
});
