import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { Component } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { FindBox } from './find-box';

@Component({ selector: 's-empty', template: '' })
class Empty {}

let fixture: ComponentFixture<FindBox>;
let http: HttpTestingController;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const options = () => [...document.querySelectorAll<HTMLElement>('[role=option]')];

async function type(words: string): Promise<void> {
  const input = (fixture.nativeElement as HTMLElement).querySelector('input');
  if (!input) throw new Error('no box');
  input.value = words;
  input.dispatchEvent(new Event('input'));
  await wait(200);
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
    await type(' mole ');
    const call = http.expectOne(({ url }) => url === '/api/find');
    expect(call.request.params.get('words')).toBe('mole');
    call.flush([
      { kind: 'place', name: 'Mole Street', detail: '138 spots', path: '/town', query: { place: 'Mole Street' } },
    ]);
    await fixture.whenStable();
    expect(options().map((one) => one.textContent.replace(/\s+/g, ' ').trim())).toEqual([
      'Mole Street 138 spots, place',
    ]);
    options()[0]?.click();
    await wait(0);
    expect(TestBed.inject(Router).url).toBe('/town?on=2026-01-05&place=Mole%20Street');
  });

  it('takes a date for a day to show', async () => {
    await type('2025-08-01');
    http.expectOne(({ url }) => url === '/api/find').flush([]);
    await fixture.whenStable();
    options()[0]?.click();
    await wait(0);
    expect(TestBed.inject(Router).url).toBe('/?on=2025-08-01');
  });

  it('finds nothing, rather than breaking, when the server is away', async () => {
    await type('x');
    http.expectOne(({ url }) => url === '/api/find').error(new ProgressEvent('error'));
    await fixture.whenStable();
    expect(options()).toEqual([]);
  });
});
