import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import type { SpotLine } from '@sombra/contract';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { ChosenService, mostChosen } from './chosen.service';

@Component({ selector: 's-empty', template: '' })
class Empty {}

let chosen: ChosenService;
let http: HttpTestingController;
let router: Router;
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    TestBed.tick();
    await new Promise((resolve) => setTimeout(resolve));
  }
};
const line = (i: number): SpotLine => ({
  spotId: `0190a5c2-0000-7000-8000-${String(i).padStart(12, '0')}`,
  treeId: null,
  ref: `C-${i}`,
  place: 'Mole Street',
  species: null,
  stage: 'ground',
  level: 'good',
  plantedOn: null,
  probe: null,
  nextLookOn: null,
  decisions: 1,
  dueOn: null,
  position: [-25.4, 36.9],
});

beforeEach(() => {
  TestBed.configureTestingModule({
    providers: [
      provideRouter([{ path: '**', component: Empty }]),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideFakeSession(new FakeSession()),
    ],
  });
  chosen = TestBed.inject(ChosenService);
  http = TestBed.inject(HttpTestingController);
  router = TestBed.inject(Router);
});

describe('chosen trees', () => {
  it('stand in the address, and leave it', async () => {
    chosen.toggle(line(1));
    chosen.toggle(line(2));
    await settle();
    expect(router.url).toBe('/?chosen=C-1,C-2');
    chosen.toggle(line(1));
    await settle();
    expect(router.url).toBe('/?chosen=C-2');
    chosen.clear();
    await settle();
    expect([router.url, chosen.count()]).toEqual(['/', 0]);
  });

  it('are read from a link', async () => {
    await router.navigateByUrl('/?chosen=C-7,C-8');
    await settle();
    const call = http.expectOne(({ url }) => url === '/api/spots');
    expect(call.request.params.get('ref')).toBe('C-7,C-8');
    call.flush({ lines: [line(7), line(8)], total: 2 });
    await settle();
    expect(chosen.chosen().map(({ ref }) => ref)).toEqual(['C-7', 'C-8']);
  });

  it('are too many for an address above 150, and for one act above 500', async () => {
    chosen.only(Array.from({ length: 160 }, (_, i) => line(i)));
    await settle();
    expect([router.url, chosen.count()]).toEqual(['/', 160]);
    chosen.add(Array.from({ length: 600 }, (_, i) => line(1000 + i)));
    expect(chosen.count()).toBe(mostChosen);
  });
});
