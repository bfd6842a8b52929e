import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Delivery, Lot, LotTree, ReceiveLot } from '@sombra/contract';
import { defaultReceivingRules, unseenTree, type ReceivedTree } from '@sombra/core';
import { of } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { LotCard } from './lot-card';
import { StockService } from './stock.service';

const seen = (change: Partial<ReceivedTree> = {}): LotTree => ({
  id: crypto.randomUUID(),
  tree: { ...unseenTree, circlingPct: 5, ...change, probes: [...(change.probes ?? [])] },
  seenBy: 'Inês',
  seenAt: '2026-06-15T09:00:00Z',
  hasPhoto: false,
  photoAt: null,
});
const lot: Lot = {
  id: '0190a5c2-0000-7000-8000-000000000001',
  species: 'Quercus ilex',
  stockKind: 'container',
  caliperMm: 50,
  price: 90,
  spots: ['L-0101'],
  expected: 24,
  arrived: null,
  trees: [],
  verdict: null,
  reason: '',
  sign: null,
  version: 1,
};

let fixture: ComponentFixture<LotCard>;
let sent: ReceiveLot[];
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const press = async (name: string) => {
  [...element().querySelectorAll('button')]
    .find((one) => one.textContent.replace(/\s+/g, ' ').trim() === name)
    ?.click();
  await fixture.whenStable();
};
const fill = async (name: string, value: string) => {
  const inputs = [...element().querySelectorAll('input')];
  const field = inputs.find((one) => one.closest('label')?.textContent.trim() === name);
  if (!field) throw new Error(name);
  field.value = value;
  field.dispatchEvent(new Event('input'));
  await fixture.whenStable();
};
const show = async (change: Partial<Lot>) => {
  fixture.componentRef.setInput('lot', { ...lot, ...change });
  await fixture.whenStable();
};

beforeEach(async () => {
  sent = [];
  const doors = {
    receive: (_id: string, received: ReceiveLot) => {
      sent.push(received);
      return of({} as Delivery);
    },
  };
  TestBed.configureTestingModule({
    providers: [provideRouter([]), provideFakeSession(new FakeSession()), { provide: StockService, useValue: doors }],
  });
  fixture = TestBed.createComponent(LotCard);
  fixture.componentRef.setInput('deliveryId', '0190a5c2-0000-7000-8000-0000000000aa');
  fixture.componentRef.setInput('lot', lot);
  fixture.componentRef.setInput('rules', defaultReceivingRules);
  fixture.componentRef.setInput('mayReceive', true);
  await fixture.whenStable();
});

describe('a lot as it is received', () => {
  it('says how many of 24 to open, and holds it until they are', () => {
    expect(text()).toContain('0 of 13 opened');
    expect(text()).toContain('Proposed: Hold');
    expect(text()).toContain('Open 13 more');
  });

  it('opens fewer of a smaller lot', async () => {
    await fill('Arrived', '3');
    expect(text()).toContain('0 of 3 opened');
  });

  it('wants the count of what arrived', async () => {
    await press('Accept');
    expect(text()).toContain('Arrived: count what arrived');
    expect(sent).toEqual([]);
  });

  it('proposes the return of a pot-bound lot and asks why before it stores one', async () => {
    const trees = [
      ...Array.from({ length: 8 }, () => seen()),
      ...Array.from({ length: 5 }, () => seen({ circlingPct: 75 })),
    ];
    await show({ trees });
    await fill('Arrived', '24');
    expect(text()).toContain('Proposed: Return');
    expect(text()).toContain('5 of 13 opened are bad');
    await press('Return');
    expect([sent, element().querySelector('.problem')?.textContent.trim()]).toEqual([
      [],
      'Because: must say why, in 3 letters or more.',
    ]);
    await fill('Because', 'pot-bound throughout');
    await press('Return');
    expect(sent).toEqual([{ version: 1, arrived: 24, verdict: 'return', reason: 'pot-bound throughout' }]);
  });

  it('names each opened tree with its own verdict', async () => {
    await show({ trees: [seen({ leader: 'split' }), seen()] });
    const rows = [...element().querySelectorAll('tr')].map((row) => row.textContent.replace(/\s+/g, ' ').trim());
    expect(rows[0]).toMatch(/^Tree 1\s*Correct at planting .*Two leaders/);
    expect(rows[1]).toMatch(/^Tree 2\s*Accept/);
  });

  it('shows a viewer no act', async () => {
    fixture.componentRef.setInput('mayReceive', false);
    await fixture.whenStable();
    expect([...element().querySelectorAll('.acts button, a')]).toEqual([]);
  });
});
