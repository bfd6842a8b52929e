import { ChangeDetectionStrategy, Component, computed, effect, ElementRef, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import type { DeskLine } from '@sombra/contract';
import { decisionNames, formatNumber, isOfTree, oneTap, remedyWords, sayReason } from '@sombra/core';
import { CareNote } from '../care/care-note';
import { ToldNote } from '../told/told-note';
import { BulkActs } from '../spot/bulk-acts.service';
import { Splitter } from '../ui/splitter';
import { KeysService } from '../ui/keys.service';
import { sayDay, sayLateness } from '../ui/say-date';
import { StateNote } from '../ui/state-note';
import { ViewState } from '../ui/view-state.service';
import { whenIdle } from '../ui/when-idle';
import { LevelMark } from '../ui/level-mark';
import { ToastsService } from '../ui/toasts.service';
import { SessionService } from '../session/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { AsideNote } from './aside-note';
import { ClockQuestions } from './clock-questions';
import { DeskBench } from './desk-bench';
import { DeskGroup } from './desk-group';
import { openers } from '../spot/openers';
import { EstablishingNote } from './establishing-note';
import { DeskService } from './desk.service';

interface ShownLine {
  readonly line: DeskLine;
  readonly key: string;
  readonly title: string;
  readonly because: string;
  readonly due: string;
  readonly cost: number;
  readonly noun: string;
  /** Settled as it stands there; else what shows it is said on the bench. */
  readonly inOneTap: boolean;
  readonly act: string;
  readonly path: readonly string[];
  readonly query: Readonly<Record<string, string>>;
}

const keyOf = ({ place, kind, level, remedy }: DeskLine): string => `${place}/${kind}/${level}/${remedy ?? ''}`;

/** Where the act of a line is done: the form of its one tree, or the list of its many. */
function whereTo(line: DeskLine): Pick<ShownLine, 'act' | 'path' | 'query'> {
  const { stage, act } = openers[line.kind];
  if (line.count === 1) return { act, path: ['/', stage, line.spotId], query: {} };
  const remedy: Record<string, string> = line.remedy ? { remedy: line.remedy } : {};
  return {
    act: 'See all',
    path: ['/', stage],
    query: { place: line.place, ...remedy, ...(line.kind === 'look' ? { due: 'week' } : {}) },
  };
}

/** As many as a large screen shows. */
const firstLines = 14;

/** What needs a person today, the most costly to leave first. */
@Component({
  selector: 's-desk-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    RouterLink,
    AsideNote,
    CareNote,
    ToldNote,
    LevelMark,
    ClockQuestions,
    DeskBench,
    DeskGroup,
    EstablishingNote,
    Splitter,
    StateNote,
  ],
  providers: [SpotStore, RecordSender],
  template: `
    <section class="field" aria-label="Decisions">
      <div class="head">
        <h1 aria-live="polite">{{ headline() }}</h1>
        <span class="quiet">most costly to leave first</span>
      </div>
      @if (desk.problem(); as fault) {
        <s-state-note [problem]="fault" (again)="desk.refresh()" />
      }
      @if (acts.problem(); as fault) {
        <s-state-note [problem]="fault" />
      }
      @for (day of desk.uncovered(); track day.dayId) {
        <p class="problem">
          <b>{{ sayDay(day.onDay) }}, {{ day.title }}:</b> nobody may dig at
          {{ day.spots.length === 1 ? '1 spot' : day.spots.length + ' spots' }} on that day.
          <a routerLink="/tickets">See the tickets</a>
        </p>
      }
      <s-aside-note />
      <s-clock-questions />
      <s-told-note />
      <s-care-note />
      @if (view.tense() === 'today') {
        <s-establishing-note />
      }
      <ol>
        @for (shown of drawn(); track shown.key) {
          <li class="one" [class.here]="shown.key === chosenKey()">
            <button
              type="button"
              class="line"
              [attr.aria-pressed]="shown.key === chosenKey()"
              (click)="chosenKey.set(shown.key)"
              (keydown)="walk($event)"
            >
              <span class="cost" aria-hidden="true"><span [style.height.%]="shown.cost"></span></span>
              <span class="words">
                <b>{{ shown.title }}</b>
                @if (shown.line.count > 1) {
                  <span
                    >{{ shown.line.count }} {{ shown.noun }} · {{ shown.line.place }} · {{ shown.line.ref }} first</span
                  >
                } @else {
                  <span
                    >{{ shown.line.ref }} · {{ shown.line.place }} ·
                    <i>{{ shown.line.species ?? 'no tree yet' }}</i></span
                  >
                }
                <span class="quiet">{{ shown.because }}</span>
              </span>
            </button>
            <span class="when">
              <s-level-mark [level]="shown.line.level" />
              <small>{{ shown.due }}</small>
              @if (shown.line.count === 1 && mayMark(shown.line)) {
                <button
                  type="button"
                  class="btn btn-sm btn-outline-primary"
                  [disabled]="acts.busy()"
                  (click)="settle(shown.line)"
                >
                  {{ shown.inOneTap ? 'Done today' : 'Done…' }}
                </button>
              } @else if (mayAct()) {
                <a
                  class="btn btn-sm btn-outline-primary"
                  [routerLink]="shown.path"
                  [queryParams]="shown.query"
                  (click)="chosenKey.set(shown.key)"
                  >{{ shown.act }}</a
                >
              }
            </span>
          </li>
        } @empty {
          <li>
            @if (desk.desk()) {
              <s-state-note
                kind="empty"
                [title]="view.tense() === 'today' ? 'Nothing needs you today.' : 'Nothing needs anybody on this day.'"
                >Open a stage on the left, or bring in more:
                @if (mayImport()) {
                  <a routerLink="/import">import measured spots</a>,
                }
                <a [routerLink]="['/town']" [queryParams]="{ as: 'map' }">add a spot on the map</a>
                @if (mayManage()) {
                  , <a routerLink="/people">invite people</a>, <a routerLink="/base-map">put a map under it</a>
                }
              </s-state-note>
            } @else if (!desk.problem()) {
              <s-state-note kind="loading" text="Ranking what waits…" />
            }
          </li>
        }
      </ol>
      @if (rest(); as more) {
        <p class="quiet none">{{ more }} more lines wait; the stages on the left list them all.</p>
      }
    </section>
    <s-splitter name="desk" [usual]="46" />
    <section class="bench" aria-label="Bench">
      @if (chosen(); as line) {
        @if (line.count > 1) {
          <s-desk-group [line]="line" />
        } @else {
          <s-desk-bench [line]="line" />
        }
      }
    </section>
  `,
  styleUrl: './desk-page.scss',
})
export class DeskPage {
  protected readonly desk = inject(DeskService);
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  private readonly toasts = inject(ToastsService);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly chosenKey = signal<string | null>(null);
  /** Where the choice stands among the lines. */
  private chosenAt = 0;
  protected readonly view = inject(ViewState);
  protected readonly sayDay = sayDay;
  protected readonly acts = inject(BulkActs);
  /** What was, and what may be, can be looked at but not acted on. */
  protected readonly mayAct = computed(() => this.view.tense() === 'today' && this.session.may('record_inspection'));
  protected readonly mayImport = computed(() => this.session.may('import_file'));
  protected readonly mayManage = computed(() => this.session.may('manage_people'));
  protected readonly mayMark = ({ remedy }: DeskLine) => this.view.tense() === 'today' && this.session.mayMark(remedy);

