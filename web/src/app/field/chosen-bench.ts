import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { openRemedyListSchema, type OpenRemedy, type SpotLine } from '@sombra/contract';
import { levelNames, recordsUpTo, remedyWords, stageNames, type FieldRecord, type RemedySeen } from '@sombra/core';
import { catchError, debounceTime, firstValueFrom, forkJoin, map, merge, of, switchMap, type Observable } from 'rxjs';
import { readProblem, sayProblem } from '../ui/problem';
import { StateNote } from '../ui/state-note';
import { ToastsService } from '../ui/toasts.service';
import { ViewState } from '../ui/view-state.service';
import { GroundService } from '../ground/ground.service';
import { SessionService } from '../session/session.service';
import { lifeOf, readSpotDetail } from '../spot/spot-context';
import { AssignForm } from '../spot/assign-form';
import { BulkActs } from '../spot/bulk-acts.service';
import { DoneToday } from '../spot/done-today';
import { ChosenService } from '../spot/chosen.service';
import { CompareView, type Compared } from './compare-view';
import { textOf } from '../fields/event-values';

/** Side by side is for a look, not for a list. */
const mostCompared = 3;

/** The chosen trees: what they are, side by side when few, and one act for all. */
@Component({
  selector: 's-chosen-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, AssignForm, DoneToday, StateNote, CompareView],
  template: `
    <div class="title">
      <h1>{{ chosen.count() === 1 ? '1 chosen' : chosen.count() + ' chosen' }}</h1>
      <button type="button" class="btn btn-sm" (click)="chosen.clear()">Clear <kbd>Esc</kbd></button>
    </div>
    <p class="quiet">{{ summary() }}</p>
    @if (view.tense() === 'today' && mayAct()) {
      <div class="acts">
        @if (remedies().length > 0) {
          <label class="visually-hidden" for="remedy">Remedy that was done</label>
          <select id="remedy" class="form-select" (change)="remedy.set(textOf($event))">
            @for (option of remedies(); track option.code) {
              <option [value]="option.code" [selected]="option.code === picked()?.remedy">
                {{ option.name }} ({{ option.count }})
              </option>
            }
          </select>
          @if (picked(); as one) {
            <s-done-today
              [remedy]="one.remedy"
              [busy]="acts.busy() || !known()"
              [count]="targets().length"
              (did)="settle($event)"
            />
          }
        }
        @if (unplanted().length > 0 && mayRaise()) {
          <button type="button" class="btn btn-outline-primary" [disabled]="acts.busy()" (click)="raiseTicket()">
            Raise a locate ticket for {{ unplanted().length }}
          </button>
        }
        @if (unplanted().length > 0 && mayList()) {
          <a class="btn btn-outline-primary" routerLink="/lists" [queryParams]="listParams()">
            Season's list for {{ unplanted().length }}
          </a>
        }
        @if (unplanted().length > 0 && mayWithdraw()) {
          <button type="button" class="btn btn-outline-primary" [disabled]="acts.busy()" (click)="withdraw()">
            Withdraw {{ unplanted().length }} {{ unplanted().length === 1 ? 'spot' : 'spots' }}
          </button>
        }
        @if (mayAssign()) {
          <button
            type="button"
            class="btn btn-outline-primary"
            [attr.aria-expanded]="sending()"
            (click)="sending.set(!sending())"
          >
            Send somebody out
          </button>
        }
      </div>
      @if (sending()) {
        @defer (on immediate) {
          <s-assign-form
            [spotIds]="spotIds()"
            [planted]="allPlanted()"
            [proposed]="assignTitle()"
            (sentOut)="sending.set(false)"
          />
        }
      }
    }
    @if (acts.problem(); as fault) {
      <s-state-note [problem]="fault" />
    }
    @if (compared().length > 1) {
      <s-compare [trees]="compared()" />
    } @else {
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">Number</th>
            <th scope="col">Place</th>
            <th scope="col">Species</th>
            <th scope="col">Stage</th>
            <th scope="col"><span class="visually-hidden">Take off</span></th>
          </tr>
        </thead>
        <tbody>
          @for (line of first(); track line.spotId) {
            <tr>
              <td>
                <a [routerLink]="['/town', line.spotId]" queryParamsHandling="preserve">{{ line.ref }}</a>
              </td>
              <td>{{ line.place }}</td>
              <td>
                <i>{{ line.species }}</i>
              </td>
              <td>{{ stageNames[line.stage] }}</td>
              <td>
                <button
                  type="button"
                  class="btn btn-sm"
                  [attr.aria-label]="'Take ' + line.ref + ' off'"
                  (click)="chosen.toggle(line)"
                >
                  <i class="bi bi-x-lg" aria-hidden="true"></i>
                </button>
              </td>
            </tr>
          }
        </tbody>
      </table>
      @if (chosen.count() > first().length) {
        <p class="quiet">{{ chosen.count() - first().length }} more are chosen.</p>
      }
    }
  `,
  styles: `
    .title {
      display: flex;
      justify-content: space-between;
      align-items: baseline;
    }
    kbd {
      background: var(--shade);
      color: var(--ink);
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin-bottom: 1rem;
    }
    select {
      width: auto;
      max-width: 20rem;
    }
    td .btn-sm {
      min-height: 32px;
      padding: 0 0.4rem;
    }
  `,
})
export class ChosenBench {
  protected readonly textOf = textOf;
  protected readonly chosen = inject(ChosenService);
  protected readonly acts = inject(BulkActs);
  protected readonly view = inject(ViewState);
  private readonly session = inject(SessionService);
  private readonly http = inject(HttpClient);
  private readonly ground = inject(GroundService);
  private readonly toasts = inject(ToastsService);
  private readonly router = inject(Router);
  protected readonly stageNames = stageNames;
  protected readonly remedy = signal<string>('');
  private readonly openOf = signal<readonly SpotLine[]>([]);
  /** What is open on these trees is known; until then no act is offered of fewer. */
  protected readonly known = computed(() => this.openOf() === this.chosen.chosen());
  private readonly details = signal<readonly Compared[]>([]);

