import { TestBed } from '@angular/core/testing';
import { SwUpdate } from '@angular/service-worker';
import { FakeSession, provideFakeSession } from '../../../testing/fake-session';
import { LaidInService } from './laid-in.service';

const files = (n: number) => Array.from({ length: n }, (_, i) => `/chunk-${i}.js`);
const stored = globalThis as { caches?: unknown; fetch?: unknown };
const before = { ...stored };

/** A device with these caches, and a server that lists so many files or is not reached. */
function device(cached: Readonly<Record<string, number>>, listed: number | null, controlled = true): LaidInService {
  stored.caches = {
    keys: () => Promise.resolve(Object.keys(cached)),
    open: (name: string) => Promise.resolve({ keys: () => Promise.resolve(files(cached[name] ?? 0)) }),
  };
  stored.fetch = () =>
    listed === null
      ? Promise.reject(new TypeError('no network'))
      : Promise.resolve({
          json: () => Promise.resolve({ hashTable: Object.fromEntries(files(listed).map((f) => [f, 'x'])) }),
        });
  Object.defineProperty(navigator, 'serviceWorker', {
    configurable: true,
    value: { controller: controlled ? {} : null },
  });
  TestBed.configureTestingModule({
    providers: [{ provide: SwUpdate, useValue: { isEnabled: true } }, provideFakeSession(session)],
  });
  return TestBed.inject(LaidInService);
}
let session: FakeSession;
beforeEach(() => (session = new FakeSession()));
afterEach(() => {
  stored.caches = before.caches;
  stored.fetch = before.fetch;
});

describe('whether the application lies on this device', () => {
  const assets = 'ngsw:/:abc:assets:application:cache';

  it('is counted by the files of a version, and said while it is on its way', async () => {
    const other = { 'ngsw:/:db:control': 40, [assets]: 7 };
    expect(await device(other, 9).look()).toEqual({ kind: 'laying', done: 7, of: 9 });
    TestBed.resetTestingModule();
    expect(await device({ [assets]: 9 }, 9).look()).toEqual({ kind: 'ready' });
  });
  it('is plain where it opened without a network', async () => {
    expect((await device({}, null).look()).kind).toBe('ready');
    TestBed.resetTestingModule();
    expect((await device({}, null, false).look()).kind).toBe('laying');
  });
  it('is never where the browser lays nothing in', async () => {
    TestBed.configureTestingModule({ providers: [{ provide: SwUpdate, useValue: { isEnabled: false } }] });
    expect((await TestBed.inject(LaidInService).look()).kind).toBe('unable');
  });

  it('is not asked of anybody where this opened without a network', async () => {
    session.away.set(true);
    const here = device({ [assets]: 7 }, 9);
    stored.fetch = jest.fn();
    expect(await here.look()).toEqual({ kind: 'ready' });
    expect(stored.fetch).not.toHaveBeenCalled();
  });
});
