import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { because } from '@sombra/core';
import { container, detailOf, FakeOutbox, kept, loam, planted, spotId, treeId } from '../../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { OutboxService } from '../offline/outbox.service';
import { DeskPage } from './desk-page';

const line = (change: object = {}) => ({
  count: 1,
  spotId,
  treeId,
  ref: 'C-0101',
  place: 'Mole Street',
  species: 'Celtis australis',
  kind: 'do_remedy',
  stage: 'inspect',
  level: 'urgent',
  dueOn: '2026-06-12',
  remedy: 'free_tie_now',
  because: [because('stake_biting', {})],
  points: 85,
  daysLate: 3,
  ...change,
});

let fixture: ComponentFixture<DeskPage>;
let http: HttpTestingController;
let outbox: FakeOutbox;
const text = () => (fixture.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ');
const settle = async () => {
  for (let i = 0; i < 4; i++) await fixture.whenStable();
};

async function show(lines: { count: number }[], groups = lines.length): Promise<void> {
  const total = lines.reduce((sum, { count }) => sum + count, 0);
  for (const call of http.match(({ url }) => url === '/api/desk')) {
    const on = call.request.params.get('on') ?? '2026-06-15';
    if (!call.cancelled)
      call.flush({ today: '2026-06-15', on, lines, groups, total, waiting: { inspect: total }, uncovered: [] });
  }
  await settle();
}

const answerSpot = async () => {
  const inspection = {
    inspectedOn: '2026-06-10',
    flareDepthMm: null,
    mulchDepthMm: null,
    mulchContact: null,
    stake: 'biting',
    probe: null,
    circlingRoots: null,
  } as const;
  const records = [
    kept('ground', loam),
    kept('stock', container),
    kept('planting', planted),
    kept('inspection', inspection),
  ];
  http.expectOne(`/api/spots/${spotId}`).flush(detailOf(records));
  await settle();
};

beforeEach(async () => {
  outbox = new FakeOutbox();
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', component: DeskPage }]),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideFakeSession(new FakeSession()),
      { provide: OutboxService, useValue: outbox },
    ],
  });
  http = TestBed.inject(HttpTestingController);
  fixture = TestBed.createComponent(DeskPage);
  await fixture.whenStable();
});

describe('desk', () => {
  it('says what, where, why and how late, and opens the first line', async () => {
    await show([line()]);
    await answerSpot();
    expect(text()).toContain('1 decision today');
    expect(text()).toContain('Free the biting tieC-0101 · Mole Street · Celtis australis');
    expect(text()).toContain('The tie bites into the bark and will strangle the stem.');
    expect(text()).toContain('3 days late');
    expect(text()).toContain('Last look, Wed 10 Jun 2026');
  });

  it('cannot act before the spot of the line is open', async () => {
    await show([line()]);
    const button = [
      ...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLButtonElement>('.bench button'),
    ].find((b) => b.textContent.trim() === 'stake and ties are off, the tree stands firm');
    expect(button?.disabled).toBe(true);
    await answerSpot();
    expect(button?.disabled).toBe(false);
    button?.click();
    await settle();
    expect(outbox.sent[0]).toMatchObject({
      spotId,
      record: { kind: 'remedy', facts: { remedy: 'free_tie_now', seen: { stake: 'none', rocks: 'firm' } } },
    });
  });

  it('says so when nothing waits', async () => {
    await show([]);
    expect(text()).toContain('Nothing needs you today.');
  });

  it('counts what it does not list', async () => {
    await show([line()], 240);
    expect(text()).toContain('239 more lines wait');
  });

  it('shows alike decisions at one place as one line, with its trees to tick off', async () => {
    await show([line({ count: 26, remedy: 'remove_stake' })]);
    expect(text()).toContain('26 decisions today');
    expect(text()).toContain('Remove stake and ties26 trees · Mole Street · C-0101 first');
    const asked = http.expectOne(({ url }) => url === '/api/desk/members');
    expect(asked.request.params.toString()).toBe('place=Mole%20Street&kind=do_remedy&level=urgent&remedy=remove_stake');
    const member = (ref: string, i: number) => ({
      spotId: `0190a5c2-0000-7000-8000-00000000010${i}`,
      treeId: null,
      ref,
      species: 'Celtis australis',
      dueOn: '2026-06-12',
      because: [because('stake_overdue', { monthsSincePlanting: 19, offAfterMonths: 12 })],
    });
    asked.flush([member('C-0101', 1), member('C-0102', 2)]);
    await settle();
    const box = (fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>('[aria-label="Choose C-0102"]');
    box?.click();
    await settle();
    const button = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find((b) =>
      b.textContent.includes('stake and ties are off, the tree stands firm'),
    );
    expect(text()).toContain('Done today on 1:');
    button?.click();
    const { request } = http.expectOne('/api/records/batch');
    expect((request.body as { records: object[] }).records).toMatchObject([
      {
        spotId: member('', 1).spotId,
        record: {
          kind: 'remedy',
          facts: { remedy: 'remove_stake', doneOn: '2026-06-15', seen: { stake: 'none', rocks: 'firm' } },
        },
      },
    ]);
  });

  it('shows another day without offering to act on it', async () => {
    await TestBed.inject(Router).navigate(['/'], { queryParams: { on: '2026-07-01' } });
    await settle();
    await show([line({ daysLate: 19 })]);
    expect(text()).toContain('1 decision due by 1 Jul 2026');
    expect(text()).not.toContain('Done today');
  });

  it('says when the server cannot be reached, and asks again', async () => {
    for (const call of http.match(({ url }) => url === '/api/desk'))
      if (!call.cancelled) call.error(new ProgressEvent('error'));
    await settle();
    expect(text()).toContain('The server cannot be reached');
    [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')]
      .find((b) => b.textContent.trim() === 'Try again')
      ?.click();
    await show([line()]);
    expect(text()).toContain('1 decision today');
  });
});
