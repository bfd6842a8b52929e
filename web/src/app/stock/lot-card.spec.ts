import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Delivery, Lot, ReceiveLot } from '@sombra/contract';
import { of } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../testing/fake-session';
import { LotCard } from './lot-card';
import { StockService } from './stock.service';

const lot: Lot = {
  id: '0190a5c2-0000-7000-8000-000000000001',
  species: 'Quercus ilex',
  stockKind: 'container',
  caliperMm: 50,
  price: 90,
  spots: ['L-0101'],
  expected: 24,
  arrived: null,
  opened: 0,
  bad: 0,
  tree: null,
  verdict: null,
  reason: '',
  hasPhoto: false,
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
  const field = inputs.find(
    (one) => one.getAttribute('aria-label') === name || one.closest('label')?.textContent.trim() === name,
  );
  if (!field) throw new Error(name);
  field.value = value;
  field.dispatchEvent(new Event('input'));
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
    providers: [provideFakeSession(new FakeSession()), { provide: StockService, useValue: doors }],
  });
  fixture = TestBed.createComponent(LotCard);
  fixture.componentRef.setInput('lot', lot);
  fixture.componentRef.setInput('mayReceive', true);
  await fixture.whenStable();
});

describe('a lot as it is received', () => {
  it('says how many of 24 to open', () => {
    expect(text()).toContain('Open 13:');
  });

  it('proposes the return of a pot-bound lot and asks why before it stores one', async () => {
    await fill('Arrived', '24');
    await fill('Opened', '13');
    await fill('Of them bad', '5');
    await press('75 %');
    expect(text()).toContain('Proposed: Return');
    await press('Return');
    expect(sent).toEqual([]);
    expect(text()).toContain('Because: must say why');
    await fill('Because', 'pot-bound throughout');
    await press('Return');
    expect(sent).toMatchObject([{ arrived: 24, opened: 13, bad: 5, verdict: 'return', tree: { circlingPct: 75 } }]);
  });

  it('asks whether a small caliper was meant in inches, and takes what is said', async () => {
    await fill('Arrived', '24');
    await fill('Caliper, mm', '2');
    await press('Accept');
    expect(sent).toEqual([]);
    expect(text()).toContain('2 in are 51 mm');
    await press('Yes, inches');
    await press('Accept');
    expect(sent[0]?.tree.caliperMm).toBe(51);
  });

  it('keeps a measure outside its limits as typed and names it', async () => {
    await fill('Arrived', '24');
    await fill('Height, m', '400');
    await press('Accept');
    expect(sent).toEqual([]);
    expect(element().querySelector('.problem')?.textContent).toContain('Height');
    await press('Store, decide later');
    expect(sent).toEqual([]);
  });

  it('wants the count of what arrived', async () => {
    await press('Accept');
    expect(text()).toContain('Arrived: count what arrived');
  });

  it('takes the deepest of several probes', async () => {
    await fill('Ball height, mm', '400');
    await fill('Topmost roots, by probe at several points, mm', '30 160, 20');
    expect(text()).toContain('Topmost roots 160 mm down in a ball of 400 mm');
    expect(text()).toContain('Proposed: Return');
  });
});
