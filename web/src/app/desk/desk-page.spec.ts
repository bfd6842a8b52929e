import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { because } from '@sombra/core';
import { container, detailOf, FakeOutbox, kept, loam, planted, spotId, treeId } from '../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../testing/fake-session';
import { OutboxService } from '../offline/outbox.service';
import { DeskPage } from './desk-page';

const line = (change: object = {}) => ({
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

async function show(lines: object[], total = lines.length): Promise<void> {
  for (const call of http.match('/api/desk')) {
    if (!call.cancelled) call.flush({ today: '2026-06-15', lines, total, waiting: { inspect: total } });
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
      provideRouter([]),
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
    const button = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find(
      (b) => b.textContent.trim() === 'Done today',
    );
    expect(button?.disabled).toBe(true);
    await answerSpot();
    expect(button?.disabled).toBe(false);
    button?.click();
    await settle();
    expect(outbox.sent[0]).toMatchObject({ spotId, record: { kind: 'remedy', facts: { remedy: 'free_tie_now' } } });
  });

  it('says so when nothing waits', async () => {
    await show([]);
    expect(text()).toContain('Nothing needs you today.');
  });

  it('counts what it does not list', async () => {
    await show([line()], 240);
    expect(text()).toContain('240 decisions today');
    expect(text()).toContain('239 more wait');
  });

  it('says when the server cannot be reached, and asks again', async () => {
    for (const call of http.match('/api/desk')) if (!call.cancelled) call.error(new ProgressEvent('error'));
    await settle();
    expect(text()).toContain('The server cannot be reached.');
    [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')]
      .find((b) => b.textContent.trim() === 'Try again')
      ?.click();
    await show([line()]);
    expect(text()).toContain('1 decision today');
  });
});
