import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { filterParams, ViewState } from './view-state.service';

@Component({ selector: 's-empty', template: '' })
class Empty {}

let view: ViewState;
let router: Router;
const settle = () => new Promise((resolve) => setTimeout(resolve));

beforeEach(() => {
  TestBed.configureTestingModule({
    providers: [provideRouter([{ path: '**', component: Empty }]), provideFakeSession(new FakeSession())],
  });
  view = TestBed.inject(ViewState);
  router = TestBed.inject(Router);
});

describe('what the address says', () => {
  it('is today, unfiltered, until it says otherwise', () => {
    expect([view.on(), view.tense(), view.onParam(), view.filter()]).toEqual(['2026-06-15', 'today', undefined, {}]);
  });

  it('names a day before or after today', async () => {
    await router.navigateByUrl('/x?on=2025-06-15');
    expect([view.on(), view.tense()]).toEqual(['2025-06-15', 'past']);
    view.setDay('2026-06-16');
    await settle();
    expect([view.tense(), router.url]).toEqual(['ahead', '/x?on=2026-06-16']);
    view.setDay('2026-06-15');
    await settle();
    expect(router.url).toBe('/x');
  });

  it('reads a filter and leaves out what does not fit', async () => {
    await router.navigateByUrl('/x?level=act,urgent&season=soon&place=Mole%20Street&area=1,2;3,4;5,6');
    expect(view.filter()).toEqual({
      level: ['act', 'urgent'],
      place: ['Mole Street'],
      area: [
        [1, 2],
        [3, 4],
        [5, 6],
      ],
    });
    expect(filterParams(view.filter())).toEqual({ level: 'act,urgent', place: 'Mole Street', area: '1,2;3,4;5,6' });
  });

  it('loses neither of two changes made in one breath', async () => {
    await router.navigateByUrl('/x?find=celtis');
    view.set({ level: 'act' });
    view.set({ sort: 'dueOn' });
    await settle();
    expect(view.params()).toEqual({ find: 'celtis', level: 'act', sort: 'dueOn' });
    view.clearFilter();
    await settle();
    expect(view.params()).toEqual({ sort: 'dueOn' });
  });
});
