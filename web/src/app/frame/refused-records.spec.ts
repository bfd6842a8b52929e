import { HttpErrorResponse } from '@angular/common/http';
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
let over: OutboxEntry[];
let withdrawn: string[];
let answer: () => Promise<unknown>;
const refused = signal<readonly OutboxEntry[]>([]);
const element = () => fixture.nativeElement as HTMLElement;
const press = async (name: string) => {
  [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === name)?.click();
  for (let i = 0; i < 3; i++) await fixture.whenStable();
};

beforeEach(async () => {
  over = [];
  withdrawn = [];
  answer = () => Promise.resolve();
  refused.set([entry]);
  const outbox = {
    refused,
    sendOver: (e: OutboxEntry) => {
      over.push(e);
      return answer();
    },
    withdraw: (id: string) => Promise.resolve(withdrawn.push(id)),
  };
  TestBed.configureTestingModule({
    providers: [provideRouter([]), provideFakeSession(new FakeSession()), { provide: OutboxService, useValue: outbox }],
  });
  fixture = TestBed.createComponent(RefusedRecords);
  await fixture.whenStable();
});

describe('refused records', () => {
  it('say what was entered, when, and why it was not taken', () => {
    const text = element().textContent.replace(/\s+/g, ' ');
    expect(text).toContain('Stock measures, entered 15 Jun 14:03, was not taken. Ann changed this spot.');
    expect(text).toContain('Caliper 25 mm');
    expect(element().querySelector('a')?.getAttribute('href')).toBe(`/stock/${spotId}`);
  });

  it('can be stored over what is there, or dropped', async () => {
    await press('Store it over what is there');
    expect(over).toEqual([entry]);
    await press('Drop it');
    expect(withdrawn).toEqual([entry.id]);
  });

  it('stay, with the reason, when the server cannot be reached', async () => {
    answer = () => Promise.reject(new HttpErrorResponse({ status: 0, error: new ProgressEvent('error') }));
    await press('Store it over what is there');
    expect(element().textContent).toContain('The server cannot be reached.');
    expect(refused()).toHaveLength(1);
  });

  it('take no room when there are none', async () => {
    refused.set([]);
    await fixture.whenStable();
    expect(element().textContent.trim()).toBe('');
  });
});