  protected readonly first = computed(() => this.chosen.chosen().slice(0, 60));
  protected readonly unplanted = computed(() => this.chosen.chosen().filter(({ plantedOn }) => plantedOn === null));
  protected readonly mayAct = computed(() => this.session.may('record'));
  protected readonly mayAssign = computed(() => this.session.may('assign'));
  protected readonly sending = signal(false);
  protected readonly spotIds = computed(() => this.chosen.chosen().map(({ spotId }) => spotId));
  /** `null` where some are planted and some are not. */
  protected readonly allPlanted = computed(() => {
    const [all, unplanted] = [this.chosen.count(), this.unplanted().length];
    return unplanted === 0 ? true : unplanted === all ? false : null;
  });
  protected readonly assignTitle = computed(() => {
    const names = [...new Set(this.chosen.chosen().map(({ place }) => place))];
    return `${names.slice(0, 2).join(', ')}${names.length > 2 ? ' …' : ''}`.slice(0, 80);
  });
  protected readonly mayWithdraw = computed(() => this.session.may('withdraw_spots'));
  protected readonly mayRaise = computed(() => this.session.may('raise_ticket'));

  protected readonly mayList = computed(() => this.session.may('make_list'));
  /** The chosen places go along in the address. */
  protected readonly listParams = computed(() => ({ chosen: this.view.text('chosen') }));

  protected readonly compared = computed(() => (this.chosen.count() <= mostCompared ? this.details() : []));

  protected readonly summary = computed(() => {
    const lines = this.chosen.chosen();
    const count = (of: (line: SpotLine) => string) => {
      const sums = new Map<string, number>();
      for (const line of lines) sums.set(of(line), (sums.get(of(line)) ?? 0) + 1);
      return [...sums].sort((a, b) => b[1] - a[1]).map(([name, n]) => `${n} ${name}`);
    };
    const levels = count(({ level, plantedOn }) => (plantedOn ? levelNames[level].toLowerCase() : 'in preparation'));
    const places = count(({ place }) => `on ${place}`);
    return `${levels.join(', ')} · ${places.slice(0, 3).join(', ')}${places.length > 3 ? ' …' : ''}`;
  });

