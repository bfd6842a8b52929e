import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Subscription } from 'rxjs';
import { SessionService, type SessionState } from '../session/session.service';
import { LiveService, type Change } from './live.service';

/** Streams that are open, as the server would count them. */
let streams: FakeSource[] = [];
class FakeSource extends EventTarget {
  static readonly CLOSED = 2;
  readyState = 1;
  constructor(readonly url: string) {
    super();
    streams.push(this);
  }
  close(): void {
    this.readyState = FakeSource.CLOSED;
    streams = streams.filter((one) => one !== this);
  }
  say(spots: readonly string[]): void {
    this.dispatchEvent(new MessageEvent('changed', { data: JSON.stringify({ spots }) }));
  }
  cut(): void {
    this.readyState = FakeSource.CLOSED;
    this.dispatchEvent(new Event('error'));
  }
}

/** Channels of one browser: each hears what the others say. */
let channels: FakeChannel[] = [];
class FakeChannel extends EventTarget {
  constructor() {
    super();
    channels.push(this);
  }
  postMessage(data: unknown): void {
    for (const one of channels) if (one !== this) one.dispatchEvent(new MessageEvent('message', { data }));
  }
  close(): void {
    channels = channels.filter((one) => one !== this);
  }
}

/** Locks of one browser: whoever comes first holds it until their work is done. */
function fakeLocks() {
  let last: Promise<unknown> = Promise.resolve();
  return {
    request(_name: string, { signal }: { signal: AbortSignal }, work: () => Promise<void>): Promise<void> {
      const turn = last.then(() => (signal.aborted ? undefined : work()));
      last = turn.catch(() => undefined);
      return turn;
    },
  };
}

const settle = async () => {
  for (let i = 0; i < 6; i++) await Promise.resolve();
  TestBed.tick();
  for (let i = 0; i < 6; i++) await Promise.resolve();
};

interface Tab {
  readonly heard: Change[];
  readonly state: ReturnType<typeof signal<SessionState>>;
  readonly open: Subscription;
}
function tab(): Tab {
  const state = signal<SessionState>('in');
  const heard: Change[] = [];
  // Each tab has a service of its own.
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({ providers: [{ provide: SessionService, useValue: { state } }] });
  const open = TestBed.inject(LiveService).changes$.subscribe((change) => heard.push(change));
  TestBed.tick();
  return { heard, state, open };
}

const before = { source: globalThis.EventSource, channel: globalThis.BroadcastChannel };
beforeEach(() => {
  streams = [];
  channels = [];
  Object.assign(globalThis, { EventSource: FakeSource, BroadcastChannel: FakeChannel });
  Object.defineProperty(navigator, 'locks', { value: fakeLocks(), configurable: true });
});
afterEach(() => {
  jest.useRealTimers();
  Object.assign(globalThis, { EventSource: before.source, BroadcastChannel: before.channel });
  Reflect.deleteProperty(navigator, 'locks');
});

describe('live updates over several tabs', () => {
  it('take one stream for all of them, and reach each', async () => {
    const one = tab();
    await settle();
    // Services of tabs before are not torn down by the next one's.
    expect(streams).toHaveLength(1);
    const channel = new FakeChannel();
    const other: string[] = [];
    channel.addEventListener('message', (event) => other.push(String((event as MessageEvent).data)));
    streams[0]?.say(['s1']);
    expect(one.heard).toEqual([{ spots: ['s1'] }]);
    expect(other).toEqual(['{"spots":["s1"]}']);
    // What another tab hears from the server is heard here too.
    channel.postMessage('{"spots":["s2"]}');
    expect(one.heard).toEqual([{ spots: ['s1'] }, { spots: ['s2'] }]);
    one.open.unsubscribe();
  });

  it('wait for their turn, and take over when the tab that listens is closed', async () => {
    let free = () => undefined as void;
    const held = navigator.locks.request(
      'sombra.live',
      { signal: new AbortController().signal },
      () => new Promise<void>((resolve) => (free = resolve)),
    );
    const two = tab();
    await settle();
    expect(streams).toHaveLength(0);
    free();
    await held;
    await settle();
    expect(streams).toHaveLength(1);
    two.open.unsubscribe();
    expect(streams).toHaveLength(0);
  });

  it('end at sign-out, and begin again with the next sign-in', async () => {
    const one = tab();
    await settle();
    one.state.set('out');
    TestBed.tick();
    await settle();
    expect(streams).toHaveLength(0);
    one.state.set('in');
    TestBed.tick();
    await settle();
    expect(streams).toHaveLength(1);
    one.open.unsubscribe();
  });

  it('are asked for again after the server ended the stream', async () => {
    jest.useFakeTimers();
    const one = tab();
    await settle();
    streams[0]?.cut();
    expect(streams).toHaveLength(0);
    await jest.advanceTimersByTimeAsync(5000);
    expect(streams).toHaveLength(1);
    one.open.unsubscribe();
  });

  it('come by a stream of its own where a browser knows no locks', async () => {
    Reflect.deleteProperty(navigator, 'locks');
    const one = tab();
    await settle();
    streams[0]?.say(['s9']);
    expect(one.heard).toEqual([{ spots: ['s9'] }]);
    one.open.unsubscribe();
    expect(streams).toHaveLength(0);
  });
});
