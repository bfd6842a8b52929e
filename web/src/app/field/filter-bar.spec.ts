import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { Component } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { FilterBar } from './filter-bar';

@Component({ selector: 's-empty', template: '' })
class Empty {}

let fixture: ComponentFixture<FilterBar>;
let http: HttpTestingController;
const page = () => fixture.nativeElement as HTMLElement;
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    await new Promise((resolve) => setTimeout(resolve));
    await fixture.whenStable();
  }
};
const chips = () =>
  [...page().querySelectorAll('.chip')].map((chip) => chip.textContent.replace('take off', '').trim());
const pick = async (part: string, value: string) => {
  const select = page().querySelector<HTMLSelectElement>(`#filter-${part}`);
  if (!select) throw new Error(`no part ${part}`);
  select.value = value;
  select.dispatchEvent(new Event('change'));
  await settle();
};

beforeEach(async () => {
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', component: Empty }]),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideFakeSession(new FakeSession()),
    ],
  });
  http = TestBed.inject(HttpTestingController);
  fixture = TestBed.createComponent(FilterBar);
  await settle();
});

describe('filter', () => {
  it('gathers values of one part, replaces those of another, and says each as a word', async () => {
    await pick('level', 'urgent');
    await pick('level', 'act');
    await pick('due', 'week');
    await pick('due', 'late');
    expect(TestBed.inject(Router).url).toBe('/?level=urgent,act&due=late');
    expect(chips()).toEqual(['Urgent', 'Act', 'past its last day']);
  });

  it('takes one value off, or all of them, and leaves the day alone', async () => {
    await TestBed.inject(Router).navigateByUrl('/?on=2026-01-01&level=urgent,act&remedy=remove_stake&season=2025');
    await settle();
    expect(chips()).toEqual(['Urgent', 'Act', 'Remove stake and ties', 'season 2025/2026']);
    page().querySelector<HTMLButtonElement>('.chip')?.click();
    await settle();
    expect(chips()[0]).toBe('Act');
    [...page().querySelectorAll('button')].find((one) => one.textContent === 'Clear all')?.click();
    await settle();
    expect(TestBed.inject(Router).url).toBe('/?on=2026-01-01');
  });

  it('offers the places and species there are, with their numbers, and no stage on a stage page', async () => {
    fixture.componentRef.setInput('stage', 'inspect');
    page().querySelector<HTMLButtonElement>('[ngbDropdownToggle], .dropdown-toggle')?.click();
    await settle();
    const list = [{ name: 'Mole Street', count: 12 }];
    http
      .expectOne('/api/spots/facets')
      .flush({ places: list, species: [{ name: 'Celtis australis', count: 7 }], stages: [], levels: [], waits: [] });
    await settle();
    expect(page().querySelector('#filter-place')?.textContent).toContain('Mole Street (12)');
    expect(page().querySelector('#filter-stage')).toBeNull();
    await pick('place', 'Mole Street');
    expect(chips()).toEqual(['Mole Street']);
  });
});
