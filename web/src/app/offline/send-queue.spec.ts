import { HttpErrorResponse } from '@angular/common/http';
import { createEnvironmentInjector, EnvironmentInjector, runInInjectionContext } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Dexie, type EntityTable } from 'dexie';
import fc from 'fast-check';
import { defer, NEVER, of, throwError, type Observable } from 'rxjs';
import { FakeSession } from '../../../testing/fake-session';
import type { SessionService } from '../session/session.service';
import { SendQueue, type Queued } from './send-queue';

interface Thing extends Queued {
  readonly lane: string;
}
class Store extends Dexie {
  things!: EntityTable<Thing, 'id'>;
  constructor(name: string) {
    super(name);
    this.version(1).stores({ things: 'id, userId, madeAt' });
  }
}

/** What the line and the server do with one thing that is sent. */
const fates = ['takes', 'takes_and_is_not_heard', 'is_not_reached', 'falls_over', 'refuses', 'never_answers'] as const;
type Fate = (typeof fates)[number];

/** Keeps what it takes once, whatever is sent how often. */
class Server {
  readonly kept: string[] = [];
  fate: Fate = 'takes';
  take({ id }: Thing): Observable<string> {
    const fault = (status: number, code: string) =>
      throwError(() => new HttpErrorResponse({ status, error: { type: 'x', title: 'x', status, code } }));
    const keep = () => {
      if (!this.kept.includes(id)) this.kept.push(id);
      return id;
    };
    return defer((): Observable<string> => {
      switch (this.fate) {
        case 'takes':
          return of(keep());
        case 'takes_and_is_not_heard':
          keep();
          return throwError(() => new HttpErrorResponse({ status: 0, error: new ProgressEvent('error') }));
        case 'is_not_reached':
          return throwError(() => new HttpErrorResponse({ status: 0, error: new ProgressEvent('error') }));
        case 'falls_over':
          return fault(500, 'unexpected');
        case 'refuses':
          return fault(409, 'conflict');
        case 'never_answers':
          keep();
          return NEVER;
      }
    });
  }
}

/** A page with the queue, over what lies on the device; killed it hears nothing any more. */
class Page {
  private readonly injector = createEnvironmentInjector([], TestBed.inject(EnvironmentInjector));
  readonly queue: SendQueue<Thing, string>;
  constructor(store: Store, server: Server) {
    this.queue = runInInjectionContext(
      this.injector,
      () =>
        new SendQueue<Thing, string>({
          table: store.things,
          session: new FakeSession() as unknown as SessionService,
          post: (thing) => server.take(thing),
          understood: () => Promise.resolve(true),
          stored: () => undefined,
          lane: ({ lane }) => lane,
        }),
    );
  }
  kill(): void {
    this.injector.destroy();
  }
}

const laneNames = ['A-1', 'A-2'] as const;
type Step =
  | { readonly does: 'make'; readonly lane: string; readonly fate: Fate }
  | { readonly does: 'flush'; readonly fate: Fate }
  | { readonly does: 'kill' };
const fate = fc.constantFrom(...fates);
const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({ does: fc.constant('make' as const), lane: fc.constantFrom(...laneNames), fate }),
  },
  { weight: 3, arbitrary: fc.record({ does: fc.constant('flush' as const), fate }) },
  { weight: 2, arbitrary: fc.constant({ does: 'kill' as const }) },
);

// What a page that was killed still asks for must find its store: none is closed before the end.
const moment = () => new Promise((resolve) => setTimeout(resolve, 2));
let run = 0;

it('any order of sending, kills, refusals and tries again ends with the same set at the server, each once', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
      const store = new Store(`queue-${++run}`);
      const server = new Server();
      let page = new Page(store, server);
      const made: Thing[] = [];
      for (const one of steps) {
        if (one.does === 'kill') {
          page.kill();
          page = new Page(store, server);
          continue;
        }
        server.fate = one.fate;
        if (one.does === 'make') {
          const id = `${String(made.length).padStart(3, '0')}`;
          const thing = { id, userId: 'u1', madeAt: made.length, refused: null, lane: one.lane };
          made.push(thing);
          void page.queue.deliver(thing);
          // Told as kept only once it is on the device.
          for (let i = 0; i < 50 && !(await store.things.get(id)) && !server.kept.includes(id); i++) await moment();
        } else page.queue.flush();
        await moment();
      }
      await endWell(page, store, server);
      expect([...server.kept].sort()).toEqual(made.map(({ id }) => id));
      expect(await store.things.count()).toBe(0);
    }),
    { numRuns: Number(process.env['QUEUE_RUNS'] ?? 40), seed: 20_261_128, endOnFailure: true },
  );
});

/** The network is good, the server takes all, and what was set aside is sent again by its maker. */
async function endWell(before: Page, store: Store, server: Server): Promise<void> {
  server.fate = 'takes';
  before.kill();
  const page = new Page(store, server);
  for (let i = 0; i < 60 && (await store.things.count()) > 0; i++) {
    page.queue.flush();
    await moment();
    for (const thing of await store.things.filter(({ refused }) => refused !== null).toArray()) {
      await page.queue.again(thing);
    }
  }
  page.kill();
}

it('keeps the order of a lane where nothing of it was set aside, whatever the line does', async () => {
  const passing = fc.constantFrom<Fate>('takes', 'takes_and_is_not_heard', 'is_not_reached');
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ lane: fc.constantFrom(...laneNames), fate: passing }), { maxLength: 10 }),
      async (things) => {
        const store = new Store(`lane-${++run}`);
        const server = new Server();
        const page = new Page(store, server);
        for (const [i, one] of things.entries()) {
          server.fate = one.fate;
          await page.queue.deliver({
            id: String(i).padStart(3, '0'),
            userId: 'u1',
            madeAt: i,
            refused: null,
            lane: one.lane,
          });
        }
        await endWell(page, store, server);
        for (const lane of laneNames) {
          const inLane = server.kept.filter((id) => things[Number(id)]?.lane === lane);
          expect(inLane).toEqual([...inLane].sort());
        }
      },
    ),
    { numRuns: 25, seed: 20_261_128, endOnFailure: true },
  );
});

it('stores what is delivered while another tab sends what lies ahead of it, and says so', async () => {
  for (let i = 0; i < 8; i++) {
    const store = new Store(`tabs-${++run}`);
    const server = new Server();
    const [one, other] = [new Page(store, server), new Page(store, server)];
    const thing = (id: string, madeAt: number): Thing => ({ id, userId: 'u1', madeAt, refused: null, lane: 'A-1' });
    server.fate = 'is_not_reached';
    for (let n = 0; n < 4; n++) await one.queue.deliver(thing(`00${n}`, n));
    server.fate = 'takes';
    one.queue.flush();
    expect((await other.queue.deliver(thing('004', 4))).kind).toBe('stored');
    // Sent by the other tab before this one came to it: it is stored all the same.
    other.queue.flush();
    expect((await one.queue.deliver(thing('005', 5))).kind).toBe('stored');
    expect(server.kept).toEqual(['000', '001', '002', '003', '004', '005']);
    for (const page of [one, other]) page.kill();
  }
});
