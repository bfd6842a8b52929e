import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { FakeSession } from '../../../testing/fake-session';
import { until } from '../../../testing/until';
import { SessionService } from '../session/session.service';
import { alongByItself } from './along-by-itself';
import { AlongStore } from './along-store';
import { TakeAlongService } from './take-along.service';

let session: FakeSession;
let store: AlongStore;
let asked: number;

const begin = () => {
  TestBed.configureTestingModule({
    providers: [
      { provide: SessionService, useValue: session },
      { provide: AlongStore, useValue: store },
      {
        provide: TakeAlongService,
        useValue: { progress: signal(null), lookAgain: () => Promise.resolve((asked += 1)) },
      },
    ],
  });
  TestBed.runInInjectionContext(alongByItself);
};
const rest = () => new Promise((resolve) => setTimeout(resolve, 50));
const keep = (userId: string, keptAt: number) =>
  store.answers.put({ url: `/api/of/${userId}/${keptAt}`, userId, body: null, bytes: 2, keptAt });
const urls = () => store.answers.toCollection().primaryKeys();

beforeEach(async () => {
  asked = 0;
  session = new FakeSession();
  store = new AlongStore();
  await store.empty();
  // What waits for some seconds waits by this one alone.
  jest.useFakeTimers({
    doNotFake: ['setTimeout', 'clearTimeout', 'setImmediate', 'clearImmediate', 'Date', 'performance', 'nextTick'],
  });
});
afterEach(() => {
  jest.useRealTimers();
  store.close();
});

describe('what is taken along, whatever page somebody is on', () => {
  it('comes once they have what they opened, and where there is a network', async () => {
    begin();
    jest.advanceTimersByTime(4_000);
    await rest();
    expect(asked).toBe(0);
    jest.advanceTimersByTime(1_500);
    await until(() => asked === 1, 'the taking');
    session.away.set(true);
    session.signedIn$.next(session.user() as never);
    jest.advanceTimersByTime(60_000);
    await rest();
    expect(asked).toBe(1);
  });
  it('is looked after again whenever somebody looks, and never while nobody does', async () => {
    begin();
    jest.advanceTimersByTime(5_500);
    await until(() => asked === 1, 'the first');
    document.dispatchEvent(new Event('visibilitychange'));
    jest.advanceTimersByTime(5_500);
    await until(() => asked === 2, 'the second');
    const hidden = jest.spyOn(document, 'hidden', 'get').mockReturnValue(true);
    document.dispatchEvent(new Event('visibilitychange'));
    window.dispatchEvent(new Event('online'));
    jest.advanceTimersByTime(60_000);
    await rest();
    expect(asked).toBe(2);
    hidden.mockRestore();
    session.user.set(null);
    window.dispatchEvent(new Event('online'));
    jest.advanceTimersByTime(60_000);
    await rest();
    expect(asked).toBe(2);
  });
  it('is let go after its days, gives way to another person’s, and is wiped when they leave', async () => {
    const week = 7 * 86_400_000;
    await keep('u1', Date.now() - week - 1000);
    await keep('u1', Date.now() - week + 60_000);
    begin();
    let left: readonly string[] = [];
    const count = (n: number) => () => {
      void urls().then((now) => (left = now));
      return left.length === n;
    };
    await until(count(1), 'the end of the old one');
    await keep('u2', Date.now());
    session.signedIn$.next(session.user() as never);
    await until(count(0), 'the end of what is another person’s');
    await keep('u1', Date.now());
    await session.leave('keep');
    expect(await urls()).toHaveLength(1);
    await session.leave('forget');
    expect(await urls()).toEqual([]);
  });
});
