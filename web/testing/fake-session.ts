import { signal } from '@angular/core';
import { actOfRemedy, may, type Act, type Assignment, type SpotDetail, type User } from '@sombra/contract';
import type { RemedyCode, UnitSystem } from '@sombra/core';
import { Subject } from 'rxjs';
import type { KeptSpot } from '../src/app/offline/along-store';
import { AlongService } from '../src/app/offline/along.service';
import { TakeAlongService } from '../src/app/offline/take-along.service';
import { SessionService, type Leaving, type SessionState } from '../src/app/session/session.service';
import { rooms } from '../src/app/rooms';
import { ROOMS } from '../src/app/ui/rooms';

/** A session that is simply there, for tests of what stands on it. */
export class FakeSession {
  readonly state = signal<SessionState>('in');
  readonly units = signal<UnitSystem>('metric');
  readonly today = signal('2026-06-15');
  readonly programme = signal({ name: 'Shade Walks', demo: true });
  readonly csrfToken = signal('token');
  readonly user = signal<User | null>({
    id: 'u1',
    signIn: 'ines',
    name: 'Inês',
    role: 'coordinator',
    units: 'metric',
  });
  may(act: Act): boolean {
    const role = this.user()?.role;
    return role !== undefined && may(role, act);
  }
  mayMark(remedy: RemedyCode | null): boolean {
    return remedy !== null && this.may(actOfRemedy(remedy));
  }
  readonly signedIn$ = new Subject<User>();
  readonly signedOut$ = new Subject<void>();
  readonly wipe$ = new Subject<void>();
  readonly leaveHooks: ((what: Leaving) => Promise<unknown>)[] = [];
  beforeLeaving(hook: (what: Leaving) => Promise<unknown>): void {
    this.leaveHooks.push(hook);
  }
  async leave(what: Leaving = 'forget'): Promise<void> {
    await Promise.all(this.leaveHooks.map((hook) => hook(what)));
  }
  readonly away = signal(false);
}

/** Keeps nothing on the device. */
export class FakeAlong {
  readonly kept: SpotDetail[] = [];
  keep(detail: SpotDetail): Promise<void> {
    this.kept.push(detail);
    return Promise.resolve();
  }
  readonly assignments = signal<readonly Assignment[]>([]);
  watchSpots() {
    return signal<readonly KeptSpot[]>([]);
  }
  photo(): Promise<Blob | null> {
    return Promise.resolve(null);
  }
  answer(): Promise<unknown> {
    return Promise.resolve(null);
  }
  find(): Promise<KeptSpot | null> {
    return Promise.resolve(null);
  }
}

/** Takes nothing along. */
export class FakeTakeAlong implements Pick<
  TakeAlongService,
  'progress' | 'fault' | 'isThrough' | 'shortOfRoom' | 'take' | 'takeIfStale'
> {
  readonly progress = signal(null);
  readonly fault = signal(null);
  readonly isThrough = signal(false);
  readonly shortOfRoom = signal(null);
  take(): Promise<void> {
    return Promise.resolve();
  }
  takeIfStale(): Promise<void> {
    return Promise.resolve();
  }
}

/** Who is signed in, and the rooms of the house. */
export const provideFakeSession = (session: FakeSession) => [
  { provide: SessionService, useValue: session },
  { provide: ROOMS, useValue: rooms },
  { provide: AlongService, useClass: FakeAlong },
  { provide: TakeAlongService, useClass: FakeTakeAlong },
];
