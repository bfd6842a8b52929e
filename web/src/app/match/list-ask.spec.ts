import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { AskList } from '@sombra/contract';
import { mildWinterWindows, shippedSpecies } from '@sombra/core';
import { of, throwError } from 'rxjs';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { ListAsk } from './list-ask';
import { MatchService } from './match.service';

const places = [1, 2].map((i) => ({
  spotId: `0190a5c2-0000-7000-8000-00000000000${i}`,
  ref: `L-010${i}`,
  place: 'Cordage Row',
}));

let fixture: ComponentFixture<ListAsk>;
let asked: AskList[];
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ');
const press = async (name: string) => {
  const button = [...element().querySelectorAll('button')].find((one) => one.textContent.trim() === name);
  button?.click();
  await fixture.whenStable();
};
const type = (selector: string, value: string) => {
  const field = element().querySelector<HTMLInputElement>(selector);
  if (!field) throw new Error(selector);
  field.value = value;
  field.dispatchEvent(new Event('input'));
  field.dispatchEvent(new Event('change'));
};

async function render(inputs: Record<string, unknown> = {}, answer = () => of({ id: 'list-1' })): Promise<void> {
  asked = [];
  const library = shippedSpecies.map((species) => ({ species, version: 1, standing: 0, chosen: 0 }));
  const doors = {
    outlook: () => of({ windows: mildWinterWindows, forecast: [] }),
    species: () => of(library),
    askList: (ask: AskList) => {
      asked.push(ask);
      return answer();
    },
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', children: [] }]),
      provideFakeSession(new FakeSession()),
      { provide: MatchService, useValue: doors },
    ],
  });
  fixture = TestBed.createComponent(ListAsk);
  for (const [name, value] of Object.entries({ places, currency: 'EUR', ...inputs })) {
    fixture.componentRef.setInput(name, value);
  }
  await fixture.whenStable();
}
beforeEach(() => localStorage.clear());

describe("asking for a season's list", () => {
  it('asks for every place, without a budget where none is typed', async () => {
    await render();
    await press('Propose a list for 2 places');
    expect(asked).toHaveLength(1);
    expect(asked[0]).toMatchObject({
      spotIds: places.map(({ spotId }) => spotId),
      budget: null,
      plantOn: '2026-06-15',
      stockKinds: ['container', 'balled'],
      locks: [],
    });
  });

  it('reads a budget with a comma, and asks nothing while it is no number', async () => {
    await render();
    type('#list-budget', 'about 3000');
    await press('Propose a list for 2 places');
    expect(asked).toEqual([]);
    expect(text()).toContain('Budget: must be a number of 0–100 000 000, or empty for none; got about 3000.');
    expect(element().querySelector<HTMLInputElement>('#list-budget')?.value).toBe('about 3000');
    type('#list-budget', '3 000,5');
    await press('Propose a list for 2 places');
    expect(asked[0]?.budget).toBe(3000.5);
  });

  it('says of each kind of stock whether the day is its season', async () => {
    await render();
    // In June no window of a mild winter is open.
    expect(text()).toMatch(/balled Act/);
    type('#list-day', '2026-12-10');
    await fixture.whenStable();
    expect(text()).toMatch(/balled Good/);
  });

  it('fixes a choice by number and name, and refuses one it does not know', async () => {
    await render();
    type('[aria-label="Number of the place to fix"]', 'l-0102');
    type('[aria-label="Species to fix there"]', 'Quercus imaginaria');
    await press('Fix');
    expect(text()).toContain('Quercus imaginaria is not in the species library');
    type('[aria-label="Species to fix there"]', 'Quercus ilex');
    await press('Fix');
    expect(text()).toContain('1 choice is fixed');
    await press('Propose a list for 2 places');
    expect(asked[0]?.locks).toEqual([{ spotId: places[1]?.spotId, species: 'Quercus ilex', stockKind: null }]);
  });

  it('starts from a list asked before, with what was fixed since', async () => {
    const before: AskList = {
      id: '0190a5c2-0000-7000-8000-0000000000aa',
      title: 'Winter',
      spotIds: places.map(({ spotId }) => spotId),
      budget: 500,
      plantOn: '2027-01-10',
      stockKinds: ['bare_root'],
      locks: [],
    };
    const fixed = [{ spotId: places[0]?.spotId, species: 'Acer campestre', stockKind: 'bare_root' }];
    await render({ before, fixed });
    await press('Propose a list for 2 places');
    expect(asked[0]).toMatchObject({ title: 'Winter', budget: 500, stockKinds: ['bare_root'], locks: fixed });
    expect(asked[0]?.id).not.toBe(before.id);
  });

  it('keeps what was typed when the server cannot be reached, and on this device', async () => {
    await render({}, () => throwError(() => new Error('gone')));
    type('#list-title', 'Harbour side');
    await press('Propose a list for 2 places');
    expect(element().querySelector('[role=alert]')).not.toBeNull();
    expect(element().querySelector<HTMLInputElement>('#list-title')?.value).toBe('Harbour side');
    TestBed.resetTestingModule();
    await render();
    expect(element().querySelector<HTMLInputElement>('#list-title')?.value).toBe('Harbour side');
  });
});
