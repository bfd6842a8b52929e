import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { DeskLine } from '@sombra/contract';
import { decisionNames, remedyWords, sayReason } from '@sombra/core';
import { sayLateness } from '../frame/say-date';
import { LevelMark } from '../frame/level-mark';
import { sayProblem } from '../frame/problem';
import { SessionService } from '../people/session.service';
import { RecordSender } from '../spot/record-sender';
import { SpotStore } from '../spot/spot-store';
import { DeskBench } from './desk-bench';
import { DeskService } from './desk.service';

interface ShownLine {
  readonly line: DeskLine;
  readonly key: string;
  readonly title: string;
  readonly because: string;
  readonly due: string;
  readonly cost: number;
}

const keyOf = (line: DeskLine): string => `${line.spotId}/${line.kind}/${line.remedy ?? ''}`;

/** What needs a person today, the most costly to leave first. */
@Component({
  selector: 's-desk-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, LevelMark, DeskBench],
  providers: [SpotStore, RecordSender],
  template: `
    <section class="field" aria-label="Decisions">
      <div class="head">
        <h1>{{ headline() }}</h1>
        <span class="quiet">most costly to leave first</span>
      </div>
      @if (desk.problem(); as fault) {
        <p class="problem" role="alert">
          {{ say(fault) }} <button type="button" class="btn btn-link" (click)="desk.refresh()">Try again</button>
        </p>
      }
      <ol>
        @for (shown of lines(); track shown.key) {
          <li [class.here]="shown.key === chosenKey()">
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
                <span
                  >{{ shown.line.ref }} · {{ shown.line.place }} ·
                  <i>{{ shown.line.species ?? 'no tree yet' }}</i></span
                >
                <span class="quiet">{{ shown.because }}</span>
              </span>
              <span class="when">
                <s-level-mark [level]="shown.line.level" />
                <small>{{ shown.due }}</small>
              </span>
            </button>
          </li>
        } @empty {
          @if (desk.desk()) {
            <li class="none">
              <p><b>Nothing needs you today.</b></p>
              <p>Import measured spots, or open a stage on the left. <a routerLink="/import">Import a file</a></p>
            </li>
          } @else if (!desk.problem()) {
            <li class="none quiet" role="status">Ranking what waits…</li>
          }
        }
      </ol>
      @if (rest(); as more) {
        <p class="quiet none">{{ more }} more wait; the stages on the left list them all.</p>
      }
    </section>
    <section class="bench" aria-label="Bench">
      @if (chosen(); as line) {
        <s-desk-bench [line]="line" />
      }
    </section>
  `,
  styleUrl: './desk-page.scss',
})
export class DeskPage {
  protected readonly desk = inject(DeskService);
  private readonly store = inject(SpotStore);
  private readonly session = inject(SessionService);
  protected readonly chosenKey = signal<string | null>(null);
  protected readonly say = sayProblem;

  protected readonly lines = computed<ShownLine[]>(() =>
    (this.desk.desk()?.lines ?? []).map((line) => ({
      line,
      key: keyOf(line),
      title: line.remedy ? remedyWords[line.remedy].act : decisionNames[line.kind],
      because: line.because.map((reason) => sayReason(reason, this.session.units())).join(' '),
      due: line.daysLate === null ? 'this season' : `${sayLateness(line.daysLate)}`,
      cost: Math.max(8, line.points),
    })),
  );

  protected readonly headline = computed(() => {
    const total = this.desk.desk()?.total;
    if (total === undefined) return 'Desk';
    return total === 1 ? '1 decision today' : `${total} decisions today`;
  });

  protected readonly rest = computed(() => Math.max(0, (this.desk.desk()?.total ?? 0) - this.lines().length));
  protected readonly chosen = computed(() => this.lines().find(({ key }) => key === this.chosenKey())?.line ?? null);

  constructor() {
    this.desk.refresh();
    effect(() => {
      // Keep a choice on screen: the first line until somebody picks another, the next one when it is settled.
      if (!this.chosen() && window.innerWidth > 980) this.chosenKey.set(this.lines()[0]?.key ?? null);
    });
    effect(() => {
      const line = this.chosen();
      if (line) this.store.open({ kind: 'spot', id: line.spotId });
    });
  }

  /** Arrow keys walk the list. */
  protected walk(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    const buttons = [
      ...((event.currentTarget as HTMLElement).closest('ol')?.querySelectorAll<HTMLButtonElement>('button.line') ?? []),
    ];
    const at = buttons.indexOf(document.activeElement as HTMLButtonElement);
    const next = buttons[at + (event.key === 'ArrowDown' ? 1 : -1)];
    next?.focus();
    next?.click();
  }
}
