import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { spotId } from '../../../testing/bench-rig';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import type { OutboxEntry } from '../offline/outbox-store';
import { OutboxService } from '../offline/outbox.service';
import { RefusedRecords } from './refused-records';

const entry: OutboxEntry = {
  id: '0190a5c2-0000-7000-8000-00000000000a',
  userId: 'u1',
  about: 'A-0105',
  madeAt: new Date(2026, 5, 15, 14, 3).getTime(),
  refused: { type: 'x', title: 'Ann changed this spot', status: 409, code: 'conflict' },
  sent: {
    spotId,
    device: 'phone',
    spotVersion: 1,
    record: {
      id: '0190a5c2-0000-7000-8000-00000000000a',
      kind: 'stock',
      recordedAt: '2026-06-15T14:03:00Z',
      supersedes: null,
      facts: { kind: 'bare_root', caliperMm: 25, heightM: 2, rootSpreadMm: 500, rootDepthMm: 300 },
    },
  },
};

let fixture: ComponentFixture<RefusedRecords>;
const refused = signal<readonly OutboxEntry[]>([]);
const element = () => fixture.nativeElement as HTMLElement;
const text = () => element().textContent.replace(/\s+/g, ' ').trim();

beforeEach(async () => {
  refused.set([entry]);
  const providers = [provideRouter([]), provideFakeSession(new FakeSession())];
  TestBed.configureTestingModule({ providers: [...providers, { provide: OutboxService, useValue: { refused } }] });
  fixture = TestBed.createComponent(RefusedRecords);
  await fixture.whenStable();
});

describe('refused records', () => {
  it('say of which spot, what and why, and lead to what can be done', async () => {
    expect(text()).toContain('A-0105: Stock measures was not taken. Ann changed this spot.');
    expect(element().querySelector('a')?.getAttribute('href')).toBe('/waiting');
    refused.set([entry, { ...entry, id: 'other' }]);
    await fixture.whenStable();
    expect(text()).toContain('1 more.');
  });

  it('take no room when there are none', async () => {
    refused.set([]);
    await fixture.whenStable();
    expect(text()).toBe('');
  });
});