  private readonly open = signal<readonly OpenRemedy[]>([]);
  protected readonly remedies = computed(() =>
    this.doable().map(({ remedy, spotIds }) => ({
      code: remedy,
      name: remedyWords[remedy].act,
      count: spotIds.length,
    })),
  );
  private readonly doable = computed(() => this.open().filter(({ remedy }) => this.session.mayMark(remedy)));
  /** What was picked; else what the list was filtered by; else the first. */
  protected readonly picked = computed(() => {
    const among = (codes: readonly string[]) => this.doable().find(({ remedy }) => codes.includes(remedy));
    return among([this.remedy()]) ?? among(this.view.filter().remedy ?? []) ?? this.doable()[0] ?? null;
  });
  protected readonly targets = computed(() => {
    const spots = new Set(this.picked()?.spotIds);
    return this.chosen.chosen().filter(({ spotId }) => spots.has(spotId));
  });

  constructor() {
    this.acts.done$.pipe(takeUntilDestroyed()).subscribe(() => void this.chosen.refresh().catch(() => undefined));
    const chosen$ = toObservable(this.chosen.chosen).pipe(debounceTime(120));
    merge(chosen$, this.acts.done$.pipe(map(() => this.chosen.chosen())))
      .pipe(
        switchMap((lines) =>
          forkJoin([this.readOpen(lines), this.readDetails(lines)]).pipe(
            map(([open, details]) => ({ lines, open, details })),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe(({ lines, open, details }) => {
        this.open.set(open);
        this.openOf.set(lines);
        this.details.set(details);
      });
  }

  private readOpen(lines: readonly SpotLine[]): Observable<OpenRemedy[]> {
    if (lines.length === 0) return of([]);
    return this.http.post('/api/desk/remedies', { spotIds: lines.map(({ spotId }) => spotId) }).pipe(
      map((body) => openRemedyListSchema.parse(body)),
      catchError(() => of([])),
    );
  }

  private readDetails(lines: readonly SpotLine[]): Observable<Compared[]> {
    if (lines.length < 2 || lines.length > mostCompared) return of([]);
    const on = this.view.on();
    const past = this.view.tense() === 'past';
    const read = ({ spotId }: SpotLine) =>
      this.http.get(`/api/spots/${spotId}`).pipe(
        map((body): Compared => {
          const detail = readSpotDetail(body);
          const records: readonly FieldRecord[] = past ? recordsUpTo(detail.records, on) : detail.records;
          return { detail, life: lifeOf(detail, records) };
        }),
      );
    return forkJoin(lines.map(read)).pipe(catchError(() => of([])));
  }

  protected async raiseTicket(): Promise<void> {
    const spots = this.unplanted();
    const places = [...new Set(spots.map(({ place }) => place))].slice(0, 2).join(' and ');
    try {
      const ask = { purpose: `Planting, ${places}`, spotIds: spots.map(({ spotId }) => spotId), renews: null };
      const ticket = await firstValueFrom(this.ground.raise(ask));
      void this.router.navigate(['/tickets'], { queryParams: { ticket: ticket.id } });
    } catch (error) {
      this.toasts.say(sayProblem(readProblem(error)));
    }
  }

  protected async settle(seen: RemedySeen | undefined): Promise<void> {
    const remedy = this.picked()?.remedy;
    const doneOn = this.view.today();
    if (remedy && this.targets().length > 0) await this.acts.settle(this.targets(), { remedy, doneOn, seen });
  }

  protected async withdraw(): Promise<void> {
    const spots = this.unplanted();
    if (await this.acts.withdraw(spots)) {
      const gone = new Set(spots.map(({ spotId }) => spotId));
      this.chosen.only(this.chosen.chosen().filter(({ spotId }) => !gone.has(spotId)));
    }
  }
}
