import { TestBed } from '@angular/core/testing';
import type { DeskLine, SendBatch } from '@sombra/contract';
import { because } from '@sombra/core';
import { FakeOutbox } from '../../../testing/bench-rig';
import { PageRig } from '../../../testing/page-rig';
import { ToastsService } from '../ui/toasts.service';
import { OutboxService } from '../offline/outbox.service';
import { DeskGroup } from './desk-group';

const id = (i: number) => `0190a5c2-0000-7000-8000-${String(i).padStart(12, '0')}`;
const line: DeskLine = {
  count: 3,
  spotId: id(1),
  treeId: id(11),
  ref: 'C-0101',
  place: 'Mole Street',
  species: 'Celtis australis',
  kind: 'do_remedy',
  stage: 'inspect',
  level: 'act',
  dueOn: '2026-06-12',
  remedy: 'lift_and_replant',
  because: [because('flare_exposed', { aboveMm: 120 })],
  points: 85,
  daysLate: 3,
};
const members = [1, 2, 3].map((i) => ({
  spotId: id(i),
  treeId: id(10 + i),
  ref: `C-010${i}`,
  species: i === 3 ? null : 'Celtis australis',
  dueOn: i === 2 ? null : '2026-06-12',
  because: [because('flare_exposed', { aboveMm: 100 + 10 * i })],
}));

let rig: PageRig<DeskGroup>;
let outbox: FakeOutbox;
async function show({ address = '/desk', answer = true, of = line } = {}): Promise<void> {
  outbox = new FakeOutbox();
  await rig.show(DeskGroup, {
    address,
    inputs: { line: of },
    providers: [{ provide: OutboxService, useValue: outbox }],
  });
  if (!answer) return;
  rig.http.expectOne(({ url }) => url === '/api/desk/members').flush(members);
  await rig.settle();
}
const box = (name: string) => rig.field(name) as HTMLInputElement;
async function tick(name: string, on: boolean): Promise<void> {
  box(name).checked = on;
  box(name).dispatchEvent(new Event('change'));
  await rig.settle();
}
const batch = () => rig.http.expectOne('/api/records/batch');
const spotsOf = (body: unknown) => (body as SendBatch).records.map(({ spotId }) => spotId);

beforeEach(() => {
  rig = new PageRig();
});

describe('one walk that settles several trees', () => {
  it('says what to do, the caution, and each tree with its own reason', async () => {
    await show();
    expect(rig.text).toContain('Lift and replant');
    expect(rig.text).toContain('3 on Mole Street');
    expect(rig.element.querySelector('.caution')?.textContent.length).toBeGreaterThan(10);
    expect(rig.rows().slice(1)).toEqual([
      'C-0101 Celtis australis 12 Jun 2026 Flare stands 110 mm clear of the soil: fine roots dry.',
      'C-0102 Celtis australis this season Flare stands 120 mm clear of the soil: fine roots dry.',
      'C-0103 no tree yet 12 Jun 2026 Flare stands 130 mm clear of the soil: fine roots dry.',
    ]);
  });

  it('asks for the trees of its line, on the chosen day', async () => {
    await show({ address: '/desk?on=2026-06-20', answer: false });
    const { params } = rig.http.expectOne(({ url }) => url === '/api/desk/members').request;
    expect(Object.fromEntries(params.keys().map((key) => [key, params.get(key)]))).toEqual({
      place: 'Mole Street',
      kind: 'do_remedy',
      level: 'act',
      remedy: 'lift_and_replant',
      on: '2026-06-20',
    });
    expect(rig.text).toContain('Reading the trees');
  });

  it('stores the act for those that are ticked, in one batch, and takes it back from the note', async () => {
    await show();
    await tick('Choose C-0102', false);
    expect(box('All').checked).toBe(false);
    expect(rig.text).toContain('Done today on 2:');
    await rig.press('the flare shows at the surface');
    const sent = batch();
    expect(spotsOf(sent.request.body)).toEqual([id(1), id(3)]);
    const [first] = (sent.request.body as SendBatch).records;
    expect(first?.record).toMatchObject({
      kind: 'remedy',
      facts: { remedy: 'lift_and_replant', doneOn: '2026-06-15', seen: { flareDepthMm: 0 } },
    });
    sent.flush({ receipts: [] });
    await rig.settle();
    const toasts = TestBed.inject(ToastsService);
    const said = toasts.toasts().at(-1);
    expect(said?.text).toBe('Lift and replant: stored as done on 2 trees.');
    if (said) toasts.act(said);
    await rig.settle();
    const back = batch().request.body as SendBatch;
    expect(back.records.map(({ record }) => [record.kind, record.supersedes])).toEqual([
      ['retraction', first?.record.id],
      ['retraction', (sent.request.body as SendBatch).records[1]?.record.id],
    ]);
  });

  it('ticks all or none, and does nothing for none', async () => {
    await show();
    await tick('All', false);
    expect(rig.button('the flare shows at the surface')).toHaveProperty('disabled', true);
    await tick('All', true);
    expect(rig.button('the flare shows at the surface')).toHaveProperty('disabled', false);
  });

  it('keeps the records on the device where the server cannot be reached', async () => {
    await show();
    await rig.press('the flare shows at the surface');
    batch().error(new ProgressEvent('error'), { status: 0 });
    await rig.settle();
    expect(outbox.sent.map(({ spotId }) => spotId)).toEqual([id(1), id(2), id(3)]);
    expect(TestBed.inject(ToastsService).toasts().at(-1)?.text).toContain('3 records are kept on this device');
  });

  it('says why a refused act was not stored, and stores nothing of it', async () => {
    await show();
    await rig.press('the flare shows at the surface');
    const title = 'C-0102 was withdrawn; nothing was stored';
    batch().flush(
      { type: 'urn:sombra:problem:conflict', title, status: 409, code: 'conflict' },
      { status: 409, statusText: 'Conflict' },
    );
    await rig.settle();
    expect(rig.text).toContain(title);
    expect(outbox.sent).toEqual([]);
  });

  it.each([
    ['somebody who only reads', '/desk', 'viewer'],
    ['a day ahead', '/desk?on=2026-06-20', 'coordinator'],
  ] as const)('offers no act to %s', async (_who, address, role) => {
    rig.session.user.update((user) => user && { ...user, role });
    await show({ address });
    expect(rig.text).not.toContain('Done today');
    expect(rig.element.querySelectorAll('input')).toHaveLength(0);
    expect(rig.rows()).toHaveLength(4);
  });
});

it('signs several trees off at once, where all that is known says they stand on their own', async () => {
  await show({ of: { ...line, kind: 'sign_off', level: 'good', remedy: null } });
  await tick('Choose C-0102', false);
  await rig.press('Sign off 2 as established');
  const sent = batch().request.body as SendBatch;
  expect(sent.records.map(({ spotId, record }) => [spotId, record.kind, record.facts])).toEqual(
    [id(1), id(3)].map((spotId) => [spotId, 'signed_off', { signedOn: '2026-06-15', reason: '' }]),
  );
});
