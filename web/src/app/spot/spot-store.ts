import { HttpClient } from '@angular/common/http';
import { computed, inject, Injectable, signal, untracked } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { KeptRecord, Problem, SpotDetail } from '@sombra/contract';
import { defaultPercolationLimits, recordsUpTo, windsOf, wholePlan } from '@sombra/core';
import {
  catchError,
  filter,
  firstValueFrom,
  from,
  map,
  merge,
  of,
  Subject,
  switchMap,
  tap,
  timer,
  type Observable,
} from 'rxjs';
import { LiveService } from '../ui/live.service';
import { neverArrived } from '../session/never-arrived';
import { readProblem } from '../ui/problem';
import { ViewState } from '../ui/view-state.service';
import { AlongService } from '../offline/along.service';
import { OutboxService } from '../offline/outbox.service';
import { SessionService } from '../session/session.service';
import { lifeOf, readSpotDetail } from './spot-context';

type KnownRecord = KeptRecord & { waiting?: true };

export type SpotSource = { readonly kind: 'spot' | 'tree'; readonly id: string };

const longestReadMs = 2000;

/** Where a spot stands, worked out here by the core from its records, with those still on this device. */
@Injectable()
export class SpotStore {
  private readonly http = inject(HttpClient);
  private readonly outbox = inject(OutboxService);
  private readonly view = inject(ViewState);
  private readonly asked = new Subject<SpotSource>();
  private readonly source = signal<SpotSource | null>(null);
  private readonly loaded = signal<SpotDetail | null>(null);
  private readonly loaded$ = toObservable(this.loaded);
  private readonly failed = signal<Problem | null>(null);
  private readonly along = inject(AlongService);
  /** When what is shown was last read from the server, where it comes from this device. */
  private readonly keptAt = signal<number | null>(null);
  readonly asOf = this.keptAt.asReadonly();

  /** Set while somebody types on what is open: what others change then waits for the save, which tells. */
  private readonly typing = signal(false);
  /** Somebody types in a form: the spot is not read again under their hands. */
  readonly editing = this.typing.asReadonly();
  readonly detail = this.loaded.asReadonly();
  readonly problem = this.failed.asReadonly();

  /** Records on this device that the server has not kept yet. */
  readonly waiting = computed(() => {
    const spotId = this.loaded()?.spot.id;
    return this.outbox.waiting().filter((entry) => entry.sent.spotId === spotId);
  });

  readonly records = computed<readonly KnownRecord[]>(() => {
    const kept = this.loaded()?.records ?? [];
    const waiting = this.waiting().map(({ sent }) => ({
      ...sent.record,
      recordedBy: 'you',
      recordedById: null,
      device: sent.device,
      receivedAt: sent.record.recordedAt,
      deviceSaid: sent.record.recordedAt,
      clock: 'kept' as const,
      waiting: true as const,
    }));
    return [...kept, ...waiting.filter((record) => !kept.some(({ id }) => id === record.id))];
  });

  /** What was on record on the chosen day; all there is for today and days ahead. */
  readonly known = computed(() =>
    this.view.tense() === 'past' ? recordsUpTo(this.records(), this.view.on()) : this.records(),
  );

  /** Where the spot stands on the chosen day: by what was on record then, or by all there is for days ahead. */
  readonly life = computed(() => {
    const detail = this.loaded();
    return detail ? lifeOf(detail, this.known()) : null;
  });

  /** Where what this spot goes by draws the lines between drainage classes. */
  readonly drainage = computed(() => this.life()?.drainage ?? defaultPercolationLimits);

  /** All that the drawing of the stored pit plan needs, where a plan stands. */
  readonly planned = computed(() => {
    const life = this.life();
    const work = this.loaded()?.rules.work;
    const whole = life && work ? wholePlan(life, { work }) : null;
    if (whole?.kind !== 'plan' || !life?.stock) return null;
    const { stock, ground, practice, assessment } = life;
    return { plan: whole.pit, stock, ground, practice, windsDeg: windsOf(assessment), stakes: whole.stakes };
  });

  setEditing(editing: boolean): void {
    this.typing.set(editing);
  }

  constructor() {
    const again$ = merge(inject(SessionService).signedIn$, this.outbox.delivered$, this.changedElsewhere());
    merge(this.asked, again$.pipe(map(() => this.source())))
      .pipe(
        switchMap((source) => (source ? this.fetch(source) : of(null))),
        takeUntilDestroyed(),
      )
      .subscribe();
  }

  open(source: SpotSource): void {
    // Called from effects that follow the address: they must not come to depend on what is open.
    if (untracked(this.source)?.id !== source.id) this.loaded.set(null);
    this.source.set(source);
    this.asked.next(source);
  }

  close(): void {
    this.source.set(null);
    this.loaded.set(null);
  }

  reload(): void {
    const source = this.source();
    if (source) this.asked.next(source);
  }

  /** Resolves once this version of the spot shows, or another spot does; after two seconds in any case. */
  async reaches(spotId: string, version: number): Promise<void> {
    const there$ = this.loaded$.pipe(filter((detail) => detail?.spot.id !== spotId || detail.spot.version >= version));
    await firstValueFrom(merge(there$, timer(longestReadMs)));
  }

  /** Takes over a newer state the server sent along with a conflict. */
  adopt(detail: SpotDetail): void {
    this.loaded.set(detail);
  }

  /** The open spot is read again when somebody else changed it. */
  private changedElsewhere(): Observable<unknown> {
    return inject(LiveService).changes$.pipe(
      filter(() => !this.editing()),
      filter(({ spots }) => spots === null || spots.includes(this.loaded()?.spot.id ?? '')),
    );
  }

  private fails(error: unknown): Observable<null> {
    this.failed.set(readProblem(error));
    return of(null);
  }

  /** Without the server a spot is shown as this device kept it; what is open already stays as it is. */
  private fromDevice(source: SpotSource, error: unknown): Observable<unknown> {
    if (this.loaded()) return of(null);
    return from(this.along.find(source)).pipe(
      switchMap((kept) => {
        if (!kept) return this.fails(error);
        this.loaded.set(readSpotDetail(kept.body));
        this.keptAt.set(kept.keptAt);
        this.failed.set(null);
        return of(null);
      }),
      // A device that keeps nothing, or what another version kept: the network has the last word.
      catchError(() => this.fails(error)),
    );
  }

  private fetch(source: SpotSource): Observable<unknown> {
    const url = source.kind === 'spot' ? `/api/spots/${source.id}` : `/api/trees/${source.id}`;
    return this.http.get(url).pipe(
      map((body) => readSpotDetail(body)),
      tap((detail) => {
        this.loaded.set(detail);
        this.failed.set(null);
        this.keptAt.set(null);
        void this.along.keep(detail);
      }),
      catchError((error: unknown) => (neverArrived(error) ? this.fromDevice(source, error) : this.fails(error))),
    );
  }
}
