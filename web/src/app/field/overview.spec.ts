import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { Component } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import { FakeOutbox } from '../../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { OutboxService } from '../offline/outbox.service';
import { Overview } from './overview';

@Component({ selector: 's-empty', template: '' })
class Empty {}

describe('overview of what is shown', () => {
  it('counts, gives shares of the whole, and narrows the filter to a bar', async () => {
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', component: Empty }]),
        provideHttpClient(),
        provideHttpClientTesting(),
        provideFakeSession(new FakeSession()),
        { provide: OutboxService, useValue: new FakeOutbox() },
      ],
    });
    const fixture = TestBed.createComponent(Overview);
    fixture.componentRef.setInput('filter', { stage: ['inspect'] });
    await fixture.whenStable();
    const call = TestBed.inject(HttpTestingController).expectOne(({ url }) => url === '/api/spots/facets');
    expect(call.request.params.get('stage')).toBe('inspect');
    const species = Array.from({ length: 12 }, (_, i) => ({ name: `Species ${i}`, count: 20 - i }));
    call.flush({
      places: [{ name: 'Mole Street', count: 40 }],
      species,
      stages: [{ name: 'inspect', count: 40 }],
      levels: [
        { name: 'good', count: 30 },
        { name: 'act', count: 10 },
      ],
      waits: [{ kind: 'do_remedy', remedy: 'remove_stake', because: null, count: 8 }],
    });
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const text = page.textContent.replace(/\s+/g, ' ');
    expect(text).toContain('40 spots shown');
    expect(text).toContain('Act 10 25.0 %');
    expect(text).toContain('2 more.');
    expect(text).toContain('Remove stake and ties 8 20.0 %');
    page.querySelector<HTMLButtonElement>('section[aria-label="Trees by level"] li:nth-child(2) button')?.click();
    await new Promise((resolve) => setTimeout(resolve));
    expect(TestBed.inject(Router).url).toBe('/?level=act');
  });
});
