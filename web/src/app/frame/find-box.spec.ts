import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { Component } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { until } from '../../../testing/until';
import { FindBox } from './find-box';

@Component({ selector: 's-empty', template: '' })
class Empty {}

let fixture: ComponentFixture<FindBox>;
let http: HttpTestingController;
const options = () => [...document.querySelectorAll<HTMLElement>('[role=option]')];

/** Types, and gives what is asked of the server for it. */
async function type(words: string): Promise<TestRequest> {
  const input = (fixture.nativeElement as HTMLElement).querySelector('input');
  if (!input) throw new Error('no box');
  input.value = words;
  input.dispatchEvent(new Event('input'));
  return until(() => http.match(({ url }) => url === '/api/find')[0]);
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
  fixture = TestBed.createComponent(FindBox);
  await fixture.whenStable();
});

describe('find', () => {
  it('asks for what was typed last and goes to what is picked, on the chosen day', async () => {
    await TestBed.inject(Router).navigateByUrl('/desk?on=2026-01-05');
    const call = await type(' mole ');
    expect(call.request.params.get('words')).toBe('mole');
    call.flush([
      { kind: 'place', name: 'Mole Street', detail: '138 spots', path: '/town', query: { place: 'Mole Street' } },
    ]);
    await fixture.whenStable();
    expect(options().map((one) => one.textContent.replace(/\s+/g, ' ').trim())).toEqual([
      'Mole Street 138 spots, place',
    ]);
    options()[0]?.click();
    await until(() => TestBed.inject(Router).url === '/town?on=2026-01-05&place=Mole%20Street');
  });

  it('takes a date for a day to show', async () => {
    (await type('2025-08-01')).flush([]);
    await fixture.whenStable();
    options()[0]?.click();
    await until(() => TestBed.inject(Router).url === '/?on=2025-08-01');
  });

  it('finds nothing, rather than breaking, when the server is away', async () => {
    (await type('x')).error(new ProgressEvent('error'));
    await fixture.whenStable();
    expect(options()).toEqual([]);
  });
});
