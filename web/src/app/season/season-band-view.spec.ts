import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { Component } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { addDaysTo, mondayOf } from '@sombra/core';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { SeasonBandView } from './season-band-view';

@Component({ selector: 's-empty', template: '' })
class Empty {}

let fixture: ComponentFixture<SeasonBandView>;
let http: HttpTestingController;
const thread = () => (fixture.nativeElement as HTMLElement).querySelector<HTMLElement>('[role=slider]');
const settle = async () => {
  for (let i = 0; i < 3; i++) {
    await new Promise((resolve) => setTimeout(resolve));
    await fixture.whenStable();
  }
};

function answer(): string {
  const call = http.expectOne(({ url }) => url === '/api/season');
  const from = call.request.params.get('from') ?? '';
  const depth = { mm: 10, lowMm: 5, highMm: 20 };
  const weeks = Array.from({ length: 78 }, (_, i) => ({
    monday: addDaysTo(from, 7 * i),
    source: 'recorded',
    rain: depth,
    demand: depth,
  }));
  call.flush({ weeks, windows: [], marks: [] });
  return from;
}

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
  fixture = TestBed.createComponent(SeasonBandView);
  await settle();
});

describe('the thread of the season band', () => {
  it('hangs at today in a band of a year back and half a year ahead', async () => {
    const from = answer();
    await settle();
    expect(from).toBe(addDaysTo(mondayOf('2026-06-15'), -364));
    expect(thread()?.getAttribute('aria-valuetext')).toBe('Mon 15 Jun 2026, today');
    expect(thread()?.getAttribute('aria-valuenow')).toBe('364');
  });

  it.each([
    ['ArrowLeft', false, '2026-06-14'],
    ['ArrowRight', true, '2026-06-22'],
    ['PageUp', false, '2026-05-18'],
  ])('is moved by %s (shift: %s) to %s', async (key, shiftKey, day) => {
    answer();
    await settle();
    thread()?.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey }));
    await settle();
    expect(TestBed.inject(Router).url).toBe(`/?on=${day}`);
    thread()?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Home' }));
    await settle();
    expect(TestBed.inject(Router).url).toBe('/');
  });

  it('brings other weeks when the day leaves the band', async () => {
    answer();
    await settle();
    await TestBed.inject(Router).navigateByUrl('/?on=2024-01-10');
    await settle();
    const from = answer();
    expect(from < '2024-01-10').toBe(true);
    await settle();
    expect(thread()?.getAttribute('aria-valuetext')).toBe('Wed 10 Jan 2024, as it was');
  });
});
