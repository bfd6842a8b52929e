import { computed, signal } from '@angular/core';
import type { User } from '@sombra/contract';
import type { UnitSystem } from '@sombra/core';
import { Subject } from 'rxjs';
import { SessionService, type SessionState } from '../app/people/session.service';

/** A session that is simply there, for tests of what stands on it. */
export class FakeSession {
  readonly state = signal<SessionState>('in');
  readonly units = signal<UnitSystem>('metric');
  readonly today = signal('2026-06-15');
  readonly csrfToken = signal('token');
  readonly user = signal<User | null>({
    id: 'u1',
    signIn: 'ines',
    name: 'Inês',
    role: 'coordinator',
    units: 'metric',
  });
  readonly mayRecord = computed(() => this.user()?.role !== 'viewer');
  readonly mayDecide = computed(() => ['coordinator', 'administrator'].includes(this.user()?.role ?? ''));
  readonly mayLead = computed(() => this.mayDecide() || this.user()?.role === 'crew_lead');
  readonly signedIn$ = new Subject<User>();
}

export const provideFakeSession = (session: FakeSession) => ({ provide: SessionService, useValue: session });
