import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { ListResult, SeasonList } from '@sombra/contract';
import { defaultMatchRules } from '@sombra/core';
import { of } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { GroundService } from '../ground/ground.service';
import { ListPage } from './list-page';
import { MatchService } from './match.service';

const offer = (id: string, species: string, price: number): ListResult['offers'][number] => ({
  id,
  nursery: 'Viveiro Azul',
  species,
  family: 'Fagaceae',
  ease: 1,
  stockKind: 'container',
  caliperMm: 40,
  heightM: 3,
  price,
  available: 5,
  listDay: '2026-06-01',
});
const result: ListResult = {
  picks: [
    {
      spotId: 's1',
      offerId: 'o1',
      fit: 0.9,
      next: { offerId: 'o2', fitLoss: 0.04, priceMore: -20 },
      better: {
        species: 'Fagus sylvatica',
        fitMore: 0.05,
        blockedBy: [{ kind: 'share', rank: 'genus', taxon: 'Fagus', room: 0, over: true }],
      },
    },
    { spotId: 's2', offerId: 'o1', fit: 0.7, next: null, better: null },
  ],
  offers: [offer('o1', 'Quercus ilex', 90), offer('o2', 'Quercus suber', 70)],
  binding: [{ limit: { kind: 'share', rank: 'genus', taxon: 'Fagus', room: 0, over: true }, used: 0, most: 0 }],
  without: [{ spotId: 's3', why: 'No species on offer suits it.' }],
  relax: [],
  gap: 0,
  worth: 1.6,
  cost: 180,
  before: [{ species: 'Fagus sylvatica', family: 'Fagaceae', count: 8 }],
  after: [
    { species: 'Fagus sylvatica', family: 'Fagaceae', count: 8 },
    { species: 'Quercus ilex', family: 'Fagaceae', count: 2 },
  ],
  seconds: 0.4,
};
const spots = ['s1', 's2', 's3'].map((spotId, i) => ({ spotId, ref: `L-010${i + 1}`, place: 'Cordage Row' }));
const base: SeasonList = {
  id: 'list-1',
  title: 'Winter list',
  state: 'solved',
  asked: {
    id: 'list-1',
    title: 'Winter list',
    spotIds: ['s1', 's2', 's3'],
    budget: 100,
    plantOn: '2026-12-01',
    stockKinds: ['container'],
    locks: [],
  },
  madeBy: 'Inês',
  madeAt: '2026-06-14T10:00:00.000Z',
  progress: null,
  problem: null,
  result,
  spots,
  orders: [],
};

// A canvas cannot be painted here; what the chart says stands beside it as words and a table.
jest.mock('chart.js', () => ({
  Chart: class {
    static register(): void {
      return undefined;
    }
    destroy(): void {
      return undefined;
    }
  },
}));

let fixture: ComponentFixture<ListPage>;
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const button = (name: string) => [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === name);

async function render(list: SeasonList, role: 'coordinator' | 'viewer' = 'coordinator'): Promise<string[]> {
  const acts: string[] = [];
  const session = new FakeSession();
  session.user.update((user) => user && { ...user, role });
  const doors = {
    list: () => of(list),
    outlook: () => of({ windows: [], forecast: [] }),
    species: () => of([]),
    actOnList: (_id: string, act: string) => {
      acts.push(act);
      return of({ ...list, state: act === 'accept' ? 'accepted' : 'cancelled' });
    },
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', children: [] }]),
      provideFakeSession(session),
      { provide: MatchService, useValue: doors },
      { provide: GroundService, useValue: { rules: () => of({ rules: { match: defaultMatchRules } }) } },
    ],
  });
  fixture = TestBed.createComponent(ListPage);
  fixture.componentRef.setInput('listId', list.id);
  await fixture.whenStable();
  await new Promise((resolve) => setTimeout(resolve, 0));
  await fixture.whenStable();
  return acts;
}

describe("a season's list", () => {
  it('says what each place gets, what the next best would cost and what kept a better one out', async () => {
    await render(base);
    expect(text()).toContain('180 EUR');
    expect(text()).toContain('80 %');
    expect(text()).toContain('proven: no list fits better');
    const row = [...element().querySelectorAll('tr')].find((one) => one.textContent.includes('L-0101'));
    const words = row?.textContent.replace(/\s+/g, ' ') ?? '';
    expect(words).toContain('lose 4 of fit and save 20 EUR: Quercus suber, container, 40 mm');
    expect(words).toContain('Fagus sylvatica fits 5 more; the share of the genus Fagus: it is over its share already');
    expect(text()).toContain('no other keeps every limit here');
    expect(text()).toContain('1 without a tree');
  });

  it('shows shares before and after as words beside the picture', async () => {
    await render(base);
    const canvas = element().querySelector('canvas');
    expect(canvas?.getAttribute('aria-label')).toBe('Fagus sylvatica 100.0 to 80.0 %, Quercus ilex 0.0 to 20.0 %');
  });

  it('is accepted once somebody says so', async () => {
    const acts = await render(base);
    const asks = jest.spyOn(window, 'confirm').mockReturnValueOnce(false).mockReturnValueOnce(true);
    button('Accept and write the orders')?.click();
    await fixture.whenStable();
    expect(acts).toEqual([]);
    button('Accept and write the orders')?.click();
    await fixture.whenStable();
    expect(acts).toEqual(['accept']);
    expect(asks.mock.calls[0]?.[0]).toContain('2 trees');
    expect(text()).toContain('ordered');
  });

  it('names what has to give way, and offers to ask again with a budget that is enough', async () => {
    const relax = [{ limit: { kind: 'budget' as const, most: 100 }, by: 79.5 }];
    await render({ ...base, state: 'infeasible', result: { ...result, picks: [], binding: [], relax } });
    expect(text()).toContain('The budget of 100 EUR: would have to be 80 EUR more.');
    button('Change and ask again')?.click();
    await fixture.whenStable();
    await new Promise((resolve) => setTimeout(resolve, 0));
    await fixture.whenStable();
    expect(element().querySelector<HTMLInputElement>('#list-budget')?.value).toBe('180');
  });

  it('tells how far it is and can be cancelled', async () => {
    const progress = { step: 'Proving that nothing is better', share: 0.6, gap: 0.02 };
    const acts = await render({ ...base, state: 'solving', result: null, progress });
    expect(text()).toContain('Proving that nothing is better (at most 2.00 % short of the best)');
    button('Cancel')?.click();
    await fixture.whenStable();
    expect(acts).toEqual(['cancel']);
    fixture.destroy();
  });

  it('is only looked at by those who may not decide', async () => {
    await render(base, 'viewer');
    expect(button('Accept and write the orders')).toBeUndefined();
    expect(element().querySelector('s-list-picks input[type=checkbox]')).toBeNull();
  });
});
