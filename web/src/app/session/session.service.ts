import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { computed, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import {
  actOfRemedy,
  csrfHeader,
  may,
  sessionSchema,
  type Act,
  type ChangePassword,
  type Preferences,
  type Session,
  type SignIn,
  type User,
} from '@sombra/contract';
import type { RemedyCode, UnitSystem } from '@sombra/core';
import {
  catchError,
  defer,
  filter,
  from,
  fromEvent,
  interval,
  map,
  merge,
  of,
  ReplaySubject,
  Subject,
  switchMap,
  tap,
  throwError,
  type Observable,
} from 'rxjs';
import { measureClock, serverTime } from './device-clock';
import { takeFirst, type First, type FirstAnswer } from './first-answer';
import { neverArrived } from './never-arrived';
import { forgetSession, isLeaving, leave, left } from './device-marks';
import { keepSession, keptSession } from './kept-session';
import { dayIn, keepDays } from './zone-days';

const askAgainMs = 20_000;

export type SessionState = 'asking' | 'unreachable' | 'out' | 'in' | 'expired';

/** Leaving for good forgets what was taken along; after too many wrong codes it is only hidden. */
export type Leaving = 'forget' | 'keep';

/** The token of another session than the one this browser has by now. */
const isStale = (error: unknown): boolean =>
  error instanceof HttpErrorResponse &&
  error.status === 403 &&
  (error.error as { readonly code?: unknown } | null)?.code === 'csrf';

/** Who is signed in, in which units they read, and what day it is for the programme. */
@Injectable({ providedIn: 'root' })
export class SessionService {
  private readonly http = inject(HttpClient);
  private readonly current = signal<Session | null>(null);
  private readonly phase = signal<SessionState>('asking');
  private readonly signedInSubject = new Subject<User>();
  private readonly cutOff = signal(false);
  private readonly signedOutSubject = new Subject<void>();
  private readonly wiping = new ReplaySubject<void>(1);
  private readonly leaveHooks: ((what: Leaving) => Promise<unknown>)[] = [];

  readonly state = this.phase.asReadonly();
  /** Opened without a word from the server, by what this device kept. */
  readonly away = this.cutOff.asReadonly();
  readonly user = computed(() => this.current()?.user ?? null);
  readonly units = computed<UnitSystem>(() => this.user()?.units ?? 'metric');
  /** The programme of this database; `null` while nobody has set it up. */
  readonly programme = computed(() => this.current()?.programme ?? null);
  readonly today = computed(() => this.current()?.today ?? '');
  readonly csrfToken = computed(() => this.current()?.csrfToken ?? '');
  /** Each time somebody signs in, again after an expired session too. */
  readonly signedIn$: Observable<User> = this.signedInSubject.asObservable();

  /** Somebody signs out here: what was kept for them goes. */
  readonly signedOut$: Observable<void> = this.signedOutSubject.asObservable();
  /** The server asks this device to forget all it keeps. */
  readonly wipe$: Observable<void> = this.wiping.asObservable();

  /** Whether the table of permissions gives this act to the person; the server asks it again. */
  may(act: Act): boolean {
    const role = this.user()?.role;
    return role !== undefined && may(role, act);
  }

  /** Whether the person may say of this remedy that it was done. */
  mayMark(remedy: RemedyCode | null): boolean {
    return remedy !== null && this.may(actOfRemedy(remedy));
  }

  constructor() {
    this.ask();
    // Now and then while somebody looks, and when the network says it is back; never while hidden.
    merge(fromEvent(window, 'online'), fromEvent(document, 'visibilitychange'), interval(askAgainMs))
      .pipe(
        filter(() => !document.hidden),
        takeUntilDestroyed(),
      )
      .subscribe(() => {
        if (this.cutOff()) this.askQuietly();
        this.turnDay();
      });
  }

  /** A page that lay open over midnight is on the next day of the programme: the server's, where it is reached. */
  private turnDay(): void {
    const today = dayIn(this.programme()?.timeZone, serverTime());
    if (this.state() !== 'in' || today === null || today === this.today()) return;
    if (this.cutOff()) this.current.update((session) => session && { ...session, today });
    else this.refresh();
  }

  ask(): void {
    this.phase.set('asking');
    this.fetchSession().subscribe({
      next: (session) => this.adopt(session),
      error: (error: unknown) => this.openAlone(error),
    });
  }

  /** Where nothing is reached this device opens with what it kept; what the server itself refuses is said. */
  private openAlone(error: unknown): void {
    const kept = neverArrived(error) ? keptSession() : null;
    if (!kept) {
      this.phase.set('unreachable');
      return;
    }
    this.cutOff.set(true);
    this.current.set(kept);
    this.phase.set('in');
    if (kept.user) this.signedInSubject.next(kept.user);
  }

  private askQuietly(): void {
    this.fetchSession().subscribe({
      next: (session) => {
        this.cutOff.set(false);
        // The session ran out meanwhile: what is on the page stays, and the password is asked for.
        if (session.user) this.adopt(session);
        else this.expire();
      },
      error: () => undefined,
    });
  }

  private fetchSession(): Observable<Session> {
    return this.readSession().pipe(
      // Signed out where nothing was reached: the server is told before anybody is let in by the old session.
      switchMap((session) => (session.user && isLeaving() ? this.tellLeaving(session) : [session])),
      tap(({ user, wipe }) => {
        if (!user) left();
        if (wipe) this.wiping.next();
      }),
    );
  }

  private readSession(): Observable<Session> {
    return defer(() => {
      const first = takeFirst();
      return first ? from(first).pipe(switchMap((said) => this.orAsk(said))) : this.askServer();
    }).pipe(
      map(({ body, askedAt, answeredAt }) => {
        const session = sessionSchema.parse(body);
        measureClock(session.now, askedAt, answeredAt);
        return session;
      }),
    );
  }

  private orAsk(said: First): Observable<FirstAnswer> {
    // Asked a moment ago: whoever is out of reach need not wait for that twice.
    if (said === 'unreached') return throwError(() => new HttpErrorResponse({ status: 0 }));
    return said ? of(said) : this.askServer();
  }

  private askServer(): Observable<FirstAnswer> {
    return defer(() => {
      const askedAt = Date.now();
      return this.http.get('/api/session').pipe(map((body) => ({ body, askedAt, answeredAt: Date.now() })));
    });
  }

  private tellLeaving({ csrfToken }: Session): Observable<Session> {
    const headers = { [csrfHeader]: csrfToken };
    return this.http.delete('/api/session', { headers }).pipe(switchMap(() => this.readSession()));
  }

  signIn(entry: SignIn): Observable<Session> {
    const before = this.user();
    const post = (headers: Readonly<Record<string, string>> = {}) =>
      this.http.post<unknown>('/api/session', entry, { headers });
    return post().pipe(
      // Where a session ran out, each request under way may have brought a cookie of its own: the token of the last counts.
      catchError((error: unknown) =>
        isStale(error)
          ? this.readSession().pipe(switchMap(({ csrfToken }) => post({ [csrfHeader]: csrfToken })))
          : throwError(() => error),
      ),
      map((body) => sessionSchema.parse(body)),
      tap((session) => {
        left();
        // Another person on this device: start clean rather than show them somebody else's page.
        if (before && session.user && before.id !== session.user.id) location.assign('/');
        this.adopt(session);
      }),
    );
  }

  /** Reads again who this is and what programme, without leaving the page. */
  refresh(): void {
    this.fetchSession().subscribe({
      next: (session) => {
        if (!session.user) this.expire();
        // Somebody else signed in from another tab: what is on this page is not theirs.
        else if (session.user.id !== this.user()?.id) location.assign('/');
        else this.hold(session);
      },
      error: () => undefined,
    });
  }

  /** What is done before somebody leaves this device; none of it keeps them from leaving. */
  beforeLeaving(hook: (what: Leaving) => Promise<unknown>): void {
    this.leaveHooks.push(hook);
  }

  /** Leaves this device, without a network too: the server is told as soon as it is reached. */
  async signOut(what: Leaving = 'forget'): Promise<void> {
    leave();
    forgetSession();
    this.signedOutSubject.next();
    await Promise.allSettled(this.leaveHooks.map((hook) => hook(what)));
    this.http.delete('/api/session').subscribe({
      next: () => {
        left();
        location.assign('/');
      },
      error: () => location.assign('/'),
    });
  }

  setUnits(units: UnitSystem): void {
    this.change({ units }).subscribe();
  }

  /** Changes one's own name or units. */
  change(preferences: Preferences): Observable<Session> {
    return this.http.put('/api/session/preferences', preferences).pipe(
      map((body) => sessionSchema.parse(body)),
      tap((session) => this.hold(session)),
    );
  }

  changePassword(entry: ChangePassword): Observable<unknown> {
    return this.http.put('/api/session/password', entry);
  }

  /** The server no longer knows this session: ask for the password where the person is, and keep their page. */
  expire(): void {
    if (this.phase() !== 'in') return;
    // The new session needs a token of its own before anybody can sign in to it.
    this.fetchSession().subscribe({
      next: (fresh) => {
        this.current.update((session) => ({ ...(session ?? fresh), csrfToken: fresh.csrfToken }));
        this.phase.set('expired');
      },
      error: () => this.phase.set('expired'),
    });
  }

  private hold(session: Session): void {
    this.current.set(session);
    keepSession(session);
    keepDays(session.programme?.timeZone, serverTime());
  }

  private adopt(session: Session): void {
    this.hold(session);
    this.cutOff.set(false);
    this.phase.set(session.user ? 'in' : 'out');
    if (session.user) this.signedInSubject.next(session.user);
  }
}