  protected readonly lines = computed<ShownLine[]>(() =>
    (this.desk.desk()?.lines ?? []).map((line) => ({
      line,
      key: keyOf(line),
      title: line.remedy ? remedyWords[line.remedy].act : decisionNames[line.kind],
      because: line.because.map((reason) => sayReason(reason, this.session.units())).join(' '),
      due: line.daysLate === null ? 'this season' : `${sayLateness(line.daysLate)}`,
      cost: Math.max(8, line.points),
      inOneTap: line.remedy !== null && oneTap(line.remedy) !== null,
      noun: isOfTree(line.kind) ? 'trees' : 'spots',
      ...whereTo(line),
    })),
  );

  protected readonly headline = computed(() => {
    const total = this.desk.desk()?.total;
    if (total === undefined) return 'Desk';
    const when = { past: `on ${sayDay(this.view.on())}`, today: 'today', ahead: `due by ${sayDay(this.view.on())}` };
    return `${total === 1 ? '1 decision' : `${formatNumber(total, 0)} decisions`} ${when[this.view.tense()]}`;
  });

  protected readonly rest = computed(() => Math.max(0, (this.desk.desk()?.groups ?? 0) - this.lines().length));
  protected readonly chosen = computed(() => this.lines().find(({ key }) => key === this.chosenKey())?.line ?? null);

