import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { deskMembersSchema, type DeskLine, type DeskMember, type Problem } from '@sombra/contract';
import { decisionNames, remedyWords, sayReason, type RemedySeen } from '@sombra/core';
import { catchError, map, merge, of, switchMap } from 'rxjs';
import { BulkActs } from '../spot/bulk-acts.service';
import { readProblem } from '../ui/problem';
import { sayDay } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { SessionService } from '../session/session.service';
import { DoneToday } from '../spot/done-today';
import { openers } from '../spot/openers';
import { tickOf } from '../fields/event-values';

/** One walk that settles several trees: each with its own reason, ticked off together or one by one. */
@Component({
  selector: 's-desk-group',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, DoneToday, StateNote],
  template: `
    <h1>{{ title() }}</h1>
    <p class="quiet">{{ line().count }} on {{ line().place }}</p>
    @if (words(); as remedy) {
      <p>{{ remedy.how }}</p>
      @if (remedy.caution) {
        <p class="caution">{{ remedy.caution }}</p>
      }
    }
    @if (problem(); as fault) {
      <s-state-note [problem]="fault" />
    }
    @if (acts.problem(); as fault) {
      <s-state-note [problem]="fault" />
    }
    @if (members(); as list) {
      <div class="acts">
        @if (mayAct() && line().remedy; as remedy) {
          <s-done-today [remedy]="remedy" [busy]="acts.busy()" [count]="ticked().length" (did)="settle($event)" />
        }
        @if (maySignOff()) {
          <button
            type="button"
            class="btn btn-primary"
            [disabled]="acts.busy() || ticked().length === 0"
            (click)="signOff()"
          >
            Sign off {{ ticked().length }} as established
          </button>
        }
        <a class="btn btn-outline-primary" [routerLink]="['/', stage()]" [queryParams]="listed()">See as list or map</a>
      </div>
      <table class="plain">
        <thead>
          <tr>
            @if (mayTick()) {
              <th scope="col">
                <input
                  type="checkbox"
                  aria-label="All"
                  [checked]="ticked().length === list.length"
                  (change)="tickAll(tickOf($event))"
                />
              </th>
            }
            <th scope="col">Number</th>
            <th scope="col">Species</th>
            <th scope="col">Last day</th>
            <th scope="col">Because</th>
          </tr>
        </thead>
        <tbody>
          @for (member of list; track member.spotId) {
            <tr>
              @if (mayTick()) {
                <td>
                  <input
                    type="checkbox"
                    [attr.aria-label]="'Choose ' + member.ref"
                    [checked]="!left().has(member.spotId)"
                    (change)="tick(member, tickOf($event))"
                  />
                </td>
              }
              <td>
                <a [routerLink]="['/', stage(), member.spotId]" [queryParams]="view.dayParams()">{{ member.ref }}</a>
              </td>
              <td>
                <i>{{ member.species ?? 'no tree yet' }}</i>
              </td>
              <td>{{ member.dueOn ? day(member.dueOn) : 'this season' }}</td>
              <td class="quiet">{{ because(member) }}</td>
            </tr>
          }
        </tbody>
      </table>
    } @else if (!problem()) {
      <s-state-note kind="loading" text="Reading the trees…" />
    }
  `,
  styles: `
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
      margin: 0.75rem 0;
    }
    input {
      width: 20px;
      height: 20px;
      accent-color: var(--chosen);
    }
    td {
      white-space: nowrap;
    }
    td.quiet {
      white-space: normal;
    }
  `,
})
export class DeskGroup {
  protected readonly tickOf = tickOf;
  readonly line = input.required<DeskLine>();
  protected readonly view = inject(ViewState);
  protected readonly acts = inject(BulkActs);
  private readonly session = inject(SessionService);
  private readonly http = inject(HttpClient);
  protected readonly members = signal<readonly DeskMember[] | null>(null);
  protected readonly problem = signal<Problem | null>(null);
  /** Ticked off again: the rest is meant. */
  protected readonly left = signal<ReadonlySet<string>>(new Set());
  protected readonly day = sayDay;

  protected readonly words = computed(() => {
    const { remedy } = this.line();
    return remedy ? remedyWords[remedy] : null;
  });
  protected readonly title = computed(() => this.words()?.act ?? decisionNames[this.line().kind]);
  protected readonly stage = computed(() => openers[this.line().kind].stage);
  protected readonly mayAct = computed(() => this.view.tense() === 'today' && this.session.mayMark(this.line().remedy));
  protected readonly maySignOff = computed(
    () => this.view.tense() === 'today' && this.line().kind === 'sign_off' && this.session.may('record_signed_off'),
  );
  protected readonly mayTick = computed(() => this.mayAct() || this.maySignOff());
  protected readonly ticked = computed(() => (this.members() ?? []).filter(({ spotId }) => !this.left().has(spotId)));
  protected readonly listed = computed(() => {
    const { place, remedy } = this.line();
    return { place, ...(remedy ? { remedy } : {}), ...this.view.dayParams() };
  });
  private readonly asked = computed(() => {
    const { place, kind, level, remedy } = this.line();
    const on = this.view.onParam();
    return { place, kind, level, ...(remedy ? { remedy } : {}), ...(on ? { on } : {}) };
  });
  private readonly askedKey = computed(() => JSON.stringify([this.asked(), this.line().count]));

  constructor() {
    merge(toObservable(this.askedKey), this.acts.done$)
      .pipe(
        switchMap(() =>
          this.http.get('/api/desk/members', { params: this.asked() }).pipe(
            map((body) => deskMembersSchema.parse(body) as unknown as readonly DeskMember[]),
            catchError((error: unknown) => {
              this.problem.set(readProblem(error));
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((members) => {
        this.left.set(new Set());
        this.members.set(members);
        if (members) this.problem.set(null);
      });
  }

  protected because({ because }: DeskMember): string {
    return because.map((reason) => sayReason(reason, this.session.units())).join(' ');
  }

  protected tick({ spotId }: DeskMember, ticked: boolean): void {
    const left = new Set(this.left());
    if (ticked) left.delete(spotId);
    else left.add(spotId);
    this.left.set(left);
  }

  protected tickAll(ticked: boolean): void {
    this.left.set(new Set(ticked ? [] : (this.members() ?? []).map(({ spotId }) => spotId)));
  }

  protected async settle(seen: RemedySeen | undefined): Promise<void> {
    const { remedy } = this.line();
    if (remedy) await this.acts.settle(this.ticked(), { remedy, doneOn: this.view.today(), seen });
  }

  /** All that is known says so of each of them: a person's word for all at once. */
  protected async signOff(): Promise<void> {
    const facts = { signedOn: this.view.today(), reason: '' };
    await this.acts.record(this.ticked(), { kind: 'signed_off', facts, said: 'Signed off as established' });
  }
}