  /** The one spot of the choice: read again by itself, whatever the desk reads again. */
  private readonly chosenSpot = computed(() => {
    const line = this.chosen();
    return line?.count === 1 ? line.spotId : null;
  });
  /** A screen of lines first, the rest once the page rests. */
  private readonly whole = signal(false);
  protected readonly drawn = computed(() => (this.whole() ? this.lines() : this.lines().slice(0, firstLines)));

  constructor() {
    // It is kept up to date by itself; only what failed is asked again.
    if (this.desk.problem()) this.desk.refresh();
    whenIdle(() => this.whole.set(true));
    effect(() => {
      // Keep a choice on screen: the first line until somebody picks another, the next one when it is settled.
      const lines = this.lines();
      const at = lines.findIndex(({ key }) => key === this.chosenKey());
      if (at >= 0) this.chosenAt = at;
      else if (window.innerWidth > 980) {
        this.chosenKey.set(lines[Math.min(this.chosenAt, lines.length - 1)]?.key ?? null);
      }
    });
    effect(() => {
      const id = this.chosenSpot();
      if (id) this.store.open({ kind: 'spot', id });
    });
    inject(KeysService).bind([
      { keys: 'j', where: 'Desk', does: 'next decision', run: () => this.step(1) },
      { keys: 'k', where: 'Desk', does: 'decision before', run: () => this.step(-1) },
      { keys: 'd', where: 'Desk', does: 'done today, where one tap settles it', run: () => this.settleChosen() },
      { keys: 'o', where: 'Desk', does: 'open what the decision needs', run: () => this.openChosen() },
    ]);
  }

  protected async settle(line: DeskLine): Promise<void> {
    const { remedy } = line;
    const tap = remedy ? oneTap(remedy) : null;
    // What has to be measured, or is one of several, is said on the bench.
    if (!remedy || !tap) {
      this.chosenKey.set(keyOf(line));
      this.toBench();
    } else await this.acts.settle([line], { remedy, doneOn: this.session.today(), seen: tap.seen });
  }

  private step(by: number): void {
    const lines = this.lines();
    const at = lines.findIndex(({ key }) => key === this.chosenKey());
    const next = lines[Math.min(lines.length - 1, Math.max(0, at + by))];
    if (!next) return;
    this.chosenKey.set(next.key);
    const buttons = this.host.nativeElement.querySelectorAll<HTMLButtonElement>('button.line');
    buttons[lines.indexOf(next)]?.focus();
  }

  private settleChosen(): void {
    const line = this.chosen();
    if (!line) return;
    if (!this.mayMark(line)) this.toasts.say('Nothing here is settled by one tap: press o to open it.');
    else if (line.count === 1) void this.settle(line);
    else {
      this.toasts.say(`${line.count} trees wait for this: choose on the right which of them are done.`);
      this.toBench();
    }
  }

  /** What is settled there takes the keys. */
  private toBench(): void {
    setTimeout(() =>
      this.host.nativeElement.querySelector<HTMLElement>('.bench :is(input, button, select):not(:disabled)')?.focus(),
    );
  }

  private openChosen(): void {
    const shown = this.lines().find(({ key }) => key === this.chosenKey());
    if (shown) void this.router.navigate([...shown.path], { queryParams: shown.query });
  }

  /** Arrow keys walk the list. */
  protected walk(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    this.step(event.key === 'ArrowDown' ? 1 : -1);
  }
}
